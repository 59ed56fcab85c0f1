/** Two causes at once: which of them a finding speaks of, and how likely it is with both in the network. */
import type { Branch } from './branch.ts';
import { logOf } from './densities.ts';
import type { Evidence } from './evidence.ts';
import { WIDTH } from './fields.ts';
import { JOINT_CELLS } from './likelihood.ts';
import type { PairsAt } from './predictions.ts';
import { isElectrical, type Electrical, type Row } from './slots.ts';
import { traitsOf } from './traits.ts';

/** Of two logarithms the one further from what sound wiring has; the first where they are as far. */
export const stronger = (one: number, other: number, sound: number): number =>
  Math.abs(other - sound) > Math.abs(one - sound) ? other : one;

/** Findings that follow from the network, each with where its outlet’s row begins in a table over the stops. */
export function electricalOf(
  branch: Branch,
  evidence: readonly Evidence[],
): { electrical: { k: number; finding: Electrical; at: number }[]; stops: number[] } {
  const stops: number[] = [];
  const electrical = evidence.flatMap((e, k) => {
    const finding = branch.here(e.finding);
    if (!isElectrical(finding)) return [];
    if (!stops.includes(finding.stop)) stops.push(finding.stop);
    return [{ k, finding, at: stops.indexOf(finding.stop) * WIDTH }];
  });
  return { electrical, stops };
}

/** Logarithms of findings with the two causes that were read last; of two devices that of the first opens. */
export function bothOf(
  { predictions: { causes, opens }, likelihood }: Branch,
  [x, y]: readonly [number, number],
  reader: PairsAt,
  read: readonly Row[],
): (finding: Electrical, at: number) => number {
  const traits = traitsOf(causes[x]!.kind, causes[y]!.kind);
  const opening = opens[x]!.device === null ? y : x;
  const open = reader.opensAtOnce();
  return (finding, at) => logOf(likelihood.electrical(finding, read, at, traits, opening, open));
}

/**
 * What was seen before a repair, under every cause that may have been there beside the mended one: logarithms by cell.
 * @param mended cell of the cause that was mended since
 */
export function besideMended(branch: Branch, seen: readonly Evidence[], mended: number): Float64Array[] {
  const { predictions, first } = branch;
  const { causes, scenes } = predictions;
  // Where the two are not worked out together, whichever of them changes more.
  const logs = seen.map((e) => {
    const told = branch.of(e);
    return told.map((own) => stronger(told[mended]!, own, told[0]!));
  });
  const { electrical, stops } = electricalOf(branch, seen);
  const x = causes.findIndex((_, c) => mended < first[c + 1]!);
  if (electrical.length === 0 || causes[x]!.faults.length === 0) return logs;
  const others = causes.flatMap((cause, c) => (c !== x && cause.faults.length > 0 ? [c] : []));
  const reader = predictions.pairsAt(stops, [x, ...others]);
  const read = scenes.map(() => new Float32Array(stops.length * WIDTH));
  reader.vary(x, JOINT_CELLS[mended - first[x]!]!);
  for (const y of others)
    for (let cell = first[y]!; cell < first[y + 1]!; cell++) {
      reader.vary(y, JOINT_CELLS[cell - first[y]!]!);
      if (!reader.read(x, y, read)) continue;
      const both = bothOf(branch, [x, y], reader, read);
      for (const { k, finding, at } of electrical) logs[k]![cell] = both(finding, at);
    }
  return logs;
}
