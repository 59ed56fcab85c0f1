/**
 * What an inspector looks at and no arithmetic can tell, item by item, and what somebody saw who looked; and what is
 * not judged here at all.
 */
import { byTime } from '#core/units/time.ts';
import { byName } from '#core/job/names.ts';
import { newId, rows } from '#core/job/document.ts';
import type { Command } from '#core/job/commands.ts';
import type { JobDocument, Look } from '#core/job/schema.ts';

/** When it can be seen: before walls are closed, or when all is in place. */
type Stage = 'rough' | 'final';

export interface LookItem {
  id: string;
  what: string;
  section: string;
  stage: Stage;
  /** Ids of the inspection lists that it stands on; none: of every list. */
  lists?: readonly string[];
}

const PANELS = ['panels'] as const;
const OUTDOORS = ['outdoors'] as const;

export const LOOK_ITEMS: readonly LookItem[] = [
  {
    id: 'holes',
    what: 'Holes 1¼" from the face of the stud, or plated',
    section: '300.4(A)',
    stage: 'rough',
    lists: ['rooms'],
  },
  {
    id: 'along',
    what: 'Cable along a stud 1¼" from its edge, or plated',
    section: '300.4(D)',
    stage: 'rough',
    lists: ['rooms'],
  },
  {
    id: 'steel-studs',
    what: 'Grommets where cable passes steel studs',
    section: '300.4(B)',
    stage: 'rough',
    lists: ['rooms'],
  },
  {
    id: 'staples',
    what: 'Cable stapled within 12" of each box and every 4½ ft, never on edge',
    section: '334.30',
    stage: 'rough',
    lists: ['rooms', 'service'],
  },
  {
    id: 'clamped',
    what: 'Sheath ¼" inside each box, clamped, or stapled within 8" where there is no clamp',
    section: '314.17',
    stage: 'rough',
    lists: ['rooms'],
  },
  {
    id: 'free-length',
    what: '6" of free conductor in each box',
    section: '300.14',
    stage: 'rough',
    lists: ['rooms'],
  },
  {
    id: 'grounds-joined',
    what: 'Grounds joined with listed connectors, metal boxes bonded',
    section: '250.148',
    stage: 'rough',
  },
  {
    id: 'bundles',
    what: 'No bundles of cables longer than 24" without spacing',
    section: '310.15',
    stage: 'rough',
    lists: ['rooms', 'service'],
  },
  {
    id: 'attic-guards',
    what: 'Cable across joists in the attic behind guard strips',
    section: '334.23, 320.23',
    stage: 'rough',
    lists: ['service'],
  },
  {
    id: 'joists',
    what: 'Small cable under basement joists in holes or on running boards',
    section: '334.15(C)',
    stage: 'rough',
    lists: ['service'],
  },
  {
    id: 'splices',
    what: 'No splice outside a box that is covered and reached',
    section: '300.15, 314.29',
    stage: 'rough',
  },
  {
    id: 'box-front',
    what: 'Boxes flush, or at most ¼" back in what does not burn',
    section: '314.20',
    stage: 'final',
  },
  { id: 'box-gap', what: 'Gaps around boxes at most ⅛"', section: '314.21', stage: 'final' },
  {
    id: 'fasteners',
    what: 'Every fastener in that the instructions ask for',
    section: '110.3(B)',
    stage: 'final',
  },
  {
    id: 'level',
    what: 'Devices level, tight to the box, plates snug and whole',
    section: '110.12, 406.5',
    stage: 'final',
  },
  { id: 'grip', what: 'Receptacles grip a plug', section: '110.12(B)', stage: 'final' },
  {
    id: 'torque',
    what: 'Terminals tightened to their mark, with a tool',
    section: '110.14(D)',
    stage: 'final',
  },
  {
    id: 'white-marked',
    what: 'Whites that serve as hots marked at every end',
    section: '200.7(C)',
    stage: 'final',
  },
  {
    id: 'cover-closes',
    what: 'Covers outdoors close over a plug',
    section: '406.9(B)',
    stage: 'final',
    lists: OUTDOORS,
  },
  {
    id: 'sealed',
    what: 'Boxes outdoors sealed at the wall, raceways sealed where they come in',
    section: '314.15, 300.7(A)',
    stage: 'final',
    lists: OUTDOORS,
  },
  {
    id: 'riser',
    what: 'What leaves the earth protected to 8 ft, schedule 80 where it can be hit',
    section: '300.5(D)',
    stage: 'final',
    lists: OUTDOORS,
  },
  {
    id: 'trench',
    what: 'Trench seen open: depth, bedding, no stones',
    section: '300.5(F)',
    stage: 'rough',
    lists: OUTDOORS,
  },
  {
    id: 'sunlight',
    what: 'Cable in the sun marked for it',
    section: '340.12(9)',
    stage: 'final',
    lists: OUTDOORS,
  },
  {
    id: 'condenser-room',
    what: 'Room to work at the disconnect of the outdoor unit, not behind it',
    section: '440.14, 110.26',
    stage: 'final',
    lists: OUTDOORS,
  },
  {
    id: 'luminaires-supported',
    what: 'Luminaires and fans carried by their boxes',
    section: '314.27, 410.36',
    stage: 'final',
    lists: ['rooms', 'kitchen', 'water'],
  },
  {
    id: 'insulation-contact',
    what: 'Recessed luminaires in insulation marked for it',
    section: '410.116',
    stage: 'rough',
    lists: ['rooms', 'kitchen', 'water'],
  },
  {
    id: 'heater-pipe',
    what: 'Cable to the water heater protected, strapped, in a listed connector',
    section: '300.4, 314.17',
    stage: 'final',
    lists: ['service', 'water'],
  },
  {
    id: 'panel-labels',
    what: 'Directory, circuit labels and the label of the available fault current on the panel',
    section: '408.4, 110.24',
    stage: 'final',
    lists: PANELS,
  },
  {
    id: 'panel-cables',
    what: 'Cables secured to the panel, knockouts closed, bushings in',
    section: '312.5(C), 408.7',
    stage: 'final',
    lists: PANELS,
  },
  {
    id: 'neutrals',
    what: 'One neutral to a hole; grounds doubled only where the label says so',
    section: '408.41, 110.14(A)',
    stage: 'final',
    lists: PANELS,
  },
  {
    id: 'electrode-clamps',
    what: 'Clamps of electrodes listed, reached, tight',
    section: '250.70',
    stage: 'final',
    lists: PANELS,
  },
  {
    id: 'old-insulation',
    what: 'Old insulation sound where boxes were opened',
    section: '110.12(B)',
    stage: 'final',
    lists: ['old-wiring'],
  },
  {
    id: 'knob-and-tube',
    what: 'No thermal insulation over knob-and-tube wiring',
    section: '394.12',
    stage: 'final',
    lists: ['old-wiring'],
  },
];

