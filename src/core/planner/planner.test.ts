import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import loadHighs from 'highs';
import { annealing } from './anneal.ts';
import { lowerBound } from './bound.ts';
import { firstLimits, split, tightened, type Limits } from './counts.ts';
import { KINDS, LARGE, OUT_OF_DROP, Pricer, type Plan, type Problem } from './problem.ts';
import { LimitedTree } from './limited.ts';
import { ListedSets } from './listed.ts';
import { byRelaxation, MOST_PROVEN, provePlan } from './prove.ts';
import { bySubsets } from './subsets.ts';
import { randomFrom } from './random.ts';
import { recombined } from './recombine.ts';
import { SetSearch, type Values } from './sets.ts';
import { bitsOf, randomHouse, randomProblem, subsetPlan, withTrunks } from './testing.ts';
import { cheapestTree } from './tree.ts';

const highs = await loadHighs();
/** The best plan from whatever the search gives, proven by the relaxation of sets, searched and listed, and by all subsets. */
function proven(pricer: Pricer): Plan | null {
  const start = annealing(pricer, 1, 1).best;
  const sound = pricer.spread(start.circuits.map((c) => c.sites)) ? start : null;
  const relaxed = byRelaxation(pricer, start, highs, new SetSearch(pricer));
  const listed = byRelaxation(pricer, start, highs, new ListedSets(pricer));
  const subsets = bySubsets(pricer, sound);
  if (start.cents < OUT_OF_DROP)
    for (const other of [listed, subsets])
      assert.ok(
        relaxed ? Math.abs(other!.cents - relaxed.cents) < 1e-6 : other === null,
        `${other?.cents} instead of ${relaxed?.cents} by the relaxation`,
      );
  return relaxed;
}

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
    for (const i of bitsOf(set))
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

/** Every way to group sites. */
function* groupings(count: number): Generator<number[][]> {
  if (count === 0) {
    yield [];
    return;
  }
  for (const groups of groupings(count - 1)) {
    for (let g = 0; g < groups.length; g++)
      yield groups.map((sites, i) => (i === g ? [...sites, count - 1] : sites));
    yield [...groups, [count - 1]];
  }
}

/** Small circuits, so that even few sites need several. */
const tight = (count: number, seed: number, values: Partial<Problem> = {}): Problem => {
  const problem = randomProblem(count, seed, values);
  return { ...problem, options: problem.options.map((o, i) => ({ ...o, capacity: 3 + i })) };
};

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
    { numRuns: 60 },
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
    { numRuns: 40 },
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
    { numRuns: 60 },
  );
  assert.ok(joined > 10, `only ${joined} were extended`);
});

/** What sets are reduced to at least where the search meets them, by their bits. */
function lowestSeen(
  pricer: Pricer,
  values: Values,
  limit: number,
  prepare: (search: SetSearch) => void = () => {},
): Map<number, number> {
  const seen = new Map<number, number>();
  const search = new SetSearch(pricer);
  prepare(search);
  const all = search.below(values, limit, Infinity, (sites, reduced) => {
    const mask = sites.reduce((m, i) => m | (1 << i), 0);
    seen.set(mask, Math.min(reduced, seen.get(mask) ?? Infinity));
    return limit;
  });
  assert.ok(all);
  return seen;
}

test('the search for sets visits every set below a limit at a bound that is its tree without limits', () => {
  for (let seed = 1; seed <= 8; seed++) {
    const count = 9;
    const garage = Uint8Array.from({ length: count }, (_, i) => (seed % 2 ? 0 : i % 3));
    const size = Int32Array.from({ length: count }, (_, i) => (seed % 3 ? 1 : 1 + (i % 3)));
    const marked = { sites: Uint8Array.from({ length: count }, (_, i) => (i % 4 ? 0 : 1)), circuits: 1 };
    const values: Partial<Problem> = { guards: new Uint8Array(count), company: garage, size, marked };
    const free = { ...values, maxOut: new Uint8Array(count).fill(count), maxDrop: Infinity };
    const pricer = new Pricer(tight(count, seed, free));
    const site = Float64Array.from({ length: count }, (_, i) => 2600 + 400 * (i % 4));
    const random = randomFrom(seed);
    const kind = Float64Array.from({ length: KINDS }, () => 1500 * random() - 750);
    const limit = seed % 4 ? 0 : 3000;
    const seen = lowestSeen(pricer, { site, kind }, limit);
    let below = 0;
    for (let mask = 1; mask < 1 << count; mask++) {
      const sites = bitsOf(mask);
      const worth = sites.reduce((t, i) => t + site[i]!, kind[pricer.kind(sites)]!);
      const reduced = (pricer.price(sites)?.cents ?? Infinity) - worth;
      if (reduced < limit - 1e-6) {
        below++;
        assert.ok(
          Math.abs(seen.get(mask)! - reduced) < 1e-6,
          `${sites.join()}: ${seen.get(mask)} is not ${reduced}`,
        );
      } else
        assert.ok(
          !seen.has(mask) || seen.get(mask)! > limit - 1e-3,
          `${sites.join()} seen at ${seen.get(mask)}`,
        );
    }
    assert.ok(below > 0, `seed ${seed} has no set below the limit`);
  }
});

