import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import loadHighs from 'highs';
import { annealing } from './anneal.ts';
import { OUT_OF_DROP, Pricer, type Plan } from './problem.ts';
import { randomFrom } from './random.ts';
import { randomHouse, randomProblem, subsetPlan, tight, withTrunks } from './testing.ts';
import { restricted, Windows } from './windows.ts';
import { tries } from '../../../../tests/support/sample.ts';

const highs = await loadHighs();
const sitesOf = (plan: Plan) => plan.circuits.map((c) => c.sites);

test('a part of a problem prices circuits as the whole does, rooms and existing circuits among them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 4, max: 14 }), fc.nat(1e6), fc.boolean(), (count, seed, extend) => {
      const room = Int32Array.from({ length: count }, (_, i) => i % 3);
      const company = Uint8Array.from({ length: count }, (_, i) => (seed % 2 ? 0 : i % 3));
      const problem = tight(count, seed, { room, company, dark: 2500, maxDrop: 1.4 });
      const pricer = new Pricer(extend ? withTrunks(problem, 2, seed) : problem);
      const random = randomFrom(seed);
      const sites = problem.ids.map((_, i) => i).filter(() => random() < 0.7);
      if (sites.length === 0) return;
      const others = problem.ids.map((_, i) => i).filter((i) => !sites.includes(i));
      const part = restricted(pricer, sites, [others]);
      for (let k = 0; k < 20; k++) {
        const places = sites.map((_, at) => at).filter(() => random() < 0.4);
        if (places.length === 0) continue;
        const whole = pricer.price(places.map((at) => sites[at]!))?.cents ?? Infinity;
        const own = part.price(places)?.cents ?? Infinity;
        assert.ok(own === whole || Math.abs(own - whole) < 1e-6, `${own} instead of ${whole}`);
      }
    }),
    { numRuns: tries(50, 150) },
  );
});

test('a part asks for the circuits with a marked site that the others lack', () => {
  const marked = { sites: Uint8Array.from([1, 0, 1, 0, 1, 0]), circuits: 2 };
  const pricer = new Pricer(randomProblem(6, 1, { marked }));
  const asked = (others: number[][]) => restricted(pricer, [0, 1], others).problem.marked.circuits;
  assert.equal(asked([[3, 5]]), 2);
  assert.equal(asked([[2, 3], [5]]), 1);
  assert.equal(asked([[2, 3], [4]]), 0);
});

test('in the end no circuit and its neighbors can be planned for less, and the plan is whole', () => {
  let better = 0;
  for (let seed = 1; seed <= tries(2, 6); seed++) {
    const marked = { sites: Uint8Array.from({ length: 22 }, (_, i) => (i % 5 ? 0 : 1)), circuits: 2 };
    const pricer = new Pricer(tight(22, seed, seed % 2 ? { marked } : { maxDrop: 1.6 }));
    const start = annealing(pricer, seed, 20).best;
    const windows = new Windows(pricer, start, highs, 9);
    let { cents } = start;
    let done = 0;
    while (windows.step()) {
      assert.ok(windows.best.cents <= cents && windows.done >= done && windows.done <= 1);
      ({ cents } = windows.best);
      ({ done } = windows);
    }
    assert.equal(done, 1);
    if (cents < start.cents - 1) better++;
    const groups = sitesOf(windows.best);
    assert.deepEqual(
      groups.flat().sort((a, b) => a - b),
      pricer.problem.ids.map((_, i) => i),
    );
    assert.ok(pricer.spread(groups));
    assert.ok(Math.abs(pricer.plan(groups).cents - cents) < 1e-6);
    // Each pair of circuits that lie next to each other, against all of their subsets.
    for (const first of groups) {
      const apart = (group: readonly number[]) =>
        first.reduce((sum, i) => sum + Math.min(...group.map((j) => pricer.problem.between[i * 22 + j]!)), 0);
      const [nearest] = groups.filter((g) => g !== first).sort((a, b) => apart(a) - apart(b));
      const sites = [...first, ...nearest!];
      const others = groups.filter((g) => g !== first && g !== nearest);
      const best = subsetPlan(restricted(pricer, sites, others))!;
      const now = pricer.plan([first, nearest!]).cents;
      if (best.cents < OUT_OF_DROP) assert.ok(now <= best.cents + 1e-6, `${now} for ${best.cents}`);
    }
  }
  assert.ok(better >= tries(1, 4), `only ${better} got better`);
});

test('where drop binds, windows find what the search does not', () => {
  const pricer = new Pricer({ ...randomHouse(34, 3), maxDrop: 1.8 });
  const search = annealing(pricer, 3, 2000);
  search.step(2000);
  const windows = new Windows(pricer, search.best, highs);
  for (let k = 0; k < 4; k++) windows.step();
  assert.ok(windows.best.cents < 0.995 * search.best.cents, `${windows.best.cents} for ${search.best.cents}`);
});
