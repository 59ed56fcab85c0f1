/** Hunts as calls: what is advised is never refused, hands wait for their proof, what is struck is asked again, faults go on record. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { runOf } from '#core/circuits/run.ts';
import { KINDS } from '#core/diagnosis/hunt/kinds.ts';
import { measuresOf } from '#core/diagnosis/hunt/measures.ts';
import { PLAIN_READING, rows, standingRows } from '#core/job/document.ts';
import { parseFile } from '#core/job/file.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { circuitState, pastReadings, validProof } from '#core/records/proof.ts';
import { View } from '#core/view/view.ts';
import type { Meter } from '#core/job/schema.ts';
import { runGuarded } from '#core/records/gates.ts';
import { contextOf, strikeCommand } from '../engine.ts';
import { panelAnswer, someAnswer, Walker } from '../testing.ts';
import { Adviser } from './advise.ts';
import { huntCase, KEYS, seenOf } from './case.ts';
import { strikeFault } from './loop.ts';
import { orderOf, orderText } from './orders.ts';

const DEMO = parseFile(
  readFileSync(new URL('../../../../demo/tamarack-court.json', import.meta.url), 'utf8'),
);
const CIRCUIT = rows(DEMO.circuits).find((c) => c.name === 'Studio receptacles')!;

/** A call of a procedure at an outlet of the demo. */
function walkerAt(procedure: string, box: string, circuit = CIRCUIT): Walker {
  const walker = new Walker(procedure, Date.parse('2026-06-04T14:00:00Z'));
  const call = {
    ...walker.call,
    boxId: rows(DEMO.boxes).find((b) => b.name === box)!.id,
    circuitId: circuit.id,
  };
  walker.document = { ...DEMO, calls: { [call.id]: call } };
  return walker;
}

/** Goes on until it ends or is told to stop; random answers, but what the advice says is asked. */
function go(walker: Walker, seed: number, adviser: Adviser, stop: () => boolean = () => false): void {
  const random = randomFrom(seed);
  const pick = (n: number) => Math.floor(random() * n);
  for (let k = 0; k < 400; k++) {
    const { step } = walker;
    if (step === null || stop()) return;
    const { document, now } = walker;
    if (step.inside) assert.ok(validProof(document, step.inside, now), `${step.title} without a proof`);
    if (step.live) assert.equal(circuitState(document, step.live, now), 'energized', step.title);
    if (step.kind === 'dead') walker.prove(step.box.id);
    else if (step.kind === 'clamp') walker.clamp(step.box.id);
    else if (step.kind === 'power') walker.energize(step.circuit.id, step.purpose);
    else if (step.kind === 'think') {
      const { order, note } = adviser.advise(walker.context, walker.context.circuit!);
      assert.equal(walker.answer({ picks: [order], note }), null, `${order} is refused`);
    } else if (panelAnswer(step)) {
      assert.equal(walker.answer(panelAnswer(step)!), null);
    } else {
      let problem = walker.answer(someAnswer(step, pick));
      for (let tries = 0; problem !== null && tries < 40; tries++)
        problem = walker.answer(someAnswer(step, pick));
      assert.equal(problem, null, step.title);
    }
  }
  throw new Error(`seed ${seed} never ends: ${walker.step?.title}`);
}

/** To the first question of the hunt itself, nothing dangerous on the way. */
function toThink(walker: Walker): void {
  for (let k = 0; walker.step?.kind !== 'think'; k++) {
    assert.ok(k < 40 && walker.step);
    assert.equal(walker.answer(someAnswer(walker.step, (n) => n - 1)), null, walker.step.title);
  }
}

