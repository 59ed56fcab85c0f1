/** When a neutral may be parted: worked cases at both sides of each rule; and who may, and a home run that is not landed. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { run } from '#core/job/commands.ts';
import { chain, outlet, PANEL } from '#core/job/testing.ts';
import type { Circuit, Flip, JobDocument, Observation, Proof, Reading } from '#core/job/schema.ts';
import { PLAIN_READING } from '#core/job/document.ts';
import { gapsOf, validProof, whyUnproved } from './proof.ts';
import type { Draft } from './acts.ts';
import { licenseGuard } from './people.ts';
import { isShownApart, mayShare, neutralGuard, shutNeutrals, whyNeutralsShut } from './neutrals.ts';
import { job, LATER, NOON, power, proved, R1, withPower } from './proofTesting.ts';
import { clamped, draftFor, recorded, walk } from './testing.ts';

const EVEN_LATER = '2026-05-06T17:45:00Z';
const hall = (values: Partial<Circuit> = {}): Circuit =>
  chain([], { id: 'circuit-2', name: 'Hall', space: 3, status: 'existing', ...values });
/** A box of one circuit that is proved, beside another circuit of the panel. */
const beside = (other: Partial<Circuit> = {}, known: 'yes' | 'unknown' = 'yes'): JobDocument =>
  proved(job({ others: [hall(other)], panel: { known } }));

/** A clamp at the first box. @param on circuits and panels with a load on */
function clampedAt(document: JobDocument, on: readonly string[], amps = 0, at = LATER): JobDocument {
  const rows = clamped(document, R1(document), amps).map((seen, k): Observation => ({
    ...{
      ...seen,
      on: [...on],
      link: '',
      id: `clamp-${at}-${k}`,
      boxId: 'box-r1',
      place: '',
      at,
      by: 'M. Alder',
    },
  }));
  return {
    ...document,
    observations: { ...document.observations, ...Object.fromEntries(rows.map((r) => [r.id, r])) },
  };
}
const why = (document: JobDocument): string =>
  shutNeutrals(document, R1(document), Object.values(document.proofs)[0]!)
    .map((s) => s.why)
    .join('; ');

const CASES: [string, JobDocument, RegExp][] = [
  ['nothing clamped', beside(), /Clamp it: 0\.00 A/],
  ['the other circuit idle', clampedAt(beside(), []), /shows nothing of what ran no load: Hall/],
  ['a load on the other circuit', clampedAt(beside(), ['circuit-2']), /^$/],
  ['a load on all of the panel', clampedAt(beside(), [PANEL.id]), /^$/],
  ['another circuit without a neutral', clampedAt(beside({ neutral: false }), []), /^$/],
  ['another circuit that is only planned', clampedAt(beside({ status: 'new' }), []), /^$/],
  [
    'one that was planned and has power',
    clampedAt(withPower(beside({ status: 'new' }), power('circuit-2', NOON)), []),
    /ran no load: Hall/,
  ],
  [
    'a panel that nobody read may feed more',
    clampedAt(beside({}, 'unknown'), ['circuit-2']),
    /whatever else Panel/,
  ],
  ['a panel that nobody read, all of it loaded', clampedAt(beside({}, 'unknown'), [PANEL.id]), /^$/],
  [
    'power on the other one since',
    withPower(clampedAt(beside(), ['circuit-2']), power('circuit-2', EVEN_LATER)),
    /Power came on Hall since it was clamped/,
  ],
  [
    'its lock off, and no power',
    withPower(clampedAt(beside(), ['circuit-2']), power('circuit-2', EVEN_LATER, 'lock-removed')),
    /^$/,
  ],
  ['a current', clampedAt(beside(), ['circuit-2'], 0.01), /0\.01 A flows in it/],
  ['a current that is gone', clampedAt(clampedAt(beside(), [], 0.3), [PANEL.id], 0, EVEN_LATER), /^$/],
  ['a current after it', clampedAt(clampedAt(beside(), [PANEL.id]), [], 0.3, EVEN_LATER), /0\.3 A flows/],
];
for (const [name, document, words] of CASES) test(name, () => assert.match(why(document), words));

test('a flip of the breaker of a circuit that may share it ends a clamp', () => {
  const flip = (off: string): Flip => ({
    ...{ id: 'flip-1', panelId: PANEL.id, at: EVEN_LATER, by: 'M. Alder', means: 'eyes', off: [off] },
    ...{ outlets: [], strikes: null },
  });
  const with_ = (f: Flip) => ({ ...clampedAt(beside(), ['circuit-2']), flips: { [f.id]: f } });
  assert.match(why(with_(flip('3'))), /Power came on Hall/);
  assert.equal(why(with_(flip('7'))), '');
});

test('a circuit that is off under a proof of its own needs no load', () => {
  const far = outlet('R9', 1, 160, { status: 'existing' });
  const second = { ...hall(), stops: chain([far]).stops };
  const base = job({ others: [second], panel: { known: 'yes' } });
  const both: JobDocument = { ...base, boxes: { ...base.boxes, [far.id]: far } };
  const draft = draftFor(both, far, {});
  const made = recorded(both, far, draft, walk(both, far, draft), { id: 'proof-far', at: NOON });
  const rows = Object.fromEntries(made.observations.map((o) => [o.id, o]));
  const off: JobDocument = { ...both, observations: rows, proofs: { 'proof-far': made.proof } };
  const here = proved(off);
  const proof = Object.values(here.proofs).find((p) => p.boxId === 'box-r1')!;
  const shut = (d: JobDocument) => shutNeutrals(d, R1(d), proof).map((s) => s.why);
  assert.deepEqual(shut(clampedAt(here, [])), []);
  assert.match(shut(clampedAt(withPower(here, power('circuit-2', NOON)), []))[0] ?? '', /Hall/);
  assert.deepEqual(
    mayShare(here, R1(here)).map((c) => c.id),
    ['circuit-2'],
  );
});

