import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parseString } from 'dxf';
import fc from 'fast-check';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { rows } from '#core/job/document.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { InvalidError } from '#core/job/validate.ts';
import { facesOf, type Line } from '#core/plan/faces.ts';
import { levelToDxf, readDxf, roomsFromDxf, ROOM_LAYER } from './dxf.ts';

const job = tamarackJob();

/** A small DXF file of lines and polylines, written by hand. */
const dxf = (...entities: string[]) => `0\nSECTION\n2\nENTITIES\n${entities.join('')}0\nENDSEC\n0\nEOF\n`;
const line = (layer: string, x1: number, y1: number, x2: number, y2: number) =>
  `0\nLINE\n8\n${layer}\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`;
const polyline = (layer: string, closed: boolean, points: [number, number, number?][]) =>
  `0\nLWPOLYLINE\n8\n${layer}\n90\n${points.length}\n70\n${closed ? 1 : 0}\n${points
    .map(([x, y, bulge]) => `10\n${x}\n20\n${y}\n${bulge === undefined ? '' : `42\n${bulge}\n`}`)
    .join('')}`;
const rooms = (text: string, layers: string[], scale = 1) =>
  roomsFromDxf(readDxf(text), layers, scale, 'level-1');
const floors = (text: string, layers: string[], scale = 1) =>
  rooms(text, layers, scale)
    .rooms.map((r) => Math.round(outlineOf(r).floor))
    .sort((a, b) => a - b);

test('a level written and read again has the same rooms, by name', () => {
  for (const level of rows(job.levels)) {
    const areas = rows(job.areas).filter((a) => a.levelId === level.id);
    const read = rooms(levelToDxf(job, level.id), [ROOM_LAYER]);
    assert.deepEqual(read.problems, []);
    assert.equal(read.rooms.length, areas.length);
    const shift = { x: Math.min(...areas.flatMap((a) => outlineOf(a).walls.map((w) => w.from.x))), y: 0 };
    shift.y = Math.min(...areas.flatMap((a) => outlineOf(a).walls.map((w) => w.from.y)));
    for (const area of areas) {
      const again = read.rooms.find((r) => r.name === area.name)!;
      assert.ok(isClosed(outlineOf(again)));
      assert.equal(Math.round(outlineOf(again).floor), Math.round(outlineOf(area).floor));
      const corner = outlineOf(area).walls[0]!.from;
      assert.ok(
        outlineOf(again).walls.some(
          (w) => Math.hypot(w.from.x - corner.x + shift.x, w.from.y - corner.y + shift.y) < 0.01,
        ),
        area.name,
      );
    }
  }
});

test('a second parser reads the same outlines, outlets and layers', () => {
  const { entities } = parseString(levelToDxf(job, 'level-upper'));
  const areas = rows(job.areas).filter((a) => a.levelId === 'level-upper');
  const outlines = entities.filter((e) => e.type === 'LWPOLYLINE' && e.layer === ROOM_LAYER);
  assert.equal(outlines.length, areas.length);
  for (const area of areas) {
    const corners = outlineOf(area).walls.map((w) => w.from);
    assert.ok(
      outlines.some(
        (o) =>
          o.closed &&
          o.vertices!.length === corners.length &&
          o.vertices!.every(
            (v, i) => Math.abs(v.x - corners[i]!.x) < 1e-6 && Math.abs(v.y + corners[i]!.y) < 1e-6,
          ),
      ),
      area.name,
    );
  }
  const ids = new Set(areas.map((a) => a.id));
  const outlets = rows(job.boxes).filter((b) => ids.has(b.areaId));
  assert.equal(entities.filter((e) => e.type === 'CIRCLE' && e.layer === 'OUTLETS').length, outlets.length);
  const names = entities.filter((e) => e.layer === 'OUTLET-NAMES').map((e) => e.string);
  assert.deepEqual(names.sort(), outlets.map((b) => b.name).sort());
});

