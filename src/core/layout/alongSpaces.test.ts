import { countersCovered } from '#core/plan/coverage.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { View } from '#core/view/view.ts';
import { outlineOf } from '#core/job/outline.ts';
import { fixture, house, opening, outlet, room } from '#core/job/testing.ts';
import type { Area, Fixture, Opening } from '#core/job/schema.ts';
import { randomRoom } from '#core/plan/testing.ts';
import { coverageOf } from '#core/plan/wallSpaces.ts';
import { alongCounters, alongWalls, distanceToStud, EDGE_CLEARANCE } from './alongSpaces.ts';
import { tries } from '../../../tests/support/sample.ts';

const place = (
  area: Area,
  openings: Opening[] = [],
  boxes: ReturnType<typeof outlet>[] = [],
  fixtures: Fixture[] = [],
) => alongWalls(new View(house({ area, openings, boxes, fixtures })), area).placements;

const placed = (area: Area, openings: Opening[], boxes: ReturnType<typeof outlet>[]) =>
  place(area, openings, boxes).map((p, i) => ({
    ...outlet(`N${i}`, 1, 0),
    wallId: p.wallId,
    offset: p.offset,
    height: p.height,
    fromWall: p.fromWall,
  }));

/** Least number of whole-inch positions that reach every inch: tries every set of one, of two, and so on. */
function leastNumber(
  length: number,
  loop: boolean,
  given: number[],
  mountable: (at: number) => boolean,
): number {
  const cells = Array.from({ length }, (_, i) => i + 0.5);
  const reaches = (p: number, cell: number) => {
    const d = Math.abs(p - cell);
    return Math.min(d, loop ? length - d : d) <= 72;
  };
  const open = cells.filter((c) => !given.some((g) => reaches(g, c)));
  const sites = Array.from({ length: length + 1 }, (_, i) => i).filter(mountable);
  const enough = (rest: number[], left: number): boolean => {
    if (rest.length === 0) return true;
    if (left === 0) return false;
    // Some position must reach the first open inch: try each that does.
    return sites.some(
      (s) =>
        reaches(s, rest[0]!) &&
        enough(
          rest.filter((c) => !reaches(s, c)),
          left - 1,
        ),
    );
  };
  for (let n = 0; ; n++) if (enough(open, n)) return n;
}

test('the count equals the brute-force minimum on small rooms, and nothing stays out of reach', () => {
  let total = 0;
  fc.assert(
    fc.property(randomRoom(60, 110), ({ lengths, turns, openings, receptacles }) => {
      const area = room(lengths, turns);
      const outline = outlineOf(area);
      const gaps = openings.map((o) => opening(o.wall, o.offset, o.width));
      const boxes = receptacles.slice(0, 2).map((r, i) => outlet(`R${i}`, r.wall, r.offset));
      const added = placed(area, gaps, boxes);
      const after = coverageOf(area, gaps, [...boxes, ...added])!;
      assert.ok(after.every((c) => c.uncovered.length === 0));
      let least = 0;
      for (const { space, required, counted } of coverageOf(area, gaps, boxes)!) {
        if (!required) continue;
        const corners = outline.walls.map((w) => w.start);
        const mountable = (at: number) => {
          if (!space.loop && (at < EDGE_CLEARANCE || at > space.length - EDGE_CLEARANCE)) return false;
          const onLine = (space.start + at) % outline.perimeter;
          return corners.every((c) => {
            const d = Math.abs(onLine - c);
            return Math.min(d, outline.perimeter - d) >= EDGE_CLEARANCE;
          });
        };
        least += leastNumber(
          space.length,
          space.loop,
          counted.map((c) => c.at),
          mountable,
        );
      }
      total += least;
      assert.equal(added.length, least);
    }),
    { numRuns: 150 },
  );
  assert.ok(total > 150);
});

test('large rooms: everything in reach, and every new outlet is needed', () => {
  fc.assert(
    fc.property(randomRoom(60, 500), ({ lengths, turns, openings }) => {
      const area = room(lengths, turns);
      const gaps = openings.map((o) => opening(o.wall, o.offset, o.width));
      const added = placed(area, gaps, []);
      const open = (boxes: typeof added) => coverageOf(area, gaps, boxes)!.flatMap((c) => c.uncovered).length;
      assert.equal(open(added), 0);
      for (const one of added)
        assert.ok(open(added.filter((b) => b !== one)) > 0, 'one outlet could be left out');
    }),
    { numRuns: 200 },
  );
});

test('fractions of an inch do not cost an extra outlet', () => {
  // A single 12 ft 0 in. stretch that starts at 10 1/2 in. can be covered only from its exact middle.
  const area = room([200, 100, 200, 100]);
  const gaps = [
    opening(1, 0, 10.5, { kind: 'fireplace' }),
    opening(1, 154.5, 45.5, { kind: 'fireplace' }),
    opening(2, 0, 100),
    opening(3, 0, 200),
    opening(4, 0, 100),
  ];
  assert.deepEqual(
    place(area, gaps).map((p) => p.offset),
    [82.5],
  );
});

