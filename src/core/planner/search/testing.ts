/** Random problems for tests and measurements: boxes of a house along walls, in whole inches. */
import { sitesIn } from './bits.ts';
import type { Plan, Pricer, Problem } from './problem.ts';
import { randomFrom } from './random.ts';

interface Spot {
  room: number;
  x: number;
  y: number;
}

/** Cable along walls and through a plate: across, along and 4 ft up and down. */
function placed(sites: readonly Spot[]): Pick<Problem, 'home' | 'between' | 'change'> {
  const pair = (make: (a: Spot, b: Spot) => number) =>
    Float64Array.from(sites.flatMap((a) => sites.map((b) => (a === b ? 0 : make(a, b)))));
  return {
    home: Float64Array.from(sites, (s) => s.x + s.y + 84 + 48),
    between: pair((a, b) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y) + 96),
    change: pair((a, b) => (a.room === b.room ? 0 : 150)),
  };
}

/** Outlets at random in rooms that may overlap, each asking for what it will: harder than a house. */
export function randomProblem(count: number, seed: number, values: Partial<Problem> = {}): Problem {
  const random = randomFrom(seed);
  const rooms = Array.from({ length: Math.max(1, Math.ceil(count / 5)) }, () => ({
    x: Math.floor(random() * 500),
    y: Math.floor(random() * 400),
  }));
  const sites = Array.from({ length: count }, (_, i) => {
    const room = i % rooms.length;
    return {
      room,
      x: rooms[room]!.x + Math.floor(random() * 150),
      y: rooms[room]!.y + Math.floor(random() * 130),
    };
  });
  return {
    ids: sites.map((_, i) => `box-${i}`),
    ...placed(sites),
    size: new Int32Array(count).fill(1),
    least: Uint8Array.from(sites, () => (random() < 0.2 ? 20 : 15)),
    amps: new Float64Array(count).fill(1.5),
    needs: Uint8Array.from(sites, () => (random() < 0.8 ? 1 : 2)),
    guards: Uint8Array.from(sites, () => (random() < 0.15 ? 1 : 0)),
    protection: [0, 4000, 4500, 5500],
    options: [
      { rating: 15, gauge: '14', breaker: 600, perInch: 4, ohmsPerInch: 3.07 / 12000, capacity: 8 },
      { rating: 20, gauge: '12', breaker: 700, perInch: 6, ohmsPerInch: 1.93 / 12000, capacity: 10 },
    ],
    maxOut: new Uint8Array(count).fill(2),
    company: new Uint8Array(count),
    room: new Int32Array(count).fill(-1),
    dark: 0,
    maxDrop: 3.6,
    marked: { sites: new Uint8Array(count), circuits: 0 },
    ...values,
  };
}

/** Small circuits, so that even few sites need several. */
export const tight = (count: number, seed: number, values: Partial<Problem> = {}): Problem => {
  const problem = randomProblem(count, seed, values);
  return { ...problem, options: problem.options.map((o, i) => ({ ...o, capacity: 3 + i })) };
};

/** The problem with its first sites as trunks: existing circuits with cable of their own and two load units or more. */
export function withTrunks(problem: Problem, count: number, seed: number): Problem {
  const random = randomFrom(seed);
  const trunks = Array.from({ length: count }, (_, i) => i);
  const by = <T extends Uint8Array | Int32Array | Float64Array>(values: T, of: (i: number) => number): T => {
    const copy = values.slice() as T;
    for (const i of trunks) copy[i] = of(i);
    return copy;
  };
  return {
    ...problem,
    size: by(problem.size, () => 1 + Math.floor(2 * random())),
    least: by(problem.least, () => 0),
    amps: by(problem.amps, () => 3 * random()),
    needs: by(problem.needs, () => 0),
    guards: by(problem.guards, () => 0),
    maxOut: by(problem.maxOut, () => 1 + Math.floor(3 * random())),
    room: by(problem.room, () => -1),
    options: [
      ...problem.options,
      ...trunks.map((trunk) => {
        const like = problem.options[Math.floor(random() * problem.options.length)]!;
        const old = Math.floor(5000 * random());
        return { ...like, breaker: 0, trunk, protection: [old, 4600, 5200, 5900] as const };
      }),
    ],
  };
}

