/** Two causes at once: those that explain something, with each that explains something else. */
import type { Branch, Hypothesis } from './branch.ts';
import { placeKey } from './causes.ts';
import type { Evidence } from './evidence.ts';
import { JOINT_CELLS } from './likelihood.ts';
import { FIELD, NOMINAL, WIDTH } from './fields.ts';
import { USUAL_OHMS, type PairsAt } from './predictions.ts';
import { bothOf, exactOf, inBox, stronger } from './together.ts';
import { traitsOf } from './traits.ts';

/** How often a house has a second fault on the circuit, and how much oftener beside the first. */
const TWO_FAULTS = 0.05;
const BESIDE = 6;
/** Pairs are made of so many that explain something, with so many beside. */
const FIRSTS = 26;
const SECONDS = 160;
/** Of so many pairs with poor joints the ohms are fitted together, in so many rounds. */
const FITTED = 24;
const ROUNDS = 2;
/** Pairs that are so much less likely than the best single one are not looked at, natural logarithm. */
const HOPELESS = 18;

/** The cell of the ohms that are more on the way than the cable has, by what was read under a load; the usual without. */
function cellRead({ predictions, here }: Branch, evidence: readonly Evidence[]): number {
  const over = evidence.flatMap((e) => {
    const finding = here(e.finding);
    if (finding.kind !== 'volts' || finding.amps === 0) return [];
    const { hotNeutral } = finding.volts;
    if (hotNeutral === null || hotNeutral < 5) return [];
    const amps = (finding.amps * hotNeutral) / NOMINAL;
    const way = predictions.at(0, 0, finding.stop, FIELD.ohms);
    return [((finding.free ?? NOMINAL) - hotNeutral) / amps - way];
  });
  const ohms = Math.max(JOINT_CELLS[0]!, over.length > 0 ? Math.max(...over) : USUAL_OHMS);
  const off = JOINT_CELLS.map((cell) => Math.abs(Math.log(cell / ohms)));
  return off.indexOf(Math.min(...off));
}

