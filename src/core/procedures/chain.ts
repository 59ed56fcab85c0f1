/**
 * The order of a chain from boxes opened one at a time: with the cables of one apart, what goes dead hangs on it. What is left
 * is a set of trees; the next box is the one that leaves the fewest at worst.
 */

/** Which box feeds each, by name; null is the panel. One box hangs on the panel. */
export type Tree = ReadonlyMap<string, string | null>;

/** What one opened box showed. */
export interface Opened {
  box: string;
  /** Cables counted in it, the feed among them. */
  cables: number;
  /** Boxes that went dead with its cables apart; null where the power was not put on to look. */
  dead: readonly string[] | null;
}

/** Boxes of a chain of which all trees are looked at: six make 7,776. */
const MOST_LISTED = 6;

let known: { boxes: string; trees: Tree[] } | null = null;

/** Every tree over some boxes, with one of them on the panel. */
export function treesOver(boxes: readonly string[]): Tree[] {
  const key = boxes.join(' ');
  if (known?.boxes === key) return known.trees;
  const trees: Tree[] = [];
  const parents: (string | null)[] = [];
  const isTree = (): boolean => {
    if (parents.filter((p) => p === null).length !== 1) return false;
    return boxes.every((_, i) => {
      let at: string | null = boxes[i]!;
      for (let steps = 0; at !== null; steps++) {
        if (steps > boxes.length) return false;
        at = parents[boxes.indexOf(at)] ?? null;
      }
      return true;
    });
  };
  const grow = (i: number): void => {
    if (i === boxes.length) {
      if (isTree()) trees.push(new Map(boxes.map((b, k) => [b, parents[k]!])));
      return;
    }
    for (const parent of [null, ...boxes]) {
      if (parent === boxes[i]) continue;
      parents[i] = parent;
      grow(i + 1);
    }
  };
  grow(0);
  known = { boxes: key, trees };
  return trees;
}

/** Boxes that hang on one, itself among them. */
export function below(tree: Tree, box: string): Set<string> {
  const found = new Set([box]);
  for (let grew = true; grew;) {
    grew = false;
    for (const [b, from] of tree)
      if (from !== null && found.has(from) && !found.has(b)) {
        found.add(b);
        grew = true;
      }
  }
  return found;
}

const cablesIn = (tree: Tree, box: string): number => 1 + [...tree.values()].filter((f) => f === box).length;

/** Whether a tree agrees with what one opened box showed: a chain may leave the room, so more cables than boxes is no contradiction. */
function fits(tree: Tree, { box, cables, dead }: Opened, whole: boolean): boolean {
  const there = cablesIn(tree, box);
  if (whole ? there !== cables : there > cables) return false;
  if (dead === null) return true;
  const down = below(tree, box);
  down.delete(box);
  return down.size === dead.length && dead.every((d) => down.has(d));
}

export interface Chain {
  /** Boxes that may be the first, as far as is known. */
  mayBeFirst: readonly string[];
  /** The one that is certain, or null. */
  first: string | null;
  /** The whole order where one is left, or null. */
  order: Tree | null;
  /** Orders that are left; null where they are too many to list. */
  left: number | null;
  /** The box that is worth most to open next; null when the first is certain. */
  next: string | null;
  contradicted: boolean;
}

/**
 * Where the search for the first box stands.
 * @param boxes of the circuit, as far as known; nearest to the panel first where that is known
 * @param opened in their order
 * @param among those that may be first by what was said; empty where any may
 * @param whole every box of the circuit is among them, so that the cables are counted to the last
 */
export function chainOf(
  boxes: readonly string[],
  opened: readonly Opened[],
  among: readonly string[] = [],
  whole = false,
): Chain {
  const trees = treesLeft(boxes, opened, among, whole);
  return trees ? byTrees(boxes, opened, trees) : byHanging(boxes, opened, among);
}

/** Orders that agree with all of that, arguments as of `chainOf`; null where they are too many to list. */
export const treesLeft = (
  boxes: readonly string[],
  opened: readonly Opened[],
  among: readonly string[],
  whole: boolean,
): Tree[] | null =>
  boxes.length > MOST_LISTED
    ? null
    : treesOver(boxes).filter(
        (t) => (among.length === 0 || among.includes(firstOf(t))) && opened.every((o) => fits(t, o, whole)),
      );

const firstOf = (tree: Tree): string => [...tree].find(([, from]) => from === null)![0];

function byTrees(boxes: readonly string[], opened: readonly Opened[], trees: readonly Tree[]): Chain {
  const mayBeFirst = boxes.filter((b) => trees.some((t) => firstOf(t) === b));
  const first = mayBeFirst.length === 1 ? mayBeFirst[0]! : null;
  return {
    mayBeFirst,
    first,
    order: trees.length === 1 ? trees[0]! : null,
    left: trees.length,
    next: first === null && trees.length > 0 ? worthOpening(boxes, trees, opened) : null,
    contradicted: trees.length === 0,
  };
}

/** The box whose opening leaves the fewest first boxes at worst, then the fewest trees. */
function worthOpening(
  boxes: readonly string[],
  trees: readonly Tree[],
  opened: readonly Opened[],
): string | null {
  const done = new Set(opened.filter((o) => o.dead !== null).map((o) => o.box));
  let best: string | null = null;
  let least: readonly [number, number] = [Infinity, Infinity];
  for (const box of boxes) {
    if (done.has(box)) continue;
    const parts = new Map<string, { firsts: Set<string>; count: number }>();
    for (const tree of trees) {
      const answer = `${cablesIn(tree, box)} ${[...below(tree, box)].sort().join(' ')}`;
      const part = parts.get(answer) ?? { firsts: new Set<string>(), count: 0 };
      part.firsts.add(firstOf(tree));
      part.count += 1;
      parts.set(answer, part);
    }
    // How many first boxes are left on average, weighted by how many trees give each answer; then the trees left.
    let firsts = 0;
    let count = 0;
    for (const part of parts.values()) {
      firsts += (part.firsts.size - 1) * part.count;
      count += part.count ** 2;
    }
    if (firsts < least[0] || (firsts === least[0] && count < least[1])) {
      best = box;
      least = [firsts, count];
    }
  }
  return best;
}

/** Without listing trees: the first box takes all others down; whoever lives with another apart is not below it. */
function byHanging(boxes: readonly string[], opened: readonly Opened[], among: readonly string[]): Chain {
  let may = boxes.filter((b) => among.length === 0 || among.includes(b));
  for (const { box, cables, dead } of opened) {
    if (cables === 1 && boxes.length > 1) may = may.filter((b) => b !== box);
    if (dead === null) continue;
    const others = boxes.filter((b) => b !== box);
    may =
      dead.length === others.length
        ? may.filter((b) => b === box)
        : may.filter((b) => b !== box && !dead.includes(b));
  }
  const first = may.length === 1 ? may[0]! : null;
  const looked = new Set(opened.filter((o) => o.dead !== null).map((o) => o.box));
  return {
    mayBeFirst: may,
    first,
    order: null,
    left: null,
    next: first === null ? (may.find((b) => !looked.has(b)) ?? null) : null,
    contradicted: may.length === 0,
  };
}
