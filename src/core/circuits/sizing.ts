/** Conductor, breaker and equipment ground for a load, in the order of 110.14(C), 210.19 to 210.20 and 240.4. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import {
  ambientFactor,
  ampacity,
  bundlingFactor,
  CIRCULAR_MILS,
  GAUGES_BY_SIZE,
  ohmsPerThousandFeet,
  smallConductorCap,
  standardAtMost,
  standardBreaker,
  tableGround,
  type Column,
  type Material,
} from '#core/tables/conductors.ts';
import type { CableKind, Edition, Gauge } from '#core/job/schema.ts';
import { demandOf } from './asked.ts';
import type { BranchLoad, Demand, Step } from './demand/demand.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { round } from '#core/units/quantity.ts';

export interface Conditions {
  material: Material;
  method: CableKind;
  /** Insulation of conductors in raceway; cable has that of its kind. */
  insulation: Column;
  /** Marking of every termination of the circuit. */
  terminalRating: 60 | 75;
  ambientCelsius: number;
  currentCarrying: number;
}

export interface SizingInput extends Conditions {
  edition: Edition;
  load: BranchLoad;
  /** One-way length of the run, feet. */
  feet: number;
  conductorCelsius: number;
  /** A breaker already chosen, amperes; null takes the usual one, or the smallest that will do. */
  breaker: number | null;
  /** A conductor already chosen; null takes the thinnest that will do. */
  gauge: Gauge | null;
}

export interface Sizing {
  gauge: Gauge;
  breaker: number;
  /** Breakers from the least that the load needs to the most that it allows; null where only the conductor limits. */
  leastBreaker: number;
  mostBreaker: number | null;
  /** Thinnest conductor that will do with this breaker. */
  leastGauge: Gauge;
  /** Null where the cable has none. */
  ground: Gauge | null;
  /** Amperes the conductor may carry here. */
  usableAmps: number;
  drop: { volts: number; percent: number; amps: number };
  steps: Step[];
}

const ADJUSTMENT_SECTION: PerEdition<string> = {
  '2017': '310.15(B)(2), (B)(3)(a)',
  '2020': '310.15(B)(1), (C)(1)',
  '2023': '310.15(B)(1), (C)(1)',
};
const AMPACITY_SECTION: PerEdition<string> = {
  '2017': 'Table 310.15(B)(16)',
  '2020': 'Table 310.16',
  '2023': 'Table 310.16',
};

export interface Usable {
  column: Column;
  insulationColumn: Column;
  base: number;
  derated: number;
  usable: number;
  ambient: number;
  bundling: number;
}

/** Sections that hold a wiring method to a column. */
const METHOD_SECTION: Record<CableKind, string> = {
  'NM-B': ', 334.80',
  'UF-B': ', 340.80',
  SE: ', 338.10(B)(4)',
  MC: '',
  raceway: '',
  'old NM': ', 334.80',
  'old two-wire': ', 334.80',
};

/** Cables held to their 60 °C column. */
const SIXTY: readonly CableKind[] = ['NM-B', 'UF-B', 'old NM', 'old two-wire'];
/** Cables whose insulation is for 60 °C too: correction starts from there. Only NM-B starts from 90 °C, 334.112. */
const SIXTY_INSULATION: readonly CableKind[] = ['UF-B', 'old NM', 'old two-wire'];

/** Service-entrance cable to 10 AWG is taken as lying in insulation, 338.10(B)(4). */
const isSmallSe = (gauge: Gauge, method: CableKind): boolean =>
  method === 'SE' && CIRCULAR_MILS[gauge] <= CIRCULAR_MILS['10'];

/** The column that terminations and cable hold a conductor to, 110.14(C): above 100 A terminals are for 75 °C. */
function columnOf(gauge: Gauge, { method, terminalRating }: Conditions, breaker: number): Column {
  if (SIXTY.includes(method) || isSmallSe(gauge, method)) return 60;
  return breaker > 100 ? 75 : terminalRating;
}

function insulationOf(gauge: Gauge, { method, insulation }: Conditions): Column {
  if (method === 'raceway') return insulation;
  if (SIXTY_INSULATION.includes(method) || isSmallSe(gauge, method)) return 60;
  return method === 'SE' ? 75 : 90;
}

/**
 * Ampacity of one conductor under the conditions of use.
 * @returns null where the table has none or the heat forbids it
 */
export function usableAmpacity(gauge: Gauge, conditions: Conditions, breaker = 0): Usable | null {
  const { material, currentCarrying } = conditions;
  const column = columnOf(gauge, conditions, breaker);
  const insulationColumn = insulationOf(gauge, conditions);
  const base = ampacity(gauge, material, column);
  const start = ampacity(gauge, material, insulationColumn);
  const ambient = ambientFactor(conditions.ambientCelsius, insulationColumn);
  if (base === null || start === null || ambient === null) return null;
  const bundling = bundlingFactor(currentCarrying);
  const derated = start * ambient * bundling;
  return { column, insulationColumn, base, derated, usable: Math.min(derated, base), ambient, bundling };
}

/**
 * How a usable ampacity comes about.
 * @param least what it has to be, amperes
 */
