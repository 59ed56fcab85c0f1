/** A proof of dead at both sides of every threshold, and each of its conditions by itself. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { chain, outlet, receptacle } from '#core/job/testing.ts';
import type { Box, Circuit, Entry, JobDocument, Proof } from '#core/job/schema.ts';
import { actsOf, togetherWith, isLive, lockOutFor, type Act, type Draft, type Seen } from './acts.ts';
import { BEFORE_STAMPS } from '#core/job/migrations.ts';
import {
  circuitState,
  gapsOf,
  isEnergized,
  isOff,
  lastPower,
  readingsOf,
  standingLockOut,
  validProof,
  whyEnded,
  whyUnproved,
} from './proof.ts';
import { runGuarded } from './gates.ts';
import { whyNotParted } from './neutrals.ts';
import { InvalidError } from '#core/job/validate.ts';
import { pointsIn } from './points.ts';
import { gaps, job, LATER, NOON, power, proved, R1, withPower } from './proofTesting.ts';
import { clamped, DEAD, draftFor, recorded, walk, withProof, type Reader } from './testing.ts';
import { circuitOf, PLAIN_READING } from '#core/job/document.ts';

const LEAD = { reference: 'lead', referenceName: 'lead from the panel’s ground' } as const;
const act = (
  document: JobDocument,
  key: string,
  draft: Partial<Draft> = {},
  seen: readonly Seen[] = [],
): Act =>
  actsOf(document, R1(document), draftFor(document, R1(document), draft), seen).find((a) => a.key === key)!;
const source = (value: number, instrument: Seen['instrument'] = 'two-pole tester'): Seen => ({
  node: 'known-source',
  nodeName: 'known live source',
  to: 'known-source',
  toName: '',
  quantity: 'volts',
  value,
  instrument,
  on: [],
  off: [],
});

test('live is 100 to 140 V, dead is 1 V or less: each at both sides', () => {
  assert.deepEqual([99.9, 100, 140, 140.1].map(isLive), [false, true, true, false]);
  const reads =
    (value: number): Reader =>
    (a) => ({ value: a.reads.live ? 120 : value });
  assert.deepEqual(gaps(job(), {}, reads(1)), []);
  assert.ok(gaps(job(), {}, reads(1.1)).length > 0);
});

test('a known source shows the tester before, and after only once something was read', () => {
  const document = job();
  assert.equal(act(document, 'source-before').done, false);
  const good = [source(120)];
  assert.equal(act(document, 'source-before', {}, good).done, true);
  assert.equal(act(document, 'source-after', {}, good).done, false);
  assert.equal(act(document, 'source-before', {}, [source(60)]).done, false);
  assert.match(act(document, 'source-before', {}, [source(60)]).problem ?? '', /60 V: expected 100 to 140 V/);
  // Nothing was tried yet: nothing is wrong with it.
  const read = walk(document, R1(document), draftFor(document, R1(document))).filter(
    (s) => s.node !== 'known-source',
  );
  assert.equal(act(document, 'source-before', {}, read).problem, null);
  assert.equal(act(document, 'source-before', {}, read).done, false);
  for (const key of ['source-before', 'source-after', 'live'])
    assert.equal(act(document, key).mayBeAbsent, false, key);
});

test('the words of the live conductor say what has to be touched', () => {
  assert.match(act(job(), 'live').words, /^Before it is switched off: black here to ground splice$/);
  assert.match(
    act(job(), 'live', { basis: 'dead-outlet', ...LEAD }).words,
    /^A known live conductor to the lead/,
  );
  assert.match(act(job(), 'live', { basis: 'dead-outlet' }).words, /^A conductor that is live in this box/);
});

test('a live conductor counts by a loading tester, of this box where it was live before, and of any box by a lead', () => {
  const document = job({ boxes: [{}], others: [chain([], { id: 'circuit-2', space: 3 })] });
  const live = (more: Partial<Seen>): Seen => ({
    ...source(120),
    node: 'live',
    to: 'reference',
    on: ['circuit-1'],
    ...more,
  });
  const done = (draft: Partial<Draft>, more: Partial<Seen>) =>
    act(document, 'live', draft, [live({ toName: draft.referenceName ?? 'ground splice', ...more })]).done;
  assert.equal(done({}, {}), true);
  assert.equal(done({}, { instrument: 'high-impedance meter' }), false);
  assert.equal(done({}, { value: 99 }), false);
  assert.equal(done({}, { on: ['circuit-2'] }), false);
  assert.equal(done({}, { to: 'elsewhere' }), false);
  assert.equal(done({}, { toName: 'lead from the ground bar' }), false);
  assert.equal(done({ basis: 'dead-outlet' }, { on: ['circuit-2'] }), true);
  assert.equal(done({ basis: 'dead-outlet' }, { on: [] }), false);
  assert.equal(done({ basis: 'dead-outlet', ...LEAD }, { on: [] }), true);
});

test('which slots are read before the cover comes off, by the device', () => {
  const slots = (device: Partial<Box['device']>) =>
    actsOf(
      job({ boxes: [{ device: receptacle(device) }] }),
      R1(job({ boxes: [{ device: receptacle(device) }] })),
      draftFor(job(), R1(job())),
      [],
    )
      .filter((a) => a.kind === 'face')
      .map((a) => a.key.replaceAll('face.', ''));
  const bottom = ['bottom.hot bottom.neutral', 'bottom.hot bottom.ground', 'bottom.neutral bottom.ground'];
  assert.deepEqual(slots({}), ['hot neutral', 'hot ground', 'neutral ground', ...bottom]);
  assert.deepEqual(slots({ kind: 'single' }), ['hot neutral', 'hot ground', 'neutral ground']);
  assert.deepEqual(slots({ kind: 'two-slot' }), ['hot neutral', 'bottom.hot bottom.neutral']);
  assert.deepEqual(slots({ volts: '250' }), ['hot other hot', 'hot ground']);
  assert.deepEqual(slots({ volts: '125/250' }), [
    'hot other hot',
    'hot neutral',
    'hot ground',
    'neutral ground',
  ]);
  for (const kind of ['light', 'switch', 'smoke-alarm', 'hardwired', 'junction'] as const)
    assert.deepEqual(slots({ kind }), [], kind);
});

test('cables are counted only in an old box of a circuit in no known order that nobody recorded', () => {
  const asks = (status: Box['status'], ordered: 'yes' | 'unknown', wiring: Box['wiring'] = null) =>
    act(job({ boxes: [{ status, wiring }], circuit: { ordered } }), 'cables') !== undefined;
  const recordedWiring: Box['wiring'] = {
    stage: 'as-found',
    at: null,
    by: '',
    wiring: { cables: [], yokes: [], splices: [], tails: [], places: [] },
  };
  assert.deepEqual(
    [
      asks('existing', 'unknown'),
      asks('replace', 'unknown'),
      asks('new', 'unknown'),
      asks('existing', 'yes'),
      asks('existing', 'unknown', recordedWiring),
    ],
    [true, true, false, false, false],
  );
});

test('a conductor that nobody expected goes by its own name', () => {
  const other = (n: number): Seen => ({
    ...source(0),
    node: `other.${n}`,
    nodeName: `red ${n} in the back`,
    to: 'reference',
  });
  const words = actsOf(job(), R1(job()), draftFor(job(), R1(job()), { others: 'read' }), [other(1), other(2)])
    .map((a) => a.words)
    .filter((w) => /in the back/.test(w) && w.startsWith('red'));
  assert.deepEqual(words, ['red 1 in the back to ground splice', 'red 2 in the back to ground splice']);
});

/** R1 proved at noon; R2 of the same circuit after it. */
const two = () => proved(job({ boxes: [{}, {}], others: [chain([], { id: 'circuit-2', space: 3 })] }));
const R2 = (document: JobDocument): Box => document.boxes['box-r2']!;
const BEFORE = '2026-05-06T16:00:00Z';

