/** Conductor, breaker and equipment ground for a load, in the order of 110.14(C), 210.19 to 210.20 and 240.4. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import {
  ambientFactor,
  ampacity,
  bundlingFactor,
  CIRCULAR_MILS,
  GAUGES_BY_SIZE,
  isMade,
  isStandardRating,
  ohmsPerThousandFeet,
  sizeName,
  smallConductorCap,
  STANDARD_BREAKERS,
  standardAtMost,
  standardBreaker,
  tableGround,
  type Column,
  type Material,
} from '#core/tables/conductors.ts';
import type { CableKind, Edition, Gauge } from '#core/job/schema.ts';
import { demandOf } from './asked.ts';
import { SEVERAL_MOST, SEVERAL_SECTION } from '#core/tables/circuits.ts';
import { shown, type BranchLoad, type Demand, type Step } from './demand/demand.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { round } from '#core/units/quantity.ts';

export interface Conditions {
  material: Material;
  method: CableKind;
  /** Insulation where the method leaves a choice; null: that of its kind, 90 °C in raceway. */
  insulation: Column | null;
  /** Marking of every termination of the circuit. */
  terminalRating: 60 | 75;
  ambientCelsius: number;
  /** In sunlight so far above a roof, inches; null where it does not run there. */
  aboveRoof?: number | null;
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
  /** Drop to keep to with a heavier conductor, percent; null leaves the drop as advice. */
  dropLimitPercent?: number | null;
  /** Rating of the receptacles of the circuit, amperes; null where none is given. */
  receptacleRating?: number | null;
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
const AMPACITY_SECTION: PerEdition<string> = { '2017': 'Table 310.15(B)(16)', '2020': 'Table 310.16' };

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

/** Insulations that a method is made with, the usual one first. */
const INSULATIONS: Record<CableKind, readonly Column[]> = {
  'NM-B': [90],
  // 90 °C where it stands in for NM, 340.112; its ampacity stays that of 60 °C, 340.80.
  'UF-B': [60, 90],
  SE: [75, 90],
  MC: [90, 75],
  raceway: [90, 75, 60],
  'old NM': [60],
  'old two-wire': [60],
};

/** Closer to a roof than this, inches, the sun adds to the heat. */
const NEAR_ROOF: PerEdition<{ inches: number; section: string }> = {
  '2017': { inches: 7 / 8, section: '310.15(B)(3)(c)' },
  '2020': { inches: 3 / 4, section: '310.15(B)(2)' },
};
/** What it adds, °C. */
const ROOF_ADDER = 33;

const roofAdds = ({ aboveRoof }: Conditions, edition: Edition): boolean =>
  (aboveRoof ?? Infinity) < at(NEAR_ROOF, edition).inches;

/** The conditions with the heat of a roof in them. */
const withRoof = <C extends Conditions>(conditions: C, edition: Edition): C =>
  roofAdds(conditions, edition)
    ? { ...conditions, ambientCelsius: conditions.ambientCelsius + ROOF_ADDER }
    : conditions;

/** The column that terminations and cable hold a conductor to, 110.14(C): above 100 A terminals are for 75 °C. */
function columnOf(gauge: Gauge, conditions: Conditions, breaker: number): Column {
  const { method, terminalRating } = conditions;
  if (SIXTY.includes(method) || isSmallSe(gauge, method)) return 60;
  // A conductor is never worked with above what its insulation is for.
  return Math.min(breaker > 100 ? 75 : terminalRating, insulationOf(gauge, conditions)) as Column;
}

function insulationOf(gauge: Gauge, { method, insulation }: Conditions): Column {
  if (SIXTY_INSULATION.includes(method) || isSmallSe(gauge, method)) return 60;
  return insulation ?? INSULATIONS[method][0]!;
}

/**
 * Ampacity of one conductor under the conditions of use.
 * @returns null where the table has none or the heat forbids it
 */
