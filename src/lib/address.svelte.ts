/** What is chosen on a page is kept in its address alone, so that Back, a reload and a link show the same. */
import { goto } from '$app/navigation';
import { page } from '$app/state';

/** What is chosen of a job, as against how a page shows it; goes along from one phase to the next. */
const THINGS = ['level', 'area', 'box', 'fixture', 'circuit', 'panel'] as const;

/** Ids of what is chosen; of outlets several, parted by commas. */
export type Things = Readonly<Partial<Record<(typeof THINGS)[number], string>>>;

/** Names and values of an address; null takes a name out of it. */
type Values = Readonly<Record<string, string | null>>;

class Address {
  /** Ahead of the address bar for the moment that a navigation takes. */
  private search = $derived(page.url.search);
  private query = $derived(new URLSearchParams(this.search));

  get = (name: string): string | null => this.query.get(name);

  /** The value of a name that has a few; the first of them where the address says nothing, or something else. */
  oneOf = <T extends string>(name: string, values: readonly [T, ...T[]]): T =>
    values.find((v) => v === this.query.get(name)) ?? values[0];

  /** Chooses these things in place of what was chosen, and shows them in a certain way. Back undoes it. */
  choose(things: Things, shown: Values = {}): void {
    const none = Object.fromEntries(THINGS.map((name) => [name, null]));
    this.show({ ...none, ...things, ...shown });
  }

  /** Changes how the page shows what is chosen. Back undoes it. */
  show(values: Values): void {
    const next = new URLSearchParams(this.query);
    for (const [name, value] of Object.entries(values)) {
      if (value === null) next.delete(name);
      else next.set(name, value);
    }
    const search = next.size > 0 ? `?${next}` : '';
    if (search === this.search) return;
    this.search = search;
    void goto(page.url.pathname + search, { noScroll: true, keepFocus: true });
  }

  /** The address of a phase of the job with the same things chosen. */
  phase(jobId: string, path: string): string {
    const kept = new URLSearchParams();
    for (const name of THINGS) {
      const value = this.query.get(name);
      if (value !== null) kept.set(name, value);
    }
    return `/job/${jobId}/${path}${kept.size > 0 ? `?${kept}` : ''}`;
  }
}

export const address = new Address();
