/** The search for the first box of a chain against every tree, and against the best way of opening there is. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { below, chainOf, treesOver, type Opened, type Tree } from './chain.ts';

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

/** Fewest openings in all over a set of trees, by trying every box first. */
function best(trees: readonly Tree[], boxes: readonly string[], left: readonly string[]): number {
  if (new Set(trees.map(firstOf)).size === 1) return 0;
  let least = Infinity;
  for (const box of left) {
    const parts = new Map<string, Tree[]>();
    for (const tree of trees) {
      const { cables, dead } = open(tree, box);
      const key = `${cables} ${dead!.join(' ')}`;
      parts.set(key, [...(parts.get(key) ?? []), tree]);
    }
    let total = trees.length;
    for (const part of parts.values()) {
      total += best(
        part,
        boxes,
        left.filter((b) => b !== box),
      );
      if (total >= least) break;
    }
    least = Math.min(least, total);
  }
  return least;
}

test('up to four boxes no way of opening them needs fewer on average', () => {
  for (const n of [2, 3, 4]) {
    const boxes = names(n);
    const trees = treesOver(boxes);
    const total = trees.reduce((sum, tree) => sum + openings(tree, boxes), 0);
    const optimum = best(trees, boxes, boxes);
    assert.ok(total <= optimum * 1.02, `${n}: ${total} openings over all trees, ${optimum} at best`);
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
