/** What was seen before a repair, under every cause that may have been there beside the mended one. */
import type { Branch } from './branch.ts';
import type { Evidence } from './evidence.ts';
import { WIDTH } from './fields.ts';
import { JOINT_CELLS } from './likelihood.ts';
import { isElectrical } from './slots.ts';
import { traitsOf } from './traits.ts';

/**
 * Logarithms by cell.
 * @param mended cell of the cause that was mended since
 */
export function besideMended(branch: Branch, evidence: Evidence, mended: number): Float64Array {
  const { predictions, likelihood, first } = branch;
  const { causes, opens, scenes } = predictions;
  const told = branch.of(evidence);
  const sound = told[0]!;
  const then = told[mended]!;
  // Whichever of the two changes more of what sound wiring shows, where the two are not worked out together.
  const logs = told.map((own) => (Math.abs(own - sound) > Math.abs(then - sound) ? own : then));
  const finding = branch.here(evidence.finding);
  if (!isElectrical(finding)) return logs;
  const x = causes.findIndex((_, c) => mended < first[c + 1]!);
  if (causes[x]!.faults.length === 0) return logs;
  const others = causes.flatMap((cause, c) => (c !== x && cause.faults.length > 0 ? [c] : []));
  const reader = predictions.pairsAt([finding.stop], [x, ...others]);
  const out = scenes.map(() => new Float32Array(WIDTH));
  reader.vary(x, JOINT_CELLS[mended - first[x]!]!);
  for (const y of others) {
    const traits = traitsOf(causes[x]!.kind, causes[y]!.kind);
    const opening = opens[x]!.device === null ? y : x;
    for (let at = first[y]!; at < first[y + 1]!; at++) {
      reader.vary(y, JOINT_CELLS[at - first[y]!]!);
      if (!reader.read(x, y, out)) continue;
      const share = likelihood.electrical(finding, out, 0, traits, opening, reader.opensAtOnce());
      logs[at] = Math.log(Math.max(share, 1e-30));
    }
  }
  return logs;
}
