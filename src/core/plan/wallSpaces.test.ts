import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { closedRoom, randomRoom } from './testing.ts';
import { coverageOf, onWalls, uncovered, wallSpaces, type Span } from './wallSpaces.ts';
import { crossingWalls, isClosed, outlineOf } from '#core/job/outline.ts';
import { opening, outlet, receptacle, room } from '#core/job/testing.ts';

/**
 * Brute force, written without the functions under test: paints every inch of the floor line, walks from each
 * receptacle both ways until 72 in. or a break, and lists the centers of unreached inches of spaces of 24 in.
 */
function bruteForce(lengths: number[], breaks: [number, number][], receptacles: number[]): boolean[] {
  const perimeter = lengths.reduce((a, b) => a + b);
  const wall = Array.from({ length: perimeter }, (_, i) => !breaks.some(([from, to]) => i >= from && i < to));
  const reached = new Array<boolean>(perimeter).fill(false);
  for (const at of receptacles) {
    for (const direction of [1, -1]) {
      for (let step = 0; step < 72; step++) {
        const cell = direction === 1 ? at + step : at - 1 - step;
        const i = ((cell % perimeter) + perimeter) % perimeter;
        if (!wall[i]) break;
        reached[i] = true;
      }
    }
  }
  // Stretches shorter than 2 ft need nothing.
  const needed = wall.slice();
  if (wall.some((w) => !w)) {
    for (let i = 0; i < perimeter; i++) {
      if (!wall[i] || wall[(i - 1 + perimeter) % perimeter]) continue;
      let run = 0;
      while (wall[(i + run) % perimeter]) run++;
      if (run < 24) for (let k = 0; k < run; k++) needed[(i + k) % perimeter] = false;
    }
  }
  return needed.map((n, i) => n && !reached[i]);
}

test('wall spacing agrees with a 1 in. brute-force checker on 2,000 random rooms', () => {
  let withGaps = 0;
  fc.assert(
    fc.property(randomRoom(), ({ lengths, turns, openings, receptacles }) => {
      const area = room(lengths, turns);
      const outline = outlineOf(area);
      const starts = outline.walls.map((w) => w.start);
      const expected = bruteForce(
        lengths,
        openings.map((o) => [starts[o.wall - 1]! + o.offset, starts[o.wall - 1]! + o.offset + o.width]),
        receptacles.map((r) => starts[r.wall - 1]! + r.offset),
      );
      const coverage = coverageOf(
        area,
        openings.map((o) => opening(o.wall, o.offset, o.width)),
        receptacles.map((r, i) => outlet(`R${i}`, r.wall, r.offset)),
      )!;
      const found = new Array<boolean>(expected.length).fill(false);
      for (const c of coverage) {
        for (const span of c.uncovered) {
          for (const piece of onWalls(outline, c.space, span)) {
            const start = starts[outline.walls.findIndex((w) => w.id === piece.wallId)]!;
            for (let i = Math.round(start + piece.from); i < Math.round(start + piece.to); i++)
              found[i] = true;
          }
        }
      }
      if (expected.includes(true)) withGaps++;
      assert.deepEqual(found, expected);
    }),
    { numRuns: 2000 },
  );
  assert.ok(withGaps > 400, `only ${withGaps} rooms had gaps`);
});

const UNCOVERED: [string, number, boolean, number[], Span[]][] = [
  ['nothing there', 100, false, [], [{ from: 0, to: 100 }]],
  ['just enough', 144, false, [72], []],
  ['one inch too long', 145, false, [72], [{ from: 144, to: 145 }]],
  ['two, 12 ft apart', 288, false, [72, 216], []],
  ['two, 12 ft 1 in. apart', 289, false, [72, 217], [{ from: 144, to: 145 }]],
  ['a circle reached around its start', 144, true, [5], []],
  ['a circle with the far side open', 200, true, [0], [{ from: 72, to: 128 }]],
];
for (const [what, length, loop, positions, open] of UNCOVERED) {
  test(`uncovered: ${what}`, () => assert.deepEqual(uncovered({ start: 0, length, loop }, positions), open));
}

