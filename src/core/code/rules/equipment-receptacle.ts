import { isServiced } from '#core/tables/fixtures.ts';
import { runOf } from '#core/circuits/run.ts';
import { placeInPlan } from '#core/job/outline.ts';
import type { Box, Fixture } from '#core/job/schema.ts';
import { distance, footprint, nearestOnPolygon } from '#core/plan/footprint.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { isGeneral } from './counted.ts';
import { placeFix } from './spacing.ts';

/** Farthest from the equipment, inches. */
export const SERVICE_REACH = 300;

/** Whether a receptacle hangs on the load side of the equipment's own outlet. */
function onLoadSide(view: View, box: Box, fixture: Fixture): boolean {
  const circuit = view.circuitOf(box.id);
  if (!circuit) return false;
  const { stops } = runOf(view, circuit);
  let stop = stops.find((s) => s.box.id === box.id);
  while (stop) {
    if (stop.box.serves === fixture.id && stop.box.device.kind === 'hardwired') return true;
    stop = stops[stop.feeder];
  }
  return false;
}

/** The nearest receptacle that may serve, on the equipment's own level. */
function nearestService(view: View, fixture: Fixture): { box: Box; distance: number } | null {
  const home = view.document.areas[fixture.areaId];
  const target = home && footprint(home, fixture);
  if (!home || !target) return null;
  let best: { box: Box; distance: number } | null = null;
  for (const area of view.areasOn(home.levelId)) {
    for (const box of view.boxesIn(area)) {
      if (!isGeneral(box) || onLoadSide(view, box, fixture)) continue;
      const at = placeInPlan(area, box.wallId, box.offset, box.fromWall);
      const far = at ? distance(at, nearestOnPolygon(at, target)) : Infinity;
      if (!best || far < best.distance) best = { box, distance: far };
    }
  }
  return best;
}

export const equipmentReceptacle = rule({
  id: 'equipment-receptacle',
  title: 'Receptacle near equipment that is serviced',
  scope: 'fixture',
  needs: ['plan'],
  level: 'violation',
  sections: { '2017': '210.63', '2020': '210.63(A)', '2023': '210.63(A)' },
  why: 'Whoever repairs a furnace or heat pump needs power for a light and a pump after its disconnect is off.',
  limit: { value: SERVICE_REACH, unit: 'in', tighter: 'less', of: 'distance from the equipment' },
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (!isServiced(fixture) || !area || fixture.status === 'remove') return [];
    if (fixture.kind === 'evaporative-cooler' && view.document.job.dwelling !== 'multifamily') {
      return [
        {
          level: 'satisfied',
          message: `${fixture.name}: an evaporative cooler at a one- or two-family dwelling is excused`,
        },
      ];
    }
    const limit = view.limit('equipment-receptacle', SERVICE_REACH);
    const nearest = nearestService(view, fixture);
    if (nearest && nearest.distance <= limit) {
      return [
        {
          level: 'satisfied',
          message: `${nearest.box.name} is ${formatLength(nearest.distance)} from the ${fixture.name}, on its level`,
          measured: { value: nearest.distance, unit: 'in' },
          limit: { value: limit, unit: 'in' },
        },
      ];
    }
    const far = nearest
      ? `; the nearest, ${nearest.box.name}, is ${formatLength(nearest.distance)} away`
      : '';
    return [
      {
        level: 'violation',
        message: `no receptacle within ${formatLength(limit)} of the ${fixture.name} on its level${far}`,
        ...(nearest ? { measured: { value: nearest.distance, unit: 'in' as const } } : {}),
        limit: { value: limit, unit: 'in' },
        fixes: [placeFix(area)],
      },
    ];
  },
});