test('a lock-out stands for another box of its circuits, that day, with no power on them since', () => {
  const stands = (document: JobDocument, seen: readonly Seen[] = []) =>
    lockOutFor(document, R2(document), seen) !== null;
  assert.equal(stands(two()), true);
  assert.equal(stands(withPower(two(), power('circuit-1', BEFORE))), true);
  assert.equal(stands(withPower(two(), power('circuit-1', NOON))), false);
  assert.equal(stands(withPower(two(), power('circuit-1', LATER))), false);
  assert.equal(stands(withPower(two(), power('circuit-2', LATER))), true);
  const at = (time: string) => [{ ...source(120), at: time }];
  assert.equal(stands(two(), at(LATER)), true);
  assert.equal(stands(two(), at(NOON)), true);
  assert.equal(stands(two(), at(BEFORE)), false);
  assert.equal(stands(two(), at('2026-05-08T17:30:00Z')), false);
  // Not of itself, nor of a proof that rests on another, or on no lock at all.
  const document = two();
  assert.equal(lockOutFor(document, R1(document)), null);
  const [proof] = Object.values(document.proofs) as [Proof];
  for (const basis of ['same-lock-out', 'not-landed', 'earlier-proof', 'earlier-override'] as const)
    assert.equal(stands({ ...document, proofs: { [proof.id]: { ...proof, basis } } }), false, basis);
  assert.equal(stands({ ...document, proofs: { [proof.id]: { ...proof, lockedOut: [] } } }), false);
  const unwired = { ...document, circuits: {} };
  assert.equal(stands(unwired), false, 'a box on no circuit has none');
  assert.equal(standingLockOut(document, R2(document), LATER) !== null, true);
  assert.equal(standingLockOut(document, R2(document), '2026-05-07T17:30:00Z'), null);
});

