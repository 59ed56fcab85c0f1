/** A hunt on the drawing of its run: the share of each box and of the cable before it, and faults mended there. */
import type { Run } from '#core/circuits/run.ts';
import type { FaultRecord } from '#core/job/schema.ts';
import type { Advised } from '#core/procedures/hunting/advise.ts';
import type { StopResult } from '../run/drawing.ts';

/** From this share on a place is marked. */
const LEAST = 0.03;

export function marksOf(
  run: Run,
  advised: Advised | null,
  faults: readonly FaultRecord[],
): Record<string, StopResult> {
  const marks: Record<string, StopResult> = {};
  for (const { boxId, found } of faults)
    if (boxId) marks[boxId] = { grade: 'good', text: `mended: ${found}`, volts: 'mended' };
  run.stops.forEach(({ box }, stop) => {
    const here = (advised?.suspects ?? []).filter((s) => s.stop === stop);
    const share = here.reduce((sum, s) => sum + s.share, 0);
    if (share < LEAST) return;
    const deadly = here.some((s) => s.danger === 'shock' || s.danger === 'overvoltage');
    marks[box.id] = {
      grade: deadly ? 'bad' : 'worry',
      text: here.map((s) => s.words).join('; '),
      volts: `${Math.round(100 * share)} %`,
    };
  });
  return marks;
}
