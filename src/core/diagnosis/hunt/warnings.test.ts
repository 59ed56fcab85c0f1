import assert from 'node:assert/strict';
import { test } from 'node:test';
import { HIGH_OHMS, LOW_OHMS } from '#core/instruments/meter.ts';
import type { Evidence, Finding } from './evidence.ts';
import { Hunt } from './hunt.ts';
import type { Danger } from './kinds.ts';
import { nextOf } from './next.ts';
import { USUAL_SITUATION } from './measures.ts';
import { chainGround, voltsFound } from './testing.ts';
import { seenDangers } from './warnings.ts';
import { isDenied } from './asking.ts';

const GROUND = chainGround(4);
const dry = GROUND.run;
const wet = { ...dry, stops: dry.stops.map((s) => ({ ...s, box: { ...s.box, waterDistance: 24 } })) };
const all = (findings: readonly Finding[], after = 0): Evidence[] =>
  findings.map((finding) => ({ id: `${after} ${JSON.stringify(finding)}`, after, finding }));
const reference = (volts: number): Finding => ({
  ...(voltsFound(1, 120, 120, 0) as Finding & { kind: 'volts' }),
  reference: volts,
});
const withMeter = (finding: Finding, meterOhms: number): Finding => ({ ...finding, meterOhms }) as Finding;
const legs = (a: number, b: number, loaded: [number, number] | null = null): Finding => ({
  kind: 'legs',
  a,
  b,
  loaded,
});

const CASES: [string, Finding, Danger | null][] = [
  ['29 V on a ground slot, dry', reference(29), null],
  ['30 V on a ground slot, dry', reference(30), 'shock'],
  ['104 V and 128 V', legs(104, 128), 'overvoltage'],
  ['106 V and 112 V', legs(106, 112), null],
  ['the other leg rises by 3 V under a load', legs(120, 120, [115, 123]), 'overvoltage'],
  ['a lamp too bright', { kind: 'works', stop: 1, does: 'bright' }, 'overvoltage'],
  ['a dim lamp', { kind: 'works', stop: 1, does: 'dim' }, null],
  ['some bright, some dim', { kind: 'elsewhere', does: 'some dim, some bright' }, 'overvoltage'],
  ['a shock', { kind: 'shock', stop: 2 }, 'shock'],
  ['heat', { kind: 'sign', stop: 2, sign: 'heat' }, 'fire'],
  ['a smell', { kind: 'sign', stop: 2, sign: 'smell' }, 'fire'],
  ['smoke', { kind: 'sign', stop: 2, sign: 'smoke' }, 'fire'],
  ['a buzz alone', { kind: 'sign', stop: 2, sign: 'buzz' }, null],
  ['live with its breaker off', { kind: 'live', stop: 2, live: true }, 'shock'],
  ['150 V', voltsFound(1, 150, 150, 0), 'overvoltage'],
  ['sound', voltsFound(1, 120, 120, 0.2), null],
  ['a ground 40 V off at low impedance', withMeter(voltsFound(1, 120, 80, 40), LOW_OHMS), 'shock'],
  ['an open ground half way on 10 MΩ', withMeter(voltsFound(1, 120, 60, 60), HIGH_OHMS), null],
  ['lamps, neutral to ground lit', { kind: 'lamps', stop: 1, lamps: [true, false, true] }, 'shock'],
];
for (const [name, finding, danger] of CASES)
  test(`warned of at once: ${name}`, () => {
    const list = seenDangers(all([finding]), dry);
    assert.deepEqual(
      list.map((w) => [w.danger, w.share]),
      danger === null ? [] : [[danger, 1]],
    );
  });

test('at water 15 V are enough', () => {
  assert.equal(seenDangers(all([reference(16)]), dry).length, 0);
  assert.equal(seenDangers(all([reference(16)]), wet).length, 1);
  assert.equal(seenDangers(all([reference(14)]), wet).length, 0);
});

