/** `hekto box`: what is joined to what in a box, what it does when energized, its fill; as planned, recorded or changed. */
import { writeFileSync } from 'node:fs';
import { withJumper } from '#core/boxes/asFound.ts';
import { contentsOf, roomOf, wiringIn } from '#core/boxes/contents.ts';
import { fillOf, fits } from '#core/boxes/fill.ts';
import { pictureOf } from '#core/boxes/picture.ts';
import { isFollowed, plannedBoxes } from '#core/boxes/planned.ts';
import { svgOf } from '#core/boxes/svg.ts';
import { endName, endsOf, functionName, handsOf, moved, placeOf, placesOf } from '#core/boxes/wiring.ts';
import { runOf, stopOf } from '#core/circuits/run.ts';
import { energized } from '#core/effects/energized.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { View } from '#core/view/view.ts';
import { parseFile } from '#core/job/file.ts';
import { CLEAN, FINDINGS, oneFile, parsed, print, read } from './input.ts';

const refuse = (path: string, message: string): never => {
  throw new InvalidError([{ path, message }]);
};

/** Moves of `--move END=PLACE`; `capped` takes an end off everything. */
function changed(wiring: BoxWiring, moves: readonly string[]): BoxWiring {
  const ends = endsOf(wiring).map((e) => e.id);
  const places = placesOf(wiring).map((p) => p.id);
  return moves.reduce((now, text) => {
    const [end = '', place = ''] = text.split('=');
    if (!ends.includes(end))
      refuse('--move', `“${end}” is no end of this box; expected one of ${ends.join(', ')}`);
    if (place !== 'capped' && !places.includes(place))
      refuse('--move', `“${place}” is no place of this box; expected one of ${places.join(', ')}, capped`);
    return moved(now, end, place === 'capped' ? null : place);
  }, wiring);
}

/** Conductors more of `--jumper PLACE=PLACE`. */
function jumped(wiring: BoxWiring, jumpers: readonly string[]): BoxWiring {
  const places = placesOf(wiring).map((p) => p.id);
  return jumpers.reduce((now, text) => {
    const [from = '', to = ''] = text.split('=');
    for (const place of [from, to])
      if (!places.includes(place))
        refuse('--jumper', `“${place}” is no place of this box; expected one of ${places.join(', ')}`);
    return withJumper(now, from, to);
  }, wiring);
}

export async function runBox(args: string[]): Promise<number> {
  const { values, positionals } = parsed(args, {
    box: { type: 'string' },
    move: { type: 'string', multiple: true },
    jumper: { type: 'string', multiple: true },
    svg: { type: 'string' },
    json: { type: 'boolean' },
  });
  const document = parseFile(read(oneFile(positionals, 'one job file')));
  const boxes = Object.values(document.boxes);
  const box =
    boxes.find((b) => b.id === values.box || b.name === values.box) ??
    refuse('--box', `expected the name of an outlet: ${boxes.map((b) => b.name).join(', ')}`);
  const view = new View(document);
  const before =
    wiringIn(view, box) ?? refuse('--box', `${box.name} is on no circuit, and nothing in it is recorded`);
  const wiring = changed(jumped(before, values.jumper ?? []), values.move ?? []);
  const nameOf = (id: string) => document.boxes[id]?.name ?? id;
  const on = stopOf(view, box);
  const run = on && runOf(view, on.circuit);
  const at = run ? run.stops.findIndex((s) => s.box.id === box.id) : -1;
  const planned = run ? plannedBoxes(run)[at] : undefined;
  const effects = run && planned && isFollowed(planned, wiring) ? energized(run, at, wiring) : null;
  const contents = contentsOf(view, box);
  const fill = contents.ok ? fillOf(contents.value, view.edition) : null;
  const room = roomOf(box);
  if (values.svg !== undefined) writeFileSync(values.svg, svgOf(await pictureOf(wiring, nameOf), box.name));
  const places = placesOf(wiring);
  print(
    JSON.stringify(
      {
        box: box.name,
        recorded: box.wiring?.stage ?? null,
        conductors: handsOf(wiring).map((e) => ({
          end: e.id,
          is: endName(wiring, e.id, nameOf),
          function: functionName(e.function),
          at: placeOf(wiring, e.id) ?? (placeOf(wiring, e.id) === null ? 'capped' : 'not looked at'),
          place: places.find((p) => p.id === placeOf(wiring, e.id))?.name ?? null,
        })),
        splices: wiring.splices,
        energized: effects,
        fill: fill && {
          lines: fill.lines,
          volume: fill.volume,
          room,
          fits: room === null ? null : fits(fill, room),
        },
        fillNotJudged: contents.ok ? null : contents.message,
      },
      null,
      2,
    ),
  );
  return (effects?.effects.length ?? 0) > 0 ? FINDINGS : CLEAN;
}
