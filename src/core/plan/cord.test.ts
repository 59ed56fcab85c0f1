import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Point } from '#core/job/outline.ts';
import { fixture, opening, room } from '#core/job/testing.ts';
import { Barriers, barriersOf, cordStart, shortestCord, type Segment } from './cord.ts';
import { footprint } from './footprint.ts';
import { joinedOpenings } from './joined.ts';

/**
 * The slow obvious way, written apart: an inch grid, steps to every cell up to three away that no barrier
 * crosses, Dijkstra. Its paths bend only at grid points, so it is never shorter than the true path by more than
 * the rounding of both ends, and longer by a few percent at most.
 */
function gridPath(from: Point, target: readonly Point[], walls: Segment[], size: number): number {
  const moves: [number, number][] = [];
  for (let dx = -3; dx <= 3; dx++) {
    for (let dy = -3; dy <= 3; dy++) {
      const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b));
      if (gcd(dx, dy) === 1) moves.push([dx, dy]);
    }
  }
  const side = (o: Point, a: Point, b: Point) =>
    Math.sign((a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x));
  const crosses = (p: Point, q: Point) =>
    walls.some(({ a, b }) => side(a, b, p) * side(a, b, q) <= 0 && side(p, q, a) * side(p, q, b) <= 0);
  // Cells at odd quarter inches, so that none lies on a wall.
  const point = (i: number, j: number): Point => ({ x: i + 0.27, y: j + 0.31 });
  const xs = target.map((p) => p.x);
  const ys = target.map((p) => p.y);
  const box = { l: Math.min(...xs), r: Math.max(...xs), t: Math.min(...ys), b: Math.max(...ys) };
  const inside = (p: Point) =>
    p.x > box.l - 0.8 && p.x < box.r + 0.8 && p.y > box.t - 0.8 && p.y < box.b + 0.8;
  const cost = new Map<number, number>();
  const done = new Set<number>();
  const key = (i: number, j: number) => (i + 8) * 1000 + j + 8;
  // One list for every half inch of cost.
  const lists: [number, number, number][][] = [];
  const add = (c: number, i: number, j: number) => {
    cost.set(key(i, j), c);
    (lists[Math.floor(c * 2)] ??= []).push([c, i, j]);
  };
  for (let i = Math.floor(from.x) - 2; i <= from.x + 2; i++) {
    for (let j = Math.floor(from.y) - 2; j <= from.y + 2; j++) {
      const p = point(i, j);
      if (!crosses(from, p)) add(Math.hypot(p.x - from.x, p.y - from.y), i, j);
    }
  }
  for (let level = 0; level < lists.length; level++) {
    for (const [c, i, j] of lists[level] ?? []) {
      if (done.has(key(i, j))) continue;
      done.add(key(i, j));
      const here = point(i, j);
      if (inside(here)) return c;
      for (const [dx, dy] of moves) {
        const [x, y] = [i + dx, j + dy];
        if (x < -4 || y < -4 || x > size || y > size || done.has(key(x, y))) continue;
        const next = c + Math.hypot(dx, dy);
        if (next < (cost.get(key(x, y)) ?? Infinity) && !crosses(here, point(x, y))) add(next, x, y);
      }
    }
  }
  return Infinity;
}

const plan = fc.record({
  box: fc.record({ wall: fc.integer({ min: 1, max: 4 }), at: fc.integer({ min: 1, max: 27 }) }),
  water: fc.record({
    wall: fc.integer({ min: 1, max: 4 }),
    at: fc.integer({ min: 6, max: 22 }),
    out: fc.integer({ min: 0, max: 10 }),
  }),
  door: fc.integer({ min: 1, max: 18 }),
  cabinet: fc.option(
    fc.record({ wall: fc.integer({ min: 1, max: 4 }), at: fc.integer({ min: 1, max: 15 }) }),
  ),
  through: fc.boolean(),
});