test('a warning stays until it is read anew after a repair and gone; a good reading before one ends nothing', () => {
  const live = all([reference(60)]);
  assert.equal(seenDangers([...live, ...all([reference(0.2)])], dry).length, 1);
  assert.equal(seenDangers([...live, ...all([voltsFound(1, 120, 120, 0)], 1)], dry).length, 1);
  assert.equal(seenDangers([...live, ...all([reference(0.2)], 1)], dry).length, 0);
  assert.equal(seenDangers([...live, ...all([reference(40)], 1)], dry).length, 2);
});

test('what somebody looked at and found not to be it is not offered again before something new is seen', () => {
  const hunt = new Hunt(GROUND);
  const dead = all([
    { kind: 'works', stop: 2, does: 'dead' },
    { kind: 'works', stop: 3, does: 'dead' },
    { kind: 'opened', stop: 1, found: [] },
    { kind: 'opened', stop: 2, found: [] },
  ]);
  const key = 'cable 2 open-hot';
  const cleared = all([{ kind: 'cleared', place: { at: 'cable', stop: 2 }, cause: 'open-hot' }]);
  assert.equal(isDenied(key, dead, 0), false);
  assert.equal(isDenied(key, [...dead, ...cleared], 0), true);
  assert.equal(isDenied('cable 3 open-hot', [...dead, ...cleared], 0), false);
  assert.equal(isDenied(key, [...dead, ...cleared, ...all([voltsFound(1, 120, 120, 0)])], 0), false);
  const odds = (evidence: Evidence[]) => {
    const share = hunt.diagnose(evidence).suspects.find((s) => s.key === key)?.share ?? 0;
    return share / (1 - share);
  };
  assert.ok(odds(dead) > 0 && odds([...dead, ...cleared]) < odds(dead) / 10, `${odds(dead)}`);
  for (const at of ['cable', 'service', 'plugged'] as const) {
    const evidence = [...dead];
    for (let n = 0; n < 12; n++) {
      const next = nextOf(hunt, hunt.diagnose(evidence), evidence, [], USUAL_SITUATION);
      if (next.do !== 'repair') break;
      assert.ok(!isDenied(next.key, evidence, 0), `${at} ${next.key}`);
      const [place, stop] = next.key.split(' ');
      if (place === 'box' || place === 'panel')
        evidence.push(...all([{ kind: 'opened', stop: place === 'box' ? Number(stop) : -1, found: [] }]));
      else
        evidence.push(
          ...all([
            {
              kind: 'cleared',
              place: place === 'cable' ? { at: 'cable', stop: Number(stop) } : { at: place as 'service' },
              cause: next.key.split(' ').at(-1) as 'open-hot',
            },
          ]),
        );
    }
  }
});

test('after a repair no breaker is closed onto a short that is still likely', () => {
  const hunt = new Hunt(GROUND);
  const trips: Finding = {
    kind: 'breaker',
    does: 'trips at once',
    unplugged: true,
    minutes: null,
    amps: null,
  };
  const ohms = (stop: number, value: number): Finding => ({
    kind: 'ohms',
    stop,
    pair: 'hotNeutral',
    ohms: value,
  });
  // A joint was mended that has nothing to do with it.
  const mended = ['box 0 poor-neutral'];
  const evidence = all([trips, ohms(3, 0.3)]);
  const next = nextOf(hunt, hunt.diagnose(evidence, mended), evidence, mended, USUAL_SITUATION);
  const asked = next.do === 'measure' ? [next.advice, ...next.others].map((a) => a.measure.kind) : [];
  assert.ok(
    !asked.includes('breaker') && !asked.includes('volts') && next.do !== 'done',
    JSON.stringify(next),
  );
  // Read over on the dead circuit after the repair of the short it may come on.
  const right = ['box 3 short'];
  const after = [...evidence, ...all([{ ...ohms(3, Infinity) }], 1)];
  const then = nextOf(hunt, hunt.diagnose(after, right), after, right, USUAL_SITUATION);
  assert.equal(then.do === 'measure' && then.advice.measure.kind, 'breaker');
});
