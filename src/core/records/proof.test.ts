import assert from 'node:assert/strict';
import { test } from 'node:test';
import { EMPTY_WIRING } from '#core/boxes/wiring.ts';
import { breakerOf, PLAIN_STOP, stopAt } from '#core/job/document.ts';
import { run } from '#core/job/commands.ts';
import { chain, house, outlet, PANEL, receptacle } from '#core/job/testing.ts';
import type { Job, JobDocument } from '#core/job/schema.ts';
import { GATES, stepsIn } from './gates.ts';
import { pointsIn } from './points.ts';
import { actsOf, proofGaps, type Draft, type Seen } from './acts.ts';
import { shutNeutrals } from './neutrals.ts';
import { circuitState, isOff, validProof, whyUnproved } from './proof.ts';
import { mainKills, panelCaution } from './sources.ts';
import {
  ASKED,
  gaps,
  job,
  LATER,
  names,
  NOON,
  power,
  proved,
  R1,
  withPower,
  type Setup,
} from './proofTesting.ts';
import { clamped, DEAD, draftFor, recorded, walk, withProof, type Reader } from './testing.ts';
import { buildRun } from '#core/circuits/run.ts';

const TWO_POLES = { breaker: breakerOf(20, 'none', 2) };
const second = chain([], { id: 'circuit-2', name: 'Hall', space: 3, status: 'existing' });

const POINTS: [string, Setup, string[]][] = [
  ['the end of a run', {}, ['black of the feed', 'white of the feed', 'ground splice']],
  ['a box in the middle', { boxes: [{}, {}] }, ['black splice', 'white splice', 'ground splice']],
  [
    'a red from a multiwire circuit',
    { circuit: TWO_POLES },
    ['black of the feed', 'red of the feed', 'white of the feed', 'ground splice'],
  ],
  [
    'two hots without a neutral',
    { circuit: { ...TWO_POLES, neutral: false } },
    ['first hot (black) of the feed', 'second hot (white marked as a hot) of the feed', 'ground splice'],
  ],
  ['old two-wire cable', { circuit: { cable: 'old two-wire' } }, ['black of the feed', 'white of the feed']],
  [
    'a GFCI with something on LOAD',
    { boxes: [{ device: receptacle({ kind: 'gfci' }) }, {}] },
    ['black of the feed', 'white of the feed', 'ground splice', 'LOAD hot to R2', 'LOAD white to R2'],
  ],
  [
    'a switch and its switched leg',
    { boxes: [{ device: receptacle({ kind: 'switch' }), controls: ['box-r2'] }, {}] },
    ['black of the feed', 'white splice', 'ground splice', 'switched hot to R2'],
  ],
  [
    'a half that is switched',
    { boxes: [{ device: receptacle({ switched: 'half' }) }] },
    ['black of the feed', 'white of the feed', 'ground splice', 'switched half (red)'],
  ],
  [
    'another circuit passing through',
    { boxes: [{ through: ['circuit-2'] }], others: [second] },
    [
      'Circuit 1: black of the feed',
      'Circuit 1: white of the feed',
      'Circuit 1: ground splice',
      'Hall: black, passing through',
      'Hall: white, passing through',
      'Hall: ground, passing through',
    ],
  ],
  [
    'a cable more than the plan has',
    {
      boxes: [
        {
          wiring: {
            stage: 'as-found',
            at: null,
            by: '',
            wiring: {
              ...EMPTY_WIRING,
              cables: ['cable-1', 'cable-2'].map((id) => ({
                id,
                toward: 'unknown',
                circuitId: null,
                raceway: false,
                stands: 'ends' as const,
                conductors: [],
              })),
            },
          },
        },
      ],
    },
    [
      'black of the feed',
      'white of the feed',
      'ground splice',
      'cable 2, black',
      'cable 2, white',
      'cable 2, bare or green',
    ],
  ],
];
for (const [what, setup, expected] of POINTS)
  test(`what is touched: ${what}`, () => assert.deepEqual(names(job(setup)), expected));

