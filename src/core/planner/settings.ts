/** What a shop asks of its plans, and how it counts what a circuit carries. */
import { isOutlet, isReceptacle } from '#core/plan/wallSpaces.ts';
import type { Box, Circuit, JobDocument } from '#core/job/schema.ts';
import type { PriceBook } from '#core/panel/prices.ts';
import { NEEDS_AFCI, NEEDS_GFCI } from './search/problem.ts';

/** The designated circuits of 210.11(C), individual circuits, and everything else. */
export const SORTS = ['kitchen', 'laundry', 'bathroom', 'individual', 'general'] as const;
export type Sort = (typeof SORTS)[number];

export interface PlannerSettings {
  prices: PriceBook;
  /** The panel that circuits are planned from; null is the first one at a service. */
  panelId: string | null;
  /** Share of each circuit left for what comes later, percent. */
  spare: number;
  /** A room whose lights and receptacles all go out with one breaker costs the plan something. */
  lightsApart: boolean;
  /** GFCI for what asks for it and has none: at the breaker, or a receptacle at the first box. */
  gfciAt: 'breaker' | 'first-box';
  /** Cables that may leave a box. */
  maxOut: number;
  /** New outlets may be fed from boxes of existing circuits. */
  extend: boolean;
  /** Circuits to leave as they are, beside those that exist or are on record as proved. */
  locked: readonly string[];
}

/** What a shop changes of these; the rest follows from the job. */
export const PLAIN_PLANNING: Omit<PlannerSettings, 'prices'> = {
  panelId: null,
  spare: 0,
  lightsApart: false,
  gfciAt: 'breaker',
  maxOut: 2,
  extend: false,
  locked: [],
};

/** Load units: a receptacle outlet is two, a light or an alarm one. */
const RECEPTACLE_UNITS = 2;

export const unitsOf = (box: Box): number => (!isOutlet(box) ? 0 : isReceptacle(box) ? RECEPTACLE_UNITS : 1);

/** Most load units on a circuit: the shop’s habit is for 20 A; in proportion for others. */
export const unitsOn = (rating: number, { job }: JobDocument, { spare }: PlannerSettings): number =>
  RECEPTACLE_UNITS * Math.max(1, Math.floor((job.settings.maxReceptacles * rating * (1 - spare / 100)) / 20));

/** The protection of a breaker that gives what is asked for by `NEEDS_AFCI` and `NEEDS_GFCI`, beside what it gives. */
export function protectionWith(
  asked: number,
  before: Circuit['breaker']['protection'] = 'none',
): Circuit['breaker']['protection'] {
  const afci = (asked & NEEDS_AFCI) > 0 || before === 'afci' || before === 'dual';
  const gfci = (asked & NEEDS_GFCI) > 0 || before === 'gfci' || before === 'dual';
  return afci && gfci ? 'dual' : afci ? 'afci' : gfci ? 'gfci' : 'none';
}
