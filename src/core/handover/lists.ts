/**
 * Inspection lists: the findings of a chosen set of rules, satisfied ones too, with their evidence and the
 * pictures of what they are about.
 */
import { runOf } from '#core/circuits/run.ts';
import { byGravity, type Finding } from '#core/code/rule.ts';
import type { View } from '#core/view/view.ts';
import { rows } from '#core/job/document.ts';
import type { Area, AreaKind, Picture } from '#core/job/schema.ts';

export interface InspectionList {
  id: string;
  name: string;
  about: string;
  rules: readonly string[];
  /** Areas it looks at; none of its own: everything its rules are about; left out: what is old. */
  kinds?: readonly AreaKind[];
}

export const LISTS: readonly InspectionList[] = [
  {
    id: 'outdoors',
    name: 'Outdoors',
    about: 'Present front and back, reached from grade, GFCI, weather-resistant, covered, near equipment',
    rules: [
      'outdoor-receptacles',
      'deck-receptacle',
      'gfci',
      'outdoor-outlets',
      'gfci-accessible',
      'weather-resistant',
      'weather-cover',
      'tamper-resistant',
      'equipment-receptacle',
      'equipment-disconnect',
      'lighting-outlet',
    ],
    kinds: ['outdoors', 'deck'],
  },
  {
    id: 'kitchen',
    name: 'Kitchen and dining',
    about: 'Counters, islands, walls, appliances and their protection',
    rules: [
      'counter-spacing',
      'island-receptacles',
      'wall-spacing',
      'appliance-receptacle',
      'gfci',
      'gfci-accessible',
      'afci',
      'tamper-resistant',
      'face-up',
      'not-counted',
      'lighting-outlet',
      'designated-circuits',
      'hood-circuit',
      'equipment-disconnect',
      'switch-neutral',
    ],
    kinds: ['kitchen', 'pantry', 'dining'],
  },
  {
    id: 'water',
    name: 'Bathrooms and laundry',
    about: 'Basins, tubs and showers, laundry, GFCI',
    rules: [
      'bathroom-basin',
      'tub-zone',
      'laundry-receptacle',
      'appliance-receptacle',
      'gfci',
      'gfci-accessible',
      'tamper-resistant',
      'lighting-outlet',
      'designated-circuits',
      'luminaire-place',
      'switch-neutral',
    ],
    kinds: ['bathroom', 'laundry'],
  },
  {
    id: 'service',
    name: 'Garage, basement, outbuildings',
    about: 'Bays, unfinished parts, equipment and crawl spaces',
    rules: [
      'garage-receptacles',
      'basement-receptacle',
      'outbuilding-receptacle',
      'equipment-receptacle',
      'appliance-receptacle',
      'gfci',
      'outdoor-outlets',
      'gfci-accessible',
      'tamper-resistant',
      'lighting-outlet',
      'designated-circuits',
      'equipment-disconnect',
    ],
    kinds: [
      'garage',
      'basement-unfinished',
      'basement-finished',
      'crawl-space',
      'attic',
      'utility',
      'accessory',
      'boathouse',
    ],
  },
  {
    id: 'rooms',
    name: 'Rooms, halls and stairs',
    about: 'Walls, hallways, foyers, lights and AFCI',
    rules: [
      'wall-spacing',
      'hallway-receptacle',
      'foyer-receptacles',
      'lighting-outlet',
      'afci',
      'tamper-resistant',
      'controlled-marking',
      'not-counted',
      'box-fill',
      'switch-neutral',
      'switch-rating',
      'half-switched-tab',
      'luminaire-place',
      'fan-box',
      'luminaire-voltage',
      'equipment-disconnect',
    ],
    kinds: [
      'bedroom',
      'living',
      'family',
      'dining',
      'den',
      'recreation',
      'sunroom',
      'hallway',
      'foyer',
      'stairs',
      'closet',
      'basement-finished',
    ],
  },
  {
    id: 'panels',
    name: 'Panels and service',
    about: 'Place, breakers, conductors, grounding, surge and disconnects, load',
    rules: [
      'panel-place',
      'panel-spaces',
      'panel-rating',
      'panel-bonding',
      'panel-openings',
      'doubled-lugs',
      'directory',
      'service-load',
      'service-conductor',
      'feeder',
      'surge',
      'outdoor-disconnect',
      'electrodes',
      'breaker-listed',
      'standard-rating',
      'small-conductor',
      'circuit-load',
      'ground-size',
      'cable-route',
      'simultaneous-disconnect',
      'opposite-legs',
      'required-circuits',
      'service-out-of-scope',
      'alarms',
    ],
    kinds: [],
  },
  {
    id: 'old-wiring',
    name: 'Old wiring and replacements',
    about: 'Boxes without a ground, and what a replacement brings with it',
    rules: [
      'no-equipment-ground',
      'box-fill',
      'labels-stuck',
      'aluminum-device',
      'gfci',
      'afci',
      'tamper-resistant',
      'weather-resistant',
      'tub-zone',
    ],
  },
];

export interface ListItem {
  finding: Finding;
  /** Rooms it is in, for the line below it. */
  where: string;
  pictures: Picture[];
}

/** The rooms that what a finding is about is in. */
function areasOf(view: View, { about }: Finding): Area[] {
  const { document } = view;
  switch (about.table) {
    case 'areas':
      return [document.areas[about.id]].filter((a) => a !== undefined);
    case 'boxes':
    case 'fixtures': {
      const area = document.areas[document[about.table][about.id]?.areaId ?? ''];
      return area ? [area] : [];
    }
    case 'circuits': {
      const circuit = document.circuits[about.id];
      return circuit ? [...new Set(runOf(view, circuit).stops.map((s) => s.area))] : [];
    }
    default:
      return [];
  }
}

const isOld = (view: View, { about }: Finding): boolean => {
  if (about.table === 'circuits') return view.document.circuits[about.id]?.status === 'existing';
  const box = about.table === 'boxes' ? view.document.boxes[about.id] : undefined;
  return box !== undefined && box.status !== 'new';
};

/** One list's items, gravest first. */
export function listItems(view: View, findings: readonly Finding[], list: InspectionList): ListItem[] {
  const pictures = rows(view.document.pictures);
  return findings
    .filter((f) => list.rules.includes(f.rule))
    .map((finding) => ({ finding, areas: areasOf(view, finding) }))
    .filter(({ finding, areas }) =>
      list.kinds
        ? list.kinds.length === 0 ||
          finding.about.table === 'job' ||
          areas.some((a) => list.kinds!.includes(a.kind))
        : isOld(view, finding),
    )
    .sort((a, b) => byGravity(a.finding, b.finding))
    .map(({ finding, areas }) => ({
      finding,
      where: areas.map((a) => a.name).join(', '),
      pictures: pictures.filter(
        (p) => p.about.table === finding.about.table && p.about.id === finding.about.id,
      ),
    }));
}