test('carried through the device’s screws, each cable is touched by itself', () => {
  const document = job({ boxes: [{}, {}] });
  const circuit = document.circuits['circuit-1']!;
  const stops = circuit.stops.map((s, i) => (i === 0 ? { ...s, splice: 'feed-through' as const } : s));
  const through = { ...document, circuits: { 'circuit-1': { ...circuit, stops } } };
  assert.deepEqual(names(through), [
    'black of the feed',
    'black on to R2',
    'white of the feed',
    'white on to R2',
    'ground splice',
  ]);
});

test('two outlets in one opening are one box: both circuits are touched from either', () => {
  const beside = outlet('R2', 1, 21.8);
  const document = house({
    boxes: [outlet('R1', 1, 20), beside],
    circuits: [
      chain([outlet('R1', 1, 20)], { status: 'existing' }),
      { ...second, stops: [stopAt(beside.id, null, PLAIN_STOP)] },
    ],
    job: { otherSources: ASKED },
  });
  assert.equal(names(document).length, 6);
  const box = R1(document);
  const full = draftFor(document, box);
  const made = recorded(document, box, full, walk(document, box, full), { at: NOON });
  assert.deepEqual(made.gaps, []);
  assert.ok(validProof(withProof(document, made), beside, LATER), 'the other gang is the same box');
});

test('hot to hot and hot to neutral are acts of their own', () => {
  const acts = actsOf(job({ circuit: TWO_POLES }), R1(job()), draftFor(job(), R1(job())), []);
  assert.deepEqual(
    acts.filter((a) => a.kind === 'pair').map((a) => a.words),
    [
      'black of the feed to red of the feed',
      'black of the feed to white of the feed',
      'red of the feed to white of the feed',
    ],
  );
});

test('a complete sequence has no gaps, on one pole and on two', () => {
  assert.deepEqual(gaps(job()), []);
  assert.deepEqual(gaps(job({ circuit: TWO_POLES })), []);
  assert.deepEqual(gaps(job({ circuit: { ...TWO_POLES, neutral: false } })), []);
});

/** A reader that shows something else at one act. */
const but =
  (match: RegExp, shown: ReturnType<Reader>): Reader =>
  (act) =>
    match.test(act.words) ? shown : DEAD(act);

