/** Measurements as CSV, out and in. Columns are documented in docs/formats.md. */
import { byTime } from '#core/units/time.ts';
import type { Problem } from '#core/job/integrity.ts';
import { rows } from '#core/job/document.ts';
import { measurementSchema, type JobDocument, type LampLevel, type Measurement } from '#core/job/schema.ts';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import { whyNotMeasured } from '#core/records/measuring.ts';
import { fromCsv, MOST_PROBLEMS, neutralise, restore, toCsv } from './csv.ts';

/** Each column with the field that it holds and how the field is written. */
const FIELDS = [
  ['id', 'id', 'plain'],
  ['box_id', 'boxId', 'plain'],
  ['circuit_id', 'circuitId', 'maybe'],
  ['place', 'place', 'text'],
  ['time_utc', 'at', 'plain'],
  ['by', 'by', 'text'],
  ['instrument', 'instrument', 'plain'],
  ['node', 'node', 'text'],
  ['node_name', 'nodeName', 'text'],
  ['to', 'to', 'maybe'],
  ['to_name', 'toName', 'text'],
  ['stands', 'stands', 'plain'],
  ['input_ohms', 'inputOhms', 'number'],
  ['load_amps', 'loadAmps', 'number'],
  ['gain', 'gain', 'number'],
  ['test_volts', 'testVolts', 'number'],
  ['test_milliamps', 'testMilliamps', 'number'],
  ['shows', 'shows', 'plain'],
  ['value', 'value', 'number'],
  ['lamps', 'lamps', 'list'],
  ['seconds', 'seconds', 'number'],
  ['cleared', 'cleared', 'list'],
  ['temporaries', 'temporaries', 'list'],
  ['sender', 'sender', 'text'],
  ['simulated', 'simulated', 'flag'],
  ['note', 'note', 'text'],
  ['corrects', 'corrects', 'maybe'],
] as const satisfies readonly (readonly [string, keyof Measurement, string])[];
const COLUMNS = FIELDS.map(([column]) => column);
type Column = (typeof COLUMNS)[number];

/** Parts the entries of a list. */
const BETWEEN = ' | ';

function cellOf(value: Measurement[keyof Measurement], kind: (typeof FIELDS)[number][2]): string {
  if (value === null || value === undefined) return '';
  if (kind === 'flag') return value ? 'yes' : 'no';
  if (kind === 'list') return neutralise((value as readonly string[]).join(BETWEEN));
  return kind === 'number' ? String(value) : neutralise(String(value));
}

export function measurementsToCsv(document: JobDocument): string {
  const data = rows(document.measurements)
    .sort((a, b) => byTime(a.at, b.at))
    .map(
      (m) =>
        Object.fromEntries(FIELDS.map(([column, field, kind]) => [column, cellOf(m[field], kind)])) as Record<
          Column,
          string
        >,
    );
  return toCsv(COLUMNS, data);
}

/**
 * Reads measurements for a job. Those already on record are left as they are; the rest come back to be added.
 * @throws InvalidError naming the line and column
 */
export function measurementsFromCsv(text: string, document: JobDocument): Measurement[] {
  const { rows: lines, problems } = fromCsv(text, COLUMNS, 'a measurements CSV');
  const found: Measurement[] = [];
  const seen = new Set<string>();
  for (const { line, cells } of lines) {
    if (cells.id !== undefined && Object.hasOwn(document.measurements, cells.id) && !seen.has(cells.id)) {
      seen.add(cells.id);
      continue;
    }
    const wrong: Problem[] = [];
    const row = readRow(cells, line, wrong);
    if (wrong.length === 0) wrong.push(...problemsOf(measurementSchema, row, line));
    if (wrong.length === 0 && seen.has(row.id))
      wrong.push({ path: `${line}.id`, message: 'is there twice; expected each id once' });
    const why = wrong.length > 0 ? null : whyNotMeasured(document, row);
    if (why !== null) wrong.push({ path: `${line}.shows`, message: why });
    problems.push(...wrong);
    seen.add(row.id);
    found.push(row);
  }
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
  return found;
}

function readRow(cells: Record<Column, string>, line: string, problems: Problem[]): Measurement {
  const entries = FIELDS.map(([column, field, kind]): [string, unknown] => {
    const cell = cells[column] ?? '';
    const plain = restore(cell);
    switch (kind) {
      case 'number': {
        if (cell.trim() === '') return [field, null];
        const value = Number(cell);
        if (!Number.isFinite(value))
          problems.push({
            path: `${line}.${column}`,
            message: `expected a number, found “${cell.slice(0, 24)}”`,
          });
        return [field, value];
      }
      case 'flag':
        if (cell !== 'yes' && cell !== 'no')
          problems.push({
            path: `${line}.${column}`,
            message: `expected yes or no, found “${cell.slice(0, 24)}”`,
          });
        return [field, cell === 'yes'];
      case 'list': {
        const list = plain === '' ? [] : plain.split(BETWEEN);
        return [field, field === 'lamps' && list.length === 0 ? null : (list as LampLevel[])];
      }
      case 'maybe':
        return [field, plain === '' ? null : plain];
      case 'text':
        return [field, plain];
      case 'plain':
        return [field, cell];
    }
  });
  return Object.fromEntries(entries) as unknown as Measurement;
}
