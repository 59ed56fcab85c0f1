/**
 * Two phones and no network: one listens at the outlet for when what is loud there stops, the other stamps each breaker that
 * is turned off and on again. Both are started at the same moment; what was heard goes over as a short code, and is matched
 * by time. The clocks of the two may show anything.
 */

/** Seconds since the common start that something was off, from when it stopped until it went on again. */
export interface Span {
  from: number;
  to: number;
}
export interface Stamp extends Span {
  /** Space of the breaker. */
  space: string;
}

/** A sound has stopped below this share of what it was, and is back above that. */
const STOPPED = 0.35;
const BACK = 0.6;
/** For as long, seconds: a knock or a pause between two words is neither. */
const HOLDS = 0.7;
/** What it is when it runs is taken from as many seconds. */
const SETTLE = 3;

/** Tells from the loudness of a room when what is loud in it stops and goes on. */
export class SoundWatch {
  private readonly first: number[] = [];
  /** Loudness while it runs; null until it has settled. */
  running: number | null = null;
  private stoppedAt: number | null = null;
  /** Since when it is on the other side. */
  private turned: number | null = null;
  private readonly heard: Span[] = [];

  /**
   * @param t seconds since the start, rising
   * @param level root mean square of the sound, in any unit
   */
  hear(t: number, level: number): void {
    if (this.running === null) {
      this.first.push(level);
      if (t >= SETTLE) this.running = [...this.first].sort((a, b) => a - b)[this.first.length >> 1]!;
      return;
    }
    const stopped = this.stoppedAt !== null;
    const other = stopped ? level > BACK * this.running : level < STOPPED * this.running;
    if (!other) {
      this.turned = null;
      return;
    }
    this.turned ??= t;
    if (t - this.turned < HOLDS) return;
    if (stopped) this.heard.push({ from: this.stoppedAt!, to: this.turned });
    this.stoppedAt = stopped ? null : this.turned;
    this.turned = null;
  }

  get silent(): boolean {
    return this.stoppedAt !== null;
  }
  /** What was heard, one that still lasts left out. */
  get spans(): readonly Span[] {
    return this.heard;
  }
}

/** Letters and digits that are not taken for each other. */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** A half second is as fine as a thumb. */
const STEP = 0.5;
const START_BITS = 14;
const LONG_BITS = 6;
/** Most spans that a code carries: the longest ones. */
export const MOST_SPANS = 10;

const checkOf = (digits: readonly number[]): number =>
  digits.reduce((sum, d, i) => (sum * 33 + d * (i + 1)) % 1021, 7);

/** What was heard as a code to be typed or scanned, in groups of four. */
export function codeOf(spans: readonly Span[]): string {
  const longest = [...spans].sort((a, b) => b.to - b.from - (a.to - a.from)).slice(0, MOST_SPANS);
  const bits = longest
    .sort((a, b) => a.from - b.from)
    .map(({ from, to }) => {
      const start = Math.min(2 ** START_BITS - 1, Math.round(from / STEP));
      const long = Math.min(2 ** LONG_BITS - 1, Math.max(1, Math.round((to - from) / STEP)));
      return start * 2 ** LONG_BITS + long;
    });
  const digits = bits.flatMap((b) => [15, 10, 5, 0].map((shift) => Math.floor(b / 2 ** shift) % 32));
  const check = checkOf(digits);
  const all = [...digits, check >> 5, check & 31].map((d) => ALPHABET[d]!).join('');
  return all.replace(/(.{4})(?=.)/g, '$1-');
}

/** What a code says was heard; null where it is none, or was mistyped. */
export function spansOf(code: string): Span[] | null {
  const plain = code
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');
  const digits = [...plain].map((c) => ALPHABET.indexOf(c));
  if (digits.length < 2 || digits.includes(-1) || (digits.length - 2) % 4 !== 0) return null;
  const [high, low] = digits.slice(-2) as [number, number];
  const body = digits.slice(0, -2);
  if (checkOf(body) !== high * 32 + low) return null;
  return Array.from({ length: body.length / 4 }, (_, i) => {
    const value = body.slice(4 * i, 4 * i + 4).reduce((sum, d) => sum * 32 + d, 0);
    const from = Math.floor(value / 2 ** LONG_BITS) * STEP;
    return { from, to: from + (value % 2 ** LONG_BITS) * STEP };
  });
}

/** How far two thumbs may be apart at the start, seconds. */
const APART = 3;
/** How far a stop that was heard may be from its stamp once the start is fitted, seconds: a thumb and an ear. */
const NEAR = 1.6;

/** How much longer or shorter than its flip a stop may be heard, seconds: that needs no common start. */
const AS_LONG = 1;

export interface Match {
  /** Breakers whose flip agrees with a stop that was heard. */
  spaces: readonly string[];
  /** Stops that no flip explains: a pause of the sound, a door. */
  unexplained: number;
}

/**
 * Matches what was heard to what was flipped. One shift is fitted to all of it; a stop counts only where its beginning and
 * its end both agree with one flip.
 */
export function matchPhones(stamps: readonly Stamp[], heard: readonly Span[]): Match {
  const fits = (stamp: Stamp, span: Span, shift: number): number => {
    const from = Math.abs(span.from + shift - stamp.from);
    const to = Math.abs(span.to + shift - stamp.to);
    const long = Math.abs(span.to - span.from - (stamp.to - stamp.from));
    return from <= NEAR && to <= NEAR && long <= AS_LONG ? 2 * NEAR - from - to : -1;
  };
  let best = { score: 0, pairs: new Map<string, Span>() };
  for (let shift = -APART; shift <= APART + 1e-9; shift += 0.1) {
    const pairs = new Map<string, Span>();
    let score = 0;
    for (const span of heard) {
      const near = stamps
        .map((stamp) => ({ stamp, fit: fits(stamp, span, shift) }))
        .filter(({ fit }) => fit >= 0)
        .sort((a, b) => b.fit - a.fit)[0];
      if (!near) continue;
      pairs.set(near.stamp.space, span);
      score += 1 + near.fit / (2 * NEAR) - 0.02 * Math.abs(shift);
    }
    if (score > best.score + 1e-9) best = { score, pairs };
  }
  const used = new Set(best.pairs.values());
  return {
    spaces: [...best.pairs.keys()],
    unexplained: heard.filter((span) => !used.has(span)).length,
  };
}