/** What inspectors write up and Hekto does not judge: said wherever judgments are shown. */
export const NOT_JUDGED: readonly { what: string; section: string }[] = [
  { what: 'Number and place of smoke and carbon monoxide alarms', section: 'the building code in force' },
  { what: 'Pools, hot tubs, fountains and hydromassage tubs', section: 'Article 680' },
  {
    what: 'Solar systems, batteries, generators and transfer equipment',
    section: 'Articles 690, 705, 706, 702',
  },
  { what: 'Fire alarm systems', section: 'Article 760' },
  { what: 'Low-voltage, communication and network wiring', section: 'Articles 725, 800' },
  { what: 'The utility’s side of the meter, clearances of overhead drops', section: '230.24, the utility' },
  { what: 'Available fault current against interrupting ratings', section: '110.9, 110.10' },
  { what: 'Raceway fill, bends and supports', section: 'Chapter 9, 358.26, 358.30' },
  { what: 'Pull and junction boxes for 4 AWG and larger', section: '314.28' },
  { what: 'Appliances’ own listings and instructions', section: '110.3(B)' },
  {
    what: 'Framing cut for cables, fire stopping, energy rules',
    section: 'the building code in force, 300.21',
  },
];

/** Items that stand on a list. */
export const itemsOn = (listId: string): LookItem[] =>
  LOOK_ITEMS.filter((item) => item.lists?.includes(listId) ?? listId !== 'panels');

/** What was seen of an item, newest first; earlier looks stay on record. */
export const looksAt = (document: JobDocument, item: string): Look[] =>
  rows(document.looks)
    .filter((look) => look.item === item)
    .sort((a, b) => byTime(b.at, a.at) || b.id.localeCompare(a.id));

/** The last look at an item of each place. */
export function standingLooks(document: JobDocument, item: string): Look[] {
  const last = new Map<string, Look>();
  for (const look of looksAt(document, item)) {
    const key = `${look.about.table}/${look.about.id}`;
    if (!last.has(key)) last.set(key, look);
  }
  return [...last.values()];
}

/** Where a look may be about: the whole job, or one of its rooms or panels. */
export const placesToLook = (document: JobDocument): { about: Look['about']; name: string }[] => [
  { about: { table: 'job', id: document.job.id }, name: 'the whole job' },
  ...rows(document.panels)
    .sort(byName)
    .map((p) => ({ about: { table: 'panels' as const, id: p.id }, name: p.name })),
  ...rows(document.areas)
    .sort(byName)
    .map((a) => ({ about: { table: 'areas' as const, id: a.id }, name: a.name })),
];

/** Puts a look on record, beside those there are. */
export const recordLook = (look: Omit<Look, 'id'>): Command => ({
  type: 'put',
  table: 'looks',
  rows: [{ id: newId('look'), ...look }],
});
