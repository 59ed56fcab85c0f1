/** Hunts in houses that ngspice solves, and what must hold of every advice. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { randomFrom } from '#core/planner/search/random.ts';
import { houseWiring } from '#core/network/wiring.ts';
import { withFaults } from '#core/network/faults.ts';
import { readVolts } from '#core/instruments/meter.ts';
import { actualBoxes } from '#core/boxes/planned.ts';
import type { Evidence, Finding } from './evidence.ts';
import { Hunt } from './hunt.ts';
import { KINDS } from './kinds.ts';
import { drawingsOf } from './drawings.ts';
import { MEASURE_FACTS, USUAL_SITUATION, keepsTripping, measureKey, whyNotNow } from './measures.ts';
import { marginals, nextOf } from './next.ts';
import { warningsOf } from './warnings.ts';
import { FIELD, FLOATS, joint, underLoad, WIDTH } from './fields.ts';
import { Predictions } from './predictions.ts';
import {
  chainGround,
  complaintOf,
  huntGround,
  makeTruth,
  otherOrder,
  perform,
  play,
  randomTrouble,
  repairsOf,
  voltsFound,
  type Trouble,
} from './testing.ts';
import { tries, oneIn } from '../../../../tests/support/sample.ts';

const found = (finding: Finding, after = 0): Evidence => ({ id: JSON.stringify(finding), after, finding });
test('a joint’s volts follow from none, one ohm and parted: as the divider itself', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.05, max: 80, noNaN: true }),
      fc.double({ min: 1, max: 200, noNaN: true }),
      (x, load) => {
        const at = (ohms: number) => (120 * load) / (load + 0.4 + ohms);
        assert.ok(Math.abs(joint(at(0), at(1), 0, x) - at(x)) < 1e-6);
        const neutral = (ohms: number) => (120 * (0.2 + ohms)) / (load + 0.4 + ohms);
        assert.ok(Math.abs(joint(neutral(0), neutral(1), 120, x) - neutral(x)) < 1e-6);
      },
    ),
  );
});

test('volts with a load put on are those of the network with that load in it', () => {
  const ground = huntGround(6, 7);
  const predictions = new Predictions(ground);
  const scene = predictions.scenes[2]!;
  const amps = new Map([...scene.amps, [3, (scene.amps.get(3) ?? 0) + 10]]);
  const use = { amps, open: new Set<number>() };
  const wiring = houseWiring(
    scene.house,
    [{ run: ground.run, boxes: actualBoxes(ground.run), use, panel: ground.panel, leg: ground.leg }],
    60,
  );
  let compared = 0;
  predictions.causes.forEach((cause, c) => {
    if (
      !['nothing', 'poor-hot', 'poor-neutral', 'open-neutral', 'false-ground', 'reversed'].includes(
        cause.kind,
      )
    )
      return;
    const there = withFaults(wiring, cause.faults);
    const at = predictions.rowAt(c, 3);
    const row = predictions.volts[2]!.subarray(at, at + WIDTH);
    const { hot, neutral, ground: slot } = there.terminals[3]!;
    for (const [pair, a, b] of [
      ['hotNeutral', hot, neutral],
      ['hotGround', hot, slot],
      ['neutralGround', neutral, slot],
    ] as const) {
      if (row[FIELD.ohms]! > FLOATS) continue;
      compared++;
      const expected = readVolts(there, a, b);
      const got = underLoad(row, pair, 10);
      assert.ok(Math.abs(got - expected) < 0.15, `${cause.key} ${pair}: ${got}, expected ${expected}`);
    }
  });
  assert.ok(compared > 40);
});

test('with nothing seen every cause has a share, and the first thing asked costs least and tells most', () => {
  const ground = huntGround(6, 2);
  const hunt = new Hunt(ground);
  const diagnosis = hunt.diagnose([]);
  const total = diagnosis.suspects.reduce((sum, s) => sum + s.share, 0) + diagnosis.none;
  assert.ok(Math.abs(total - 1) < 1e-3);
  assert.ok(diagnosis.suspects.some((s) => s.kind === 'appliance'));
  const next = nextOf(hunt, diagnosis, [], [], USUAL_SITUATION);
  assert.equal(next.do, 'measure');
  if (next.do !== 'measure') return;
  assert.ok(next.advice.cost <= 10);
  assert.ok(Math.abs(next.advice.answers.reduce((sum, a) => sum + a.share, 0) - 1) < 0.25);
});

test('a reading that fits nothing of what else was seen is pointed out', () => {
  const hunt = new Hunt(huntGround(5, 3));
  const good = [0, 1, 3, 4].map((s) => found(voltsFound(s, 120.5, 120.7, 0.2)));
  const odd = found(voltsFound(2, 63, 171, 22));
  const { contradictions } = hunt.diagnose([...good, odd]);
  assert.deepEqual(
    contradictions.map((c) => c.id),
    [odd.id],
  );
  assert.deepEqual(hunt.diagnose(good).contradictions, []);
});

test('outlets that cannot lie so on the drawn run: the drawing is wrong, and says where', () => {
  const ground = huntGround(6, 4);
  const feeders = ground.run.stops.map((s) => s.feeder);
  const last = feeders.length - 1;
  const above = feeders[last]!;
  const hunt = new Hunt(ground);
  const evidence = [
    ...ground.run.stops.flatMap((_, s) => (s < above ? [found(voltsFound(s, 120, 120, 0.1))] : [])),
    found(voltsFound(above, 0, 0.2, 0.2)),
    found(voltsFound(last, 120.4, 120.6, 0.2)),
  ];
  const { suspects } = hunt.diagnose(evidence);
  const wrong = suspects.filter((s) => s.differs !== '').reduce((sum, s) => sum + s.share, 0);
  assert.ok(wrong > 0.02, `${wrong}`);
  assert.match(suspects.find((s) => s.differs !== '')!.differs, new RegExp(ground.run.stops[last]!.box.name));
});

test('every cause has a kind with its repair; dangers of one repair are one', () => {
  for (const seed of [1, 5, 9]) {
    const { causes } = new Predictions(huntGround(5, seed));
    for (const c of causes) assert.ok(KINDS[c.kind].repair !== '', c.key);
    assert.ok(new Set(causes.map((c) => c.kind)).size > 20);
  }
});

test('no advice breaks a rule of safety, whatever was seen before', () => {
  const grounds = [huntGround(4, 1), huntGround(5, 6)].map((g) => ({ g, hunt: new Hunt(g) }));
  fc.assert(
    fc.property(fc.nat(1), fc.nat(1e6), fc.boolean(), (which, seed, qualified) => {
      const { g, hunt } = grounds[which]!;
      const random = randomFrom(seed);
      const count = 1 + Math.floor(random() * 4);
      const stop = () => Math.floor(random() * g.run.stops.length);
      const evidence = Array.from({ length: count }, (): Evidence => {
        const kind = Math.floor(random() * 7);
        if (kind === 0) return found(voltsFound(stop(), 130 * random(), 130 * random(), 130 * random()));
        if (kind === 1)
          return found({
            kind: 'breaker',
            does: random() < 0.6 ? 'trips at once' : 'holds',
            unplugged: random() < 0.6,
            minutes: null,
            amps: null,
          });
        if (kind === 2) return found({ kind: 'shock', stop: stop() });
        if (kind === 3) return found({ kind: 'works', stop: stop(), does: random() < 0.5 ? 'dead' : 'dim' });
        if (kind === 4) return found({ kind: 'elsewhere', does: 'some dim, some bright' });
        if (kind === 5)
          return found({ kind: 'legs', a: 90 + 60 * random(), b: 90 + 60 * random(), loaded: null });
        return found({ kind: 'opened', stop: stop(), found: [] });
      });
      const diagnosis = hunt.diagnose(evidence);
      const next = nextOf(hunt, diagnosis, evidence, [], { ...USUAL_SITUATION, qualified });
      const over = diagnosis.suspects
        .filter((s) => [s.kind, s.second?.kind].some((k) => k === 'service-neutral'))
        .reduce((sum, s) => sum + s.share, 0);
      if (over >= 0.25)
        assert.ok(warningsOf(diagnosis, [], hunt.ground.run).some((w) => w.danger === 'overvoltage'));
      if (next.do !== 'measure') return;
      for (const { measure } of [next.advice, ...next.others]) {
        const facts = MEASURE_FACTS[measure.kind];
        if (measure.kind === 'open' || measure.kind === 'part') {
          assert.ok(qualified);
          assert.ok(facts.gates.includes('off and locked') && facts.gates.includes('proof of dead'));
        }
        if (measure.kind === 'ohms') assert.ok(facts.gates.includes('off and locked'));
        if (facts.energized) assert.ok(qualified);
        if (keepsTripping(evidence)) {
          assert.notEqual(measure.kind, 'breaker');
          assert.ok(!facts.gates.includes('power on'), measureKey(measure));
        }
        if (evidence.some((e) => e.finding.kind === 'shock')) assert.notEqual(measure.kind, 'appliance');
        assert.ok(facts.caution !== '');
      }
    }),
    { numRuns: 12 },
  );
});

/** Each in a house of its own: the trouble, and how many boxes may be opened on the way. */
const CASES: readonly { seed: number; boxes: number; trouble: Trouble; most: number }[] = [
  { seed: 11, boxes: 6, trouble: { what: 'joint', box: 3, wire: 'n', where: 'in', ohms: 1e10 }, most: 3 },
  { seed: 12, boxes: 7, trouble: { what: 'joint', box: 2, wire: 'h', where: 'start', ohms: 3 }, most: 3 },
  { seed: 13, boxes: 5, trouble: { what: 'false-ground', box: 2 }, most: 2 },
  { seed: 14, boxes: 6, trouble: { what: 'swapped', box: 4, wires: ['h', 'n'] }, most: 2 },
  {
    seed: 15,
    boxes: 6,
    trouble: { what: 'touch', box: 3, wires: ['h', 'n'], ohms: 0.02, where: 'box' },
    most: 4,
  },
  { seed: 16, boxes: 5, trouble: { what: 'service-neutral', ohms: 1e10 }, most: 0 },
  { seed: 17, boxes: 5, trouble: { what: 'appliance' }, most: 1 },
];
for (const { seed, boxes, trouble, most } of oneIn(2, CASES))
  test(`found by following the advice: ${JSON.stringify(trouble)}`, () => {
    const truth = makeTruth(huntGround(boxes, seed), [trouble], seed);
    const played = play(truth);
    assert.ok(played.right, `${played.mended.join()} after ${played.steps.map((s) => s.said).join('; ')}`);
    assert.ok(played.boxes <= most, `${played.boxes} boxes`);
  });

