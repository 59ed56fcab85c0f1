/** Conductor and breaker tables. Section numbers as in the 2020 edition; 2017 names differ as noted. */
import { GAUGES, type CableKind, type Edition, type Gauge } from '#core/job/schema.ts';
import { since } from './editions.ts';

export type Material = 'copper' | 'aluminum';
export type Column = 60 | 75 | 90;

/** Standard ratings, 240.6(A), amperes. */
export const STANDARD_BREAKERS = [
  15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400,
] as const;
/** From this edition on 10 A is a standard rating too, 240.6(A), for circuits of 210.23(A). */
const TEN_AMPERES_SINCE: Edition = '2023';

/** Whether a rating is among those of 240.6(A). */
export const isStandardRating = (amps: number, edition: Edition): boolean =>
  STANDARD_BREAKERS.some((rating) => rating === amps) || (amps === 10 && since(edition, TEN_AMPERES_SINCE));

/** Smallest standard rating from 15 A at or above a current, 240.6(A); null above 400 A. */
export const standardBreaker = (amps: number): number | null =>
  STANDARD_BREAKERS.find((rating) => rating >= amps - 1e-9) ?? null;
/** Largest standard rating at or below a current; null below 15 A. */
export const standardAtMost = (amps: number): number | null =>
  STANDARD_BREAKERS.findLast((rating) => rating <= amps + 1e-9) ?? null;

/** Size as the trade says it: `12 AWG`, `250 kcmil`. */
export const sizeName = (gauge: Gauge): string => `${gauge} ${Number(gauge) >= 250 ? 'kcmil' : 'AWG'}`;

/** Ampacity, 310.16 (2017: Table 310.15(B)(16)): 60, 75 and 90 °C columns, 30 °C, three conductors. */
const AMPACITY: Record<Material, Partial<Record<Gauge, readonly [number, number, number]>>> = {
  copper: {
    '14': [15, 20, 25],
    '12': [20, 25, 30],
    '10': [30, 35, 40],
    '8': [40, 50, 55],
    '6': [55, 65, 75],
    '4': [70, 85, 95],
    '3': [85, 100, 115],
    '2': [95, 115, 130],
    '1': [110, 130, 145],
    '1/0': [125, 150, 170],
    '2/0': [145, 175, 195],
    '3/0': [165, 200, 225],
    '4/0': [195, 230, 260],
    '250': [215, 255, 290],
    '300': [240, 285, 320],
    '350': [260, 310, 350],
    '400': [280, 335, 380],
    '500': [320, 380, 430],
    '600': [350, 420, 475],
  },
  aluminum: {
    '12': [15, 20, 25],
    '10': [25, 30, 35],
    '8': [35, 40, 45],
    '6': [40, 50, 55],
    '4': [55, 65, 75],
    '3': [65, 75, 85],
    '2': [75, 90, 100],
    '1': [85, 100, 115],
    '1/0': [100, 120, 135],
    '2/0': [115, 135, 150],
    '3/0': [130, 155, 175],
    '4/0': [150, 180, 205],
    '250': [170, 205, 230],
    '300': [195, 230, 260],
    '350': [210, 250, 280],
    '400': [225, 270, 305],
    '500': [260, 310, 350],
    '600': [285, 340, 385],
  },
};

const COLUMN_INDEX: Record<Column, 0 | 1 | 2> = { 60: 0, 75: 1, 90: 2 };

/** Amperes, or null where the table has no such conductor. */
export const ampacity = (gauge: Gauge, material: Material, column: Column): number | null =>
  AMPACITY[material][gauge]?.[COLUMN_INDEX[column]] ?? null;

/** Ambient correction, 310.15(B)(1) (2017: Table 310.15(B)(2)): top of each band in °C, then 60/75/90. */
const AMBIENT: readonly (readonly [number, number | null, number | null, number | null])[] = [
  [10, 1.29, 1.2, 1.15],
  [15, 1.22, 1.15, 1.12],
  [20, 1.15, 1.11, 1.08],
  [25, 1.08, 1.05, 1.04],
  [30, 1, 1, 1],
  [35, 0.91, 0.94, 0.96],
  [40, 0.82, 0.88, 0.91],
  [45, 0.71, 0.82, 0.87],
  [50, 0.58, 0.75, 0.82],
  [55, 0.41, 0.67, 0.76],
  [60, null, 0.58, 0.71],
  [65, null, 0.47, 0.65],
  [70, null, 0.33, 0.58],
  [75, null, null, 0.5],
  [80, null, null, 0.41],
  [85, null, null, 0.29],
];

/** Correction factor for a column at an ambient temperature in °C, or null where the insulation may not be used. */
export function ambientFactor(celsius: number, column: Column): number | null {
  const band = AMBIENT.find(([top]) => celsius <= top);
  return band?.[(COLUMN_INDEX[column] + 1) as 1 | 2 | 3] ?? null;
}

