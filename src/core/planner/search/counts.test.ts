import assert from 'node:assert/strict';
import { test } from 'node:test';
import loadHighs from 'highs';
import { firstLimits, split, tightened, type Limits } from './counts.ts';
import { KINDS, LARGE, Pricer } from './problem.ts';
import { groupings, tight } from './testing.ts';

const highs = await loadHighs();

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
