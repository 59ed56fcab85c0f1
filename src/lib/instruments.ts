/** What carries lines to instruments from the browser: a serial port, or the server’s simulated meter. */
import type { Link } from '#core/instruments/driver.ts';
import type { MeterState } from '#core/instruments/simulated.ts';
import type { Trouble } from '#core/formats/instrumentSetup.ts';

/** The part of Web Serial that is used. */
interface Port {
  readable: ReadableStream<Uint8Array> | null;
  writable: WritableStream<Uint8Array> | null;
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
}
interface Serial {
  requestPort(): Promise<Port>;
}

export const serial = (): Serial | null =>
  (globalThis.navigator as (Navigator & { serial?: Serial }) | undefined)?.serial ?? null;

export const BAUD_RATES = [9600, 19200, 57600, 115200] as const;

/** Asks for a port and opens it. @throws when none is chosen or it is in use */
export async function serialLink(source: Serial, baudRate: number): Promise<Link> {
  const port = await source.requestPort();
  await port.open({ baudRate });
  const writer = port.writable!.getWriter();
  const reader = port.readable!.getReader();
  const encoder = new TextEncoder();
  return {
    send: (text) => writer.write(encoder.encode(text)),
    listen(take, lost) {
      const decoder = new TextDecoder();
      void (async () => {
        try {
          for (;;) {
            const { done, value } = await reader.read();
            if (done) return lost('the port was closed');
            take(decoder.decode(value, { stream: true }));
          }
        } catch (error) {
          lost(error instanceof Error ? error.message : String(error));
        }
      })();
    },
    async close() {
      await reader.cancel().catch(() => {});
      await writer.close().catch(() => {});
      reader.releaseLock();
      await port.close().catch(() => {});
    },
  };
}

export interface SimulatedSetup {
  job: unknown;
  circuit: string;
  box: string;
  dead: boolean;
  hidden: number | null;
  trouble: Trouble;
}

/** The simulated meter: each line goes with what the meter remembers, which comes back behind the answers. */
export function simulatedLink(setup: SimulatedSetup, fetcher: typeof fetch = fetch): Link {
  let state: MeterState | null = null;
  let take: (text: string) => void = () => {};
  let lost: (reason: string) => void = () => {};
  const stop = new AbortController();

  async function exchange(text: string): Promise<void> {
    const response = await fetcher('/api/instrument', {
      method: 'POST',
      headers: { 'content-type': 'application/x-scpi' },
      body: `${JSON.stringify({ ...setup, state })}\n${text}`,
      signal: stop.signal,
    });
    if (!response.ok || !response.body)
      throw new Error(`the server answered ${response.status} ${response.statusText}`);
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    let rest = '';
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      rest += value;
      for (let end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n')) {
        const line = rest.slice(0, end);
        rest = rest.slice(end + 1);
        if (line.startsWith('#')) state = JSON.parse(line.slice(1)) as MeterState;
        else take(`${line}\n`);
      }
    }
  }

  return {
    // Answers come by `listen`; a question is sent when it is on its way.
    send(text) {
      exchange(text).catch((error: unknown) => {
        if (!stop.signal.aborted) lost(error instanceof Error ? error.message : String(error));
      });
      return Promise.resolve();
    },
    listen(taker, loser) {
      take = taker;
      lost = loser;
    },
    close() {
      stop.abort();
      return Promise.resolve();
    },
  };
}
