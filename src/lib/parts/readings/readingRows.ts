/** Sorting, filtering and judging of all the readings of a job, a few at a time. */
import { byTime } from '#core/units/time.ts';
import { rows } from '#core/job/document.ts';
import type { Reading } from '#core/job/schema.ts';
import type { View } from '#core/view/view.ts';
import { pastReadings } from '#core/records/proof.ts';
import type { Verdict } from '#core/diagnosis/verdict.ts';

export interface Row {
  reading: Reading;
  circuit: string;
  struck: boolean;
}

export const COLUMNS = [
  ['at', 'Time'],
  ['place', 'Outlet'],
  ['circuit', 'Circuit'],
  ['stage', 'Stage'],
  ['half', 'Half'],
  ['hotNeutral', 'H–N'],
  ['hotGround', 'H–G'],
  ['neutralGround', 'N–G'],
  ['hotHot', 'H–H'],
  ['loadAmps', 'Load'],
  ['instrument', 'Instrument'],
  ['by', 'By'],
] as const;
export type SortKey = (typeof COLUMNS)[number][0];

export interface Filter {
  words: string;
  stage: Reading['stage'] | 'all';
  circuit: string;
  grade: Verdict['grade'] | 'all';
}
export const NO_FILTER: Filter = { words: '', stage: 'all', circuit: 'all', grade: 'all' };

export function rowsOf(view: View): Row[] {
  const past = pastReadings(view.document);
  return rows(view.document.readings).map((reading) => ({
    reading,
    circuit: view.circuitOf(reading.boxId)?.name ?? '',
    struck: past.has(reading.id),
  }));
}

const valueOf = (row: Row, key: SortKey): string | number | null =>
  key === 'circuit' ? row.circuit : row.reading[key];

/** Sorted by one column; what was not read stands last. */
export function sorted(list: readonly Row[], key: SortKey, down: boolean): Row[] {
  const sign = down ? -1 : 1;
  return [...list].sort((a, b) => {
    const [x, y] = [valueOf(a, key), valueOf(b, key)];
    if (x === y) return byTime(a.reading.at, b.reading.at);
    if (x === null) return 1;
    if (y === null) return -1;
    return (
      sign * (typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y)))
    );
  });
}

/** @param gradeOf null while a reading is not judged yet: it stays in view */
export function filtered(
  list: readonly Row[],
  { words, stage, circuit, grade }: Filter,
  gradeOf: (reading: Reading) => Verdict['grade'] | null,
): Row[] {
  const wanted = words.trim().toLowerCase();
  return list.filter(({ reading, circuit: on }) => {
    if (stage !== 'all' && reading.stage !== stage) return false;
    if (circuit !== 'all' && on !== circuit) return false;
    if (grade !== 'all' && (gradeOf(reading) ?? grade) !== grade) return false;
    if (wanted === '') return true;
    return `${reading.place} ${on} ${reading.by} ${reading.note} ${reading.instrument}`
      .toLowerCase()
      .includes(wanted);
  });
}