test('a proof holds for its day, against a clock that is up to five minutes behind, on its own observations', () => {
  const document = proved(job());
  const holds = (d: JobDocument, now: string) => validProof(d, R1(d), now) !== null;
  assert.equal(holds(document, LATER), true);
  assert.equal(holds(document, '2026-05-06T16:55:00Z'), true);
  assert.equal(holds(document, '2026-05-06T16:54:59Z'), false);
  assert.match(whyUnproved(document, R1(document), '2026-05-06T16:50:00Z'), /ahead of this clock/);
  assert.match(whyUnproved(document, R1(document), '2026-05-08T17:30:00Z'), /another day/);
  const first = Object.values(document.observations)[0]!;
  const changed = (values: Partial<typeof first>) => ({
    ...document,
    observations: { ...document.observations, [first.id]: { ...first, ...values } },
  });
  assert.equal(holds(changed({ boxId: 'box-r9' }), LATER), false);
  assert.equal(holds(changed({ at: '2026-05-04T16:00:00Z' }), LATER), false);
  assert.equal(holds(changed({ at: '2026-05-06T17:00:01Z' }), LATER), false);
  const without = { ...document.observations };
  delete without[first.id];
  assert.equal(holds({ ...document, observations: without }, LATER), false);
});

test('the neutral is parted under a main off only where that main opens all, of every panel that the box hangs on', () => {
  const panel = { oneMain: 'yes' } as const;
  const neutral = (d: JobDocument) => pointsIn(d, R1(d)).find((p) => p.role === 'neutral')!;
  const why = (d: JobDocument) => whyNotParted(d, Object.values(d.proofs)[0]!, neutral(d));
  const mainOff = { mainOff: true } as const;
  assert.equal(why(proved(job({ panel }), mainOff)), null);
  assert.notEqual(why(proved(job({ panel }))), null);
  assert.notEqual(why(proved(job({ panel: { oneMain: 'unknown' } }), mainOff)), null);
  const unasked = proved(job({ panel }), mainOff);
  const job2 = { ...unasked.job, otherSources: { asked: false, kinds: [] } };
  assert.notEqual(why({ ...unasked, job: job2 }), null);
  const clampAt = (amps: number, at = LATER): JobDocument => {
    const d = proved(job());
    const [seen] = clamped(d, R1(d), amps) as [Seen];
    const row = {
      ...seen,
      link: '',
      id: 'observation-clamp',
      boxId: 'box-r1',
      place: '',
      at,
      by: 'M. Alder',
    };
    return { ...d, observations: { ...d.observations, [row.id]: row } };
  };
  assert.equal(why(clampAt(0.009)), null);
  assert.match(why(clampAt(0.01)) ?? '', /0\.01 A flows/);
  assert.equal(why(clampAt(0, NOON)), null);
  assert.match(
    why(clampAt(0, BEFORE)) ?? '',
    /Clamp it/,
    'a current that was read before the proof is not of it',
  );
});

