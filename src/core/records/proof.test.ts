import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studioJob } from '../../../demo/studio.ts';
import { run } from '../job/commands.ts';
import { breakerOf } from '../job/document.ts';
import type { Proof } from '../job/schema.ts';
import { circuitState, deadPairs, proofGaps, readingsOf, validProof } from './proof.ts';

const dead = { hotNeutral: 0, hotGround: 0.3, neutralGround: 0, hotHot: null };
const COMPLETE = {
  by: 'M. Alder',
  lockedOut: true,
  liveBefore: 120,
  knownLiveBefore: 120,
  knownLiveAfter: 120,
  face: dead,
  screws: dead,
};

test('a complete sequence has no gaps', () => assert.deepEqual(proofGaps(COMPLETE), []));

const GAPS: [string, Partial<typeof COMPLETE>, RegExp][] = [
  ['no name', { by: ' ' }, /expected a name/],
  ['not locked out', { lockedOut: false }, /locked or taped/],
  ['no live reading before', { liveBefore: null as never }, /before the breaker was opened/],
  ['tester not proved before', { knownLiveBefore: 3 }, /known live source, before/],
  ['tester not proved after', { knownLiveAfter: null as never }, /again, after/],
  ['face still live', { face: { ...dead, hotNeutral: 118 } }, /hot–neutral at the face: 118 V is not dead/],
  ['a live wire behind a dead face', { screws: { ...dead, hotGround: 40 } }, /at the screws.*ghost/],
  [
    'a pair not read',
    { screws: { ...dead, neutralGround: null as never } },
    /neutral–ground at the screws.*expected a reading/,
  ],
];
for (const [what, change, message] of GAPS) {
  test(`names the gap: ${what}`, () => {
    const gaps = proofGaps({ ...COMPLETE, ...change });
    assert.equal(gaps.length, 1);
    assert.match(gaps[0]!, message);
  });
}

test('a circuit of two hots is dead when they are, to each other too', () => {
  const both = { breaker: breakerOf(30, 'none', 2), neutral: false };
  const pairs = deadPairs(both);
  assert.deepEqual(pairs, ['hotGround', 'hotHot']);
  const read = { ...dead, hotNeutral: null as never, neutralGround: null as never };
  const draft = { ...COMPLETE, face: read, screws: read };
  assert.deepEqual(proofGaps(draft, pairs).length, 2);
  const all = { ...read, hotHot: 0 };
  assert.deepEqual(proofGaps({ ...draft, face: all, screws: all }, pairs), []);
  assert.equal(deadPairs({ ...both, neutral: true }).length, 4);
});

test('power coming back voids every proof on the circuit; a new one holds for its own box', () => {
  let document = studioJob();
  const circuit = document.circuits['circuit-studio']!;
  assert.equal(circuitState(document, circuit), 'energized');
  assert.equal(validProof(document, circuit.id, 'box-s1'), null);
  const again: Proof = { ...document.proofs['proof-s1']!, id: 'proof-2', at: '2026-05-07T08:00:00Z' };
  document = run(document, { type: 'put', table: 'proofs', rows: [again] }).document;
  assert.equal(validProof(document, circuit.id, 'box-s1')?.id, 'proof-2');
  assert.equal(validProof(document, circuit.id, 'box-s2'), null);
  assert.equal(circuitState(document, circuit), 'dead');
  assert.equal(circuitState(document, document.circuits['circuit-bedroom']!), 'unproved');
});

test('a corrected reading stays and is struck through', () => {
  assert.deepEqual(
    readingsOf(studioJob(), 'box-b3').map((r) => [r.reading.id, r.struck]),
    [
      ['reading-b3a', true],
      ['reading-b3b', false],
    ],
  );
});
