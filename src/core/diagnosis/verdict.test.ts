import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { breakerOf, DEFAULT_SETTINGS, PLAIN_READING } from '#core/job/document.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import type { Condition } from './conditions.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { EARTH } from '#core/network/network.ts';
import { PERSON_OHMS, wiringOf } from '#core/network/wiring.ts';
import { readVolts } from '#core/instruments/meter.ts';
import { judge, type Readings, type Setting, type Verdict } from './verdict.ts';

/** One outlet whose conductors measure so many ohms each from the panel. */
function planOf(pathOhms: number, grounding: Setting['grounding'] = 'grounded'): Setting {
  const box = outlet('R1', 0, 20, { grounding });
  const circuit = chain([box]);
  const run = buildRun(
    house({ area: room([400, 300, 400, 300]), boxes: [box], circuits: [circuit] }),
    circuit,
  );
  const stops = run.stops.map((s) => ({
    ...s,
    pathOhms,
    segment: { ...s.segment, source: 'measured' as const, length: 24, ohms: pathOhms },
  }));
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
    /^Reads correct; false \(bootleg\) ground with hot and neutral reversed would read the same$/,
  ],
  [
    'a healthy one whose ground slot was read to a proven reference',
    { hotNeutral: 119.8, hotGround: 119.7, neutralGround: 0.1, groundReference: 0 },
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
    /^False \(bootleg\) ground with hot and neutral reversed or .*false \(bootleg\) ground$/,
  ],
  [
    'zero without load',
    { hotNeutral: 120, hotGround: 120, neutralGround: 0 },
    'good',
    /^Reads correct; false/,
  ],
  ['an open ground by meter', { hotNeutral: 119, hotGround: 58, neutralGround: 60 }, 'bad', /^Open ground$/],
  [
    'an open neutral with a lamp left plugged in: three voltages cannot settle it',
    { hotNeutral: 1, hotGround: 119, neutralGround: 118 },
    'bad',
    /^Hot and ground reversed or open neutral or two hots on one leg$/,
  ],
  [
    'hot and neutral reversed by meter',
    { hotNeutral: 119, hotGround: 0.5, neutralGround: 119 },
    'bad',
    /^Ground live: .* or hot and neutral reversed$/,
  ],
  [
    'a live ground, by the reference',
    { hotNeutral: 119, hotGround: 0.5, neutralGround: 119, groundReference: 119 },
    'bad',
    /^Ground live: [^;]*nowhere$/,
  ],
  [
    'plain reversed polarity, by the reference',
    { hotNeutral: 119, hotGround: 0.5, neutralGround: 119, groundReference: 0.2 },
    'bad',
    /^Hot and neutral reversed$/,
  ],
  [
    'a false ground with the hot on it, by the reference',
    { hotNeutral: 120, hotGround: 120, neutralGround: 0, groundReference: 120 },
    'bad',
    /^False \(bootleg\) ground with hot and neutral reversed$/,
  ],
  [
    'hot and ground reversed by meter',
    { hotNeutral: 0.4, hotGround: 119, neutralGround: 119 },
    'bad',
    /^Hot and ground reversed/,
  ],
  [
    'a loose neutral under load',
    { hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    'bad',
    /^Resistance in the neutral, about 0\.9 Ω$/,
  ],
  [
    'everything off',
    { lamps: lamps('000'), hotNeutral: 0, hotGround: 0, neutralGround: 0 },
    'bad',
    /^Nothing between the slots: open hot, the breaker off, or false \(bootleg\) ground with the neutral open$/,
  ],
  ['a zero with two pairs not read', { hotNeutral: 0 }, 'bad', /^(?!No voltage).*open neutral/i],
  [
    '145 V, ground and all',
    { hotNeutral: 145, hotGround: 145, neutralGround: 0.3 },
    'bad',
    /^Service neutral open$/,
  ],
  [
    '57 V, ground and all',
    { hotNeutral: 57, hotGround: 57, neutralGround: 0.2 },
    'bad',
    /ervice neutral open/,
  ],
  [
    '145 V and a ground in its place',
    { hotNeutral: 145, hotGround: 120, neutralGround: 25 },
    'bad',
    /^Shared neutral open$/,
  ],
  [
    '57 V and a ground in its place',
    { hotNeutral: 57, hotGround: 120, neutralGround: 63 },
    'bad',
    /hared neutral open/,
  ],
  ['145 V alone', { hotNeutral: 145 }, 'bad', /ervice neutral open or .*hared neutral open/],
  [
    'an open ground that takes nearly all',
    { hotNeutral: 120, hotGround: 112, neutralGround: 9 },
    'bad',
    /pen ground/,
  ],
  [
    'an open ground that takes hardly any',
    { hotNeutral: 120, hotGround: 8, neutralGround: 111 },
    'bad',
    /pen ground/,
  ],
  ['one voltage alone', { hotNeutral: 119 }, 'worry', /^Reads correct, but .* would read the same$/],
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
  assert.ok(zero.remarks.some((r) => /10 A × 0\.14\d+ Ω = 1\.4\d V.*false ground/.test(r.text)));
  assert.ok(zero.remarks.some((r) => r.level === 'danger' && /may be live/.test(r.text)));
  const loose = judge(
    { ...NOTHING, hotNeutral: 105, hotGround: 115.6, neutralGround: 10.6, loadAmps: 10 },
    PLAN,
  );
  // 10.6 V by 10 A, less 0.15 Ω of cable.
  assert.match(loose.remarks.map((r) => r.text).join(' '), /A joint of about 0\.91 Ω/);
});

