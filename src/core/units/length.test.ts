import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { formatFeet, formatInches, formatLength, parseLength } from './length.ts';

const READ: [string, number][] = [
  [`12' 6 1/2"`, 150.5],
  [`12'6-1/2"`, 150.5],
  ['12-6', 150],
  ['12-6 1/2', 150.5],
  ['150in', 150],
  ['150 inches', 150],
  ['12.5', 150],
  ['12', 144],
  [`12'`, 144],
  ['12ft 6in', 150],
  ['12 ft 6', 150],
  [`6"`, 6],
  [`1/2"`, 0.5],
  [`6 1/2"`, 6.5],
  [`12’ 6”`, 150],
  [`12′ 6½″`, 150.5],
  [`3''`, 3],
  [`0"`, 0],
];
for (const [text, inches] of READ) {
  test(`reads ${text} as ${inches} in`, () => {
    assert.deepEqual(parseLength(text), { ok: true, value: inches });
  });
}

test('a bare number is inches where the field says so', () => {
  assert.deepEqual(parseLength('32', { bare: 'inches' }), { ok: true, value: 32 });
  assert.deepEqual(parseLength('2-8', { bare: 'inches' }), { ok: true, value: 32 });
});

const REFUSED: [string, RegExp][] = [
  ['', /expected a length such as/],
  ['twelve', /“twelve” is not a length/],
  ['-4', /below zero/],
  [`12' 14"`, /inches below 12/],
  [`6 1/0"`, /does not add up/],
  ['9e9', /is not a length/],
  ['4000', /too long/],
  ['12m', /is not a length/],
  ['1 2 3', /is not a length/],
  ['NaN', /is not a length/],
  ['Infinity', /is not a length/],
  ["12' 6' 3", /is not a length/],
];
for (const [text, message] of REFUSED) {
  test(`refuses “${text}”`, () => {
    const result = parseLength(text);
    assert.equal(result.ok, false);
    if (!result.ok) assert.match(result.message, message);
  });
}

test('parse(format(x)) = x to the sixteenth', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 12000 * 16 }), (sixteenths) => {
      const inches = sixteenths / 16;
      assert.deepEqual(parseLength(formatLength(inches)), { ok: true, value: inches });
      assert.deepEqual(parseLength(formatInches(inches)), { ok: true, value: inches });
    }),
  );
});

test('any text gives an in-range number or a message, never a throw', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9 '"/.\-inft]{0,12}$/)), (text) => {
      const result = parseLength(text);
      if (result.ok) assert.ok(result.value >= 0 && result.value <= 12000);
      else assert.ok(result.message.length > 0);
    }),
    { numRuns: 500 },
  );
});

test('formats what a tape shows', () => {
  assert.equal(formatLength(150.5), `12' 6 1/2"`);
  assert.equal(formatLength(144), `12'`);
  assert.equal(formatLength(36.5), `3' 0 1/2"`);
  assert.equal(formatLength(11.999), `1'`);
  assert.equal(formatLength(-2.25), `-2 1/4"`);
  assert.equal(formatFeet(145), '13 ft');
  assert.equal(formatFeet(144), '12 ft');
});
