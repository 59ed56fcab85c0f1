/** What each kind of area means to the rules, per edition. */
import type { Area, AreaKind, Edition, Level } from '#core/job/schema.ts';

import { always, at, type PerEdition } from './editions.ts';

export interface GfciEntry {
  /** Which receptacles of the area need GFCI. */
  which: 'all' | 'counter' | 'none';
  section: string;
}

export interface AreaFacts {
  label: string;
  /** Wall spacing applies, 210.52(A). */
  wallSpacing: boolean;
  /** The room is on the list of 210.12, or similar to one that is. */
  afci: boolean;
  gfci: PerEdition<GfciEntry>;
}

const NONE: PerEdition<GfciEntry> = always({ which: 'none', section: '210.8(A)' });
const all = (section: string): PerEdition<GfciEntry> => always({ which: 'all', section });
const habitable = (label: string, wallSpacing = true): AreaFacts => ({
  label,
  wallSpacing,
  afci: true,
  gfci: NONE,
});

export const AREA_FACTS: Record<AreaKind, AreaFacts> = {
  bedroom: habitable('Bedroom'),
  living: habitable('Living room'),
  family: habitable('Family room'),
  dining: habitable('Dining room'),
  den: habitable('Den or study'),
  recreation: habitable('Recreation room'),
  sunroom: habitable('Sunroom'),
  kitchen: {
    label: 'Kitchen',
    wallSpacing: true,
    afci: true,
    gfci: {
      '2017': { which: 'counter', section: '210.8(A)(6)' },
      '2020': { which: 'counter', section: '210.8(A)(6)' },
      '2023': { which: 'all', section: '210.8(A)(6)' },
    },
  },
  // Similar to a kitchen for arcs and spacing; its receptacles are not those of a kitchen.
  pantry: habitable('Pantry'),
  hallway: habitable('Hallway', false),
  // Similar to a hallway.
  foyer: habitable('Foyer', false),
  stairs: habitable('Stairs', false),
  closet: habitable('Closet', false),
  laundry: {
    label: 'Laundry',
    wallSpacing: false,
    afci: true,
    gfci: {
      '2017': { which: 'all', section: '210.8(A)(10)' },
      '2020': { which: 'all', section: '210.8(A)(10)' },
      '2023': { which: 'all', section: '210.8(A)(11)' },
    },
  },
  bathroom: { label: 'Bathroom', wallSpacing: false, afci: false, gfci: all('210.8(A)(1)') },
  garage: { label: 'Garage', wallSpacing: false, afci: false, gfci: all('210.8(A)(2)') },
  'basement-finished': {
    label: 'Finished basement room',
    wallSpacing: true,
    afci: true,
    gfci: {
      '2017': { which: 'none', section: '210.8(A)(5)' },
      '2020': { which: 'all', section: '210.8(A)(5)' },
      '2023': { which: 'all', section: '210.8(A)(5)' },
    },
  },
  'basement-unfinished': {
    label: 'Unfinished basement',
    wallSpacing: false,
    afci: false,
    gfci: all('210.8(A)(5)'),
  },
  'crawl-space': { label: 'Crawl space', wallSpacing: false, afci: false, gfci: all('210.8(A)(4)') },
  attic: { label: 'Attic', wallSpacing: false, afci: false, gfci: NONE },
  utility: { label: 'Storage or equipment room', wallSpacing: false, afci: false, gfci: NONE },
  accessory: { label: 'Outbuilding', wallSpacing: false, afci: false, gfci: all('210.8(A)(2)') },
  boathouse: {
    label: 'Boathouse',
    wallSpacing: false,
    afci: false,
    gfci: {
      '2017': { which: 'all', section: '210.8(A)(8)' },
      '2020': { which: 'all', section: '210.8(A)(8)' },
      '2023': { which: 'all', section: '210.8(A)(9)' },
    },
  },
  outdoors: { label: 'Outdoors', wallSpacing: false, afci: false, gfci: all('210.8(A)(3)') },
  deck: { label: 'Deck, porch or balcony', wallSpacing: false, afci: false, gfci: all('210.8(A)(3)') },
};

/** The ground outdoors, decks, porches and balconies: bounded on the plan by lines, not by walls. */
export const isOutside = ({ kind }: Pick<Area, 'kind'>): boolean => kind === 'outdoors' || kind === 'deck';

/** Outdoors nothing is dry. */
export const exposureOf = (area: Area): Area['location'] =>
  isOutside(area) && area.location === 'dry' ? 'damp' : area.location;

/** A floor this far above the ground still counts as at grade, inches: a slab stands a little above the soil. */
const AT_GRADE = 12;

/** A floor's height above the ground below it, inches. */
export const aboveGrade = (area: Area, level: Level | undefined): number =>
  area.conditions.aboveGrade ?? level?.elevation ?? 0;
export const atOrBelowGrade = (area: Area, level: Level | undefined): boolean =>
  aboveGrade(area, level) <= AT_GRADE;

/** What the list of 210.8(A) says of an area; an outbuilding lived in, or above grade, is not on it. */
export function gfciEntry(area: Area, level: Level | undefined, edition: Edition): GfciEntry {
  if (area.kind === 'accessory' && (area.conditions.habitable || !atOrBelowGrade(area, level)))
    return at(NONE, edition);
  return at(AREA_FACTS[area.kind].gfci, edition);
}

/** On the list of 210.12, or similar to a room that is; an outbuilding lived in counts as one. */
export const isArcRoom = (area: Area): boolean =>
  AREA_FACTS[area.kind].afci || (area.kind === 'accessory' && area.conditions.habitable);

/** Rooms whose walls 210.52(A) measures. */
export const hasWallRule = (area: Area): boolean =>
  AREA_FACTS[area.kind].wallSpacing || (area.kind === 'accessory' && area.conditions.habitable);

export const labelOf = (area: Area): string => AREA_FACTS[area.kind].label.toLowerCase();

/** The distance within which a sink, tub or shower brings GFCI, inches. */
export const NEAR_WATER = 72;

/** Within 6 ft of the top inside edge of a sink's bowl, or of a tub or shower: section per edition. */
export const NEAR_SINK_SECTION: PerEdition<string> = {
  '2017': '210.8(A)(7)',
  '2020': '210.8(A)(7)',
  '2023': '210.8(A)(8)',
};
export const NEAR_TUB_SECTION: PerEdition<string> = {
  '2017': '210.8(A)(9)',
  '2020': '210.8(A)(9)',
  '2023': '210.8(A)(10)',
};

/** Laundry areas, wherever their equipment stands. */
export const LAUNDRY_SECTION: PerEdition<string> = {
  '2017': '210.8(A)(10)',
  '2020': '210.8(A)(10)',
  '2023': '210.8(A)(11)',
};

/** Areas with a sink and permanent provision to prepare food or drink; 2023 on. */
export const FOOD_SECTION: PerEdition<string | null> = {
  '2017': null,
  '2020': null,
  '2023': '210.8(A)(7)',
};

/** Indoor damp and wet locations; not in the 2017 edition. */
export const DAMP_SECTION: PerEdition<string | null> = {
  '2017': null,
  '2020': '210.8(A)(11)',
  '2023': '210.8(A)(12)',
};

/** The lighting outlet of a crawl space. */
export const CRAWL_LIGHT_SECTION: PerEdition<string> = {
  '2017': '210.8(E)',
  '2020': '210.8(C)',
  '2023': '210.8(C)',
};

/** Until this day the 2023 edition excepts listed heating and cooling equipment outdoors, 210.8(F). */
export const OUTDOOR_HVAC_EXCEPTED_UNTIL = '2026-09-01';