/** Inches of a room of a generated house. */
const ROOM = { width: 150, depth: 132 };
const OUTLETS_PER_ROOM = 7;

/** A generated house: outlets on the walls of rooms side by side, with what a room asks for asked at all of its outlets. */
export function randomHouse(count: number, seed: number): Problem {
  const random = randomFrom(seed);
  const rooms = Math.max(1, Math.round(count / OUTLETS_PER_ROOM));
  const across = Math.ceil(Math.sqrt(1.3 * rooms));
  const sites = Array.from({ length: count }, (_, i) => {
    const room = Math.floor((i * rooms) / count);
    const wall = Math.floor(random() * 4);
    const along = random();
    const x = [0, ROOM.width][wall] ?? along * ROOM.width;
    const y = [0, ROOM.depth][wall - 2] ?? along * ROOM.depth;
    return {
      room,
      x: Math.round((room % across) * ROOM.width + x),
      y: Math.round(Math.floor(room / across) * ROOM.depth + y),
    };
  });
  const kind = Array.from({ length: rooms }, () => random());
  return randomProblem(count, seed, {
    ...placed(sites),
    least: Uint8Array.from(sites, (s) => (kind[s.room]! < 0.15 ? 20 : 15)),
    needs: Uint8Array.from(sites, (s) => (kind[s.room]! < 0.25 ? 2 : 1)),
  });
}

/**
 * The cheapest plan by dynamic programming over all subsets (Held and Karp 1962 in spirit): slow, and apart from the
 * proof that it is held against.
 * @returns null when no grouping satisfies the limits
 */
export function subsetPlan(pricer: Pricer): Plan | null {
  const { problem } = pricer;
  const n = problem.ids.length;
  if (n === 0) return { circuits: [], cents: 0 };
  const all = 2 ** n - 1;
  const price = new Float64Array(all + 1).fill(Infinity);
  const marks = new Uint8Array(all + 1);
  const members: number[] = [];
  for (let set = 1; set <= all; set++) {
    members.length = 0;
    let load = 0;
    for (let i = 0; i < n; i++) {
      if (!((set >> i) & 1)) continue;
      members.push(i);
      load += problem.size[i]!;
      marks[set]! |= problem.marked.sites[i]!;
    }
    if (load <= pricer.largest) price[set] = pricer.price(members)?.cents ?? Infinity;
  }
  // One layer for each number of circuits that must hold a marked site: so many or more.
  const layers = problem.marked.circuits + 1;
  const best = Array.from({ length: layers }, () => new Float64Array(all + 1).fill(Infinity));
  const last = Array.from({ length: layers }, () => new Int32Array(all + 1));
  /** The layer that is left to be met by the rest once a circuit is taken. */
  const below = (layer: number, circuit: number) => (marks[circuit] ? Math.max(0, layer - 1) : layer);
  best[0]![0] = 0;
  for (let set = 1; set <= all; set++) {
    const low = set & -set;
    const rest = set ^ low;
    // Every subset that holds the lowest site: which circuit is that site on?
    for (let part = rest; ; part = (part - 1) & rest) {
      const circuit = part | low;
      const cents = price[circuit]!;
      if (cents < Infinity) {
        for (let layer = 0; layer < layers; layer++) {
          const total = cents + best[below(layer, circuit)]![set ^ circuit]!;
          if (total < best[layer]![set]!) {
            best[layer]![set] = total;
            last[layer]![set] = circuit;
          }
        }
      }
      if (part === 0) break;
    }
  }
  if (best[layers - 1]![all] === Infinity) return null;
  const groups: number[][] = [];
  for (let set = all, layer = layers - 1; set !== 0;) {
    const circuit = last[layer]![set]!;
    groups.push(sitesIn(circuit));
    layer = below(layer, circuit);
    set ^= circuit;
  }
  return pricer.plan(groups);
}

/** Every way to group sites. */
export function* groupings(count: number): Generator<number[][]> {
  if (count === 0) {
    yield [];
    return;
  }
  for (const groups of groupings(count - 1)) {
    for (let g = 0; g < groups.length; g++)
      yield groups.map((sites, i) => (i === g ? [...sites, count - 1] : sites));
    yield [...groups, [count - 1]];
  }
}