test('every order outlives its text', () => {
  const run = runOf(new View(DEMO), CIRCUIT);
  for (const measure of measuresOf(run)) {
    const advice = { measure, cost: 1, bits: 1, answers: [] };
    const text = orderText({ do: 'measure', advice, others: [] }, run);
    assert.deepEqual(orderOf(text, run), { do: 'measure', measure });
    assert.ok(text.length <= 120);
  }
  for (const kind of Object.keys(KINDS))
    for (const key of [`box 1 ${kind}`, `cable 2 ${kind}`, `panel ${kind}`, `service ${kind}`])
      assert.deepEqual(orderOf(orderText({ do: 'repair', key, share: 1 }, run), run), { do: 'repair', key });
  for (const text of [
    '',
    'volts',
    'volts box-nowhere 0',
    'repair box box-nowhere open-hot',
    'ohms panel x',
    'sell',
  ])
    assert.equal(orderOf(text, run), null, text);
});

test('hunts with answers as they come: no advice is refused, every one ends on record', () => {
  const adviser = new Adviser();
  for (const [procedure, box] of [
    ['hunt', 'S3'],
    ['shock', 'S2'],
    ['false-ground', 'S4'],
    ['dead-outlet', 'S2'],
  ] as const) {
    const walker = walkerAt(procedure, box);
    go(walker, 1, adviser);
    assert.ok(walker.context.log.has('record'), procedure);
    const repaired = walker.context.log.entries.some(
      (e) => e.step.startsWith(KEYS.repair) && e.picks.includes('mended'),
    );
    assert.equal(rows(walker.document.faults).length > 0, repaired, 'what was mended is on record');
  }
});

test('a struck finding is asked again, and the rest stands', () => {
  const adviser = new Adviser();
  const walker = walkerAt('hunt', 'S3');
  const found = () => walker.context.log.entries.filter((e) => e.step.startsWith(KEYS.find));
  go(walker, 3, adviser, () => found().length === 2);
  const [first] = found();
  const before = huntCase(walker.context, CIRCUIT).evidence.length;
  walker.run([strikeCommand(first!, { by: 'A. Tester', at: walker.now })]);
  assert.ok(huntCase(walker.context, CIRCUIT).evidence.length <= before);
  assert.equal(found().length, 1);
});

test('an order that may not be given now is refused: a reset after it opened at once with all unplugged', () => {
  const walker = walkerAt('hunt', 'S3');
  toThink(walker);
  assert.equal(walker.answer({ picks: ['breaker'] }), null);
  assert.equal(walker.answer({ picks: ['trips'] }), null);
  assert.equal(walker.step?.kind, 'think');
  assert.match(walker.answer({ picks: ['breaker'] })!, /stays off/);
  assert.match(walker.answer({ picks: ['volts box-s2 0'] })!, /stays off/);
  assert.match(walker.answer({ picks: ['nonsense'] })!, /expected a measurement/);
});

test('readings of the circuit count; those of what was mended no longer do', () => {
  const walker = walkerAt('hunt', 'S3');
  toThink(walker);
  const own = huntCase(walker.context, CIRCUIT).evidence.length;
  const reading = rows(DEMO.readings).find((r) => CIRCUIT.stops.some((s) => s.boxId === r.boxId))!;
  const at = new Date(Date.parse(walker.now) + 500).toISOString();
  const read = { ...reading, id: 'reading-new', at };
  walker.run([{ type: 'put', table: 'readings', rows: [read] }]);
  assert.ok(huntCase(walker.context, CIRCUIT).evidence.length > own);
});

