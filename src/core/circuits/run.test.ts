import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { chain, house, outlet, room } from '#core/job/testing.ts';
import { breakerOf, stopAt } from '#core/job/document.ts';
import type { Stop } from '#core/job/schema.ts';
import { buildRun, dropAt, fullLoad } from './run.ts';

// Room 20 ft by 10 ft with its first corner at the panel; wall 1 runs east.
const area = room([240, 120, 240, 120]);
const A = outlet('A', 1, 60);
const B = outlet('B', 2, 60);
const C = outlet('C', 3, 60);

test('lengths follow the framing: distance, rise at both ends, measured where measured', () => {
  const circuit = chain([A, B, C]);
  circuit.stops[2]!.measured = 300;
  const run = buildRun(house({ area, boxes: [A, B, C], circuits: [circuit] }), circuit);
  // Panel (0,0) to (60,0): 60 + 60 panel + 24. Then to (240,60): 180 + 60 + 48.
  assert.deepEqual(
    run.stops.map((s) => s.segment.length),
    [144, 288, 300],
  );
  assert.deepEqual(
    run.stops.map((s) => s.distance),
    [144, 432, 732],
  );
  assert.equal(run.stops[2]!.segment.source, 'measured');
  assert.equal(run.installed, 732);
  assert.ok(Math.abs(run.toBuy - 732 * 1.1) < 1e-9);
});

test('a change of level adds its height', () => {
  const circuit = chain([A]);
  const base = house({ area, boxes: [A], circuits: [circuit] });
  const document = {
    ...base,
    levels: { ...base.levels, 'level-2': { id: 'level-2', name: 'Lower', elevation: -100 } },
    panels: { 'panel-1': { ...base.panels['panel-1']!, levelId: 'level-2' } },
  };
  assert.equal(buildRun(document, circuit).stops[0]!.segment.length, 244);
});

test('drop: one load at the end, and the planning load segment by segment', () => {
  const circuit = chain([A, B]);
  circuit.stops[0]!.measured = 600;
  circuit.stops[1]!.measured = 600;
  const run = buildRun(house({ area, boxes: [A, B], circuits: [circuit] }), circuit);
  // 100 ft of 12 AWG: 0.193 Ω a conductor; 16 A there and back: 6.176 V.
  assert.ok(Math.abs(dropAt(run.end!, 16) - 6.176) < 1e-9);
  // 180 VA each is 1.5 A: 3 A over the first 50 ft, 1.5 A over the second.
  const perFifty = 0.0965;
  assert.ok(Math.abs(run.stops[1]!.plannedDrop - 2 * perFifty * (3 + 1.5)) < 1e-9);
  assert.equal(run.plannedAmps, 3);
  assert.equal(fullLoad(circuit), 16);
});

test('protection along a run equals reachability from its origin, on random trees', () => {
  const boxes = Array.from({ length: 8 }, (_, i) => outlet(`R${i}`, 1, 10 + i * 20));
  fc.assert(
    fc.property(
      fc.array(fc.nat({ max: 6 }), { minLength: 7, maxLength: 7 }),
      fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
      fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
      fc.constantFrom('none' as const, 'gfci' as const, 'afci' as const, 'dual' as const),
      (parents, devices, lines, protection) => {
        const fitted = boxes.map((b, i) => ({
          ...b,
          device: { ...b.device, kind: devices[i] ? ('gfci' as const) : ('duplex' as const) },
        }));
        const stops: Stop[] = fitted.map((b, i) =>
          stopAt(b.id, i === 0 ? null : fitted[parents[i - 1]! % i]!.id, {
            side: lines[i] ? 'line' : 'load',
          }),
        );
        const circuit = {
          ...chain([]),
          breaker: breakerOf(20, protection),
          stops,
        };
        const run = buildRun(house({ area, boxes: fitted, circuits: [circuit] }), circuit);
        const stopOf = new Map(stops.map((s) => [s.boxId, s]));
        const isGfci = (id: string) => fitted.find((b) => b.id === id)!.device.kind === 'gfci';
        for (const stop of run.stops) {
          // Up the run: a device protects its own outlet and what leaves from its load side.
          let expected = protection === 'gfci' || protection === 'dual' || isGfci(stop.box.id);
          for (let at = stopOf.get(stop.box.id)!; at.from !== null; at = stopOf.get(at.from)!)
            if (at.side === 'load' && isGfci(at.from)) expected = true;
          assert.equal(stop.gfci !== null, expected);
          assert.equal(stop.afci !== null, protection === 'afci' || protection === 'dual');
        }
      },
    ),
  );
});

test('resistance never falls and drop never falls along a path', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 2000 }), { minLength: 1, maxLength: 8 }), (lengths) => {
      const boxes = lengths.map((_, i) => outlet(`R${i}`, 1, 10 + i));
      const circuit = chain(boxes);
      circuit.stops.forEach((s, i) => (s.measured = lengths[i]!));
      const run = buildRun(house({ area, boxes, circuits: [circuit] }), circuit);
      run.stops.forEach((s, i) => {
        if (i === 0) return;
        assert.ok(s.pathOhms > run.stops[i - 1]!.pathOhms && s.plannedDrop > run.stops[i - 1]!.plannedDrop);
      });
      assert.equal(run.end, run.stops.at(-1));
    }),
  );
});
