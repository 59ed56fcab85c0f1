/** Carries out fixes, among them the placement of outlets, on an open job. */
import type { Fix } from '#core/code/rule.ts';
import type { Command } from '#core/job/commands.ts';
import type { Area } from '#core/job/schema.ts';
import type { HousePlan } from '#core/layout/placeMissing.ts';
import type { JobSession } from './store/session.svelte.ts';
import { placeAside } from './workers/placement.ts';

const NOTHING: HousePlan = { placed: [], unplaced: [] };

/** What another place would cost is worked out for at most this many rooms at once. */
const EXPLAINED_ROOMS = 40;

/** Places what is missing in the given rooms as one step of undo. Says what was placed, and why. */
export async function placeIn(session: JobSession, areas: readonly Area[]): Promise<HousePlan> {
  const ids = areas.map((a) => a.id);
  const plan = await placeAside(session.document, ids, ids.length <= EXPLAINED_ROOMS).catch((error) => {
    session.failure = `Nothing was placed: ${String(error)}`;
    return NOTHING;
  });
  const { placed } = plan;
  if (placed.length === 0) return plan;
  const command: Command = {
    type: 'batch',
    label: `Place ${placed.length} missing ${placed.length === 1 ? 'outlet' : 'outlets'}`,
    commands: [{ type: 'put', table: 'boxes', rows: placed.map((p) => p.box) }],
  };
  return (await session.execute(command)) ? plan : NOTHING;
}

/** Applies a fix; answers with what was placed, if it was a placement. */
export async function applyFix(session: JobSession, fix: Fix): Promise<HousePlan> {
  if ('command' in fix) {
    await session.execute({ type: 'batch', label: fix.label, commands: [fix.command] });
    return NOTHING;
  }
  const area = session.document.areas[fix.placeIn];
  return area ? placeIn(session, [area]) : NOTHING;
}