test('keeps to the side of a stud and out of an open door’s place when the count allows', () => {
  const area = room([150, 130, 150, 130]);
  const door = opening(3, 20, 32, { hinge: 'end' });
  const spots = place(area, [door]);
  for (const p of spots) {
    assert.ok(distanceToStud(p.offset, 16) < 0.6, p.reason);
    assert.ok(!(p.wallId === 'wall-3' && p.offset > 52 && p.offset < 84), p.reason);
  }
});

test('fixed glass gets a floor outlet, a bench one above its counter', () => {
  const glazed = [
    opening(1, 0, 200, { kind: 'fixed-glass' }),
    opening(2, 0, 100),
    opening(3, 0, 200),
    opening(4, 0, 100),
  ];
  for (const p of place(room([200, 100, 200, 100]), glazed)) {
    assert.deepEqual([p.fromWall, p.height], [6, 0]);
    assert.match(p.reason, /floor outlet/);
  }
  const bench = fixture('counter', 1, 100, 200);
  for (const p of place(room([200, 100, 200, 100]), glazed.slice(1), [], [bench])) assert.equal(p.height, 44);
});

test('where nothing can be mounted nothing is placed, and the rest is still covered', () => {
  const area = room([200, 100, 200, 100]);
  const doors = [opening(2, 0, 100), opening(3, 0, 200), opening(4, 0, 100)];
  const plan = (from: number, width: number) =>
    alongWalls(
      new View(house({ area, openings: [...doors, opening(1, from, width, { kind: 'blocked' })] })),
      area,
      true,
    );
  const around = plan(40, 40);
  assert.equal(around.placements.length, 2);
  for (const p of around.placements) assert.ok(p.offset <= 37 || p.offset >= 83, p.reason);
  const never = plan(20, 170);
  assert.equal(never.placements.length, 0);
  assert.match(never.unplaced[0]!, /16' 8" of wall cannot be covered/);
});

test('every placement says what another place would cost', () => {
  const area = room([144, 100, 144, 100]);
  const doors = [opening(2, 0, 100), opening(3, 0, 144), opening(4, 0, 100)];
  const only = alongWalls(new View(house({ area, openings: doors })), area, true).placements;
  assert.deepEqual(
    only.map((p) => [p.offset, p.alternative]),
    [[72, 'anywhere else takes 1 more outlet']],
  );
  const loose = alongWalls(
    new View(house({ area: room([200, 100, 200, 100]) })),
    room([200, 100, 200, 100]),
    true,
  );
  for (const p of loose.placements) assert.match(p.alternative!, /as many outlets|more outlet/);
});

const kitchen = room([168, 120, 168, 120], undefined, { kind: 'kitchen' });
test('a kitchen counter divided by sink and range gets the fewest that reach each part', () => {
  const fixtures = [fixture('counter', 1, 84, 168), fixture('sink', 1, 60, 30), fixture('range', 1, 129, 30)];
  const view = new View(house({ area: kitchen, fixtures }));
  const { placements } = alongCounters(view, kitchen);
  // 0–45, 75–114 and 144–168: one each.
  assert.equal(placements.length, 3);
  const boxes = placements.map((p, i) => outlet(`C${i}`, 1, p.offset, { height: p.height }));
  const after = new View(house({ area: kitchen, fixtures, boxes }));
  assert.ok(countersCovered(after, kitchen)!.every((s) => s.uncovered.length === 0));
});

test('counters: the count equals the brute-force minimum on random counters', () => {
  fc.assert(
    fc.property(
      fc.record({
        counter: fc.integer({ min: 30, max: 160 }),
        sink: fc.integer({ min: 20, max: 140 }),
        given: fc.array(fc.integer({ min: 3, max: 160 }), { maxLength: 2 }),
      }),
      ({ counter, sink, given }) => {
        const fixtures = [fixture('counter', 1, counter / 2, counter), fixture('sink', 1, sink, 30)];
        const boxes = given.map((at, i) => outlet(`G${i}`, 1, at, { height: 44 }));
        const view = new View(house({ area: kitchen, fixtures, boxes }));
        const { placements } = alongCounters(view, kitchen);
        let least = 0;
        for (const s of countersCovered(view, kitchen)!) {
          if (!s.required) continue;
          // Whole and half inches; reach 24 in., corners and ends kept 3 in. clear.
          const sites: number[] = [];
          for (let p = 3; p <= s.space.length - 3; p += 0.5) {
            if (s.space.start + p >= 3) sites.push(p);
          }
          const cells = Array.from({ length: Math.floor(s.space.length * 2) }, (_, i) => i / 2 + 0.25);
          const reaches = (p: number, c: number) => Math.abs(p - c) <= 24;
          const open = cells.filter((c) => !s.counted.some((g) => reaches(g.at, c)));
          const enough = (rest: number[], left: number): boolean =>
            rest.length === 0 ||
            (left > 0 &&
              sites.some(
                (p) =>
                  reaches(p, rest[0]!) &&
                  enough(
                    rest.filter((c) => !reaches(p, c)),
                    left - 1,
                  ),
              ));
          let n = 0;
          while (!enough(open, n)) n++;
          least += n;
        }
        assert.equal(placements.length, least);
      },
    ),
    { numRuns: tries(60, 200) },
  );
});

test('a room that does not close is left alone', () =>
  assert.deepEqual(place(room([144, 120, 100, 120])), []));
