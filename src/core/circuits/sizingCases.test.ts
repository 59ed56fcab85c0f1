/**
 * Circuits sized by hand from the tables and the order of the arithmetic: kind of load by kind of load, then heat,
 * bundles, metal and method. Each row: the sum as a person does it, the load, where it runs → conductor, breaker and
 * equipment ground. Copper NM-B on 60 °C terminals at 30 °C, two conductors, unless the row says otherwise.
 */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { EDITIONS, type Gauge } from '#core/job/schema.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad } from './demand/demand.ts';
import { sizeCircuit, type SizingInput } from './sizing.ts';

type Where = Partial<Omit<SizingInput, 'edition' | 'load'>>;
type Row = [sum: string, load: BranchLoad, where: Where, gauge: Gauge, breaker: number, ground: Gauge | null];

const load =
  (kind: BranchLoadKind, volts: number) =>
  (values: Partial<BranchLoad>): BranchLoad => ({ ...PLAIN_LOAD_VALUES, kind, volts, ...values });

const general = load('general', 120);
/** Outlets in general, more than one receptacle. */
const outlets = (amps: number) => general({ amps, severalReceptacles: true });
const fixed = (amps: number) => load('general', 240)({ amps });
const lasting = (continuousAmps: number, amps = 0) =>
  general({ continuousAmps, amps, severalReceptacles: true });
const cord = load('cord', 120);
const appliance = load('appliance', 240);
const heater = load('water-heater', 240);
const heat = load('space-heat', 240);
const range = (watts: number) => load('range', 240)({ watts });
const oven = (watts: number) => load('oven-or-cooktop', 240)({ watts });
const dryer = (watts: number) => load('dryer', 240)({ watts });
const marked = (minimumAmpacity: number, maximumBreaker: number) =>
  load('cooling', 240)({ minimumAmpacity, maximumBreaker });
const cooling = (amps: number) => load('cooling', 240)({ amps });
const room = load('room-cooler', 120);
const kiln = load('kiln', 240);
const charger = (amps: number) => load('vehicle', 240)({ amps });
const motor = load('motor', 240);

const UF = { method: 'UF-B' } as const;
const SE = { method: 'SE', material: 'aluminum', terminalRating: 75 } as const;
const MC = { method: 'MC', terminalRating: 75 } as const;
const RACEWAY = { method: 'raceway', terminalRating: 75 } as const;
const AL = { material: 'aluminum' } as const;
const at = (ambientCelsius: number): Where => ({ ambientCelsius });
const among = (currentCarrying: number): Where => ({ currentCarrying });

