/** Where an instrument can be put at a box: slots of its faces, screws, splices, ends of conductors, its metal, and the panel. */
import type { BoxWiring } from '#core/job/schema.ts';
import { DEVICES } from './devices.ts';
import { BOX, cableWords, endName, handsOf, placeOf, placesOf, spliceName, terminalAt } from './wiring.ts';

type ProbeKind = 'face' | 'panel' | 'splice' | 'screw' | 'end' | 'cable' | 'metal';

export interface ProbePlace {
  /** Stands in records: `face.top.hot`, `splice-hot`, `device.brass-1`, `feed.black`, `cable.feed`, `panel.neutral`, `box`. */
  key: string;
  name: string;
  kind: ProbeKind;
  /** The end stands alone: capped, or not on record as joined. */
  separated: boolean;
}

const SLOTS = [
  ['hot', 'hot slot'],
  ['hotB', 'other hot slot'],
  ['neutral', 'neutral slot'],
  ['ground', 'ground slot'],
] as const;
export type Slot = (typeof SLOTS)[number][0];

const faceKey = (face: string, slot: Slot): string => `face.${face}.${slot}`;
export const wholeFaceKey = (face: string): string => `face.${face}`;
export const cableKey = (cable: string): string => `cable.${cable}`;
const PANEL_PLACES = {
  'panel.hot': 'breaker, load terminal',
  'panel.hot-b': 'breaker, second load terminal',
  'panel.bus': 'bus or line lug',
  'panel.neutral': 'neutral bar',
  'panel.ground': 'ground bar',
} as const;
export type PanelPlace = keyof typeof PANEL_PLACES;
export const isPanelPlace = (key: string): key is PanelPlace => Object.hasOwn(PANEL_PLACES, key);

/** Faces of the devices in a box, by their names. */
export const facesIn = (wiring: BoxWiring): string[] =>
  wiring.yokes.flatMap((yoke) => DEVICES[yoke.kind].faces.map((f) => f.name));

/**
 * Every place at a box.
 * @param nameOf a box by its id
 */
export function probePlaces(wiring: BoxWiring, nameOf: (box: string) => string): ProbePlace[] {
  const place = (key: string, name: string, kind: ProbeKind, separated = false): ProbePlace => ({
    key,
    name,
    kind,
    separated,
  });
  const faces = wiring.yokes.flatMap((yoke) => {
    const { faces: all } = DEVICES[yoke.kind];
    return all.flatMap((face) =>
      SLOTS.filter(([slot]) => face[slot] !== null).map(([slot, words]) =>
        place(faceKey(face.name, slot), all.length > 1 ? `${words}, ${face.name}` : words, 'face'),
      ),
    );
  });
  const fixed = placesOf(wiring).filter((p) => p.kind !== 'box');
  const hands = handsOf(wiring).filter((e) => e.kind !== 'lead');
  const leads = wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].terminals
      .filter((t) => t.held === 'lead')
      .map((t) => place(terminalAt(yoke, t), t.name, 'end', placeOf(wiring, terminalAt(yoke, t)) === null)),
  );
  const cables = wiring.cables.filter((c) => c.stands === 'ends' && c.conductors.length > 0);
  return [
    ...faces,
    ...fixed.map((p) =>
      p.kind === 'splice' ? place(p.id, spliceName(p.id), 'splice') : place(p.id, p.name, 'screw'),
    ),
    ...hands.map((e) =>
      place(e.id, endName(wiring, e.id, nameOf), 'end', (placeOf(wiring, e.id) ?? null) === null),
    ),
    ...leads,
    ...cables.map((c) => place(cableKey(c.id), `whole cable, ${cableWords(c, nameOf)}`, 'cable')),
    ...(wiring.places.some((p) => p.at === BOX) ? [place(BOX, 'metal of the box', 'metal')] : []),
    ...Object.entries(PANEL_PLACES).map(([key, name]) => place(key, `panel: ${name}`, 'panel')),
  ];
}
