/** Words for readings and the person who takes them. */
import type { Reading } from '../core/job/schema.ts';

export const PAIRS = [
  ['hotNeutral', 'Hot–neutral'],
  ['hotGround', 'Hot–ground'],
  ['neutralGround', 'Neutral–ground'],
] as const;
export const LAMPS = ['hot–neutral', 'hot–ground', 'neutral–ground'] as const;

export const describeStage = (stage: Reading['stage']): string =>
  stage === 'as-found' ? 'As found' : 'As left';

export function describeReading(reading: Reading): string {
  const parts = [
    reading.lamps && `lamps ${reading.lamps.map((lit) => (lit ? '●' : '○')).join(' ')}`,
    ...PAIRS.map(([pair, label]) => reading[pair] !== null && `${label.toLowerCase()} ${reading[pair]} V`),
    reading.loadAmps > 0 && `with ${reading.loadAmps} A on`,
  ];
  return `${describeStage(reading.stage)}: ${parts.filter(Boolean).join('; ')}`;
}

export const localTime = (iso: string): string =>
  new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

const KEY = 'hekto-by';

/** Who worked on this device last; empty when nobody said so. */
export function lastPerson(): string {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
}

export function rememberPerson(name: string): void {
  try {
    localStorage.setItem(KEY, name);
  } catch {
    // Storage may be shut off; the name holds for this visit.
  }
}
