import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { judge, lampsFor, type Condition, type Verdict } from './verdict.ts';

const PLAN = { sourceVolts: 120, pathOhms: 0.15 };
const NOTHING = { lamps: null, hotNeutral: null, hotGround: null, neutralGround: null, loadAmps: 0 };
const lamps = (pattern: string) => [...pattern].map((c) => c === '1');

/** The patterns every electrician knows, against what the network of each condition lights. */
const PATTERNS: [Condition, string][] = [
  ['correct', '110'],
  ['open-ground', '100'],
  ['open-neutral', '010'],
  ['open-hot', '000'],
  ['hot-ground-reversed', '011'],
  ['hot-neutral-reversed', '101'],
];
for (const [condition, pattern] of PATTERNS) {
  test(`${condition} lights ${pattern}`, () => assert.deepEqual(lampsFor(condition, PLAN), lamps(pattern)));
  test(`lamps ${pattern} are read as ${condition}`, () =>
    assert.deepEqual(judge({ ...NOTHING, lamps: lamps(pattern) }, PLAN).fits, [condition]));
}

const READ: [string, Partial<Parameters<typeof judge>[0]>, Verdict['grade'], RegExp][] = [
  [
    'a healthy receptacle',
    { lamps: lamps('110'), hotNeutral: 119.8, hotGround: 119.7, neutralGround: 0.1 },
    'good',
    /^Correct$/,
  ],
  [
    'a healthy one under load',
    { hotNeutral: 117, hotGround: 118.5, neutralGround: 1.5, loadAmps: 10 },
    'good',
    /^Correct$/,
  ],
  [
    'zero under load far from the panel',
    { hotNeutral: 117, hotGround: 117, neutralGround: 0, loadAmps: 10 },
    'worry',
    /Reads correct, but: /,
  ],
  ['zero without load', { hotNeutral: 120, hotGround: 120, neutralGround: 0 }, 'good', /^Correct$/],
  ['an open ground by meter', { hotNeutral: 119, hotGround: 58, neutralGround: 60 }, 'bad', /^Open ground$/],
  [
    'an open neutral with a lamp left plugged in: three voltages cannot settle it',
    { hotNeutral: 1, hotGround: 119, neutralGround: 118 },
    'bad',
    /^Open neutral or Hot and ground reversed$/,
  ],
  [
    'hot and neutral reversed by meter',
    { hotNeutral: 119, hotGround: 0.5, neutralGround: 119 },
    'bad',
    /^Hot and neutral reversed$/,
  ],
  [
    'hot and ground reversed by meter',
    { hotNeutral: 0.4, hotGround: 119, neutralGround: 119 },
    'bad',
    /Hot and ground reversed/,
  ],
  [
    'a loose neutral under load',
    { hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    'worry',
    /Reads correct, but: /,
  ],
  [
    'everything off',
    { lamps: lamps('000'), hotNeutral: 0, hotGround: 0, neutralGround: 0 },
    'no-power',
    /circuit is off/,
  ],
  ['one voltage alone', { hotNeutral: 119 }, 'worry', /Correct, but .* would read the same/],
  ['lamps all lit', { lamps: lamps('111') }, 'bad', /no single simple fault/],
  [
    '240 V at a 120 V receptacle',
    { hotNeutral: 238, hotGround: 119, neutralGround: 119 },
    'bad',
    /no single simple fault/,
  ],
  ['nothing', {}, 'none', /Nothing read/],
];
for (const [what, values, grade, headline] of READ) {
  test(`judges ${what}`, () => {
    const verdict = judge({ ...NOTHING, ...values }, PLAN);
    assert.equal(verdict.grade, grade, JSON.stringify(verdict));
    assert.match(verdict.headline, headline);
  });
}

test('a box on record without a ground: open ground is expected, a grounded reading is not', () => {
  const bare = { ...PLAN, grounding: 'none' as const };
  const open = judge({ ...NOTHING, lamps: lamps('100') }, bare);
  assert.equal(open.headline, 'Open ground');
  assert.match(open.remarks[0]!.text, /As expected.*406\.4\(D\)\(2\)/);
  const grounded = judge({ ...NOTHING, lamps: lamps('110') }, bare);
  assert.equal(grounded.grade, 'worry');
  assert.match(grounded.headline, /a ground where there should be none/);
  assert.equal(judge({ ...NOTHING, lamps: lamps('110') }, { ...PLAN, grounding: 'grounded' }).grade, 'good');
});

test('the suspicious zero and the loose neutral say what was expected', () => {
  const zero = judge({ ...NOTHING, hotNeutral: 117, hotGround: 117, neutralGround: 0, loadAmps: 10 }, PLAN);
  assert.match(zero.remarks[0]!.text, /10 A × 0\.15 Ω = 1\.5 V.*false ground/);
  const loose = judge(
    { ...NOTHING, hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    PLAN,
  );
  assert.ok(loose.remarks.some((r) => /resistance of about 0\.91 Ω/.test(r.text)));
});

test('lamps that look correct always bring the list of what they cannot see', () => {
  assert.ok(
    judge({ ...NOTHING, lamps: lamps('110') }, PLAN).remarks.some((r) =>
      /cannot see a false ground/.test(r.text),
    ),
  );
});

test('a reading made from a condition always fits that condition', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 112, max: 126, noNaN: true }),
      fc.double({ min: 0, max: 12, noNaN: true }),
      fc.double({ min: 0.01, max: 0.3, noNaN: true }),
      (sourceVolts, loadAmps, pathOhms) => {
        const plan = { sourceVolts: 120, pathOhms };
        const n = loadAmps * pathOhms;
        const h = sourceVolts - n;
        const fits = (hot: number, neutral: number, ground: number) =>
          judge(
            {
              lamps: null,
              hotNeutral: Math.abs(hot - neutral),
              hotGround: Math.abs(hot - ground),
              neutralGround: Math.abs(neutral - ground),
              loadAmps,
            },
            plan,
          ).fits;
        assert.ok(fits(h, n, 0).includes('correct'));
        assert.ok(fits(n, h, 0).includes('hot-neutral-reversed'));
        assert.ok(fits(0, n, h).includes('hot-ground-reversed'));
        assert.ok(fits(h, n, h / 2).includes('open-ground'));
      },
    ),
  );
});
