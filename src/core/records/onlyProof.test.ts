/**
 * Only a proof opens a box: whatever else is put on record, edited, taken back or brought in from another device, in whatever
 * order and by whatever clock, a box that was shut stays shut until somebody proves it dead.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { recorded as settled, run, type Command } from '#core/job/commands.ts';
import { inverse, PLAIN_MEASUREMENT, PLAIN_READING, type Change } from '#core/job/document.ts';
import { headsOf, type Clock } from '#core/job/order.ts';
import { unite } from '#core/job/unite.ts';
import type { Box, Entry, JobDocument, Proof } from '#core/job/schema.ts';
import { chain, outlet } from '#core/job/testing.ts';
import { GATES } from './gates.ts';
import { validProof, whyUnproved } from './proof.ts';
import { job, NOON } from './proofTesting.ts';
import { draftFor, recorded, walk } from './testing.ts';

const FAR = outlet('F1', 3, 20);
/** Three outlets on one circuit, of which the second is opened; another circuit with one, which may pass through the box. */
const START = (): JobDocument => {
  const start = job({
    boxes: [1, 2, 3].map(() => ({ cables: 1, status: 'existing' as const })),
    circuit: { ordered: 'unknown' },
    others: [chain([FAR], { id: 'circuit-2', space: 3 })],
  });
  const call = { id: 'call-1', procedure: 'hunt', words: '', opened: NOON, by: 'M. Alder' };
  return {
    ...start,
    boxes: { ...start.boxes, [FAR.id]: { ...FAR, areaId: start.boxes['box-r1']!.areaId } },
    calls: { 'call-1': { ...call, boxId: 'box-r2', circuitId: 'circuit-1', fixtureId: null } },
  };
};
const BOXES = ['box-r1', 'box-r2', 'box-r3', 'box-f1'] as const;
const OPENED = 'box-r2';
const isOpen = (document: JobDocument, now = NOON): boolean =>
  validProof(document, document.boxes[OPENED]!, now) !== null;

/** What somebody does, by numbers that choose where and how much. */
interface Act {
  device: number;
  do: keyof typeof ACTS;
  at: number;
  /** 0 to 3: nothing, a stray, a ghost, the mains. */
  much: number;
  /** Minutes by which the clock is wrong. */
  clock: number;
}
const VOLTS = [0, 0.6, 48, 121] as const;

const common = (id: string, at: string) => ({ id, at, by: 'M. Alder', place: '' });
type Rows = (id: string, now: string, act: Act, document: JobDocument) => Command | null;
const putOne = (table: string, row: object): Command =>
  ({ type: 'put', table, rows: [row] }) as never as Command;
const boxOf = ({ at }: Act) => BOXES[at % BOXES.length]!;
const circuitOf = ({ at }: Act) => (at % 2 === 0 ? 'circuit-1' : 'circuit-2');
const edited = (document: JobDocument, values: Partial<Box>): Command =>
  putOne('boxes', { ...document.boxes[OPENED]!, ...values });

