/** What is in a box of the job, for its fill: a count of its wiring. */
import { runOf, stopOf } from '#core/circuits/run.ts';
import type { Box, BoxWiring, Gauge } from '#core/job/schema.ts';
import { isFillGauge, type FillGauge } from '#core/tables/boxes.ts';
import { CIRCULAR_MILS } from '#core/tables/conductors.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import type { View } from '#core/view/view.ts';
import { DEVICES } from './devices.ts';
import type { BoxContents } from './fill.ts';
import { netsOf } from './nets.ts';
import { actualWiring, plannedBoxes } from './planned.ts';
import { EMPTY_WIRING, type Cable } from './wiring.ts';

/** Room in cubic inches: as marked, or as it was found; null where nobody read it. */
export const roomOf = (box: Box): number | null => box.enclosure.volume ?? box.found?.boxVolume ?? null;

/** Why the planned wiring of a box does not say what is in it. */
function unclear(view: View, box: Box): string | null {
  if (box.through.length > 0) return 'how many conductors of other circuits are in it is not on record';
  const on = stopOf(view, box)!;
  if (on.circuit.seen !== 'yes') return 'its conductors were not looked at';
  const run = runOf(view, on.circuit);
  const { needs } = netsOf(run).wanted[run.stops.indexOf(on.stop)]!;
  // Where old travelers run is known to those who opened the boxes alone.
  const lights =
    box.device.kind === 'switch' ? box.controls.flatMap((id) => view.document.boxes[id] ?? []) : [box];
  if (box.status === 'existing' && lights.some((light) => view.switchesOf(light).length > 1))
    return 'its light has several switches, and where their travelers run is not on record';
  return box.device.switched === 'half' && !needs.some((n) => n.net.function === 'switched')
    ? 'where the switched hot of a half-switched receptacle runs is not on record'
    : null;
}

/** The wiring of an outlet: recorded, or planned; null where it is on no circuit and nothing was recorded. */
export function wiringIn(view: View, box: Box): BoxWiring | null {
  const on = stopOf(view, box);
  if (!on) return box.wiring?.wiring ?? null;
  const run = runOf(view, on.circuit);
  return actualWiring(box, plannedBoxes(run)[run.stops.indexOf(on.stop)] ?? EMPTY_WIRING);
}

const isGround = (c: Cable['conductors'][number]): boolean =>
  c.function === 'ground' || c.color === 'bare' || c.color === 'green';

/**
 * What is in a box, with its clamps taken to be inside unless it is on record that they are not.
 * @returns what cannot be told, where that is so
 */
export function contentsOf(view: View, box: Box): Result<BoxContents> {
  const on = stopOf(view, box);
  const wiring = wiringIn(view, box);
  if (!wiring) return fail('it is on no circuit');
  if (!box.wiring) {
    const why = unclear(view, box);
    if (why !== null) return fail(why);
  }
  return contentsFrom(wiring, on?.stop.segment.gauge ?? null, box.enclosure.clamps !== 'no');
}

/**
 * Counts a wiring.
 * @param usual gauge of conductors of which none is on record; null where none is known
 */
export function contentsFrom(wiring: BoxWiring, usual: Gauge | null, clamps: boolean): Result<BoxContents> {
  const conductors: BoxContents['conductors'][number][] = [];
  const grounds: BoxContents['grounds'][number][] = [];
  let most: FillGauge | null = null;
  for (const cable of wiring.cables) {
    if (cable.conductors.length === 0) return fail(`what conductors cable ${cable.id} has is not on record`);
    for (const c of cable.conductors) {
      if (c.color === 'armor') continue;
      const gauge = c.gauge ?? usual;
      if (gauge === null) return fail('the gauge of its conductors is not on record');
      if (!isFillGauge(gauge)) return fail('4 AWG and larger goes by 314.28');
      if (isGround(c)) grounds.push({ gauge, count: 1 });
      else conductors.push({ gauge, count: 1, stands: cable.stands });
      if (cable.circuitId === null && (most === null || CIRCULAR_MILS[gauge] > milsOf(most))) most = gauge;
    }
  }
  const device = most ?? (usual !== null && isFillGauge(usual) ? usual : null);
  const yokes = wiring.yokes.flatMap(({ kind }) => {
    const { gangs } = DEVICES[kind];
    return gangs > 0 && device !== null ? [{ gauge: device, gangs }] : [];
  });
  return ok({ conductors, grounds, isolatedGrounds: [], clamps, fittings: 0, yokes, terminals: null });
}

const milsOf = (gauge: FillGauge): number => CIRCULAR_MILS[gauge as Gauge];