const ROWS: Row[] = [
  // Outlets in general: the breaker may not be above what the conductor carries.
  ['12 A → 15', outlets(12), {}, '14', 15, '14'],
  ['15 A → 15', outlets(15), {}, '14', 15, '14'],
  ['16 A → 20', outlets(16), {}, '12', 20, '12'],
  ['20 A → 20', outlets(20), {}, '12', 20, '12'],
  ['1.25 × 12 = 15', lasting(12), {}, '14', 15, '14'],
  ['1.25 × 12.1 = 15.1 → 20', lasting(12.1), {}, '12', 20, '12'],
  ['1.25 × 16 = 20', lasting(16), {}, '12', 20, '12'],
  ['1.25 × 8 + 6 = 16 → 20', lasting(8, 6), {}, '12', 20, '12'],
  ['1.25 × 10 + 2.5 = 15', lasting(10, 2.5), {}, '14', 15, '14'],
  ['14 A of lights → 15', general({ amps: 14 }), {}, '14', 15, '14'],
  ['24 A → 25; 12 AWG carries 20', fixed(24), {}, '10', 25, '10'],
  ['24 A on the 30 chosen', fixed(24), { breaker: 30 }, '10', 30, '10'],
  ['40 A: 8 AWG carries 40', fixed(40), {}, '8', 40, '10'],
  ['41 A on 45: 8 AWG carries 40', fixed(41), {}, '6', 45, '10'],
  ['45 A: 6 AWG carries 55', fixed(45), {}, '6', 45, '10'],
  ['55 A: 60 is the next size above 55', fixed(55), {}, '6', 60, '10'],
  ['56 A: 6 AWG carries 55', fixed(56), {}, '4', 60, '10'],

  // Heat. NM-B starts at 90 °C and ends at 60.
  ['25 × 0.91 = 22.8, at most 15', outlets(15), at(40), '14', 15, '14'],
  ['25 × 0.82 = 20.5, at most 15', outlets(15), at(50), '14', 15, '14'],
  ['25 × 0.71 = 17.8, at most 15', outlets(15), at(60), '14', 15, '14'],
  ['25 × 0.65 = 16.3, at most 15', outlets(15), at(65), '14', 15, '14'],
  ['25 × 0.58 = 14.5 no; 30 × 0.58 = 17.4', outlets(15), at(70), '12', 15, '14'],
  ['30 × 0.76 = 22.8, at most 20', outlets(20), at(55), '12', 20, '12'],
  ['30 × 0.71 = 21.3, at most 20', outlets(20), at(60), '12', 20, '12'],
  ['30 × 0.65 = 19.5 no; 40 × 0.65 = 26', outlets(20), at(65), '10', 20, '12'],
  ['20 × 0.82 = 16.4 allows 15; 30 × 0.82 = 24.6', outlets(16), { ...UF, ...at(40) }, '10', 20, '12'],
  ['20 × 0.82 = 16.4, next size 20', general({ amps: 16 }), { ...UF, ...at(40) }, '12', 20, '12'],
  ['30 × 0.71 and 40 × 0.71 no; 55 × 0.71 = 39', fixed(30), { ...UF, ...at(45) }, '6', 30, '10'],
  ['55 × 0.87 = 47.9 no; 75 × 0.87 = 65.3', fixed(48), { ...RACEWAY, ...at(45) }, '6', 50, '10'],
  ['55 × 0.91 = 50.1, at most 50', fixed(40), { ...RACEWAY, ...at(38) }, '8', 40, '10'],
  ['55 × 0.96 = 52.8, at most 40', fixed(40), at(35), '8', 40, '10'],
  ['frost gives no more than the column: 15', outlets(16), at(-5), '12', 20, '12'],
  [
    '35 × 0.75 = 26.3 no; 50 × 0.75 = 37.5',
    fixed(30),
    { ...RACEWAY, insulation: 75, ...at(50) },
    '8',
    30,
    '10',
  ],

  // Bundles.
  ['30 × 0.8 = 24, at most 20', outlets(20), among(6), '12', 20, '12'],
  ['30 × 0.7 = 21, at most 20', outlets(20), among(9), '12', 20, '12'],
  ['30 × 0.5 = 15 no; 40 × 0.5 = 20', outlets(20), among(10), '10', 20, '12'],
  ['25 × 0.5 = 12.5 no; 30 × 0.5 = 15', outlets(15), among(10), '12', 15, '14'],
  ['25 × 0.7 = 17.5, at most 15', outlets(15), among(9), '14', 15, '14'],
  ['40 × 0.45 = 18 no; 55 × 0.45 = 24.8', outlets(20), among(21), '8', 20, '12'],
  ['30 × 0.45 = 13.5 no; 40 × 0.45 = 18', outlets(15), among(21), '10', 15, '14'],
  ['30 × 0.91 × 0.8 = 21.8, at most 20', outlets(20), { ...among(6), ...at(40) }, '12', 20, '12'],
  ['30 × 0.91 × 0.7 = 19.1 no; 40 × 0.637 = 25.5', outlets(20), { ...among(9), ...at(40) }, '10', 20, '12'],
  ['25 × 0.82 × 0.7 = 14.4 no; 30 × 0.574 = 17.2', outlets(15), { ...among(9), ...at(50) }, '12', 15, '14'],
  ['40 × 0.35 = 14 no; 55 × 0.35 = 19.3', general({ amps: 15 }), { ...RACEWAY, ...among(41) }, '8', 15, '14'],
  ['55 × 0.8 = 44', fixed(40), { ...RACEWAY, ...among(4) }, '8', 40, '10'],
  [
    '55 × 0.8 = 44, at most 40 on 60 °C terminals',
    fixed(40),
    { method: 'raceway', ...among(4) },
    '8',
    40,
    '10',
  ],
  ['55 × 0.8 = 44 no; 75 × 0.8 = 60', fixed(50), { ...RACEWAY, ...among(4) }, '6', 50, '10'],

  // Aluminum, and cable by its kind.
  ['12 AWG carries 15', outlets(12), AL, '12', 15, '12'],
  ['12 AWG carries 15; 10 AWG 25', outlets(16), AL, '10', 20, '10'],
  ['10 AWG carries 25; ground no larger than 10', fixed(25), AL, '10', 25, '10'],
  ['6 AWG carries 40', fixed(40), AL, '6', 40, '8'],
  ['4 AWG carries 55', fixed(50), AL, '4', 50, '8'],
  ['4 AWG carries 65 at 75 °C', fixed(60), { ...RACEWAY, ...AL }, '4', 60, '8'],
  ['1 AWG carries 100 at 75 °C', fixed(100), SE, '1', 100, '6'],
  [
    'above 100 A terminals are for 75 °C: 1/0 carries 120',
    fixed(110),
    { ...SE, terminalRating: 60 },
    '1/0',
    110,
    '4',
  ],
  ['10 AWG SE in insulation: 60 °C, 25', fixed(25), SE, '10', 25, '10'],
  ['48 × 1.25 = 60: 6 AWG MC carries 65', charger(48), MC, '6', 60, '10'],
  ['48 × 1.25 = 60: 6 AWG MC carries 55 on 60 °C terminals', charger(48), { method: 'MC' }, '4', 60, '10'],
  [
    'old two-wire starts at 60 °C: 20 × 0.82 = 16.4 allows 15',
    outlets(15),
    { method: 'old two-wire', ...at(40) },
    '12',
    15,
    // It has no ground to give.
    null,
  ],
  ['old NM with a ground starts at 60 °C too', outlets(15), { method: 'old NM', ...at(40) }, '12', 15, '14'],

  // One thing with a cord.
  ['12 ÷ 0.8 = 15', cord({ amps: 12, severalReceptacles: true }), {}, '14', 15, '14'],
  ['12.5 ÷ 0.8 = 15.6 → 20', cord({ amps: 12.5, severalReceptacles: true }), {}, '12', 20, '12'],
  ['16 ÷ 0.8 = 20', cord({ amps: 16, severalReceptacles: true }), {}, '12', 20, '12'],
  [
    '24 ÷ 0.8 = 30, on 30 A receptacles',
    cord({ volts: 240, amps: 24, severalReceptacles: true }),
    { receptacleRating: 30 },
    '10',
    30,
    '10',
  ],
  ['1,800 W = 15 A; ÷ 0.8 = 18.8 → 20', cord({ watts: 1800, severalReceptacles: true }), {}, '12', 20, '12'],
  ['1,500 W = 12.5 A alone → 15', cord({ watts: 1500 }), {}, '14', 15, '14'],
  ['20 A alone', cord({ amps: 20 }), {}, '12', 20, '12'],

  // A fixed appliance: 422.11(E).
  ['1,200 W at 120 V = 10 A → 15', appliance({ volts: 120, watts: 1200 }), {}, '14', 15, '14'],
  ['13.3 A → 15, at most 20', appliance({ amps: 13.3 }), {}, '14', 15, '14'],
  ['3,600 W = 15 A', appliance({ watts: 3600 }), {}, '14', 15, '14'],
  ['8,000 W = 33.3 A → 35', appliance({ watts: 8000 }), {}, '8', 35, '10'],
  ['18,000 W = 75 A → 80; 3 AWG carries 85', appliance({ watts: 18000 }), {}, '3', 80, '8'],
  ['24 A, 30 marked → 25', appliance({ amps: 24, maximumBreaker: 30 }), {}, '10', 25, '10'],
  [
    '24 A: 150 % = 36 → 40 chosen; 10 AWG has its cap',
    appliance({ amps: 24 }),
    { breaker: 40 },
    '8',
    40,
    '10',
  ],

  // Storage water heaters: 125 %; the shop fits 30 A where that is allowed.
  ['4,500 W: 23.4 → 25 to 28.1 → 30', heater({ watts: 4500 }), {}, '10', 30, '10'],
  ['4,500 W on the 25 chosen', heater({ watts: 4500 }), { breaker: 25 }, '10', 25, '10'],
  ['5,500 W: 28.6 → 30', heater({ watts: 5500 }), {}, '10', 30, '10'],
  ['3,800 W: 19.8 → 20, at most 25', heater({ watts: 3800 }), {}, '12', 20, '12'],
  ['3,000 W: 15.6 → 20, at most 20', heater({ watts: 3000 }), {}, '12', 20, '12'],
  ['2,500 W: 13 → 15, at most 20', heater({ watts: 2500 }), {}, '14', 15, '14'],
  ['1,500 W at 120 V: 15.6 → 20', heater({ volts: 120, watts: 1500 }), {}, '12', 20, '12'],
  ['4,500 W at 208 V: 27 → 30', heater({ volts: 208, watts: 4500 }), {}, '10', 30, '10'],
  ['6,000 W: 31.3 → 35', heater({ watts: 6000 }), {}, '8', 35, '10'],

  // Electric space heating: 125 %.
  ['2,000 W: 10.4 → 15', heat({ watts: 2000 }), {}, '14', 15, '14'],
  ['3,000 W: 15.6 → 20', heat({ watts: 3000 }), {}, '12', 20, '12'],
  ['3,600 W: 18.8 → 20', heat({ watts: 3600 }), {}, '12', 20, '12'],
  ['3,840 W: 20', heat({ watts: 3840 }), {}, '12', 20, '12'],
  ['1,500 W at 120 V: 15.6 → 20', heat({ volts: 120, watts: 1500 }), {}, '12', 20, '12'],
  ['4,800 W: 25', heat({ watts: 4800 }), {}, '10', 25, '10'],
  ['7,500 W: 39.1 → 40', heat({ watts: 7500 }), {}, '8', 40, '10'],
  ['9,600 W: 50', heat({ watts: 9600 }), {}, '6', 50, '10'],
  ['11,520 W: 60; 6 AWG carries 55', heat({ watts: 11520 }), {}, '4', 60, '10'],
  ['11,520 W: 60; 6 AWG carries 65 at 75 °C', heat({ watts: 11520 }), RACEWAY, '6', 60, '10'],

  // Cooking: demand of Table 220.55; no next size up.
  ['12 kW: 8 kW = 33.3 → 40', range(12000), {}, '8', 40, '10'],
  ['8.75 kW: 80 % = 7 kW = 29.2, at least 40', range(8750), {}, '8', 40, '10'],
  ['8 kW: 80 % = 6.4 kW = 26.7 → 30', range(8000), {}, '10', 30, '10'],
  ['3 kW: 80 % = 2.4 kW = 10 → 15', range(3000), {}, '14', 15, '14'],
  ['12.4 kW: no major fraction, 8 kW → 40', range(12400), {}, '8', 40, '10'],
  ['16 kW: 8 × 1.2 = 9.6 kW = 40', range(16000), {}, '8', 40, '10'],
  ['18 kW: 8 × 1.3 = 10.4 kW = 43.3 → 45', range(18000), {}, '6', 45, '10'],
  ['18 kW on the 50 chosen', range(18000), { breaker: 50 }, '6', 50, '10'],
  ['22 kW: 8 × 1.5 = 12 kW = 50', range(22000), {}, '6', 50, '10'],
  ['27 kW: 8 × 1.75 = 14 kW = 58.3 → 60; 55 does not reach 60', range(27000), {}, '4', 60, '10'],
  ['12 kW on aluminum SE: 6 AWG carries 50 at 75 °C, 8 AWG 40', range(12000), SE, '8', 40, '8'],
  ['cooktop 6.6 and ovens 3 + 3 kW: 8 × 1.05 = 8.4 kW = 35, at least 40', range(12600), {}, '8', 40, '10'],
  ['oven 3.4 kW = 14.2 → 15', oven(3400), {}, '14', 15, '14'],
  ['oven 4.8 kW = 20', oven(4800), {}, '12', 20, '12'],
  ['oven 6.6 kW = 27.5 → 30', oven(6600), {}, '10', 30, '10'],
  ['cooktop 7.2 kW = 30', oven(7200), {}, '10', 30, '10'],
  ['cooktop 9.6 kW = 40', oven(9600), {}, '8', 40, '10'],

  // Dryers: 5,000 VA at least, and a 30 A receptacle.
  ['5,000 W = 20.8 → 25 at least; 30', dryer(5000), {}, '10', 30, '10'],
  ['4,200 W counts 5,000', dryer(4200), {}, '10', 30, '10'],
  ['5,600 W = 23.3; 30', dryer(5600), {}, '10', 30, '10'],
  ['7,200 W = 30', dryer(7200), {}, '10', 30, '10'],
  ['7,500 W = 31.3 → 35', dryer(7500), {}, '8', 35, '10'],
  ['5,000 W on the 25 chosen', dryer(5000), { breaker: 25 }, '10', 25, '10'],

  // Cooling and heat pumps: by what is marked; the ground no larger than the conductors.
  ['18 marked → 12 AWG; 30 marked', marked(18, 30), {}, '12', 30, '12'],
  ['21.4 marked → 10 AWG; 35 marked', marked(21.4, 35), {}, '10', 35, '10'],
  ['14.2 marked → 14 AWG; 20 marked', marked(14.2, 20), {}, '14', 20, '14'],
  ['33.8 marked → 8 AWG; 50 marked', marked(33.8, 50), {}, '8', 50, '10'],
  ['30.1 marked: 10 AWG carries 30', marked(30.1, 50), {}, '8', 50, '10'],
  ['32 marked is no standard size: 30', marked(24, 32), {}, '10', 30, '10'],
  ['28 at 45 °C: 40 × 0.87 = 34.8, at most 30', marked(28, 45), at(45), '10', 45, '10'],
  ['28 in UF at 45 °C: 40 × 0.71 = 28.4', marked(28, 45), { ...UF, ...at(45) }, '8', 45, '10'],
  ['20 on 75 °C terminals: 14 AWG carries 20', marked(20, 30), RACEWAY, '14', 30, '14'],
  ['20.5 on 75 °C terminals: 12 AWG carries 25', marked(20.5, 30), RACEWAY, '12', 30, '12'],
  ['16 A: 1.25 = 20; 1.75 = 28 → 25', cooling(16), {}, '12', 25, '12'],
  ['18 A: 1.25 = 22.5; 1.75 = 31.5 → 30', cooling(18), {}, '10', 30, '10'],
  ['9 A alone: ÷ 0.8 = 11.3 → 15', room({ amps: 9 }), {}, '14', 15, '14'],
  ['12 A alone: 15', room({ amps: 12 }), {}, '14', 15, '14'],
  ['7 A beside others: ÷ 0.5 = 14 → 15', room({ amps: 7, severalReceptacles: true }), {}, '14', 15, '14'],
  ['10 A beside others: 20', room({ amps: 10, severalReceptacles: true }), {}, '12', 20, '12'],
  ['15 A at 240 V alone: 18.8 → 20', room({ volts: 240, amps: 15 }), {}, '12', 20, '12'],

  // Kilns: on for more than three hours.
  ['1,800 W at 120 V = 15 A: 18.8 → 20', kiln({ volts: 120, watts: 1800 }), {}, '12', 20, '12'],
  ['24 A: 30', kiln({ amps: 24 }), {}, '10', 30, '10'],
  ['32 A: 40', kiln({ amps: 32 }), {}, '8', 40, '10'],
  ['40 A: 50', kiln({ amps: 40 }), {}, '6', 50, '10'],
  ['11.5 kW = 47.9 A: 59.9 → 60', kiln({ watts: 11500 }), {}, '4', 60, '10'],
  ['48 A: 60', kiln({ amps: 48 }), {}, '4', 60, '10'],

  // EV charging: continuous.
  ['12 A at 120 V: 15', load('vehicle', 120)({ amps: 12 }), {}, '14', 15, '14'],
  ['16 A: 20', charger(16), {}, '12', 20, '12'],
  ['24 A: 30', charger(24), {}, '10', 30, '10'],
  ['32 A: 40', charger(32), {}, '8', 40, '10'],
  ['40 A: 50', charger(40), {}, '6', 50, '10'],
  ['48 A: 60; 6 AWG NM-B carries 55', charger(48), { terminalRating: 75 }, '4', 60, '10'],
  ['48 A: 60; 6 AWG in raceway carries 65', charger(48), RACEWAY, '6', 60, '10'],
  ['64 A: 80; 4 AWG carries 85', charger(64), RACEWAY, '4', 80, '8'],
  ['80 A: 100; 3 AWG carries 100', charger(80), RACEWAY, '3', 100, '8'],
  [
    '80 A in raceway of 60 °C terminals: 1 AWG carries 110',
    charger(80),
    { method: 'raceway' },
    '1',
    100,
    '8',
  ],
  ['48 A on aluminum SE: 4 AWG carries 65', charger(48), SE, '4', 60, '8'],

  // Motors: table current × 125 %; breaker to 250 %.
  ['½ hp at 115 V: 9.8 × 1.25 = 12.3 → 15', motor({ volts: 120, horsepower: 0.5 }), {}, '14', 15, '14'],
  ['1 hp at 115 V: 16 × 1.25 = 20', motor({ volts: 120, horsepower: 1 }), {}, '12', 20, '12'],
  ['1½ hp at 115 V: 20 × 1.25 = 25', motor({ volts: 120, horsepower: 1.5 }), {}, '10', 25, '10'],
  ['1 hp at 230 V: 8 × 1.25 = 10 → 15', motor({ horsepower: 1 }), {}, '14', 15, '14'],
  ['3 hp: 17 × 1.25 = 21.3 → 25', motor({ horsepower: 3 }), {}, '10', 25, '10'],
  ['5 hp: 28 × 1.25 = 35', motor({ horsepower: 5 }), {}, '8', 35, '10'],
  ['5 hp on the 70 that 250 % allows', motor({ horsepower: 5 }), { breaker: 70 }, '8', 70, '8'],
  [
    '⅓ hp at 115 V on 20: 7.2 × 2.5 = 18 → 20',
    motor({ volts: 120, horsepower: 1 / 3 }),
    { breaker: 20 },
    '14',
    20,
    '14',
  ],
  ['6 A on its plate: 7.5 → 15', motor({ amps: 6 }), {}, '14', 15, '14'],
  [
    '2 hp in UF at 55 °C: 15; 30 × 0.41 no; 40 × 0.41 = 16.4',
    motor({ horsepower: 2 }),
    { ...UF, ...at(55) },
    '8',
    15,
    '14',
  ],

  // Enlarged against drop: the ground grows in proportion, and never above the conductors.
  ['10 for 12: 6,530 × 10,380 ÷ 6,530', outlets(16), { gauge: '10' }, '10', 20, '10'],
  ['8 for 12: 6,530 × 16,510 ÷ 6,530', outlets(16), { gauge: '8' }, '8', 20, '8'],
  ['6 for 8: 10,380 × 26,240 ÷ 16,510 = 16,497', range(12000), { gauge: '6' }, '6', 40, '8'],
  ['4 for 10: 10,380 × 41,740 ÷ 10,380', heater({ watts: 4500 }), { gauge: '4' }, '4', 30, '4'],
];