test('a neutral of new work alone is ours, and one of any old outlet or circuit is not', () => {
  const neutral = (d: JobDocument) => pointsIn(d, R1(d)).find((p) => p.role === 'neutral')!;
  const why = (d: JobDocument) => whyNotParted(d, Object.values(d.proofs)[0]!, neutral(d));
  const fresh = { status: 'new' } as const;
  assert.equal(why(proved(job({ boxes: [fresh], circuit: fresh }))), null);
  assert.notEqual(why(proved(job({ boxes: [{ status: 'existing' }], circuit: fresh }))), null);
  assert.notEqual(why(proved(job({ boxes: [fresh] }))), null);
  const d = proved(job({ boxes: [fresh], circuit: fresh }));
  const [proof] = Object.values(d.proofs) as [Proof];
  assert.notEqual(whyNotParted(d, { ...proof, lockedOut: [] }, neutral(d)), null);
  assert.equal(whyNotParted(d, { ...proof, lockedOut: [], basis: 'not-landed' }, neutral(d)), null);
  assert.notEqual(why(proved(job({ boxes: [fresh, { status: 'existing' }], circuit: fresh }))), null);
  // A second circuit goes through the box: both are new and locked, or it is not ours.
  const hall = (values: Partial<Circuit>) => {
    const far = outlet('R9', 1, 100, fresh);
    const second = chain([far], { id: 'circuit-2', name: 'Hall', ...values });
    const there = job({ boxes: [{ ...fresh, through: ['circuit-2'] }], circuit: fresh, others: [second] });
    return proved({ ...there, boxes: { ...there.boxes, [far.id]: far } });
  };
  const both = hall(fresh);
  const [ofBoth] = Object.values(both.proofs) as [Proof];
  assert.deepEqual([...ofBoth.lockedOut].sort(), ['circuit-1', 'circuit-2']);
  assert.equal(why(both), null);
  assert.notEqual(why(hall({ status: 'existing' })), null);
  for (const id of ofBoth.lockedOut)
    assert.notEqual(whyNotParted(both, { ...ofBoth, lockedOut: [id] }, neutral(both)), null);
});

test('a proof is of the circuits that it locked out; of what comes into its box only where nothing is landed', () => {
  const landed = proved(job({ others: [chain([], { id: 'circuit-2', name: 'Hall' })] }));
  const box = { ...R1(landed), through: ['circuit-2'] };
  const joined = { ...landed, boxes: { ...landed.boxes, [box.id]: box } };
  const second = joined.circuits['circuit-2']!;
  assert.equal(isOff(joined, circuitOf(joined, box.id)!, LATER), true);
  assert.equal(isOff(joined, second, LATER), false, 'it came later and nobody locked it');
  const [proof] = Object.values(landed.proofs) as [Proof];
  const loose = { ...joined, proofs: { [proof.id]: { ...proof, basis: 'not-landed' as const } } };
  assert.equal(isOff(loose, second, LATER), true);
});

