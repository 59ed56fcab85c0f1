import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { buildRun } from '#core/circuits/run.ts';
import { breakerOf, rows, stopAt } from '#core/job/document.ts';
import type { Circuit } from '#core/job/schema.ts';
import { chain, house, outlet, PANEL, run as execute } from '#core/job/testing.ts';
import { balanceChoices, balanceOf, legAmps, type Movable } from './balance.ts';
import { moveBreaker } from './moves.ts';
import { freeSpace, isClash, legOf, spacesIn, spacesOf } from './spaces.ts';

/** The best balance with so many moves, by trying every set of breakers. */
function byTrying(
  movable: readonly Movable[],
  fixed: { A: number; B: number },
  free: { A: number; B: number },
  moves: number,
): number {
  let best = Infinity;
  for (let set = 0; set < 2 ** movable.length; set++) {
    const goes = movable.map((_, i) => ((set >> i) & 1) === 1);
    if (goes.filter(Boolean).length !== moves) continue;
    const toA = movable.filter((m, i) => goes[i] && m.leg === 'B').length;
    const toB = moves - toA;
    if (toA - toB > free.A || toB - toA > free.B) continue;
    let { A, B } = fixed;
    for (const [i, m] of movable.entries()) {
      if ((m.leg === 'A') !== goes[i]) A += m.amps;
      else B += m.amps;
    }
    best = Math.min(best, Math.abs(A - B));
  }
  return best;
}

const breakers = fc.array(
  fc.record({
    amps: fc.integer({ min: 0, max: 64 }).map((q) => q / 4),
    leg: fc.constantFrom('A' as const, 'B' as const),
  }),
  { maxLength: 9 },
);
const quarters = fc.integer({ min: 0, max: 80 }).map((q) => q / 4);
const few = fc.integer({ min: 0, max: 3 });

test('each number of moves gives the balance that trying every set gives', () => {
  fc.assert(
    fc.property(breakers, quarters, quarters, few, few, (movable, a, b, freeA, freeB) => {
      const fixed = { A: a, B: b };
      const free = { A: freeA, B: freeB };
      const choices = balanceChoices(movable, fixed, free);
      let best = byTrying(movable, fixed, free, 0);
      const expected = [best];
      for (let moves = 1; moves <= Math.min(8, movable.length); moves++) {
        const tried = byTrying(movable, fixed, free, moves);
        if (tried < best - 0.125) expected.push((best = tried));
      }
      assert.deepEqual(
        choices.map((c) => c.apart),
        expected,
      );
      for (const { moved, apart } of choices) {
        const after = { ...fixed };
        for (const [i, m] of movable.entries()) {
          const leg = moved.includes(i) ? (m.leg === 'A' ? 'B' : 'A') : m.leg;
          after[leg] += m.amps;
        }
        assert.equal(Math.abs(after.A - after.B), apart);
      }
    }),
    { numRuns: 300 },
  );
});

test('the legs of spaces run down both sides in step', () => {
  assert.deepEqual([1, 2, 3, 4, 5, 6, 41, 42].map(legOf), ['A', 'A', 'B', 'B', 'A', 'A', 'A', 'A']);
});

/** Outlets of so many receptacles a circuit, 1.5 A each. */
function panelOf(counts: readonly number[], place: (i: number) => Partial<Circuit>) {
  const boxes = counts.flatMap((n, c) =>
    Array.from({ length: n }, (_, i) => outlet(`R${c}-${i}`, 1, 4 + ((c * 7 + i) % 130))),
  );
  const circuits = counts.map((_, c) =>
    chain(
      boxes.filter((b) => b.name.startsWith(`R${c}-`)),
      { id: `circuit-${c}`, name: `Room ${c} receptacles`, ...place(c) },
    ),
  );
  return house({ boxes, circuits, panels: [{ ...PANEL, spaces: 20 }] });
}

test('balancing a panel is a step that leaves every breaker a space of its own', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 2, maxLength: 12 }), (counts) => {
      const document = panelOf(counts, (c) => ({ space: c + 1 }));
      const runs = (d: typeof document) => rows(d.circuits).map((c) => buildRun(d, c));
      const before = balanceOf(document, PANEL, runs(document));
      for (const { command, apart, moves } of before.choices) {
        if (command === null) continue;
        const after = execute(document, command).document;
        const legs = balanceOf(after, PANEL, runs(after)).legs;
        assert.equal(Math.abs(legs.A - legs.B), apart);
        assert.ok(spacesIn(after, PANEL).every((s) => !isClash(s)));
        assert.ok(moves.every((m) => legOf(m.to) !== legOf(m.circuit.space)));
      }
      assert.ok(before.choices.every((c, i) => i === 0 || c.apart < before.choices[i - 1]!.apart));
    }),
    { numRuns: 40 },
  );
});

test('two poles load both legs, by the hots that their outlets take', () => {
  const boxes = [outlet('A', 1, 20), outlet('B', 1, 40), outlet('C', 1, 60)];
  const circuit: Circuit = {
    ...chain([]),
    space: 3,
    breaker: breakerOf(20, 'none', 2),
    stops: [
      stopAt('box-a', null),
      stopAt('box-b', 'box-a', { hot: 'red' }),
      stopAt('box-c', 'box-b', { hot: 'red' }),
    ],
  };
  const run = buildRun(house({ boxes, circuits: [circuit] }), circuit);
  // 180 VA at 120 V: 1.5 A; space 3 is leg B, space 5 leg A.
  assert.deepEqual(legAmps(run), { B: 1.5, A: 3 });
  assert.deepEqual(spacesOf(circuit), [3, 5]);
  assert.equal(run.plannedAmps, 3);
});

test('free spaces: one pole, two poles, a full panel', () => {
  const document = panelOf([1, 1, 1], (c) => ({ space: [1, 3, 4][c]! }));
  const spaces = spacesIn(document, PANEL);
  assert.equal(freeSpace(spaces, 1), 2);
  assert.equal(freeSpace(spaces, 2), 5);
  const full = panelOf(
    Array.from({ length: 20 }, () => 1),
    (c) => ({ space: c + 1 }),
  );
  assert.equal(freeSpace(spacesIn(full, PANEL), 1), null);
});

test('a breaker moves into free spaces, or changes places with one of its kind', () => {
  const document = panelOf([1, 1, 1], (c) => ({ space: c + 1 }));
  const [a, b] = rows(document.circuits) as [Circuit, Circuit];
  const panel = { ...PANEL, spaces: 20 };
  const at = (moved: ReturnType<typeof moveBreaker>) => {
    assert.ok(moved.ok, moved.ok ? '' : moved.message);
    const after = execute(document, moved.value).document;
    return [after.circuits[a.id]!.space, after.circuits[b.id]!.space];
  };
  assert.deepEqual(at(moveBreaker(document, panel, a, 10)), [10, 2]);
  assert.deepEqual(at(moveBreaker(document, panel, a, 2)), [2, 1]);
  const said = (circuit: Circuit, space: number) => {
    const moved = moveBreaker(document, panel, circuit, space);
    return moved.ok ? '' : moved.message;
  };
  const two = { ...a, breaker: breakerOf(30, 'none', 2) };
  assert.match(said(two, 19), /no space 21/);
  assert.match(said(two, 2), /stands there/);
  assert.match(said(a, 0), /no space 0/);
});