test('loose lines are put together into the rooms they enclose', () => {
  // Two rooms that share a wall, a stub, and a line that ends half an inch short.
  const text = dxf(
    line('A-WALL', 0, 0, 240, 0),
    line('A-WALL', 240, 0, 240, 120.4),
    line('A-WALL', 240, 120, 0, 120),
    line('A-WALL', 0, 120, 0, 0),
    line('A-WALL', 100, 0, 100, 119.5),
    line('A-WALL', 150, 0, 150, 40),
    line('FURNITURE', 10, 10, 60, 60),
  );
  assert.deepEqual(
    floors(text, ['A-WALL']).map((f) => Math.round(f / 100)),
    [120, 168],
  );
  assert.match(rooms(text, ['FURNITURE']).problems.join(), /no closed outline/);
});

test('faces of random grids of lines have the areas of the cells they enclose', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 5 }),
      fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 5 }),
      // Stubs shorter than the tolerance would be joined to their corners.
      fc.constantFrom(0, 3, 20),
      (xs, ys, over) => {
        const x = xs.sort((a, b) => a - b).map((v) => v * 50);
        const y = ys.sort((a, b) => a - b).map((v) => v * 50);
        const lines: Line[] = [
          ...x.map((v): Line => [
            { x: v, y: y[0]! - over },
            { x: v, y: y.at(-1)! + over },
          ]),
          ...y.map((v): Line => [
            { x: x[0]! - over, y: v },
            { x: x.at(-1)! + over, y: v },
          ]),
        ];
        const cells = x.slice(1).flatMap((v, i) => y.slice(1).map((w, j) => (v - x[i]!) * (w - y[j]!)));
        const found = facesOf(lines, 1, 100).map((f) =>
          Math.round(
            Math.abs(
              f.reduce((s, p, i) => s + p.x * f[(i + 1) % f.length]!.y - f[(i + 1) % f.length]!.x * p.y, 0),
            ) / 2,
          ),
        );
        assert.deepEqual(
          found.sort((a, b) => a - b),
          cells.sort((a, b) => a - b),
        );
      },
    ),
  );
});

test('the scale set by one known length', () => {
  // Drawn in metres: 3.048 m is 10 ft.
  const text = dxf(
    polyline('W', true, [
      [0, 0],
      [3.048, 0],
      [3.048, 3.048],
      [0, 3.048],
    ]),
  );
  const drawing = readDxf(text);
  const scale = 120 / drawing.longest;
  const [room] = roomsFromDxf(drawing, ['W'], scale, 'level-1').rooms;
  assert.deepEqual(
    room!.walls.map((w) => Math.round(w.length * 1000) / 1000),
    [120, 120, 120, 120],
  );
  assert.match(roomsFromDxf(drawing, ['W'], 0, 'level-1').problems[0]!, /scale: expected more than 0/);
});

test('an arc becomes chords within its circle', () => {
  // A square with a half circle of radius 60 on its right side.
  const [floor] = floors(
    dxf(
      polyline('W', true, [
        [0, 0],
        [120, 0, 1],
        [120, 120],
        [0, 120],
      ]),
    ),
    ['W'],
  );
  const exact = 120 * 120 + (Math.PI * 60 * 60) / 2;
  assert.ok(floor! < exact && floor! > exact * 0.98, `${floor} against ${exact}`);
});

test('a corner of no use and a closing point drawn twice are left out', () => {
  const [room] = rooms(
    dxf(
      polyline('W', true, [
        [0, 0],
        [60, 0],
        [120, 0],
        [120, 0.4],
        [120, 120],
        [0, 120],
        [0, 0],
      ]),
    ),
    ['W'],
  ).rooms;
  assert.equal(room!.walls.length, 4);
});

const circle = (n: number, radius: number): [number, number][] =>
  Array.from({ length: n }, (_, i) => [
    radius * Math.cos((2 * Math.PI * i) / n) * (i % 2 ? 1 : 0.98),
    radius * Math.sin((2 * Math.PI * i) / n) * (i % 2 ? 1 : 0.98),
  ]);
test('an outline of 10,000 corners is named and left out; the other rooms come in', () => {
  const text = dxf(
    polyline('W', true, circle(10000, 4000)),
    polyline('W', true, [
      [0, 0],
      [120, 0],
      [120, 120],
      [0, 120],
    ]),
  );
  const read = rooms(text, ['W']);
  assert.equal(read.rooms.length, 1);
  assert.match(read.problems.join(), /10,000 corners; a room has at most 200 walls/);
});

