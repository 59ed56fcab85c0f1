/**
 * The cheapest tree of cable where boxes limit what may leave them. Limits are relaxed with a multiplier for each box
 * (Held and Karp, Mathematical Programming 1, 1971): a spanning tree at prices that have a box’s multiplier on each of
 * its cables, less what full boxes would pay, costs no more than any tree within the limits. Branch and bound on the
 * cables of boxes that are too full closes what gap is left.
 */

/** Ascents of the multipliers at the first branch and at others, and steps without gain before the stride is halved. */
const FIRST_ASCENT = 60;
const ASCENT = 12;
const PATIENCE = 4;
/** Where no tree within the limits is known yet, one is hoped for that costs so much more than the bound. */
const NEAR_SHARE = 0.03;
/** Trees that cost so near to each other are the same, cents. */
const SAME = 1e-9;

/** What a branch says of a cable. */
const FREE = 0;
const BARRED = 1;
const FORCED = 2;

export class LimitedTree {
  /** Cheapest tree so far, cents, and its feeders; −1 is the panel. */
  cost = Infinity;
  feeders: number[] = [];
  /** Branches that were looked at. */
  branches = 0;
  private readonly k: number;
  private readonly mostBranches: number;
  /** Prices between positions, row by row, and of home runs. */
  private readonly edge: Float64Array;
  private readonly home: Float64Array;
  /** Most cables of each box, that which feeds it included. */
  private readonly most: Int32Array;
  /** What the branch says of cables between positions, row by row, and of home runs. */
  private readonly says: Uint8Array;
  private readonly saysHome: Uint8Array;
  // The tree at penalized prices.
  private readonly near: Float64Array;
  private readonly by: Int32Array;
  private readonly inside: Uint8Array;
  private readonly degree: Int32Array;
  private root = 0;

  /**
   * @param edge prices between positions, row by row, cents
   * @param home prices of home runs, Infinity where there is none
   * @param maxOut cables that may leave each box
   */
  constructor(edge: Float64Array, home: Float64Array, maxOut: Uint8Array, mostBranches: number) {
    const k = home.length;
    this.k = k;
    this.mostBranches = mostBranches;
    this.edge = edge;
    this.home = home;
    this.most = Int32Array.from({ length: k }, (_, i) => maxOut[i]! + 1);
    this.says = new Uint8Array(k * k);
    this.saysHome = new Uint8Array(k);
    this.near = new Float64Array(k);
    this.by = new Int32Array(k);
    this.inside = new Uint8Array(k);
    this.degree = new Int32Array(k);
    this.branch(new Float64Array(k), FIRST_ASCENT);
  }

  /** A tree to begin with: from the nearest box always the cheapest cable that limits allow. */
  private grow(): void {
    const { k, edge, home, most } = this;
    const reached = new Int32Array(k);
    const feeders = new Int32Array(k).fill(-1);
    const spare = most.map((m) => m - 1);
    const left = new Uint8Array(k).fill(1);
    let root = 0;
    for (let i = 1; i < k; i++) if (home[i]! < home[root]!) root = i;
    reached[0] = root;
    left[root] = 0;
    let cost = home[root]!;
    for (let count = 1; count < k; count++) {
      let [least, from, to] = [Infinity, -1, -1];
      for (let r = 0; r < count; r++) {
        const a = reached[r]!;
        if (spare[a] === 0) continue;
        for (let b = 0; b < k; b++) {
          if (!left[b] || edge[a * k + b]! >= least) continue;
          least = edge[a * k + b]!;
          from = a;
          to = b;
        }
      }
      if (to < 0) return;
      spare[from]!--;
      feeders[to] = from;
      reached[count] = to;
      left[to] = 0;
      cost += least;
    }
    this.cost = cost;
    this.feeders = Array.from(feeders);
  }

  /** The spanning tree at penalized prices within the branch: its price, cents; Infinity where there is none. */
  private span(multiplier: Float64Array): number {
    const { k, edge, home, says, saysHome, near, by, inside, degree } = this;
    let root = -1;
    let price = Infinity;
    for (let i = 0; i < k; i++) {
      if (saysHome[i] === BARRED) continue;
      const cents = home[i]! + multiplier[i]!;
      if (saysHome[i] === FORCED) {
        root = i;
        price = cents;
        break;
      }
      if (cents < price) {
        price = cents;
        root = i;
      }
    }
    if (root < 0) return Infinity;
    this.root = root;
    near.fill(Infinity);
    inside.fill(0);
    degree.fill(0);
    by.fill(-1);
    inside[root] = 1;
    degree[root] = 1;
    let at = root;
    for (let step = 1; step < k; step++) {
      let next = -1;
      for (let j = 0; j < k; j++) {
        if (inside[j]) continue;
        const said = says[at * k + j]!;
        if (said !== BARRED) {
          // A cable that the branch forces comes before all others.
          const cents = said === FORCED ? -Infinity : edge[at * k + j]! + multiplier[at]! + multiplier[j]!;
          if (cents < near[j]!) {
            near[j] = cents;
            by[j] = at;
          }
        }
        if (near[j]! < Infinity && (next < 0 || near[j]! < near[next]!)) next = j;
      }
      if (next < 0) return Infinity;
      const from = by[next]!;
      price += edge[from * k + next]! + multiplier[from]! + multiplier[next]!;
      inside[next] = 1;
      degree[next]!++;
      degree[from]!++;
      at = next;
    }
    return price;
  }

