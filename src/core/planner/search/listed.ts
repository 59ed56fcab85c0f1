/**
 * All sets of sites that one circuit could take, listed once and then looked through in milliseconds: where drop rules
 * out most sets, there are fewer of them than a search for those that pay takes steps.
 */
import { nearestOf, type Candidates } from './clusters.ts';
import { kindWith, layersOf, type Layer } from './layers.ts';
import { TINY, type Pricer } from './problem.ts';
import { randomFrom } from './random.ts';
import { columnOf } from './relax.ts';
import type { SetSource, Values, Visit } from './sets.ts';
import { GrowingTree } from './tree.ts';

const NOWHERE = -1;

/** A set that is met. */
interface Met {
  /** Place of the set that it grew from, or `NOWHERE`. */
  up: number;
  /** The site that joined it. */
  site: number;
  /** What it costs at least, cents; Infinity where it only leads to others. */
  cents: number;
  kind: number;
}

/** What may still join a set. */
interface Level extends Candidates {
  /** Place of each way's feeder, in the order of joining. */
  from: Int32Array;
}

/** Meets every set of a layer that keeps within the drop once, as Prim builds its tree. */
class Walk {
  private readonly pricer: Pricer;
  private readonly layer: Layer;
  private readonly levels: readonly Level[];
  private readonly tree: GrowingTree;
  private readonly meet: (set: Met) => number;
  private readonly most: number;

  /** @param meet returns the set's place; `NOWHERE` where it should not grow */
  constructor(pricer: Pricer, layer: Layer, tree: GrowingTree, meet: (set: Met) => number) {
    const n = layer.ids.length;
    this.pricer = pricer;
    this.layer = layer;
    this.tree = tree;
    this.meet = meet;
    this.most = pricer.problem.maxDrop + TINY;
    this.levels = Array.from({ length: n + 1 }, () => ({
      site: new Int32Array(n),
      way: new Float64Array(n),
      from: new Int32Array(n),
      count: 0,
    }));
  }

  /** Meets the sets that are fed at a site. */
  from(root: number): void {
    const { layer, tree } = this;
    const { ids, home, edge, size, mask, capacity, trunk, fixed, ohms } = layer;
    const { problem } = this.pricer;
    const i = ids[root]!;
    const room = capacity - size[root]!;
    const kind = kindWith(layer, mask, root, room);
    // A trunk by itself costs nothing and stays as it is.
    if (trunk >= 0 && mask === 0) this.meet({ up: NOWHERE, site: i, cents: 0, kind });
    if (room < 0) return;
    tree.push(i, -1);
    if (tree.drop(ohms) <= this.most) {
      const level = this.levels[1]!;
      level.count = 0;
      for (let j = root + 1; j < ids.length; j++) {
        level.site[level.count] = j;
        level.from[level.count] = 0;
        level.way[level.count++] = edge[root * ids.length + j]!;
      }
      const cents = fixed + home[root]!;
      const needs = problem.needs[i]!;
      const done = trunk < 0 && needs === mask;
      const at = this.meet({ up: NOWHERE, site: i, cents: done ? cents : Infinity, kind });
      if (at !== NOWHERE) this.grow(at, 1, cents, room, needs, kind);
    }
    tree.pop();
  }

  private grow(up: number, k: number, cents: number, room: number, needs: number, kind: number): void {
    const { levels, tree, most, layer } = this;
    const { ids, size, mask, ohms } = layer;
    const { problem } = this.pricer;
    const level = levels[k]!;
    while (level.count > 0) {
      const nearest = nearestOf(level);
      const j = level.site[nearest]!;
      const price = cents + level.way[nearest]!;
      const i = ids[j]!;
      tree.push(i, level.from[nearest]!);
      remove(level, nearest);
      const left = room - size[j]!;
      if (left >= 0 && tree.drop(ohms) <= most) {
        this.advance(k, j, left);
        const asked = needs | problem.needs[i]!;
        const becomes = kindWith(layer, kind, j, left);
        const at = this.meet({ up, site: i, cents: asked === mask ? price : Infinity, kind: becomes });
        if (at !== NOWHERE) this.grow(at, k + 1, price, left, asked, becomes);
      }
      tree.pop();
    }
  }

  /** What may join once a site has: what there is room for and what does not drop too much, whatever else joins. */
  private advance(k: number, joined: number, room: number): void {
    const { levels, tree, most, layer } = this;
    const { ids, edge, size } = layer;
    const { site, way, from, count } = levels[k]!;
    const next = levels[k + 1]!;
    next.count = 0;
    for (let t = 0; t < count; t++) {
      const j = site[t]!;
      if (size[j]! > room || tree.dropWith(ids[j]!) > most) continue;
      const there = edge[joined * ids.length + j]!;
      const nearer = there < way[t]!;
      next.site[next.count] = j;
      next.way[next.count] = nearer ? there : way[t]!;
      next.from[next.count++] = nearer ? k : from[t]!;
    }
  }
}

/** Takes a candidate away; the last one takes its place. */
function remove(level: Level, at: number): void {
  const { site, way, from } = level;
  const last = --level.count;
  site[at] = site[last]!;
  way[at] = way[last]!;
  from[at] = from[last]!;
}

