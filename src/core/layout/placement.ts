/** A new outlet as it is proposed, and as it goes into the job. */
import { exposureOf } from '#core/tables/areas.ts';
import { newId, PLAIN_BOX, PLAIN_DEVICE } from '#core/job/document.ts';
import { freeName, namesIn } from '#core/job/names.ts';
import type { Area, Box, JobDocument, Mount } from '#core/job/schema.ts';

export interface Placement {
  areaId: string;
  wallId: string;
  offset: number;
  height: number;
  fromWall: number;
  mount: Mount;
  fixtureId: string | null;
  serves: string | null;
  purpose: Box['purpose'];
  device: Partial<Box['device']>;
  /** Why it stands where it stands. */
  reason: string;
  /** What another place would cost; null where that was not looked into. */
  alternative: string | null;
}

/** The next free name for a room: its first letter and a number, such as S5. */
export function nextBoxName(document: JobDocument, area: Area): string {
  return freeName(letterOf(area), namesIn(document));
}

/** The letter that the outlets of a room are named by. */
export const letterOf = (area: Area): string => /[A-Za-z]/.exec(area.name)?.[0]?.toUpperCase() ?? 'R';

type Place = Pick<Box, 'wallId' | 'offset' | 'height' | 'fromWall'>;

/** What the weather of a place asks of a small receptacle there. */
export function weatheredAt(area: Area): Pick<Box['device'], 'weatherResistant' | 'cover'> {
  const exposed = exposureOf(area);
  return {
    weatherResistant: exposed !== 'dry',
    cover: exposed === 'wet' ? 'in-use' : exposed === 'damp' ? 'weatherproof' : 'indoor',
  };
}

/** A new receptacle at a place, with the shop's and the location's usual device. */
export function newBox(area: Area, name: string, place: Place & Partial<Omit<Placement, keyof Place>>): Box {
  return {
    ...PLAIN_BOX,
    id: newId('box'),
    name,
    areaId: area.id,
    wallId: place.wallId,
    offset: place.offset,
    fromWall: place.fromWall,
    height: place.height,
    status: 'new',
    grounding: 'grounded',
    waterDistance: null,
    device: {
      kind: 'duplex',
      rating: 15,
      tamperResistant: true,
      ...PLAIN_DEVICE,
      ...weatheredAt(area),
      ...place.device,
    },
    mount: place.mount ?? (place.fromWall > 0 ? 'floor' : 'wall'),
    fixtureId: place.fixtureId ?? null,
    serves: place.serves ?? null,
    purpose: place.purpose ?? 'general',
    controls: [],
    note: '',
  };
}
