import { always } from '#core/tables/editions.ts';
import type { Area, AreaKind, Box } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';
import { AREA_FACTS, hasWallRule } from '#core/tables/areas.ts';
import type { View } from '#core/view/view.ts';

/** Stairs of this many risers are switched at each level. */
const RISERS = 6;
const STORAGE: readonly AreaKind[] = ['attic', 'crawl-space', 'utility', 'basement-unfinished'];
const OTHER: readonly AreaKind[] = ['bathroom', 'hallway', 'stairs', 'foyer', 'laundry', 'garage', 'deck'];

const AUTOMATIC: readonly AreaKind[] = ['hallway', 'stairs', 'foyer', 'outdoors', 'deck'];

function asks(area: Area): string | null {
  if (area.kind === 'garage' && area.conditions.detached && !area.conditions.powered) return null;
  if (hasWallRule(area)) return '210.70(A)(1)';
  if (area.kind === 'outdoors') return area.conditions.ownEntrance ? '210.70(A)(2)' : null;
  if (area.kind === 'accessory') return area.conditions.powered ? '210.70(A)(2)' : null;
  if (OTHER.includes(area.kind)) return '210.70(A)(2)';
  return STORAGE.includes(area.kind) ? '210.70(A)(3)' : null;
}

const levelOf = (view: View, box: Box): string | undefined => view.document.areas[box.areaId]?.levelId;

export const lightingOutlet = rule({
  id: 'lighting-outlet',
  title: 'Switched lighting outlet',
  scope: 'area',
  blames: ['plan'],
  level: 'violation',
  sections: always('210.70(A)'),
  why: 'Nobody should have to cross a dark room, or feel for a stair, to find the light.',
  check(area, view) {
    const section = asks(area);
    if (section === null) return [];
    // A survey that has recorded no lights at all says nothing about them.
    if (!view.hasLights) return [];
    const boxes = view.boxesIn(area).filter((b) => b.status !== 'remove');
    const lights = boxes.filter((b) => b.device.kind === 'light');
    const storage = STORAGE.includes(area.kind);
    const standIn = AREA_FACTS[area.kind].wallSpacing && area.kind !== 'kitchen';
    const receptacles = standIn
      ? boxes.filter((b) => isReceptacle(b) && b.device.switched !== 'none' && !b.device.automatic)
      : [];
    const switched = [...lights, ...receptacles].filter((b) => view.switchesOf(b).length > 0);
    // In halls, on stairs and at outdoor entrances automatic control stands in for the switches.
    const alone = AUTOMATIC.includes(area.kind) ? lights.find((b) => b.device.automatic) : undefined;
    if (alone)
      return [
        {
          level: 'satisfied',
          section: '210.70(A)(2) Ex.',
          message: `${area.name}: ${alone.name}, a lighting outlet under automatic control`,
        },
      ];
    const lit = switched[0] ?? (storage ? lights[0] : undefined);
    if (!lit) {
      const unswitched = lights[0] ?? receptacles[0];
      return [
        {
          level: 'violation',
          section,
          message: unswitched
            ? `${area.name}: ${unswitched.name} is controlled by no wall switch on record`
            : `${area.name} has no lighting outlet controlled by a wall switch`,
        },
      ];
    }
    if (area.kind === 'stairs' && area.conditions.risers >= RISERS) {
      const levels = new Set(switched.flatMap((b) => view.switchesOf(b).map((s) => levelOf(view, s))));
      if (levels.size < 2) {
        return [
          {
            level: 'violation',
            section: '210.70(A)(2)',
            message: `${area.name} has ${area.conditions.risers} risers; ${lit.name} needs a switch at each level`,
          },
        ];
      }
    }
    const how = isReceptacle(lit)
      ? 'a switched receptacle in place of a lighting outlet'
      : 'a lighting outlet';
    const by = view
      .switchesOf(lit)
      .map((s) => s.name)
      .join(', ');
    return [
      {
        level: 'satisfied',
        section: isReceptacle(lit) ? '210.70(A)(1) Ex. 1' : section,
        message: `${area.name}: ${lit.name}, ${how}${by ? `, switched at ${by}` : ''}`,
      },
    ];
  },
});
