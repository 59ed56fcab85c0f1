/** Words for readings and the person who takes them. */
import { PAIR_WORDS, READ_PAIRS } from '#core/diagnosis/conditions.ts';
import type { LampTesterSettings, Meter, Reading } from '#core/job/schema.ts';
import { METERS } from '#core/job/schema/words.ts';
import { keep, kept } from './store/kept.ts';

export const PAIRS = READ_PAIRS.map((pair) => [pair, PAIR_WORDS[pair]] as const);
export const LAMPS = ['hot–neutral', 'hot–ground', 'neutral–ground'] as const;
const LAMP_KEYS = ['HN', 'HG', 'NG'] as const;

/** A tester’s lamps from left to right: which pair each stands for, and its color. */
export function lampsOf(
  tester: LampTesterSettings,
): { index: 0 | 1 | 2; name: (typeof LAMPS)[number]; color: LampTesterSettings['hotNeutral'] }[] {
  const colors = [tester.hotNeutral, tester.hotGround, tester.neutralGround] as const;
  return tester.order.split(' ').map((key) => {
    const index = LAMP_KEYS.indexOf(key as (typeof LAMP_KEYS)[number]) as 0 | 1 | 2;
    return { index, name: LAMPS[index], color: colors[index] };
  });
}

export const describeStage = (stage: Reading['stage']): string =>
  stage === 'as-found' ? 'As found' : 'As left';

const describeHalf = (half: Reading['half']): string =>
  ({ both: 'whole outlet', top: 'top half', bottom: 'bottom half' })[half];

export function describeReading(reading: Reading): string {
  const parts = [
    reading.lamps && `lamps ${reading.lamps.map((lit) => (lit ? '●' : '○')).join(' ')}`,
    ...PAIRS.map(([pair, label]) => reading[pair] !== null && `${label.toLowerCase()} ${reading[pair]} V`),
    reading.loadAmps > 0 && `with ${reading.loadAmps} A on`,
    reading.groundOhms !== null && `ground path ${reading.groundOhms} Ω`,
    reading.half !== 'both' && describeHalf(reading.half),
    reading.openBox && 'box open, energized measurement',
  ];
  return `${describeStage(reading.stage)}: ${parts.filter(Boolean).join('; ')}`;
}

const LOCAL_TIME = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
export const localTime = (iso: string): string => LOCAL_TIME.format(new Date(iso));

/** The minute in UTC, such as `2026-11-25 14:05`. */
export const utc = (iso: string): string => iso.slice(0, 16).replace('T', ' ');

/** Today in the place where the device is, such as `2026-11-25`. */
export const today = (): string => {
  const now = new Date();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
};

const KEY = 'hekto-by';

/** Who worked on this device last; empty when nobody said so. */
export const lastPerson = (): string => kept(KEY) ?? '';

export const rememberPerson = (name: string): void => keep(KEY, name);

/** A name as it is kept; the next form offers it. */
export function signed(name: string): string {
  const person = name.trim().slice(0, 80);
  rememberPerson(person);
  return person;
}

const METER_KEY = 'hekto-meter';

/** What this device’s volts were read with last. */
export const lastMeter = (): Meter => METERS.find((m) => m === kept(METER_KEY)) ?? 'unknown';

/** Keeps what is in the hand for the next reading. */
export function keptMeter(meter: Meter): Meter {
  keep(METER_KEY, meter);
  return meter;
}
