/** Each act of a proof by itself: what counts as live, what is relied on, what is asked, and in whose hands a card lies. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { chain, outlet } from '#core/job/testing.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { actsOf, blankDraft, lockOutFor, seriesOf, togetherWith, type Act, type Seen } from './acts.ts';
import { job, NOON, power, proved, R1, withPower } from './proofTesting.ts';
import { draftFor, recorded, walk, withProof } from './testing.ts';

const OWN = new Set(['circuit-1']);
const reading = (values: Partial<Seen> = {}): Seen => ({
  ...{ node: 'circuit-1.box-r1.hot', nodeName: 'black', to: 'reference', toName: 'ground splice' },
  ...{ quantity: 'volts', value: 0, instrument: 'two-pole tester', on: [], off: ['circuit-1'] },
  ...values,
});
const actsWith = (
  seen: readonly Seen[],
  document: JobDocument = job(),
  draft: Parameters<typeof draftFor>[2] = {},
): Act[] => actsOf(document, R1(document), draftFor(document, R1(document), draft), seen);
const act = (acts: readonly Act[], key: string | RegExp): Act =>
  acts.find((a) => (typeof key === 'string' ? a.key === key : key.test(a.words)))!;

test('a series begins anew at what shows power, and at nothing else', () => {
  const last = reading({ node: 'circuit-1.box-r1.ground' });
  const keeps = (first: Seen) => seriesOf([first, last], OWN).length;
  assert.equal(keeps(reading({ value: 1 })), 2);
  assert.equal(keeps(reading({ value: 1.1 })), 1);
  // A ghost on a meter that loads nothing begins nothing anew; what could be a hot does, from 100 V.
  assert.equal(keeps(reading({ value: 99.9, instrument: 'high-impedance meter' })), 2);
  assert.equal(keeps(reading({ value: 100, instrument: 'high-impedance meter' })), 1);
  // Not ohms, not the source, and a live conductor only where it is of these circuits.
  assert.equal(keeps(reading({ quantity: 'amps', value: 3 })), 2);
  assert.equal(keeps(reading({ node: 'known-source', value: 120 })), 2);
  const live = (on: string[]) => reading({ node: 'live', value: 120, on });
  assert.equal(keeps(live(['circuit-1'])), 1);
  assert.equal(keeps(live(['circuit-2', 'circuit-1'])), 1);
  assert.equal(keeps(live(['circuit-2'])), 2);
  assert.equal(keeps(live([])), 2);
  assert.deepEqual(seriesOf([reading({ value: 120 }), last], OWN), [last]);
});

test('a reading with a circuit of this box on, one that is none, or one by what reads no volts shows nothing dead', () => {
  const document = job();
  const point = act(actsWith([]), /^black.* to ground/);
  const problem = (values: Partial<Seen>) =>
    act(actsWith([reading({ node: point.reads!.node, ...values })], document), point.key).problem ?? '';
  assert.equal(problem({}), '');
  assert.match(problem({ on: ['circuit-1'], off: [] }), /with a circuit of this box on/);
  assert.equal(problem({ on: ['circuit-9'] }), '');
  assert.match(problem({ quantity: 'amps' }), /expected volts/);
  assert.match(problem({ quantity: 'absent' }), /expected a reading/);
  assert.match(problem({ toName: '' }), /read to another reference/);
  assert.match(problem({ toName: 'lead' }), /read to lead/);
  assert.match(problem({ instrument: 'pen tester' as Seen['instrument'] }), /a pen tester does not show/);
  // Below 15 V on a loaded neutral it is current, and said so.
  assert.match(problem({ value: 14.9 }), /another circuit’s current/);
  assert.doesNotMatch(problem({ value: 15 }), /another circuit’s current/);
});

test('what may be absent is said to be, but never the hot or what is read at a face', () => {
  const acts = actsWith([]);
  const may = (words: RegExp) => act(acts, words).mayBeAbsent;
  assert.deepEqual([may(/^black.* to ground/), may(/At the face, top hot to neutral/)], [false, false]);
  assert.deepEqual([may(/^white.* to ground/), may(/Plate screw/)], [true, true]);
  for (const a of acts) if (a.reads === null || a.reads.live) assert.equal(a.mayBeAbsent, false, a.key);
  const metal = act(acts, /Plate screw/);
  const gone = reading({ node: metal.reads!.node, quantity: 'absent', to: null, toName: '' });
  assert.equal(act(actsWith([gone]), metal.key).done, true);
});

test('the metal is read before the cover is off where a lead reaches it, and after it where the ground is inside', () => {
  const old = job({ boxes: [{ status: 'existing', cables: null }], circuit: { ordered: 'unknown' } });
  const at = (draft: Parameters<typeof draftFor>[2], key: string) =>
    actsWith([], old, draft).findIndex((a) => a.key.startsWith(key));
  const LEAD = { reference: 'lead', referenceName: 'lead from the bar' } as const;
  assert.ok(at(LEAD, 'box ') < at(LEAD, 'cables'));
  assert.ok(at({}, 'box ') > at({}, 'cables'));
  assert.equal(at({ reference: 'metal-box' }, 'box '), -1);
});

test('after something was found live all else is read again, and only once that is dead itself', () => {
  const document = job();
  const draft = draftFor(document, R1(document));
  const whole = walk(document, R1(document), draft);
  const acts = (seen: readonly Seen[]) => actsOf(document, R1(document), draft, seen);
  const [white, black] = [act(acts([]), /^white.* to ground/), act(acts([]), /^black.* to ground/)];
  const at = whole.findIndex((s) => s.node === black.reads!.node && s.to === 'reference');
  const seen = whole.slice(0, at + 1);
  const live = { ...whole[at]!, value: 120 };
  const found = [...seen, whole.find((s) => s.node === white.reads!.node && s.to === 'reference')!, live];
  // The one that is live stands open; what was read before it stays as it was until that is dead.
  assert.equal(act(acts(found), black.key).done, false);
  assert.equal(act(acts(found), white.key).done, true);
  const dead = acts([...found, whole[at]!]);
  assert.equal(act(dead, black.key).done, true);
  assert.match(act(dead, white.key).problem ?? '', /found live after it: read it again/);
  // Said to be absent before it, it is looked for again as well.
  const metal = act(acts([]), /Plate screw/);
  const gone = reading({ node: metal.reads!.node, quantity: 'absent', to: null, toName: '' });
  const again = acts([...seen, gone, live, whole[at]!]);
  assert.match(act(again, metal.key).problem ?? '', /read it again/);
});

test('each tester is shown good before what it read and after it, and only by a source', () => {
  const src = (value: number, instrument: Seen['instrument'] = 'two-pole tester') =>
    reading({ node: 'known-source', to: 'known-source', value, instrument, off: [] });
  const done = (seen: Seen[], key: 'source-before' | 'source-after') => act(actsWith(seen), key).done;
  const read = reading();
  assert.equal(done([src(120), read], 'source-before'), true);
  assert.equal(done([read, src(120)], 'source-before'), false);
  assert.equal(done([src(120), read], 'source-after'), false);
  assert.equal(done([src(120), read, src(120)], 'source-after'), true);
  assert.equal(done([src(120), read, src(90)], 'source-after'), false);
  // Another tester in between is one more to be shown.
  const other = reading({ node: 'circuit-1.box-r1.neutral', instrument: 'low-impedance meter' });
  assert.equal(done([src(120), read, other, src(120)], 'source-after'), false);
  assert.equal(
    done(
      [src(120), src(120, 'low-impedance meter'), read, other, src(120), src(120, 'low-impedance meter')],
      'source-after',
    ),
    true,
  );
  const message = (seen: Seen[], key: string) => act(actsWith(seen), key).problem;
  assert.match(message([src(90), read], 'source-before') ?? '', /90 V: expected/);
  assert.match(
    message([src(120), read, other], 'source-before') ?? '',
    /not proved before: low-impedance meter/,
  );
  assert.equal(message([read], 'source-before'), null);
  assert.match(message([src(120), read, src(90)], 'source-after') ?? '', /90 V: expected/);
  // What was replaced at the same place needs no tester.
  assert.equal(done([src(120), { ...read, instrument: 'low-impedance meter' }, read], 'source-before'), true);
});

test('a lock-out serves a second box only with every circuit of it, and no power since', () => {
  const second = chain([outlet('R2', 1, 60)], { id: 'circuit-2', name: 'Second', space: 3 });
  const both = job({ boxes: [{}, { through: ['circuit-2'] }], others: [{ ...second, stops: [] }] });
  const one = proved(both);
  const r2 = one.boxes['box-r2']!;
  assert.equal(lockOutFor(one, r2), null);
  const alone = proved(job({ boxes: [{}, {}] }));
  const other = alone.boxes['box-r2']!;
  assert.equal(lockOutFor(alone, other)?.id, 'proof-1');
  assert.equal(
    lockOutFor(withPower(alone, power('circuit-9', '2026-05-06T17:10:00Z')), other)?.id,
    'proof-1',
  );
  assert.equal(lockOutFor(withPower(alone, power('circuit-1', '2026-05-06T17:10:00Z')), other), null);
  const stands = actsOf(alone, other, draftFor(alone, other, { basis: 'same-lock-out' }), []);
  assert.equal(act(stands, 'same-lock-out').problem, null);
  assert.match(
    act(actsWith([], job(), { basis: 'same-lock-out' }), 'same-lock-out').problem ?? '',
    /no other box/,
  );
});

test('a home run that had power is landed; a lock that came off alone says nothing of it', () => {
  const why = (document: JobDocument) => {
    const { done, problem } = act(
      actsWith([], document, { basis: 'not-landed', seenBy: 'M. Alder' }),
      'basis',
    );
    return done ? null : problem;
  };
  assert.equal(why(job()), null);
  assert.match(why(withPower(job(), power('circuit-1', NOON))) ?? '', /its home run is landed/);
  assert.equal(why(withPower(job(), power('circuit-1', NOON, 'lock-removed'))), null);
  assert.equal(why(withPower(job(), power('circuit-9', NOON))), null);
  const unseen = act(actsWith([], job(), { basis: 'not-landed', seenBy: '' }), 'basis');
  assert.match(unseen.words, /seen by …/);
  assert.equal(unseen.done, false);
  assert.match(
    act(actsWith([], job(), { basis: 'not-landed', seenBy: 'A. B.' }), 'basis').words,
    /seen by A\. B\./,
  );
});

test('the mains show what feeds a box only where each of them opens all of it', () => {
  const document = job({ panel: { oneMain: 'yes' } });
  const second = { ...document.panels['panel-1']!, id: 'panel-2', oneMain: 'unknown' as const };
  const other = chain([], { id: 'circuit-2', panelId: 'panel-2', space: 3 });
  const two: JobDocument = {
    ...document,
    panels: { ...document.panels, 'panel-2': second },
    circuits: { ...document.circuits, 'circuit-2': { ...other, stops: [] } },
    boxes: { ...document.boxes, 'box-r1': { ...R1(document), through: ['circuit-2'] } },
  };
  const feeds = (d: JobDocument) =>
    act(actsWith([], d, { basis: 'dead-outlet', feeds: 'not-shown', mainOff: true }), 'feeds').done;
  assert.deepEqual([feeds(document), feeds(two)], [true, false]);
});

test('a draft begins with nothing locked, nothing off and nothing seen', () => {
  const blank = blankDraft('box-r1', 'M. Alder');
  assert.deepEqual(
    [blank.mainOff, blank.lockedOut, blank.sourcesOff, blank.others, blank.feeds],
    [false, [], [], 'not-looked', 'not-shown'],
  );
});

test('a card holds seven touches at a face and five conductors, all of one kind, and no answer', () => {
  const act = (kind: Act['kind'], n: number, live = false): Act => ({
    ...{
      key: `${kind} ${n}`,
      kind,
      words: '',
      brief: '',
      done: false,
      problem: null,
      mayBeAbsent: false,
      sets: null,
    },
    reads: { node: `n${n}`, nodeName: '', to: 'reference', toName: '', live },
  });
  const list = (kind: Act['kind'], count: number) => Array.from({ length: count }, (_, n) => act(kind, n));
  for (const [kind, most] of [
    ['face', 7],
    ['dead', 5],
    ['pair', 5],
  ] as const)
    for (const count of [1, most - 1, most, most + 1]) {
      const acts = list(kind, count);
      assert.equal(togetherWith(acts, acts[0]!).length, Math.min(count, most), `${count} of ${kind}`);
    }
  const answer: Act = { ...act('answer', 9), reads: null };
  const acts = [...list('dead', 2), answer, act('dead', 5)];
  assert.equal(togetherWith(acts, acts[0]!).length, 2);
  assert.deepEqual(togetherWith([answer, act('dead', 1)], answer), [answer]);
  const live = act('live', 1, true);
  assert.deepEqual(togetherWith([live, act('dead', 1)], live), [live]);
  const source = act('source', 1);
  assert.deepEqual(togetherWith([source, act('source', 2)], source), [source]);
});

test('a box on no circuit: each main has to open all of it, or each breaker on record be locked', () => {
  const start = job({ panel: { oneMain: 'yes' } });
  const lone = outlet('R9', 1, 20, { status: 'existing', wallId: null });
  const lock = (document: JobDocument, draft: Parameters<typeof draftFor>[2]) =>
    act(
      actsOf(document, lone, draftFor(document, lone, { basis: 'dead-outlet', ...draft }), []),
      'lock main',
    );
  const base: JobDocument = { ...start, boxes: { ...start.boxes, [lone.id]: lone } };
  assert.equal(lock(base, { mainOff: true }).done, true);
  assert.equal(lock(base, {}).done, false);
  assert.equal(lock(base, {}).problem, null);
  assert.doesNotMatch(lock(base, {}).words, /of each panel/);
  assert.deepEqual(lock(base, {}).sets, { mainOff: true });
  const panel2 = { ...base.panels['panel-1']!, id: 'panel-2', oneMain: 'unknown' as const };
  const two: JobDocument = { ...base, panels: { ...base.panels, 'panel-2': panel2 } };
  assert.equal(lock(two, { mainOff: true }).done, false);
  assert.match(lock(two, { mainOff: true }).problem ?? '', /find its breaker first/);
  assert.match(lock(two, {}).words, /of each panel/);
  const circuit2 = { ...base.circuits['circuit-1']!, id: 'circuit-2', stops: [] };
  const more: JobDocument = { ...two, circuits: { ...two.circuits, 'circuit-2': circuit2 } };
  assert.equal(lock(more, { lockedOut: ['circuit-1'] }).done, false);
  assert.equal(lock(more, { lockedOut: ['circuit-1', 'circuit-2'] }).done, true);
  assert.equal(lock(more, { mainOff: true, lockedOut: ['circuit-1', 'circuit-2'] }).problem, null);
  const nothing: JobDocument = { ...base, panels: {}, circuits: {} };
  assert.equal(lock(nothing, { mainOff: true }).done, false);
  // One other conductor that was read is enough to be asked no more; none where the box is new.
  const made = recorded(base, lone, draftFor(base, lone, { others: 'none' }), []);
  assert.ok(made.gaps.some((g) => /no conductor of this box is on record/.test(g)));
  assert.ok(withProof(base, made).proofs['proof-1']);
});
