/** Readings as CSV, out and in. Columns are documented in docs/formats.md. */
import { byTime } from '#core/units/time.ts';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import type { Problem } from '#core/job/integrity.ts';
import { nameKey } from '#core/job/names.ts';
import { newId, PLAIN_READING, rows } from '#core/job/document.ts';
import { fromCsv, MOST_PROBLEMS, neutralise, restore, toCsv } from './csv.ts';
import { whyNotRead } from '#core/records/gates.ts';
import { readingSchema, type JobDocument, type Reading } from '#core/job/schema.ts';

const READING_COLUMNS = [
  'id',
  'box_id',
  'place',
  'time_utc',
  'by',
  'stage',
  'instrument',
  'lamp_hot_neutral',
  'lamp_hot_ground',
  'lamp_neutral_ground',
  'volts_hot_neutral',
  'volts_hot_ground',
  'volts_neutral_ground',
  'volts_hot_hot',
  'volts_ground_reference',
  'load_amps',
  'ground_ohms',
  'half',
  'open_box',
  'note',
  'corrects',
  'meter',
] as const;
type Column = (typeof READING_COLUMNS)[number];
/** Columns that files of an earlier form do not have. */
const LATER: readonly Column[] = [
  'volts_hot_hot',
  'volts_ground_reference',
  'ground_ohms',
  'half',
  'open_box',
  'meter',
];

const number = (value: number | null): string => (value === null ? '' : String(value));
const lamp = (value: boolean | undefined): string => (value === undefined ? '' : value ? 'on' : 'off');

export function readingsToCsv(document: JobDocument): string {
  const data = rows(document.readings)
    .sort((a, b) => byTime(a.at, b.at))
    .map((r): Record<Column, string> => ({
      id: r.id,
      box_id: r.boxId,
      place: neutralise(r.place),
      time_utc: r.at,
      by: neutralise(r.by),
      stage: r.stage,
      instrument: neutralise(r.instrument),
      lamp_hot_neutral: lamp(r.lamps?.[0]),
      lamp_hot_ground: lamp(r.lamps?.[1]),
      lamp_neutral_ground: lamp(r.lamps?.[2]),
      volts_hot_neutral: number(r.hotNeutral),
      volts_hot_ground: number(r.hotGround),
      volts_neutral_ground: number(r.neutralGround),
      volts_hot_hot: number(r.hotHot),
      volts_ground_reference: number(r.groundReference),
      load_amps: number(r.loadAmps),
      ground_ohms: number(r.groundOhms),
      half: r.half,
      open_box: r.openBox ? 'yes' : 'no',
      note: neutralise(r.note),
      corrects: r.corrects ?? '',
      meter: r.meter,
    }));
  return toCsv(READING_COLUMNS, data);
}

/**
 * Reads readings for a job. Those already on record are left as they are; the rest come back to be added.
 * @throws InvalidError naming the line and column
 */
export function readingsFromCsv(text: string, document: JobDocument): Reading[] {
  const { rows: lines, problems } = fromCsv(text, READING_COLUMNS, 'a readings CSV', LATER);
  const readings: Reading[] = [];
  const seen = new Set<string>();
  for (const { line, cells } of lines) {
    // What is on record stays as it is, whatever became of its outlet since.
    if (cells.id !== undefined && Object.hasOwn(document.readings, cells.id) && !seen.has(cells.id)) {
      seen.add(cells.id);
      continue;
    }
    const found: Problem[] = [];
    const reading = readRow(cells, line, found);
    if (found.length === 0) found.push(...problemsOf(readingSchema, reading, line));
    if (found.length === 0 && seen.has(reading.id))
      found.push({ path: `${line}.id`, message: 'is there twice; expected each id once' });
    if (found.length === 0 && !document.boxes[reading.boxId]) {
      found.push({ path: `${line}.box_id`, message: 'expected the id of an outlet in this job' });
    }
    const why = found.length > 0 ? null : whyNotRead(document, reading);
    if (why !== null) found.push({ path: `${line}.stage`, message: why });
    problems.push(...found);
    seen.add(reading.id);
    readings.push(reading);
  }
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
  return readings;
}

