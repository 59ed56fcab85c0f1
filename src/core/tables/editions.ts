/** Editions of the code as data: what holds since which. A new one takes what it does not change from the one before. */
import { EDITIONS, type Edition } from '#core/job/schema.ts';

/** Whether an edition is this one or a later one. Editions are named by their year. */
export const since = (edition: Edition, first: Edition): boolean => Number(edition) >= Number(first);

/** A value for the first edition, and for each later one that changes it. */
export type PerEdition<T> = Readonly<Record<(typeof EDITIONS)[0], T> & Partial<Record<Edition, T>>>;

export const always = <T>(value: T): PerEdition<T> => ({ [EDITIONS[0]]: value });

/** What holds in an edition: the newest entry that is not later. */
export function at<T>(values: PerEdition<T>, edition: Edition): T {
  const own = values as Partial<Record<Edition, T>>;
  if (edition in own) return own[edition]!;
  let value = values[EDITIONS[0]];
  let newest = 0;
  for (const [year, changed] of Object.entries(values) as [Edition, T][]) {
    if (!since(edition, year) || Number(year) < newest) continue;
    newest = Number(year);
    value = changed;
  }
  return value;
}
