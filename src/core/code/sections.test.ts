/** Every section that is cited, by its title in our own words; the letters that an edition changed, one by one. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { CIRCUIT_CASES } from '../../../tests/cases/circuitRules.ts';
import { INSPECTION_CASES } from '../../../tests/cases/inspections.ts';
import { LAYOUT_CASES } from '../../../tests/cases/layoutRules.ts';
import { PROTECTION_CASES } from '../../../tests/cases/protectionRules.ts';
import { WIRING_CASES } from '../../../tests/cases/wiringRules.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { LOOK_ITEMS } from '#core/handover/looks.ts';
import { at } from '#core/tables/editions.ts';
import { check } from './checker.ts';
import { ALL_RULES } from './rules/index.ts';

const TITLES: Record<string, string> = {
  '110.3': 'Examining, listing, and using equipment as listed',
  '110.9': 'Interrupting rating',
  '110.12': 'Workmanlike installation, sound parts',
  '110.14': 'Electrical connections, terminals and their temperature',
  '110.24': 'Available fault current marked at the service',
  '110.26': 'Space about equipment',
  '200.4': 'Neutral conductors, grouped',
  '200.7': 'Use of white and gray',
  '210.4': 'Multiwire branch circuits',
  '210.6': 'Voltage limits of branch circuits',
  '210.7': 'Two circuits on one device',
  '210.8': 'Ground-fault protection for people',
  '210.11': 'Branch circuits required',
  '210.12': 'Arc-fault protection',
  '210.19': 'Conductors of branch circuits',
  '210.20': 'Overcurrent protection of branch circuits',
  '210.21': 'Outlet devices and their ratings',
  '210.23': 'What a circuit of a rating may feed',
  '210.50': 'Receptacles for appliances within reach',
  '210.52': 'Receptacles in dwellings',
  '210.63': 'Receptacle for equipment that is serviced',
  '210.70': 'Lighting outlets required',
  '215.2': 'Conductors of feeders',
  '215.3': 'Overcurrent protection of feeders',
  '215.6': 'Ground with a feeder',
  '215.18': 'Surge protection at the end of a feeder',
  '220.18': 'Largest loads of branch circuits',
  '220.40': 'Load of a service or feeder',
  '230.42': 'Size of service conductors',
  '230.67': 'Surge protection at the service',
  '230.79': 'Rating of the service disconnect',
  '230.85': 'Emergency disconnect outdoors',
  '240.4': 'Protection of conductors',
  '240.6': 'Standard ratings',
  '240.15': 'Poles of a breaker that open together',
  '240.24': 'Where overcurrent devices may be',
  '250.4': 'General requirements for grounding and bonding',
  '250.24': 'Main bond at the service',
  '250.32': 'Grounding at another building',
  '250.50': 'System of electrodes',
  '250.53': 'Electrodes in the earth',
  '250.66': 'Size of the electrode conductor',
  '250.70': 'Connections to electrodes',
  '250.94': 'Bonding of communications',
  '250.104': 'Bonding of pipes',
  '250.122': 'Size of equipment grounds',
  '250.130': 'Ground brought to old wiring',
  '250.140': 'Frames of ranges and dryers',
  '250.142': 'Neutral as a ground, and where not',
  '250.148': 'Grounds joined in boxes',
  '300.4': 'Protection against nails and screws',
  '300.5': 'Underground',
  '300.7': 'Raceways through cold and warm',
  '300.13': 'Neutral unbroken by devices',
  '300.14': 'Free conductor in boxes',
  '300.15': 'Boxes where conductors are joined',
  '310.12': 'Services and feeders of dwellings, from 2020',
  '310.15': 'Ampacity and its corrections',
  '312.5': 'Cables into cabinets',
  '314.15': 'Boxes in wet places',
  '314.16': 'Fill of boxes',
  '314.17': 'Cables into boxes',
  '314.20': 'Boxes in walls',
  '314.21': 'Gaps around boxes',
  '314.27': 'Boxes that carry luminaires and fans',
  '314.29': 'Boxes that can be reached',
  '320.23': 'Armored cable in attics',
  '330.10': 'Metal-clad cable, where',
  '334.12': 'Nonmetallic cable, where not',
  '334.15': 'Nonmetallic cable, exposed',
  '334.23': 'Nonmetallic cable in attics',
  '334.30': 'Nonmetallic cable, supported',
  '338.12': 'Service-entrance cable, where not',
  '340.10': 'Underground feeder cable, where',
  '340.12': 'Underground feeder cable, where not',
  '394.12': 'Knob-and-tube, where not',
  '404.2': 'Connections of switches',
  '404.14': 'Ratings of switches',
  '406.3': 'Receptacles, ratings and marks',
  '406.4': 'Receptacles, installing and replacing',
  '406.5': 'Receptacles, mounting',
  '406.9': 'Receptacles in damp and wet places',
  '406.12': 'Tamper-resistant receptacles',
  '408.4': 'Directory of a panel',
  '408.7': 'Openings not used',
  '408.36': 'Overcurrent protection of a panel',
  '408.40': 'Grounding of a panel',
  '408.41': 'One neutral to a terminal',
  '408.54': 'Number of overcurrent devices',
  '410.10': 'Luminaires in damp and wet places and at tubs',
  '410.16': 'Luminaires in closets',
  '410.36': 'Support of luminaires',
  '410.116': 'Recessed luminaires and insulation',
  '422.5': 'Ground-fault protection of appliances',
  '422.10': 'Branch circuits of appliances',
  '422.12': 'Central heating',
  '422.16': 'Cords of appliances',
  '422.31': 'Disconnects of wired appliances',
  '424.3': 'Circuits of electric heating, 2017',
  '424.4': 'Circuits of electric heating, from 2020',
  '424.19': 'Disconnects of electric heating',
  '424.44': 'Floor heat',
  '430.6': 'Current of a motor',
  '430.102': 'Disconnects of motors',
  '440.4': 'Marks of cooling equipment',
  '440.14': 'Disconnects of cooling equipment',
  '440.22': 'Breakers of cooling equipment',
  '440.32': 'Conductors of cooling equipment',
  '440.62': 'Circuits of room coolers',
  '625.40': 'Circuits of vehicle charging',
  '625.41': 'Rating of vehicle charging',
  '625.42': 'Rating of vehicle charging, adjustable',
  '625.54': 'Ground-fault protection of vehicle receptacles',
};

const CITED = /\b(\d{3}\.\d+)/g;
const basesIn = (text: string): string[] => [...text.matchAll(CITED)].map((m) => m[1]!);

const CASES = [...CIRCUIT_CASES, ...LAYOUT_CASES, ...WIRING_CASES, ...PROTECTION_CASES, ...INSPECTION_CASES];

test('every section cited has a title', () => {
  const cited = new Set<string>();
  for (const edition of EDITIONS) {
    for (const { sections } of ALL_RULES) for (const base of basesIn(at(sections, edition))) cited.add(base);
    for (const { document } of CASES)
      for (const f of check(document(edition))) for (const base of basesIn(f.section)) cited.add(base);
  }
  for (const { section } of LOOK_ITEMS) for (const base of basesIn(section)) cited.add(base);
  assert.deepEqual([...cited].filter((base) => !(base in TITLES)).sort(), []);
  // A title that nothing cites any more is a leftover.
  assert.deepEqual(
    Object.keys(TITLES).filter((base) => !cited.has(base)),
    [],
  );
});

/** What a rule cites in 2017, 2020 and 2023 where the editions letter it otherwise. */
const LETTERED: [rule: string, cited: readonly [string, string, string]][] = [
  ['gfci', ['210.8(A), (D), (E)', '210.8(A), (C), (D), (E)', '210.8(A), (C), (D), (E)']],
  ['afci', ['210.12(A)', '210.12(A)', '210.12(B)']],
  ['island-receptacles', ['210.52(C)(2), (3)', '210.52(C)(2)', '210.52(C)(2)']],
  ['equipment-receptacle', ['210.63', '210.63(A)', '210.63(A)']],
  ['fixed-equipment-share', ['210.23(A)(2)', '210.23(A)(2)', '210.23(B)(2)']],
  ['cord-share', ['210.21(B)(2), 210.23(A)(1)', '210.21(B)(2), 210.23(A)(1)', '210.21(B)(2), 210.23(B)(1)']],
  ['controlled-marking', ['406.3(E)', '406.3(E)', '406.3(F)']],
  ['outdoor-outlets', ['not in 2017', '210.8(F)', '210.8(F)']],
  ['surge', ['not in 2017', '230.67', '230.67, 215.18']],
  ['outdoor-disconnect', ['not in 2017', '230.85', '230.85']],
  ['service-conductor', ['310.15(B)(7)', '310.12', '310.12']],
  ['voltage-drop', ['210.19(A) note', '210.19(A) note', '210.19 note']],
];

for (const [id, cited] of LETTERED)
  test(`${id} cites ${cited.join(' / ')}`, () => {
    const { sections } = ALL_RULES.find((r) => r.id === id)!;
    assert.deepEqual(
      EDITIONS.map((e: Edition) => at(sections, e)),
      cited,
    );
  });
