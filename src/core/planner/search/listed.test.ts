import assert from 'node:assert/strict';
import { test } from 'node:test';
import { setOf, sitesIn } from './bits.ts';
import { estimatedSets, ListedSets } from './listed.ts';
import { KINDS, OUT_OF_DROP, Pricer, type Problem } from './problem.ts';
import { randomHouse, randomProblem, tight, withTrunks } from './testing.ts';

test('listed sets are all that one circuit may take, at their prices', () => {
  let [held, ruledOut] = [0, 0];
  for (let seed = 1; seed <= 24; seed++) {
    const count = 9;
    const company = Uint8Array.from({ length: count }, (_, i) => (seed % 3 ? 0 : i % 3));
    const room = Int32Array.from({ length: count }, (_, i) => (i < 3 ? 0 : -1));
    const size = Int32Array.from({ length: count }, (_, i) => (seed % 4 ? 1 : 1 + (i % 2)));
    const maxOut = Uint8Array.from({ length: count }, (_, i) => 1 + (i % 2));
    const values: Partial<Problem> = {
      company,
      room,
      dark: 900,
      size,
      maxOut,
      maxDrop: 0.5 + 0.4 * (seed % 5),
    };
    const problem = tight(count, seed, values);
    const pricer = new Pricer(seed % 2 ? problem : withTrunks(problem, 2, seed));
    const list = ListedSets.of(pricer, 20_000)!;
    const prices = new Map<number, number>();
    const none = { site: new Float64Array(count), kind: new Float64Array(KINDS) };
    list.below(none, OUT_OF_DROP, Infinity, (sites, cents) => {
      const set = setOf(sites);
      prices.set(set, Math.min(cents, prices.get(set) ?? Infinity));
      return OUT_OF_DROP;
    });
    for (let set = 1; set < 1 << count; set++) {
      const cents = pricer.price(sitesIn(set))?.cents ?? Infinity;
      if (cents >= OUT_OF_DROP) {
        ruledOut++;
        assert.equal(prices.get(set), undefined, `seed ${seed}: ${sitesIn(set).join()} may not be a circuit`);
      } else {
        held++;
        const told = `seed ${seed}: ${sitesIn(set).join()} at ${prices.get(set)} for ${cents}`;
        assert.ok(Math.abs(prices.get(set)! - cents) < 1e-6, told);
      }
    }
  }
  assert.ok(held > 2000 && ruledOut > 1000, `${held} held, ${ruledOut} ruled out`);
});

test('an estimate is near to how many sets there are, and too many are not listed', () => {
  for (const [make, count, maxDrop] of [
    [randomHouse, 16, 3.6],
    [randomHouse, 20, 1.6],
    [randomProblem, 18, 2.4],
  ] as const) {
    const pricer = new Pricer({ ...make(count, 5), maxDrop });
    const estimate = estimatedSets(pricer);
    assert.ok(ListedSets.of(pricer, Math.ceil(2 * estimate)), `more than twice ${estimate}`);
    assert.equal(ListedSets.of(pricer, Math.floor(estimate / 2)), null, `less than half of ${estimate}`);
  }
});