test('power on record by its moment: at it, before it, after it', () => {
  const document = withPower(proved(job()), power('circuit-1', LATER));
  const circuit = circuitOf(document, 'box-r1')!;
  const [EARLY, LATE] = ['2026-05-06T17:29:59Z', '2026-05-06T17:30:01Z'];
  assert.deepEqual(
    [EARLY, LATER, LATE].map((at) => [
      lastPower(document, circuit.id, at)?.at ?? null,
      circuitState(document, circuit, at),
      isOff(document, circuit, at),
      isEnergized(document, circuit, at),
    ]),
    [
      // Power that came since ends a proof, whenever one asks.
      [null, 'unproved', true, false],
      [LATER, 'energized', false, true],
      [LATER, 'energized', false, true],
    ],
  );
  // A proof at the very moment of the power: the power stands.
  const same = withPower(proved(job()), power('circuit-1', NOON));
  assert.equal(isEnergized(same, circuitOf(same, 'box-r1')!), true);
  assert.equal(isOff(same, circuitOf(same, 'box-r1')!, LATE), false);
  const removed = withPower(proved(job()), power('circuit-1', LATER, 'lock-removed'));
  assert.equal(isOff(removed, circuitOf(removed, 'box-r1')!, LATE), true);
  assert.match(whyUnproved(removed, R1(removed), LATE), /lock came off/);
  const measured = withPower(proved(job()), power('circuit-1', LATER, 'measurement'));
  assert.equal(circuitState(measured, circuitOf(measured, 'box-r1')!, LATE), 'measuring');
  assert.equal(circuitState(job(), circuitOf(job(), 'box-r1')!, LATE), 'unproved');
});

test('two gangs in one opening share a proof; what joins later is not in it', () => {
  const document = job({ boxes: [{}, { offset: 22 }] });
  const box = R1(document);
  const draft = draftFor(document, box);
  const made = recorded(document, box, draft, walk(document, box, draft, DEAD), { at: NOON });
  assert.deepEqual(made.gaps, []);
  const there = withProof(document, made);
  assert.ok(validProof(there, R2(there), LATER), 'the other gang');
  const far = { ...there, boxes: { ...there.boxes, 'box-r2': outlet('R2', 1, 80) } };
  assert.equal(validProof(far, R2(far), LATER), null, 'another box');
});

test('a proof begins with its first lock: power before it ends nothing, power at it does', () => {
  const document = proved(job());
  const [FIRST, LOCKED] = ['2026-05-06T16:40:00Z', '2026-05-06T16:50:00Z'];
  const observations = Object.fromEntries(
    Object.values(document.observations).map((o) => [o.id, { ...o, at: o.off.length > 0 ? LOCKED : FIRST }]),
  );
  assert.ok(Object.values(observations).some((o) => o.at === FIRST && o.on.length > 0));
  const holds = (at: string) => {
    const d = withPower({ ...document, observations }, power('circuit-1', at));
    return validProof(d, R1(d), NOON) !== null;
  };
  assert.deepEqual(['2026-05-06T16:45:00Z', '2026-05-06T16:49:59Z', LOCKED, NOON].map(holds), [
    true,
    true,
    false,
    false,
  ]);
});

test('what was recorded in an earlier form says so, and opens nothing', () => {
  for (const basis of ['earlier-proof', 'earlier-override'] as const) {
    const document = proved(job());
    const [proof] = Object.values(document.proofs) as [Proof];
    const old = { ...document, proofs: { [proof.id]: { ...proof, basis } } };
    assert.equal(validProof(old, R1(old), LATER), null);
    assert.match(whyUnproved(old, R1(old), LATER), /earlier form/);
  }
});

test('readings of a box are its own, oldest first', () => {
  const document = job({ boxes: [{}, {}] });
  const reading = (id: string, boxId: string, at: string) => ({
    ...PLAIN_READING,
    id,
    boxId,
    at,
    place: '',
    by: 'M. Alder',
    stage: 'as-found' as const,
    instrument: '',
  });
  const list = [
    reading('reading-2', 'box-r1', LATER),
    reading('reading-1', 'box-r1', NOON),
    reading('reading-3', 'box-r2', NOON),
  ];
  const readings = Object.fromEntries(list.map((r) => [r.id, r]));
  assert.deepEqual(
    readingsOf({ ...document, readings }, 'box-r1').map((r) => r.reading.id),
    ['reading-1', 'reading-2'],
  );
});

test('power in the very second of a proof ends it, with or without a part of the second written', () => {
  const holds = proved(job());
  const again = NOON.replace('Z', '.500Z');
  const later = withPower(holds, power('circuit-1', again));
  assert.equal(validProof(later, R1(later), LATER), null);
  assert.equal(isEnergized(later, circuitOf(later, 'box-r1')!), true);
  assert.equal(lastPower(withPower(later, power('circuit-1', NOON)), 'circuit-1')?.at, again);
});