const PLAIN: Omit<SizingInput, 'edition' | 'load'> = {
  material: 'copper',
  method: 'NM-B',
  insulation: null,
  terminalRating: 60,
  ambientCelsius: 30,
  currentCarrying: 2,
  feet: 50,
  conductorCelsius: 75,
  breaker: null,
  gauge: null,
};

test('there are enough worked cases, of every kind of load', () => assert.ok(ROWS.length >= 120));

for (const [sum, load, where, gauge, breaker, ground] of ROWS) {
  test(`${load.kind}, ${sum}`, () => {
    for (const edition of EDITIONS) {
      const sized = sizeCircuit({ ...PLAIN, ...where, edition, load });
      assert.ok(sized.ok, JSON.stringify(sized));
      assert.deepEqual(
        [sized.value.gauge, sized.value.breaker, sized.value.ground],
        [gauge, breaker, ground],
      );
    }
  });
}

/** By the nameplate of an air handler with strip heat, a tankless heater and other large or unusual things. */
const NEW_ROWS: Row[] = [
  ['1.25 × (41.7 + 4) = 57.1 → 60', heat({ watts: 10000, blowerAmps: 4 }), MC, '6', 60, '10'],
  [
    '1.25 × (47.9 + 6) = 67.4 → 70: the blower comes on top',
    heat({ watts: 11500, blowerAmps: 6 }),
    MC,
    '4',
    70,
    '8',
  ],
  ['15 kW: 1.25 × 62.5 = 78.1 → 80, divided inside', heat({ watts: 15000 }), MC, '4', 80, '8'],
  ['20 kW: 1.25 × 83.3 = 104.2 → 110; 2 AWG carries 115', heat({ watts: 20000 }), MC, '2', 110, '6'],
  ['tankless 7.2 kW: 30 A', load('tankless-heater', 240)({ watts: 7200 }), {}, '10', 30, '10'],
  ['tankless 11 kW: 45.8 → 50', load('tankless-heater', 240)({ watts: 11000 }), {}, '6', 50, '10'],
  ['tankless 18 kW: 75 → 80', load('tankless-heater', 240)({ watts: 18000 }), MC, '4', 80, '8'],
  ['a gas dryer of 6 A is no 5,000 VA', load('dryer', 120)({ amps: 6 }), {}, '14', 15, '14'],
  ['½ hp at 208 V: 1.25 × 5.4 = 6.75', load('motor', 208)({ horsepower: 0.5 }), {}, '14', 15, '14'],
  ['3 hp at 208 V: 1.25 × 18.7 = 23.4', load('motor', 208)({ horsepower: 3 }), {}, '10', 25, '10'],
  ['a ¾ hp disposal: 1.25 × 13.8 = 17.25', load('appliance', 120)({ horsepower: 0.75 }), {}, '12', 20, '12'],
  ['1,440 W of outlets: 12 A', general({ watts: 1440 }), {}, '14', 15, '14'],
  [
    '4,500 W at 240 V marked 22 A: the larger, 27.5 → 30',
    heater({ watts: 4500, amps: 22 }),
    {},
    '10',
    30,
    '10',
  ],
  ['a fan at 10 A for hours: 12.5', load('cord', 120)({ continuousAmps: 10 }), {}, '14', 15, '14'],
  [
    '5 A fixed beside receptacles: 10 of 15',
    load('appliance', 120)({ amps: 5, severalReceptacles: true }),
    {},
    '14',
    15,
    '14',
  ],
  ['225 A: 4/0 carries 230', fixed(225), { method: 'raceway' }, '4/0', 225, '4'],
  ['300 A: 350 kcmil carries 310', fixed(300), { method: 'raceway' }, '350', 300, '4'],
  ['290 A: 300 kcmil carries 285; 350 does', fixed(290), { method: 'raceway' }, '350', 300, '4'],
  ['400 A: 500 kcmil carries 380, next size 400', fixed(380), { method: 'raceway' }, '500', 400, '3'],
  [
    '400 A in aluminum: 600 kcmil carries 340',
    fixed(340),
    { method: 'raceway', material: 'aluminum' },
    '600',
    350,
    '1',
  ],
  [
    '60 °C wire on 75 °C terminals: 8 AWG carries 40',
    fixed(45),
    { ...RACEWAY, insulation: 60 },
    '6',
    45,
    '10',
  ],
  [
    'on a hot roof 30 + 33 = 63 °C: 40 × 0.65 = 26',
    fixed(25),
    { method: 'raceway', aboveRoof: 0.5 },
    '10',
    25,
    '10',
  ],
  ['an inch above it: no more', fixed(25), { method: 'raceway', aboveRoof: 1 }, '10', 25, '10'],
  ['40 × 0.65 = 26 no; 55 × 0.65 = 35.8', fixed(30), { method: 'raceway', aboveRoof: 0.5 }, '8', 30, '10'],
  [
    '16 A, 120 ft: 12 AWG drops 6.2 %, 10 3.9, 8 2.5; ground as the hots: 8',
    outlets(16),
    { feet: 120, dropLimitPercent: 3 },
    '8',
    20,
    '8',
  ],
  [
    '15 A on two 15 A receptacles of 20 A',
    outlets(15),
    { receptacleRating: 15, breaker: 20 },
    '12',
    20,
    '12',
  ],
  [
    '48 A by a single 50 A receptacle',
    load('cord', 240)({ amps: 48 }),
    { receptacleRating: 50 },
    '6',
    50,
    '10',
  ],
  ['marked 22 and 24: 20 A lies below both', marked(22, 24), {}, '10', 20, '12'],
  ['16 A on the 18 found', general({ amps: 16 }), { breaker: 18 }, '12', 18, '12'],
];
for (const [sum, asked, where, gauge, breaker, ground] of NEW_ROWS) {
  test(`${asked.kind}, ${sum}`, () => {
    for (const edition of EDITIONS) {
      const sized = sizeCircuit({ ...PLAIN, ...where, edition, load: asked });
      assert.ok(sized.ok, sized.ok ? '' : sized.message);
      const { value } = sized;
      assert.deepEqual([value.gauge, value.breaker, value.ground], [gauge, breaker, ground]);
    }
  });
}

