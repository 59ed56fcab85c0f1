/** Random sequences against the gates, beside a reference that knows what is truly live; all of them by `npm run adversary`. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tries } from '../../../tests/support/sample.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { newTally, play, World } from './adversary.ts';

const tally = newTally();

test('no gate opens, and no power is accepted, where a hand would touch what is live', () => {
  for (let seed = 1; seed <= tries(110, 3000); seed++) play(randomFrom(seed), 50, tally);
  assert.ok(tally.proofs > 60, `${tally.proofs} proofs`);
  for (const gate of ['hands', 'neutral', 'power: use', 'flip', 'proof'])
    assert.ok((tally.shut[gate] ?? 0) > 5, `${gate} was shut ${tally.shut[gate]} times`);
  for (const gate of ['hands', 'power: use', 'flip', 'proof'])
    assert.ok((tally.opened[gate] ?? 0) > 20, `${gate} was open ${tally.opened[gate]} times`);
});

test('hands are let in by a proof, made here or brought in, and by nothing else that anybody does', () => {
  // A clock that is set, or a night, may bring a proof of the right day before it; it made it none.
  const brings = new Set([
    'finish',
    'record',
    'bring in',
    'bring in, both',
    'clock set',
    'a night',
    'an hour',
  ]);
  for (const [kind, gates] of Object.entries(tally.moved))
    if (!brings.has(kind)) assert.equal(gates.hands?.opened ?? 0, 0, `“${kind}” opened a box`);
  assert.ok(new World(randomFrom(1), newTally()).kinds.length >= 40);
});
