import { since, always } from '#core/tables/editions.ts';
import { dutiesOn } from '#core/panel/jobLoad.ts';
import type { Area, Box, Circuit } from '#core/job/schema.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { Duty } from '#core/panel/duty.ts';
import { rule, type Verdict } from '../rule.ts';
import type { View } from '#core/view/view.ts';

interface Wanted {
  duty: Duty;
  name: string;
  section: string;
  /** Fewest circuits. */
  least: number;
  in(area: Area, view: View): boolean;
}

const WANTED: readonly Wanted[] = [
  {
    duty: 'small-appliance',
    name: 'small-appliance circuits',
    section: '210.11(C)(1), 210.52(B)(3)',
    least: 2,
    in: (area) => area.kind === 'kitchen',
  },
  {
    duty: 'laundry',
    name: 'laundry circuit',
    section: '210.11(C)(2)',
    least: 1,
    in: (area) => area.kind === 'laundry',
  },
  {
    duty: 'bathroom',
    name: 'bathroom circuit',
    section: '210.11(C)(3)',
    least: 1,
    in: (area) => area.kind === 'bathroom',
  },
  {
    duty: 'garage',
    name: 'garage circuit',
    section: '210.11(C)(4)',
    least: 1,
    in: ({ kind, conditions }, view) => {
      if (kind !== 'garage' || (conditions.detached && !conditions.powered)) return false;
      if (view.document.job.dwelling !== 'multifamily') return true;
      return since(view.edition, '2020') && conditions.attachedToUnit;
    },
  },
];

export const requiredCircuits = rule({
  id: 'required-circuits',
  title: 'Circuits a dwelling must have',
  scope: 'house',
  level: 'violation',
  sections: always('210.11(C)'),
  why: 'Toasters, irons and hair dryers each take most of a circuit: the code reserves circuits where they are used.',
  check(_house, view) {
    return WANTED.flatMap((wanted): Verdict[] => {
      const rooms = view.rows('areas').filter((a) => wanted.in(a, view));
      const outlets = rooms.flatMap((a) =>
        view.boxesIn(a).filter((b) => b.status !== 'remove' && isSmallReceptacle(b)),
      );
      const fed = outlets.filter((b) => view.circuitOf(b.id));
      // What is on no circuit yet is said at the outlet.
      if (fed.length === 0 || fed.length < outlets.length) return [];
      return wanted.duty === 'small-appliance'
        ? rooms.flatMap((room) =>
            judge(
              view,
              wanted,
              fed.filter((b) => b.areaId === room.id),
              ` in ${room.name}`,
            ),
          )
        : judge(view, wanted, fed, '');
    });
  },
});

function judge(
  view: View,
  { duty, name, section, least }: Wanted,
  fed: readonly Box[],
  where: string,
): Verdict[] {
  if (fed.length === 0) return [];
  const circuits = new Set<Circuit>();
  for (const box of fed) {
    const circuit = view.circuitOf(box.id)!;
    if (dutiesOn(view, circuit).duty === duty) circuits.add(circuit);
  }
  const count = circuits.size;
  if (count >= Math.min(least, fed.length))
    return [{ level: 'satisfied', section, message: `${count} ${name}${where}` }];
  const altered = fed.some((b) => b.status !== 'existing');
  return [
    {
      level: altered ? 'violation' : 'note',
      section,
      message: `${count} ${name}${where}; at least ${least} of 20 A ${least === 1 ? 'is' : 'are'} asked for${altered ? '' : ' when this is altered'}`,
    },
  ];
}