test('the working says why: the size up that is barred, the circular mils, what is not standard, what disagrees', () => {
  const steps = (asked: BranchLoad, where: Where, edition: (typeof EDITIONS)[number] = '2023') => {
    const sized = sizeCircuit({ ...PLAIN, ...where, edition, load: asked });
    assert.ok(sized.ok, sized.ok ? '' : sized.message);
    return sized.value.steps.map((s) => `${s.what}: ${s.working} [${s.section}]`).join('\n');
  };
  assert.match(steps(outlets(12), { ...UF, ambientCelsius: 40 }), /more than one receptacle/);
  assert.match(
    steps(range(12000), {}),
    /no next size up: the conductor is to carry the rating|standard rating itself/,
  );
  assert.match(steps(fixed(40), {}), /40 A is a standard rating itself, so no size up/);
  assert.match(
    steps(outlets(16), { feet: 120, dropLimitPercent: 3 }),
    /6,530 × 16,510 ÷ 6,530 = 16,510 circular mils: 8 AWG \[250\.122\(B\)\]/,
  );
  assert.match(steps(outlets(16), { feet: 120, dropLimitPercent: 3 }), /12 AWG would drop/);
  assert.match(steps(general({ amps: 16 }), { breaker: 18 }), /18 A is not a standard rating: as found/);
  assert.match(steps(heater({ watts: 4500, amps: 22 }), {}), /the two disagree, the larger counts/);
  assert.match(steps(heat({ watts: 15000 }), MC), /Divided inside.*424\.22\(B\), \(C\)/);
  assert.match(steps(fixed(25), { method: 'raceway', aboveRoof: 0.8 }, '2017'), /30 °C \+ 33 °C = 63 °C/);
  assert.doesNotMatch(steps(fixed(25), { method: 'raceway', aboveRoof: 0.8 }, '2020'), /33 °C/);
});