test('what is taken from the wall interrupts it; fixed glass, windows and railings never do', () => {
  const outline = outlineOf(room([200, 100, 200, 100]));
  const door = opening(3, 10, 30);
  assert.deepEqual(
    wallSpaces(outline, [door], [{ from: 50, to: 110 }]).map((s) => s.length),
    [90 + 100 + 10, 160 + 100 + 50],
  );
  // Touching and overlapping breaks are one.
  assert.deepEqual(
    wallSpaces(
      outline,
      [door],
      [
        { from: 310, to: 330 },
        { from: 340, to: 360 },
      ],
    ).map((s) => s.length),
    [550],
  );
  for (const kind of ['fixed-glass', 'window', 'railing', 'bar-counter', 'blocked'] as const)
    assert.deepEqual(
      wallSpaces(outline, [opening(1, 50, 60, { kind }), door]).map((s) => s.length),
      [570],
    );
});

const COUNTED: [string, Parameters<typeof outlet>[3], number][] = [
  ['at 5 ft 6 in.', { height: 66 }, 1],
  ['higher than 5 ft 6 in.', { height: 66.5 }, 0],
  ['a floor outlet 18 in. out', { fromWall: 18, height: 0 }, 1],
  ['a floor outlet 19 in. out', { fromWall: 19, height: 0 }, 0],
  ['one to be removed', { status: 'remove' }, 0],
  ['a 30 A receptacle', { device: receptacle({ kind: 'single', rating: 30 }) }, 0],
  ['a 20 A, 250 V receptacle', { device: receptacle({ volts: '250' }) }, 0],
  ['a switch', { device: receptacle({ kind: 'switch' }) }, 0],
  ['one inside a cabinet', { mount: 'in-cabinet' }, 0],
  ['one that is part of a luminaire', { mount: 'in-luminaire' }, 0],
  ['one in a counter', { mount: 'counter-assembly' }, 0],
  ['one switched in place of a light', { device: receptacle({ switched: 'whole' }) }, 0],
  ['one with a half switched', { device: receptacle({ switched: 'half' }) }, 1],
];
for (const [what, values, counted] of COUNTED) {
  test(`${what} ${counted ? 'counts' : 'does not count'}`, () => {
    const [only] = coverageOf(room([100, 100, 100, 100]), [], [outlet('A', 1, 50, values)])!;
    assert.equal(only!.counted.length, counted);
  });
}

test('outlines: L-shape closes, either way around; angles work; crossings and gaps are found', () => {
  const l = room([294, 216, 186, 72, 108, 144], [90, 90, 90, -90, 90, 90]);
  assert.equal(outlineOf(l).closing.distance, 0);
  assert.equal(outlineOf(l).floor, 294 * 144 + 186 * 72);
  const left = room([100, 80, 100, 80], [-90, -90, -90, -90]);
  assert.equal(outlineOf(left).side, -1);
  assert.ok(isClosed(outlineOf(left)));
  const triangle = room([100, 100, 100], [120, 120, 120]);
  assert.ok(outlineOf(triangle).closing.distance < 1e-9);
  const open = outlineOf(room([144, 120, 140, 120]));
  assert.deepEqual(
    [open.closing.east, open.closing.south],
    [-4, 0].map((v) => v + 0),
  );
  // Half-walked: the last wall runs opposite to the first and touches nothing.
  assert.equal(crossingWalls(outlineOf(room([240, 168, 96, 54, 144], [90, 90, 90, -90, 90]))), null);
  const eight = room([100, 100, 50, 200, 50, 100], [90, 90, 90, 90, 90, 90]);
  assert.notEqual(crossingWalls(outlineOf(eight)), null);
  assert.deepEqual(crossingWalls(outlineOf(room([100, 50, 60], [180, 90, 90]))), [0, 1]);
});

test('random closed rooms close and do not cross', () => {
  fc.assert(
    fc.property(closedRoom(), ({ lengths, turns }) => {
      const outline = outlineOf(room(lengths, turns));
      assert.ok(outline.closing.distance < 1e-6);
      assert.equal(crossingWalls(outline), null);
    }),
  );
});
