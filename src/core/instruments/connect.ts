/** Where instruments are put. */
import type { Conductor, Terminals, Wiring } from '#core/network/wiring.ts';

/** Hot–neutral, hot–ground and neutral–ground of a face. */
export const slotPairs = ({ hot, neutral, ground }: Terminals) =>
  [
    [hot, neutral],
    [hot, ground],
    [neutral, ground],
  ] as const;

/** The cable's conductors that arrive at a box: their branches. */
export const cableAt = ({ spots }: Wiring, stop: number): { conductor: Conductor; branch: number }[] =>
  spots.filter((s) => s.stop === stop && s.part === 'cable');
