import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { sitesIn } from './bits.ts';
import { LimitedTree } from './limited.ts';
import { Pricer, type Problem } from './problem.ts';
import { randomHouse, randomProblem } from './testing.ts';
import { cheapestTree } from './tree.ts';

/** Every way to feed k boxes from each other and the panel, by brute force. */
function cheapestByForce(problem: Problem, option: number, maxOut: number): number {
  const pricer = new Pricer(problem);
  const k = problem.ids.length;
  let best = Infinity;
  const feeders = new Array<number>(k).fill(-1);
  const reaches = (i: number): boolean => {
    for (let at = i, steps = 0; ; steps++) {
      if (at < 0) return true;
      if (steps > k) return false;
      at = feeders[at]!;
    }
  };
  const choose = (i: number): void => {
    if (i < k) {
      for (let f = -1; f < k; f++) {
        if (f === i) continue;
        feeders[i] = f;
        choose(i + 1);
      }
      return;
    }
    if (feeders.filter((f) => f < 0).length !== 1) return;
    for (let j = 0; j < k; j++) if (!reaches(j) || feeders.filter((f) => f === j).length > maxOut) return;
    best = Math.min(
      best,
      feeders.reduce((t, f, j) => t + (f < 0 ? pricer.homeRun(option, j) : pricer.edge(option, f, j)), 0),
    );
  };
  choose(0);
  return best;
}

test('the cheapest tree is the cheapest of all trees, whatever may leave a box', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 6 }),
      fc.nat(1e6),
      fc.constantFrom(1, 2, 3),
      (count, seed, maxOut) => {
        const problem = randomProblem(count, seed);
        // A star around one box makes that box want more cables than it may have.
        if (seed % 2 === 0 && count > 3)
          problem.between = problem.between.map((d, i) => (i % count === 0 || i < count ? d / 8 : d));
        const pricer = new Pricer(problem);
        const edge = problem.between.map((d, i) => d * problem.options[0]!.perInch + problem.change[i]!);
        const home = problem.home.map((d) => d * problem.options[0]!.perInch);
        const sites = problem.ids.map((_, i) => i);
        const tree = cheapestTree(sites, edge, home, count, new Uint8Array(count).fill(maxOut))!;
        assert.ok(Math.abs(tree.cost - cheapestByForce(problem, 0, maxOut)) < 1e-6);
        assert.equal(tree.feeders.filter((f) => f < 0).length, 1);
        for (const i of sites) assert.ok(tree.feeders.filter((f) => f === i).length <= maxOut);
        assert.deepEqual(
          [...tree.order].sort((a, b) => a - b),
          sites,
        );
        const cost = tree.feeders.reduce(
          (t, f, i) => t + (f < 0 ? pricer.homeRun(0, i) : pricer.edge(0, f, i)),
          0,
        );
        assert.ok(Math.abs(cost - tree.cost) < 1e-6);
      },
    ),
    { numRuns: 300 },
  );
});

/** The cheapest path through all sites from one that is fed from the panel, by dynamic programming over subsets. */
function cheapestPath(edge: Float64Array, home: Float64Array): number {
  const k = home.length;
  const at = Array.from({ length: 2 ** k }, () => new Float64Array(k).fill(Infinity));
  for (let i = 0; i < k; i++) at[1 << i]![i] = home[i]!;
  for (let set = 1; set < 2 ** k; set++)
    for (const i of sitesIn(set))
      for (let j = 0; j < k; j++)
        if (!((set >> j) & 1)) {
          const next = at[set | (1 << j)]!;
          next[j] = Math.min(next[j]!, at[set]![i]! + edge[i * k + j]!);
        }
  return Math.min(...at.at(-1)!);
}

test('where every box sends on one cable the tree is the cheapest path', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const count = 4 + (seed % 9);
    const { between, home } = (seed % 2 ? randomHouse : randomProblem)(count, seed);
    const tree = new LimitedTree(between, home, new Uint8Array(count).fill(1), 1000);
    const best = cheapestPath(between, home);
    assert.ok(Math.abs(tree.cost - best) < 1e-6, `${tree.cost} is not ${best}`);
    assert.equal(new Set(tree.feeders).size, count, 'two cables leave a box');
  }
});

test('boxes that are too full for any tree have none; a search cut short gives one that is allowed', () => {
  const { between } = randomProblem(3, 1);
  const none = new LimitedTree(between, new Float64Array(3).fill(Infinity), new Uint8Array(3).fill(1), 100);
  assert.equal(none.cost, Infinity);
  for (let seed = 1; seed <= 20; seed++) {
    const problem = randomHouse(20, seed);
    const maxOut = Uint8Array.from({ length: 20 }, (_, i) => 1 + (i % 2));
    const cut = new LimitedTree(problem.between, problem.home, maxOut, 1);
    const whole = new LimitedTree(problem.between, problem.home, maxOut, 20_000);
    assert.ok(cut.cost >= whole.cost - 1e-6 && cut.cost < 1.2 * whole.cost, `${cut.cost} ${whole.cost}`);
    for (const i of problem.ids.keys()) assert.ok(cut.feeders.filter((f) => f === i).length <= maxOut[i]!);
  }
});