const GAPS: [string, Setup, Partial<Draft>, Reader, RegExp][] = [
  ['no name', {}, { by: ' ' }, DEAD, /Who proves it/],
  ['other sources not asked', { job: { otherSources: { asked: false, kinds: [] } } }, {}, DEAD, /Ask once/],
  [
    'a battery left on',
    { job: { otherSources: { asked: true, kinds: ['battery'] } } },
    { sourcesOff: [] },
    DEAD,
    /The battery off and locked/,
  ],
  ['not locked out', {}, { lockedOut: [] }, DEAD, /Breaker 1 .*locked or taped/],
  [
    'not live before',
    {},
    {},
    but(/switched off/, { value: 0 }),
    /0 V: expected 100 to 140 V.*no good reference/,
  ],
  [
    'a reference shown by a ghost',
    {},
    {},
    but(/switched off/, { value: 118, instrument: 'high-impedance meter' }),
    /a ghost shows a reference that is none/,
  ],
  [
    'a reference on the other leg',
    {},
    {},
    but(/switched off/, { value: 238 }),
    /238 V: expected 100 to 140 V/,
  ],
  ['tester not proved before', {}, {}, but(/source$/, { value: 3 }), /3 V: expected 100 to 140 V/],
  ['tester not proved after', {}, {}, but(/again/, null), /known live source again/],
  ['face still live', {}, {}, but(/At the face, top hot to neutral/, { value: 118 }), /118 V is not dead/],
  [
    'the other half of the face still live',
    {},
    {},
    but(/At the face, bottom hot to ground/, { value: 118 }),
    /118 V is not dead/,
  ],
  ['the yoke live', {}, {}, but(/Plate screw, yoke/, { value: 60 }), /60 V is not dead/],
  [
    'the red of a multiwire circuit live while every pair of the black reads nothing',
    { circuit: TWO_POLES },
    {},
    but(/^red of the feed to ground/, { value: 120 }),
    /red of the feed to ground splice: 120 V is not dead/,
  ],
  [
    'a ghost is read again, to the same reference',
    { circuit: TWO_POLES },
    {},
    but(/^black of the feed to ground/, { value: 40, instrument: 'high-impedance meter' }),
    /40 V is not dead.*ghost.*same reference, with a two-pole tester or at low impedance/,
  ],
  [
    'current in a neutral',
    {},
    {},
    but(/^white of the feed to ground/, { value: 2.1 }),
    /2\.1 V is not dead.*another circuit’s current/,
  ],
  [
    'a pen',
    {},
    {},
    but(/^black of the feed to ground/, { value: 0, instrument: 'voltage pen' }),
    /a voltage pen does not show that it is dead/,
  ],
  [
    'a group not read',
    {},
    {},
    but(/^white of the feed to ground/, null),
    /white of the feed to ground splice$/,
  ],
  ['nobody looked for others', {}, { others: 'not-looked' }, DEAD, /Any other conductor/],
  ['others said and not read', {}, { others: 'read' }, DEAD, /expected a reading of each/],
  [
    'no reference at all',
    { circuit: { cable: 'old two-wire' } },
    { reference: 'none' },
    DEAD,
    /these stay unproved: black of the feed, white of the feed/,
  ],
  [
    'a ground that the box does not have',
    { circuit: { cable: 'old two-wire' } },
    {},
    DEAD,
    /no ground is on record in this box/,
  ],
  ['a lead from nowhere', {}, { reference: 'lead' }, DEAD, /expected where the lead comes from/],
  ['a home run that nobody saw', {}, { basis: 'not-landed' }, DEAD, /expected who saw/],
];
for (const [what, setup, draft, read, message] of GAPS) {
  test(`names the gap: ${what}`, () => {
    const found = gaps(job(setup), draft, read);
    assert.ok(
      found.some((g) => message.test(g)),
      found.join('\n'),
    );
  });
}

test('each tester that read something dead is proved before and after', () => {
  const document = job();
  const box = R1(document);
  const draft = draftFor(document, box);
  const seen = walk(document, box, draft).map((s): Seen =>
    s.node.endsWith('.hot') && s.to === 'reference' ? { ...s, instrument: 'low-impedance meter' } : s,
  );
  assert.deepEqual(proofGaps(document, box, draft, seen), [
    'Tester on a known live source: not proved before: low-impedance meter',
    'Tester on a known live source again: not proved after: low-impedance meter',
  ]);
});

test('a dead outlet with an open ground: its ground is no reference, a lead is', () => {
  const document = job();
  const dead: Reader = (act) => (act.key === 'live' ? { value: 0 } : DEAD(act));
  const found = gaps(document, { basis: 'dead-outlet' }, dead);
  assert.equal(found.length, 1);
  assert.match(found[0]!, /no good reference: bring a lead from a proven ground/);
  const lead = {
    basis: 'dead-outlet',
    reference: 'lead',
    referenceName: 'lead from the panel’s ground',
  } as const;
  assert.deepEqual(gaps(document, lead), []);
  const words = actsOf(document, R1(document), draftFor(document, R1(document), lead), []).map(
    (a) => a.words,
  );
  assert.ok(words.includes('ground splice to lead from the panel’s ground'), 'its own ground is read too');
});

test('new work needs no number from before, and a home run that is not landed no lock', () => {
  const lead = { reference: 'lead', referenceName: 'lead from temporary power' } as const;
  assert.deepEqual(gaps(job(), { ...lead, basis: 'new-work' }), []);
  const open = { ...lead, basis: 'not-landed', seenBy: 'R. Hale' } as const;
  assert.deepEqual(gaps(job(), open), []);
  assert.ok(
    gaps(job(), open, but(/^black/, { value: 119 })).length > 0,
    'its conductors are read all the same',
  );
});

