/** Every reading of a job, sorted and filtered, with verdicts that come in as they are worked out. */
import { rows } from '#core/job/document.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import type { Verdict } from '#core/diagnosis/verdict.ts';
import {
  filtered,
  NO_FILTER,
  rowsOf,
  sorted,
  type Filter,
  type SortKey,
} from '$lib/parts/readings/readingRows.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

/** Milliseconds of judging before the page gets its turn. */
const SLICE = 8;

export class ReadingLog {
  key = $state<SortKey>('at');
  down = $state(true);
  filter = $state.raw<Filter>(NO_FILTER);
  verdicts = $state.raw<ReadonlyMap<string, Verdict>>(new Map());

  /** Inside a component: the judging goes on while the page stands. */
  constructor(private readonly session: () => JobSession) {
    $effect(() => this.judgeAll());
  }

  readonly all = $derived.by(() => rowsOf(this.session().view));
  readonly circuits = $derived.by(() =>
    [...new Set(this.all.map((r) => r.circuit))].filter((c) => c !== '').sort(),
  );
  readonly list = $derived.by(() =>
    sorted(
      filtered(this.all, this.filter, (reading) => this.verdicts.get(reading.id)?.grade ?? null),
      this.key,
      this.down,
    ),
  );

  sortBy = (column: SortKey): void => {
    if (column === this.key) this.down = !this.down;
    else {
      this.key = column;
      this.down = column === 'at';
    }
  };

  private judgeAll(): () => void {
    const { view } = this.session();
    const pending = rows(view.document.readings);
    const found = new Map<string, Verdict>();
    let timer: ReturnType<typeof setTimeout>;
    const work = () => {
      const end = performance.now() + SLICE;
      while (pending.length > 0 && performance.now() < end) {
        const reading = pending.pop()!;
        found.set(reading.id, judgeIn(view, reading));
      }
      this.verdicts = new Map(found);
      if (pending.length > 0) timer = setTimeout(work, SLICE);
    };
    timer = setTimeout(work);
    return () => clearTimeout(timer);
  }
}
