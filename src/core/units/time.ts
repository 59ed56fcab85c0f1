/**
 * Moments in UTC, as text: `2026-05-04T14:30:00Z` or `2026-05-04T14:30:00.5Z`. As mere text the second comes before the first,
 * for a point sorts before a Z, so they are never compared as such.
 */

/** What is earlier first; what is no moment, as the empty text for never, comes before all. */
export function byTime(a: string, b: string): number {
  // Of one form text is in the order of time, and much quicker to compare than to read.
  if (a.length === b.length) return a < b ? -1 : a > b ? 1 : 0;
  const [x, y] = [Date.parse(a), Date.parse(b)].map((t) => (Number.isNaN(t) ? -1e18 : t));
  return x! - y!;
}
export const isBefore = (a: string, b: string): boolean => byTime(a, b) < 0;
export const isAfter = (a: string, b: string): boolean => byTime(a, b) > 0;

/** Whether two moments are of one day where the device is. */
export const isSameDay = (a: string, b: string): boolean =>
  new Date(a).toDateString() === new Date(b).toDateString();
