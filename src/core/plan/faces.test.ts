import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Point } from '#core/job/outline.ts';
import { doubledArea, facesOf, type Line } from './faces.ts';

const line = (x1: number, y1: number, x2: number, y2: number): Line => [
  { x: x1, y: y1 },
  { x: x2, y: y2 },
];
const box = (x: number, y: number, w: number, h: number): Line[] => [
  line(x, y, x + w, y),
  line(x + w, y, x + w, y + h),
  line(x + w, y + h, x, y + h),
  line(x, y + h, x, y),
];
const areas = (faces: Point[][]) => faces.map((f) => doubledArea(f) / 2).sort((a, b) => a - b);

const CASES: [string, Line[], number[]][] = [
  ['nothing', [], []],
  ['three sides of a room', box(0, 0, 100, 80).slice(0, 3), []],
  ['a room', box(0, 0, 100, 80), [8000]],
  ['a room and a loose end inside it', [...box(0, 0, 100, 80), line(50, 0, 50, 40)], [8000]],
  ['a room cut in two', [...box(0, 0, 100, 80), line(40, 0, 40, 80)], [3200, 4800]],
  ['a cut that stops an inch short', [...box(0, 0, 100, 80), line(40, 0, 40, 79)], [3200, 4800]],
  ['a cut that stops six inches short', [...box(0, 0, 100, 80), line(40, 0, 40, 74)], [8000]],
  ['a cut that runs past both walls', [...box(0, 0, 100, 80), line(40, -20, 40, 99)], [3200, 4800]],
  [
    'two lines that cross',
    [...box(0, 0, 100, 80), line(40, 0, 40, 80), line(0, 20, 100, 20)],
    [800, 1200, 2400, 3600],
  ],
  ['a corner left open by an inch', [line(0, 0, 99, 0), ...box(0, 0, 100, 80).slice(1)], [8000]],
  ['two rooms apart', [...box(0, 0, 100, 80), ...box(300, 0, 50, 60)], [3000, 8000]],
  ['the same wall drawn twice', [...box(0, 0, 100, 80), ...box(100, 0, 60, 80)], [4800, 8000]],
  ['a shaft smaller than is kept', [...box(0, 0, 100, 80), ...box(200, 0, 10, 10)], [8000]],
];
for (const [what, lines, expected] of CASES) {
  test(`${what} encloses ${expected.join(', ') || 'nothing'}`, () => {
    const found = areas(facesOf(lines, 2, 200));
    assert.equal(found.length, expected.length, found.join(', '));
    // What is joined within the tolerance may move a wall by as much.
    for (const [i, area] of expected.entries())
      assert.ok(Math.abs(found[i]! - area) <= 2 * 180, `${found[i]}`);
  });
}

/** A rectangle cut again and again from side to side, the way a floor is divided into rooms. */
interface Plot {
  x: number;
  y: number;
  w: number;
  h: number;
}
const divided = fc
  .record({
    // Tens of inches: no two walls come nearer to each other than they are joined.
    w: fc.integer({ min: 30, max: 90 }).map((n) => 10 * n),
    h: fc.integer({ min: 30, max: 90 }).map((n) => 10 * n),
    cuts: fc.array(fc.record({ at: fc.double({ min: 0.3, max: 0.7, noNaN: true }), pick: fc.nat() }), {
      maxLength: 9,
    }),
  })
  .map(({ w, h, cuts }) => {
    const plots: Plot[] = [{ x: 0, y: 0, w, h }];
    const walls = box(0, 0, w, h);
    for (const { at, pick } of cuts) {
      const i = pick % plots.length;
      const p = plots[i]!;
      const across = p.w > p.h;
      const size = 10 * Math.round(((across ? p.w : p.h) * at) / 10);
      if (size < 40 || (across ? p.w : p.h) - size < 40) continue;
      const rest = across ? { ...p, x: p.x + size, w: p.w - size } : { ...p, y: p.y + size, h: p.h - size };
      plots.splice(i, 1, across ? { ...p, w: size } : { ...p, h: size }, rest);
      walls.push(across ? line(rest.x, p.y, rest.x, p.y + p.h) : line(p.x, rest.y, p.x + p.w, rest.y));
    }
    return { plots, walls };
  });

test('a floor divided at random gives back its rooms, turned by any angle and drawn in any order', () => {
  fc.assert(
    fc.property(
      divided,
      fc.double({ min: 0, max: 90, noNaN: true }),
      fc.nat(),
      ({ plots, walls }, turn, seed) => {
        const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
        const turned = (p: Point): Point => ({ x: p.x * c - p.y * s, y: p.x * s + p.y * c });
        const lines = walls
          .map(([a, b], i): Line =>
            (seed >> (i % 30)) % 2 ? [turned(a), turned(b)] : [turned(b), turned(a)],
          )
          .sort((a, b) => ((a[0].x * 7919 + seed) % 97) - ((b[0].x * 7919 + seed) % 97));
        const found = areas(facesOf(lines, 1, 100));
        const expected = plots.map((p) => p.w * p.h).sort((a, b) => a - b);
        assert.equal(found.length, expected.length);
        for (const [i, area] of expected.entries())
          assert.ok(Math.abs(found[i]! - area) < 1, `${found[i]} ${area}`);
      },
    ),
    { numRuns: 300 },
  );
});
