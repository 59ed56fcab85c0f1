/** Pictures of boxes: everything is drawn, nothing runs over a label, and a second parser reads the file. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { pictureOf, type Line, type Picture, type Shape } from './picture.ts';
import { plannedBoxes } from './planned.ts';
import { svgOf } from './svg.ts';
import { KINDS, runOfKind, SCHOOLS } from './testing.ts';
import { endsOf, moved, placeOf, placesOf } from './wiring.ts';
import type { BoxWiring } from '#core/job/schema.ts';

/** Whether a stretch of a line passes the inside of a shape. */
function crosses({ points }: Line, { x, y, width, height }: Shape): boolean {
  const inset = 2;
  return points.slice(1).some((p, k) => {
    const q = points[k]!;
    return (
      Math.max(p.x, q.x) > x + inset &&
      Math.min(p.x, q.x) < x + width - inset &&
      Math.max(p.y, q.y) > y + inset &&
      Math.min(p.y, q.y) < y + height - inset
    );
  });
}

function check(wiring: BoxWiring, picture: Picture, what: string): void {
  const drawn = picture.lines.flatMap((l) => l.ends).sort();
  assert.deepEqual(
    drawn,
    endsOf(wiring)
      .map((e) => e.id)
      .sort(),
    `${what}: every end is a line once`,
  );
  const rows = new Map(picture.shapes.flatMap((s) => s.rows.map((r) => [r.id, s] as const)));
  for (const line of picture.lines) {
    assert.ok(rows.has(line.from) && rows.has(line.to), `${what}: ${line.id} hangs loose`);
    assert.ok(line.points.length >= 2, `${what}: ${line.id} has no way`);
    for (const shape of picture.shapes)
      assert.ok(!crosses(line, shape), `${what}: ${line.id} runs over ${shape.id}`);
    const [end] = line.ends;
    const at = placeOf(wiring, end!);
    if (typeof at === 'string' && line.ends.length === 1)
      assert.ok(line.from === at || line.to === at, `${what}: ${end} is drawn to ${line.to}, is at ${at}`);
  }
  for (const a of picture.shapes)
    for (const b of picture.shapes)
      if (a !== b)
        assert.ok(
          a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y,
          `${what}: ${a.id} lies over ${b.id}`,
        );
}

test('every kind of box is drawn whole, in width for a phone', async () => {
  for (const kind of KINDS)
    for (const school of [SCHOOLS[0]!, SCHOOLS.at(-1)!]) {
      const run = runOfKind(kind, school);
      for (const [at, wiring] of plannedBoxes(run).entries()) {
        const picture = await pictureOf(wiring, (id) => id);
        const what = `${kind.name}, ${school.joining}: ${run.stops[at]!.box.name}`;
        check(wiring, picture, what);
        for (const shape of picture.shapes) {
          assert.ok(7.6 * shape.title.length <= shape.width, `${what}: ${shape.title} is cut`);
          for (const r of shape.rows)
            assert.ok(6.9 * r.label.length <= r.width, `${what}: ${r.label} is cut`);
        }
        assert.ok(picture.width <= 500, `${what}: ${picture.width} wide`);
      }
    }
});

test('wirings with ends anywhere lay out too, the same each time', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.nat(KINDS.length - 1),
      fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 6 }),
      fc.nat(),
      async (kind, moves, which) => {
        const run = runOfKind(KINDS[kind]!, SCHOOLS[0]!);
        const boxes = plannedBoxes(run);
        let wiring = boxes[which % boxes.length]!;
        const ends = endsOf(wiring);
        for (const [what, where] of moves) {
          if (ends.length === 0) break;
          const places = [null, ...placesOf(wiring).map((p) => p.id)];
          wiring = moved(wiring, ends[what % ends.length]!.id, places[where % places.length]!);
        }
        wiring = {
          ...wiring,
          places: wiring.places.slice(0, Math.max(0, wiring.places.length - (which % 3))),
        };
        const picture = await pictureOf(wiring, (id) => id);
        check(wiring, picture, `${KINDS[kind]!.name} ${JSON.stringify(moves)}`);
        assert.deepEqual(await pictureOf(wiring, (id) => id), picture);
      },
    ),
    { numRuns: 60 },
  );
});

test('the SVG is read by a second parser, with every line and label in it', async () => {
  for (const kind of KINDS) {
    const run = runOfKind(kind, SCHOOLS[0]!);
    const [wiring] = plannedBoxes(run);
    const picture = await pictureOf(wiring!, () => 'B & <C>');
    const svg = svgOf(picture, 'Kitchen “K3” & <friends>');
    assert.equal(XMLValidator.validate(svg), true, kind.name);
    const parsed = new XMLParser({ ignoreAttributes: false }).parse(svg) as {
      svg: { title: string; '@_viewBox': string };
    };
    assert.equal(parsed.svg.title, 'Kitchen “K3” & <friends>');
    const [, , width, height] = parsed.svg['@_viewBox'].split(' ').map(Number);
    assert.ok(width! > 100 && height! > 50);
    assert.equal(svg.match(/data-line=/g)?.length ?? 0, picture.lines.length);
    for (const label of picture.shapes.flatMap((s) => s.rows.map((r) => r.label)))
      assert.ok(svg.includes(`>${label}</text>`), `${kind.name}: ${label}`);
  }
});