test('what is on record and not in the box is said, conductor by conductor, and never of the hot', () => {
  const document = job({ circuit: TWO_POLES });
  const absent = (match: RegExp): Reader => but(match, { value: 0, quantity: 'absent' });
  assert.deepEqual(gaps(document, {}, absent(/^red of the feed to ground/)), []);
  assert.ok(gaps(document, {}, absent(/^black of the feed to ground/)).length > 0);
});

test('a proof ends with power on any circuit of the box, a lock taken off, or the day', () => {
  const document = job({ boxes: [{ through: ['circuit-2'] }], others: [second] });
  const holds = proved(document);
  const why = (d: JobDocument, now = LATER) => whyUnproved(d, R1(d), now);
  assert.equal(validProof(holds, R1(holds), LATER)?.id, 'proof-1');
  assert.match(why(withPower(holds, power('circuit-2', LATER))), /Power came back on Hall/);
  assert.match(
    why(withPower(holds, power('circuit-1', LATER, 'measurement'))),
    /Power came back on Circuit 1/,
  );
  assert.match(why(withPower(holds, power('circuit-2', LATER, 'lock-removed'))), /The lock came off Hall/);
  assert.match(why(holds, '2026-05-07T17:30:00Z'), /another day/);
  assert.match(why(holds, '2026-05-06T14:00:00Z'), /ahead of this clock/);
  assert.equal(why(document), 'No proof of dead for this box is on record');
  const before = withPower(holds, power('circuit-1', '2026-05-06T16:00:00Z'));
  assert.ok(validProof(before, R1(before), LATER), 'power from before does not end it');
});

test('what joins a box after its proof is not in it, and a proof is of its own box', () => {
  const document = proved(job({ boxes: [{}, {}], others: [second] }));
  assert.equal(validProof(document, document.boxes['box-r2']!, LATER), null);
  const joined = {
    ...document,
    boxes: { ...document.boxes, 'box-r1': { ...R1(document), through: ['circuit-2'] } },
  };
  assert.match(whyUnproved(joined, R1(joined), LATER), /Breaker 3 \(Hall\)/);
});

test('a neutral is parted with 0.00 A in it, the main off where that is enough, or all of it ours', () => {
  const shut = (d: JobDocument, draft: Partial<Draft> = {}, extra: Seen[] = []) => {
    const document = proved(d, draft, extra);
    return shutNeutrals(document, R1(document), Object.values(document.proofs)[0]!).map((s) => s.why);
  };
  const old = job();
  assert.match(shut(old)[0]!, /Clamp it: 0\.00 A/);
  assert.deepEqual(shut(old, {}, clamped(old, R1(old), 0)), []);
  // The least that a clamp shows is a current.
  assert.deepEqual(shut(old, {}, clamped(old, R1(old), 0.009)), []);
  assert.match(shut(old, {}, clamped(old, R1(old), 0.01))[0]!, /0\.01 A flows in it/);
  // 0.04 A are 5 W: enough to put 120 V on the end.
  assert.match(shut(old, {}, clamped(old, R1(old), 0.04))[0]!, /0\.04 A flows in it/);
  assert.equal(shut(old, { mainOff: true }).length, 1, 'whether one main opens all is not known');
  const oneMain = job({ panel: { oneMain: 'yes' } });
  assert.deepEqual(shut(oneMain, { mainOff: true }), []);
  const inverter = {
    panel: { oneMain: 'yes' as const },
    job: { otherSources: { asked: true, kinds: ['inverter' as const] } },
  };
  assert.equal(shut(job(inverter), { mainOff: true }).length, 1);
  assert.deepEqual(shut(job({ circuit: { status: 'new' } })), [], 'all of it is new and ours');
  assert.equal(shut(job({ circuit: { status: 'new' }, boxes: [{ status: 'existing' }] })).length, 1);
});

