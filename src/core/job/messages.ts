import * as yup from 'yup';

/**
 * Yup's own messages, in the form: path, then what is expected. Set before any schema is built.
 */
yup.setLocale({
  mixed: {
    default: '${path}: not what is expected here',
    required: '${path}: expected a value, found none',
    defined: '${path}: expected a value, found none',
    notNull: '${path}: expected a value, found null',
    oneOf: '${path}: expected one of ${values}',
    notType: ({ path, type, value }) =>
      `${path}: expected ${type === 'array' ? 'a list' : `a ${type}`}, found ${describe(value)}`,
  },
  string: {
    min: '${path}: expected at least ${min} characters',
    max: '${path}: expected at most ${max} characters',
    trim: '${path}: expected no space at either end',
  },
  number: {
    min: '${path}: expected ${min} or more, found ${value}',
    max: '${path}: expected ${max} or less, found ${value}',
    integer: '${path}: expected a whole number, found ${value}',
  },
  array: { max: '${path}: expected at most ${max} entries' },
  object: { noUnknown: '${path}: has a field that does not belong here: ${unknown}' },
});

function describe(value: unknown): string {
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'string') return `“${value.slice(0, 24)}”`;
  if (typeof value === 'number') return String(value);
  return `a ${typeof value}`;
}
