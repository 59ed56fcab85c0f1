/**
 * The spaces of a panel: odd ones on the left, even ones on the right, each row on the other bus leg than the row
 * above. A breaker with two poles takes two spaces, one below the other, so that its poles are on opposite legs.
 */
import { rowsById } from '#core/job/document.ts';
import type { Circuit, JobDocument, Panel } from '#core/job/schema.ts';

export type Leg = 'A' | 'B';

/** Row of a space, from 0 at the top. */
export const rowOf = (space: number): number => Math.ceil(space / 2) - 1;
export const legOf = (space: number): Leg => (rowOf(space) % 2 === 0 ? 'A' : 'B');
/** The space below on the same side. */
const below = (space: number): number => space + 2;

type Placed = Pick<Circuit, 'space' | 'otherSpace' | 'breaker'>;
/** Spaces that a breaker takes, the pole of the black hot first. */
export const spacesOf = ({ space, otherSpace, breaker }: Placed): number[] =>
  breaker.poles === 2 ? [space, otherSpace ?? below(space)] : [space];

/** The bus legs of a circuit's hots, black first. */
export const legsOf = (circuit: Placed): Leg[] => spacesOf(circuit).map(legOf);

/** What stands in a space. */
export type Occupant = { circuit: Circuit } | { feeds: Panel };
export interface Space {
  space: number;
  leg: Leg;
  /** One occupant, two halves of a tandem, or more than belong there. */
  occupants: Occupant[];
}

export const idOf = (o: Occupant): string => ('circuit' in o ? o.circuit.id : o.feeds.id);
export const nameOf = (o: Occupant): string => ('circuit' in o ? o.circuit.name : o.feeds.name);

/** Every space of a panel with what stands in it. Poles that lie beyond the last space are left out. */
export function spacesIn(document: JobDocument, panel: Panel): Space[] {
  const spaces = Array.from({ length: panel.spaces }, (_, i): Space => ({
    space: i + 1,
    leg: legOf(i + 1),
    occupants: [],
  }));
  const put = (at: number, occupant: Occupant) => spaces[at - 1]?.occupants.push(occupant);
  for (const circuit of rowsById(document.circuits)) {
    if (circuit.panelId !== panel.id || circuit.status === 'remove') continue;
    for (const at of spacesOf(circuit)) put(at, { circuit });
  }
  for (const feeds of rowsById(document.panels)) {
    if (feeds.feeder?.panelId !== panel.id) continue;
    for (const at of [feeds.feeder.space, below(feeds.feeder.space)]) put(at, { feeds });
  }
  return spaces;
}

/** Whether what stands in a space may stand there together: one breaker, or two halves of a tandem. */
export function isClash({ occupants }: Space): boolean {
  if (occupants.length < 2) return false;
  const halves = occupants.map((o) => ('circuit' in o ? o.circuit.half : 'whole'));
  return new Set(halves).size < occupants.length || halves.includes('whole');
}

/**
 * The first free space for a breaker of so many poles; null when there is none.
 * @param among spaces to look at, all of them unless given
 */
export function freeSpace(spaces: readonly Space[], poles: number, among = spaces): number | null {
  const isFree = (at: number) => spaces[at - 1]?.occupants.length === 0;
  return among.find(({ space }) => isFree(space) && (poles === 1 || isFree(below(space))))?.space ?? null;
}

/** Whether a circuit's breaker would fit whole at a space, its own spaces apart. */
export function fitsAt(spaces: readonly Space[], circuit: Circuit, space: number): boolean {
  return spacesOf({ ...circuit, space, otherSpace: null }).every(
    (at) => spaces[at - 1]?.occupants.every((o) => idOf(o) === circuit.id) ?? false,
  );
}
