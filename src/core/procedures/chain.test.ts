/** The search for the first box of a chain against every tree, and against the best way of opening there is. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { below, chainOf, treesOver, type Opened, type Tree } from './chain.ts';
import { tries } from '../../../tests/support/sample.ts';

const names = (n: number): string[] => ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I'].slice(0, n);
const firstOf = (tree: Tree): string => [...tree].find(([, from]) => from === null)![0];

/** What an opened box shows in a tree. */
function open(tree: Tree, box: string): Opened {
  const dead = [...below(tree, box)].filter((b) => b !== box).sort();
  return { box, cables: 1 + [...tree.values()].filter((f) => f === box).length, dead };
}

/** Boxes opened until the first is certain. */
function openings(tree: Tree, boxes: readonly string[]): number {
  const opened: Opened[] = [];
  for (;;) {
    const { first, next } = chainOf(boxes, opened);
    if (first !== null) {
      assert.equal(first, firstOf(tree));
      return opened.length;
    }
    opened.push(open(tree, next!));
    assert.ok(opened.length <= boxes.length);
  }
}

test('n boxes hang in n^(n−1) trees (Cayley)', () => {
  for (const n of [1, 2, 3, 4, 5, 6]) assert.equal(treesOver(names(n)).length, n ** (n - 1));
});

/** Trees by what an opened box shows in them. */
function split(trees: readonly Tree[], box: string): { shows: Opened; part: Tree[] }[] {
  const parts = new Map<string, { shows: Opened; part: Tree[] }>();
  for (const tree of trees) {
    const shows = open(tree, box);
    const key = `${shows.cables} ${shows.dead!.join(' ')}`;
    const known = parts.get(key);
    if (known) known.part.push(tree);
    else parts.set(key, { shows, part: [tree] });
  }
  return [...parts.values()];
}

/** Fewest openings in all over a set of trees, by trying every box first. */
function best(trees: readonly Tree[], left: readonly string[]): number {
  if (new Set(trees.map(firstOf)).size === 1) return 0;
  // Two trees are told apart by one opening at best.
  if (trees.length === 2) return 2;
  let least = Infinity;
  for (const box of left) {
    const rest = left.filter((b) => b !== box);
    let total = trees.length;
    for (const { part } of split(trees, box)) {
      total += best(part, rest);
      if (total >= least) break;
    }
    least = Math.min(least, total);
  }
  return least;
}

/** Openings in all over a set of trees by the advice. */
function advised(trees: readonly Tree[], boxes: readonly string[], opened: readonly Opened[]): number {
  const { first, next } = chainOf(boxes, opened);
  if (first !== null) {
    assert.ok(trees.every((t) => firstOf(t) === first));
    return 0;
  }
  return split(trees, next!).reduce(
    (sum, { shows, part }) => sum + advised(part, boxes, [...opened, shows]),
    trees.length,
  );
}

test('up to six boxes (five in a sample) no way of opening them needs fewer on average', () => {
  for (const n of [2, 3, 4, 5, ...(tries(5, 6) > 5 ? [6] : [])]) {
    const boxes = names(n);
    const trees = treesOver(boxes);
    const total = advised(trees, boxes, []);
    assert.equal(total, best(trees, boxes), `${n} boxes: openings over all trees`);
  }
});

test('nine boxes in a line: the first is certain when it takes all others down', () => {
  const boxes = names(9);
  const tree: Tree = new Map(boxes.map((b, i) => [b, i === 0 ? null : boxes[i - 1]!]));
  assert.ok(openings(tree, boxes) <= 9);
});

test('an order that is known in part, a cable count, and a contradiction', () => {
  const boxes = names(3);
  assert.deepEqual(chainOf(boxes, [], ['B']).first, 'B');
  // One cable in a box of a chain of three: it is an end.
  const counted = chainOf(boxes, [{ box: 'A', cables: 1, dead: null }]);
  assert.deepEqual(counted.mayBeFirst, ['B', 'C']);
  const wrong = chainOf(boxes, [
    { box: 'A', cables: 2, dead: ['B', 'C'] },
    { box: 'B', cables: 2, dead: ['A', 'C'] },
  ]);
  assert.deepEqual([wrong.contradicted, wrong.next], [true, null]);
});
