/**
 * What differs between two rows, field by field, and such edits applied to another copy of the row: two people who change
 * different fields of one row both keep what they did. Elements of lists are known by their ids, or by the end of a conductor
 * whose place they say.
 */

/** One edit on the way `path` into a row. A part `#key` is the element of a list with that id. */
export type FieldEdit =
  | { path: string[]; value: unknown }
  /** A value where there is none yet; what somebody put there meanwhile stays. */
  | { path: string[]; first: unknown }
  /** An element put into a list, after the one with a key; null: first. */
  | { path: string[]; insert: unknown; after: string | null }
  | { path: string[]; remove: string };

/** The way of an edit is not in the row any more: what it changes was removed meanwhile. */
export class GoneError extends Error {
  override name = 'GoneError';
}

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const keyOf = (element: unknown): string | null => {
  if (!isPlain(element)) return null;
  const key = element.id ?? element.boxId ?? element.end;
  return typeof key === 'string' ? key : null;
};

/** The keys of a list whose elements all have one of their own; null otherwise. */
function keysOf(list: readonly unknown[]): string[] | null {
  const keys = list.map(keyOf);
  return keys.every((k): k is string => k !== null) && new Set(keys).size === keys.length ? keys : null;
}

/** What turns one value into another, by as few fields as it takes. */
export function editsBetween(before: unknown, after: unknown, path: string[] = []): FieldEdit[] {
  if (Object.is(before, after)) return [];
  if (isPlain(before) && isPlain(after)) {
    const keys = Object.keys(after);
    if (keys.length === Object.keys(before).length && keys.every((k) => k in before))
      return keys.flatMap((key) => editsBetween(before[key], after[key], [...path, key]));
  }
  if (Array.isArray(before) && Array.isArray(after)) return listEdits(before, after, path);
  return [{ path, value: after }];
}

function listEdits(before: readonly unknown[], after: readonly unknown[], path: string[]): FieldEdit[] {
  const [old, now] = [keysOf(before), keysOf(after)];
  const whole: FieldEdit[] = [{ path, value: after }];
  if (old === null || now === null) return JSON.stringify(before) === JSON.stringify(after) ? [] : whole;
  const kept = old.filter((k) => now.includes(k));
  // Another order is a list of its own.
  if (now.filter((k) => old.includes(k)).some((k, i) => k !== kept[i])) return whole;
  const at = (list: readonly unknown[], keys: readonly string[], key: string) => list[keys.indexOf(key)];
  return [
    ...old.filter((k) => !now.includes(k)).map((remove): FieldEdit => ({ path, remove })),
    ...kept.flatMap((k) => editsBetween(at(before, old, k), at(after, now, k), [...path, `#${k}`])),
    ...now.flatMap((k, i): FieldEdit[] =>
      old.includes(k) ? [] : [{ path, insert: after[i], after: now[i - 1] ?? null }],
    ),
  ];
}

/**
 * A row with the edits made. What it is given is left as it is.
 * @throws GoneError when an edit’s way is not in the row
 */
export const withEdits = <T>(row: T, edits: readonly FieldEdit[]): T =>
  edits.reduce<unknown>((value, edit) => apply(value, edit.path, edit), row) as T;

function apply(value: unknown, path: readonly string[], edit: FieldEdit): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return changed(value, edit);
  if (Array.isArray(value)) {
    const at = step.startsWith('#') ? value.findIndex((e) => keyOf(e) === step.slice(1)) : -1;
    if (at < 0) throw new GoneError(`${step.slice(1)} is not there any more`);
    return value.map((e, i) => (i === at ? apply(e, rest, edit) : e));
  }
  if (!isPlain(value) || !(step in value)) throw new GoneError(`${step} is not there any more`);
  return { ...value, [step]: apply(value[step], rest, edit) };
}

function changed(value: unknown, edit: FieldEdit): unknown {
  if ('value' in edit) return edit.value;
  if ('first' in edit) return value ?? edit.first;
  if (!Array.isArray(value)) throw new GoneError('the list is not there any more');
  if ('remove' in edit) return value.filter((e) => keyOf(e) !== edit.remove);
  const key = keyOf(edit.insert);
  const others = value.filter((e) => keyOf(e) !== key);
  const at = edit.after === null ? 0 : others.findIndex((e) => keyOf(e) === edit.after) + 1;
  // After one that is gone it goes to the end.
  const place = edit.after !== null && at === 0 ? others.length : at;
  return [...others.slice(0, place), edit.insert, ...others.slice(place)];
}