/** @param b position of the branch */
export function pairsOf(
  branch: Branch,
  b: number,
  singles: readonly Hypothesis[],
  evidence: readonly Evidence[],
): Hypothesis[] {
  const { predictions, first, priors } = branch;
  const { causes } = predictions;
  if (branch.unworkable.has(0)) return [];
  const isJoint = (c: number) => causes[c]!.parted !== null;
  const told = evidence.map((e) => branch.of(e));
  const sound = told.map((of) => of[0]!);
  // A poor joint has one figure for all findings: at first the one that explains most of them.
  const usual = cellRead(branch, evidence);
  const gainOf = (i: number) => told.reduce((sum, of, k) => sum + Math.max(0, of[i]! - sound[k]!), 0);
  const cell = causes.map((_, c) => {
    // One that explains nothing by itself is a usual one.
    let at = first[c]! + (isJoint(c) ? usual : 0);
    let most = gainOf(at);
    for (let i = first[c]!; i < first[c + 1]!; i++) {
      const gain = gainOf(i);
      if (gain > most) [at, most] = [i, gain];
    }
    return at;
  });
  const best = (c: number, k: number) => told[k]![cell[c]!]!;
  // A finding that sound wiring would not show, and this explains, is its gain.
  const gains = causes
    .map((cause, c) => ({
      c,
      gain: priors[c]! + gainOf(cell[c]!),
      // What lies before the panel is mended by itself first: no pair is made of it.
      counts: cause.faults.length > 0 && !traitsOf(cause.kind).supply && !branch.unworkable.has(c),
    }))
    .filter((g) => g.counts)
    .sort((x, y) => y.gain - x.gain);
  const leading = Math.max(...singles.map((s) => s.log));
  const [tops, seconds] = [gains.slice(0, FIRSTS), gains.slice(0, SECONDS)];
  const { findings, stops, dead } = exactOf(branch, evidence);
  const out = predictions.scenes.map(() => new Float32Array(stops.length * WIDTH));
  const before = Math.log(branch.drawing.share);
  const found = evidence.map((e) => inBox(branch, e));
  const combined = (k: number, x: number, y: number) =>
    found[k]?.([x, y]) ?? stronger(best(x, k), best(y, k), sound[k]!);
  // Of a finding that was worked out with the two before, as they still are, nothing is worked out again; where that is so of
  // all, the network is not even made.
  const known = branch.knownPairs();
  const cellOf = [...cell];
  let made: PairsAt | null = null;
  const ohmsOf = (c: number) => JOINT_CELLS[cellOf[c]! - first[c]!]!;
  const reader = (): PairsAt => {
    if (made) return made;
    const listed = [...new Set([...tops, ...seconds].map((g) => g.c))];
    made = predictions.pairsAt(stops, listed, dead);
    for (const c of listed) made.vary(c, ohmsOf(c));
    return made;
  };
  const vary = (c: number, at: number) => {
    cellOf[c] = first[c]! + at;
    made?.vary(c, ohmsOf(c));
  };
  /** What follows from the network, worked out with both in it; null where the two cannot be at once, or nothing follows. */
  const exact = (x: number, y: number): number | null => {
    if (findings.length === 0) return null;
    const logs = known(cellOf[x]!, cellOf[y]!);
    if (findings.some(({ k }) => !logs.has(evidence[k]!.id))) {
      if (!reader().read(x, y, out)) return null;
      const both = bothOf(branch, [x, y], reader(), out);
      for (const { k, finding, row } of findings) logs.set(evidence[k]!.id, both(finding, row));
    }
    return findings.reduce((sum, { k }) => sum + logs.get(evidence[k]!.id)! - combined(k, x, y), 0);
  };
  const done = new Set<number>();
  const list: (Hypothesis & { rough: number; second: number })[] = [];
  for (const { c: x } of tops)
    for (const { c: y } of seconds) {
      const key = Math.min(x, y) * causes.length + Math.max(x, y);
      if (x === y || done.has(key) || causes[x]!.key === causes[y]!.key) continue;
      done.add(key);
      const near = 'stop' in causes[x]!.place && placeKey(causes[x]!.place) === placeKey(causes[y]!.place);
      const prior = before + Math.log(TWO_FAULTS * (near ? BESIDE : 1)) + priors[x]! + priors[y]!;
      const rough = evidence.reduce((sum, _, k) => sum + combined(k, x, y), prior);
      if (rough < leading - HOPELESS) continue;
      list.push({ branch: b, cause: x, second: y, log: rough + (exact(x, y) ?? 0), ohms: null, rough });
    }
  if (findings.length > 0) fitTogether();
  return list;

  /** Joints of the likeliest pairs, and of those that are likely for what they are, get the ohms that fit both. */
  function fitTogether(): void {
    const joints = list.filter((h) => isJoint(h.cause) && isJoint(h.second));
    const likely = [...joints].sort((p, q) => q.log - p.log).slice(0, FITTED / 2);
    const unlike = joints
      .filter((h) => causes[h.cause]!.kind !== causes[h.second]!.kind)
      .sort((p, q) => q.rough - p.rough)
      .slice(0, FITTED / 2);
    // A joint beside what is no joint shows otherwise than by itself: reversed slots, a false ground.
    const beside = list
      .filter((h) => isJoint(h.cause) !== isJoint(h.second))
      .sort((p, q) => q.log - p.log)
      .slice(0, FITTED);
    for (const h of new Set([...likely, ...unlike, ...beside])) {
      const pair = [h.cause, h.second].filter(isJoint);
      const at = pair.map((c) => cell[c]! - first[c]!);
      let most = h.log;
      for (let round = 0; round < (pair.length > 1 ? ROUNDS : 1); round++)
        pair.forEach((c, k) => {
          JOINT_CELLS.forEach((_, cellAt) => {
            vary(c, cellAt);
            const log = h.rough + (exact(h.cause, h.second) ?? -Infinity);
            if (log > most) [most, at[k]] = [log, cellAt];
          });
          vary(c, at[k]!);
        });
      // One of all that the joints may be is the best: the others share what it has.
      h.log = Math.max(h.log, most - Math.log(JOINT_CELLS.length));
      pair.forEach((c) => vary(c, cell[c]! - first[c]!));
    }
  }
}
