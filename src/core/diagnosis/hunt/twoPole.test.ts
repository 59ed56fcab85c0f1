/** Circuits of two poles: every figure of every cause is one, and a figure that is none is said and left out. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun } from '#core/circuits/run.ts';
import { breakerOf } from '#core/job/document.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import type { Box } from '#core/job/schema.ts';
import { withFaults } from '#core/network/faults.ts';
import { impedanceBetween, magnitude } from '#core/network/read.ts';
import { eliminationOf, Factors } from '#core/network/solve.ts';
import { houseWiring } from '#core/network/wiring.ts';
import { actualBoxes } from '#core/boxes/planned.ts';
import { DEAD_PAIRS, type Evidence } from './evidence.ts';
import { nodesOf, WIDTH } from './fields.ts';
import { Hunt } from './hunt.ts';
import { PLAIN_HOUSE } from './testing.ts';
import { Predictions, type Ground } from './predictions.ts';

function ground(
  devices: readonly Partial<Box['device']>[],
  neutral: boolean,
  protection: 'none' | 'gfci',
): Ground {
  const boxes = devices.map((d, i) => ({ ...outlet(`R${i + 1}`, i % 4, 20), device: receptacle(d) }));
  const plain = chain(boxes);
  const circuit = {
    ...plain,
    neutral,
    breaker: breakerOf(20, protection, 2),
    stops: plain.stops.map((s, i) => ({ ...s, measured: 150, ...(i % 2 ? { hot: 'red' as const } : {}) })),
  };
  const document = house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] });
  return { document, run: buildRun(document, circuit), house: PLAIN_HOUSE, panel: 'Service', leg: 'A' };
}

const CIRCUITS: [string, Partial<Box['device']>[], boolean][] = [
  ['multiwire', [{}, {}, {}, {}], true],
  ['multiwire behind a GFCI', [{ kind: 'gfci' }, {}, {}], true],
  ['split duplex', [{ tabs: 'hot-broken' }, { tabs: 'hot-broken' }], true],
  ['125/250 V', [{ kind: 'single', volts: '125/250', rating: 30 }], true],
  ['250 V', [{ volts: '250' }, { volts: '250' }], false],
  ['a heater', [{ kind: 'hardwired', volts: '250' }], false],
];

for (const [name, devices, neutral] of CIRCUITS)
  for (const protection of ['none', 'gfci'] as const)
    test(`every figure of every cause is one: ${name}, breaker protection ${protection}`, () => {
      const made = new Predictions(ground(devices, neutral, protection));
      const stops = made.wiring.terminals.length;
      const none: string[] = [];
      made.causes.forEach((cause, c) => {
        for (let stop = 0; stop < stops; stop++) {
          for (const [scene, table] of made.volts.entries())
            for (let f = 0; f < WIDTH; f++) {
              // No such slots is not a number under every cause.
              const there = Number.isFinite(made.at(scene, 0, stop, f));
              if (there && !Number.isFinite(table[made.rowAt(c, stop) + f]!)) none.push(`volts ${cause.key}`);
            }
          for (const pair of DEAD_PAIRS)
            if (!Number.isFinite(made.ohms[made.ohmsAt(c, stop, pair)]!)) none.push(`ohms ${cause.key}`);
        }
        if (made.legs.some((legs) => [0, 1, 2, 3].some((k) => !Number.isFinite(legs[4 * c + k]!))))
          none.push(`legs ${cause.key}`);
        if (!Number.isFinite(made.amps[c]!)) none.push(`amps ${cause.key}`);
      });
      assert.deepEqual(none, []);
    });

test('ohms of the dead circuit with both hots on one leg are those of the network solved whole', () => {
  const place = ground([{}, {}], true, 'none');
  const made = new Predictions(place);
  const c = made.causes.findIndex((x) => x.kind === 'same-leg');
  const use = { amps: new Map<number, number>(), open: new Set<number>(), dead: true };
  const wiring = houseWiring(
    made.scenes[0]!.house,
    [{ run: place.run, boxes: actualBoxes(place.run), use, panel: place.panel, leg: place.leg }],
    60,
  );
  const whole = withFaults(wiring, made.causes[c]!.faults);
  const factors = new Factors(whole, 0, eliminationOf(whole));
  for (const stop of [0, 1])
    for (const pair of DEAD_PAIRS) {
      const [a, b] = nodesOf(whole, stop, pair)!;
      const expected = magnitude(impedanceBetween(factors, whole.nodes.length, a, b));
      const got = made.ohms[made.ohmsAt(c, stop, pair)]!;
      assert.ok(Math.abs(got - expected) < 1e-3 * expected + 1e-6, `${stop} ${pair}: ${got}, ${expected}`);
    }
});

test('a hunt with ohms on two poles has a share for every cause', () => {
  const hunt = new Hunt(ground([{}, {}, {}], true, 'none'));
  const evidence: Evidence[] = [
    { id: 'a', after: 0, finding: { kind: 'ohms', stop: 1, pair: 'hotNeutral', ohms: 0.4 } },
    {
      id: 'b',
      after: 0,
      finding: { kind: 'breaker', does: 'trips at once', unplugged: true, minutes: null, amps: null },
    },
  ];
  const { suspects, none, unworkable } = hunt.diagnose(evidence);
  assert.deepEqual(unworkable, []);
  assert.ok(Math.abs(none + suspects.reduce((sum, s) => sum + s.share, 0) - 1) < 1e-3);
  assert.ok(['short', 'ground-fault'].includes(suspects[0]!.kind), suspects[0]!.key);
});

test('a cause whose figure is none drops out and is named; the others keep their shares', () => {
  const evidence: Evidence[] = [
    { id: 'a', after: 0, finding: { kind: 'ohms', stop: 1, pair: 'hotNeutral', ohms: 0.4 } },
  ];
  const hunt = new Hunt(ground([{}, {}], true, 'none'));
  hunt.diagnose([]);
  const { predictions } = hunt.branches[0]!;
  const c = predictions.causes.findIndex((x) => x.kind === 'same-leg');
  predictions.ohms[predictions.ohmsAt(c, 1, 'hotNeutral')] = NaN;
  const { suspects, none, unworkable, entropy } = hunt.diagnose(evidence);
  assert.deepEqual(unworkable, ['panel same-leg']);
  assert.ok(suspects.length > 0 && suspects.every((s) => Number.isFinite(s.share) && s.kind !== 'same-leg'));
  assert.ok(Number.isFinite(none) && Number.isFinite(entropy));
});