test('a fault on record has its parts and minutes, and voids what was read of it before; struck, that holds again', () => {
  const walker = walkerAt('hunt', 'S3');
  toThink(walker);
  const reading = rows(DEMO.readings).find((r) => r.boxId === 'box-s1')!;
  const read = { ...reading, id: 'reading-new', boxId: 'box-s3', at: walker.now };
  walker.run([{ type: 'put', table: 'readings', rows: [read] }]);
  for (let k = 0; walker.step !== null; k++) {
    const { step } = walker;
    assert.ok(k < 60, step.title);
    if (step.kind === 'dead') walker.prove(step.box.id);
    else if (step.kind === 'clamp') walker.clamp(step.box.id);
    else if (step.kind === 'power') walker.energize(step.circuit.id, step.purpose);
    else if (step.kind === 'think')
      walker.answer({
        picks: [
          rows(walker.document.entries).some((e) => e.picks.includes('mended'))
            ? 'done'
            : 'repair box box-s2 open-hot',
        ],
      });
    else if (step.key === 'fault')
      assert.equal(
        walker.answer({ figures: [{ name: 'minutes', value: 20 }], note: ' two lever connectors ' }),
        null,
      );
    else assert.equal(walker.answer(someAnswer(step, () => 0)), null, step.title);
  }
  const [fault] = rows(walker.document.faults);
  assert.equal(fault!.parts, 'two lever connectors');
  assert.equal(fault!.minutes, 20);
  assert.equal(pastReadings(walker.document).get('reading-new'), 'mended since');
  walker.run([strikeFault(fault!, { by: 'A. Tester', at: walker.now })]);
  assert.equal(pastReadings(walker.document).has('reading-new'), false);
  assert.deepEqual(standingRows(walker.document.faults), []);
});

test('after a repair each outlet is asked for under a load, until somebody leaves the rest unread', () => {
  const adviser = new Adviser();
  const walker = walkerAt('hunt', 'S3');
  let asked = 0;
  toThink(walker);
  for (let k = 0; walker.step !== null && walker.step.key !== 'fault'; k++) {
    const { step } = walker;
    assert.ok(k < 90, step.title);
    const mended = rows(walker.document.entries).some((e) => e.picks.includes('mended'));
    if (step.kind === 'dead') walker.prove(step.box.id);
    else if (step.kind === 'clamp') walker.clamp(step.box.id);
    else if (step.kind === 'power') walker.energize(step.circuit.id, step.purpose);
    else if (step.kind === 'think') {
      const { order, note } = adviser.advise(walker.context, CIRCUIT);
      assert.equal(
        walker.answer(mended ? { picks: [order], note } : { picks: ['repair box box-s2 open-hot'] }),
        null,
      );
    } else if (mended && step.kind === 'measure' && step.cannot === 'Leave this and the rest unread') {
      asked++;
      const figures = [
        { name: 'hn', value: 118 },
        { name: 'hg', value: 119 },
        { name: 'ng', value: 1 },
      ];
      assert.equal(walker.answer(asked < 3 ? { figures } : { picks: ['cannot'] }), null);
    } else if (step.kind === 'ask' && step.options.some((o) => o.value === 'holds')) {
      // A breaker is closed on closed boxes, and that is on record.
      if (mended) assert.equal(circuitState(walker.document, CIRCUIT, walker.now), 'energized');
      assert.equal(walker.answer({ picks: ['holds'] }), null);
    } else assert.equal(walker.answer(someAnswer(step, () => 0)), null, step.title);
  }
  assert.equal(asked, 3);
});

