/** Sets that a search has come by and priced, to be looked through before it is asked again. */
import type { Pricer } from './problem.ts';

export interface Column {
  sites: readonly number[];
  cents: number;
  /** The price is that of its best tree, not a bound. */
  exact: boolean;
}

/** Most sets that are kept: about what is looked through as fast as a program of them is solved. */
const MOST_KEPT = 200_000;

export class Pool {
  private readonly pricer: Pricer;
  private readonly columns = new Map<number, Column>();

  constructor(pricer: Pricer) {
    this.pricer = pricer;
  }
  add(column: Column): void {
    if (column.cents === Infinity || this.columns.size >= MOST_KEPT) return;
    this.columns.set(this.pricer.key(column.sites), column);
  }
  [Symbol.iterator](): Iterator<Column> {
    return this.columns.values();
  }
}