test('random houses, each with its trouble, one in six drawn wrong: the cause is named', () => {
  let right = 0;
  const wrong: string[] = [];
  for (let seed = 500; seed < tries(502, 506); seed++) {
    const random = randomFrom(seed);
    const ground = huntGround(4 + Math.floor(random() * 5), seed);
    const truth = makeTruth(
      ground,
      [randomTrouble(ground, random)],
      seed,
      seed % 6 === 0 ? otherOrder(ground, random) : undefined,
    );
    if (play(truth).right) right++;
    else wrong.push(`${seed} ${repairsOf(truth).join()}`);
  }
  assert.ok(right >= tries(2, 5), wrong.join('; '));
});

test('after a repair the second fault is looked for', () => {
  const ground = huntGround(6, 21);
  const truth = makeTruth(
    ground,
    [
      { what: 'joint', box: 1, wire: 'h', where: 'in', ohms: 1e10 },
      { what: 'joint', box: 4, wire: 'g', where: 'in', ohms: 1e10 },
    ],
    21,
  );
  const played = play(truth);
  assert.ok(played.right, `${played.mended.join()} after ${played.steps.map((s) => s.said).join('; ')}`);
});

test('of what remains each repair has one share, whatever is beside it', () => {
  const truth = makeTruth(
    huntGround(5, 31),
    [{ what: 'joint', box: 2, wire: 'h', where: 'in', ohms: 1e10 }],
    31,
  );
  const hunt = new Hunt(truth.ground);
  const evidence = [...complaintOf(truth), perform(truth, { kind: 'volts', stop: 2, amps: 0 })].map((f) =>
    found(f),
  );
  const diagnosis = hunt.diagnose(evidence);
  const shares = marginals(diagnosis);
  for (const [key, share] of shares) assert.ok(share <= 1 + 1e-9, `${key} ${share}`);
});