test('a long ground path and a voltage off the plan are said', () => {
  const verdict = judge({ ...NOTHING, hotNeutral: 114, hotGround: 114, groundOhms: 3 }, PLAN);
  assert.match(verdict.headline, /^Reads correct, but: ground path too long; false \(bootleg\) ground/);
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

const levels = (values: Partial<Readings>, setting = PLAN) =>
  judge({ ...NOTHING, ...values }, setting).remarks.map((r) => r.level);

test('an open neutral of two circuits or of the service is danger: off at once, and whom to call', () => {
  for (const values of [
    { hotNeutral: 145, hotGround: 145, neutralGround: 0 },
    { hotNeutral: 57, hotGround: 57, neutralGround: 0 },
    { hotNeutral: 145, hotGround: 120, neutralGround: 25 },
    { hotNeutral: 57, hotGround: 120, neutralGround: 63 },
    { hotNeutral: 145 },
  ])
    assert.ok(levels(values).includes('danger'), JSON.stringify(values));
  const service = judge({ ...NOTHING, hotNeutral: 145, hotGround: 145, neutralGround: 0 }, PLAN);
  assert.ok(service.remarks.some((r) => /Main off now.*call the utility/.test(r.text)));
  // Both sides of the threshold: what a source may have is no open neutral.
  assert.ok(!levels({ hotNeutral: 129, hotGround: 129, neutralGround: 0.1 }).includes('danger'));
  assert.ok(levels({ hotNeutral: 134, hotGround: 134, neutralGround: 0.1 }).includes('danger'));
});

test('a breaker on record as off gives no alarm when nothing is read, and one when something is', () => {
  const off = { ...PLAN, off: true };
  const dead = judge({ ...NOTHING, hotNeutral: 0, hotGround: 0, neutralGround: 0 }, off);
  assert.deepEqual(
    [dead.grade, dead.headline],
    ['no-power', 'No voltage, with the breaker on record as off'],
  );
  assert.ok(!dead.remarks.some((r) => r.level === 'danger'));
  const live = judge({ ...NOTHING, hotNeutral: 119 }, off);
  assert.deepEqual([live.grade, live.headline], ['bad', 'Live, with the breaker on record as off']);
  assert.equal(live.remarks[0]!.level, 'danger');
});

test('a joint is judged by what its circuit may carry: 0.5 Ω at 1 A is 128 W at the 16 A of a 20 A circuit', () => {
  // 1 A × (0.15 + 0.5) Ω.
  const verdict = judge(
    { ...NOTHING, hotNeutral: 119.2, hotGround: 119.8, neutralGround: 0.65, loadAmps: 1 },
    PLAN,
  );
  assert.ok(
    verdict.remarks.some((r) => /about 0\.5 Ω.*128 W of heat in it at the 16 A/.test(r.text)),
    JSON.stringify(verdict),
  );
  // 16 A elsewhere over 0.15 Ω make 2.4 V; 4.8 V are more than that by 0.15 Ω.
  const far = judge({ ...NOTHING, hotNeutral: 115, hotGround: 119.8, neutralGround: 4.8 }, PLAN);
  assert.ok(
    far.remarks.some((r) => /at least 0\.15 Ω more.*38 W/.test(r.text)),
    JSON.stringify(far),
  );
  assert.ok(
    !judge({ ...NOTHING, hotNeutral: 117, hotGround: 119.8, neutralGround: 2.4 }, PLAN).remarks.some((r) =>
      /more is in/.test(r.text),
    ),
  );
});

test('a false ground under load is found wherever a tenth of a volt must stand, and named where none can', () => {
  for (const [ohms, amps] of [
    [0.02, 8],
    [0.05, 3],
    [0.15, 1],
    [0.6, 12],
  ] as const) {
    const n = ohms * amps;
    const verdict = judge(
      { ...NOTHING, hotNeutral: 120 - 2 * n, hotGround: 120 - 2 * n, neutralGround: 0, loadAmps: amps },
      planOf(ohms),
    );
    assert.ok(
      verdict.fits.some((f) => f.condition === 'false-ground'),
      `${ohms} Ω, ${amps} A: ${verdict.headline}`,
    );
    assert.ok(verdict.fits.every((f) => f.condition !== 'correct'));
  }
  const near = judge(
    { ...NOTHING, hotNeutral: 119.9, hotGround: 119.9, neutralGround: 0, loadAmps: 1 },
    planOf(0.02),
  );
  assert.match(near.headline, /^Reads correct; .*false \(bootleg\) ground with hot and neutral reversed/);
  assert.ok(near.remarks.some((r) => /read the same here: .*false \(bootleg\) ground/.test(r.text)));
});

test('sound wiring is never danger nor bad, at any length, source and load, here or elsewhere', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 112, max: 126, noNaN: true }),
      fc.double({ min: 0, max: 12, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.01, max: 0.8, noNaN: true }),
      fc.boolean(),
      (source, here, share, ohms, reference) => {
        const load = Math.round(here * 10) / 10;
        const total = load + share * (16 - load);
        const n = total * ohms;
        const round = (v: number) => Math.round(v * 10) / 10;
        const verdict = judge(
          {
            ...NOTHING,
            hotNeutral: round(source - 2 * n),
            hotGround: round(source - n),
            neutralGround: round(n),
            loadAmps: load,
            groundReference: reference ? 0 : null,
          },
          planOf(ohms),
        );
        const said = JSON.stringify({ source, load, total, ohms, verdict });
        assert.ok(!verdict.remarks.some((r) => r.level === 'danger'), said);
        assert.notEqual(verdict.grade, 'bad', said);
      },
    ),
    { numRuns: 300 },
  );
});