const RECORDS = {
  reading: (id, at, act) =>
    putOne('readings', {
      ...PLAIN_READING,
      ...common(`reading-${id}`, at),
      boxId: boxOf(act),
      stage: 'as-found',
      instrument: 'meter',
      hotNeutral: VOLTS[act.much],
    }),
  lamps: (id, at, act) =>
    putOne('readings', {
      ...PLAIN_READING,
      ...common(`reading-${id}`, at),
      boxId: boxOf(act),
      stage: 'as-found',
      instrument: 'tester',
      lamps: [act.much > 1, false, false],
    }),
  observation: (id, at, act) =>
    putOne('observations', {
      ...common(`observation-${id}`, at),
      boxId: boxOf(act),
      node: `circuit-1.${boxOf(act)}.hot`,
      nodeName: 'black',
      to: 'reference',
      toName: 'ground splice',
      quantity: act.clock > 0 ? 'volts' : 'amps',
      value: VOLTS[act.much],
      instrument: act.at > 4 ? 'two-pole tester' : 'high-impedance meter',
      link: '',
      on: act.at === 7 ? ['circuit-1'] : [],
      off: [],
    }),
  measurement: (id, at, act) =>
    putOne('measurements', {
      ...PLAIN_MEASUREMENT,
      ...common(`measurement-${id}`, at),
      boxId: boxOf(act),
      circuitId: circuitOf(act),
      instrument: 'high-impedance meter',
      node: 'face.top.hot',
      nodeName: 'hot slot',
      to: 'face.top.neutral',
      toName: 'neutral slot',
      inputOhms: 1e7,
      shows: 'value',
      value: VOLTS[act.much],
      note: '',
    }),
  pen: (id, at, act) =>
    putOne('measurements', {
      ...PLAIN_MEASUREMENT,
      ...common(`measurement-${id}`, at),
      boxId: boxOf(act),
      circuitId: circuitOf(act),
      instrument: 'voltage pen',
      node: 'feed.black',
      nodeName: 'black',
      to: null,
      toName: '',
      inputOhms: null,
      shows: act.much > 1 ? 'sounds' : 'nothing',
      value: null,
      note: '',
    }),
  deviceTest: (id, at, act) =>
    putOne('deviceTests', {
      ...common(`test-${id}`, at),
      circuitId: circuitOf(act),
      boxId: null,
      kind: 'gfci',
      tripped: act.much > 1,
      voltsAfterTest: 0,
      downstream: [],
      reset: true,
      voltsAfterReset: null,
      tester: null,
      indicator: 'none',
      installed: null,
      note: '',
    }),
  power: (id, at, act) =>
    putOne('energizings', {
      id: `energizing-${id}`,
      at,
      by: 'M. Alder',
      circuitId: circuitOf(act),
      purpose: (['use', 'measurement', 'lock-removed'] as const)[act.much % 3],
    }),
  flip: (id, at, act) =>
    putOne('flips', {
      id: `flip-${id}`,
      at,
      by: 'M. Alder',
      panelId: 'panel-1',
      means: 'eyes',
      off: [String(1 + 2 * (act.at % 2))],
      outlets: [{ boxId: boxOf(act), dead: act.much > 1 }],
      strikes: null,
    }),
  parting: (id, at, act) =>
    putOne('partings', {
      id: `parting-${id}`,
      at,
      by: 'M. Alder',
      circuitId: circuitOf(act),
      boxId: boxOf(act),
      cables: 2,
      feed: null,
      dead: [],
      live: [],
      strikes: null,
    }),
  said: (id, at, act) =>
    putOne('entries', entry(id, at, { step: `seen ${boxOf(act)} ${id}`, picks: ['works'] })),
  figure: (id, at, act) =>
    putOne(
      'entries',
      entry(id, at, { step: `find ${id}`, figures: [{ name: 'hn', value: VOLTS[act.much]! }] }),
    ),
  strike: (id, at, _act, document) => {
    const [last] = Object.values(document.entries).filter((e) => e.strikes === null);
    return last ? putOne('entries', { ...last, id: `entry-${id}`, at, strikes: last.id }) : null;
  },
  correct: (id, at, _act, document) => {
    const [live] = Object.values(document.readings).filter((r) => (r.hotNeutral ?? 0) > 0);
    return live
      ? putOne('readings', { ...live, id: `reading-${id}`, at, hotNeutral: 0, corrects: live.id })
      : null;
  },
} satisfies Record<string, Rows>;
const EDITS = {
  renumber: (_id, _at, act, document) => {
    const circuit = document.circuits[circuitOf(act)]!;
    const from = circuit.id === 'circuit-1' ? 5 : 11;
    return putOne('circuits', { ...circuit, space: from + (act.at % 3) + act.much });
  },
  passThrough: (_id, _at, act, document) => edited(document, { through: act.much > 1 ? ['circuit-2'] : [] }),
  count: (_id, _at, act, document) => edited(document, { cables: 1 + act.much }),
  moveBox: (_id, _at, act, document) => edited(document, { offset: 100 - act.at }),
  takeAnother: (_id, _at, act, document) =>
    act.at > 5 && document.boxes['box-r1']
      ? { type: 'remove', table: 'boxes', ids: ['box-r1'] }
      : document.boxes['box-r1']
        ? { type: 'move-stop', boxId: 'box-r1', circuitId: act.much > 1 ? 'circuit-2' : null, after: null }
        : null,
  takeOff: (_id, _at, act) => ({
    type: 'move-stop',
    boxId: OPENED,
    circuitId: act.much > 1 ? 'circuit-2' : 'circuit-1',
    after: null,
  }),
} satisfies Record<string, Rows>;
const ACTS = { ...RECORDS, ...EDITS, prove: null, undo: null, bringIn: null };

