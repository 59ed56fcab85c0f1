/** Hands in a panel: each act that its bus is proved by, in its order, and all that shuts it again. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PLAIN_READING } from '#core/job/document.ts';
import type { Closing, Energizing, Entry, Flip, JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { PANEL } from '#core/job/testing.ts';
import { runGuarded } from './gates.ts';
import { MAIN_ON, PANEL_DEAD, PANEL_OFF, panelGap, panelTicks, whyPanelShut } from './panel.ts';
import { job, LATER, power } from './proofTesting.ts';

const at = (minute: number, second = 0) =>
  `2026-05-06T17:${String(minute).padStart(2, '0')}:${String(second).padStart(2, '0')}Z`;
const entry = (id: string, step: string, when: string, values: Partial<Entry> = {}): Entry => ({
  ...{ id, callId: 'call-1', step, title: '', said: '', at: when, by: 'M. Alder', value: null, note: '' },
  ...{ touches: [{ in: 'panel', id: PANEL.id }], picks: [], figures: [], strikes: null },
  ...values,
});
const TICKS = ['main', 'lugs', 'not-fed', 'done'];
const FIGURES = {
  ...{ before: 120, after: 120 },
  ...{ 'a-n': 0, 'b-n': 0, 'a-b': 0, 'a-g': 0, 'b-g': 0, 'n-g': 0 },
};
const figures = (values: Readonly<Record<string, number | undefined>> = {}): Entry['figures'] =>
  Object.entries({ ...FIGURES, ...values }).flatMap(([name, value]) =>
    value === undefined ? [] : [{ name, value }],
  );
const off = (values: Partial<Entry> = {}) =>
  entry('entry-off', PANEL_OFF, at(0), { picks: TICKS, ...values });
const dead = (values: Partial<Entry> = {}) =>
  entry('entry-dead', PANEL_DEAD, at(1), { figures: figures(), ...values });
const withEntries = (document: JobDocument, ...entries: readonly Entry[]): JobDocument => ({
  ...document,
  entries: Object.fromEntries(entries.map((e) => [e.id, e])),
});
const gap = (document: JobDocument, now = LATER) => panelGap(document, PANEL.id, now);

test('a panel opens on sources asked for, what feeds it locked, and its bus read dead after that', () => {
  assert.equal(gap(withEntries(job(), off(), dead())), null);
  assert.equal(gap(job())?.next, PANEL_OFF);
  assert.equal(gap(withEntries(job(), off()))?.next, PANEL_DEAD);
  assert.equal(gap(withEntries(job(), dead()))?.next, PANEL_OFF);
  const unasked = job({ job: { otherSources: { asked: false, kinds: [] } } });
  assert.equal(gap(withEntries(unasked, off(), dead()))?.next, 'sources');
  // Read first and locked after, or in no known order: read again.
  assert.equal(gap(withEntries(job(), off({ at: at(2) }), dead()))?.next, PANEL_DEAD);
  assert.equal(gap(withEntries(job(), off(), dead({ at: at(0) })))?.next, PANEL_DEAD);
  // Of another panel, or taken back.
  const other: Entry['touches'] = [{ in: 'panel', id: 'panel-2' }];
  assert.equal(gap(withEntries(job(), off({ touches: other }), dead()))?.next, PANEL_OFF);
  assert.equal(gap(withEntries(job(), off(), dead({ touches: other })))?.next, PANEL_DEAD);
  assert.equal(
    gap(withEntries(job(), off(), dead({ touches: [{ in: 'box', id: PANEL.id }] })))?.next,
    PANEL_DEAD,
  );
  const struck = entry('entry-struck', PANEL_DEAD, at(2), { strikes: 'entry-dead', touches: [] });
  assert.equal(gap(withEntries(job(), off(), dead(), struck))?.next, PANEL_DEAD);
  assert.match(panelGap(job(), 'panel-nowhere', LATER)?.why ?? '', /not on record/);
});

test('each tick that a panel asks for is made, by what feeds it', () => {
  for (const out of TICKS.slice(0, 3))
    assert.equal(
      gap(withEntries(job(), off({ picks: TICKS.filter((t) => t !== out) }), dead()))?.next,
      PANEL_OFF,
      out,
    );
  assert.equal(gap(withEntries(job(), off({ picks: [...TICKS, 'fed'] }), dead()))?.next, PANEL_OFF);
  const battery = job({ job: { otherSources: { asked: true, kinds: ['battery', 'generator'] } } });
  const locked = [...TICKS, 'off battery', 'off generator'];
  assert.equal(gap(withEntries(battery, off({ picks: locked }), dead())), null);
  for (const out of ['off battery', 'off generator'])
    assert.match(
      gap(withEntries(battery, off({ picks: locked.filter((t) => t !== out) }), dead()))?.why ?? '',
      new RegExp(`The ${out.slice(4)} off and locked`),
    );
  // A subpanel by its feeder’s lock: its own line lugs are dead with it.
  const main = { ...PANEL, id: 'panel-main', name: 'Panel M' };
  const plain = job();
  const sub: JobDocument = {
    ...plain,
    panels: {
      'panel-main': main,
      [PANEL.id]: {
        ...PANEL,
        feeder: { panelId: 'panel-main' } as JobDocument['panels'][string]['feeder'],
      },
    },
  };
  assert.deepEqual(
    panelTicks(sub, sub.panels[PANEL.id]!).map(([value]) => value),
    ['feeder', 'not-fed', 'fed'],
  );
  assert.match(panelTicks(sub, sub.panels[PANEL.id]!)[0]![1], /Panel M off and locked/);
  assert.equal(gap(withEntries(sub, off(), dead()))?.next, PANEL_OFF);
  assert.equal(gap(withEntries(sub, off({ picks: ['feeder', 'not-fed'] }), dead())), null);
});

test('every pair of the bus at both sides of 1 V, the tester at both sides of a known source, and what feeds on', () => {
  const why = (values: Readonly<Record<string, number | undefined>>, picks = TICKS) =>
    gap(withEntries(job(), off({ picks }), dead({ figures: figures(values) })))?.why ?? null;
  for (const pair of ['a-n', 'b-n', 'a-b', 'a-g', 'b-g', 'n-g']) {
    assert.equal(why({ [pair]: 1 }), null, pair);
    assert.match(why({ [pair]: 1.1 }) ?? '', /Not dead/, pair);
    assert.match(why({ [pair]: undefined }) ?? '', /Not dead/, pair);
  }
  for (const name of ['before', 'after']) {
    for (const volts of [100, 140]) assert.equal(why({ [name]: volts }), null);
    for (const volts of [99, 141, undefined])
      assert.match(why({ [name]: volts }) ?? '', new RegExp(`Tester ${name}`));
  }
  const fed = ['main', 'lugs', 'fed'];
  assert.match(why({}, fed) ?? '', /Not dead/);
  assert.equal(why({ 'f-n': 0, 'f-g': 1 }, fed), null);
  assert.match(why({ 'f-n': 0, 'f-g': 1.1 }, fed) ?? '', /Not dead/);
  assert.match(why({ 'f-n': 120, 'f-g': 0 }, fed) ?? '', /Not dead/);
  // Where nothing feeds on, nobody asks for it.
  assert.equal(why({ 'f-n': 120 }), null);
});

test('a cover that went on, power, a flip, a night or something live shuts it again', () => {
  const open = withEntries(job(), off(), dead());
  const closing = (when: string, values: Partial<Closing> = {}): Closing => ({
    ...{
      id: 'closing-1',
      place: '',
      at: when,
      by: 'M. Alder',
      left: 'closed',
      of: { in: 'panel', id: PANEL.id },
    },
    ...values,
  });
  const closed = (row: Closing): JobDocument => ({ ...open, closings: { [row.id]: row } });
  const flip = (when: string): Flip => ({
    ...{ id: 'flip-1', panelId: PANEL.id, at: when, by: 'M. Alder', means: 'eyes', off: ['1'] },
    ...{ outlets: [{ boxId: 'box-r1', dead: true }], strikes: null },
  });
  const powered = (row: Energizing): JobDocument => ({ ...open, energizings: { [row.id]: row } });
  const next = (document: JobDocument) => gap(document)?.next ?? null;
  for (const [when, expected] of [
    ['2026-05-06T16:59:00Z', null],
    [at(0, 30), PANEL_OFF],
    [at(5), PANEL_OFF],
  ] as const) {
    assert.equal(next(closed(closing(when))), expected, `closed ${when}`);
    assert.equal(next({ ...open, flips: { 'flip-1': flip(when) } }), expected, `flipped ${when}`);
    assert.equal(next(powered(power('circuit-1', when))), expected, `power ${when}`);
    const on = entry('entry-on', MAIN_ON, when, { touches: [] });
    assert.equal(
      next({ ...open, entries: { ...open.entries, 'entry-on': on } }),
      expected,
      `main on ${when}`,
    );
  }
  assert.equal(next(closed(closing(at(5), { of: { in: 'panel', id: 'panel-2' } }))), null);
  assert.equal(next(closed(closing(at(5), { of: { in: 'box', id: PANEL.id } }))), null);
  assert.equal(gap(open, '2026-05-08T17:00:00Z')?.next, PANEL_OFF);
  const live = {
    ...PLAIN_READING,
    ...{ id: 'reading-1', boxId: 'box-r1', place: 'R1', by: 'M. Alder', stage: 'as-found' as const },
    ...{ instrument: 'meter', hotNeutral: 120, at: at(5) },
  };
  const seen = { ...open, readings: { 'reading-1': live } };
  assert.match(whyPanelShut(seen, PANEL.id, LATER) ?? '', /live since the bus/);
  assert.equal(next(seen), PANEL_DEAD);
});

test('hands in a panel go on record behind its acts, and the acts themselves behind nothing', () => {
  const put = (document: JobDocument, row: Entry) =>
    runGuarded(document, { type: 'put', table: 'entries', rows: [row] }).document;
  const call = { id: 'call-1' } as JobDocument['calls'][string];
  const start = { ...job(), calls: { 'call-1': call } };
  const hands = entry('entry-hands', 'swap', at(2));
  const refused = (document: JobDocument) =>
    assert.throws(
      () => put(document, hands),
      (e) => e instanceof InvalidError && e.problems.some((p) => p.path === 'entries[entry-hands]'),
    );
  refused(start);
  const locked = put(start, off());
  refused(locked);
  const proved = put(locked, dead());
  assert.ok(put(proved, hands).entries['entry-hands']);
  // Taking an answer back is no hand.
  assert.ok(put(start, { ...hands, strikes: 'entry-x' } as Entry));
});
