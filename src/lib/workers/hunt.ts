import { wrap, type Remote } from 'comlink';
import type { CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import type { JobDocument } from '#core/job/schema.ts';
import type { Advised } from '#core/procedures/hunting/advise.ts';
import type { HuntWorker } from './hunt.worker.ts';

interface Question {
  document: JobDocument;
  callId: string;
  found: [CauseKind, number][];
}

/** Asks a worker what a hunt says; while it works only the newest question waits. */
export class HuntFeed {
  private worker: Worker | null = null;
  private remote: Remote<HuntWorker> | null = null;
  private waiting: Question | null = null;
  private busy = false;
  private readonly tell: (advised: Advised | null) => void;
  private readonly fail: (error: unknown) => void;

  constructor(tell: (advised: Advised | null) => void, fail: (error: unknown) => void) {
    [this.tell, this.fail] = [tell, fail];
  }

  ask(question: Question): void {
    this.waiting = question;
    if (!this.busy) void this.pump();
  }

  /** Ends what it is at; the next question starts anew. */
  stop(): void {
    this.worker?.terminate();
    [this.worker, this.remote, this.waiting, this.busy] = [null, null, null, false];
  }

  private start(): Remote<HuntWorker> {
    this.worker = new Worker(new URL('./hunt.worker.ts', import.meta.url), { type: 'module' });
    this.worker.onerror = (event) => {
      this.stop();
      this.fail(new Error(event.message || 'the worker for hunts did not start'));
    };
    return wrap<HuntWorker>(this.worker);
  }

  private async pump(): Promise<void> {
    this.busy = true;
    try {
      while (this.waiting) {
        const { document, callId, found } = this.waiting;
        this.waiting = null;
        this.remote ??= this.start();
        const advised = await this.remote.advise(document, callId, new Date().toISOString(), found);
        // What waits is newer: nobody is told what is past.
        if (!this.waiting) this.tell(advised);
      }
    } catch (error) {
      this.fail(error);
    } finally {
      this.busy = false;
    }
  }
}