function readRow(row: Record<Column, string>, line: string, problems: Problem[]): Reading {
  const say = (column: Column, message: string) => problems.push({ path: `${line}.${column}`, message });
  const volts = (column: Column): number | null => {
    const cell = (row[column] ?? '').trim();
    if (cell === '') return null;
    const value = Number(cell);
    if (!Number.isFinite(value)) say(column, `expected a number, found “${cell.slice(0, 24)}”`);
    return value;
  };
  const lampCells = (['lamp_hot_neutral', 'lamp_hot_ground', 'lamp_neutral_ground'] as const).map((c) =>
    (row[c] ?? '').trim(),
  );
  if (
    lampCells.some((c) => !['', 'on', 'off'].includes(c)) ||
    new Set(lampCells.map((c) => c === '')).size > 1
  ) {
    say('lamp_hot_neutral', 'expected on or off for all three lamps, or all three empty');
  }
  const openBox = (row.open_box ?? '').trim() || 'no';
  if (openBox !== 'yes' && openBox !== 'no')
    say('open_box', `expected yes or no, found “${openBox.slice(0, 24)}”`);
  const plain = (column: Column) => restore(row[column] ?? '');
  return {
    id: row.id,
    boxId: row.box_id,
    place: plain('place'),
    at: row.time_utc,
    by: plain('by'),
    stage: row.stage as Reading['stage'],
    instrument: plain('instrument'),
    lamps: lampCells.includes('') ? null : lampCells.map((c) => c === 'on'),
    hotNeutral: volts('volts_hot_neutral'),
    hotGround: volts('volts_hot_ground'),
    neutralGround: volts('volts_neutral_ground'),
    hotHot: volts('volts_hot_hot'),
    groundReference: volts('volts_ground_reference'),
    loadAmps: volts('load_amps') ?? 0,
    groundOhms: volts('ground_ohms'),
    half: ((row.half ?? '').trim() || 'both') as Reading['half'],
    openBox: openBox === 'yes',
    note: plain('note'),
    corrects: row.corrects === '' ? null : row.corrects,
    from: null,
    meter: ((row.meter ?? '').trim() || 'unknown') as Reading['meter'],
  };
}

/** Most lines pasted at once. */
const MOST_LINES = 2000;

/**
 * Reads lines as people type them: name of an outlet, hot–neutral, hot–ground, neutral–ground, and amps with a load on.
 * @param taken who measured, and when
 * @throws InvalidError naming line and value
 */
export function readingsFromLines(
  text: string,
  document: JobDocument,
  { by, at }: Pick<Reading, 'by' | 'at'>,
): Reading[] {
  const problems: Problem[] = [];
  const boxes = new Map(rows(document.boxes).map((b) => [nameKey(b.name), b]));
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  if (lines.length > MOST_LINES)
    throw new InvalidError([{ path: 'text', message: `expected ${MOST_LINES} lines or fewer` }]);
  const readings = lines.flatMap((line, i): Reading[] => {
    if (line === '') return [];
    const where = `line ${i + 1}`;
    const [name = '', ...cells] = line.split(/\s*[,;\t]\s*/);
    const box = boxes.get(nameKey(name));
    if (!box) {
      problems.push({ path: where, message: `“${name.slice(0, 24)}” is no outlet of this job` });
      return [];
    }
    if (cells.length === 0 || cells.length > 4) {
      problems.push({ path: where, message: 'expected one to four numbers after the name' });
      return [];
    }
    const values = cells.map((cell) => (cell === '' ? null : Number(cell)));
    const wrong = values.findIndex((v) => v !== null && !(Number.isFinite(v) && v >= 0 && v <= 300));
    if (wrong >= 0) {
      problems.push({
        path: where,
        message: `expected a number from 0 to 300, found “${cells[wrong]!.slice(0, 24)}”`,
      });
      return [];
    }
    const [hotNeutral = null, hotGround = null, neutralGround = null, amps = null] = values;
    const reading: Reading = {
      ...PLAIN_READING,
      id: newId('reading'),
      boxId: box.id,
      place: `${box.name}, ${document.areas[box.areaId]?.name ?? ''}`,
      at,
      by,
      stage: 'as-found',
      instrument: 'meter',
      hotNeutral,
      hotGround,
      neutralGround,
      loadAmps: amps ?? 0,
    };
    problems.push(...problemsOf(readingSchema, reading, where));
    return [reading];
  });
  if (readings.length === 0 && problems.length === 0)
    problems.push({ path: 'text', message: 'expected a line such as “S1, 119.8, 119.7, 0.1”' });
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
  return readings;
}