test('where a body on the ground slot draws 5 mA the verdict is danger, or names what reads the same', () => {
  const boxes = [0, 1, 2].map((i) => outlet(`R${i + 1}`, 0, 20 + 40 * i));
  const circuit = chain(boxes);
  const line = buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] }), circuit);
  const setting = (stop: number): Setting => ({
    run: line,
    stop,
    grounding: 'grounded',
    settings: DEFAULT_SETTINGS,
  });
  let deadly = 0;
  fc.assert(
    fc.property(
      fc.constantFrom('live-ground', 'false-reversed', 'false-open', 'swap', 'none'),
      fc.nat(2),
      fc.nat(2),
      fc.constantFrom(0, 0.5, 5, 10),
      fc.boolean(),
      (kind, at, upstream, amps, reference) => {
        const above = Math.min(at, upstream);
        const sets: Record<typeof kind, Fault[]> = {
          'live-ground': [
            { kind: 'open', stop: above, conductor: 'ground', part: 'start' },
            { kind: 'short', stop: at, conductors: ['black', 'ground'], ohms: 0.05 },
          ],
          'false-reversed': [
            { kind: 'false-ground', stop: at },
            { kind: 'swap', stop: at, conductors: ['black', 'neutral'] },
          ],
          'false-open': [
            { kind: 'false-ground', stop: at },
            { kind: 'open', stop: above, conductor: 'neutral', part: 'start' },
          ],
          swap: [{ kind: 'swap', stop: at, conductors: ['black', 'ground'] }],
          none: [],
        };
        const wiring = wiringOf(line, { amps: new Map(amps > 0 ? [[at, amps]] : []), open: new Set() });
        const faulty = withFaults(wiring, sets[kind]);
        const { hot, neutral, ground } = faulty.terminals[at]!;
        const body = readVolts(faulty, ground, EARTH, PERSON_OHMS) / PERSON_OHMS;
        const volts = (a: number, b: number) => Math.round(10 * readVolts(faulty, a, b)) / 10;
        const verdict = judge(
          {
            ...NOTHING,
            hotNeutral: volts(hot, neutral),
            hotGround: volts(hot, ground),
            neutralGround: volts(neutral, ground),
            groundReference: reference ? volts(ground, faulty.panel.ground) : null,
            loadAmps: amps,
          },
          setting(at),
        );
        const danger = verdict.remarks.some((r) => r.level === 'danger');
        const said = JSON.stringify({ kind, at, above, amps, reference, body, verdict });
        if (body >= 0.005) {
          deadly++;
          assert.ok(danger || (!reference && verdict.silentDanger.length > 0), said);
          assert.notEqual(verdict.headline, 'Correct', said);
        } else if (kind === 'none') assert.ok(!danger, said);
      },
    ),
    { numRuns: 150, seed: 3 },
  );
  assert.ok(deadly > 50, `${deadly}`);
});