test('what was read to the reference is read in pairs as well; what is not there is in none', () => {
  const document = job();
  const pairs = (...seen: Seen[]) =>
    actsOf(document, R1(document), draftFor(document, R1(document)), seen).filter((a) => a.kind === 'pair');
  const [pair] = pairs();
  const read = { ...source(0), node: pair!.reads!.node, to: 'reference' };
  assert.deepEqual(
    pairs(read).map((a) => a.key),
    pairs().map((a) => a.key),
  );
  assert.deepEqual(pairs({ ...read, quantity: 'absent' }), []);
});

test('why a tester or a reading shows nothing, at both sides of what tells a ghost', () => {
  const document = job();
  const [dead] = actsOf(document, R1(document), draftFor(document, R1(document)), []).filter(
    (a) => a.kind === 'dead',
  );
  const { node, to } = dead!.reads!;
  const why = (value: number) =>
    act(document, dead!.key, {}, [{ ...source(value, 'high-impedance meter'), node, to, off: ['circuit-1'] }])
      .problem ?? '';
  assert.match(why(99.9), /It may be a ghost/);
  assert.match(why(100), /^100 V is not dead(?!.*ghost)/);
  assert.match(why(140), /^140 V is not dead(?!.*ghost)/);
  // The tester after: the first that was read is the last that counts before it.
  const low = act(document, 'source-after', {}, [{ ...source(0), node, to }, source(60)]);
  assert.match(low.problem ?? '', /60 V: expected 100 to 140 V/);
});

test('a box that was dead before asks what shows that the breaker feeds it; a main that opens all does', () => {
  const feeds = (draft: Partial<Draft>, d = job()) =>
    gaps(d, { basis: 'dead-outlet', ...LEAD, ...draft }).filter((g) => /this breaker feeds it/.test(g));
  assert.equal(feeds({ feeds: 'not-shown' }).length, 1);
  assert.equal(feeds({ basis: 'tripped-device', feeds: 'not-shown' }).length, 1);
  for (const shown of ['tone', 'went-dead', 'reset', 'all-off'] as const)
    assert.deepEqual(feeds({ feeds: shown }), [], shown);
  assert.equal(
    feeds({ feeds: 'not-shown', mainOff: true }).length,
    1,
    'whether one main opens all is not known',
  );
  assert.deepEqual(feeds({ feeds: 'not-shown', mainOff: true }, job({ panel: { oneMain: 'yes' } })), []);
  assert.deepEqual(feeds({ basis: 'live-before', feeds: 'not-shown' }), []);
});

test('touches that one hand goes through share a card, and none of them goes missing', () => {
  const d = job();
  const box = R1(d);
  const draft = draftFor(d, box);
  const [source, live] = walk(d, box, draft);
  const acts = actsOf(d, box, draft, [source!, live!]);
  const open = acts.filter((a) => !a.done);
  const at = (kind: Act['kind']) => open.find((a) => a.kind === kind)!;
  assert.deepEqual(
    togetherWith(acts, at('face')).map((a) => a.key.replaceAll('face.', '')),
    [
      ...['hot neutral', 'hot ground', 'neutral ground'],
      ...['bottom.hot bottom.neutral', 'bottom.hot bottom.ground', 'bottom.neutral bottom.ground'],
      'box reference',
    ],
  );
  assert.deepEqual(
    togetherWith(acts, at('dead')).map((a) => a.kind),
    ['dead', 'dead', 'dead', 'pair'],
  );
  // What lies between them is answered first.
  const old = job({ boxes: [{ status: 'existing', cables: null }], circuit: { ordered: 'unknown' } });
  const oldActs = actsOf(old, R1(old), draftFor(old, R1(old)), [source!, live!]);
  assert.equal(
    togetherWith(
      oldActs,
      oldActs.find((a) => a.kind === 'face' && !a.done)!,
    ).length,
    6,
  );
  for (const kind of ['answer', 'lock', 'source', 'live'] as const) {
    const [one] = acts.filter((a) => a.kind === kind);
    if (one) assert.deepEqual(togetherWith(acts, one), [one], kind);
  }
});

