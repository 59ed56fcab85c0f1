/** What holds of the planned wiring of any box, and what is made of it. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { withCables, withConductors, withSplices, CABLE_BUILDS, notLookedAt } from './asFound.ts';
import { connectorFor, connectorRange } from './connectors.ts';
import { contentsFrom } from './contents.ts';
import { DEVICES } from './devices.ts';
import { fillOf } from './fill.ts';
import { actualWiring, plannedBoxes } from './planned.ts';
import { stepsFor } from './steps.ts';
import { KINDS, runOfKind, SCHOOLS } from './testing.ts';
import { differences, EMPTY_WIRING, endsOf, membersOf, moved, placesOf, sameWiring } from './wiring.ts';
import { boxWiringSchema } from '#core/job/schema.ts';
import type { BoxWiring, ConnectorKind, Gauge } from '#core/job/schema.ts';
import type { Run } from '#core/circuits/run.ts';
import { randomRun } from '#core/network/testing.ts';

const ALL: [string, Run][] = [
  ...KINDS.flatMap((kind) =>
    SCHOOLS.map((school): [string, Run] => [`${kind.name}, ${school.joining}`, runOfKind(kind, school)]),
  ),
  ...Array.from({ length: 40 }, (_, k): [string, Run] => [`random ${k}`, randomRun(2 + (k % 14), k + 1)]),
];
const each = (check: (wiring: BoxWiring, run: Run, at: number, what: string) => void) => {
  for (const [what, run] of ALL)
    plannedBoxes(run).forEach((wiring, at) => check(wiring, run, at, `${what}: ${run.stops[at]!.box.name}`));
};

test('every end is somewhere exactly once, and every place is one of the box', () => {
  each((wiring, _run, _at, what) => {
    const ends = endsOf(wiring).map((e) => e.id);
    assert.equal(new Set(ends).size, ends.length, `${what}: two ends of one name`);
    assert.deepEqual([...wiring.places.map((p) => p.end)].sort(), [...ends].sort(), what);
    const places = new Map(placesOf(wiring).map((p) => [p.id, p]));
    for (const { at } of wiring.places) if (at !== null) assert.ok(places.has(at), `${what}: ${at}`);
    for (const [id, { kind, takes }] of places)
      if (kind === 'terminal')
        assert.ok(membersOf(wiring, id).length <= takes, `${what}: ${id} holds more than it takes`);
    for (const { id } of wiring.splices)
      assert.ok(membersOf(wiring, id).length >= 2, `${what}: ${id} joins nothing`);
  });
});

test('a splice joins conductors of one function, and no terminal of a sound box mixes them', () => {
  each((wiring, _run, _at, what) => {
    const functionOf = new Map(endsOf(wiring).map((e) => [e.id, e]));
    for (const place of [...wiring.splices, ...placesOf(wiring)].map((p) => p.id)) {
      const functions = new Set(
        membersOf(wiring, place)
          .map((m) => functionOf.get(m)!)
          .filter((e) => e.kind !== 'lead')
          .map((e) => e.function),
      );
      assert.ok(functions.size <= 1, `${what}: ${place} joins ${[...functions].join(' and ')}`);
    }
  });
});

test('the steps land every end, each once', () => {
  each((wiring, run, at, what) => {
    const landed = stepsFor(run, run.stops[at]!).flatMap((s) => s.lands ?? []);
    assert.deepEqual(
      [...landed].sort(),
      endsOf(wiring)
        .map((e) => e.id)
        .sort(),
      what,
    );
    const keys = stepsFor(run, run.stops[at]!).map((s) => s.key);
    assert.equal(new Set(keys).size, keys.length, what);
  });
});

test('grounds are joined before anything else, and landed first or last as the school has it', () => {
  each((_wiring, run, at, what) => {
    const steps = stepsFor(run, run.stops[at]!);
    const splices = steps.filter((s) => s.key.startsWith('splice'));
    const ground = splices.findIndex((s) => /all grounds/.test(s.text));
    assert.ok(ground <= 0, `${what}: grounds are not the first splice`);
    const landings = steps.filter((s) => s.key.startsWith('land')).map((s) => s.key);
    const expected = ['land ground', 'land neutral', 'land hot'].filter((k) => landings.includes(k));
    if (run.stops[at]!.school.landing === 'hot-neutral-ground') expected.reverse();
    assert.deepEqual(landings, expected, what);
  });
});

test('both ends of a cable carry the same conductors, and a white is never what comes back from a switch', () => {
  for (const [what, run] of ALL) {
    const boxes = plannedBoxes(run);
    run.stops.forEach((stop, at) => {
      const far = boxes[at]!.cables.find((c) => c.toward === 'feed')!;
      const near = stop.feeder < 0 ? far : boxes[stop.feeder]!.cables.find((c) => c.toward === stop.box.id)!;
      assert.deepEqual(near.conductors, far.conductors, `${what}: ${stop.box.name}`);
      for (const c of far.conductors) {
        if (c.color !== 'white') continue;
        assert.notEqual(c.function, 'switched', what);
        assert.equal(
          c.mark !== null,
          c.function !== 'neutral',
          `${what}: a white that is no neutral is marked`,
        );
      }
    });
  }
});

test('planned, recorded and read again it is the same; a moved end is the one difference', () => {
  each((wiring, run, at, what) => {
    const { box } = run.stops[at]!;
    const read = boxWiringSchema.validateSync(JSON.parse(JSON.stringify(wiring)), { strict: true });
    const recorded = { ...box, wiring: { stage: 'as-done' as const, at: null, by: '', wiring: read } };
    assert.ok(sameWiring(actualWiring(recorded, wiring), wiring), what);
    const [first] = wiring.places;
    if (!first || first.at === null) return;
    const capped = moved(wiring, first.end, null);
    assert.deepEqual(differences(wiring, capped), [{ end: first.end, from: first.at, to: null }], what);
    assert.ok(sameWiring(moved(capped, first.end, first.at), wiring), what);
  });
});

test('fill is what a slow count of the conductors gives', () => {
  const VOLUME: Partial<Record<Gauge, number>> = { '14': 2, '12': 2.25, '10': 2.5, '8': 3, '6': 5 };
  each((wiring, run, at, what) => {
    const contents = contentsFrom(wiring, run.stops[at]!.segment.gauge, true);
    if (!contents.ok) {
      assert.match(contents.message, /314\.28/);
      return;
    }
    let sum = 0;
    let largest = 0;
    let own = 0;
    let grounds = 0;
    let groundLargest = 0;
    for (const cable of wiring.cables)
      for (const c of cable.conductors) {
        if (c.color === 'armor') continue;
        const each = VOLUME[c.gauge!]!;
        largest = Math.max(largest, each);
        if (cable.circuitId === null) own = Math.max(own, each);
        if (c.function === 'ground') {
          grounds++;
          groundLargest = Math.max(groundLargest, each);
        } else sum += each;
      }
    sum += largest;
    for (const yoke of wiring.yokes) sum += 2 * DEVICES[yoke.kind].gangs * own;
    if (grounds > 0) sum += groundLargest + (Math.max(0, grounds - 4) * groundLargest) / 4;
    assert.ok(Math.abs(fillOf(contents.value, '2023').volume - sum) < 1e-9, what);
  });
});

const CONNECTORS: [Gauge[], ConnectorKind, ConnectorKind][] = [
  [['14', '14'], 'small twist-on', '2-way lever'],
  [['12', '12'], 'small twist-on', '2-way lever'],
  [['14', '14', '14'], 'small twist-on', '3-way lever'],
  [['12', '12', '12'], 'medium twist-on', '3-way lever'],
  [['12', '12', '12', '12'], 'medium twist-on', '5-way lever'],
  [['12', '12', '12', '12', '12'], 'large twist-on', '5-way lever'],
  [['12', '12', '12', '12', '12', '12'], 'large twist-on', '8-way lever'],
  [['10', '10'], 'medium twist-on', '2-way lever, large'],
  [['10', '10', '10'], 'large twist-on', '3-way lever, large'],
  [['10', '12'], 'medium twist-on', '2-way lever, large'],
  [['10', '10', '10', '10', '10'], 'extra-large twist-on', '5-way lever, large'],
  [['8', '8'], 'large twist-on', 'large twist-on'],
  [['6', '6'], 'extra-large twist-on', 'extra-large twist-on'],
  [['6', '6', '6'], 'terminal block', 'terminal block'],
];
for (const [gauges, twist, lever] of CONNECTORS)
  test(`a connector for ${gauges.join(' + ')}`, () => {
    assert.equal(connectorFor(gauges, 'copper', 'twist-on'), twist);
    assert.equal(connectorFor(gauges, 'copper', 'lever'), lever);
    assert.equal(connectorFor(gauges, 'aluminum', 'lever'), 'aluminum-rated lug connector');
    assert.ok(connectorRange(lever).length > 0);
  });

test('cables of an opened box: what is taken away takes its ends along, what stays keeps its place', () => {
  const [, grounded, three] = CABLE_BUILDS;
  let wiring = withSplices(withCables(EMPTY_WIRING, 2), 1);
  wiring = withConductors(wiring, 'cable-1', grounded!.conductors);
  wiring = withConductors(wiring, 'cable-2', three!.conductors);
  assert.equal(notLookedAt(wiring).length, 7);
  wiring = moved(moved(wiring, 'cable-1.black', 'splice-1'), 'cable-2.red', null);
  assert.equal(notLookedAt(wiring).length, 5);
  const recolored = withConductors(wiring, 'cable-1', [
    { color: 'black', function: 'hot' },
    { color: 'black', function: 'switched' },
  ]);
  assert.deepEqual(
    recolored.cables[0]!.conductors.map((c) => c.id),
    ['black', 'black-2'],
  );
  assert.deepEqual(membersOf(recolored, 'splice-1'), ['cable-1.black']);
  assert.deepEqual(membersOf(withSplices(wiring, 0), 'splice-1'), []);
  const one = withCables(wiring, 1);
  assert.deepEqual(one.places, [{ end: 'cable-1.black', at: 'splice-1' }]);
  assert.equal(withCables(one, 2).cables[1]!.id, 'cable-2');
});

test('as many cables, conductors and splices as are asked for, whatever was there', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(12), fc.nat(24)), { maxLength: 6 }), (steps) => {
      let wiring = EMPTY_WIRING;
      for (const [cables, splices] of steps) {
        wiring = withSplices(withCables(wiring, cables), splices);
        assert.equal(wiring.cables.length, cables);
        assert.equal(wiring.splices.length, splices);
        assert.equal(new Set(wiring.cables.map((c) => c.id)).size, cables);
      }
    }),
  );
});
