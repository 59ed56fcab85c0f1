/** Where a call stands, in a few words. */
import type { Call } from '#core/job/schema.ts';
import { contextOf, standingOf, type Standing } from '#core/procedures/engine.ts';
import { procedureOf } from '#core/procedures/index.ts';
import type { View } from '#core/view/view.ts';

/** The next step, or how it ended. */
export const nextOf = ({ current, stopped }: Pick<Standing, 'current' | 'stopped'>): string =>
  current?.title ?? (stopped ? 'left off, for safety' : 'finished, on record');

export function standsAt(view: View, call: Call): string {
  const procedure = procedureOf(call.procedure);
  if (!procedure) return 'its procedure is not in this Hekto';
  const standing = standingOf(procedure, contextOf(view, call, new Date().toISOString()));
  return `${standing.current ? 'next: ' : ''}${nextOf(standing)}`;
}