const said = (values: Partial<Readings>, setting = PLAN) => judge({ ...NOTHING, ...values }, setting);
const danger = (verdict: Verdict) => verdict.remarks.find((r) => r.level === 'danger')?.text ?? '';
const SUB: Setting = { ...PLAN, behindFeeder: true };
const volts = (hotNeutral: number | null, hotGround: number | null, neutralGround: number | null) => ({
  hotNeutral,
  hotGround,
  neutralGround,
});

/** Frames that are live, by milliamperes through 1 kΩ worked by hand: the volts of the ground to its place. */
const LIVE_FRAMES: [string, Partial<Readings>, Setting, milliamps: number, Condition | null][] = [
  ['a hot of the other leg behind a feeder', volts(120, 239, 121), SUB, 121, 'open-feeder-ground'],
  ['a hot on a ground of 2 Ω', volts(113.9, 11.2, 102.7), PLAN, 103, 'hot-on-poor-ground'],
  ['a ground held at a quarter', volts(119, 90, 29), PLAN, 29, 'hot-on-poor-ground'],
  ['no single fault', volts(88, 59, 29), PLAN, 29, null],
  ['hot to ground alone', volts(null, 239, null), PLAN, 119, null],
  ['both legs float', volts(160, 160, 0), PLAN, 40, 'open-service-neutral'],
  ['three wires to a panel, its neutral lost', volts(160, 160, 0), SUB, 40, 'open-feeder-neutral'],
  ['lamps, neutral to ground alone', { lamps: lamps('001') }, PLAN, 85, null],
  ['lamps, all three', { lamps: lamps('111') }, PLAN, 85, null],
  ['a proven ground, nothing else', { ...volts(120, 120, 0), groundReference: 40 }, PLAN, 40, null],
];
for (const [name, values, setting, milliamps, condition] of LIVE_FRAMES)
  test(`frames are live: ${name}`, () => {
    const verdict = said(values, setting);
    assert.match(danger(verdict), new RegExp(`${milliamps} mA`), JSON.stringify(verdict.remarks));
    const fit = verdict.fits.find((f) => f.condition === condition);
    if (condition) assert.ok(Math.abs(1000 * fit!.bodyAmps - milliamps) < 1, JSON.stringify(verdict.fits));
  });

