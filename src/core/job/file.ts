/** The job file: JSON with a schema name and a version; tables as lists. See docs/formats.md. */
import * as yup from 'yup';
import { fail, ok, type Result } from '#core/units/result.ts';
import { problemsIn, type Problem } from './integrity.ts';
import { migrate, SCHEMA, VERSION } from './migrations.ts';
import { allStamped, IN_MEMORY, RECORD_TABLES, type Recorded } from './order.ts';
import { emptyDocument, rowsById } from './document.ts';
import { jobSchema, TABLE_NAMES, TABLES, type Entity, type JobDocument } from './schema.ts';
import { InvalidError, problemsOf } from './validate.ts';

/** Largest job file read, bytes. */
export const MAX_FILE_BYTES = 48 * 1024 * 1024;

/** The whole file, as published in the JSON Schema. */
export const fileSchema = yup
  .object({
    schema: yup.string().strict().defined().oneOf([SCHEMA]),
    version: yup.number().strict().defined().oneOf([VERSION]),
    job: jobSchema,
    ...Object.fromEntries(
      TABLE_NAMES.map((t) => [
        t,
        yup
          .array(TABLES[t].schema as yup.Schema)
          .strict()
          .defined()
          .max(TABLES[t].limit),
      ]),
    ),
  })
  .noUnknown()
  .strict()
  .defined();

export interface JobFile {
  schema: typeof SCHEMA;
  version: number;
  job: JobDocument['job'];
  [table: string]: unknown;
}

/** Rows go out in the order of their ids, so that the same job always makes the same file. */
export function toFile(made: JobDocument): JobFile {
  const document = allStamped(made, IN_MEMORY);
  const tables = Object.fromEntries(TABLE_NAMES.map((t) => [t, rowsById<Entity>(document[t])]));
  return { schema: SCHEMA, version: VERSION, job: document.job, ...tables };
}

/** Up to so many characters a file is laid out for the eye; a longer one is written close, so that it can be read in again. */
const LAID_OUT = MAX_FILE_BYTES / 4;
export const textOf = (file: JobFile): string => {
  const text = JSON.stringify(file, null, 2);
  return `${text.length <= LAID_OUT ? text : JSON.stringify(file)}\n`;
};
export const serialize = (document: JobDocument): string => textOf(toFile(document));

/** Keys that would reach into every object if they were ever copied. */
const HOSTILE_KEYS = new Set(['__proto__', 'constructor', 'prototype']);
const MAX_DEPTH = 12;

/** Whether brackets of a JSON text go deeper than so many: told before it is parsed, since parsing them takes seconds. */
function nestedDeeper(text: string, most: number): boolean {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i++;
      else if (c === 34) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 91 || c === 123) {
      if (++depth > most) return true;
    } else if (c === 93 || c === 125) depth--;
  }
  return false;
}

function hostilePath(value: unknown, path: string, depth: number): string | null {
  if (typeof value !== 'object' || value === null) return null;
  if (depth > MAX_DEPTH) return path;
  for (const key of Object.keys(value)) {
    const here = Array.isArray(value) ? `${path}[${key}]` : [path, key].filter(Boolean).join('.');
    if (HOSTILE_KEYS.has(key)) return here;
    const below = hostilePath((value as Record<string, unknown>)[key], here, depth + 1);
    if (below !== null) return below;
  }
  return null;
}

const oneProblem = (path: string, message: string): InvalidError => new InvalidError([{ path, message }]);

/**
 * Reads the text of a job file: size, JSON, keys, version, migration, schema, then what must hold between
 * entities. Nothing of a bad file is kept.
 * @throws InvalidError
 */
export function parseFile(text: string): JobDocument {
  // The text's length is a lower bound of its size in bytes.
  if (text.length > MAX_FILE_BYTES) {
    throw oneProblem('file', `is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB; expected a job file`);
  }
  if (nestedDeeper(text, MAX_DEPTH + 2))
    throw oneProblem('file', 'is nested deeper than any job file; the file is refused');
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    const where = /position (\d+)/.exec(String(error))?.[1];
    const at = where ? ` at character ${where}` : '';
    throw oneProblem('file', `is not complete JSON${at} (cut short or damaged?); expected a Hekto job file`);
  }
  return parseFileValue(raw);
}

/** As `parseFile`, for a value that was parsed elsewhere. @throws InvalidError */
export function parseFileValue(raw: unknown): JobDocument {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw oneProblem('file', 'expected a job file: an object with schema, version, job and tables');
  }
  const hostile = hostilePath(raw, '', 0);
  if (hostile !== null)
    throw oneProblem(hostile, 'is a key or depth that no job file has; the file is refused');
  const header = raw as Record<string, unknown>;
  if (header.schema !== SCHEMA) throw oneProblem('schema', `expected “${SCHEMA}”`);
  const version = header.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw oneProblem('version', `expected a whole number from 1 to ${VERSION}`);
  }
  if (version > VERSION) {
    throw oneProblem(
      'version',
      `is ${version}, made by a later Hekto; this one reads versions 1 to ${VERSION}`,
    );
  }
  const file = broughtUp(header);
  const problems = problemsOf(fileSchema, file);
  if (problems.length > 0) throw new InvalidError(problems);
  const result = toDocument(file as unknown as JobFile);
  if (!result.ok) throw oneProblem('file', result.message);
  const crossProblems: Problem[] = [...unstamped(result.value), ...problemsIn(result.value)].slice(0, 20);
  if (crossProblems.length > 0) throw new InvalidError(crossProblems);
  return result.value;
}

/** Rows of the record that do not say where they stand in it. */
const unstamped = (document: JobDocument): Problem[] =>
  RECORD_TABLES.flatMap((table) =>
    rowsById<Recorded>(document[table]).flatMap(({ id, stamp }) =>
      stamp
        ? []
        : [{ path: `${table}[${id}].stamp`, message: 'expected where it stands in the record, found none' }],
    ),
  );

/** An older file in the present form. @throws InvalidError where its rows are none */
function broughtUp(header: Record<string, unknown>): Record<string, unknown> {
  for (const [table, list] of Object.entries(header)) {
    const at = Array.isArray(list) ? list.findIndex((row) => typeof row !== 'object' || row === null) : -1;
    if (at >= 0) throw oneProblem(`${table}[${at}]`, 'expected a row, found none');
  }
  try {
    return migrate(header);
  } catch (error) {
    // Steps rely on what their version always wrote; what lacks it was never written by one.
    if (!(error instanceof TypeError)) throw error;
    throw oneProblem(
      'file',
      `is not what version ${String(header.version)} wrote: a part of a row is missing`,
    );
  }
}

function toDocument(file: JobFile): Result<JobDocument> {
  const document = { ...emptyDocument(file.job) } as Record<string, unknown>;
  for (const table of TABLE_NAMES) {
    const byId: Record<string, unknown> = {};
    for (const [i, row] of (file[table] as { id: string }[]).entries()) {
      if (row.id in byId) return fail(`${table}[${i}].id: “${row.id}” is there twice; expected each id once`);
      byId[row.id] = row;
    }
    document[table] = byId;
  }
  return ok(document as unknown as JobDocument);
}
