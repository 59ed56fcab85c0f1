/**
 * The most that sites can bring to a tree that they join. Any two sites are at least as far apart as the single-linkage
 * cluster that first holds both is wide (Gower and Ross, Applied Statistics 18, 1969). At those distances a cluster is
 * reached once for all of its sites that join, so the best choice within a room is a knapsack on the tree of clusters
 * (Johnson and Niemi, Math. Oper. Res. 8, 1983).
 */

/** Sites that may join. */
export interface Candidates {
  /** Site at each place; only so many places are taken. */
  site: Int32Array;
  /** Cheapest segment from each to the tree, cents. */
  way: Float64Array;
  count: number;
}

/** Place of the one with the cheapest segment. */
export function nearestOf({ way, count }: Candidates): number {
  let nearest = 0;
  for (let t = 1; t < count; t++) if (way[t]! < way[nearest]!) nearest = t;
  return nearest;
}

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

export class Clusters {
  /** Most that sites together with the candidate at each place bring, beyond their segments, cents. */
  readonly most: Float64Array;
  /** Load units are counted in so many at once, as all sites have a multiple of it. */
  private readonly unit: number;
  private readonly size: Int32Array;
  private readonly edge: Float64Array;
  /** Loads that are told apart, from 0 to the largest room. */
  private readonly loads: number;
  // Clusters are numbered: 0 is the tree, then one for each candidate, then those made of two.
  /** Most that sites of a cluster bring together, by their load, row by row; none of load 0. */
  private readonly inside: Float64Array;
  /** Most that others bring beside them, by the same load. */
  private readonly outside: Float64Array;
  /** Largest load within a cluster that the room allows. */
  private readonly largest: Int32Array;
  /** What a cluster is made of, the tree's part first, and how far apart they are. */
  private readonly first: Int32Array;
  private readonly second: Int32Array;
  private readonly apart: Float64Array;
  private readonly clusterOf: Int32Array;
  /** Clusters that are not yet part of a wider one, and how far each is from the one before it. */
  private readonly loose: Int32Array;
  private readonly gap: Float64Array;
  private readonly open: Int32Array;
  private readonly key: Float64Array;

  /**
   * @param size load units of each site, at least 1
   * @param edge segment prices between sites, row by row, cents
   * @param room most load units that are ever left
   */
  constructor(size: Int32Array, edge: Float64Array, room: number) {
    const n = size.length;
    this.unit = size.reduce(commonDivisor, 0);
    this.size = size.map((load) => load / this.unit);
    this.edge = edge;
    this.loads = Math.floor(room / this.unit) + 1;
    this.most = new Float64Array(n);
    this.inside = new Float64Array((2 * n + 1) * this.loads);
    this.outside = new Float64Array((2 * n + 1) * this.loads);
    this.largest = new Int32Array(2 * n + 1);
    this.first = new Int32Array(2 * n + 1);
    this.second = new Int32Array(2 * n + 1);
    this.apart = new Float64Array(2 * n + 1);
    this.clusterOf = new Int32Array(n);
    this.loose = new Int32Array(n + 1);
    this.gap = new Float64Array(n + 1);
    this.open = new Int32Array(n);
    this.key = new Float64Array(n);
  }

  /**
   * Sets `most` for each candidate, −Infinity for what is too large.
   * @param worth of each site, cents
   * @param room load units that are left
   * @param enough what sites must bring together to be of account
   * @returns false where none do: `most` is not set then
   */
  weigh(candidates: Candidates, worth: Float64Array, room: number, enough: number): boolean {
    const most = Math.floor(room / this.unit);
    if (this.link(candidates, worth, most) <= enough) return false;
    this.pass(candidates.count);
    const { site, count } = candidates;
    for (let t = 0; t < count; t++) {
      const load = this.size[site[t]!]!;
      const beside = load > most ? -Infinity : this.outside[this.clusterOf[t]! * this.loads + load]!;
      this.most[t] = worth[site[t]!]! + beside;
    }
    return true;
  }