const entry = (id: string, at: string, values: Partial<Entry>): Entry => ({
  ...{ id: `entry-${id}`, callId: 'call-1', step: 'x', at, by: 'M. Alder', title: '', said: '' },
  ...{ touches: [], picks: [], value: null, figures: [], note: '', strikes: null },
  ...values,
});

const NO_GUARD = { guards: [], clerk: GATES.clerk };
const DEVICES = ['device-a', 'device-b', 'device-c'];

/** One device’s copy with what undo would take back. */
interface Copy {
  document: JobDocument;
  done: Change[][];
}

/** A proof of the box as a person makes it now. @returns null where it has gaps */
function proof(document: JobDocument, id: string, at: string): Command | null {
  const box = document.boxes[OPENED]!;
  const draft = draftFor(document, box);
  const made = recorded(document, box, draft, walk(document, box, draft), { id: `proof-${id}`, at });
  return made.gaps.length > 0
    ? null
    : {
        type: 'batch',
        label: 'Proof',
        commands: [
          { type: 'put', table: 'observations', rows: made.observations },
          { type: 'put', table: 'proofs', rows: [made.proof] },
        ],
      };
}

function played(
  acts: readonly Act[],
  seen: (what: string, before: JobDocument, after: JobDocument) => void,
): Copy[] {
  const copies: Copy[] = DEVICES.map(() => ({ document: START(), done: [] }));
  acts.forEach((act, k) => {
    const copy = copies[act.device]!;
    const now = new Date(Date.parse(NOON) + 60_000 * act.clock).toISOString();
    const clock: Clock = { device: DEVICES[act.device]!, now };
    const before = copy.document;
    if (act.do === 'bringIn') {
      const other = copies[(act.device + 1 + (act.at % 2)) % DEVICES.length]!.document;
      copy.document = unite(before, other);
      if (isOpen(copy.document))
        assert.ok(isOpen(before) || isOpen(other), 'two copies open what neither did');
      return;
    }
    if (act.do === 'undo') {
      const last = copy.done.pop();
      if (!last) return;
      copy.document = settled(before, inverse(last), [], GATES.clerk, clock).document;
      return seen('undo', before, copy.document);
    }
    const command = act.do === 'prove' ? proof(before, `${k}`, now) : ACTS[act.do](`${k}`, now, act, before);
    if (command === null) return;
    const { document, changes } = run(before, command, NO_GUARD, clock);
    copy.document = document;
    const edits = changes.filter((c) => c.table === 'boxes' || c.table === 'circuits');
    if (edits.length > 0) copy.done.push(edits);
    if (act.do !== 'prove') seen(act.do, before, document);
  });
  return copies;
}