export const whereItRuns = (u: Usable, edition: Edition, least?: number): Step => ({
  what: 'Ampacity where it runs',
  working: `min(${u.insulationColumn} °C value × ${u.ambient} × ${u.bundling} = ${round(u.derated, 1)} A, ${u.base} A) = ${round(u.usable, 1)} A${least === undefined ? '' : ` ≥ ${round(least, 2)} A`}`,
  section: at(ADJUSTMENT_SECTION, edition),
});

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
  const largest = nextSizeUp ? standardBreaker(usable) : standardAtMost(usable);
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

/** The breaker of a demand: the one chosen, the usual one where it will do, or the smallest. */
function breakerFor(demand: Demand, chosen: number | null): Result<number> {
  const { leastBreaker, mostBreaker, usualBreaker, counted } = demand;
  const fits = (rating: number) => rating >= leastBreaker && (mostBreaker === null || rating <= mostBreaker);
  if (chosen === null) return ok(usualBreaker !== null && fits(usualBreaker) ? usualBreaker : leastBreaker);
  if (chosen < leastBreaker)
    return fail(
      `a ${chosen} A breaker is too small for ${round(counted, 2)} A; expected ${leastBreaker} A or more`,
    );
  return fits(chosen)
    ? ok(chosen)
    : fail(`a ${chosen} A breaker is too large; expected ${mostBreaker} A or less`);
}

/** Sizes a circuit, or says which requirement cannot be met. */
export function sizeCircuit(input: SizingInput): Result<Sizing> {
  const asked = demandOf(input.load, input.edition);
  if (!asked.ok) return asked;
  const demand = asked.value;
  const { counted, corrected, amps, nextSizeUp, ownProtection } = demand;
  const chosen = breakerFor(demand, input.breaker);
  if (!chosen.ok) return chosen;
  const breaker = chosen.value;
  const largestFor = (gauge: Gauge, usable: number) =>
    largestBreaker(gauge, input.material, usable, nextSizeUp);
  const suits = (gauge: Gauge): boolean => {
    const u = usableAmpacity(gauge, input, breaker);
    if (!u || u.base < counted - 1e-9 || u.usable < corrected - 1e-9) return false;
    if (ownProtection) return true;
    const largest = largestFor(gauge, u.usable);
    return largest !== null && breaker <= largest;
  };
  const needed = GAUGES_BY_SIZE.find(suits);
  if (!needed) {
    return fail(
      `no conductor to 4/0 AWG carries ${round(corrected, 1)} A on a ${breaker} A breaker at ${input.ambientCelsius} °C with ${input.currentCarrying} current-carrying conductors`,
    );
  }
  const gauge = input.gauge ?? needed;
  if (!suits(gauge)) {
    return fail(`${gauge} AWG ${input.material} is too small here; expected ${needed} AWG or larger`);
  }
  const u = usableAmpacity(gauge, input, breaker)!;
  const ground =
    input.method === 'old two-wire' ? null : equipmentGround(breaker, input.material, gauge, needed);
  const ohms = ohmsPerThousandFeet(gauge, input.material, input.conductorCelsius)!;
  const volts = twoWireDrop(ohms, input.feet, amps);
  const percent = (volts / input.load.volts) * 100;
  const cap = smallConductorCap(gauge, input.material);
  const limit = ownProtection
    ? { working: `at most ${demand.mostBreaker} A by the equipment`, section: '240.4(G)' }
    : {
        working: `at most ${largestFor(gauge, u.usable)} A on this conductor${cap === null ? '' : ` (cap for ${gauge} AWG: ${cap} A)`}`,
        section: `${nextSizeUp ? '240.4(B)' : '240.4'}${cap === null ? '' : ', 240.4(D)'}`,
      };
  const steps: Step[] = [
    ...demand.steps,
    {
      what: 'Conductor before correction',
      working: `${gauge} AWG ${input.material}, ${u.column} °C column: ${u.base} A ≥ ${round(counted, 2)} A`,
      section: `${AMPACITY_SECTION[input.edition]}, 110.14(C)${METHOD_SECTION[input.method]}`,
    },
    whereItRuns(u, input.edition, corrected),
    {
      what: 'Breaker',
      working: `${breaker} A ≥ ${round(counted, 2)} A, ${limit.working}`,
      section: `240.6(A), ${limit.section}`,
    },
    {
      what: 'Equipment ground',
      working:
        ground === null
          ? 'old two-wire cable has none to give'
          : `${tableGround(breaker, input.material)} AWG for ${breaker} A${ground === tableGround(breaker, input.material) ? '' : `, ${ground} AWG with the circuit's conductors at ${gauge} AWG (load needs ${needed})`}`,
      section: '250.122',
    },
    {
      what: 'Voltage drop',
      working: `2 × ${round(ohms, 3)} Ω ÷ 1,000 ft × ${round(input.feet, 1)} ft × ${round(amps, 2)} A = ${round(volts, 2)} V = ${round(percent, 2)} % of ${input.load.volts} V`,
      section: '210.19(A) note (advice)',
    },
  ];
  return ok({
    gauge,
    breaker,
    leastBreaker: demand.leastBreaker,
    mostBreaker: demand.mostBreaker,
    leastGauge: needed,
    ground,
    usableAmps: u.usable,
    drop: { volts, percent, amps },
    steps,
  });
}
