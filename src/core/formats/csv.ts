/** What every CSV file of a job shares: RFC 4180, known columns, cells that cannot run as formulas. */
import Papa from 'papaparse';
import type { Problem } from '#core/job/integrity.ts';
import { InvalidError } from '#core/job/validate.ts';

/** Largest CSV file read, characters. */
const MAX_CSV = 16 * 1024 * 1024;
/** Most problems named at once. */
export const MOST_PROBLEMS = 20;

/** Spreadsheets run cells that begin like a formula; a quote in front keeps them text. */
export const neutralise = (cell: string): string => (/^[=+\-@\t\r']/.test(cell) ? `'${cell}` : cell);
export const restore = (cell: string): string => (/^'[=+\-@\t\r']/.test(cell) ? cell.slice(1) : cell);

export function toCsv<C extends string>(columns: readonly C[], data: readonly Record<C, string>[]): string {
  return `${Papa.unparse({ fields: [...columns], data: [...data] }, { newline: '\r\n' })}\r\n`;
}

export interface CsvRow<C extends string> {
  /** `line 7`, for messages. */
  line: string;
  cells: Record<C, string>;
}

/**
 * Reads rows with exactly the given columns, in any order.
 * @param noun what the file should be, for messages
 * @param optional columns that older files do not have
 * @returns the rows and the problems of form found in them
 * @throws InvalidError when the file is too large or its columns are not these
 */
export function fromCsv<C extends string>(
  text: string,
  columns: readonly C[],
  noun: string,
  optional: readonly C[] = [],
): { rows: CsvRow<C>[]; problems: Problem[] } {
  if (text.length > MAX_CSV) {
    throw new InvalidError([
      { path: 'file', message: `is larger than ${MAX_CSV / 1024 / 1024} MB; expected ${noun}` },
    ]);
  }
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: true,
  });
  checkColumns(parsed.meta.fields ?? [], columns, optional);
  return {
    rows: parsed.data.map((cells, i) => ({ line: `line ${i + 2}`, cells: cells as Record<C, string> })),
    problems: parsed.errors.map((e) => ({
      path: `line ${(e.row ?? 0) + 2}`,
      message: e.type === 'FieldMismatch' ? `expected ${parsed.meta.fields?.length} columns` : e.message,
    })),
  };
}

function checkColumns(
  fields: readonly string[],
  columns: readonly string[],
  optional: readonly string[],
): void {
  const missing = columns.filter((c) => !fields.includes(c) && !optional.includes(c));
  const extra = fields.filter((f) => !columns.includes(f));
  const problems: Problem[] = [
    ...missing.map((c) => ({
      path: 'line 1',
      message: `column “${c}” is missing; expected ${columns.join(', ')}`,
    })),
    ...extra.map((c) => ({ path: 'line 1', message: `column “${c.slice(0, 40)}” does not belong here` })),
  ];
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
}

/** Most items of a list that somebody else wrote. */
const MOST_ITEMS = 200;

/** The rows of any CSV as lines of text, cells parted by a dot; a first row of plain headings is left out. */
export function linesOfCsv(text: string): string[] {
  const { data } = Papa.parse<string[]>(text.slice(0, MAX_CSV).replace(/^\uFEFF/, ''), {
    skipEmptyLines: true,
  });
  const lines = data.map((cells) =>
    cells
      .map((cell) => restore(cell.trim()))
      .filter(Boolean)
      .join(' · '),
  );
  const isHeading = (line: string) => line.length < 60 && /^(item|no\.?|number|finding|#)\b/i.test(line);
  return lines.filter((line, i) => line !== '' && !(i === 0 && isHeading(line))).slice(0, MOST_ITEMS);
}
