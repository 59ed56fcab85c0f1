/** What each kind of area means to the rules, per edition. */
import type { AreaKind, Edition } from '../../job/schema.ts';

type PerEdition<T> = Record<Edition, T>;
const always = <T>(value: T): PerEdition<T> => ({ '2017': value, '2020': value, '2023': value });

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
  hallway: habitable('Hallway', false),
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
  outdoors: { label: 'Outdoors', wallSpacing: false, afci: false, gfci: all('210.8(A)(3)') },
};

/** Within 6 ft of a sink's inside edge, tub or shower: section per edition. */
export const NEAR_WATER_SECTION: PerEdition<string> = {
  '2017': '210.8(A)(7), (9)',
  '2020': '210.8(A)(7), (9)',
  '2023': '210.8(A)(8), (10)',
};

/** Indoor damp and wet locations; not in the 2017 edition. */
export const DAMP_SECTION: PerEdition<string | null> = {
  '2017': null,
  '2020': '210.8(A)(11)',
  '2023': '210.8(A)(12)',
};
