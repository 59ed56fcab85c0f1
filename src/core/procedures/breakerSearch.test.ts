/** The search for a breaker against every strategy there is, and on whole panels. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { View } from '#core/view/view.ts';
import { searchBreaker, type Candidate, type Flip } from './breakerSearch.ts';
import { goesDark } from './goesDark.ts';

const panel = (count: number, weight: (k: number) => number = () => 1): Candidate[] =>
  Array.from({ length: count }, (_, k) => ({ space: String(k + 1), weight: weight(k) }));

/** Looks until it is certain, and what they were. */
function find(candidates: readonly Candidate[], truth: string): Flip[] {
  const flips: Flip[] = [];
  for (;;) {
    const { next, certain, possible } = searchBreaker(candidates, flips);
    assert.ok(possible.includes(truth));
    if (certain !== null || next === null) {
      assert.equal(certain, truth);
      return flips;
    }
    flips.push({ off: next, dead: next.includes(truth) });
    assert.ok(flips.length < 60);
  }
}

/** Least weighted looks over all ways of parting a set, without the last confirmation. */
function best(weights: readonly number[]): number {
  const known = new Map<number, number>();
  const sum = (mask: number) => weights.reduce((s, w, k) => s + (mask & (1 << k) ? w : 0), 0);
  const of = (mask: number): number => {
    if ((mask & (mask - 1)) === 0) return 0;
    const there = known.get(mask);
    if (there !== undefined) return there;
    let least = Infinity;
    for (let side = (mask - 1) & mask; side > 0; side = (side - 1) & mask)
      if (side < (mask ^ side)) least = Math.min(least, of(side) + of(mask ^ side));
    known.set(mask, least + sum(mask));
    return least + sum(mask);
  };
  return of(2 ** weights.length - 1);
}

test('a panel of 40 alike is halved: six looks and no more, one to confirm where it was never seen dead', () => {
  for (let truth = 1; truth <= 40; truth++) {
    const flips = find(panel(40), String(truth));
    const parting = flips.filter((f) => f.off.length > 1 || f.dead).length;
    assert.ok(flips.length <= 7 && parting <= 7, `${truth}: ${flips.length}`);
  }
  assert.equal(searchBreaker(panel(40), []).atMost, 7);
});

test('with a directory to go by no way of looking is shorter on average', () => {
  for (let seed = 0; seed < 40; seed++) {
    const random = randomFrom(seed);
    const weights = Array.from({ length: 2 + Math.floor(7 * random()) }, () => 1 + Math.floor(20 * random()));
    const candidates = panel(weights.length, (k) => weights[k]!);
    const looks = weights.reduce((total, w, k) => {
      const flips = find(candidates, String(k + 1));
      // The last look at one that is alone confirms, and parts nothing.
      const confirms = flips.at(-1)!.off.length === 1 && flips.slice(0, -1).every((f) => !f.dead);
      const alone = confirms && searchBreaker(candidates, flips.slice(0, -1)).possible.length === 1 ? 1 : 0;
      return total + w * (flips.length - alone);
    }, 0);
    assert.equal(looks, best(weights), `${weights.join(' ')}`);
  }
});

test('what must stay on is never turned off; what it then is, is said as possible and not as certain', () => {
  const candidates = panel(8).map((c) => ({ ...c, staysOn: c.space === '3' }));
  const flips: Flip[] = [];
  for (;;) {
    const { next, possible, certain } = searchBreaker(candidates, flips);
    if (next === null) {
      assert.deepEqual([possible, certain], [['3'], null]);
      break;
    }
    assert.ok(!next.includes('3'));
    flips.push({ off: next, dead: false });
  }
});

test('flips that do not go together are said to be so', () => {
  const flips = [
    { off: ['1', '2'], dead: true },
    { off: ['1', '2', '3'], dead: false },
  ];
  assert.deepEqual(searchBreaker(panel(4), flips), {
    possible: [],
    certain: null,
    contradicted: true,
    next: null,
    atMost: 0,
  });
  assert.throws(() => searchBreaker([], []), /no breaker on record/);
});

test('what goes dark: outlets with their rooms, what hangs on them, what has to be looked after', () => {
  const view = new View(tamarackJob());
  const circuits = circuitsInOrder(view.document);
  const all = goesDark(view, circuits);
  assert.equal(
    all.reduce((n, d) => n + d.outlets.length, 0),
    new Set(all.flatMap((d) => d.outlets.map((o) => o.name))).size,
    'no outlet goes dark with two circuits',
  );
  const cold = all.filter((d) => d.watch.some((w) => /thaws/.test(w.why)));
  assert.ok(cold.length >= 1 && cold.every((d) => d.appliances.some((a) => /refrigerator/i.test(a))));
  const unknown = { ...circuits[0]!, complete: 'unknown' as const };
  assert.equal(goesDark(view, [unknown])[0]!.whole, false);
});
