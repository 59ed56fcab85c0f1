/** Outlets as CSV, out and in: one row each, in words and lengths a spreadsheet can sort. */
import { newId, PLAIN_BOX, PLAIN_DEVICE, rows } from '#core/job/document.ts';
import { problemsIn, type Problem } from '#core/job/integrity.ts';
import {
  boxSchema,
  DEVICE_KINDS,
  MOUNTS,
  PURPOSES,
  STATUSES,
  type Area,
  type Box,
  type JobDocument,
} from '#core/job/schema.ts';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import { parseLength } from '#core/units/length.ts';
import { fromCsv, MOST_PROBLEMS, neutralise, restore, toCsv, type CsvRow } from './csv.ts';

export const OUTLET_COLUMNS = [
  'id',
  'name',
  'level',
  'room',
  'wall',
  'offset_in',
  'height_in',
  'from_wall_in',
  'mount',
  'device',
  'rating_a',
  'volts',
  'work',
  'ground',
  'tamper_resistant',
  'weather_resistant',
  'cover',
  'switched',
  'purpose',
  'serves',
  'circuit',
  'note',
] as const;
type Column = (typeof OUTLET_COLUMNS)[number];

const yes = (value: boolean) => (value ? 'yes' : 'no');

export function outletsToCsv(document: JobDocument): string {
  const circuitOf = new Map(
    rows(document.circuits).flatMap((c) => c.stops.map((s) => [s.boxId, c.name] as const)),
  );
  const data = rows(document.boxes)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((b): Record<Column, string> => {
      const area = document.areas[b.areaId];
      return {
        id: b.id,
        name: neutralise(b.name),
        level: neutralise(document.levels[area?.levelId ?? '']?.name ?? ''),
        room: neutralise(area?.name ?? ''),
        wall: String((area?.walls.findIndex((w) => w.id === b.wallId) ?? -1) + 1),
        offset_in: String(b.offset),
        height_in: String(b.height),
        from_wall_in: String(b.fromWall),
        mount: b.mount,
        device: b.device.kind,
        rating_a: String(b.device.rating),
        volts: b.device.volts,
        work: b.status,
        ground: b.grounding,
        tamper_resistant: yes(b.device.tamperResistant),
        weather_resistant: yes(b.device.weatherResistant),
        cover: b.device.cover,
        switched: b.device.switched,
        purpose: b.purpose,
        serves: neutralise(b.serves === null ? '' : (document.fixtures[b.serves]?.name ?? '')),
        circuit: neutralise(circuitOf.get(b.id) ?? ''),
        note: neutralise(b.note),
      };
    });
  return toCsv(OUTLET_COLUMNS, data);
}

/** Reads one row; what is wrong goes into `problems` under its column. */
class RowReader {
  private readonly row: CsvRow<Column>;
  readonly problems: Problem[] = [];
  constructor(row: CsvRow<Column>) {
    this.row = row;
  }
  text(column: Column): string {
    return restore((this.row.cells[column] ?? '').trim());
  }
  say(column: Column, message: string): void {
    this.problems.push({ path: `${this.row.line}.${column}`, message });
  }
  one<T extends string>(column: Column, options: readonly T[]): T {
    const cell = this.text(column);
    const found = options.find((o) => o === cell);
    if (found === undefined) this.say(column, `expected ${options.join(', ')}; found “${cell.slice(0, 24)}”`);
    return found ?? options[0]!;
  }
  flag(column: Column): boolean {
    return this.one(column, ['yes', 'no']) === 'yes';
  }
  /** A bare number is inches; feet and inches are understood too. */
  inches(column: Column): number {
    const parsed = parseLength(this.text(column), { bare: 'inches' });
    if (!parsed.ok) this.say(column, parsed.message);
    return parsed.ok ? parsed.value : 0;
  }
  whole(column: Column): number {
    const value = Number(this.text(column));
    if (!Number.isInteger(value))
      this.say(column, `expected a whole number, found “${this.text(column).slice(0, 24)}”`);
    return value;
  }
}

