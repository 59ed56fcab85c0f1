/**
 * The load of a panel's two bus legs, and which breakers to move to even it out: for every number of moves the best
 * balance they can give, found exactly by dynamic programming over breakers (number partitioning; Karp 1972) with
 * the states moves, net shift of breakers to leg A, and quantised amperes on leg A.
 */
import type { Run } from '#core/circuits/run.ts';
import type { Command } from '#core/job/commands.ts';
import type { Circuit, JobDocument, Panel } from '#core/job/schema.ts';
import { putCircuits } from './moves.ts';
import { idOf, legOf, legsOf, spacesIn, type Leg } from './spaces.ts';

export type LegAmps = Record<Leg, number>;

/** Planning load of a circuit on each leg, amperes. */
export function legAmps({ circuit, hots }: Run): LegAmps {
  const amps: LegAmps = { A: 0, B: 0 };
  for (const [pole, leg] of legsOf(circuit).entries()) amps[leg] += hots[pole]!;
  return amps;
}

/** Planning load of circuits on each leg together, amperes. */
export function legsTogether(runs: readonly Run[]): LegAmps {
  const legs: LegAmps = { A: 0, B: 0 };
  for (const run of runs) {
    const amps = legAmps(run);
    legs.A += amps.A;
    legs.B += amps.B;
  }
  return legs;
}

/** A breaker with one pole that may change to the other leg. */
export interface Movable {
  amps: number;
  leg: Leg;
}

/** The best that a number of moves can do. */
export interface Choice {
  /** Positions in the list of breakers. */
  moved: number[];
  /** Difference of the legs, amperes. */
  apart: number;
}

/** Steps that loads are counted in, amperes. */
const STEP = 0.25;
/** Most breakers moved at once: past this nobody would. */
const MOST_MOVES = 8;

/** The other leg. */
const other = (leg: Leg): Leg => (leg === 'A' ? 'B' : 'A');

/**
 * The best choice for no moves, one, two and so on, as long as each is better than the one before.
 * @param fixed amperes on each leg that stay where they are
 * @param free spaces that stand free on each leg
 */
export function balanceChoices(
  movable: readonly Movable[],
  fixed: Readonly<LegAmps>,
  free: Readonly<Record<Leg, number>>,
): Choice[] {
  const units = movable.map((m) => Math.round(m.amps / STEP));
  const total = units.reduce((sum, u) => sum + u, 0);
  const most = Math.min(MOST_MOVES, movable.length);
  const width = total + 1;
  const shifts = 2 * most + 1;
  /** Cell of so many moves, so many more breakers on A than before, and so many units on A. */
  const cell = (moves: number, shift: number, onA: number) => (moves * shifts + shift + most) * width + onA;
  // One layer after each breaker; a cell holds 1 where it stayed on the way there and 2 where it moved.
  const STAYED = 1;
  const MOVED = 2;
  let layer = new Uint8Array((most + 1) * shifts * width);
  layer[cell(0, 0, 0)] = STAYED;
  const layers: Uint8Array[] = [];
  for (const [i, { leg }] of movable.entries()) {
    const next = new Uint8Array(layer.length);
    const step = leg === 'A' ? -1 : 1;
    const reach = Math.min(most, i);
    for (let moves = 0; moves <= reach; moves++) {
      for (let shift = -moves; shift <= moves; shift++) {
        for (let onA = 0; onA <= total; onA++) {
          if (layer[cell(moves, shift, onA)] === 0) continue;
          next[cell(moves, shift, leg === 'A' ? onA + units[i]! : onA)]! |= STAYED;
          if (moves < most)
            next[cell(moves + 1, shift + step, leg === 'A' ? onA : onA + units[i]!)]! |= MOVED;
        }
      }
    }
    layers.push(next);
    layer = next;
  }
  const apartAt = (onA: number) => Math.abs(fixed.A + onA * STEP - (fixed.B + (total - onA) * STEP));
  const choices: Choice[] = [];
  for (let moves = 0; moves <= most; moves++) {
    let best: { shift: number; onA: number } | null = null;
    for (let shift = -Math.min(moves, free.B); shift <= Math.min(moves, free.A); shift++) {
      for (let onA = 0; onA <= total; onA++) {
        if (layer[cell(moves, shift, onA)] === 0) continue;
        if (!best || apartAt(onA) < apartAt(best.onA) - 1e-9) best = { shift, onA };
      }
    }
    if (!best || (choices.length > 0 && apartAt(best.onA) >= choices.at(-1)!.apart - STEP / 2)) continue;
    // Back through the layers to which breakers moved.
    const moved: number[] = [];
    let { shift, onA } = best;
    let left = moves;
    for (let i = movable.length - 1; i >= 0; i--) {
      const { leg } = movable[i]!;
      const went = (layers[i]![cell(left, shift, onA)]! & STAYED) === 0;
      if (went !== (leg === 'A')) onA -= units[i]!;
      if (!went) continue;
      moved.push(i);
      left -= 1;
      shift -= leg === 'A' ? -1 : 1;
    }
    choices.push({ moved: moved.reverse(), apart: apartAt(best.onA) });
  }
  return choices;
}

export interface Balance {
  legs: LegAmps;
  /** For each number of moves that helps: the difference of the legs that is left, and the step that makes it. */
  choices: { apart: number; moves: { circuit: Circuit; to: number }[]; command: Command | null }[];
}

/**
 * The legs of a panel and how to even them out. Breakers with two poles load both legs and tandems share a space:
 * these stay.
 */
export function balanceOf(document: JobDocument, panel: Panel, runs: readonly Run[]): Balance {
  const spaces = spacesIn(document, panel);
  const legs = legsTogether(runs);
  const stands = ({ circuit: { id, space, half, breaker } }: Run) =>
    breaker.poles === 1 && half === 'whole' && spaces[space - 1]?.occupants.every((o) => idOf(o) === id);
  const movable = runs.filter(stands).map((run) => {
    const leg = legOf(run.circuit.space);
    return { circuit: run.circuit, leg, amps: run.hots[0] };
  });
  const fixed = { ...legs };
  for (const { leg, amps } of movable) fixed[leg] -= amps;
  const freeOn = (leg: Leg) => spaces.filter((s) => s.leg === leg && s.occupants.length === 0);
  const free = { A: freeOn('A').length, B: freeOn('B').length };
  const choices = balanceChoices(movable, fixed, free).map(({ moved }) => {
    const gone = moved.map((i) => movable[i]!);
    const moves = (['A', 'B'] as const).flatMap((leg) => {
      // Spaces that movers leave are taken first, so that the rest of the panel stays as it is.
      const open = [
        ...gone.filter((m) => m.leg === leg).map((m) => m.circuit.space),
        ...freeOn(leg).map((s) => s.space),
      ];
      return gone.filter((m) => m.leg === other(leg)).map(({ circuit }, i) => ({ circuit, to: open[i]! }));
    });
    const after = { ...legs };
    for (const { leg, amps } of gone) {
      after[leg] -= amps;
      after[other(leg)] += amps;
    }
    const command =
      moves.length === 0
        ? null
        : putCircuits(
            `Balance ${panel.name}`,
            moves.map(({ circuit, to }) => ({ ...circuit, space: to })),
          );
    return { apart: Math.abs(after.A - after.B), moves, command };
  });
  return { legs, choices };
}