const REFUSED: [string, BranchLoad, Where, RegExp][] = [
  ['24 A of outlets on several receptacles', outlets(24), {}, /25 A breaker, and at most 20 A/],
  ['80 A on NM-B, which ends at 2 AWG', charger(80), {}, /no conductor to 2 AWG.*raceway, MC or SE go on/],
  ['NM-B of 1 AWG', fixed(40), { gauge: '1' }, /NM-B is not made with 1 AWG/],
  ['60 °C insulation in NM-B', fixed(20), { insulation: 60 }, /insulation: expected 90 °C for NM-B/],
  ['horsepower of heat', heat({ horsepower: 1 }), {}, /horsepower: expected none for space-heat/],
  [
    'a continuous part of a dryer',
    load('dryer', 240)({ watts: 5000, continuousAmps: 4 }),
    {},
    /continuousAmps: expected 0/,
  ],
  ['a continuous part beside amperes', appliance({ amps: 4, continuousAmps: 4 }), {}, /not both/],
  ['a blower beside a motor', motor({ amps: 5, blowerAmps: 2 }), {}, /blowerAmps: expected none for motor/],
  [
    'several receptacles of a range',
    load('range', 240)({ watts: 9000, severalReceptacles: true }),
    {},
    /severalReceptacles: expected no/,
  ],
  [
    'a 20 A receptacle alone for 24 A',
    appliance({ amps: 24 }),
    { receptacleRating: 20 },
    /20 A receptacle does not suit the 25 A/,
  ],
  ['several 25 A receptacles', outlets(12), { receptacleRating: 25 }, /expected 15, 20, 30, 40 or 50/],
  [
    '14 A by a cord at 15 A receptacles',
    cord({ amps: 14, severalReceptacles: true }),
    { receptacleRating: 15 },
    /above 80 % of a 15 A receptacle, 12 A/,
  ],
  ['420 A', fixed(420), { method: 'raceway' }, /above 400 A/],
  ['1 % over a thousand feet', outlets(16), { feet: 1000, dropLimitPercent: 1 }, /keeps the drop to 1 %/],
  ['a nameplate without numbers', appliance({}), {}, /amps or watts: expected/],
  [
    'a breaker above what is marked',
    marked(18, 30),
    { breaker: 40 },
    /40 A breaker is too large; expected 30 A/,
  ],
  ['30 A for 3,000 W of water heater', heater({ watts: 3000 }), { breaker: 30 }, /too large; expected 20 A/],
  ['marks that do not meet', marked(32, 30), {}, /do not meet/],
  ['a motor not in the table', motor({ horsepower: 0.9 }), {}, /not in Table 430.248/],
  ['12 AWG for 20 A on 30', fixed(20), { breaker: 30, gauge: '12' }, /expected 10 AWG/],
  ['a range beyond the table', range(30000), {}, /27 kW/],
];
for (const [what, load, where, message] of REFUSED) {
  test(`refuses ${what}`, () => {
    const sized = sizeCircuit({ ...PLAIN, ...where, edition: '2020', load });
    assert.ok(!sized.ok, JSON.stringify(sized));
    assert.match(sized.message, message);
  });
}

