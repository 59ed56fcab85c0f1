/**
 * The grammar of SCPI 1999 over IEEE 488.2: program messages of units parted by semicolons, headers of mnemonics that may
 * be spelled short or long, channel lists, and numbers as they answer.
 */

export interface Unit {
  /** Mnemonics from the root, upper case, without the question mark; `*IDN` stands alone. */
  header: string[];
  query: boolean;
  parameters: string[];
}

/** Longest program message taken, characters. */
export const MOST_MESSAGE = 512;

/** Splits at a separator that stands outside quotes and brackets. */
function split(text: string, separator: string): string[] {
  const parts: string[] = [''];
  let quote = '';
  let depth = 0;
  for (const c of text) {
    if (quote) quote = c === quote ? '' : quote;
    else if (c === '"' || c === "'") quote = c;
    else if (c === '(') depth++;
    else if (c === ')') depth--;
    if (c === separator && !quote && depth === 0) parts.push('');
    else parts[parts.length - 1] += c;
  }
  return parts;
}

/**
 * Reads one program message. A header that does not begin with a colon goes on from where the one before branched.
 * @returns null when it is not of the grammar
 */
export function parseMessage(message: string): Unit[] | null {
  if (message.length > MOST_MESSAGE) return null;
  let path: string[] = [];
  const units: Unit[] = [];
  for (const text of split(message, ';')) {
    const unit = /^\s*(:?)(\*?[A-Za-z][\w]*(?::[A-Za-z][\w]*)*)(\?)?(?:\s+(\S.*?))?\s*$/s.exec(text);
    if (!unit) {
      if (text.trim() === '') continue;
      return null;
    }
    const [, root, words, query, rest] = unit;
    const named = words!.toUpperCase().split(':');
    const common = named[0]!.startsWith('*');
    if (common && (root === ':' || named.length > 1)) return null;
    const header = common || root === ':' ? named : [...path, ...named];
    if (!common) path = header.slice(0, -1);
    const parameters = rest === undefined ? [] : split(rest, ',').map((p) => p.trim());
    units.push({ header, query: query === '?', parameters });
  }
  return units;
}

/**
 * Whether a header is that of a pattern such as `MEASure[:SCALar]:VOLTage:AC`: each mnemonic short (its capitals) or
 * long, those in brackets left out or not.
 */
export function matches(header: readonly string[], pattern: string): boolean {
  const nodes = pattern
    .replaceAll('[:', ':[')
    .split(':')
    .map((node) => ({ word: node.replace(/[[\]]/g, ''), optional: node.startsWith('[') }));
  const from = (h: number, n: number): boolean => {
    const node = nodes[n];
    if (!node) return h === header.length;
    const given = header[h];
    const short = node.word.replace(/[a-z]+/g, '');
    const same = given === short.toUpperCase() || given === node.word.toUpperCase();
    return (same && from(h + 1, n + 1)) || (node.optional && from(h, n + 1));
  };
  return from(0, 0);
}

/** Channels of a list such as `(@1,3)` or `(@1:3)`; null when it is none. */
export function channelsOf(text: string): number[] | null {
  const list = /^\(@\s*([\d\s,:]+)\)$/.exec(text);
  if (!list) return null;
  const channels: number[] = [];
  for (const part of list[1]!.split(',')) {
    const range = /^\s*(\d{1,3})\s*(?::\s*(\d{1,3})\s*)?$/.exec(part);
    if (!range) return null;
    const [first, last] = [Number(range[1]), Number(range[2] ?? range[1])];
    for (let c = first; c <= last; c++) channels.push(c);
  }
  return channels;
}

/** A number as it answers, NR3: `+1.19873E+02`; what is over range is 9.9E37. */
export const OVER_RANGE = 9.9e37;
export function formatNumber(value: number): string {
  const [mantissa, exponent] = Math.abs(value).toExponential(5).split('e') as [string, string];
  const power = Number(exponent);
  const sign = value < 0 ? '-' : '+';
  return `${sign}${mantissa}E${power < 0 ? '-' : '+'}${String(Math.abs(power)).padStart(2, '0')}`;
}

/** Reads NR1, NR2 or NR3; null for anything else, and for what has no value. */
export function parseNumber(text: string): number | null {
  if (!/^\s*[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?\s*$/.test(text)) return null;
  const value = Number(text);
  return Number.isFinite(value) ? value : null;
}
