/** What each kind of opening means to walls and cords. */
import type { Opening, OpeningKind } from '#core/job/schema.ts';

const THROUGH: readonly OpeningKind[] = ['door', 'opening', 'sliding-panel', 'fixed-glass', 'window'];
/** Openings that go through the wall. */
export const goesThrough = (o: Opening): boolean => THROUGH.includes(o.kind);

/** Openings a cord can run through. */
export const isPassage = (o: Opening): boolean =>
  o.kind === 'door' || o.kind === 'opening' || o.kind === 'sliding-panel';