test('main off is never said to make a bus dead where another source is, or nobody asked', () => {
  const panel = { ...PANEL, oneMain: 'yes' as const };
  const of = (otherSources: Job['otherSources'], p = panel) => job({ job: { otherSources }, panel: p });
  assert.equal(mainKills(of(ASKED), panel), true);
  assert.doesNotMatch(panelCaution(of(ASKED), panel), /bus/);
  assert.equal(mainKills(of({ asked: false, kinds: [] }), panel), false);
  assert.match(panelCaution(of({ asked: false, kinds: [] }), panel), /was not asked: take the bus as live/);
  assert.equal(mainKills(of({ asked: true, kinds: ['generator'] }), panel), false);
  assert.match(
    panelCaution(of({ asked: true, kinds: ['generator'] }), panel),
    /another source \(generator\)/,
  );
  assert.equal(mainKills(of(ASKED), { ...panel, oneMain: 'unknown' }), false);
});

test('steps in a box open behind its proof only, and the one that parts the neutral has a gate of its own', () => {
  const document = job();
  const steps = (d: JobDocument, now = LATER) => {
    const line = buildRun(d, d.circuits['circuit-1']!);
    return stepsIn(d, line, line.stops[0]!, now);
  };
  const closed = steps(document);
  assert.ok(!closed.open && !('steps' in closed));
  const open = steps(proved(document));
  assert.ok(open.open);
  assert.ok(open.steps.some((s) => s.partsNeutral && /white of the feed: Clamp it/.test(s.shut ?? '')));
  assert.ok(open.steps.some((s) => s.shut === null));
  const free = steps(proved(document, {}, clamped(document, R1(document))));
  assert.ok(free.open && free.steps.every((s) => s.shut === null));
  assert.equal(steps(proved(document), '2026-05-08T17:00:00Z').open, false);
});

test('a proof with a gap is refused by the command layer; a file with one opens nothing', () => {
  const document = job({ circuit: TWO_POLES });
  const box = R1(document);
  const draft = draftFor(document, box);
  const seen = walk(document, box, draft).filter((s) => !s.node.endsWith('.red'));
  const made = recorded(document, box, draft, seen, { at: NOON });
  const seenOnly = run(
    document,
    { type: 'put', table: 'observations', rows: made.observations },
    GATES,
  ).document;
  assert.throws(
    () => run(seenOnly, { type: 'put', table: 'proofs', rows: [made.proof] }, GATES),
    /red of the feed to ground splice/,
  );
  assert.equal(validProof(withProof(document, made), box, LATER), null);
  // Observations of another box, or of yesterday, are none of this one.
  const stolen = recorded(document, box, draft, walk(document, box, draft), { at: NOON });
  const moved = stolen.observations.map((o) => ({ ...o, boxId: 'box-other' }));
  assert.equal(validProof(withProof(document, { ...stolen, observations: moved }), box, LATER), null);
  const old = stolen.observations.map((o) => ({ ...o, at: '2026-05-05T17:00:00Z' }));
  assert.equal(validProof(withProof(document, { ...stolen, observations: old }), box, LATER), null);
});

test('the state of a circuit follows the last that is on record', () => {
  const document = proved(job());
  const state = (d: JobDocument, at = LATER) => circuitState(d, d.circuits['circuit-1']!, at);
  assert.equal(state(job()), 'unproved');
  assert.equal(state(document), 'dead');
  assert.equal(state(document, '2026-05-07T17:30:00Z'), 'unproved');
  assert.equal(state(withPower(document, power('circuit-1', LATER))), 'energized');
  assert.equal(state(withPower(document, power('circuit-1', LATER, 'measurement'))), 'measuring');
  assert.equal(state(withPower(document, power('circuit-1', LATER, 'lock-removed'))), 'unproved');
});

