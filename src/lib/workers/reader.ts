import { wrap } from 'comlink';
import { InvalidError } from '#core/job/validate.ts';
import type { Outcome, Reader } from './reader.worker.ts';

/** Longest time that a file may take to be read, ms. */
const LIMIT_MS = 20000;

type Value<K extends keyof Reader> = Extract<ReturnType<Reader[K]>, { ok: true }>['value'];

/**
 * Reads a file’s text in a worker of its own.
 * @param stop ends it
 * @throws InvalidError when it is refused, takes too long or is stopped
 */
export async function readApart<K extends keyof Reader>(
  kind: K,
  text: string,
  stop?: AbortSignal,
): Promise<Value<K>> {
  const worker = new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module' });
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    const remote = wrap<Reader>(worker);
    const read = remote[kind] as unknown as (text: string) => Promise<Outcome<Value<K>>>;
    const ended = new Promise<never>((_, reject) => {
      const end = (message: string) => reject(new InvalidError([{ path: 'file', message }]));
      timer = setTimeout(
        () => end(`took longer than ${LIMIT_MS / 1000} s to read; nothing of it was kept`),
        LIMIT_MS,
      );
      stop?.addEventListener('abort', () => end('was not read: stopped'));
      worker.onerror = (event) => reject(new Error(event.message || 'the reader did not start'));
    });
    const outcome = await Promise.race([read(text), ended]);
    if (!outcome.ok) throw new InvalidError(outcome.problems);
    return outcome.value;
  } finally {
    clearTimeout(timer);
    worker.terminate();
  }
}
