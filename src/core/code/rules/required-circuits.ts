import { since, always } from '#core/tables/editions.ts';
import { dutiesOn } from '#core/panel/jobLoad.ts';
import { isMultiwire, runOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { countsAtCounter } from '#core/plan/coverage.ts';
import { servesBasin } from '#core/plan/reach.ts';
import { FIXTURES } from '#core/tables/fixtures.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { Duty } from '#core/panel/duty.ts';
import { rule, type Verdict } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { plural } from '#core/units/words.ts';

interface Wanted {
  duty: Duty;
  name: string;
  section: string;
  /** Fewest circuits. */
  least: number;
  /** Receptacles that must be on one of them. */
  belongs(box: Box, area: Area, view: View): boolean;
}

/** Receptacles at the counters, islands and peninsulas of a kitchen, which the two circuits must reach. */
const atCounter = (box: Box, area: Area, view: View): boolean =>
  box.fixtureId !== null || box.mount === 'counter-assembly' || countsAtCounter(view, box, area);

/** A receptacle of one appliance, or one in place of a light, may have another circuit, 210.52(B)(1). */
const isExcused = (box: Box): boolean => box.serves !== null || box.device.switched !== 'none';

const WANTED: readonly Wanted[] = [
  {
    duty: 'small-appliance',
    name: 'small-appliance circuit',
    section: '210.11(C)(1), 210.52(B)(3)',
    least: 2,
    belongs: (box, area) => area.kind === 'kitchen' && !isExcused(box),
  },
  {
    duty: 'laundry',
    name: 'laundry circuit',
    section: '210.11(C)(2)',
    least: 1,
    belongs: (box, area, view) =>
      area.kind === 'laundry' || (FIXTURES[servedBy(view.document, box)?.kind ?? 'counter'].laundry ?? false),
  },
  {
    duty: 'bathroom',
    name: 'bathroom circuit',
    section: '210.11(C)(3)',
    least: 1,
    belongs: (box, area, view) =>
      area.kind === 'bathroom' && (!since(view.edition, '2020') || servesBasin(view, box, area)),
  },
  {
    duty: 'garage',
    name: 'garage circuit',
    section: '210.11(C)(4)',
    least: 1,
    belongs: (_box, { kind, conditions }, view) => {
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
  needs: ['all outlets'],
  level: 'violation',
  sections: always('210.11(C)'),
  why: 'Toasters, irons and hair dryers each take most of a circuit: the code reserves circuits where they are used.',
  check(_house, view) {
    const receptacles = view.rows('boxes').flatMap((box) => {
      const area = view.document.areas[box.areaId];
      return area && box.status !== 'remove' && isSmallReceptacle(box) ? [{ box, area }] : [];
    });
    return WANTED.flatMap((wanted): Verdict[] => {
      const outlets = receptacles.filter(({ box, area }) => wanted.belongs(box, area, view));
      // What is on no circuit yet is said at the outlet.
      if (outlets.length === 0 || outlets.some(({ box }) => !view.circuitOf(box.id))) return [];
      const fed = outlets.map(({ box }) => box);
      if (wanted.duty !== 'small-appliance') return judge(view, wanted, fed, '');
      const byRoom = new Map<Area, Box[]>();
      for (const { box, area } of outlets) byRoom.set(area, [...(byRoom.get(area) ?? []), box]);
      return [...byRoom]
        .sort(([a], [b]) => a.id.localeCompare(b.id, 'en'))
        .flatMap(([room, here]) => {
          const counters = here.filter((b) => atCounter(b, room, view));
          return counters.length > 0
            ? judge(view, wanted, counters, ` at the counters of ${room.name}`)
            : judge(view, wanted, here, ` in ${room.name}`);
        });
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
  // The two hots of a multiwire circuit are two circuits, 210.4(A).
  const circuits = new Set<string>();
  for (const box of fed) {
    const circuit = view.circuitOf(box.id)!;
    if (dutiesOn(view, circuit).duty !== duty) continue;
    const run = runOf(view, circuit);
    const hot = run.stops.find((s) => s.box.id === box.id)?.stop.hot ?? 'black';
    if (!isMultiwire(run)) circuits.add(circuit.id);
    else for (const h of hot === 'both' ? ['black', 'red'] : [hot]) circuits.add(`${circuit.id} ${h}`);
  }
  const count = circuits.size;
  if (count >= Math.min(least, fed.length))
    return [{ level: 'satisfied', section, message: `${plural(count, name)}${where}` }];
  const altered = fed.some((b) => b.status !== 'existing');
  return [
    {
      level: altered ? 'violation' : 'note',
      section,
      message: `${plural(count, name)}${where}; at least ${least} of 20 A ${least === 1 ? 'is' : 'are'} asked for${altered ? '' : ' when this is altered'}`,
    },
  ];
}