  private keep(cost: number): void {
    this.cost = cost;
    this.feeders = Array.from(this.by);
  }

  private branch(multiplier: Float64Array, ascent: number): void {
    if (++this.branches > this.mostBranches) return;
    const { k, edge, home, most, degree, by } = this;
    let best = -Infinity;
    let bestAt = multiplier;
    let tree = { by: new Int32Array(0), degree: new Int32Array(0), root: 0 };
    let stride = 1;
    let idle = 0;
    let current = multiplier;
    for (let step = 0; step < ascent; step++) {
      let bound = this.span(current);
      if (bound === Infinity) return;
      let slope = 0;
      let full = false;
      for (let i = 0; i < k; i++) {
        bound -= current[i]! * most[i]!;
        const over = degree[i]! - most[i]!;
        full ||= over > 0;
        if (over > 0 || current[i]! > 0) slope += over * over;
      }
      if (full && this.cost === Infinity) this.grow();
      if (bound >= this.cost - SAME) return;
      if (!full) {
        let cost = home[this.root]!;
        for (let i = 0; i < k; i++) if (i !== this.root) cost += edge[by[i]! * k + i]!;
        if (cost < this.cost - SAME) this.keep(cost);
        // All multipliers that are not nothing are on full boxes: no tree of the branch is cheaper.
        if (cost <= bound + SAME || bound >= this.cost - SAME) return;
      }
      if (bound > best) {
        best = bound;
        bestAt = current;
        tree = { by: by.slice(), degree: degree.slice(), root: this.root };
        idle = 0;
      } else if (++idle >= PATIENCE) {
        stride /= 2;
        idle = 0;
      }
      if (slope === 0) break;
      const goal = this.cost < Infinity ? this.cost : bound + NEAR_SHARE * Math.abs(bound);
      const length = (stride * Math.max(goal - bound, SAME)) / slope;
      const next = new Float64Array(k);
      for (let i = 0; i < k; i++) next[i] = Math.max(0, current[i]! + length * (degree[i]! - most[i]!));
      current = next;
    }
    this.part(tree, bestAt);
  }

  /** Parts the trees of a branch by the cables of a box, first those of a box that is too full. */
  private part(tree: { by: Int32Array; degree: Int32Array; root: number }, multiplier: Float64Array): void {
    const { k, most } = this;
    let box = 0;
    let worst = -Infinity;
    for (let i = 0; i < k; i++) {
      const over = tree.degree[i]! - most[i]!;
      // Where none is too full, what a box does not use of its limit keeps the bound down.
      const by = over > 0 ? 1e9 * over : -over * multiplier[i]!;
      if (by > worst && this.cablesAt(tree, i).some(([a, b]) => this.said(a, b) === FREE)) {
        worst = by;
        box = i;
      }
    }
    if (worst === -Infinity) return;
    const cables = this.cablesAt(tree, box);
    const free = cables.filter(([a, b]) => this.said(a, b) === FREE);
    const room = most[box]! - cables.filter(([a, b]) => this.said(a, b) === FORCED).length;
    const forced = free.slice(0, Math.max(0, room));
    for (const [a, b] of forced) {
      this.say(a, b, BARRED);
      this.branch(multiplier, ASCENT);
      this.say(a, b, FORCED);
    }
    // Where the box is full with what is forced, none of its other cables can be; else the tree itself is among the rest.
    const others =
      free.length > room
        ? [-1, ...this.most.keys()].filter((j) => j !== box && this.said(box, j) === FREE)
        : [];
    for (const j of others) this.say(box, j, BARRED);
    this.branch(multiplier, ASCENT);
    for (const j of others) this.say(box, j, FREE);
    for (const [a, b] of forced) this.say(a, b, FREE);
  }

  /** Cables of a box in a tree; −1 is the panel. */
  private cablesAt({ by, root }: { by: Int32Array; root: number }, box: number): [number, number][] {
    const cables: [number, number][] = [];
    for (let i = 0; i < this.k; i++) if (i !== root && (i === box || by[i] === box)) cables.push([i, by[i]!]);
    if (root === box) cables.push([box, -1]);
    return cables;
  }
  private said(a: number, b: number): number {
    return b < 0 ? this.saysHome[a]! : this.says[a * this.k + b]!;
  }
  private say(a: number, b: number, what: number): void {
    if (b < 0) this.saysHome[a] = what;
    else this.says[a * this.k + b] = this.says[b * this.k + a] = what;
  }
}