test('frames at an outlet of two hots: a ground on the other leg is said', () => {
  const box = outlet('H1', 0, 20, { device: receptacle({ kind: 'single', volts: '250', rating: 30 }) });
  const circuit = chain([box], { neutral: false, breaker: breakerOf(30, 'none', 2), gauge: '10' });
  const run = buildRun(
    house({ area: room([400, 300, 400, 300]), boxes: [box], circuits: [circuit] }),
    circuit,
  );
  const heater: Setting = { run, stop: 0, grounding: 'grounded', settings: DEFAULT_SETTINGS };
  assert.match(danger(said({ hotHot: 240, hotGround: 239 }, heater)), /119 mA/);
  assert.equal(danger(said({ hotHot: 240, hotGround: 120 }, heater)), '');
});

test('what ends at the main is not turned off at one breaker', () => {
  assert.match(danger(said(volts(120, 239, 121), SUB)), /The main off now/);
  assert.match(danger(said(volts(0.4, 119, 119))), /Turn the circuit off now/);
});

test('a box on record without a ground that reads grounded is taken for live until a proven ground was read', () => {
  const old = planOf(0.15, 'none');
  assert.match(danger(said(volts(120, 120, 0), old)), /120 mA/);
  assert.equal(danger(said({ ...volts(120, 120, 0), groundReference: 0 }, old)), '');
  assert.equal(danger(said(volts(120, 120, 0))), '');
});

test('an open ground that floats half way is no danger by itself, and a raised neutral no joint of its ground', () => {
  assert.equal(danger(said(volts(119, 58, 60))), '');
  assert.doesNotMatch(danger(said(volts(119, 90, 29))), /W of heat/);
});

test('a switched half that is off with a ghost on it is no alarm; with a load on, or live, it is read as any', () => {
  const half: Setting = { ...PLAN, switched: true };
  for (const values of [volts(38, 38, 0.1), volts(0, 0, 0), volts(89, 88, 1)]) {
    const verdict = said(values, half);
    assert.deepEqual([verdict.grade, danger(verdict)], ['no-power', ''], JSON.stringify(values));
    assert.deepEqual(
      verdict.fits.map((f) => f.condition),
      ['switched-off'],
    );
    assert.ok(verdict.silentDanger.includes('false-ground-open-neutral') || values.hotNeutral === 89);
  }
  assert.notEqual(danger(said(volts(38, 38, 0.1))), '');
  assert.notEqual(said({ ...volts(38, 38, 0.1), loadAmps: 5 }, half).grade, 'no-power');
  assert.equal(said(volts(120, 120, 0), half).fits[0]!.condition, 'correct');
  assert.notEqual(said({ lamps: lamps('001') }, half).grade, 'no-power');
});

test('a loose neutral of one hot is a fault to mend, without words of two poles', () => {
  for (const values of [volts(85, 120, 35), volts(78, 120, 42)]) {
    const { remarks, fits } = said(values);
    assert.ok(
      remarks.some((r) => /A fault to mend: a neutral joint/.test(r.text)),
      JSON.stringify(remarks),
    );
    assert.ok(!remarks.some((r) => /[Bb]oth poles|up to 240/.test(r.text)), JSON.stringify(remarks));
    assert.ok(!fits.some((f) => f.condition === 'open-shared-neutral'));
  }
});

test('a hot joint read hot to neutral alone is judged by its watts: sure only below what a utility may send', () => {
  const at = (hotNeutral: number) => said({ hotNeutral, loadAmps: 11 });
  // 106 V at 11 A: 0.95 × 120 V less the cable leaves 110.7 V; 4.7 V over 11 A are 0.42 Ω, 108 W at 16 A.
  assert.match(danger(at(106)), /108 W of heat in it at the 16 A/);
  assert.equal(danger(at(112)), '');
  assert.ok(
    at(112).remarks.some((r) => r.level === 'worry' && /Read it again with the load off/.test(r.text)),
  );
  assert.ok(!at(115.5).remarks.some((r) => /joint/.test(r.text)));
});
