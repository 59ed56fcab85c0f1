/**
 * How likely what was read at the slots of an outlet is, from the volts that a cause puts there in one scene. It is asked
 * hundreds of thousands of times for one reading, so that nothing is made anew on the way.
 */
import { LOW_OHMS } from '#core/instruments/meter.ts';
import {
  litShare,
  normal,
  Sheet,
  SLIPS,
  SOURCE,
  slipDensity,
  utilityDensity,
  voltsAt,
  voltsDensity,
  worksShare,
} from './densities.ts';
import { PAIRS, type Finding } from './evidence.ts';
import { FIELD, FLOATS, NOMINAL, underLoad, WIDTH } from './fields.ts';
import type { Traits } from './traits.ts';

/** Findings that follow from the network itself: two causes at once are worked out, not guessed. */
export type Electrical = Extract<Finding, { kind: 'volts' | 'lamps' | 'works' | 'shock' }>;
const ELECTRICAL: readonly Finding['kind'][] = ['volts', 'lamps', 'works', 'shock'];
export const isElectrical = (finding: Finding): finding is Electrical => ELECTRICAL.includes(finding.kind);

/** A row of volts, by field. */
export type Row = Float32Array | Float64Array;
const DEAD: Row = new Float64Array(WIDTH);

/** Share of the time that an overload is on while something is read, and volts that it pulls. */
const OFTEN_ON = 0.35;
const OVERLOADED = 6;

/** Volts that no leg has against its neutral where that is whole. */
const ABOVE_LEG = 1.08 * NOMINAL;

const sheet = new Sheet();
const loadedRow = new Float64Array(WIDTH);

/** The row of a table from a place on, with the load of a finding put on; a dead one where what feeds it is open. */
export function rowOf(finding: Electrical, table: Row, at: number, off: boolean, into: Row): void {
  if (off) {
    into.set(DEAD);
    return;
  }
  for (let f = 0; f < WIDTH; f++) into[f] = table[at + f]!;
  const amps = finding.kind === 'volts' ? finding.amps : 0;
  if (amps <= 0) return;
  loadedRow.set(into);
  PAIRS.forEach((pair, k) => (into[FIELD.high + k] = underLoad(loadedRow, pair, amps)));
}

const floats = (row: Row, pair: number): boolean => row[FIELD.ohms + pair]! > FLOATS;

/**
 * @param row volts of the fields at that outlet
 * @param spreads what an unknown joint spreads each field, volts
 * @param sound volts of the first pairs there with nothing the matter, same scene
 * @param wanders what loads elsewhere in the house, by a cause before the panel, move all volts of the leg by together
 * @param guessed the lengths of the cables are not known
 */
export function shareOf(
  finding: Electrical,
  row: Row,
  spreads: Row | null,
  sound: Row,
  soundAt: number,
  traits: Traits,
  wanders: number,
  guessed: boolean,
): number {
  switch (finding.kind) {
    case 'volts': {
      const usual = voltsShare(finding, row, spreads, 0, sound, soundAt, traits, wanders, guessed);
      // Too much plugged in may be on or off while it is read.
      return traits.overload
        ? (1 - OFTEN_ON) * usual +
            OFTEN_ON * voltsShare(finding, row, spreads, OVERLOADED, sound, soundAt, traits, wanders, guessed)
        : usual;
    }
    case 'lamps':
      return lampsShare(finding, row);
    case 'works':
      return doesShare(finding, row, traits);
    case 'shock': {
      if (traits.appliance) return 0.3;
      const felt = row[FIELD.body]! > 30 ? 0.8 : 0.004;
      return traits.tingles ? Math.max(felt, 0.1) : felt;
    }
  }
}

type Volts = Extract<Finding, { kind: 'volts' }>;

/** Ohms from hot to neutral that no cable and few joints have: from there on loads are in the way. */
const WHOLE = 15;

/** What loads that nobody knows add to the spread of a pair, volts. */
function pulls(
  amps: number,
  pair: number,
  mean: number,
  soundVolts: number,
  traits: Traits,
  row: Row,
): number {
  const { poor } = traits;
  // Another fault’s neutral that is whole to here stands firm.
  const parted = traits.parted && row[FIELD.ohms]! > WHOLE;
  if (!parted && !poor) return 0;
  const off = Math.abs(mean - soundVolts);
  // Between hot and such a neutral nothing stands while the meter loads it.
  if (parted && off > 6) return pair === 0 && mean < 5 ? 0.5 : 12;
  // What hangs behind a poor joint besides the load that was put on pulls it down as well; what is dead is not pulled.
  return poor ? (amps > 0 ? 0.2 : 0.3) * Math.min(off, mean) : 0;
}