export function usableAmpacity(gauge: Gauge, conditions: Conditions, breaker = 0): Usable | null {
  const { material, currentCarrying, method } = conditions;
  if (!isMade(gauge, method)) return null;
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

/** Circuits that receptacles of a rating may hang on where there are several, Table 210.21(B)(3). */
const SEVERAL_ON: Record<number, readonly number[]> = {
  15: [15, 20],
  20: [20],
  30: [30],
  40: [40],
  50: [40, 50],
};

/** Several receptacles of which nothing is said are of 15 and 20 A. */
function ofUsualReceptacles(asked: Demand, edition: Edition): Result<Demand> {
  const section = at(SEVERAL_SECTION, edition);
  if (asked.leastBreaker > SEVERAL_MOST)
    return fail(
      `needs a ${asked.leastBreaker} A breaker, and at most ${SEVERAL_MOST} A is allowed for several receptacles of 15 and 20 A, ${section}`,
    );
  return ok({
    ...asked,
    mostBreaker: Math.min(asked.mostBreaker ?? SEVERAL_MOST, SEVERAL_MOST),
    steps: [
      ...asked.steps,
      { what: 'Several receptacles', working: `circuits of 15 or ${SEVERAL_MOST} A`, section },
    ],
  });
}

/** What the rating of its receptacles allows a circuit: alone no more than they are rated, several by the table. */
function withReceptacles(
  asked: Demand,
  { load, edition, receptacleRating: rating }: SizingInput,
): Result<Demand> {
  const several = load.severalReceptacles;
  if (rating === undefined || rating === null)
    return several ? ofUsualReceptacles(asked, edition) : ok(asked);
  const table = SEVERAL_ON[rating];
  if (several && !table)
    return fail(`receptacleRating: expected 15, 20, 30, 40 or 50 A for several on a circuit, 210.21(B)(3)`);
  const section = several ? '210.21(B)(2), (B)(3)' : '210.21(B)(1)';
  const fits = (r: number) =>
    (several ? table!.includes(r) : r <= rating) &&
    r >= asked.leastBreaker &&
    (asked.mostBreaker === null || r <= asked.mostBreaker);
  const allowed = STANDARD_BREAKERS.filter(fits);
  if (allowed.length === 0)
    return fail(
      `receptacleRating: a ${rating} A receptacle does not suit the ${asked.leastBreaker} A that the load needs, ${section}`,
    );
  if (several && load.kind === 'cord' && asked.amps > 0.8 * rating + 1e-9)
    return fail(
      `receptacleRating: ${shown(asked.amps)} is above 80 % of a ${rating} A receptacle, ${round(0.8 * rating, 1)} A, 210.21(B)(2)`,
    );
  return ok({
    ...asked,
    leastBreaker: allowed[0]!,
    mostBreaker: allowed.at(-1)!,
    steps: [
      ...asked.steps,
      {
        what: 'Receptacle',
        working: `${rating} A ${several ? 'receptacles hang' : 'alone hangs'} on ${several ? `circuits of ${table!.join(' or ')} A` : `a circuit of ${rating} A or less`}`,
        section,
      },
    ],
  });
}

/** Insulation that a method is not made with, or null. */
function insulationProblem({ insulation, method }: Conditions): string | null {
  const made = INSULATIONS[method];
  return insulation === null || made.includes(insulation)
    ? null
    : `insulation: expected ${made.map((c) => `${c} °C`).join(' or ')} for ${method}`;
}

/** The breaker of a demand: the one chosen, the usual one where it will do, or the smallest. */
function breakerFor(demand: Demand, chosen: number | null): Result<number> {
  const { leastBreaker, mostBreaker, usualBreaker, counted } = demand;
  const fits = (rating: number) => rating >= leastBreaker && (mostBreaker === null || rating <= mostBreaker);
  if (chosen === null) return ok(usualBreaker !== null && fits(usualBreaker) ? usualBreaker : leastBreaker);
  // A rating that is not standard may carry what is counted below the next one that is.
  if (
    chosen < Math.min(leastBreaker, counted) - 1e-9 ||
    (standardBreaker(chosen) === chosen && chosen < leastBreaker)
  )
    return fail(
      `a ${chosen} A breaker is too small for ${round(counted, 2)} A; expected ${leastBreaker} A or more`,
    );
  return mostBreaker === null || chosen <= mostBreaker
    ? ok(chosen)
    : fail(`a ${chosen} A breaker is too large; expected ${mostBreaker} A or less`);
}

/** How large a breaker a conductor may have, and where the next size up is barred why. */
function limitOf(
  { nextSizeUp, ownProtection, mostBreaker }: Demand,
  gauge: Gauge,
  { material, load }: SizingInput,
  usable: number,
): { working: string; section: string } {
  if (ownProtection) return { working: `at most ${mostBreaker} A by the equipment`, section: '240.4(G)' };
  const cap = smallConductorCap(gauge, material);
  const largest = largestBreaker(gauge, material, usable, nextSizeUp);
  const next = standardBreaker(usable);
  const isExact = next !== null && next - usable < 1e-9;
  const barred =
    cap !== null && (largest ?? 0) >= cap
      ? `cap for ${sizeName(gauge)}: ${cap} A`
      : isExact
        ? `${round(usable, 1)} A is a standard rating itself, so no size up`
        : nextSizeUp
          ? 'the next size up'
          : `no next size up: ${load.severalReceptacles ? 'the circuit feeds more than one receptacle' : 'the conductor is to carry the rating of the circuit'}`;
  return {
    working: `at most ${largest ?? 0} A on this conductor (${barred})`,
    section: `${nextSizeUp || load.severalReceptacles ? '240.4(B)' : '240.4'}${cap === null ? '' : ', 240.4(D)'}`,
  };
}

/** Circular mils as written in the workings. */
const mils = (gauge: Gauge): string => CIRCULAR_MILS[gauge].toLocaleString('en-US');

/** The equipment ground with its working: the row, and where the conductors are enlarged in what proportion. */
function groundStep(
  ground: Gauge | null,
  breaker: number,
  material: Material,
  gauge: Gauge,
  needed: Gauge,
): Step {
  if (ground === null)
    return { what: 'Equipment ground', working: 'old two-wire cable has none to give', section: '250.122' };
  const row = tableGround(breaker, material);
  if (ground === row)
    return { what: 'Equipment ground', working: `${sizeName(row)} for ${breaker} A`, section: '250.122(A)' };
  if (CIRCULAR_MILS[ground] < CIRCULAR_MILS[row])
    return {
      what: 'Equipment ground',
      working: `${sizeName(row)} for ${breaker} A, but no larger than the conductors: ${sizeName(ground)}`,
      section: '250.122(A)',
    };
  const wanted = Math.round((CIRCULAR_MILS[row] * CIRCULAR_MILS[gauge]) / CIRCULAR_MILS[needed]);
  return {
    what: 'Equipment ground',
    working: `${sizeName(row)} for ${breaker} A; conductors ${sizeName(gauge)} where ${sizeName(needed)} would do: ${mils(row)} × ${mils(gauge)} ÷ ${mils(needed)} = ${wanted.toLocaleString('en-US')} circular mils: ${sizeName(ground)}`,
    section: '250.122(B)',
  };
}

/** Sizes a circuit, or says which requirement cannot be met. */
export function sizeCircuit(given: SizingInput): Result<Sizing> {
  const problem = insulationProblem(given);
  if (problem !== null) return fail(problem);
  const { edition, material, method } = given;
  const input = withRoof(given, edition);
  const byLoad = demandOf(input.load, edition);
  if (!byLoad.ok) return byLoad;
  const asked = withReceptacles(byLoad.value, input);
  if (!asked.ok) return asked;
  const demand = asked.value;
  const { counted, corrected, amps, nextSizeUp, ownProtection } = demand;
  const chosen = breakerFor(demand, input.breaker);
  if (!chosen.ok) return chosen;
  const breaker = chosen.value;
  const suits = (gauge: Gauge): boolean => {
    const u = usableAmpacity(gauge, input, breaker);
    if (!u || u.base < counted - 1e-9 || u.usable < corrected - 1e-9) return false;
    if (ownProtection) return true;
    const largest = largestBreaker(gauge, material, u.usable, nextSizeUp);
    return largest !== null && breaker <= largest;
  };
  const needed = GAUGES_BY_SIZE.find(suits);
  if (!needed) {
    const thickest = GAUGES_BY_SIZE.findLast((g) => isMade(g, method))!;
    const other = thickest === GAUGES_BY_SIZE.at(-1) ? '' : `; ${method} ends there, raceway, MC or SE go on`;
    return fail(
      `no conductor to ${sizeName(thickest)} carries ${round(corrected, 1)} A on a ${breaker} A breaker at ${input.ambientCelsius} °C with ${input.currentCarrying} current-carrying conductors${other}`,
    );
  }
  const dropOf = (gauge: Gauge) => {
    const ohms = ohmsPerThousandFeet(gauge, material, input.conductorCelsius)!;
    const volts = twoWireDrop(ohms, input.feet, amps);
    return { ohms, volts, percent: (volts / input.load.volts) * 100 };
  };
  const limit = input.dropLimitPercent ?? null;
  const withinDrop = (gauge: Gauge) => limit === null || dropOf(gauge).percent <= limit + 1e-9;
  const least = CIRCULAR_MILS[needed];
  const thickEnough = GAUGES_BY_SIZE.find(
    (g) => CIRCULAR_MILS[g] >= least && suits(g) && isMade(g, method) && withinDrop(g),
  );
  if (input.gauge === null && !thickEnough)
    return fail(
      `dropLimitPercent: no conductor of ${method} keeps the drop to ${limit} % over ${round(input.feet, 0)} ft`,
    );
  const gauge = input.gauge ?? thickEnough!;
  if (!suits(gauge))
    return fail(
      isMade(gauge, method)
        ? `${sizeName(gauge)} ${material} is too small here; expected ${sizeName(needed)} or larger`
        : `gauge: ${method} is not made with ${sizeName(gauge)}`,
    );
  const u = usableAmpacity(gauge, input, breaker)!;
  const ground = method === 'old two-wire' ? null : equipmentGround(breaker, material, gauge, needed);
  const { ohms, volts, percent } = dropOf(gauge);
  const largest = limitOf(demand, gauge, input, u.usable);
  const steps: Step[] = [
    ...demand.steps,
    {
      what: 'Conductor before correction',
      working: `${sizeName(gauge)} ${material}, ${u.column} °C column: ${u.base} A ≥ ${round(counted, 2)} A`,
      section: `${at(AMPACITY_SECTION, edition)}, 110.14(C)${METHOD_SECTION[method]}`,
    },
    ...(roofAdds(given, edition)
      ? [
          {
            what: 'In the sun above a roof',
            working: `${given.ambientCelsius} °C + ${ROOF_ADDER} °C = ${input.ambientCelsius} °C, closer than ${at(NEAR_ROOF, edition).inches}" to it; XHHW-2 is excepted`,
            section: at(NEAR_ROOF, edition).section,
          },
        ]
      : []),
    whereItRuns(u, edition, corrected),
    {
      what: 'Breaker',
      working: `${breaker} A${breaker < counted - 1e-9 ? ', the largest between the marks' : ` ≥ ${round(counted, 2)} A`}, ${largest.working}`,
      section: `240.6(A), ${largest.section}`,
    },
    ...(isStandardRating(breaker, edition)
      ? []
      : [
          {
            what: 'Rating',
            working: `${breaker} A is not a standard rating${breaker === 10 ? ` in ${edition}` : ''}: as found it may stay, a standard one is advised`,
            section: '240.6(A)',
          },
        ]),
    groundStep(ground, breaker, material, gauge, needed),
    {
      what: 'Voltage drop',
      working: `2 × ${round(ohms, 3)} Ω ÷ 1,000 ft × ${round(input.feet, 1)} ft × ${round(amps, 2)} A = ${round(volts, 2)} V = ${round(percent, 2)} % of ${input.load.volts} V${limit !== null && gauge !== needed && input.gauge === null ? `; ${sizeName(needed)} would drop ${round(dropOf(needed).percent, 2)} %, above ${limit} %` : ''}`,
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
