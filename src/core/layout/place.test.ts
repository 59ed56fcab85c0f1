import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { DEFAULT_SETTINGS } from '../job/document.ts';
import { outlineOf } from '../job/outline.ts';
import { opening, outlet, room } from '../job/testing.ts';
import type { Area, Opening } from '../job/schema.ts';
import { randomRoom } from '../plan/testing.ts';
import { coverageOf } from '../plan/wallSpaces.ts';
import { distanceToStud, EDGE_CLEARANCE, placeMissing } from './place.ts';

const place = (area: Area, openings: Opening[] = [], boxes: ReturnType<typeof outlet>[] = []) =>
  placeMissing(area, openings, boxes, '2020', DEFAULT_SETTINGS);

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
      const after = coverageOf(area, gaps, [...boxes, ...added], '2020')!;
      assert.ok(after.every((c) => c.uncovered.length === 0));
      let least = 0;
      for (const { space, required, counted } of coverageOf(area, gaps, boxes, '2020')!) {
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
      const open = (boxes: typeof added) =>
        coverageOf(area, gaps, boxes, '2020')!.flatMap((c) => c.uncovered).length;
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
  const bench = [{ ...glazed[0]!, kind: 'cabinet-with-counter' as const }, ...glazed.slice(1)];
  for (const p of place(room([200, 100, 200, 100]), bench)) assert.equal(p.height, 44);
});

test('a room that does not close is left alone', () =>
  assert.deepEqual(place(room([144, 120, 100, 120])), []));
