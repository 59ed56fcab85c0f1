/** How many circuits of each kind a plan may have: what the sites ask for in whole circuits, and branching on it. */
import type { Highs } from 'highs';
import { KINDS, LARGE, MARKED, NEAR, NEEDS_AFCI, type Pricer } from './problem.ts';

/** Least and most circuits of some kinds that a plan has. */
interface Limit {
  /** Bits by kind. */
  kinds: number;
  least: number;
  most: number;
}
/** The first is for circuits of any kind. */
export type Limits = readonly Limit[];

/** Kinds as bits. */
const kindsWhere = (test: (kind: number) => boolean): number => {
  let bits = 0;
  for (let kind = 0; kind < KINDS; kind++) if (test(kind)) bits |= 1 << kind;
  return bits;
};
const ANY = kindsWhere(() => true);
const ALL_LARGE = kindsWhere((kind) => (kind & LARGE) > 0);
const WITH_MARKED = kindsWhere((kind) => (kind & MARKED) > 0);
/** By what circuits ask for. */
const ASKING = [1, 2, 3].map((needs) => kindsWhere((kind) => (kind & 3) === needs));
/** What is counted in whole circuits: all, those too large for the smallest option, those that ask for the same. */
const COUNTED = [ANY, ALL_LARGE, ...ASKING, ...ASKING.map((kinds) => kinds & ALL_LARGE)];

/**
 * The most circuits that a plan no dearer than a limit can have: trunks, and others that take a breaker with the least
 * protection and one of the cheapest home runs each, while every other outlet takes its cheapest segment.
 */
function mostCircuits(pricer: Pricer, cents: number): number {
  const { problem, trunk } = pricer;
  const { ids, needs, guards } = problem;
  const least = (values: Iterable<number>) => Math.min(...values);
  const options = [...problem.options.keys()];
  const own = options.filter((o) => problem.options[o]!.trunk === undefined);
  const outlets = [...ids.keys()].filter((i) => trunk[i]! < 0);
  const asked = outlets.map(
    (i) => problem.protection[(guards[i] ? needs[i]! & NEEDS_AFCI : needs[i]!) as 0 | 1 | 2 | 3],
  );
  const each = least(own.map((o) => problem.options[o]!.breaker)) + least(asked);
  const homes = outlets.map((i) => least(own.map((o) => pricer.homeRun(o, i)))).sort((a, b) => a - b);
  const segments = outlets
    .map((i) =>
      least(options.flatMap((o) => [...ids.keys()].flatMap((j) => (j === i ? [] : [pricer.edge(o, i, j)])))),
    )
    .sort((a, b) => b - a);
  const trunks = ids.length - outlets.length;
  let sum = segments.reduce((t, c) => t + c, 0);
  let most = trunks;
  for (let k = 1; k <= outlets.length; k++) {
    sum += each + homes[k - 1]! - segments[k - 1]!;
    if (sum <= cents) most = trunks + k;
  }
  return most;
}

/** What any plan no dearer than a limit keeps to, by what the sites take and ask for. */
export function firstLimits(pricer: Pricer, cents: number): Limits {
  const { problem, largest, small } = pricer;
  const most = mostCircuits(pricer, cents);
  const circuitsFor = (test: (i: number) => boolean) =>
    Math.ceil(pricer.load(problem.ids.flatMap((_, i) => (test(i) ? [i] : []))) / largest - NEAR);
  return [
    { kinds: ANY, least: circuitsFor(() => true), most },
    { kinds: WITH_MARKED, least: problem.marked.circuits, most },
    { kinds: ALL_LARGE, least: circuitsFor((i) => problem.least[i]! > small.rating), most },
    ...[1, 2, 3].map((needs) => ({
      kinds: kindsWhere((kind) => (kind & needs) > 0),
      least: circuitsFor((i) => (problem.needs[i]! & needs) > 0),
      most,
    })),
  ];
}

/**
 * The limits with as many large circuits as whole circuits ask for, by a program that only looks at loads: so many load
 * units that ask for the same go to circuits that ask for no less.
 * @returns null where no plan keeps to them
 */
export function tightened(pricer: Pricer, highs: Highs, limits: Limits): Limits | null {
  const { problem, small, largest } = pricer;
  const model = highs.createModel();
  try {
    model.options.set({ output_flag: false });
    const none = { indices: [], values: [] };
    // Rows: load of each class, room in each kind, then the limits.
    const classes = new Map<number, number>();
    problem.ids.forEach((_, i) => {
      const sort = problem.needs[i]! | (problem.least[i]! > small.rating ? LARGE : 0);
      classes.set(sort, (classes.get(sort) ?? 0) + problem.size[i]!);
    });
    const sorts = [...classes];
    for (const [, load] of sorts) model.addRow(load, load, none);
    const kinds = Array.from({ length: MARKED }, (_, kind) => kind);
    kinds.forEach(() => model.addRow(-highs.infinity, 0, none));
    const rowOf = (row: number) => sorts.length + kinds.length + row;
    // Whether a set holds a marked site is not looked at.
    const counted = limits.filter((l) => l.kinds !== WITH_MARKED);
    for (const { least, most } of counted) model.addRow(least, most, none);
    for (const kind of kinds) {
      const room = kind & LARGE ? largest : small.capacity;
      const rows = counted.flatMap((l, row) => (l.kinds & (1 << kind) ? [rowOf(row)] : []));
      model.addCol(kind & LARGE ? 1 : 0, 0, problem.ids.length, {
        indices: [sorts.length + kind, ...rows],
        values: [-room, ...rows.map(() => 1)],
      });
    }
    for (const kind of kinds)
      sorts.forEach(([sort], row) => {
        if ((sort | kind) !== kind) return;
        model.addCol(0, 0, highs.infinity, { indices: [row, sorts.length + kind], values: [1, 1] });
      });
    for (const kind of kinds) model.changeColIntegrality(kind, highs.constants.variableType.integer);
    model.run();
    if (model.getModelStatus() !== highs.constants.modelStatus.optimal) return null;
    const least = Math.round(model.getObjectiveValue());
    return limits.map((l) => (l.kinds === ALL_LARGE ? { ...l, least: Math.max(l.least, least) } : l));
  } finally {
    model.dispose();
  }
}

/** Parts plans on either side of a number of circuits that is not whole; null where all are. */
export function split(limits: Limits, counts: Float64Array): Limits[] | null {
  for (const kinds of COUNTED) {
    let count = 0;
    for (let kind = 0; kind < KINDS; kind++) if ((kinds >> kind) & 1) count += counts[kind]!;
    const whole = Math.floor(count);
    if (count - whole < 1e-4 || whole + 1 - count < 1e-4) continue;
    const known = limits.find((l) => l.kinds === kinds);
    const { least, most } = known ?? { least: 0, most: limits[0]!.most };
    if (count < least || count > most) continue;
    const others = limits.filter((l) => l !== known);
    const sides = [
      { kinds, least: whole + 1, most },
      { kinds, least, most: whole },
    ].filter((side) => side.least <= side.most);
    return sides.map((side) => (kinds === ANY ? [side, ...others] : [...others, side]));
  }
  return null;
}