test('low insulation to ground on a circuit that trips its GFCI is a leak, sound insulation is none', () => {
  const ground = huntGround(5, 31);
  const leaks = (megohms: number): number => {
    const { suspects } = new Hunt(ground).diagnose([
      {
        id: 'm',
        after: 0,
        finding: { kind: 'insulation', stop: 3, pair: 'hotGround', megohms },
      },
    ]);
    return suspects.filter((s) => s.kind === 'leak').reduce((sum, s) => sum + s.share, 0);
  };
  const before = new Hunt(ground).diagnose([]).suspects.filter((s) => s.kind === 'leak');
  const usual = before.reduce((sum, s) => sum + s.share, 0);
  assert.ok(leaks(0.02) > 0.5, `${leaks(0.02)}`);
  assert.ok(leaks(Infinity) < usual / 5, `${leaks(Infinity)} of ${usual}`);
});

test('orders that opened boxes leave are drawings of their own; counted cables tell them apart', () => {
  const plain = chainGround(4);
  const [drawn, starred] = [
    [-1, 0, 1, 2],
    [-1, 0, 0, 0],
  ];
  const ground = { ...plain, orders: [drawn, starred] };
  const counted = (stop: number, cables: number) => found({ kind: 'counted', stop, cables });
  const dead = found({ kind: 'works', stop: 3, does: 'dead' });
  const otherwise = (evidence: readonly Evidence[]) => {
    const hunt = new Hunt(ground);
    hunt.diagnose(evidence);
    return hunt.hypotheses.reduce((sum, h, i) => sum + (h.branch > 0 ? hunt.shares[i]! : 0), 0);
  };
  assert.ok(otherwise([dead]) > 0.02 && otherwise([dead]) < 0.3);
  assert.ok(otherwise([dead, counted(0, 4), counted(1, 1), counted(2, 1)]) > 0.95);
  assert.ok(otherwise([dead, counted(0, 2), counted(1, 2), counted(2, 2)]) < 0.01);
  assert.equal(drawingsOf({ ...plain, orders: [starred] }, []).find((d) => d.differs === '')!.share, 0.05);
  // A drawing says what it is in words.
  assert.match(drawingsOf(ground, [])[1]!.differs, /R1 from the panel, R2 from R1, R3 from R1, R4 from R1/);
});

