/** New outlets with the shop's habits. */
import { newId } from '../core/job/document.ts';
import type { Area, Box, JobDocument } from '../core/job/schema.ts';
import type { Placement } from '../core/layout/place.ts';

/** The next free name for a room: its first letter and a number, such as S5. */
export function nextBoxName(document: JobDocument, area: Area, taken: readonly string[] = []): string {
  const letter = /[A-Za-z]/.exec(area.name)?.[0]?.toUpperCase() ?? 'R';
  const names = new Set([...Object.values(document.boxes).map((b) => b.name), ...taken]);
  for (let n = 1; ; n++) if (!names.has(`${letter}${n}`)) return `${letter}${n}`;
}

/** A new outlet where the placement engine wants one. */
export function boxAt(area: Area, name: string, placement: Omit<Placement, 'reason'>): Box {
  return {
    id: newId('box'),
    name,
    areaId: area.id,
    wallId: placement.wallId,
    offset: placement.offset,
    fromWall: placement.fromWall,
    height: placement.height,
    status: 'new',
    grounding: 'grounded',
    waterDistance: null,
    device: {
      kind: 'duplex',
      rating: 15,
      tamperResistant: true,
      weatherResistant: area.location !== 'dry' || area.kind === 'outdoors',
    },
    note: '',
  };
}
