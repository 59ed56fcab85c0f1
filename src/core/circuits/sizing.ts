/** Conductor, breaker and equipment ground for a load, in the order of 110.14(C), 210.19 to 210.20 and 240.4. */
import {
  ambientFactor,
  ampacity,
  bundlingFactor,
  CIRCULAR_MILS,
  GAUGES_BY_SIZE,
  ohmsPerThousandFeet,
  smallConductorCap,
  STANDARD_BREAKERS,
  tableGround,
  type Column,
  type Material,
} from '../code/tables/conductors.ts';
import type { Edition, Gauge } from '../job/schema.ts';
import { fail, ok, type Result } from '../units/result.ts';
import { round } from '../units/quantity.ts';

export interface SizingInput {
  edition: Edition;
  /** Load that runs three hours or more, amperes. */
  continuousAmps: number;
  noncontinuousAmps: number;
  /** Circuit voltage, for the drop. */
  volts: number;
  material: Material;
  /** How the conductors are run; cable of NM and UF kind keeps to its 60 °C column. */
  method: 'NM-B' | 'UF-B' | 'raceway';
  /** Insulation of conductors in raceway; NM-B starts from 90, UF-B from 60. */
  insulation: Column;
  terminalRating: 60 | 75;
  ambientCelsius: number;
  currentCarrying: number;
  /** Feeds more than one receptacle for cord-and-plug loads: no next size up. */
  severalReceptacles: boolean;
  /** One-way length of the run, feet. */
  feet: number;
  conductorCelsius: number;
  /** A breaker already chosen, amperes; null takes the smallest that will do. */
  breaker: number | null;
  /** A conductor already chosen; null takes the thinnest that will do. */
  gauge: Gauge | null;
}

export interface Step {
  what: string;
  /** The formula with its numbers in. */
  working: string;
  section: string;
}

export interface Sizing {
  gauge: Gauge;
  breaker: number;
  ground: Gauge;
  /** Amperes the conductor may carry here. */
  usableAmps: number;
  drop: { volts: number; percent: number; amps: number };
  steps: Step[];
}

const ADJUSTMENT_SECTION: Record<Edition, string> = {
  '2017': '310.15(B)(2), (B)(3)(a)',
  '2020': '310.15(B)(1), (C)(1)',
  '2023': '310.15(B)(1), (C)(1)',
};
const AMPACITY_SECTION: Record<Edition, string> = {
  '2017': 'Table 310.15(B)(16)',
  '2020': 'Table 310.16',
  '2023': 'Table 310.16',
};

/** Smallest standard rating at or above a current, 240.6(A). */
export const standardBreaker = (amps: number): number | null =>
  STANDARD_BREAKERS.find((rating) => rating >= amps - 1e-9) ?? null;

export interface Usable {
  column: Column;
  insulationColumn: Column;
  base: number;
  derated: number;
  usable: number;
  ambient: number;
  bundling: number;
}

type Conditions = Pick<
  SizingInput,
  'material' | 'method' | 'insulation' | 'terminalRating' | 'ambientCelsius' | 'currentCarrying'
>;

/** Ampacity of one conductor under the conditions of use; null where the table has none or the heat forbids it. */
export function usableAmpacity(gauge: Gauge, conditions: Conditions): Usable | null {
  const { material, method, terminalRating, currentCarrying } = conditions;
  const column: Column = method === 'raceway' ? terminalRating : 60;
  const insulationColumn: Column = method === 'NM-B' ? 90 : method === 'UF-B' ? 60 : conditions.insulation;
  const base = ampacity(gauge, material, column);
  const start = ampacity(gauge, material, insulationColumn);
  const ambient = ambientFactor(conditions.ambientCelsius, insulationColumn);
  if (base === null || start === null || ambient === null) return null;
  const bundling = bundlingFactor(currentCarrying);
  const derated = start * ambient * bundling;
  return { column, insulationColumn, base, derated, usable: Math.min(derated, base), ambient, bundling };
}

/**
 * Largest breaker a conductor may have: its usable ampacity, or the next standard size where 240.4(B) allows,
 * never above the small-conductor cap of 240.4(D).
 */
export function largestBreaker(
  gauge: Gauge,
  material: Material,
  usable: number,
  nextSizeUp: boolean,
): number | null {
  const below = [...STANDARD_BREAKERS].reverse().find((rating) => rating <= usable + 1e-9) ?? null;
  const largest = nextSizeUp ? standardBreaker(usable) : below;
  const cap = smallConductorCap(gauge, material);
  if (largest === null || cap === null) return largest;
  return Math.min(largest, cap);
}

/** Voltage drop of a two-wire run: 2 × Ω per 1,000 ft × ft × A ÷ 1,000. */
export const twoWireDrop = (ohmsPerThousand: number, feet: number, amps: number): number =>
  (2 * ohmsPerThousand * feet * amps) / 1000;

