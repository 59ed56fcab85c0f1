/**
 * Look-ups over a document: worked out when they are asked for, kept until a change touches what they rest on. Each is
 * declared in the folder that it belongs to; nothing else lists it.
 */
import type { Touched } from './touched.ts';
import type { View } from './view.ts';

/** Keys whose values a change makes stale; `all` of them. */
type StaleKeys = (touched: Touched) => Iterable<string> | 'all';

/** What makes each look-up stale, in the order of their declaration. */
const declared: StaleKeys[] = [];

/**
 * Declares a look-up, by rows of the document or by keys of another kind.
 * @param stale which of its keys, ids for rows, a change makes stale; a change to the job's own row makes stale all of
 *   every look-up
 * @param compute a value for a row or a key, never undefined
 */
export function lookup<K extends string | { id: string }, T>(
  stale: StaleKeys,
  compute: (view: View, of: K) => T,
): (view: View, of: K) => T {
  const slot = declared.length;
  declared.push(stale);
  return (view, of) => {
    const memo = view.memos.at(slot);
    const key = typeof of === 'string' ? of : of.id;
    let value = memo.get(key) as T | undefined;
    if (value === undefined) {
      value = compute(view, of);
      memo.set(key, value);
    }
    return value;
  };
}

/** A look-up with one value for the whole document. */
export function lookupOfAll<T>(
  isStale: (touched: Touched) => boolean,
  compute: (view: View) => T,
): (view: View) => T {
  const of = lookup(
    (touched) => (isStale(touched) ? 'all' : []),
    (view: View, _: string) => compute(view),
  );
  return (view) => of(view, 'all');
}

/** What has been worked out, by look-up and key. */
export class Memos {
  private readonly slots: Map<string, unknown>[] = [];

  at(slot: number): Map<string, unknown> {
    return (this.slots[slot] ??= new Map());
  }

  drop(touched: Touched): void {
    for (const [slot, memo] of this.slots.entries()) {
      if (!memo || memo.size === 0) continue;
      const stale = touched.job ? 'all' : declared[slot]!(touched);
      if (stale === 'all') memo.clear();
      else for (const key of stale) memo.delete(key);
    }
  }
}
