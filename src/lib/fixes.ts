/** Carries out fixes, among them the placement of outlets, on an open job. */
import type { Fix } from '../core/code/rule.ts';
import type { Command } from '../core/job/commands.ts';
import { AREA_FACTS } from '../core/code/tables/areas.ts';
import type { Area, Box } from '../core/job/schema.ts';
import { placeMissing } from '../core/layout/place.ts';
import { boxAt, nextBoxName } from './outlets.ts';
import type { JobSession } from './store/session.svelte.ts';

export interface Placed {
  name: string;
  areaName: string;
  reason: string;
}

/** Places what is missing in the given rooms as one step of undo. Says what was placed and why. */
export async function placeIn(session: JobSession, areas: readonly Area[]): Promise<Placed[]> {
  const { document, view } = session;
  const boxes: Box[] = [];
  const placed: Placed[] = [];
  for (const area of areas) {
    if (!AREA_FACTS[area.kind].wallSpacing) continue;
    const spots = placeMissing(
      area,
      view.openingsIn(area),
      view.boxesIn(area),
      view.edition,
      document.job.settings,
    );
    for (const spot of spots) {
      const name = nextBoxName(
        document,
        area,
        boxes.map((b) => b.name),
      );
      boxes.push(boxAt(area, name, spot));
      placed.push({ name, areaName: area.name, reason: spot.reason });
    }
  }
  if (boxes.length === 0) return [];
  const command: Command = {
    type: 'batch',
    label: `Place ${boxes.length} missing ${boxes.length === 1 ? 'outlet' : 'outlets'}`,
    commands: [{ type: 'put', table: 'boxes', rows: boxes }],
  };
  return (await session.execute(command)) ? placed : [];
}

/** Applies a fix; answers with what was placed, if it was a placement. */
export async function applyFix(session: JobSession, fix: Fix): Promise<Placed[]> {
  if ('command' in fix) {
    await session.execute({ type: 'batch', label: fix.label, commands: [fix.command] });
    return [];
  }
  const area = session.document.areas[fix.placeIn];
  return area ? placeIn(session, [area]) : [];
}
