/** What the commands read, and how they answer. */
import { readFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import * as yup from 'yup';
import { InvalidError, problemsOf } from '#core/job/validate.ts';

export const CLEAN = 0;
export const FINDINGS = 1;
export const BAD_INPUT = 2;

/** @throws InvalidError that names the file */
export const read = (file: string): string => {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new InvalidError([
      { path: file, message: code === 'ENOENT' ? 'no such file' : `cannot be read (${code})` },
    ]);
  }
};

type Options = NonNullable<ParseArgsConfig['options']>;

/**
 * The arguments of a command by their names.
 * @throws InvalidError for an option that the command does not have, or one without its value
 */
export function parsed<const O extends Options>(args: readonly string[], options: O) {
  try {
    return parseArgs({ args: [...args], options, allowPositionals: true, strict: true });
  } catch (error) {
    const { message } = error as Error;
    const [, name = 'arguments'] = /'(?:-\w, )?(--?[\w-]+)/.exec(message) ?? [];
    const known = Object.keys(options).map((o) => `--${o}`);
    throw new InvalidError([
      {
        path: name,
        message: known.includes(name)
          ? `expected ${options[name.slice(2)]!.type === 'string' ? 'a value after it' : 'no value'}`
          : `is not an option of this command; expected ${known.join(', ') || 'none'}`,
      },
    ]);
  }
}

/** The one file a command takes. */
export function oneFile(
  positionals: readonly string[],
  expected: string,
  none: string | null = null,
): string {
  const [file = none, ...more] = positionals;
  if (file === null || more.length > 0)
    throw new InvalidError([{ path: 'arguments', message: `expected ${expected}` }]);
  return file;
}

/** Words that earlier versions took, by what they are now. */
const OLD_WORDS: Readonly<Record<string, string>> = { aluminium: 'aluminum' };
const withNewWords = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(
        Object.entries(value).map(([k, v]) => [k, typeof v === 'string' ? (OLD_WORDS[v] ?? v) : v]),
      )
    : value;

/** JSON text, checked; what is wrong is named from a path on. */
export function parseJson<S extends yup.Schema>(text: string, path: string, schema: S): yup.InferType<S> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InvalidError([{ path, message: 'is not complete JSON' }]);
  }
  value = withNewWords(value);
  const problems = problemsOf(schema, value, path);
  if (problems.length > 0) throw new InvalidError(problems);
  return value as yup.InferType<S>;
}

/** JSON from a file or standard input, checked. */
export const readJson = <S extends yup.Schema>(file: string, schema: S): yup.InferType<S> =>
  parseJson(read(file), 'input', schema);

export const word = <T extends string>(of: readonly T[]) => yup.string().strict().oneOf(of);
/** An object of these fields and no others. */
export const row = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().strict().required();
export const number = (min: number, max: number) => yup.number().strict().min(min).max(max);

export const print = (text: string) => process.stdout.write(`${text}\n`);
