/** Whether a device in a box can be tested and reset. */
import { outlineOf } from '#core/job/outline.ts';
import type { Box, Fixture } from '#core/job/schema.ts';
import { floorLineOf } from '#core/plan/counters.ts';
import type { View } from '#core/view/view.ts';

/** Highest that is readily reached, 6 ft 7 in. as for handles of breakers and switches, 404.8(A), inches. */
const HIGHEST_REACH = 79;

/** A fastened appliance that stands in front of an outlet. */
function behind(view: View, box: Box): Fixture | undefined {
  const area = view.document.areas[box.areaId];
  if (!area || box.mount !== 'wall') return undefined;
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === box.wallId);
  return view.fixturesIn(area).find((f) => {
    const line = wall && f.fastened && f.kind !== 'counter' ? floorLineOf(outline, f) : null;
    const at = wall ? wall.start + box.offset : NaN;
    return line !== null && at > line.from && at < line.to && box.height < f.height && f.fromWall < 6;
  });
}

/** Where a box is that cannot be got at; null when it can. */
export function outOfReach(view: View, box: Box): string | null {
  const hidden = behind(view, box);
  if (hidden) return `behind the ${hidden.name}, which is fastened in place`;
  if (!box.accessible) return 'out of reach';
  return box.mount === 'ceiling' || box.height > HIGHEST_REACH ? 'too high to reach without a ladder' : null;
}
