import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { sitesIn } from './bits.ts';
import { annealing } from './anneal.ts';
import { Pricer } from './problem.ts';
import { randomFrom } from './random.ts';
import { recombined } from './recombine.ts';
import { randomProblem } from './testing.ts';

test('circuits that were met are put together as well as can be', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 11 }), fc.nat(1e6), fc.boolean(), (count, seed, few) => {
      const random = randomFrom(seed);
      const met = new Map<number, number>();
      const draws = few ? 2 * count : 40 * count;
      for (let k = 0; k < draws; k++) {
        const set = 1 + Math.floor(random() * (2 ** count - 1));
        met.set(set, 1000 + Math.floor(900 * sitesIn(set).length * random()));
      }
      const best = new Float64Array(2 ** count).fill(Infinity);
      best[0] = 0;
      for (let left = 1; left < 2 ** count; left++)
        for (const [set, cents] of met)
          if ((set & left) === set) best[left] = Math.min(best[left]!, cents + best[left ^ set]!);
      const cheapest = best.at(-1)!;
      const sets = recombined(count, met, 1e9);
      if (cheapest === Infinity) assert.equal(sets, null);
      else {
        assert.equal(
          sets!.reduce((t, set) => t + met.get(set)!, 0),
          cheapest,
        );
        assert.equal(
          sets!.reduce((all, set) => all ^ set, 0),
          2 ** count - 1,
        );
        assert.equal(recombined(count, met, cheapest), null, 'none is below the cheapest');
      }
    }),
    { numRuns: 200 },
  );
});

test('a plan holds every site once, within capacity, drop and what may leave a box', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 45 }), fc.nat(1e6), (count, seed) => {
      const pricer = new Pricer(randomProblem(count, seed));
      const search = annealing(pricer, seed, 40);
      const first = search.best.cents;
      search.step(40);
      const { circuits, cents } = search.best;
      assert.ok(cents <= first + 1e-6, 'worse than its start');
      assert.deepEqual(
        circuits.flatMap((c) => c.sites).sort((a, b) => a - b),
        pricer.problem.ids.map((_, i) => i),
      );
      for (const c of circuits) {
        assert.ok(pricer.load(c.sites) <= c.option.capacity);
        assert.ok(c.drop <= pricer.problem.maxDrop || c.cents > 1e6);
        for (const [k] of c.sites.entries()) assert.ok(c.feeders.filter((f) => f === k).length <= 2);
      }
    }),
    { numRuns: 25 },
  );
});

test('the same seed gives the same plan, in one go or in steps; another start is never made worse', () => {
  const pricer = new Pricer(randomProblem(40, 7));
  const whole = annealing(pricer, 3, 120);
  whole.step(120);
  const parts = annealing(pricer, 3, 120);
  for (let i = 0; i < 12; i++) parts.step(10);
  assert.equal(parts.best.cents, whole.best.cents);
  assert.deepEqual(
    parts.best.circuits.map((c) => c.sites),
    whole.best.circuits.map((c) => c.sites),
  );
  const again = annealing(
    pricer,
    4,
    30,
    whole.best.circuits.map((c) => c.sites),
  );
  again.step(30);
  assert.ok(again.best.cents <= whole.best.cents + 1e-6);
});
