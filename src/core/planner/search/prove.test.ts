import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import loadHighs from 'highs';
import { annealing } from './anneal.ts';
import { lowerBound } from './bound.ts';
import { ListedSets } from './listed.ts';
import { OUT_OF_DROP, Pricer, type Plan, type Problem } from './problem.ts';
import { byRelaxation, FoundOrListed, MOST_PROVEN, provePlan } from './prove.ts';
import { SetSearch } from './sets.ts';
import { bySubsets } from './subsets.ts';
import { groupings, randomHouse, randomProblem, subsetPlan, tight, withTrunks } from './testing.ts';
import { tries, oneIn } from '../../../../tests/support/sample.ts';

const highs = await loadHighs();

/** The best plan from whatever the search gives, proven by the relaxation of sets, searched and listed, and by all subsets. */
function proven(pricer: Pricer): Plan | null {
  const start = annealing(pricer, 1, 1).best;
  const sound = pricer.spread(start.circuits.map((c) => c.sites)) ? start : null;
  const proofs = [
    byRelaxation(pricer, start, highs, new SetSearch(pricer)),
    byRelaxation(pricer, start, highs, ListedSets.of(pricer, 100_000)!),
    byRelaxation(pricer, start, highs, new FoundOrListed(pricer, { few: 30, listed: 100_000, most: 0 })),
    bySubsets(pricer, sound),
  ];
  const { best } = proofs[0]!;
  if (start.cents < OUT_OF_DROP)
    for (const proof of proofs) {
      assert.ok(proof.proven, 'no proof');
      assert.ok(
        best ? Math.abs(proof.best!.cents - best.cents) < 1e-6 : proof.best === null,
        `${proof.best?.cents} instead of ${best?.cents} by the relaxation`,
      );
    }
  return best;
}

function provenBest(pricer: Pricer, known: Plan): Plan {
  const { best, proven } = provePlan(pricer, known, highs);
  assert.ok(best && proven, 'no proof');
  return best;
}

test('the exact plan is the cheapest of all groupings, marked sites spread as asked', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 8 }),
      fc.nat(1e6),
      fc.integer({ min: 0, max: 2 }),
      (count, seed, circuits) => {
        const marked = { sites: Uint8Array.from({ length: count }, (_, i) => (i % 2 ? 0 : 1)), circuits };
        const pricer = new Pricer(tight(count, seed, { marked }));
        let best = Infinity;
        for (const groups of groupings(count)) {
          if (!pricer.spread(groups)) continue;
          best = Math.min(
            best,
            groups.reduce((t, g) => t + (pricer.price(g)?.cents ?? Infinity), 0),
          );
        }
        const plan = proven(pricer);
        const oracle = subsetPlan(pricer);
        assert.ok(best === Infinity ? oracle === null : Math.abs(oracle!.cents - best) < 1e-6);
        if (best === Infinity) assert.equal(plan, null);
        else {
          assert.ok(Math.abs(plan!.cents - best) < 1e-6);
          assert.ok(pricer.spread(plan!.circuits.map((c) => c.sites)));
        }
      },
    ),
    { numRuns: tries(20, 60) },
  );
});

test('the proof agrees with all subsets on houses of up to 13 outlets, with lights, guards, drop and rooms', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 13 }), fc.nat(1e6), fc.boolean(), (count, seed, lights) => {
      const values: Partial<Problem> = lights
        ? { size: Int32Array.from({ length: count }, (_, i) => 1 + (i % 2)) }
        : { room: Int32Array.from({ length: count }, (_, i) => (i < 4 ? 0 : -1)), dark: 2500 };
      const pricer = new Pricer(tight(count, seed, { ...values, maxDrop: 0.8 }));
      const best = subsetPlan(pricer);
      const plan = proven(pricer);
      // Where no plan keeps within the drop there is no proof.
      if (best!.cents >= 1e6) return;
      assert.ok(best && plan);
      assert.ok(Math.abs(plan.cents - best.cents) < 1e-6, `${plan.cents} is not ${best.cents}`);
    }),
    { numRuns: tries(12, 40) },
  );
});