  /** Clusters, from the order in which Prim's tree reaches the candidates; returns the most that sites bring. */
  private link({ site, way, count }: Candidates, worth: Float64Array, room: number): number {
    const { size, edge, loads, inside, largest, clusterOf, loose, gap, open, key } = this;
    inside[0] = 0;
    largest[0] = 0;
    loose[0] = 0;
    let top = 0;
    let made = count;
    let nearest = 0;
    for (let t = 0; t < count; t++) {
      key[t] = way[t]!;
      open[t] = t;
      if (key[t]! < key[nearest]!) nearest = t;
    }
    for (let left = count; left > 0;) {
      const t = open[nearest]!;
      open[nearest] = open[--left]!;
      while (top > 0 && gap[top]! <= key[t]!) this.join(--top, ++made, room);
      const cluster = (clusterOf[t] = count - left);
      loose[++top] = cluster;
      gap[top] = key[t]!;
      const load = size[site[t]!]!;
      inside[cluster * loads] = 0;
      largest[cluster] = 0;
      if (load <= room) {
        inside.fill(-Infinity, cluster * loads + 1, cluster * loads + load);
        inside[cluster * loads + load] = worth[site[t]!]!;
        largest[cluster] = load;
      }
      const row = site[t]! * size.length;
      let least = Infinity;
      nearest = 0;
      for (let u = 0; u < left; u++) {
        const o = open[u]!;
        const there = edge[row + site[o]!]!;
        let by = key[o]!;
        if (there < by) key[o] = by = there;
        if (by >= least) continue;
        least = by;
        nearest = u;
      }
    }
    while (top > 0) this.join(--top, ++made, room);
    let most = 0;
    const tree = loose[0]! * loads;
    for (let load = 1; load <= largest[loose[0]!]!; load++) most = Math.max(most, inside[tree + load]!);
    return most;
  }

  /** Joins the loose cluster at a place with the next one. */
  private join(at: number, made: number, room: number): void {
    const { loads, inside, largest, first, second, apart, loose, gap } = this;
    const [a, b] = [loose[at]!, loose[at + 1]!];
    const by = gap[at + 1]!;
    first[made] = a;
    second[made] = b;
    apart[made] = by;
    loose[at] = made;
    const all = (largest[made] = Math.min(room, largest[a]! + largest[b]!));
    const [ofA, ofB, of] = [a * loads, b * loads, made * loads];
    // The tree is there whether or not anything of it joins.
    const least = at === 0 ? 0 : 1;
    for (let load = 0; load <= all; load++) {
      let best = load <= largest[a]! ? inside[ofA + load]! : -Infinity;
      if (least > 0 && load <= largest[b]!) best = Math.max(best, inside[ofB + load]!);
      const most = Math.min(largest[b]!, load - least);
      for (let part = Math.max(1, load - largest[a]!); part <= most; part++) {
        const sum = inside[ofA + load - part]! + inside[ofB + part]! - by;
        if (sum > best) best = sum;
      }
      inside[of + load] = best;
    }
  }

  /** Passes down what others bring beside a cluster, from the one that holds all. */
  private pass(count: number): void {
    const { loads, inside, outside, largest, first, second, apart } = this;
    let tree = 2 * count;
    outside.fill(0, tree * loads, tree * loads + largest[tree]! + 1);
    for (let cluster = tree; cluster > count; cluster--) {
      const [a, b] = [first[cluster]!, second[cluster]!];
      const by = apart[cluster]!;
      const [ofA, ofB, of] = [a * loads, b * loads, cluster * loads];
      const least = cluster === tree ? 0 : 1;
      if (cluster === tree) tree = a;
      for (let load = least; load <= largest[a]!; load++) outside[ofA + load] = outside[of + load]!;
      for (let load = 1; load <= largest[b]!; load++)
        outside[ofB + load] = least > 0 ? outside[of + load]! : -Infinity;
      for (let load = least; load <= largest[a]!; load++) {
        const own = inside[ofA + load]!;
        const most = Math.min(largest[b]!, largest[cluster]! - load);
        let beside = outside[ofA + load]!;
        for (let other = 1; other <= most; other++) {
          const rest = outside[of + load + other]! - by;
          const withB = rest + inside[ofB + other]!;
          if (withB > beside) beside = withB;
          const withA = rest + own;
          if (withA > outside[ofB + other]!) outside[ofB + other] = withA;
        }
        outside[ofA + load] = beside;
      }
    }
  }
}