/**
 * Equipment ground: the table's row, never larger than the circuit's own conductors, enlarged in proportion
 * when these are larger than the load needs (250.122(A), (B)).
 */
export function equipmentGround(breaker: number, material: Material, gauge: Gauge, needed: Gauge): Gauge {
  const fromTable = tableGround(breaker, material);
  const wanted = CIRCULAR_MILS[fromTable] * Math.max(1, CIRCULAR_MILS[gauge] / CIRCULAR_MILS[needed]);
  const enlarged = GAUGES_BY_SIZE.find((g) => CIRCULAR_MILS[g] >= wanted - 0.5) ?? gauge;
  return CIRCULAR_MILS[enlarged] > CIRCULAR_MILS[gauge] ? gauge : enlarged;
}

/** Sizes a circuit, or says which requirement cannot be met. */
export function sizeCircuit(input: SizingInput): Result<Sizing> {
  const load = input.continuousAmps + input.noncontinuousAmps;
  const wanted = 1.25 * input.continuousAmps + input.noncontinuousAmps;
  const smallest = standardBreaker(Math.max(wanted, 1));
  if (smallest === null)
    return fail(`${round(wanted, 1)} A is above 200 A, the largest breaker worked with here`);
  const breaker = input.breaker ?? smallest;
  if (breaker < wanted - 1e-9) {
    return fail(
      `a ${breaker} A breaker is too small for ${round(wanted, 2)} A; expected ${smallest} A or more`,
    );
  }
  const nextSizeUp = !input.severalReceptacles;
  const suits = (gauge: Gauge): boolean => {
    const u = usableAmpacity(gauge, input);
    if (!u || u.base < wanted - 1e-9 || u.usable < load - 1e-9) return false;
    const largest = largestBreaker(gauge, input.material, u.usable, nextSizeUp);
    return largest !== null && breaker <= largest;
  };
  const needed = GAUGES_BY_SIZE.find(suits);
  if (!needed) {
    return fail(
      `no conductor to 4/0 AWG carries ${round(load, 1)} A on a ${breaker} A breaker at ${input.ambientCelsius} °C with ${input.currentCarrying} current-carrying conductors`,
    );
  }
  const gauge = input.gauge ?? needed;
  if (!suits(gauge)) {
    return fail(`${gauge} AWG ${input.material} is too small here; expected ${needed} AWG or larger`);
  }
  const u = usableAmpacity(gauge, input)!;
  const ground = equipmentGround(breaker, input.material, gauge, needed);
  const ohms = ohmsPerThousandFeet(gauge, input.material, input.conductorCelsius)!;
  const volts = twoWireDrop(ohms, input.feet, load);
  const percent = (volts / input.volts) * 100;
  const cap = smallConductorCap(gauge, input.material);
  const steps: Step[] = [
    {
      what: 'Load for conductor and breaker',
      working: `1.25 × ${input.continuousAmps} A + ${input.noncontinuousAmps} A = ${round(wanted, 2)} A`,
      section: '210.19(A)(1), 210.20(A)',
    },
    {
      what: 'Conductor before correction',
      working: `${gauge} AWG ${input.material}, ${u.column} °C column: ${u.base} A ≥ ${round(wanted, 2)} A`,
      section: `${AMPACITY_SECTION[input.edition]}, 110.14(C)${input.method === 'raceway' ? '' : input.method === 'NM-B' ? ', 334.80' : ', 340.80'}`,
    },
    {
      what: 'Ampacity where it runs',
      working: `min(${u.insulationColumn} °C value × ${u.ambient} × ${u.bundling} = ${round(u.derated, 1)} A, ${u.base} A) = ${round(u.usable, 1)} A ≥ ${round(load, 2)} A`,
      section: ADJUSTMENT_SECTION[input.edition],
    },
    {
      what: 'Breaker',
      working: `${breaker} A ≥ ${round(wanted, 2)} A, at most ${largestBreaker(gauge, input.material, u.usable, nextSizeUp)} A${cap === null ? '' : ` (cap for ${gauge} AWG: ${cap} A)`}`,
      section: `240.6(A), ${nextSizeUp ? '240.4(B)' : '240.4'}${cap === null ? '' : ', 240.4(D)'}`,
    },
    {
      what: 'Equipment ground',
      working: `${tableGround(breaker, input.material)} AWG for ${breaker} A${ground === tableGround(breaker, input.material) ? '' : `, ${ground} AWG with the circuit's conductors at ${gauge} AWG (load needs ${needed})`}`,
      section: '250.122',
    },
    {
      what: 'Voltage drop',
      working: `2 × ${round(ohms, 3)} Ω ÷ 1,000 ft × ${round(input.feet, 1)} ft × ${round(load, 2)} A = ${round(volts, 2)} V = ${round(percent, 2)} % of ${input.volts} V`,
      section: '210.19(A) note (advice)',
    },
  ];
  return ok({ gauge, breaker, ground, usableAmps: u.usable, drop: { volts, percent, amps: load }, steps });
}