test('a load is read free and loaded: both on record, one finding; readings of one outlet beside each other as well', () => {
  const walker = walkerAt('hunt', 'S3');
  toThink(walker);
  assert.equal(walker.answer({ picks: ['volts box-s2 10'] }), null);
  for (let k = 0; walker.step?.kind === 'power'; k++) {
    assert.ok(k < 3);
    walker.energize(walker.step.circuit.id, walker.step.purpose);
  }
  const figures = [
    { name: 'free', value: 121.5 },
    { name: 'hn', value: 112 },
    { name: 'hg', value: 117 },
    { name: 'ng', value: 5 },
  ];
  assert.equal(walker.answer({ figures }), null);
  const volts = () =>
    huntCase(walker.context, CIRCUIT).evidence.flatMap(({ finding }) =>
      finding.kind === 'volts' ? [[finding.amps, finding.free, finding.volts.hotNeutral]] : [],
    );
  assert.deepEqual(volts(), [[10, 121.5, 112]]);
  const [mistyped] = rows(walker.document.readings).filter((r) => r.hotNeutral === 112);
  const put = { ...mistyped!, id: 'reading-right', hotNeutral: 118, from: null, corrects: mistyped!.id };
  const right = runGuarded(walker.document, { type: 'put', table: 'readings', rows: [put] }).document;
  const now = contextOf(new View(right), walker.call, walker.now);
  assert.deepEqual(
    huntCase(now, CIRCUIT).evidence.flatMap(({ finding }) =>
      finding.kind === 'volts' ? [[finding.amps, finding.free, finding.volts.hotNeutral]] : [],
    ),
    [[10, 121.5, 118]],
    'put right in Prove, it is put right here, and weighs once',
  );
  const answer = walker.context.log.entries.at(-1)!;
  const strike = strikeCommand(answer, { by: 'A. Tester', at: walker.now });
  const back = runGuarded(walker.document, strike).document;
  assert.equal(pastReadings(back).get(mistyped!.id), 'taken back', 'and taken back here, it is none there');
  const onRecord = rows(walker.document.readings).filter(
    (r) => r.boxId === 'box-s2' && r.at >= walker.call.opened,
  );
  assert.deepEqual(
    onRecord.map((r) => [r.loadAmps, r.hotNeutral]).sort(),
    [
      [0, 121.5],
      [10, 112],
    ].sort(),
  );
  // As somebody reads it in Prove: without, then with a load, some minutes later.
  const later = (minutes: number) => new Date(Date.parse(walker.now) + 60_000 * minutes).toISOString();
  const [plain] = onRecord;
  const read = (id: string, at: string, loadAmps: number, hotNeutral: number) => ({
    ...plain!,
    ...{ id, at, from: null, boxId: 'box-s4', loadAmps, hotNeutral, hotGround: null, neutralGround: null },
  });
  const readings = [
    read('reading-1', later(1), 0, 120),
    read('reading-2', later(3), 8, 117),
    read('reading-3', later(30), 8, 116),
  ];
  walker.run([{ type: 'put', table: 'readings', rows: readings }]);
  assert.deepEqual(volts().slice(1), [
    [0, null, 120],
    [8, 120, 117],
    [8, null, 116],
  ]);
});

test('where several cables go on from a box, the answer names which', () => {
  const circuit = rows(DEMO.circuits).find((c) => c.name === 'East bedroom')!;
  const { stops } = runOf(new View(DEMO), circuit);
  const ways = (from: number) => stops.flatMap(({ feeder }, i) => (feeder === from ? [i] : []));
  const fork = stops.findIndex((_, i) => ways(i).length > 1);
  for (const from of [fork, 0]) {
    const walker = walkerAt('hunt', stops[1]!.box.name, circuit);
    toThink(walker);
    assert.equal(walker.answer({ picks: [`part ${stops[from]!.box.id}`] }), null);
    for (let k = 0; walker.step && walker.step.kind !== 'ask'; k++) {
      assert.ok(k < 12, walker.step.title);
      if (walker.step.kind === 'dead') walker.prove(walker.step.box.id);
      else if (walker.step.kind === 'clamp') walker.clamp(walker.step.box.id);
      else assert.equal(walker.answer(someAnswer(walker.step, () => 0)), null);
    }
    const { step } = walker;
    assert.ok(step?.kind === 'ask');
    const offered = step.options.filter((o) => o.name.startsWith('The fault is in what goes on'));
    assert.equal(offered.length, ways(from).length);
    assert.equal(walker.answer({ picks: [offered.at(-1)!.value] }), null);
    const last = huntCase(walker.context, circuit).evidence.at(-1)!.finding;
    const toward = from === fork ? ways(from).at(-1)! : null;
    assert.deepEqual(last, { kind: 'parted', stop: from, amiss: 'beyond', toward });
  }
});

