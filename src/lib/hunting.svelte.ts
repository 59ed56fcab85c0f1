/** What a hunt says, kept in step with its call by a worker. */
import { getContext, setContext } from 'svelte';
import { KINDS, type CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import type { Advised } from '#core/procedures/hunting/advise.ts';
import type { JobSession } from './store/session.svelte.ts';
import { allFaults } from './store/faults.ts';
import { HuntFeed } from './workers/hunt.ts';

export class Hunting {
  /** What was said last; while it is worked out anew the last one stands. */
  advised = $state.raw<Advised | null>(null);
  busy = $state(false);
  problem = $state('');
  /** Of which document the last word is. */
  private of: unknown = null;
  private asked: unknown = null;
  private found: [CauseKind, number][] | null = null;
  private readonly feed = new HuntFeed(
    (advised) => {
      this.advised = advised;
      this.of = this.asked;
      this.busy = false;
      this.problem = '';
    },
    (error) => {
      this.busy = false;
      this.problem = error instanceof Error ? error.message : String(error);
    },
  );

  constructor(
    private readonly session: () => JobSession,
    private readonly callId: () => string,
  ) {}

  /** Asks where something changed since. */
  ask = async (): Promise<void> => {
    const { document } = this.session();
    if (this.asked === document) return;
    this.asked = document;
    this.busy = true;
    if (document.job.settings.hunt.learn && this.found === null) {
      const counts = new Map<CauseKind, number>();
      for (const { fault } of await allFaults())
        if (fault.cause in KINDS) {
          const kind = fault.cause as CauseKind;
          counts.set(kind, (counts.get(kind) ?? 0) + 1);
        }
      this.found = [...counts];
    }
    const found = document.job.settings.hunt.learn ? (this.found ?? []) : [];
    this.feed.ask({ document, callId: this.callId(), found });
  };

  /** The last word is of the job as it is now. */
  get current(): boolean {
    return !this.busy && this.of === this.session().document;
  }

  stop = (): void => {
    this.feed.stop();
    this.busy = false;
    this.asked = null;
    this.problem = '';
  };
}

const KEY = Symbol('hunting');
export const provideHunting = (hunting: Hunting): Hunting => setContext(KEY, hunting);
export const useHunting = (): Hunting => getContext(KEY);