test('the working names its sections in the job’s edition', () => {
  const sections = (load: BranchLoad, edition: (typeof EDITIONS)[number]) => {
    const sized = sizeCircuit({ ...PLAIN, edition, load });
    return sized.ok ? sized.value.steps.map((s) => s.section).join('; ') : sized.message;
  };
  assert.match(sections(heat({ watts: 3000 }), '2017'), /424\.3\(B\).*310\.15\(B\)\(16\)/);
  assert.match(
    sections(heat({ watts: 3000 }), '2020'),
    /424\.4\(B\).*Table 310\.16.*310\.15\(B\)\(1\), \(C\)\(1\)/,
  );
  assert.match(sections(range(12000), '2023'), /220\.55; 210\.19\(C\)/);
  assert.match(sections(range(12000), '2017'), /220\.55; 210\.19\(A\)\(3\)/);
  assert.match(sections(charger(32), '2017'), /^625\.41; 625\.41;/);
  assert.match(sections(charger(32), '2020'), /625\.42/);
  assert.match(sections(heater({ watts: 4500 }), '2020'), /422\.13; 422\.11\(E\).*334\.80/);
  assert.match(sections(marked(18, 30), '2020'), /440\.4\(B\).*240\.4\(G\)/);
  assert.match(sections(motor({ horsepower: 1 }), '2020'), /430\.248; 430\.22; 430\.52/);
});