test('the search for sets leaves out none that is cheap within drop, guards and full boxes, and few that drop rules out', () => {
  let [cheap, seenInVain, ruledOut] = [0, 0, 0];
  for (let seed = 1; seed <= 24; seed++) {
    const count = 9;
    const home = tight(count, seed, {}).home.map((inches) => inches + 300);
    // Where GFCI is cheap at the breaker, a receptacle that is there may still be fed first for the drop alone.
    const protection = seed % 3 ? ([0, 4000, 4500, 5500] as const) : ([0, 4000, 0, 4000] as const);
    const pricer = new Pricer(tight(count, seed, { home, protection, maxDrop: 1.6 + 0.4 * (seed % 4) }));
    const site = Float64Array.from({ length: count }, (_, i) => 3500 + 500 * (i % 4));
    const seen = lowestSeen(pricer, { site, kind: new Float64Array(KINDS) }, 0);
    for (let mask = 1; mask < 1 << count; mask++) {
      const sites = bitsOf(mask);
      const cents = pricer.price(sites)?.cents ?? Infinity;
      const reduced = cents - sites.reduce((t, i) => t + site[i]!, 0);
      if (reduced < -1e-6) {
        cheap++;
        assert.ok(seen.get(mask)! <= reduced + 1e-6, `${sites.join()}: ${seen.get(mask)} for ${reduced}`);
      } else if (cents >= OUT_OF_DROP && cents < Infinity) {
        if (seen.has(mask)) seenInVain++;
        else ruledOut++;
      }
    }
  }
  assert.ok(
    cheap > 500 && ruledOut > 4 * seenInVain,
    `${cheap} cheap, ${seenInVain} in vain, ${ruledOut} not`,
  );
});

test('penalties on full boxes leave out none that is cheap, and far fewer in vain', () => {
  let [cheap, inVain, before] = [0, 0, 0];
  for (let seed = 1; seed <= 12; seed++) {
    const count = 9;
    const maxOut = Uint8Array.from({ length: count }, (_, i) => (i % 9 === 0 ? 2 : 1));
    const company = Uint8Array.from({ length: count }, (_, i) => (seed % 3 ? 0 : i % 3));
    const problem = tight(count, seed, { maxOut, company, maxDrop: Infinity });
    // A star around one box makes that box want more cables than it may have.
    problem.between = problem.between.map((d, i) =>
      i % count === 4 || Math.floor(i / count) === 4 ? d / 3 : d,
    );
    const options = problem.options.map((o) => ({ ...o, capacity: 7 }));
    const pricer = new Pricer(
      seed % 2 ? { ...problem, options } : withTrunks({ ...problem, options }, 2, seed),
    );
    const site = Float64Array.from({ length: count }, (_, i) => 1700 + 200 * (i % 4));
    const values = { site, kind: new Float64Array(KINDS) };
    const all = Array.from({ length: 2 ** count - 1 }, (_, set) => bitsOf(set + 1));
    before += lowestSeen(pricer, values, 0).size;
    const seen = lowestSeen(pricer, values, 0, (search) => search.penalize(all.filter((s) => s.length > 5)));
    for (const sites of all) {
      const reduced = (pricer.price(sites)?.cents ?? Infinity) - sites.reduce((t, i) => t + site[i]!, 0);
      const found = seen.get(sites.reduce((m, i) => m | (1 << i), 0));
      if (reduced < -1e-6) {
        cheap++;
        assert.ok(found! <= reduced + 1e-6, `${sites.join()}: ${found} for ${reduced}`);
      } else if (found !== undefined) inVain++;
    }
  }
  assert.ok(
    cheap > 200 && 2 * inVain < before - cheap,
    `${cheap} cheap, ${inVain} in vain, ${before} before`,
  );
});

