/** What the commands read, and how they answer. */
import { readFileSync } from 'node:fs';
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

/** The one file a command takes; what is left of its arguments is refused. */
export function oneFile(args: readonly string[], expected: string, none: string | null = null): string {
  const [file = none, ...rest] = args;
  if (file === null || rest.length > 0)
    throw new InvalidError([{ path: 'arguments', message: `expected ${expected}` }]);
  return file;
}

/** JSON text, checked; what is wrong is named from a path on. */
export function parseJson<S extends yup.Schema>(text: string, path: string, schema: S): yup.InferType<S> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InvalidError([{ path, message: 'is not complete JSON' }]);
  }
  const problems = problemsOf(schema, value, path);
  if (problems.length > 0) throw new InvalidError(problems);
  return value as yup.InferType<S>;
}

/** JSON from a file or standard input, checked. */
export const readJson = <S extends yup.Schema>(file: string, schema: S): yup.InferType<S> =>
  parseJson(read(file), 'input', schema);

export const number = (min: number, max: number) => yup.number().strict().min(min).max(max);

export const print = (text: string) => process.stdout.write(`${text}\n`);

/** Takes a switch such as `--json` out of the arguments. */
export const without = (args: readonly string[], name: string): { found: boolean; rest: string[] } => ({
  found: args.includes(name),
  rest: args.filter((a) => a !== name),
});

/** Takes an option with a value, such as `--seed 7`, out of the arguments. */
export function option(args: readonly string[], name: string): { value: string | null; rest: string[] } {
  const at = args.indexOf(name);
  if (at < 0) return { value: null, rest: [...args] };
  const value = args[at + 1];
  if (value === undefined) throw new InvalidError([{ path: name, message: 'expected a value after it' }]);
  return { value, rest: args.filter((_, i) => i !== at && i !== at + 1) };
}
