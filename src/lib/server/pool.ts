/**
 * Worker threads for what takes long: a bounded queue before them, and a limit on each piece of work. A thread that goes
 * past it is ended and another takes its place.
 */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Answer } from './work.ts';

/** No room in the queue: come again after so many seconds. */
export class BusyError extends Error {
  override name = 'BusyError';
  readonly retryAfter: number;
  constructor(retryAfter: number) {
    super('busy');
    this.retryAfter = retryAfter;
  }
}
/** The work took longer than it may. */
export class TooLongError extends Error {
  override name = 'TooLongError';
}

export interface PoolOptions {
  threads: number;
  /** Pieces of work that may wait. */
  waiting: number;
  /** Longest a piece of work may take, ms. */
  limit: number;
}
const POOL: PoolOptions = {
  threads: Math.max(1, availableParallelism() - 1),
  waiting: 16,
  limit: 10000,
};
/** Memory of a thread, MB: the largest job the server reads needs about 300. */
const THREAD_MB = 768;

interface Piece {
  text: string;
  done(answer: Answer): void;
  failed(error: Error): void;
}

export class Pool {
  private readonly idle: Worker[] = [];
  private readonly queue: Piece[] = [];
  private running = 0;
  private readonly url: URL;
  private readonly options: PoolOptions;

  /** @param url of the threads' code */
  constructor(url: URL, options: PoolOptions = POOL) {
    this.url = url;
    this.options = options;
  }

  /** @throws BusyError at once when too much waits; TooLongError */
  run(text: string): Promise<Answer> {
    if (this.running >= this.options.threads && this.queue.length >= this.options.waiting)
      return Promise.reject(new BusyError(Math.ceil(this.options.limit / 1000)));
    return new Promise((done, failed) => {
      this.queue.push({ text, done, failed });
      this.next();
    });
  }

  private next(): void {
    if (this.running >= this.options.threads) return;
    const piece = this.queue.shift();
    if (!piece) return;
    this.running++;
    const worker =
      this.idle.pop() ?? new Worker(this.url, { resourceLimits: { maxOldGenerationSizeMb: THREAD_MB } });
    const settle = (reuse: boolean) => {
      clearTimeout(timer);
      worker.off('message', answered).off('error', broke).off('exit', left);
      if (reuse) this.idle.push(worker);
      else void worker.terminate();
      this.running--;
      this.next();
    };
    const answered = (answer: Answer) => {
      settle(true);
      piece.done(answer);
    };
    const broke = (error: Error) => {
      settle(false);
      piece.failed(error);
    };
    const left = () => broke(new Error('the thread ended'));
    const timer = setTimeout(() => broke(new TooLongError('took too long')), this.options.limit);
    worker.on('message', answered).on('error', broke).on('exit', left);
    worker.postMessage(piece.text);
  }

  /** Ends the threads that wait for work. */
  async close(): Promise<void> {
    await Promise.all(this.idle.splice(0).map((w) => w.terminate()));
  }
}