function areaOf(reader: RowReader, document: JobDocument): Area | null {
  const level = reader.text('level');
  const room = reader.text('room');
  const named = rows(document.areas).filter(
    (a) => a.name === room && (level === '' || document.levels[a.levelId]?.name === level),
  );
  if (named.length === 1) return named[0]!;
  reader.say(
    'room',
    named.length === 0
      ? `expected the name of a room in this job, found “${room.slice(0, 40)}”`
      : `${named.length} rooms are called “${room.slice(0, 40)}”; expected the level to tell them apart`,
  );
  return null;
}

function readRow(reader: RowReader, document: JobDocument): Box | null {
  const area = areaOf(reader, document);
  const number = reader.whole('wall');
  const wall = area?.walls[number - 1];
  // Wall 0 is none: its place is not on the plan.
  if (area && !wall && number !== 0)
    reader.say('wall', `expected 1 to ${area.walls.length}, the walls of ${area.name}, or 0 for none`);
  const id = reader.text('id');
  const known = id === '' ? undefined : document.boxes[id];
  const serving = reader.text('serves');
  const fixture = serving === '' ? undefined : rows(document.fixtures).find((f) => f.name === serving);
  if (serving !== '' && !fixture)
    reader.say('serves', `expected the name of a fixture in this job, found “${serving.slice(0, 40)}”`);
  const box = {
    ...PLAIN_BOX,
    controls: [],
    waterDistance: null,
    ...known,
    id: id === '' ? newId('box') : id,
    name: reader.text('name'),
    areaId: area?.id ?? '',
    wallId: wall?.id ?? null,
    offset: reader.inches('offset_in'),
    height: reader.inches('height_in'),
    fromWall: reader.inches('from_wall_in'),
    mount: reader.one('mount', MOUNTS),
    status: reader.one('work', STATUSES),
    grounding: reader.one('ground', ['grounded', 'none', 'unknown']),
    purpose: reader.one('purpose', PURPOSES),
    serves: fixture?.id ?? null,
    note: reader.text('note'),
    device: {
      ...PLAIN_DEVICE,
      ...known?.device,
      kind: reader.one('device', DEVICE_KINDS),
      rating: reader.whole('rating_a'),
      volts: reader.one('volts', ['125', '250', '125/250']),
      tamperResistant: reader.flag('tamper_resistant'),
      weatherResistant: reader.flag('weather_resistant'),
      cover: reader.one('cover', ['indoor', 'weatherproof', 'in-use']),
      switched: reader.one('switched', ['none', 'half', 'whole']),
    },
  };
  return reader.problems.length === 0 ? (box as Box) : null;
}

/**
 * Reads outlets for a job: rows with a known id change that outlet, the others are new. The circuit column is
 * for reading only; circuits are changed in Runs.
 * @throws InvalidError naming the line and column; nothing is changed then
 */
export function outletsFromCsv(text: string, document: JobDocument): Box[] {
  const { rows: lines, problems } = fromCsv(text, OUTLET_COLUMNS, 'an outlets CSV');
  const boxes = new Map<string, Box>();
  const lineOf = new Map<string, string>();
  for (const line of lines) {
    const reader = new RowReader(line);
    const box = readRow(reader, document);
    problems.push(...reader.problems);
    if (!box) continue;
    const wrong = problemsOf(boxSchema, box, line.line);
    if (boxes.has(box.id))
      wrong.push({ path: `${line.line}.id`, message: 'is there twice; expected each id once' });
    problems.push(...wrong);
    boxes.set(box.id, box);
    lineOf.set(box.id, line.line);
  }
  if (problems.length === 0) {
    // Against the job as it would be: places past the end of a wall and the like.
    const next = { ...document, boxes: { ...document.boxes, ...Object.fromEntries(boxes) } };
    for (const { path, message } of problemsIn(next)) {
      const [, id = '', field = ''] = /^boxes\[(.*)\]\.(.*)$/.exec(path) ?? [];
      const where = lineOf.get(id);
      if (where !== undefined) problems.push({ path: `${where}.${field}`, message });
    }
  }
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
  return [...boxes.values()];
}