test('a handle, a button, a switch and what stays live each speak of what they are of', () => {
  const ground = chainGround(5, 15, 1);
  const hunt = new Hunt(ground);
  const dead = found({ kind: 'works', stop: 3, does: 'dead' });
  const share = (key: string, ...more: Finding[]) =>
    marginals(hunt.diagnose([dead, ...more.map((f) => found(f))])).get(key) ?? 0;
  const state = (stop: number, on: boolean): Finding => ({ kind: 'state', stop, on });
  assert.ok(share('panel breaker-off', state(-1, false)) > 0.3);
  assert.ok(share('panel breaker-off', state(-1, true)) < 0.02);
  assert.ok(share('box 1 tripped', state(-1, true), state(1, false)) > 0.5);
  assert.ok(share('box 1 tripped', state(1, true)) < 0.03);
  const button = (does: 'its button trips it' | 'its button does nothing'): Finding => ({
    kind: 'device',
    stop: 1,
    does,
  });
  assert.ok(
    share('box 1 tripped', button('its button does nothing')) >
      3 * share('box 1 tripped', button('its button trips it')),
  );
  const other = (live: boolean) =>
    [...marginals(hunt.diagnose([found({ kind: 'live', stop: 2, live })]))].reduce(
      (sum, [k, x]) => sum + (k.endsWith('other-hot') ? x : 0),
      0,
    );
  assert.ok(other(true) > 20 * other(false), `${other(true)}, ${other(false)}`);
  const bright = hunt.diagnose([found({ kind: 'works', stop: 2, does: 'bright' })]);
  assert.ok(
    warningsOf(bright, [], ground.run).some((w) => w.danger === 'overvoltage'),
    'a light that is too bright: a lost neutral',
  );
  // It is looked at before it is moved, and not afterwards.
  const evidence = [
    dead,
    found({ kind: 'breaker', does: 'holds', unplugged: true, minutes: null, amps: null }),
  ];
  assert.equal(
    whyNotNow({ kind: 'state', stop: -1 }, ground.run, USUAL_SITUATION, evidence, 0),
    'it was moved since',
  );
  assert.equal(whyNotNow({ kind: 'state', stop: 1 }, ground.run, USUAL_SITUATION, evidence, 0), null);
});
