/**
 * Drives an instrument that speaks SCPI by lines of text, whatever carries them: a serial port, or the simulated meter. One
 * question at a time; what comes late, garbled or not at all is told apart, and none of it is taken for a reading.
 */
import { parseNumber } from './scpi.ts';

/** What carries lines to an instrument and back. */
export interface Link {
  send(text: string): Promise<void>;
  /** Takes what arrives, in pieces of any size, and what ends the link. */
  listen(take: (text: string) => void, lost: (reason: string) => void): void;
  close(): Promise<void>;
}

export class InstrumentError extends Error {
  /** `slow`: no answer in time. `garbled`: an answer that is none. `lost`: the link is gone. */
  readonly kind: 'slow' | 'garbled' | 'lost';
  constructor(kind: InstrumentError['kind'], message: string) {
    super(message);
    this.kind = kind;
  }
}

/** How long an answer may take, ms. */
const TIMEOUT = 1500;
/** After a late answer the line must be quiet for so long before the next question, ms. */
const QUIET = 150;
/** Longest line taken for an answer, characters. */
const MOST_LINE = 2000;

export class Instrument {
  private readonly link: Link;
  private readonly timeout: number;
  private buffer = '';
  private waiting: { resolve(line: string): void; reject(error: InstrumentError): void } | null = null;
  private gone: string | null = null;
  /** An answer to an earlier question may still come. */
  private stale = false;
  private heard = 0;
  private queue: Promise<unknown> = Promise.resolve();

  constructor(link: Link, timeout = TIMEOUT) {
    this.link = link;
    this.timeout = timeout;
    link.listen(
      (text) => this.take(text),
      (reason) => this.lose(reason),
    );
  }

  /** Who answers, from `*IDN?`. @throws InstrumentError */
  async identify(): Promise<string> {
    const answer = await this.ask('*IDN?');
    const parts = answer.split(',');
    if (parts.length !== 4) throw this.garbled(`*IDN? answered “${short(answer)}”`);
    return `${parts[0]!.trim()} ${parts[1]!.trim()}`;
  }

  /** Volts on each of the channels. @throws InstrumentError */
  async volts(channels: readonly number[]): Promise<number[]> {
    const answer = await this.ask(`MEAS:VOLT:AC? (@${channels.join(',')})`);
    const values = answer.split(',').map(parseNumber);
    if (values.length !== channels.length || values.some((v) => v === null || v < 0 || v > 1000))
      throw this.garbled(`expected ${channels.length} voltages, the instrument said “${short(answer)}”`);
    return values as number[];
  }

  /** What came is no answer; the true one may be on its way still. */
  private garbled(message: string): InstrumentError {
    this.stale = true;
    return new InstrumentError('garbled', message);
  }

  /** One question and its answer; questions wait their turn. @throws InstrumentError */
  ask(question: string): Promise<string> {
    const turn = this.queue.then(() => this.exchange(question));
    this.queue = turn.catch(() => {});
    return turn;
  }

  private async exchange(question: string): Promise<string> {
    if (this.stale) await this.drain();
    if (this.gone !== null) throw new InstrumentError('lost', this.gone);
    const answer = new Promise<string>((resolve, reject) => {
      this.waiting = { resolve, reject };
    });
    // Rejections are taken below; one that comes before must not go unheard.
    answer.catch(() => {});
    const timer = setTimeout(() => {
      this.stale = true;
      this.settle()?.reject(
        new InstrumentError('slow', `no answer to ${question} within ${this.timeout / 1000} s`),
      );
    }, this.timeout);
    try {
      await this.link.send(`${question}\n`);
      return await answer;
    } catch (error) {
      if (error instanceof InstrumentError) throw error;
      throw new InstrumentError('lost', error instanceof Error ? error.message : String(error));
    } finally {
      clearTimeout(timer);
      this.waiting = null;
    }
  }

  /** Lets late answers pass until the line is quiet. */
  private async drain(): Promise<void> {
    for (let seen = -1; seen !== this.heard;) {
      seen = this.heard;
      await new Promise((resolve) => setTimeout(resolve, QUIET));
    }
    this.buffer = '';
    this.stale = false;
  }

  private settle() {
    const { waiting } = this;
    this.waiting = null;
    return waiting;
  }

  private take(text: string): void {
    this.heard++;
    this.buffer += text;
    for (let end = this.buffer.search(/[\r\n]/); end >= 0; end = this.buffer.search(/[\r\n]/)) {
      const line = this.buffer.slice(0, end).trim();
      this.buffer = this.buffer.slice(end + 1);
      if (line === '' || this.stale) continue;
      this.settle()?.resolve(line);
    }
    if (this.buffer.length > MOST_LINE) {
      this.buffer = '';
      this.stale = true;
      this.settle()?.reject(
        new InstrumentError('garbled', `more than ${MOST_LINE} characters came without the end of a line`),
      );
    }
  }

  private lose(reason: string): void {
    this.gone = reason;
    this.settle()?.reject(new InstrumentError('lost', reason));
  }

  async close(): Promise<void> {
    this.lose('closed');
    await this.link.close();
  }
}

const short = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

export type LiveState =
  | { state: 'live'; values: number[] }
  /** What was read last stands, with why nothing newer does. */
  | { state: 'slow' | 'garbled'; said: string }
  | { state: 'lost'; said: string };

/**
 * Reads again and again until stopped or lost; a slow or garbled answer is told and tried anew.
 * @param pause between readings, ms
 * @returns stops it
 */
export function watch(
  instrument: Instrument,
  channels: readonly number[],
  pause: number,
  tell: (state: LiveState) => void,
): () => void {
  let stopped = false;
  void (async () => {
    while (!stopped) {
      let state: LiveState;
      try {
        state = { state: 'live', values: await instrument.volts(channels) };
      } catch (error) {
        if (!(error instanceof InstrumentError)) throw error;
        state = { state: error.kind, said: error.message };
      }
      if (stopped) return;
      tell(state);
      if (state.state === 'lost') return;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  })();
  return () => {
    stopped = true;
  };
}
