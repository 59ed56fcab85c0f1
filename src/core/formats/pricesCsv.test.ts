import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PRICE_ITEMS } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { house } from '#core/job/testing.ts';
import { breakerPrice, cablePrice, MADE_UP_PRICES, priceBookOf } from '#core/panel/prices.ts';
import { breakerOf } from '#core/job/document.ts';
import { PRICE_COLUMNS, pricesFromCsv, pricesToCsv } from './pricesCsv.ts';
import { plainCsv } from './testing.ts';

const csv = pricesToCsv(MADE_UP_PRICES);

test('a price book goes out and comes back the same, and a second parser reads the same cells', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 10_000_000 }), {
        minLength: PRICE_ITEMS.length,
        maxLength: PRICE_ITEMS.length,
      }),
      (cents) => {
        const book = Object.fromEntries(
          PRICE_ITEMS.map((item, i) => [item, cents[i]!]),
        ) as typeof MADE_UP_PRICES;
        const text = pricesToCsv(book);
        const prices = pricesFromCsv(text);
        assert.deepEqual(priceBookOf({ ...house().job, prices }), book);
        const [head, ...lines] = plainCsv(text);
        assert.deepEqual(head, [...PRICE_COLUMNS]);
        assert.deepEqual(
          lines.map(([item, , dollars]) => [item, Math.round(Number(dollars) * 100)]),
          PRICE_ITEMS.map((item, i) => [item, cents[i]]),
        );
      },
    ),
    { numRuns: 50 },
  );
});

test('part of a book leaves the rest as it was', () => {
  const prices = pricesFromCsv('item,unit,dollars\nbreaker,each,$9.50\n');
  const book = priceBookOf({ ...house().job, prices });
  assert.equal(book.breaker, 950);
  assert.equal(book['cable-12-2'], MADE_UP_PRICES['cable-12-2']);
});

test('what is wrong is named by line and column', () => {
  const said = (text: string) => {
    try {
      pricesFromCsv(text);
      return 'accepted';
    } catch (error) {
      assert.ok(error instanceof InvalidError);
      return error.problems.map((p) => `${p.path}: ${p.message}`).join('; ');
    }
  };
  const line = (row: string) => said(`item,unit,dollars\n${row}\n`);
  assert.match(line('gold,each,1'), /line 2\.item: expected one of .*found “gold”/);
  assert.match(line('breaker,ft,1'), /line 2\.unit: expected each/);
  for (const wrong of ['', 'much', '-1', '100001', 'Infinity', '1e9'])
    assert.match(line(`breaker,each,${wrong}`), /line 2\.dollars: expected an amount/, wrong);
  assert.match(line('breaker,each,1\nbreaker,each,2'), /line 3\.item: “breaker” is there twice/);
  assert.match(said('thing,price\n'), /column “item” is missing/);
  assert.equal(said(`\uFEFF${csv}`), 'accepted');
});

test('prices of what is not in the book by name', () => {
  assert.equal(breakerPrice(MADE_UP_PRICES, breakerOf(20, 'dual')), 5900);
  assert.equal(breakerPrice(MADE_UP_PRICES, breakerOf(50, 'none', 2)), 1600);
  assert.equal(breakerPrice(MADE_UP_PRICES, breakerOf(50, 'gfci', 2)), 11500);
  assert.equal(cablePrice(MADE_UP_PRICES, '12', 3), 104);
  // 4 AWG by its copper: 270 × 41,740 ÷ 26,240.
  assert.ok(Math.abs(cablePrice(MADE_UP_PRICES, '4', 2) - 429.49) < 0.01);
});
