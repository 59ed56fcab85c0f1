/** Measurements in words. */
import type { Measurement } from '#core/job/schema.ts';
import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
import { round } from '#core/units/quantity.ts';

type Shown = Pick<Measurement, 'instrument' | 'shows' | 'value' | 'lamps' | 'seconds'>;

export const SHOWN_WORDS: Readonly<Record<Measurement['shows'], string>> = {
  value: 'a figure',
  over: 'Over range',
  nothing: 'Nothing',
  live: 'Refuses: live',
  sounds: 'Sounds',
  lamps: 'lamps',
  trips: 'Trips',
  holds: 'Holds',
};

/** What an instrument showed, with its unit. */
export function describeShown({ instrument, shows, value, lamps, seconds }: Shown): string {
  const { unit } = INSTRUMENT_FACTS[instrument];
  if (shows === 'value' && value !== null)
    return unit === '%'
      ? `${round(value, 1)} % at 15 A`
      : `${round(value, value < 10 ? 3 : 1)} ${unit ?? ''}`;
  if (shows === 'lamps' && lamps) return `lamps ${lamps.join(', ')}`;
  if (shows === 'trips' && seconds !== null) return `Trips in ${round(seconds, 2)} s`;
  return SHOWN_WORDS[shows];
}

/** A measurement in a line: where, with what set, what it showed. */
export function describeMeasurement(m: Measurement): string {
  const { unit } = INSTRUMENT_FACTS[m.instrument];
  const where = m.toName === '' ? m.nodeName : `${m.nodeName} to ${m.toName}`;
  const with_ = [
    m.loadAmps > 0 && `${m.loadAmps} A on`,
    m.gain !== null && `gain ${m.gain}`,
    m.testVolts !== null && `${m.testVolts} V test`,
    m.testMilliamps !== null && `${m.testMilliamps} mA`,
    m.inputOhms !== null &&
      unit === 'V' &&
      `${m.inputOhms >= 1e6 ? `${m.inputOhms / 1e6} MΩ` : `${m.inputOhms / 1000} kΩ`} input`,
    m.stands !== 'unknown' && m.stands,
    m.sender !== '' && `sent from ${m.sender}`,
    m.temporaries.length > 0 && `${m.temporaries.length} tied or apart`,
    m.simulated && 'practice',
  ];
  return [where, ...with_.filter(Boolean)].join('; ');
}