/** Adjustment for more than three current-carrying conductors, 310.15(C)(1) (2017: 310.15(B)(3)(a)). */
export function bundlingFactor(currentCarrying: number): number {
  if (currentCarrying <= 3) return 1;
  if (currentCarrying <= 6) return 0.8;
  if (currentCarrying <= 9) return 0.7;
  if (currentCarrying <= 20) return 0.5;
  if (currentCarrying <= 30) return 0.45;
  return currentCarrying <= 40 ? 0.4 : 0.35;
}

const SMALL_CAPS: Record<Material, Partial<Record<Gauge, number>>> = {
  copper: { '14': 15, '12': 20, '10': 30 },
  aluminum: { '12': 15, '10': 25 },
};

/** Largest breaker on a small conductor, 240.4(D), amperes; null where no cap applies. */
export const smallConductorCap = (gauge: Gauge, material: Material): number | null =>
  SMALL_CAPS[material][gauge] ?? null;

const GROUND_ROWS: readonly (readonly [number, Gauge, Gauge])[] = [
  [15, '14', '12'],
  [20, '12', '10'],
  [60, '10', '8'],
  [100, '8', '6'],
  [200, '6', '4'],
  [300, '4', '2'],
  [400, '3', '1'],
];

/** Equipment ground for a breaker, Table 250.122, before any comparison with the circuit's conductors. */
export function tableGround(breaker: number, material: Material): Gauge {
  const row = GROUND_ROWS.find(([rating]) => breaker <= rating) ?? GROUND_ROWS.at(-1)!;
  return material === 'copper' ? row[1] : row[2];
}

/** Cross-section in circular mils, Chapter 9 Table 8. */
export const CIRCULAR_MILS: Record<Gauge, number> = {
  '14': 4110,
  '12': 6530,
  '10': 10380,
  '8': 16510,
  '6': 26240,
  '4': 41740,
  '3': 52620,
  '2': 66360,
  '1': 83690,
  '1/0': 105600,
  '2/0': 133100,
  '3/0': 167800,
  '4/0': 211600,
  '250': 250000,
  '300': 300000,
  '350': 350000,
  '400': 400000,
  '500': 500000,
  '600': 600000,
};

/** Ohms per 1,000 ft at 75 °C, dc, uncoated: solid to 10 AWG, stranded from 8 AWG. Chapter 9 Table 8. */
const OHMS: Record<Material, Partial<Record<Gauge, number>>> = {
  copper: {
    '14': 3.07,
    '12': 1.93,
    '10': 1.21,
    '8': 0.778,
    '6': 0.491,
    '4': 0.308,
    '3': 0.245,
    '2': 0.194,
    '1': 0.154,
    '1/0': 0.122,
    '2/0': 0.0967,
    '3/0': 0.0766,
    '4/0': 0.0608,
    '250': 0.0515,
    '300': 0.0429,
    '350': 0.0367,
    '400': 0.0321,
    '500': 0.0258,
    '600': 0.0214,
  },
  aluminum: {
    '12': 3.18,
    '10': 2,
    '8': 1.28,
    '6': 0.808,
    '4': 0.508,
    '3': 0.403,
    '2': 0.319,
    '1': 0.253,
    '1/0': 0.201,
    '2/0': 0.159,
    '3/0': 0.126,
    '4/0': 0.1,
    '250': 0.0847,
    '300': 0.0707,
    '350': 0.0605,
    '400': 0.0529,
    '500': 0.0424,
    '600': 0.0353,
  },
};

const TEMPERATURE_COEFFICIENT: Record<Material, number> = { copper: 0.00323, aluminum: 0.0033 };

/**
 * Resistance of one conductor per 1,000 ft at a temperature in °C: R₇₅ (1 + α (T − 75)).
 * @returns ohms, or null where the table has no such conductor
 */
export function ohmsPerThousandFeet(gauge: Gauge, material: Material, celsius: number): number | null {
  const at75 = OHMS[material][gauge];
  return at75 === undefined ? null : at75 * (1 + TEMPERATURE_COEFFICIENT[material] * (celsius - 75));
}

/** Gauges from thin to thick. */
export const GAUGES_BY_SIZE: readonly Gauge[] = GAUGES;

/** Thickest conductor that a cable is made with, 334.104 and 340.104; others to the end of the table. */
const THICKEST: Partial<Record<CableKind, Gauge>> = {
  'NM-B': '2',
  'old NM': '2',
  'old two-wire': '2',
  'UF-B': '4/0',
};

/** Whether a cable is made with conductors of a size. */
export const isMade = (gauge: Gauge, cable: CableKind): boolean => {
  const thickest = THICKEST[cable];
  return thickest === undefined || CIRCULAR_MILS[gauge] <= CIRCULAR_MILS[thickest];
};