test('what somebody adds at an outlet is a finding, or that it is hard to get at; a struck answer’s reading counts no more', () => {
  const walker = walkerAt('hunt', 'S3');
  toThink(walker);
  const { run } = huntCase(walker.context, CIRCUIT).ground;
  const gfci = run.stops.find(({ box }) => box.device.kind === 'gfci')!.box;
  const plain = run.stops.find(({ box }) => box.device.kind === 'duplex')!.box;
  const stopOf = (id: string) => run.stops.findIndex((s) => s.box.id === id);
  assert.ok(seenOf(gfci).length > seenOf(plain).length);
  const before = huntCase(walker.context, CIRCUIT).evidence.length;
  let added = 0;
  for (const [box, list] of [
    [gfci, seenOf(gfci)],
    [plain, seenOf(plain)],
  ] as const)
    for (const [value] of list) {
      walker.add(`${KEYS.seen}${box.id} seen-${added}`, [value]);
      added++;
    }
  const { evidence, situation } = huntCase(walker.context, CIRCUIT);
  // Each of them but the furniture before the two.
  assert.equal(evidence.length, before + added - 2);
  assert.deepEqual([...situation.blocked].sort(), [stopOf(gfci.id), stopOf(plain.id)].sort());
  const there = (kind: string) => evidence.filter((e) => e.finding.kind === kind).length;
  assert.deepEqual([there('live'), there('device')], [4, 2]);
  const reading = walkerAt('hunt', 'S3');
  toThink(reading);
  assert.equal(reading.answer({ picks: ['volts box-s2 0'] }), null);
  while (reading.step?.kind === 'power') reading.energize(reading.step.circuit.id, reading.step.purpose);
  assert.equal(reading.answer({ figures: [{ name: 'hn', value: 120 }] }), null);
  const entry = reading.context.log.entries.at(-1)!;
  const volts = () =>
    huntCase(reading.context, CIRCUIT).evidence.filter((e) => e.finding.kind === 'volts').length;
  assert.equal(volts(), 1);
  reading.run([strikeCommand(entry, { by: 'A. Tester', at: reading.now })]);
  assert.equal(volts(), 0);
});

test('opened and counted boxes of a circuit that nobody drew leave its orders to the hunt', () => {
  const walker = walkerAt('hunt', 'S3');
  const [first, ...rest] = CIRCUIT.stops.slice(0, 4).map((s) => s.boxId);
  const circuit = {
    ...CIRCUIT,
    stops: CIRCUIT.stops.slice(0, 4),
    ordered: 'no' as const,
    complete: 'yes' as const,
  };
  const parting = (boxId: string, cables: number, dead: string[]) => ({
    ...{ id: `parting-${boxId}`, circuitId: circuit.id, boxId, at: walker.now, by: 'A. Tester' },
    ...{ cables, feed: null, dead, live: [], strikes: null },
  });
  walker.run([
    { type: 'put', table: 'circuits', rows: [circuit] },
    { type: 'put', table: 'partings', rows: [parting(first!, 2, rest), parting(rest[0]!, 3, rest.slice(1))] },
  ]);
  const { ground } = huntCase(walker.context, circuit);
  assert.deepEqual(ground.orders, [[-1, 0, 1, 1]]);
  assert.equal(huntCase(walker.context, CIRCUIT).ground.orders, undefined, 'a drawn one has its own');
});

test('what a reading was made with is said, and never read out of a name that somebody typed', () => {
  const ohms = (instrument: string, meter: Meter = 'unknown') => {
    const walker = walkerAt('hunt', 'S2');
    const at = new Date(Date.parse(walker.call.opened) - 60_000).toISOString();
    const boxId = walker.call.boxId!;
    const reading = { ...PLAIN_READING, id: 'reading-typed', boxId, place: 'S2', by: 'A. Tester', at };
    walker.document = {
      ...walker.document,
      readings: { 'reading-typed': { ...reading, stage: 'as-found', instrument, meter, hotNeutral: 48 } },
    };
    const found = huntCase(walker.context, CIRCUIT).evidence.map((e) => e.finding);
    return found.flatMap((f) => (f.kind === 'volts' ? f.meterOhms : []));
  };
  assert.deepEqual(ohms('', 'low-impedance meter'), [3000]);
  assert.deepEqual(ohms('low', 'high-impedance meter'), [1e7]);
  for (const name of ['Meter, low impedance', 'Low-cost meter', 'Yellow clamp', 'low', ''])
    assert.deepEqual(ohms(name), [1e7], name);
});