test('circuits that were met are put together as well as can be', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 11 }), fc.nat(1e6), fc.boolean(), (count, seed, few) => {
      const random = randomFrom(seed);
      const met = new Map<number, number>();
      const draws = few ? 2 * count : 40 * count;
      for (let k = 0; k < draws; k++) {
        const set = 1 + Math.floor(random() * (2 ** count - 1));
        met.set(set, 1000 + Math.floor(900 * bitsOf(set).length * random()));
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

test('limits on kinds keep every plan that is no dearer, and parts of them lose none', () => {
  for (let seed = 1; seed <= 6; seed++) {
    const count = 8;
    const marked = { sites: Uint8Array.from({ length: count }, (_, i) => (i % 3 ? 0 : 1)), circuits: 2 };
    const pricer = new Pricer(tight(count, seed, { marked }));
    const plans = [...groupings(count)]
      .map((groups) => ({
        groups,
        cents: groups.reduce((t, g) => t + (pricer.price(g)?.cents ?? Infinity), 0),
      }))
      .filter(({ groups, cents }) => cents < Infinity && pricer.spread(groups));
    const ceiling = Math.min(...plans.map((p) => p.cents)) * 1.1;
    const near = plans.filter((p) => p.cents <= ceiling);
    const keeps = (limits: Limits) => (groups: readonly number[][]) =>
      limits.every(({ kinds, least, most }) => {
        const held = groups.filter((g) => (kinds >> pricer.kind(g)) & 1).length;
        return held >= least && held <= most;
      });
    const first = firstLimits(pricer, ceiling);
    const limits = tightened(pricer, highs, first)!;
    for (const { groups } of near) assert.ok(keeps(limits)(groups), JSON.stringify(groups));
    // A count of two and a half of everything parts them all somewhere.
    const counts = new Float64Array(KINDS).fill(2.5 / KINDS);
    const parts = split(limits, counts)!.map((part) => tightened(pricer, highs, part));
    for (const { groups } of near)
      assert.equal(parts.filter((part) => part && keeps(part)(groups)).length, 1, JSON.stringify(groups));
  }
});

test('limits see where circuits are too few, and where some must be large', () => {
  // Eleven sites on circuits of three or four.
  const pricer = new Pricer(tight(11, 1, { least: new Uint8Array(11).fill(15) }));
  const [any, ...others] = firstLimits(pricer, 1e9);
  const atMost = (most: number) => tightened(pricer, highs, [{ ...any!, least: 0, most }, ...others]);
  const large = (limits: Limits | null) =>
    limits?.find(({ kinds }) =>
      Array.from({ length: KINDS }, (_, k) => k).every((k) => ((kinds >> k) & 1) === (k & LARGE ? 1 : 0)),
    )?.least;
  assert.equal(atMost(2), null);
  assert.equal(large(atMost(3)), 2);
  assert.equal(large(atMost(4)), 0);
});

test('more sites than can be proven get no proof', () => {
  const pricer = new Pricer(randomProblem(MOST_PROVEN + 1, 1));
  assert.equal(provePlan(pricer, annealing(pricer, 1, 1).best, highs), null);
});

test('houses of 25 outlets are proven, also where circuits are not full', () => {
  for (const seed of [3, 4]) {
    const free = { maxDrop: Infinity, guards: new Uint8Array(25) };
    const pricer = new Pricer({ ...randomHouse(25, seed), ...free });
    const search = annealing(pricer, seed, 2500);
    search.step(2500);
    const best = provePlan(pricer, search.best, highs)!;
    // What the search alone does not find.
    assert.ok(best.cents < search.best.cents, `house ${seed} is found by the search alone`);
    assert.deepEqual(
      best.circuits.flatMap((c) => c.sites).sort((a, b) => a - b),
      pricer.problem.ids.map((_, i) => i),
    );
    assert.ok(lowerBound(pricer, highs, best) <= best.cents + 1e-6);
  }
});

test('the search finds the proven best of small houses, and the bound stays below it', () => {
  for (let seed = 1; seed <= 12; seed++) {
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
