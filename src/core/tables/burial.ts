/** Least cover over what is buried, Table 300.5 (2023: Table 300.5(A)), inches to its top. */
import { since } from './editions.ts';
import type { Edition } from '#core/job/schema.ts';

/** Where the trench lies. `under-building`: below a building; `slab`: below 4 in. of concrete without vehicles. */
export const BURIAL_PLACES = [
  'open',
  'under-2-inch-concrete',
  'under-building',
  'slab',
  'street',
  'dwelling-driveway',
] as const;
export type BurialPlace = (typeof BURIAL_PLACES)[number];

/** What lies in it. `metal-conduit`: rigid or intermediate; `raceway`: nonmetallic raceway listed for burial. */
export const BURIED = ['cable', 'metal-conduit', 'raceway', 'emt'] as const;
export type Buried = (typeof BURIED)[number];

export interface BurialCase {
  place: BurialPlace;
  what: Buried;
  /** A branch circuit of a dwelling of 120 V and 20 A or less, not multiwire, with GFCI ahead of the burial. */
  smallProtected: boolean;
  /** Controls and landscape lighting of 30 V or less. */
  lowVoltage: boolean;
  edition: Edition;
}

/** Columns 1 to 5: cable, metal conduit, nonmetallic raceway, small protected circuit, low voltage. */
const ROWS: Record<BurialPlace, readonly [number, number, number, number, number]> = {
  open: [24, 6, 18, 12, 6],
  'under-2-inch-concrete': [18, 6, 12, 6, 6],
  'under-building': [0, 0, 0, 0, 0],
  slab: [18, 4, 4, 6, 6],
  street: [24, 24, 24, 24, 24],
  'dwelling-driveway': [18, 18, 18, 12, 18],
};
/** In raceway the small circuits below a slab need no more than the raceway itself. */
const SLAB_IN_RACEWAY = 4;

const COLUMN: Record<Buried, 0 | 1 | 2> = { cable: 0, 'metal-conduit': 1, raceway: 2, emt: 2 };
const WORDS: Record<Buried, string> = {
  cable: 'cable laid in the earth',
  'metal-conduit': 'rigid or intermediate metal conduit',
  raceway: 'nonmetallic raceway',
  emt: 'electrical metallic tubing, protected against corrosion',
};

export interface Cover {
  inches: number;
  working: string;
  section: string;
  /** What else holds: a condition, or why the case is not of the table. */
  notes: string[];
}

/** The least cover of a case: of the columns that it falls in, the shallowest. */
export function leastCover({ place, what, smallProtected, lowVoltage, edition }: BurialCase): Cover {
  const row = ROWS[place];
  const inRaceway = what !== 'cable';
  const special = (column: 3 | 4) => (place === 'slab' && inRaceway ? SLAB_IN_RACEWAY : row[column]);
  const choices: [inches: number, working: string][] = [[row[COLUMN[what]], WORDS[what]]];
  if (smallProtected) choices.push([special(3), '120 V, 20 A or less, GFCI ahead of the burial']);
  if (lowVoltage) choices.push([special(4), '30 V or less for control or landscape lighting']);
  const [inches, working] = choices.reduce((least, c) => (c[0] < least[0] ? c : least));
  const notes: string[] = [];
  if (what === 'emt' && !since(edition, '2023'))
    notes.push(`the table of ${edition} does not name it: taken as nonmetallic raceway`);
  if (what === 'emt') notes.push('in earth it needs corrosion protection suited to it, 358.10');
  if (place === 'under-building' && what === 'cable')
    notes.push('below a building cable lies in raceway, unless it is MC or MI identified for it');
  if (place === 'slab') notes.push('the slab reaches 6" beyond on each side');
  return { inches, working, section: since(edition, '2023') ? 'Table 300.5(A)' : 'Table 300.5', notes };
}
