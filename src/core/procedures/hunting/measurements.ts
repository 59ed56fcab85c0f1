/** What instruments showed on a circuit, as findings of a hunt: what was touched is a pair of slots, or the breaker’s hot. */
import { PAIRS, type DeadPair, type Finding } from '#core/diagnosis/hunt/evidence.ts';
import { HIGH_OHMS, LOW_OHMS } from '#core/instruments/meter.ts';
import type { Measurement } from '#core/job/schema.ts';

/** The pair of slots between two probes; null for any other places. */
function pairOf({ node, to }: Measurement): DeadPair | null {
  const roleOf = (key: string | null) =>
    /^face\.(?:(?:top|bottom)\.)?(hot|neutral|ground)$/.exec(key ?? '')?.[1];
  const both = [roleOf(node), roleOf(to)];
  const has = (a: string, b: string) => both.includes(a) && both.includes(b);
  if (has('hot', 'neutral')) return 'hotNeutral';
  if (has('hot', 'ground')) return 'hotGround';
  return has('neutral', 'ground') ? 'neutralGround' : null;
}

const NO_VOLTS = Object.fromEntries(PAIRS.map((p) => [p, null])) as Record<(typeof PAIRS)[number], null>;

/** @param stop of the outlet on the circuit */
export function findingsOf(measurement: Measurement, stop: number): Finding[] {
  const { instrument, shows, value, lamps, loadAmps, inputOhms, node } = measurement;
  if (measurement.simulated) return [];
  const pair = pairOf(measurement);
  const ohms = shows === 'over' ? Infinity : value;
  switch (instrument) {
    case 'low-impedance meter':
    case 'high-impedance meter':
    case 'two-pole tester': {
      if (pair === null || shows !== 'value' || value === null) return [];
      const meterOhms = inputOhms ?? (instrument === 'high-impedance meter' ? HIGH_OHMS : LOW_OHMS);
      const volts = { ...NO_VOLTS, [pair]: value };
      return [{ kind: 'volts', stop, volts, reference: null, amps: loadAmps, free: null, meterOhms }];
    }
    case 'three-lamp tester':
      return lamps === null
        ? []
        : [{ kind: 'lamps', stop, lamps: [lamps[0] === 'lit', lamps[1] === 'lit', lamps[2] === 'lit'] }];
    case 'ohmmeter':
      return pair === null || ohms === null ? [] : [{ kind: 'ohms', stop, pair, ohms }];
    case 'insulation tester':
      return pair === null || ohms === null ? [] : [{ kind: 'insulation', stop, pair, megohms: ohms / 1e6 }];
    case 'clamp meter':
      return node === 'panel.hot' && value !== null ? [{ kind: 'amps', amps: value }] : [];
    default:
      return [];
  }
}