test('what parts a neutral is held back in the store', () => {
  const entry = (document: JobDocument) =>
    run(
      { ...document, calls: { 'call-1': { id: 'call-1' } as never } },
      {
        type: 'put',
        table: 'entries',
        rows: [
          {
            ...{
              id: 'entry-1',
              callId: 'call-1',
              step: 'wire',
              title: '',
              said: '',
              at: EVEN_LATER,
              by: 'M. Alder',
            },
            ...{ touches: [{ in: 'neutral', id: 'box-r1' }], picks: [], value: null, figures: [], note: '' },
            strikes: null,
          },
        ],
      },
      { guards: [neutralGuard], clerk: null },
    );
  assert.throws(() => entry(beside()), /Clamp it/);
  assert.throws(() => entry(clampedAt(beside(), [])), /ran no load/);
  assert.ok(entry(clampedAt(beside(), [PANEL.id])));
  assert.equal(whyNeutralsShut(job(), R1(job()), LATER), null, 'the proof of the box is asked for elsewhere');
});

test('a home run that is not landed frees its own circuit, not one beside it, and nothing that had power', () => {
  const fresh = { status: 'new' } as const;
  const free: Partial<Draft> = {
    basis: 'not-landed',
    seenBy: 'M. Alder',
    lockedOut: [],
    reference: 'lead',
    referenceName: 'lead from the panel',
  };
  const alone = job({ boxes: [fresh], circuit: fresh });
  const made = proved(alone, free);
  assert.ok(validProof(made, R1(made), LATER));
  const [proof] = Object.values(made.proofs) as [Proof];
  const passing = job({ boxes: [{ ...fresh, through: ['circuit-2'] }], circuit: fresh, others: [hall()] });
  assert.throws(() => proved(passing, free), /Breaker 3 \(Hall\) off/);
  const both = proved(passing, { ...free, lockedOut: ['circuit-2'] });
  assert.deepEqual(gapsOf(both, Object.values(both.proofs)[0]!), []);
  // The record says that it had power: before, or after.
  for (const at of ['2026-05-01T10:00:00Z', LATER])
    assert.match(whyUnproved(withPower(made, power('circuit-1', at)), R1(made), EVEN_LATER), /power/i);
  const reading: Reading = {
    ...{
      ...PLAIN_READING,
      id: 'reading-1',
      boxId: 'box-r1',
      place: '',
      at: '2026-05-01T10:00:00Z',
      by: 'M. Alder',
    },
    ...{ stage: 'as-found', hotNeutral: 120, from: null },
  } as Reading;
  assert.match(
    whyUnproved({ ...made, readings: { [reading.id]: reading } }, R1(made), LATER),
    /had power by what is on record/,
  );
  const opened = {
    ...{
      id: 'entry-1',
      callId: 'call-1',
      step: 'x',
      title: '',
      said: '',
      at: LATER,
      by: 'M. Alder',
      picks: [],
    },
    ...{
      touches: [{ in: 'panel' as const, id: PANEL.id }],
      value: null,
      figures: [],
      note: '',
      strikes: null,
    },
  };
  assert.match(
    whyUnproved({ ...made, entries: { [opened.id]: opened } }, R1(made), EVEN_LATER),
    /look again whether the home run is landed/,
  );
  assert.equal(proof.basis, 'not-landed');
});

test('where local law leaves boxes and panels to the licensed, nobody else opens one or puts power back', () => {
  const settings = job().job.settings;
  const of = (role: 'licensed' | 'apprentice' | 'owner' | null, licensedOnly = true) => {
    const document = job({ job: { settings: { ...settings, hunt: { ...settings.hunt, licensedOnly } } } });
    const person = {
      id: 'person-1',
      at: '2026-01-01T00:00:00Z',
      name: 'M. Alder',
      role: role ?? 'owner',
      license: '',
    };
    const known: JobDocument = { ...document, people: role === null ? {} : { 'person-1': person } };
    return () =>
      run(
        known,
        { type: 'put', table: 'energizings', rows: [power('circuit-1', LATER)] },
        { guards: [licenseGuard], clerk: null },
      );
  };
  for (const role of ['apprentice', 'owner', null] as const)
    assert.throws(of(role), /only a licensed person/);
  assert.ok(of('licensed')());
  for (const role of ['apprentice', 'owner', null] as const) assert.ok(of(role, false)());
});

test('of several clamps the newest says what ran; of several neutrals each is shown apart by its own', () => {
  // Idle first, loaded later, and the other way around: what was shown with a load stays shown only by the newest.
  const later = clampedAt(clampedAt(beside(), []), ['circuit-2'], 0, EVEN_LATER);
  assert.equal(why(later), '');
  assert.match(why(clampedAt(clampedAt(beside(), ['circuit-2']), [], 0, EVEN_LATER)), /ran no load: Hall/);
  const far = hall({ id: 'circuit-3', name: 'Porch', space: 5 });
  const two = proved(
    job({ boxes: [{ through: ['circuit-2'] }], others: [hall(), far], panel: { known: 'yes' } }),
  );
  const [proof] = Object.values(two.proofs) as [Proof];
  assert.equal(isShownApart(two, R1(two), proof, far), false);
  const clampedTwo = clampedAt(two, ['circuit-3']);
  assert.ok(isShownApart(clampedTwo, R1(two), proof, far));
  assert.equal(
    isShownApart(clampedTwo, R1(two), proof, { ...far, id: 'circuit-4', panelId: 'panel-9' }),
    false,
  );
});