test('a cord’s shortest path agrees with a brute-force grid on 500 random plans', () => {
  const seen = { found: 0, bent: 0, none: 0 };
  fc.assert(
    fc.property(plan, (p) => {
      // Two rooms of 28 by 28 in., side by side, with a wall between and a door in it.
      const west = room([28, 28, 28, 28], undefined, { id: 'area-1' });
      const east = room([28, 28, 28, 28], undefined, {
        id: 'area-2',
        x: 32.5,
        walls: [1, 2, 3, 4].map((i) => ({ id: `wall-e${i}`, length: 28, turn: 90 })),
      });
      const door = opening(2, p.door, 9, { id: 'opening-door' });
      // A hearth that reaches 16 in. into the room.
      const fixed = p.cabinet
        ? [opening(p.cabinet.wall, p.cabinet.at, 12, { id: 'opening-hearth', kind: 'fireplace' as const })]
        : [];
      const target = p.through
        ? fixture('sink', p.water.wall, p.water.at, 8, {
            areaId: 'area-2',
            wallId: `wall-e${p.water.wall}`,
            fromWall: p.water.out,
            depth: 6,
          })
        : fixture('sink', p.water.wall, p.water.at, 8, { fromWall: p.water.out, depth: 6 });
      const rooms = [
        { area: west, openings: [door, ...fixed], fixtures: [] },
        {
          area: east,
          openings: joinedOpenings(east, [{ area: west, openings: [door] }]),
          fixtures: [],
        },
      ];
      const walls = barriersOf(rooms, true);
      const from = cordStart(west, {
        wallId: `wall-${p.box.wall}`,
        offset: p.box.at,
        fromWall: 0,
      })!;
      const corners = footprint(p.through ? east : west, target)!;
      // An outlet inside the hearth, or a sink that stands in it, is not a case.
      const hearth = p.cabinet;
      if (hearth && hearth.wall === p.box.wall && Math.abs(p.box.at - hearth.at - 6) <= 8) return;
      if (hearth && !p.through) return;
      const found = shortestCord(from, corners, new Barriers(walls), 200);
      const grid = gridPath(from, corners, walls, 66);
      if (!found) {
        seen.none++;
        assert.equal(grid, Infinity);
        return;
      }
      seen.found++;
      if (found.points.length > 2) seen.bent++;
      assert.ok(found.distance <= grid + 1.6, `path ${found.distance}, grid ${grid}`);
      assert.ok(grid <= found.distance * 1.03 + 3, `path ${found.distance}, grid ${grid}`);
    }),
    { numRuns: 1200 },
  );
  assert.ok(seen.found >= 500, JSON.stringify(seen));
  assert.ok(seen.bent >= 100, JSON.stringify(seen));
});

const wide = room([200, 100, 200, 100]);
const measure = (openings: Parameters<typeof barriersOf>[0][0]['openings'], doorsOpen: boolean, at = 20) => {
  const next = room([200, 100, 200, 100], undefined, {
    id: 'area-2',
    y: 104.5,
    walls: [1, 2, 3, 4].map((i) => ({ id: `wall-n${i}`, length: [200, 100, 200, 100][i - 1]!, turn: 90 })),
  });
  const basin = fixture('basin', 1, 30, 20, { areaId: 'area-2', wallId: 'wall-n1', depth: 16 });
  const rooms = [
    { area: wide, openings, fixtures: [] },
    { area: next, openings: joinedOpenings(next, [{ area: wide, openings }]), fixtures: [basin] },
  ];
  const from = cordStart(wide, { wallId: 'wall-3', offset: 200 - at, fromWall: 0 })!;
  return shortestCord(from, footprint(next, basin)!, new Barriers(barriersOf(rooms, doorsOpen)), 300);
};

test('through a wall there is no way; through a doorway there is, where doors may be open', () => {
  assert.equal(measure([], true), null);
  // A door 60 to 92 in. from the west corner; wall 3 runs from the east.
  const door = opening(3, 200 - 92, 32, { id: 'opening-d' });
  assert.equal(measure([door], false), null);
  const through = measure([door], true)!;
  // From 20 in. to the jamb at 60 in., 4.5 in. through, and back to the basin's edge at 40 in.
  assert.ok(Math.abs(through.distance - (40 + 4.5 + 20)) < 0.2, `${through.distance}`);
  assert.equal(measure([{ ...door, kind: 'window' }], true), null);
});

test('around a tall fastened cabinet, and straight over what is low or loose', () => {
  const box = { wallId: 'wall-1', offset: 40, fromWall: 0 };
  const sink = fixture('sink', 1, 100, 20, { depth: 18 });
  const path = (values: Parameters<typeof fixture>[4]) => {
    const tall = fixture('fixed-equipment', 1, 70, 20, { depth: 24, ...values });
    const rooms = [{ area: wide, openings: [], fixtures: [sink, tall] }];
    return shortestCord(
      cordStart(wide, box)!,
      footprint(wide, sink)!,
      new Barriers(barriersOf(rooms, true)),
      200,
    )!;
  };
  assert.equal(path({ height: 84 }).distance, 50);
  assert.equal(path({ height: 36, fastened: true }).distance, 50);
  // 40 → (60, 24) → (80, 24) → (90, 18): 31.24 + 20 + 11.66.
  const around = path({ height: 84, fastened: true });
  assert.ok(
    Math.abs(around.distance - (Math.hypot(20, 24) + 20 + Math.hypot(10, 6))) < 0.1,
    `${around.distance}`,
  );
});
