/** What cable, breakers and devices cost where the shop has entered no prices of its own: made-up figures, cents. */
import type { Gauge } from '../job/schema.ts';

export interface Prices {
  /** Two-conductor cable with ground, cents a foot, by gauge. */
  cable: Partial<Record<Gauge, number>>;
  /** Single-pole breaker by its protection. */
  breaker: { none: number; afci: number; gfci: number; dual: number };
  /** A GFCI receptacle beyond a plain one. */
  gfciReceptacle: number;
  /** What a segment from one room into another costs beyond its cable: holes, plates, a run harder to follow. */
  roomChange: number;
}

export const MADE_UP_PRICES: Prices = {
  cable: { '14': 48, '12': 72, '10': 118, '8': 190, '6': 270 },
  breaker: { none: 700, afci: 4600, gfci: 5200, dual: 5900 },
  gfciReceptacle: 1900,
  roomChange: 300,
};
