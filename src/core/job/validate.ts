import * as yup from 'yup';
import './messages.ts';
import type { Problem } from './integrity.ts';

const MOST_PROBLEMS = 20;

/** Checks a value against a schema. Returns every problem found, at most 20, with its path under `prefix`. */
export function problemsOf(schema: yup.Schema, value: unknown, prefix = ''): Problem[] {
  try {
    schema.validateSync(value, { abortEarly: false, strict: true });
    return [];
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return inner.slice(0, MOST_PROBLEMS).map((e) => {
      const path = e.path ?? '';
      const message = e.message.replace(/^(this|[\w.[\]"]+): /, '');
      const dot = prefix && path && !path.startsWith('[') ? '.' : '';
      return { path: `${prefix}${dot}${path}` || 'file', message };
    });
  }
}

/** A refusal that names each field and what is expected there. */
export class InvalidError extends Error {
  readonly problems: Problem[];
  constructor(problems: Problem[]) {
    super(problems.map((p) => `${p.path}: ${p.message}`).join('\n'));
    this.name = 'InvalidError';
    this.problems = problems;
  }
}