test('existing circuits that may be extended: the proof agrees with all subsets, and the search is never below it', () => {
  let joined = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 11 }),
      fc.integer({ min: 1, max: 3 }),
      fc.nat(1e6),
      fc.constantFrom(Infinity, 1.4),
      (count, trunks, seed, maxDrop) => {
        const company = Uint8Array.from({ length: count }, (_, i) => (seed % 2 ? 0 : i % 3));
        const problem = tight(count, seed, { company, maxDrop });
        const pricer = new Pricer(withTrunks(problem, Math.min(trunks, count - 1), seed));
        const best = subsetPlan(pricer)!;
        const search = annealing(pricer, seed, 200);
        search.step(200);
        assert.ok(search.best.cents >= best.cents - 1e-6);
        if (best.cents >= OUT_OF_DROP) return;
        const plan = proven(pricer);
        assert.ok(plan && Math.abs(plan.cents - best.cents) < 1e-6, `${plan?.cents} is not ${best.cents}`);
        for (const { sites, cents, feeders, cable } of plan.circuits) {
          const held = sites.filter((i) => pricer.trunk[i]! >= 0);
          assert.ok(held.length <= 1);
          if (held.length === 0) continue;
          assert.equal(sites[feeders.indexOf(-1)], held[0], 'cable starts at what is there');
          if (sites.length === 1) assert.deepEqual([cents, cable], [0, 0]);
          else joined++;
        }
      },
    ),
    { numRuns: tries(20, 60) },
  );
  assert.ok(joined > tries(3, 10), `only ${joined} were extended`);
});

test('more sites than can be proven get no proof', () => {
  const pricer = new Pricer(randomProblem(MOST_PROVEN + 1, 1));
  assert.equal(provePlan(pricer, annealing(pricer, 1, 1).best, highs).proven, false);
});

test('houses of 25 outlets are proven, also where circuits are not full', () => {
  for (const seed of oneIn(2, [3, 4])) {
    const free = { maxDrop: Infinity, guards: new Uint8Array(25) };
    const pricer = new Pricer({ ...randomHouse(25, seed), ...free });
    const search = annealing(pricer, seed, 2500);
    search.step(2500);
    const best = provenBest(pricer, search.best);
    // What the search alone does not find.
    assert.ok(best.cents < search.best.cents, `house ${seed} is found by the search alone`);
    assert.deepEqual(
      best.circuits.flatMap((c) => c.sites).sort((a, b) => a - b),
      pricer.problem.ids.map((_, i) => i),
    );
    assert.ok(lowerBound(pricer, highs, best) <= best.cents + 1e-6);
  }
});

test('25 outlets are proven where drop binds on nearly every circuit', () => {
  for (const [make, maxDrop] of oneIn(2, [
    [randomHouse, 1.8],
    [randomProblem, 3.6],
  ] as const)) {
    const pricer = new Pricer({ ...make(25, 2), maxDrop });
    const search = annealing(pricer, 2, 500);
    search.step(500);
    const best = provenBest(pricer, search.best);
    assert.ok(best.circuits.filter((c) => c.drop > 0.8 * maxDrop).length >= best.circuits.length - 1);
    assert.ok(best.cents <= search.best.cents);
  }
});

test('the search finds the proven best of small houses, and the bound stays below it', () => {
  for (let seed = 1; seed <= tries(4, 12); seed++) {
    const pricer = new Pricer(tight(5 + (seed % 7), seed));
    const best = proven(pricer)!;
    const search = annealing(pricer, seed, 2500);
    search.step(2500);
    assert.ok(search.best.cents >= best.cents - 1e-6);
    assert.ok(search.best.cents <= best.cents * 1.0001, `seed ${seed}: ${search.best.cents} ${best.cents}`);
    const bound = lowerBound(pricer, highs, search.best);
    assert.ok(bound <= best.cents + 1e-6, `seed ${seed}: bound ${bound} above ${best.cents}`);
    // The bound takes it that a guard spares every circuit its GFCI; without guards it comes near.
    const plain = new Pricer({ ...pricer.problem, guards: new Uint8Array(pricer.problem.ids.length) });
    const { cents } = proven(plain)!;
    const near = lowerBound(plain, highs, annealing(plain, seed, 1).best);
    assert.ok(near <= cents + 1e-6 && near > cents * 0.95, `seed ${seed}: bound ${near} of ${cents}`);
  }
});
