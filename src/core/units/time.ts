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

const calendars = new Map<string | null, Intl.DateTimeFormat>();

/**
 * The day of a moment, as `2026-05-04`.
 * @param zone such as America/Denver; null where the device is
 */
function dayOf(at: string, zone: string | null): string {
  const calendar =
    calendars.get(zone) ??
    new Intl.DateTimeFormat('en-CA', {
      ...{ year: 'numeric', month: '2-digit', day: '2-digit' },
      ...(zone === null ? {} : { timeZone: zone }),
    });
  calendars.set(zone, calendar);
  const moment = Date.parse(at);
  return Number.isNaN(moment) ? '' : calendar.format(moment);
}

/** The time zone of the device. */
export const zoneHere = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Whether there is such a time zone. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-CA', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** Whether two moments are of one day. @param zone of the house; null where the device is */
export const isSameDay = (a: string, b: string, zone: string | null): boolean =>
  dayOf(a, zone) === dayOf(b, zone);
