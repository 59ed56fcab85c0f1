/** Two causes at once: which of them a finding speaks of, and how likely it is with both in the network. */
import type { Branch } from './branch.ts';
import { isAt } from './causes.ts';
import { logOf } from './densities.ts';
import { ampsShare, breakerShare, openedShare } from './devices.ts';
import { DEAD_PAIRS, type Evidence, type Finding } from './evidence.ts';
import { WIDTH } from './fields.ts';
import { deadDensity, isDead, JOINT_CELLS, type Dead } from './likelihood.ts';
import { NOTHING_OPENS, type Opens, type PairsAt } from './predictions.ts';
import { isElectrical, type Electrical, type Row } from './slots.ts';
import { traitsOf } from './traits.ts';

/** Of two logarithms the one further from what sound wiring has; the first where they are as far. */
export const stronger = (one: number, other: number, sound: number): number =>
  Math.abs(other - sound) > Math.abs(one - sound) ? other : one;

/**
 * What was found in a box, by all causes that are there at once: null of any other finding.
 * @returns logarithm by causes
 */
export function inBox(branch: Branch, evidence: Evidence): ((causes: readonly number[]) => number) | null {
  const finding = branch.here(evidence.finding);
  if (finding.kind !== 'opened') return null;
  const { causes } = branch.predictions;
  return (list) => {
    const here = [...new Set(list)].filter((c) => isAt(causes[c]!.place, finding.stop));
    return logOf(
      openedShare(
        finding.found,
        here.map((c) => causes[c]!.kind),
      ),
    );
  };
}

/** Findings that are worked out with two causes in the network. */
type WorkedOut = Electrical | Dead | Extract<Finding, { kind: 'breaker' | 'amps' }>;
const isWorkedOut = (finding: Finding): finding is WorkedOut =>
  isElectrical(finding) || isDead(finding) || finding.kind === 'breaker' || finding.kind === 'amps';

export interface Exact {
  /** Each with its position in the evidence, and its outlet’s among the stops. */
  findings: { k: number; finding: WorkedOut; row: number }[];
  stops: number[];
  /** Whether something was read on the dead circuit. */
  dead: boolean;
}

/** Findings that follow from the network, and the outlets that they are of. */
export function exactOf(branch: Branch, evidence: readonly Evidence[]): Exact {
  const stops: number[] = [];
  const findings = evidence.flatMap((e, k): Exact['findings'] => {
    const finding = branch.here(e.finding);
    if (!isWorkedOut(finding)) return [];
    if (!('stop' in finding)) return [{ k, finding, row: -1 }];
    if (!stops.includes(finding.stop)) stops.push(finding.stop);
    return [{ k, finding, row: stops.indexOf(finding.stop) }];
  });
  return { findings, stops, dead: findings.some((f) => isDead(f.finding)) };
}

/** Logarithms of findings with the two causes that were read last; of two devices that of the first opens. */
export function bothOf(
  branch: Branch,
  [x, y]: readonly [number, number],
  reader: PairsAt,
  read: readonly Row[],
): (finding: WorkedOut, row: number) => number {
  const { predictions, likelihood } = branch;
  const { causes, opens } = predictions;
  const { rating } = predictions.ground.run.circuit.breaker;
  const traits = traitsOf(causes[x]!.kind, causes[y]!.kind);
  const opening = opens[x]!.device === null ? y : x;
  const { last } = reader;
  const open = last.breaker === 'at once';
  return (finding, row) => {
    switch (finding.kind) {
      case 'ohms':
      case 'insulation': {
        const told = last.dead[row * DEAD_PAIRS.length + DEAD_PAIRS.indexOf(finding.pair)]!;
        return logOf(deadDensity(finding, told));
      }
      case 'breaker': {
        const share = (c: number, own: Opens) => logOf(breakerShare(finding, causes[c]!, own, rating));
        if (last.breaker !== 'no') return share(x, { ...NOTHING_OPENS, breaker: last.breaker });
        // What the other one keeps from opening it does not.
        const [one, other] = [x, y].map((c) => share(c, { ...opens[c]!, breaker: 'no' })) as [number, number];
        return stronger(one, other, share(0, NOTHING_OPENS));
      }
      case 'amps':
        return logOf(ampsShare(finding.amps, last.amps, rating));
      default:
        return logOf(likelihood.electrical(finding, read, row * WIDTH, traits, opening, open));
    }
  };
}

/**
 * What was seen before a repair, under every cause that may have been there beside the mended one: logarithms by cell.
 * @param mended cell of the cause that was mended since
 */
export function besideMended(branch: Branch, seen: readonly Evidence[], mended: number): Float64Array[] {
  const { predictions, first } = branch;
  const { causes, scenes } = predictions;
  const x = branch.causeAt(mended);
  // Where the two are not worked out together, whichever of them changes more.
  const logs = seen.map((e) => {
    const found = inBox(branch, e);
    if (found) return branch.byCell((c) => found([x, c]));
    const told = branch.of(e);
    return told.map((own) => stronger(told[mended]!, own, told[0]!));
  });
  const { findings, stops, dead } = exactOf(branch, seen);
  if (findings.length === 0 || causes[x]!.faults.length === 0) return logs;
  const others = causes.flatMap((cause, c) => (c !== x && cause.faults.length > 0 ? [c] : []));
  const reader = predictions.pairsAt(stops, [x, ...others], dead);
  const read = scenes.map(() => new Float32Array(stops.length * WIDTH));
  reader.vary(x, JOINT_CELLS[mended - first[x]!]!);
  for (const y of others)
    for (let cell = first[y]!; cell < first[y + 1]!; cell++) {
      reader.vary(y, JOINT_CELLS[cell - first[y]!]!);
      if (!reader.read(x, y, read)) continue;
      const both = bothOf(branch, [x, y], reader, read);
      for (const { k, finding, row } of findings) logs[k]![cell] = both(finding, row);
    }
  return logs;
}