test('a box on no circuit is proved with all off that may feed it, and each conductor in it read', () => {
  const document = (values: Parameters<typeof job>[0] = {}): JobDocument => {
    const d = job(values);
    return { ...d, circuits: {}, boxes: { ...d.boxes, [R1(d).id]: { ...R1(d), status: 'existing' } } };
  };
  const LEAD_FROM = { reference: 'lead', referenceName: 'lead from the bar' } as const;
  const gaps = (d: JobDocument, values: Partial<Draft> = {}, more: readonly Seen[] = []) => {
    const draft = draftFor(d, R1(d), { basis: 'dead-outlet', ...LEAD_FROM, ...values });
    const seen = walk(d, R1(d), draft);
    const last = seen.pop()!;
    return recorded(d, R1(d), draft, [...seen, ...more, last]).gaps;
  };
  const read: Seen = {
    ...{ node: 'other.1', nodeName: 'black at the back', to: 'reference', toName: 'lead from the bar' },
    ...{ quantity: 'volts', value: 0, instrument: 'two-pole tester', on: [], off: [] },
  };
  const kills = document({ panel: { oneMain: 'yes' } });
  assert.match(gaps(kills).join('; '), /any breaker may feed it.*; .*expected a reading of each/);
  assert.match(gaps(kills, { others: 'read' }, [read]).join('; '), /any breaker may feed it/);
  assert.match(gaps(kills, { mainOff: true }).join('; '), /no conductor of this box is on record/);
  assert.deepEqual(gaps(kills, { mainOff: true, others: 'read' }, [read]), []);
  // A main that does not open all of it shows nothing, and no home run can be seen to be loose.
  assert.match(
    gaps(document(), { mainOff: true, others: 'read' }, [read]).join('; '),
    /find its breaker first/,
  );
  assert.match(
    gaps(kills, { basis: 'not-landed', seenBy: 'M. Alder', others: 'read' }, [read]).join('; '),
    /which home run is not landed/,
  );
  // Or every breaker on record, each locked by itself.
  const d = job();
  const box = { ...R1(d), id: 'box-lone', name: 'R9', wallId: null, status: 'existing' as const };
  const lone = { ...d, boxes: { ...d.boxes, [box.id]: box } };
  const locked = (lockedOut: string[]) => {
    const draft = draftFor(lone, box, { basis: 'dead-outlet', ...LEAD_FROM, others: 'read', lockedOut });
    const seen = walk(lone, box, draft);
    const last = seen.pop()!;
    return recorded(lone, box, draft, [...seen, read, last]).gaps;
  };
  assert.deepEqual(locked(Object.keys(lone.circuits)), []);
  assert.equal(locked([]).length, 1);
});

test('a box of one cable is proved in 11 answers, a second one under the same lock-out in 8', () => {
  const two = [20, 80].map((at, k) => outlet(`R${k + 1}`, 1, at, { status: 'existing' }));
  const start = job({ boxes: two });
  const unasked = { ...start, job: { ...start.job, otherSources: { asked: false, kinds: [] } } };
  /** Cards that somebody answers, all on them at once, besides what is picked beforehand. */
  const answers = (from: JobDocument, box: Box, values: Partial<Draft>) => {
    let document = from;
    let draft = draftFor(document, box, { lockedOut: [], others: 'not-looked', ...values });
    const seen: Seen[] = [];
    for (let count = 0; count < 30; count++) {
      const acts = actsOf(document, box, draft, seen);
      const first = acts.find((a) => !a.done);
      if (!first) return { count, document, draft, seen };
      if (first.sets) draft = { ...draft, ...first.sets };
      else if (first.key === 'others') draft = { ...draft, others: 'none' };
      else if (first.key === 'sources') document = start;
      else
        for (const { kind, reads } of togetherWith(acts, first))
          seen.push({
            ...reads!,
            ...{ quantity: 'volts', value: reads!.live ? 120 : 0, instrument: 'two-pole tester' },
            on: kind === 'live' ? Object.keys(start.circuits) : [],
            off: reads!.live ? [] : Object.keys(start.circuits),
          });
    }
    throw new Error('it never ends');
  };
  const [r1, r2] = [R1(unasked), unasked.boxes['box-r2']!];
  const first = answers(unasked, r1, {});
  // What shows it, what it is read to, and that it goes on record.
  assert.equal(first.count + 3, 11);
  const made = recorded(first.document, r1, first.draft, first.seen, { at: NOON });
  assert.deepEqual(made.gaps, []);
  const second = answers(withProof(first.document, made), r2, {
    basis: 'same-lock-out',
    lockedOut: made.proof.lockedOut,
    ...LEAD,
  });
  assert.ok(second.count + 2 <= 8, `${second.count + 2} answers`);
});

