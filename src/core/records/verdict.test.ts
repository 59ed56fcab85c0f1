import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { buildRun, type Run } from '../circuits/run.ts';
import { breakerOf, DEFAULT_SETTINGS, PLAIN_READING } from '../job/document.ts';
import { chain, house, outlet, receptacle, room } from '../job/testing.ts';
import type { Condition } from './conditions.ts';
import { judge, type Readings, type Setting, type Verdict } from './verdict.ts';

/** One outlet whose conductors measure so many ohms each from the panel. */
function planOf(pathOhms: number, grounding: Setting['grounding'] = 'grounded'): Setting {
  const box = outlet('R1', 0, 20, { grounding });
  const circuit = chain([box]);
  const run = buildRun(
    house({ area: room([400, 300, 400, 300]), boxes: [box], circuits: [circuit] }),
    circuit,
  );
  const stops = run.stops.map((s) => ({ ...s, pathOhms, segment: { ...s.segment, ohms: pathOhms } }));
  return { run: { ...run, stops } as Run, stop: 0, grounding, settings: DEFAULT_SETTINGS };
}
const PLAN = planOf(0.15);
const NOTHING: Readings = PLAIN_READING;
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
  test(`lamps ${pattern} are read as ${condition}`, () =>
    assert.ok(
      judge({ ...NOTHING, lamps: lamps(pattern) }, PLAN).fits.some((f) => f.condition === condition),
      JSON.stringify(judge({ ...NOTHING, lamps: lamps(pattern) }, PLAN)),
    ));
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
    'zero under load far from the panel: a meter cannot tell whether hot and neutral are reversed too',
    { hotNeutral: 117, hotGround: 117, neutralGround: 0, loadAmps: 10 },
    'bad',
    /^False ground or false ground with hot and neutral reversed$/,
  ],
  ['zero without load', { hotNeutral: 120, hotGround: 120, neutralGround: 0 }, 'good', /^Correct$/],
  ['an open ground by meter', { hotNeutral: 119, hotGround: 58, neutralGround: 60 }, 'bad', /^Open ground$/],
  [
    'an open neutral with a lamp left plugged in: three voltages cannot settle it',
    { hotNeutral: 1, hotGround: 119, neutralGround: 118 },
    'bad',
    /^Open neutral or two hots on one leg or hot and ground reversed$/,
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
    /hot and ground reversed/,
  ],
  [
    'a loose neutral under load',
    { hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    'worry',
    /^Resistance in the neutral, about 0\.9 Ω$/,
  ],
  [
    'everything off',
    { lamps: lamps('000'), hotNeutral: 0, hotGround: 0, neutralGround: 0 },
    'no-power',
    /circuit is off/,
  ],
  ['one voltage alone', { hotNeutral: 119 }, 'worry', /Correct, but .* would read the same/],
  ['lamps all lit', { lamps: lamps('111') }, 'bad', /^Two hots on both legs$/],
  [
    '240 V at a 120 V receptacle',
    { hotNeutral: 238, hotGround: 119, neutralGround: 119 },
    'bad',
    /^Two hots on both legs$/,
  ],
  ['lamps that no wiring gives', { lamps: lamps('001') }, 'bad', /no single simple fault/],
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
  const bare = planOf(0.15, 'none');
  const open = judge({ ...NOTHING, lamps: lamps('100') }, bare);
  assert.equal(open.headline, 'Open ground');
  assert.match(open.remarks[0]!.text, /As expected.*406\.4\(D\)\(2\)/);
  const grounded = judge({ ...NOTHING, lamps: lamps('110') }, bare);
  assert.equal(grounded.grade, 'worry');
  assert.match(grounded.headline, /a ground where there should be none/);
  assert.equal(judge({ ...NOTHING, lamps: lamps('110') }, PLAN).grade, 'good');
});

test('the suspicious zero and the loose neutral say what was expected', () => {
  const zero = judge({ ...NOTHING, hotNeutral: 117, hotGround: 117, neutralGround: 0, loadAmps: 10 }, PLAN);
  assert.ok(zero.remarks.some((r) => /10 A × 0\.149 Ω = 1\.49 V.*false ground/.test(r.text)));
  assert.ok(zero.remarks.some((r) => r.level === 'danger' && /may be live/.test(r.text)));
  const loose = judge(
    { ...NOTHING, hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    PLAN,
  );
  assert.ok(loose.remarks.some((r) => /A joint of about 0\.94 Ω/.test(r.text)));
});

test('a long ground path and a voltage off the plan are said', () => {
  const verdict = judge({ ...NOTHING, hotNeutral: 114, hotGround: 114, groundOhms: 3 }, PLAN);
  assert.equal(verdict.headline, 'Reads correct, but: ground path too long');
  assert.ok(verdict.remarks.some((r) => /a fault to it draws 40 A/.test(r.text)));
  assert.ok(verdict.remarks.some((r) => /^5 % below what the plan gives with 120 V/.test(r.text)));
});

test('240 V: legs, a lost one, both hots on one, and 208 V', () => {
  const box = outlet('K1', 0, 20, { device: receptacle({ kind: 'single', volts: '250', rating: 30 }) });
  const circuit = chain([box], { breaker: breakerOf(30, 'none', 2), neutral: false, gauge: '10' });
  const document = house({ area: room([400, 300, 400, 300]), boxes: [box], circuits: [circuit] });
  const plan: Setting = {
    run: buildRun(document, circuit),
    stop: 0,
    grounding: 'grounded',
    settings: DEFAULT_SETTINGS,
  };
  const read = (hotHot: number, hotGround: number, loadAmps = 0) =>
    judge({ ...NOTHING, hotHot, hotGround, loadAmps }, plan);
  assert.equal(read(240, 120).headline, 'Correct');
  assert.match(read(0.2, 120).headline, /One leg lost|Both hots on one leg/);
  assert.ok(read(0.2, 120).fits.some((f) => f.condition === 'same-leg'));
  const service = read(208, 120);
  assert.ok(service.remarks.some((r) => /208 V: two legs of a three-phase service/.test(r.text)));
  // 24 A through 1 Ω more take 24 V from the black leg: 120 − 24 to ground, 240 − 24 and some between the hots.
  assert.match(read(215, 96, 24).headline, /Resistance in the hot, about (0\.9|1|1\.1) Ω/);
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
        const plan = planOf(pathOhms);
        // Slot potentials by Ohm’s law, with the load’s current through hot and neutral.
        const n = loadAmps * pathOhms;
        const h = sourceVolts - n;
        const fits = (condition: Condition, hot: number, neutral: number, ground: number) => {
          const readings: Readings = {
            ...NOTHING,
            hotNeutral: Math.abs(hot - neutral),
            hotGround: Math.abs(hot - ground),
            neutralGround: Math.abs(neutral - ground),
            loadAmps,
          };
          const verdict = judge(readings, plan);
          const names = [...verdict.fits.map((f) => f.condition), ...verdict.silent];
          assert.ok(names.includes(condition), `${condition}: ${JSON.stringify({ readings, names })}`);
        };
        fits('correct', h, n, 0);
        fits('hot-neutral-reversed', n, h, 0);
        fits('open-ground', h, n, h / 2);
        fits('false-ground', h, n, n);
        // With hot and ground reversed the load lies between neutral and ground and draws nothing.
        fits('hot-ground-reversed', 0, 0, sourceVolts);
        fits('two-hots', sourceVolts, sourceVolts, 0);
      },
    ),
  );
});
