/** Two causes at once against ngspice; what a look, a parted cable, a breaker and a load tell when more than one thing is amiss. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { seenUnmended } from './asking.ts';
import { ampsShare, openedShare, overloadShare } from './devices.ts';
import { DEAD_PAIRS, type Evidence, type Finding } from './evidence.ts';
import { WIDTH } from './fields.ts';
import { Hunt } from './hunt.ts';
import type { CauseKind } from './kinds.ts';
import { marginals, nextOf } from './next.ts';
import { USUAL_SITUATION } from './measures.ts';
import { Predictions } from './predictions.ts';
import { huntGround, makeTruth, perform, play, repairsOf, voltsFound, type Trouble } from './testing.ts';
import { tries } from '../../../../tests/support/sample.ts';

const found = (finding: Finding, after = 0): Evidence => ({ id: JSON.stringify(finding), after, finding });
const shareOf = (hunt: Hunt, evidence: readonly Evidence[], key: RegExp, mended: readonly string[] = []) =>
  [...marginals(hunt.diagnose(evidence, mended))].reduce((sum, [k, x]) => sum + (key.test(k) ? x : 0), 0);

const reversed = (box: number): Trouble => ({ what: 'swapped', box, wires: ['h', 'n'] });
const touching = (box: number, to: 'n' | 'g', where: 'box' | 'cable'): Trouble => ({
  what: 'touch',
  box,
  wires: to === 'n' ? ['h', 'n'] : ['h', 'g'],
  ohms: 0.02,
  where,
});
const opened = (stop: number, ...kinds: CauseKind[]): Finding => ({ kind: 'opened', stop, found: kinds });

const PAIRS: readonly (readonly [Trouble, Trouble])[] = [
  [reversed(2), touching(3, 'g', 'cable')],
  [reversed(1), touching(4, 'n', 'box')],
  [{ what: 'false-ground', box: 2 }, touching(4, 'g', 'box')],
  [{ what: 'lifted-neutral' }, touching(2, 'n', 'cable')],
  [{ what: 'breaker', ohms: 1e10 }, touching(3, 'g', 'box')],
];
for (const [k, pair] of PAIRS.entries())
  test(`ohms of the dead circuit with two at once are what ngspice gives: ${JSON.stringify(pair)}`, () => {
    const seed = 60 + k;
    const truth = makeTruth(huntGround(6, seed), pair, seed);
    const predictions = new Predictions(truth.ground);
    const { causes } = predictions;
    const stops = truth.ground.run.stops.map((_, i) => i);
    const read = stops.map((stop) =>
      DEAD_PAIRS.map((of) => {
        const finding = perform(truth, { kind: 'ohms', stop, pair: of });
        return finding.kind === 'ohms' ? finding.ohms : NaN;
      }),
    );
    // A repair may have several causes: one of each has to give what was read everywhere.
    const of = repairsOf(truth).map((key) =>
      causes.flatMap(({ place, kind, faults }, c) => {
        const at = 'stop' in place ? `${place.at} ${place.stop}` : place.at;
        return `${at} ${kind}` === key && faults.length > 0 ? [c] : [];
      }),
    );
    const reader = predictions.pairsAt(stops, of.flat(), true);
    const out = predictions.scenes.map(() => new Float32Array(stops.length * WIDTH));
    const off = of[0]!.flatMap((x) =>
      of[1]!.flatMap((y) => {
        if (!reader.read(x, y, out)) return [];
        const apart = read.flatMap((row, stop) =>
          row.map((ohms, p) => {
            const told = reader.last.dead[stop * DEAD_PAIRS.length + p]!;
            if (ohms === Infinity) return told > 1e6 ? 0 : Infinity;
            return Math.abs(Math.log((told + 0.35) / (ohms + 0.35)));
          }),
        );
        return [Math.max(...apart)];
      }),
    );
    assert.ok(Math.min(...off) < 0.6, `off by ${off.join()}, read ${JSON.stringify(read)}`);
  });

test('a joint before a short keeps the breaker from opening at once: the amperes are what ngspice gives', () => {
  const pair: Trouble[] = [
    { what: 'joint', box: 1, wire: 'h', where: 'in', ohms: 3 },
    touching(3, 'n', 'box'),
  ];
  const truth = makeTruth(huntGround(5, 71), pair, 71);
  const predictions = new Predictions(truth.ground);
  const at = (kind: CauseKind, stop: number, part: string) =>
    predictions.causes.findIndex(
      (c) =>
        c.kind === kind &&
        c.faults.some((f) => 'stop' in f && f.stop === stop && (!('part' in f) || f.part === part)),
    );
  const [x, y] = [at('poor-hot', 1, 'end'), at('short', 3, '')];
  const reader = predictions.pairsAt([0], [x, y], false);
  reader.vary(x, 3);
  assert.ok(
    reader.read(
      x,
      y,
      predictions.scenes.map(() => new Float32Array(WIDTH)),
    ),
  );
  const clamp = perform(truth, { kind: 'amps' });
  assert.ok(clamp.kind === 'amps');
  assert.equal(reader.last.breaker, 'later');
  // What is plugged in behind the short takes next to nothing.
  assert.ok(
    Math.abs(reader.last.amps - clamp.amps) < 0.35 * clamp.amps,
    `${reader.last.amps}, ${clamp.amps} read`,
  );
  assert.ok(ampsShare(clamp.amps, reader.last.amps, 15) > 0.9);
  assert.ok(ampsShare(clamp.amps, 0, 15) < overloadShare(1.3 * 15, 15));
});

test('what is found in an opened box speaks for each of the causes there', () => {
  const at = (list: CauseKind[], there: CauseKind[]) => openedShare(list, there);
  assert.ok(at([], []) > 0.9 && at([], ['short']) < 0.1);
  assert.ok(at(['open-hot', 'poor-neutral'], ['open-hot', 'poor-neutral']) > 0.9);
  assert.ok(at(['open-hot', 'poor-neutral'], ['open-hot']) < 0.01, 'one of the two is not explained');
  assert.ok(at(['open-hot'], ['open-hot', 'poor-neutral']) < 0.1, 'one of the two was not seen');
  for (const there of [['reversed', 'false-ground'], ['false-ground-reversed']] as CauseKind[][])
    assert.ok(at(['reversed', 'false-ground', 'false-ground-reversed'], there) > 0.9, there.join());
  const hunt = new Hunt(huntGround(5, 3));
  const seen = [
    found({ kind: 'works', stop: 4, does: 'dead' }),
    found(opened(3, 'open-hot', 'poor-neutral')),
  ];
  assert.ok(
    shareOf(hunt, seen, /^box 3 poor-neutral$/, ['box 3 open-hot']) > 0.8,
    'the other one is still there',
  );
});

test('what was seen in a box is mended there, each once, and as the last look has it', () => {
  const seen = [found(opened(2, 'open-hot', 'poor-neutral')), found(opened(-1, 'lifted-neutral'))];
  assert.deepEqual(seenUnmended(seen, []), ['box 2 open-hot', 'box 2 poor-neutral', 'panel lifted-neutral']);
  assert.deepEqual(seenUnmended(seen, ['box 2 open-hot', 'panel lifted-neutral']), ['box 2 poor-neutral']);
  assert.deepEqual(seenUnmended([...seen, found(opened(2))], ['panel lifted-neutral']), []);
  const deadly = found(opened(1, 'reversed', 'false-ground-reversed', 'false-ground'));
  assert.deepEqual(seenUnmended([deadly], []), ['box 1 false-ground-reversed']);
  const hunt = new Hunt(huntGround(5, 3));
  const evidence = [found({ kind: 'works', stop: 4, does: 'dead' }), found(opened(1, 'reversed'))];
  const next = nextOf(hunt, hunt.diagnose(evidence), evidence, [], USUAL_SITUATION);
  assert.equal(next.do === 'repair' ? next.key : next.do, 'box 1 reversed');
});

test('a fork that is parted tells which of its cables it is', () => {
  // The first house with a box that feeds two.
  const seed = Array.from({ length: 40 }, (_, s) => s).find((s) => {
    const feeders = huntGround(7, s).run.stops.map((x) => x.feeder);
    return feeders.some((f, i) => f >= 0 && feeders.indexOf(f) !== i);
  })!;
  const ground = huntGround(7, seed);
  const feeders = ground.run.stops.map((s) => s.feeder);
  const fork = feeders.find((f, i) => f >= 0 && feeders.indexOf(f) !== i)!;
  const [one, other] = feeders.flatMap((f, i) => (f === fork ? [i] : [])) as [number, number];
  const trips = found({ kind: 'breaker', does: 'trips at once', unplugged: true, minutes: null, amps: null });
  const parted = (toward: number | null) => found({ kind: 'parted', stop: fork, amiss: 'beyond', toward });
  const toward = (stop: number, told: number | null) =>
    shareOf(new Hunt(ground), [trips, parted(told)], new RegExp(`^(box|cable) ${stop} `));
  assert.ok(toward(one, one) > 10 * toward(other, one));
  assert.ok(toward(other, other) > 10 * toward(one, other));
  assert.ok(toward(one, null) > toward(one, other), 'nobody said: either');
  const truth = makeTruth(ground, [touching(other, 'n', 'cable')], 5);
  assert.deepEqual(perform(truth, { kind: 'part', stop: fork }), parted(other).finding);
});

test('the legs are read with what opened the breaker off the bus', () => {
  const hunt = new Hunt(huntGround(5, 9));
  const short = found({ kind: 'ohms', stop: 1, pair: 'hotNeutral', ohms: 0.15 });
  const legs = found({ kind: 'legs', a: 120.4, b: 119.1, loaded: [119.5, 119.3] });
  const before = shareOf(hunt, [short], / short$/);
  const after = shareOf(hunt, [short, legs], / short$/);
  assert.ok(before > 0.5 && after > 0.95 * before, `${before}, ${after}`);
});

test('what a load pulls an outlet down by tells a joint, whatever is on elsewhere', () => {
  let told = 0;
  for (let seed = 0; seed < tries(4, 12); seed++) {
    const ground = huntGround(6, 80 + seed);
    const truth = makeTruth(ground, [{ what: 'joint', box: 3, wire: 'h', where: 'in', ohms: 0.9 }], seed);
    const finding = perform(truth, { kind: 'volts', stop: 3, amps: 10 });
    assert.ok(finding.kind === 'volts' && finding.free !== null);
    const hunt = new Hunt(ground);
    const poor = (f: Finding) => shareOf(hunt, [found(f)], /poor-hot$/);
    if (poor(finding) > 0.3) told++;
    const sound = perform(makeTruth(ground, [], seed), { kind: 'volts', stop: 3, amps: 10 });
    assert.ok(poor(sound) < 0.12, `sound wiring looks poor: ${poor(sound)} by ${JSON.stringify(sound)}`);
  }
  assert.ok(told >= tries(4, 11), `${told} told`);
  // A hot that is dead falls by nothing, and is no joint.
  const dead = { ...voltsFound(2, 0, 0, 0, 10), free: 0 } as Finding;
  assert.ok(shareOf(new Hunt(huntGround(6, 80)), [found(dead)], /poor-/) < 0.05);
});

test('two faults in one house are both found: reversed with a poor joint before it, a false ground behind an open hot', () => {
  for (const [seed, troubles] of [
    [91, [reversed(3), { what: 'joint', box: 1, wire: 'n', where: 'in', ohms: 2 }]],
    [
      92,
      [
        { what: 'joint', box: 1, wire: 'h', where: 'in', ohms: 1e10 },
        { what: 'false-ground', box: 4 },
      ],
    ],
  ] as [number, Trouble[]][]) {
    const played = play(makeTruth(huntGround(6, seed), troubles, seed));
    assert.ok(played.right, `${played.mended.join()} after ${played.steps.map((s) => s.said).join('; ')}`);
  }
});

test('a hunt that learns one thing after another knows what one knows that learns all at once', () => {
  const ground = huntGround(4, 8);
  const hunt = new Hunt(ground);
  const [dim, low, on, opens, lower] = [
    found({ kind: 'works', stop: 3, does: 'dim' }),
    found(voltsFound(2, 112, 117, 5, 10)),
    found({ kind: 'state', stop: -1, on: true }),
    found(opened(1)),
    found(voltsFound(3, 96, 108, 12, 8)),
  ];
  // One more, one that no network tells of, one struck: what is kept of pairs must never speak for another state.
  for (const known of [
    [dim, low],
    [dim, low, on],
    [dim, low, on, opens, lower],
    [dim, on, opens, lower],
  ])
    assert.deepEqual(hunt.diagnose(known), new Hunt(ground).diagnose(known), `${known.length} findings`);
});
