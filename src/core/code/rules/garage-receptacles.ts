import { since, always } from '#core/tables/editions.ts';
import { outlineOf, placeInPlan, type Point } from '#core/job/outline.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { cornersOf } from '#core/plan/footprint.ts';
import { HIGHEST_COUNTED } from '#core/plan/wallSpaces.ts';
import type { View } from '#core/view/view.ts';
import { rule, type Verdict } from '../rule.ts';
import { countVerdict, isGeneral } from './counted.ts';
import { placeFix } from './spacing.ts';

/** From this width on a door lets a vehicle in, inches. */
const VEHICLE_DOOR = 84;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Directions in which the bays may lie side by side: along the wall of the vehicle doors, else along either side. */
function waysAcross(view: View, area: Area): Point[] {
  const { walls } = outlineOf(area);
  const door = view.ownOpeningsIn(area).find((o) => o.kind === 'door' && o.width >= VEHICLE_DOOR);
  const wall = walls.find((w) => w.id === door?.wallId);
  if (wall) return [{ x: wall.to.x - wall.from.x, y: wall.to.y - wall.from.y }];
  return [area.heading, area.heading + 90].map((a) => ({ x: Math.cos(radians(a)), y: Math.sin(radians(a)) }));
}

/** Bays, counted from one side, that no receptacle stands in. */
function baysWithout(area: Area, boxes: readonly Box[], bays: number, way: Point): number[] {
  const along = (p: Point) => (p.x * way.x + p.y * way.y) / Math.hypot(way.x, way.y);
  const corners = cornersOf(area).map(along);
  const [low, high] = [Math.min(...corners), Math.max(...corners)];
  const taken = boxes.flatMap((b) => {
    const at = placeInPlan(area, b.wallId, b.offset, b.fromWall);
    return at ? [Math.min(bays - 1, Math.max(0, Math.floor(((along(at) - low) / (high - low)) * bays)))] : [];
  });
  return Array.from({ length: bays }, (_, i) => i).filter((i) => !taken.includes(i));
}

/** Receptacles enough by number, judged by where they stand. */
function byBay(view: View, area: Area, boxes: readonly Box[], bays: number): Verdict {
  const names = boxes.map((b) => b.name).join(', ');
  const lacking = waysAcross(view, area).map((way) => baysWithout(area, boxes, bays, way));
  if (lacking.every((l) => l.length === 0))
    return { level: 'satisfied', message: `${area.name}: one in each of ${bays} vehicle bays: ${names}` };
  if (lacking.every((l) => l.length > 0))
    return {
      level: 'violation',
      message: `${area.name}: ${names} leave ${lacking[0]!.length} of ${bays} vehicle bays without a receptacle`,
      fixes: [placeFix(area)],
    };
  return {
    level: 'unknown',
    message: `${area.name}: ${names} are enough by number; which bay each stands in is not known: draw the vehicle doors, 7' wide or more`,
  };
}

export const garageReceptacles = rule({
  id: 'garage-receptacles',
  title: 'A receptacle in each vehicle bay',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(G)(1)'),
  why: 'Cords laid across a garage floor are driven over and end in puddles.',
  limit: { value: HIGHEST_COUNTED, unit: 'in', tighter: 'less', of: 'height above the floor' },
  check(area, view) {
    if (area.kind !== 'garage') return [];
    const { detached, powered, attachedToUnit, bays } = area.conditions;
    const { dwelling } = view.document.job;
    if (detached && !powered) return [];
    if (dwelling === 'multifamily' && (!since(view.edition, '2020') || !attachedToUnit)) return [];
    const highest = view.limit('garage-receptacles', HIGHEST_COUNTED);
    const least = Math.max(1, bays);
    const low = (b: Box) => b.height <= highest;
    const counted = view.boxesIn(area).filter((b) => isGeneral(b) && low(b));
    if (least > 1 && counted.length >= least) return [byBay(view, area, counted, least)];
    return countVerdict(
      view,
      area,
      least,
      `one for each of ${least} vehicle ${least === 1 ? 'bay' : 'bays'}, 5' 6" or lower`,
      low,
    );
  },
});