function voltsShare(
  finding: Volts,
  row: Row,
  spreads: Row | null,
  pulled: number,
  sound: Row,
  soundAt: number,
  traits: Traits,
  wanders: number,
  guessed: boolean,
): number {
  const loading = finding.meterOhms <= 2 * LOW_OHMS;
  const { free, reference } = finding;
  const { hotNeutral, hotGround } = finding.volts;
  if (traits.fedBack && Math.max(hotNeutral ?? 0, hotGround ?? 0) > ABOVE_LEG)
    return (
      SLIPS * slipDensity([...Object.values(finding.volts), free, reference].filter((v) => v !== null).length)
    );
  sheet.clear();
  const falls = free === null ? null : fallOf(finding, free, row, spreads, traits, guessed);
  if (falls !== null) {
    const mean = row[FIELD.low]!;
    const others = pulls(0, 0, mean, sound[soundAt + FIELD.low]!, traits, row);
    sheet.add(false, free!, mean, Math.hypot(spreads?.[FIELD.low] ?? 0, pulled, others), false, false);
  }
  for (let k = 0; k < PAIRS.length; k++) {
    const volts = finding.volts[PAIRS[k]!];
    if (volts === null || (k === 0 && falls !== null)) continue;
    const from = (loading && (finding.amps === 0 || floats(row, k)) ? FIELD.low : FIELD.high) + k;
    const mean = row[from]!;
    if (Number.isNaN(mean)) {
      sheet.add(PAIRS[k] === 'neutralGround', volts, 0, 0, true, false);
      continue;
    }
    const neutral = PAIRS[k] === 'neutralGround';
    const spread = Math.hypot(
      spreads ? spreads[from]! : 0,
      // What is on elsewhere raises a neutral, which is told of any reading.
      neutral ? 0 : pulled,
      pulls(finding.amps, k, mean, sound[soundAt + FIELD.high + k]!, traits, row),
    );
    const joined = traits.joined && mean < 0.05;
    sheet.add(neutral, volts, mean, spread, !loading && floats(row, k), joined);
  }
  if (reference !== null) sheet.add(false, reference, row[FIELD.reference]!, 1, false, false);
  const density = traits.utility
    ? utilityDensity(sheet)
    : voltsDensity(sheet, Math.hypot(SOURCE, wanders / NOMINAL));
  return falls === null
    ? (1 - SLIPS) * density + SLIPS * slipDensity(sheet.count)
    : (1 - SLIPS) * density * falls + SLIPS * slipDensity(sheet.count + 1);
}

/** What the fall between two readings of one moment is off: the meter twice; lengths of cable and the load itself. */
const FALL = { volts: 0.4, share: 0.08, guessed: 0.4, floats: 3, poor: 0.05, supply: 0.4 } as const;

/** How likely hot to neutral falls by so much under the load that was put on; null where it was not read with the load on. */
function fallOf(
  { volts: { hotNeutral } }: Volts,
  free: number,
  row: Row,
  spreads: Row | null,
  { poor, supply }: Traits,
  guessed: boolean,
): number | null {
  if (hotNeutral === null || Number.isNaN(row[FIELD.low]!)) return null;
  const mean = row[FIELD.low]! - row[FIELD.high]!;
  const joint = spreads ? Math.abs(spreads[FIELD.high]! - spreads[FIELD.low]!) : 0;
  const sigma = Math.hypot(
    FALL.volts,
    (guessed ? FALL.guessed : FALL.share) * mean,
    joint,
    poor ? FALL.poor * mean : 0,
    supply ? FALL.supply * mean : 0,
    floats(row, 0) ? FALL.floats : 0,
  );
  return normal(free - hotNeutral, mean, sigma);
}

function lampsShare(finding: Extract<Finding, { kind: 'lamps' }>, row: Row): number {
  let share = 1;
  for (let k = 0; k < finding.lamps.length; k++) {
    const at = voltsAt(1e5, row[FIELD.high + k]!, row[FIELD.low + k]!);
    const on = litShare(Number.isNaN(at) ? 0 : at, floats(row, k));
    share *= finding.lamps[k] ? on : 1 - on;
  }
  return 0.97 * share + 0.03 / 8;
}

const FICKLE = { works: 0.25, dead: 0.5, dim: 0.1, 'comes and goes': 0.15, bright: 0.005 } as const;
const WEAK = { works: 0.6, dead: 0.3, dim: 0.04, 'comes and goes': 0.06, bright: 0.005 } as const;

/** How often a light behind a lost neutral is so. */
const WANDERING = { bright: 0.2, dim: 0.3 } as const;

function doesShare({ does }: Extract<Finding, { kind: 'works' }>, row: Row, traits: Traits): number {
  if (traits.appliance || traits.switchedOff) return FICKLE[does];
  if (traits.overload || traits.weakBreaker) return WEAK[does];
  const loaded = row[FIELD.loaded]!;
  const volts = Number.isNaN(loaded) ? 0 : loaded;
  const fades = traits.poor || traits.supply ? 0.3 : traits.open ? 0.08 : 0.01;
  // Behind a lost neutral lights are dim or bright by what else is on.
  if (traits.supply && volts > 40 && (does === 'bright' || does === 'dim'))
    return 0.5 * WANDERING[does] + 0.5 * worksShare(does, volts);
  if (does === 'comes and goes')
    return worksShare('works', volts) > 0.5 && !traits.poor && !traits.supply ? 0.01 : fades;
  return 0.97 * (1 - fades) * worksShare(does, volts) + (does === 'bright' ? 0.001 : 0.01);
}