/** Meets all sets of all layers. */
function walk(pricer: Pricer, meet: (set: Met) => number): void {
  const tree = new GrowingTree(pricer.problem);
  for (const layer of layersOf(pricer, new Float64Array(pricer.problem.ids.length))) {
    const sets = new Walk(pricer, layer, tree, meet);
    for (let root = 0; root < layer.starts; root++) sets.from(root);
  }
}

/** So many sites are followed wherever they lead for an estimate, and of the sets beyond this share. */
const SITES_FOLLOWED = 3;
const SHARE_FOLLOWED = 0.3;

/**
 * About how many sets there are to list (Knuth, Math. Comp. 29, 1975).
 * @param most more than this are not counted further
 */
export function estimatedSets(pricer: Pricer, most = Infinity): number {
  const random = randomFrom(1);
  let count = 0;
  walk(pricer, ({ up }) => {
    // A place is how many sites there are.
    const sites = up === NOWHERE ? 1 : up + 1;
    const sifted = Math.max(0, sites - SITES_FOLLOWED);
    count += SHARE_FOLLOWED ** -sifted;
    const followed = count <= most && (sites < SITES_FOLLOWED || random() < SHARE_FOLLOWED);
    return followed ? sites : NOWHERE;
  });
  return count;
}

/** Marks a set that others grew from. */
const LEADS = 2;

/** The sets that were met, one beside the other. */
class SetList {
  count = 0;
  readonly up: Int32Array;
  readonly site: Uint8Array;
  readonly cents: Float64Array;
  readonly kind: Uint8Array;
  /** Its cents are its price. */
  readonly priced: Uint8Array;

  constructor(most: number) {
    this.up = new Int32Array(most);
    this.site = new Uint8Array(most);
    this.cents = new Float64Array(most);
    this.kind = new Uint8Array(most);
    this.priced = new Uint8Array(most);
  }

  /** @returns its place, `NOWHERE` where the list is full */
  add({ up, site, cents, kind }: Met): number {
    if (this.count === this.up.length) return NOWHERE;
    this.up[this.count] = up;
    this.site[this.count] = site;
    this.cents[this.count] = cents;
    this.kind[this.count] = kind;
    return this.count++;
  }

  /** Leaves out all but the sets at places where `kept` is 1, and those that they grew from. */
  thin(kept: Uint8Array): void {
    const { up, site, cents, kind, priced } = this;
    for (let k = this.count - 1; k >= 0; k--) if (kept[k] && up[k] !== NOWHERE) kept[up[k]!] ||= LEADS;
    const place = new Int32Array(this.count);
    let count = 0;
    for (let k = 0; k < this.count; k++) {
      if (!kept[k]) continue;
      up[count] = up[k] === NOWHERE ? NOWHERE : place[up[k]!]!;
      site[count] = site[k]!;
      cents[count] = kept[k] === LEADS ? Infinity : cents[k]!;
      kind[count] = kind[k]!;
      priced[count] = priced[k]!;
      place[k] = count++;
    }
    this.count = count;
  }

  sitesOf(at: number): number[] {
    const sites: number[] = [];
    for (let k = at; k !== NOWHERE; k = this.up[k]!) sites.push(this.site[k]!);
    return sites;
  }
}

export class ListedSets implements SetSource {
  private readonly pricer: Pricer;
  private readonly list: SetList;
  /** What the sites of each set are worth, cents. */
  private readonly worth: Float64Array;

  private constructor(pricer: Pricer, list: SetList) {
    this.pricer = pricer;
    this.list = list;
    this.worth = new Float64Array(list.count);
  }

  /** @returns null where there are more sets than `most` */
  static of(pricer: Pricer, most: number): ListedSets | null {
    const list = new SetList(most);
    walk(pricer, (set) => list.add(set));
    return list.count === most ? null : new ListedSets(pricer, list);
  }

  private weigh(values: Values): void {
    const { list, worth } = this;
    const { up, site, count } = list;
    for (let k = 0; k < count; k++)
      worth[k] = values.site[site[k]!]! + (up[k] === NOWHERE ? 0 : worth[up[k]!]!);
  }

  below(values: Values, limit: number, _most: number, visit: Visit): boolean {
    const { list, worth } = this;
    const { cents, kind, priced, count } = list;
    this.weigh(values);
    for (let k = 0; k < count; k++) {
      const value = worth[k]! + values.kind[kind[k]!]!;
      if (cents[k]! - value >= limit) continue;
      const sites = list.sitesOf(k);
      if (!priced[k]) {
        ({ cents: cents[k] } = columnOf(this.pricer, this, sites, cents[k]!));
        priced[k] = 1;
      }
      if (cents[k]! - value < limit) limit = visit(sites, cents[k]! - value);
    }
    return true;
  }

  forget(values: Values, limit: number): void {
    const { list, worth } = this;
    const { cents, kind } = list;
    this.weigh(values);
    const kept = Uint8Array.from({ length: list.count }, (_, k) =>
      cents[k]! - worth[k]! - values.kind[kind[k]!]! < limit ? 1 : 0,
    );
    list.thin(kept);
  }

  /** Listed sets have no steps to spend and no boxes that are too full. */
  spend(): void {}
  penalize(): void {}
}
