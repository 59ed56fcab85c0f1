/**
 * A price that no plan can fall below, worked out apart from the search: the linear relaxation of a flow from the panel
 * to the outlets (Gavish, Networks 1983) in layers, one for each kind of circuit, with whole numbers of circuits of each
 * kind. Limits on drop and on rooms are left out, and guards are taken to spare every circuit its GFCI, which only lowers the bound.
 */
import type { Highs } from 'highs';
import { NEEDS_AFCI, type Pricer } from './problem.ts';

/** Nearest outlets that may feed another by name; one that is farther feeds it at the price of the first left out. */
const NEIGHBOURS = 8;

/** Circuits of one option whose outlets ask for no more than some protection. */
interface Layer {
  option: number;
  capacity: number;
  fixed: number;
  sites: number[];
}

function layersOf({ problem }: Pricer): Layer[] {
  const all = problem.ids.map((_, i) => i);
  const spared = problem.guards.some((g) => g === 1);
  return problem.options.flatMap((o, option) => {
    const seen = new Set<number>();
    return ([0, 1, 2, 3] as const).flatMap((mask): Layer[] => {
      const sites = all.filter((i) => (problem.needs[i]! | mask) === mask && problem.least[i]! <= o.rating);
      // Sets grow with the mask: as many sites are the same sites, which a smaller mask serves no dearer.
      if (sites.length === 0 || seen.has(sites.length)) return [];
      seen.add(sites.length);
      const asked = spared ? ((mask & NEEDS_AFCI) as 0 | 1) : mask;
      return [{ option, capacity: o.capacity, fixed: o.breaker + problem.protection[asked], sites }];
    });
  });
}

/** A linear program put together column by column and row by row. */
class Program {
  readonly cost: number[] = [];
  readonly upper: number[] = [];
  readonly whole: number[] = [];
  private readonly rows: { lower: number; upper: number; entries: [column: number, value: number][] }[] = [];

  column(cost: number, upper: number, whole = false): number {
    this.upper.push(upper);
    this.whole.push(whole ? 1 : 0);
    return this.cost.push(cost) - 1;
  }
  row(lower: number, upper: number, entries: [column: number, value: number][]): number {
    return this.rows.push({ lower, upper, entries }) - 1;
  }
  model() {
    const starts = [0];
    const indices: number[] = [];
    const values: number[] = [];
    for (const { entries } of this.rows) {
      for (const [column, value] of entries) {
        indices.push(column);
        values.push(value);
      }
      starts.push(indices.length);
    }
    return {
      numCols: this.cost.length,
      numRows: this.rows.length,
      colCost: this.cost,
      colLower: this.cost.map(() => 0),
      colUpper: this.upper,
      rowLower: this.rows.map((r) => r.lower),
      rowUpper: this.rows.map((r) => r.upper),
      integrality: Int32Array.from(this.whole),
      matrix: {
        format: 'csr' as const,
        numRows: this.rows.length,
        numCols: this.cost.length,
        starts,
        indices,
        values,
      },
    };
  }
}

function programOf(pricer: Pricer, infinity: number): Program {
  const { problem } = pricer;
  const n = problem.ids.length;
  const program = new Program();
  /** Ways for each site to be fed, over all layers. */
  const fed = Array.from({ length: n }, (): [number, number][] => []);
  for (const { option, capacity, fixed, sites } of layersOf(pricer)) {
    const room = capacity;
    const load: [number, number][] = [];
    const homes: [number, number][] = [[program.column(0, n, true), -1]];
    const entering = new Map(sites.map((i) => [i, [] as [number, number][]]));
    const leaving = new Map(sites.map((i) => [i, [] as [number, number][]]));
    const into = new Map(sites.map((i) => [i, [] as [number, number][]]));
    const out = new Map(sites.map((i) => [i, [] as [number, number][]]));
    const arcs = new Map<string, number>();
    const arc = (j: number, cents: number, most: number, least: number): [used: number, flow: number] => {
      const used = program.column(cents, 1);
      const flow = program.column(0, infinity);
      program.row(-infinity, 0, [
        [flow, 1],
        [used, -most],
      ]);
      program.row(0, infinity, [
        [flow, 1],
        [used, -least],
      ]);
      into.get(j)!.push([used, 1]);
      entering.get(j)!.push([flow, 1]);
      return [used, flow];
    };
    for (const j of sites) {
      const size = problem.size[j]!;
      const [home] = arc(j, fixed + pricer.homeRun(option, j), room, size);
      homes.push([home, 1]);
      load.push([home, -room]);
      const near = sites
        .filter((i) => i !== j)
        .sort((a, b) => pricer.edge(option, a, j) - pricer.edge(option, b, j));
      for (const i of near.slice(0, NEIGHBOURS)) {
        const [used, flow] = arc(j, pricer.edge(option, i, j), room - problem.size[i]!, size);
        arcs.set(`${i} ${j}`, used);
        out.get(i)!.push([used, 1]);
        leaving.get(i)!.push([flow, -1]);
      }
      const far = near[NEIGHBOURS];
      if (far !== undefined) arc(j, pricer.edge(option, far, j), room - 1, size);
    }
    for (const j of sites) {
      const on = into.get(j)!;
      fed[j]!.push(...on);
      for (const [used] of on) load.push([used, problem.size[j]!]);
      const negative = on.map(([used]): [number, number] => [used, -problem.size[j]!]);
      program.row(0, 0, [...entering.get(j)!, ...leaving.get(j)!, ...negative]);
      // What leaves a box, and a segment in either direction, only where the box is on the layer.
      const most = on.map(([used]): [number, number] => [used, -problem.maxOut[j]!]);
      if (out.get(j)!.length > 0) program.row(-infinity, 0, [...out.get(j)!, ...most]);
      for (const i of sites) {
        const there = arcs.get(`${j} ${i}`);
        if (there === undefined) continue;
        const back = arcs.get(`${i} ${j}`);
        // A segment used backwards feeds this box: it stands in the sum of what does already.
        const others = on.filter(([used]) => used !== back).map(([used]): [number, number] => [used, -1]);
        program.row(-infinity, 0, [[there, 1], ...others]);
      }
    }
    program.row(-infinity, 0, merged(load));
    program.row(0, 0, homes);
  }
  for (const ways of fed) program.row(1, 1, ways);
  return program;
}

/** Entries with the values of one column added up. */
function merged(entries: readonly [number, number][]): [number, number][] {
  const sums = new Map<number, number>();
  for (const [column, value] of entries) sums.set(column, (sums.get(column) ?? 0) + value);
  return [...sums];
}

/**
 * @param seconds that the search for whole numbers may take, about: what is proven until then is the bound
 * @returns cents
 */
export function lowerBound(pricer: Pricer, highs: Highs, seconds: number): number {
  if (pricer.problem.ids.length === 0) return 0;
  const model = highs.createModel(programOf(pricer, highs.infinity).model());
  try {
    model.options.set({ output_flag: false, time_limit: seconds });
    model.run();
    return Number(model.info.get('mip_dual_bound'));
  } finally {
    model.dispose();
  }
}