const acts = (kinds: readonly Act['do'][]): fc.Arbitrary<Act[]> =>
  fc.array(
    fc.record({
      device: fc.nat(2),
      do: fc.constantFrom(...kinds),
      at: fc.nat(7),
      much: fc.nat(3),
      // Some clocks are two days off.
      clock: fc.oneof(
        { weight: 6, arbitrary: fc.integer({ min: -4, max: 4 }) },
        { weight: 1, arbitrary: fc.constantFrom(-2880, 2880) },
      ),
    }),
    { minLength: 6, maxLength: 30 },
  );
const ALL = Object.keys(ACTS) as Act['do'][];
const OFTEN: Act['do'][] = ['prove', 'prove', 'prove', 'undo', 'undo', 'bringIn', 'bringIn'];

test('no act but a proof opens a box, on any device, by any clock', () => {
  const shut = new Map<string, number>();
  fc.assert(
    fc.property(acts([...ALL, ...OFTEN]), (list) => {
      played(list, (what, before, after) => {
        if (isOpen(after)) assert.ok(isOpen(before), `${what} opened it`);
        else if (isOpen(before)) shut.set(what, (shut.get(what) ?? 0) + 1);
      });
    }),
    { numRuns: 200, seed: 33 },
  );
  // Each of them is tried on a box that stands open, and what can shut it does.
  for (const what of [...Object.keys(RECORDS), ...Object.keys(EDITS)])
    if (what !== 'strike' && what !== 'correct' && what !== 'moveBox')
      assert.ok((shut.get(what) ?? 0) > 0, `${what} never shut an open box`);
});

test('a proof opens what nothing else has shut', () => {
  const start = START();
  assert.equal(isOpen(start), false);
  const { document } = run(start, proof(start, '1', NOON)!, GATES, { device: 'device-a', now: NOON });
  assert.equal(isOpen(document), true);
  assert.equal(isOpen(document, '2026-05-08T17:00:00Z'), false);
  // Another device that takes it in relies on it; one that had put something live down meanwhile does not.
  assert.equal(isOpen(unite(start, document)), true);
  const clock = { device: 'device-b', now: '2026-05-06T11:00:00Z' };
  const live = RECORDS.reading('9', clock.now, { device: 1, do: 'reading', at: 0, much: 3, clock: 0 });
  const theirs = run(start, live, NO_GUARD, clock).document;
  const both = unite(document, theirs);
  assert.equal(isOpen(both), false, 'by its clock it was an hour before, and nobody knows');
  assert.match(
    whyUnproved(both, both.boxes[OPENED]!, NOON),
    /Since the first lock something was live\. R1: 121 V/,
  );
  // Who had it before the proof does.
  const after = run(theirs, proof(theirs, '2', NOON)!, GATES, { device: 'device-a', now: NOON }).document;
  assert.equal(isOpen(after), true);
});

test('what went on record while a proof was made counts against it', () => {
  const start = START();
  const at = { device: 'device-a', now: NOON };
  const act: Act = { device: 0, do: 'reading', at: 0, much: 3, clock: 0 };
  const had = [...headsOf(start)].map(([device, n]) => ({ device, n }));
  const between = run(start, RECORDS.reading('1', NOON, act), NO_GUARD, at).document;
  const made = proof(between, '2', NOON) as unknown as { commands: [Command, { rows: [Proof] }] };
  const since = (heads: Proof['had']): Command => {
    const [
      observations,
      {
        rows: [row],
      },
    ] = made.commands;
    const proofs = { type: 'put' as const, table: 'proofs' as const, rows: [{ ...row, had: heads }] };
    return { type: 'batch', label: 'Proof', commands: [observations, proofs] };
  };
  assert.throws(() => run(between, since(had), GATES, at), /something was live\. R1: 121 V/);
  const heads = [...headsOf(between)].map(([device, n]) => ({ device, n }));
  assert.equal(isOpen(run(between, since(heads), GATES, at).document), true);
  const ahead = [{ device: 'device-a', n: 99 }];
  assert.throws(() => run(between, since(ahead), GATES, at), /seen what nobody has written/);
});