test('a proof with one gap is refused with that one, and once', () => {
  const d = job();
  const box = R1(d);
  const draft = draftFor(d, box);
  const made = recorded(d, box, draft, walk(d, box, draft).slice(0, -1), { at: NOON });
  assert.equal(made.gaps.length, 1);
  const rows = [
    { type: 'put' as const, table: 'observations' as const, rows: made.observations },
    { type: 'put' as const, table: 'proofs' as const, rows: [made.proof] },
  ];
  assert.throws(
    () => runGuarded(d, { type: 'batch', label: 'proof', commands: rows }),
    (e) => e instanceof InvalidError && e.problems.length === 1 && /known live source again/.test(e.message),
  );
});

test('what a proof says that it had seen was written by then, to the very number', () => {
  const d = proved(job());
  const had = (device: string, n: number): JobDocument => ({
    ...d,
    proofs: { 'proof-1': { ...d.proofs['proof-1']!, had: [{ device, n }] } },
  });
  const why = (document: JobDocument) => whyEnded(document, document.proofs['proof-1']!, NOON);
  assert.equal(why(had('device-x', 0)), null);
  assert.match(why(had('device-x', 1)) ?? '', /nobody has written/);
  const { 'box-r1': _, ...boxes } = d.boxes;
  assert.match(gapsOf({ ...d, boxes }, d.proofs['proof-1']!).join(), /no longer in the job/);
  const before: Proof = {
    ...d.proofs['proof-1']!,
    stamp: { device: BEFORE_STAMPS, n: 1, clock: 1 },
  };
  assert.match(whyEnded(d, before, NOON) ?? '', /earlier build/);
});

test('a home run is looked at again once hands were in its own panel', () => {
  const start = job({ boxes: [{ status: 'new' }] });
  const d = proved(start, { basis: 'not-landed', seenBy: 'M. Alder', ...LEAD });
  const why = (touches: Entry['touches']) => {
    const entry: Entry = {
      ...{ id: 'entry-1', callId: 'call-1', step: 'swap', title: '', said: '', at: LATER, by: 'M. Alder' },
      ...{ picks: [], figures: [], value: null, note: '', strikes: null, touches },
    };
    const document = { ...d, entries: { 'entry-1': entry } };
    return whyEnded(document, d.proofs['proof-1']!, LATER);
  };
  assert.equal(why([]), null);
  assert.equal(why([{ in: 'panel', id: 'panel-2' }]), null);
  assert.equal(why([{ in: 'box', id: 'panel-1' }]), null);
  assert.match(
    why([
      { in: 'box', id: 'box-r1' },
      { in: 'panel', id: 'panel-1' },
    ]) ?? '',
    /Hands were in Panel A since/,
  );
  // A new box that is on no circuit yet has no home run to look at.
  const lone: JobDocument = { ...start, circuits: {} };
  const draft = draftFor(lone, R1(lone), { basis: 'not-landed', seenBy: 'M. Alder', ...LEAD });
  const made = recorded(lone, R1(lone), draft, walk(lone, R1(lone), draft), { at: NOON });
  assert.deepEqual(made.gaps, []);
  assert.equal(whyEnded(withProof(lone, made), made.proof, NOON), null);
});
