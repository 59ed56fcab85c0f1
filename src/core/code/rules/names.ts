import type { RunStop } from '#core/circuits/run.ts';

/** Outlets of a run in words: three by name, the rest by number. */
export const namesOf = (stops: readonly RunStop[]): string => {
  const names = stops.slice(0, 3).map((s) => s.box.name);
  const rest = stops.length - names.length;
  return rest > 0 ? `${names.join(', ')} and ${rest} more` : names.join(', ');
};

/** Whether any of this is work that today's rule reaches. */
export const isAltered = (stops: readonly RunStop[]): boolean =>
  stops.some(({ box }) => box.status === 'new' || box.status === 'replace');
