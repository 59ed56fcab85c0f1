import { wrap, type Remote } from 'comlink';
import { Board } from '#core/code/board.ts';
import type { Finding } from '#core/code/rule.ts';
import { changesBetween } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';
import type { FindingsWorker } from './findings.worker.ts';

/**
 * Keeps the findings worker in step with a document. While it is busy only the newest document waits, so a
 * drag never queues up work.
 */
export class FindingsFeed {
  private readonly worker = new Worker(new URL('./findings.worker.ts', import.meta.url), { type: 'module' });
  private readonly remote: Remote<FindingsWorker> = wrap<FindingsWorker>(this.worker);
  /** What the worker has found, kept in step by its changes: what they leave alone stays the same object. */
  private readonly board = new Board();
  private sent: JobDocument | null = null;
  private waiting: JobDocument | null = null;
  private busy = false;
  private readonly onFindings: (findings: Finding[]) => void;
  private readonly onError: (error: unknown) => void;

  constructor(onFindings: (findings: Finding[]) => void, onError: (error: unknown) => void) {
    this.onFindings = onFindings;
    this.onError = onError;
    this.worker.onerror = (event) => onError(new Error(event.message || 'the findings worker did not start'));
  }

  show(document: JobDocument): void {
    this.waiting = document;
    if (!this.busy) void this.pump();
  }

  stop(): void {
    this.worker.terminate();
  }

  private async pump(): Promise<void> {
    this.busy = true;
    try {
      while (this.waiting) {
        const document = this.waiting;
        this.waiting = null;
        const change = this.sent
          ? await this.remote.apply(changesBetween(this.sent, document))
          : await this.remote.load(document);
        this.sent = document;
        this.board.apply(change);
        this.onFindings(this.board.findings());
      }
    } catch (error) {
      this.onError(error);
    } finally {
      this.busy = false;
    }
  }
}