test('a breaker is off on record by a proof, or a lock taken off; not before, nor with power since', () => {
  const document = proved(job());
  const off = (d: JobDocument, at = LATER) => isOff(d, d.circuits['circuit-1']!, at);
  assert.equal(off(job()), false);
  assert.equal(off(document), true);
  assert.equal(off(document, '2026-05-06T10:00:00Z'), false, 'before it was proved');
  assert.equal(off(withPower(document, power('circuit-1', LATER))), false);
  assert.equal(off(withPower(document, power('circuit-1', LATER, 'lock-removed'))), true);
  assert.equal(
    off(withPower(document, power('circuit-1', '2026-05-06T10:00:00Z'))),
    true,
    'power from before',
  );
});

test('power at the very moment of the last reading counts as after it', () => {
  const document = proved(job());
  const at = (d: JobDocument) => circuitState(d, d.circuits['circuit-1']!, LATER);
  assert.equal(at(withPower(document, power('circuit-1', NOON))), 'energized');
  assert.equal(at(withPower(document, power('circuit-1', NOON, 'measurement'))), 'measuring');
});

test('under one lock-out the second box needs its own acts alone; power in between, or another circuit, ends that', () => {
  const document = proved(job({ boxes: [{}, {}] }));
  const second = document.boxes['box-r2']!;
  const draft = draftFor(document, second, {
    basis: 'same-lock-out',
    reference: 'lead',
    referenceName: 'lead from the ground proved at R1',
  });
  const seen = walk(document, second, draft);
  const made = recorded(document, second, draft, seen, { id: 'proof-2', at: LATER });
  assert.deepEqual(made.gaps, []);
  assert.ok(!seen.some((s) => s.node === 'live'), 'the lead was shown good at the box before');
  assert.ok(
    seen.some((s) => s.node === 'known-source'),
    'the tester is checked here too',
  );
  assert.ok(validProof(withProof(document, made), second, LATER));
  // A live conductor stops it as it would anywhere.
  const live = walk(document, second, draft, (act) => ({
    value: act.kind === 'dead' || act.reads.live ? 120 : 0,
  }));
  assert.ok(proofGaps(document, second, draft, live).some((g) => /not dead/.test(g)));
  const back = withPower(document, power('circuit-1', '2026-05-06T17:10:00Z'));
  assert.ok(proofGaps(back, second, draft, seen).some((g) => /lock-out/.test(g)));
  const alone = job({ boxes: [{}, {}] });
  assert.ok(
    proofGaps(alone, second, draft, seen).some((g) => /lock-out/.test(g)),
    'no box before',
  );
});

test('where nobody knows what a box feeds its cables are counted, and each conductor of each is an act', () => {
  const unknown: Setup = {
    boxes: [{ status: 'existing' }],
    circuit: { ordered: 'unknown', complete: 'unknown' },
  };
  assert.ok(gaps(job(unknown)).some((g) => /how many cables/.test(g)));
  const counted = job({ ...unknown, boxes: [{ cables: 2, status: 'existing' }] });
  assert.deepEqual(names(counted), [
    'cable 1, black',
    'cable 1, white',
    'cable 1, bare or green',
    'cable 2, black',
    'cable 2, white',
    'cable 2, bare or green',
  ]);
  assert.deepEqual(gaps(counted), []);
  const live: Reader = (act) => ({
    value: act.reads.live || act.reads.node.includes('cable-2.black') ? 120 : 0,
  });
  assert.ok(
    gaps(counted, {}, live).some((g) => /cable 2, black.*not dead/.test(g)),
    'a second circuit is found',
  );
});

test('two outlets that are known in words alone are two boxes, not one', () => {
  const document = job({ boxes: [{ wallId: null }, { wallId: null }] });
  assert.ok(names(document).every((n) => !n.startsWith('R2')));
  assert.equal(new Set(pointsIn(document, R1(document)).map((p) => p.key)).size, names(document).length);
  assert.ok(!pointsIn(document, R1(document)).some((p) => p.key.includes('box-r2.')));
});
