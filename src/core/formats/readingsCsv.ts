/** Readings as CSV, out and in. Columns are documented in docs/formats.md. */
import { InvalidError, problemsOf } from '../job/validate.ts';
import type { Problem } from '../job/integrity.ts';
import { rows } from '../job/document.ts';
import { fromCsv, MOST_PROBLEMS, neutralise, restore, toCsv } from './csv.ts';
import { readingSchema, type JobDocument, type Reading } from '../job/schema.ts';

export const READING_COLUMNS = [
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
  'load_amps',
  'note',
  'corrects',
] as const;
type Column = (typeof READING_COLUMNS)[number];

const number = (value: number | null): string => (value === null ? '' : String(value));
const lamp = (value: boolean | undefined): string => (value === undefined ? '' : value ? 'on' : 'off');

export function readingsToCsv(document: JobDocument): string {
  const data = rows(document.readings)
    .sort((a, b) => a.at.localeCompare(b.at))
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
      load_amps: number(r.loadAmps),
      note: neutralise(r.note),
      corrects: r.corrects ?? '',
    }));
  return toCsv(READING_COLUMNS, data);
}

/**
 * Reads readings for a job. Those already on record are left as they are; the rest come back to be added.
 * @throws InvalidError naming the line and column
 */
export function readingsFromCsv(text: string, document: JobDocument): Reading[] {
  const { rows: lines, problems } = fromCsv(text, READING_COLUMNS, 'a readings CSV');
  const readings: Reading[] = [];
  const seen = new Set<string>();
  for (const { line, cells } of lines) {
    const found: Problem[] = [];
    const reading = readRow(cells, line, found);
    if (found.length === 0) found.push(...problemsOf(readingSchema, reading, line));
    if (found.length === 0 && seen.has(reading.id))
      found.push({ path: `${line}.id`, message: 'is there twice; expected each id once' });
    if (found.length === 0 && !document.boxes[reading.boxId]) {
      found.push({ path: `${line}.box_id`, message: 'expected the id of an outlet in this job' });
    }
    problems.push(...found);
    seen.add(reading.id);
    if (!document.readings[reading.id]) readings.push(reading);
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
    loadAmps: volts('load_amps') ?? 0,
    note: plain('note'),
    corrects: row.corrects === '' ? null : row.corrects,
  };
}
