/**
 * Wrong landings at random, in every kind of box, against circuit laws alone: conductors without resistance, so that what
 * touches is one potential, and a contact shows the difference of two.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { DEVICES } from '#core/boxes/devices.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { KINDS, runOfKind, SCHOOLS } from '#core/boxes/testing.ts';
import { endsOf, moved, placesOf } from '#core/boxes/wiring.ts';
import type { Run } from '#core/circuits/run.ts';
import { LOW_OHMS, readVolts } from '#core/instruments/meter.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import { wiringOf } from './wiring.ts';

/** Volts of what is fed: the hots against the neutral, which is earth. */
const SOURCES = { A: 120, B: -120, N: 0 } as const;

/** Potentials by joining everything that touches; null where a hot meets another source: a short. */
class Potentials {
  private readonly parent = new Map<string, string>();
  private find(x: string): string {
    const up = this.parent.get(x) ?? x;
    if (up === x) return x;
    const top = this.find(up);
    this.parent.set(x, top);
    return top;
  }
  join(a: string, b: string): void {
    this.parent.set(this.find(a), this.find(b));
  }
  get shorted(): boolean {
    return new Set(['A', 'B', 'N'].map((s) => this.find(s))).size < 3;
  }
  /** Volts of a point; null where it floats. */
  at(x: string): number | null {
    for (const s of ['A', 'B', 'N'] as const) if (this.find(s) === this.find(x)) return SOURCES[s];
    return null;
  }
  same = (a: string, b: string): boolean => this.find(a) === this.find(b);
}

/** The whole circuit with ideal conductors, every switch where its load is on but those that are thrown. */
function ideal(run: Run, boxes: readonly BoxWiring[], thrown: ReadonlySet<number>): Potentials {
  const p = new Potentials();
  run.stops.forEach((stop, i) => {
    const wiring = boxes[i]!;
    const at = (name: string) => `${i}/${name}`;
    for (const { end, at: place } of wiring.places) if (place !== null) p.join(at(end), at(place));
    for (const { id } of wiring.tails) p.join(at(`${id}.a`), at(`${id}.b`));
    for (const yoke of wiring.yokes)
      for (const { from, to, by } of DEVICES[yoke.kind].bridges) {
        const closed =
          by === 'hot tab'
            ? yoke.hotTab
            : by === 'neutral tab'
              ? yoke.neutralTab
              : typeof by === 'string'
                ? !thrown.has(i)
                : by.includes(thrown.has(i) ? 1 : 0);
        if (closed) p.join(at(`${yoke.id}.${from}`), at(`${yoke.id}.${to}`));
      }
    for (const cable of wiring.cables) {
      if (cable.toward === 'feed') {
        for (const c of cable.conductors) {
          const far = `${i}/${cable.id}.${c.id}`;
          if (c.color === 'armor') p.join(far, 'N');
          else if (stop.feeder >= 0) p.join(far, `${stop.feeder}/${stop.box.id}.${c.id}`);
          else if (c.function === 'hot') p.join(far, 'A');
          else if (c.function === 'hot-b') p.join(far, 'B');
          else if (c.function === 'neutral' || c.function === 'ground') p.join(far, 'N');
        }
      } else if (cable.circuitId !== null && cable.id.endsWith('-in'))
        for (const c of cable.conductors)
          p.join(`${i}/${cable.id}.${c.id}`, c.function === 'hot' ? 'A' : 'N');
    }
  });
  return p;
}

test('volts at every contact follow from what touches what, wherever an end is landed', () => {
  let shorted = 0;
  let compared = 0;
  fc.assert(
    fc.property(
      fc.nat(KINDS.length - 1),
      fc.nat(SCHOOLS.length - 1),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat()), { minLength: 1, maxLength: 3 }),
      fc.nat(7),
      (kind, school, moves, throws) => {
        const run = runOfKind(KINDS[kind]!, SCHOOLS[school]!);
        const boxes = [...plannedBoxes(run)];
        for (const [which, what, where] of moves) {
          const at = which % boxes.length;
          const ends = endsOf(boxes[at]!);
          if (ends.length === 0) continue;
          const places = [null, ...placesOf(boxes[at]!).map((p) => p.id)];
          boxes[at] = moved(boxes[at]!, ends[what % ends.length]!.id, places[where % places.length]!);
        }
        const acting = run.stops.flatMap(({ box }, i) =>
          ['switch', 'gfci', 'outlet-afci'].includes(box.device.kind) ? [i] : [],
        );
        const thrown = new Set(acting.filter((_, k) => (throws >> k) & 1));
        const p = ideal(run, boxes, thrown);
        if (p.shorted) {
          shorted++;
          return;
        }
        const wiring = wiringOf(run, { amps: new Map(), open: thrown }, boxes);
        run.stops.forEach((_, i) => {
          const [yoke] = boxes[i]!.yokes;
          if (!yoke) return;
          DEVICES[yoke.kind].faces.forEach((face, f) => {
            const nodes = wiring.terminals[i]!.faces[f]!;
            for (const [a, b] of [
              ['hot', 'neutral'],
              ['hot', 'ground'],
              ['neutral', 'ground'],
              ['hot', 'hotB'],
            ] as const) {
              const [one, other] = [face[a], face[b]];
              if (one === null || other === null) continue;
              const [x, y] = [`${i}/${yoke.id}.${one}`, `${i}/${yoke.id}.${other}`];
              const [u, v] = [p.at(x), p.at(y)];
              // Floating ends take on what a loading meter brings them.
              const expected = p.same(x, y) || u === null || v === null ? 0 : Math.abs(u - v);
              const read = readVolts(wiring, nodes[a]!, nodes[b]!, LOW_OHMS);
              compared++;
              assert.ok(
                Math.abs(read - expected) < 3,
                `${KINDS[kind]!.name}, ${run.stops[i]!.box.name} ${face.name} ${a}–${b}: ${read} V, expected ${expected}`,
              );
            }
          });
        });
      },
    ),
    {
      numRuns: 250,
      // A tripped device whose neutral is fed on its LOAD side, with its ground on the hot.
      examples: [
        [
          26,
          0,
          [
            [0, 627839105, 240383197],
            [0, 1571663398, 199449194],
          ],
          3,
        ],
      ],
    },
  );
  assert.ok(shorted > 20 && compared > 800, `${shorted} shorts, ${compared} compared`);
});
