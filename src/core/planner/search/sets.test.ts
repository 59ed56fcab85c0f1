import assert from 'node:assert/strict';
import { test } from 'node:test';
import { setOf, sitesIn } from './bits.ts';
import { KINDS, OUT_OF_DROP, Pricer, type Problem } from './problem.ts';
import { randomFrom } from './random.ts';
import { SetSearch, type Values } from './sets.ts';
import { tight, withTrunks } from './testing.ts';

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
    const mask = setOf(sites);
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
      const sites = sitesIn(mask);
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
      const sites = sitesIn(mask);
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
    const all = Array.from({ length: 2 ** count - 1 }, (_, set) => sitesIn(set + 1));
    before += lowestSeen(pricer, values, 0).size;
    const seen = lowestSeen(pricer, values, 0, (search) => search.penalize(all.filter((s) => s.length > 5)));
    for (const sites of all) {
      const reduced = (pricer.price(sites)?.cents ?? Infinity) - sites.reduce((t, i) => t + site[i]!, 0);
      const found = seen.get(setOf(sites));
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