test('lines of no length and specks are said and left out', () => {
  const text = dxf(
    line('W', 5, 5, 5, 5),
    polyline('W', true, [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]),
    polyline('W', true, [
      [200, 0],
      [320, 0],
      [320, 120],
      [200, 120],
    ]),
  );
  const read = rooms(text, ['W']);
  assert.equal(read.rooms.length, 1);
  assert.match(read.problems.join(), /1 line of no length left out/);
  assert.match(read.problems.join(), /less than 4 ft²/);
});

const BAD: [string, string, RegExp][] = [
  ['empty text', '', /has no SECTION/],
  ['a picture', '\u0089PNG\r\n\u001a\n', /has no SECTION/],
  ['JSON', '{"schema":"hekto-job"}', /has no SECTION/],
  ['a file cut short', dxf(line('W', 0, 0, 10, 10)).slice(0, 60), /does not end with EOF; is it cut short/],
];
for (const [what, text, message] of BAD) {
  test(`refuses ${what} with a clear message`, () => {
    assert.throws(
      () => {
        const drawing = readDxf(text);
        // What a parser lets through must at least hold nothing.
        if (drawing.layers.length === 0)
          throw new InvalidError([{ path: 'file', message: 'is it cut short?' }]);
      },
      (e: unknown) => e instanceof InvalidError && message.test(e.message),
    );
  });
}

test('hostile numbers and text in a DXF do no harm', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -5, max: 1071 }), fc.string({ maxLength: 12 })), { maxLength: 60 }),
      (pairs) => {
        const body = pairs.map(([code, value]) => `${code}\n${value.replace(/[\r\n]/g, ' ')}\n`).join('');
        try {
          const drawing = readDxf(dxf(body));
          roomsFromDxf(
            drawing,
            drawing.layers.map((l) => l.name),
            1,
            'level-1',
          );
        } catch (error) {
          assert.ok(error instanceof InvalidError, String(error));
        }
      },
    ),
    { numRuns: 400 },
  );
});

/** A file of one section with these groups in it. */
const entities = (groups: string) => `0\nSECTION\n2\nENTITIES\n${groups}\n0\nENDSEC\n0\nEOF\n`;
const VERTICES = [
  [0, 0],
  [120, 0],
  [120, 96],
  [0, 96],
]
  .map(([x, y]) => `0\nVERTEX\n8\nW\n10\n${x}\n20\n${y}`)
  .join('\n');

test('an old-style polyline is read, whether or not it comes to its end', () => {
  for (const end of ['\n0\nSEQEND', '']) {
    const drawing = readDxf(entities(`0\nPOLYLINE\n8\nW\n70\n1\n${VERTICES}${end}`));
    const { rooms } = roomsFromDxf(drawing, ['W'], 1, 'level-1');
    assert.deepEqual(
      rooms.map((r) => r.walls.map((w) => w.length)),
      [[120, 96, 120, 96]],
      end,
    );
  }
  // 102 bytes that a parser ran on for ever.
  const short = entities('0\nPOLYLINE\n8\n0\n66\n1\n0\nVERTEX\n10\n1\n20\n1\n0\nLINE');
  assert.ok(readDxf(short).layers.length <= 1);
});

test('a line to the far end of the world is left out and said, and the rooms beside it are found', () => {
  const far = '0\nLINE\n8\nW\n10\n0\n20\n0\n11\n1000000000\n21\n1000000000';
  const drawing = readDxf(entities(`0\nPOLYLINE\n8\nW\n70\n1\n${VERTICES}\n0\nSEQEND\n${far}`));
  const { rooms, problems } = roomsFromDxf(drawing, ['W'], 1, 'level-1');
  assert.equal(rooms.length, 1);
  assert.match(problems.join(), /1 line is longer than 4000 ft, left out/);
});

test('a file whose groups are out of step is refused by its line', () => {
  assert.throws(
    () => readDxf('0\nSECTION\n2\nENTITIES\nLINE\n0\n0\nENDSEC\n0\nEOF\n'),
    /line 5: expected the number of a group/,
  );
});
