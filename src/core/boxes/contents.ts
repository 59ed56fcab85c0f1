/** What is in a box of the job, for its fill: from what was found there, or from the run that it is planned on. */
import { fedFrom, runOf, stopOf, type Run, type RunStop } from '#core/circuits/run.ts';
import type { Box, Circuit } from '#core/job/schema.ts';
import { isFillGauge, type FillGauge } from '#core/tables/boxes.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import type { View } from '#core/view/view.ts';
import { EMPTY_BOX, type BoxContents } from './fill.ts';

/** Room in cubic inches: as marked, or as it was found; null where nobody read it. */
export const roomOf = (box: Box): number | null => box.enclosure.volume ?? box.found?.boxVolume ?? null;

/** Insulated conductors of a cable of a circuit. */
const conductorsOf = ({ breaker, neutral }: Circuit): number => (breaker.poles === 2 && neutral ? 3 : 2);

const hasGround = ({ cable }: Circuit): boolean => cable !== 'old two-wire';
/** The device is on the wires; a light or a wired thing hangs outside its box, without a yoke in it. */
const hasYoke = ({ device }: Box): boolean => device.kind !== 'light' && device.kind !== 'hardwired';
/** A range or dryer receptacle is two gangs wide. */
const gangsOf = ({ device }: Box): number => (device.volts === '125/250' && device.rating >= 30 ? 2 : 1);

/** Why the cables of a box cannot be told from its run. */
function unclear(view: View, box: Box, run: Run, stop: RunStop): string | null {
  if (box.through.length > 0) return 'how many conductors of other circuits are in it is not on record';
  if (box.device.kind === 'smoke-alarm') return 'the interconnect of its alarms is not on record';
  const lights = box.device.kind === 'switch' ? box.controls : [box.id];
  const threeWay = lights.some((id) => {
    const light = view.document.boxes[id];
    return light !== undefined && view.switchesOf(light).length > 1;
  });
  if (threeWay) return 'its light has several switches, and where their travelers run is not on record';
  const switchedHalf = [stop, ...fedFrom(run, stop)].some(({ box: b }) => b.device.switched === 'half');
  return switchedHalf ? 'where the switched hot of a half-switched receptacle runs is not on record' : null;
}

/** By the conductors that were found, each to its cable. */
function asFound(box: Box, gauge: FillGauge): BoxContents | null {
  const { found } = box;
  if (!found || found.conductors.length === 0 || box.status === 'new') return null;
  const grounds = found.conductors.filter((c) => c.color === 'bare' || c.color === 'green').length;
  return {
    ...EMPTY_BOX,
    conductors: [{ gauge, count: found.conductors.length - grounds, stands: 'ends' }],
    grounds: [{ gauge, count: grounds }],
  };
}

/**
 * What is in a box, with its clamps taken to be inside unless it is on record that they are not.
 * @returns what cannot be told, where that is so
 */
export function contentsOf(view: View, box: Box): Result<BoxContents> {
  const on = stopOf(view, box);
  if (!on) return fail('it is on no circuit');
  const { circuit, stop } = on;
  const run = runOf(view, circuit);
  const gauges = [stop, ...fedFrom(run, stop)].map((s) => s.segment.gauge);
  const sizes = gauges.filter(isFillGauge);
  if (sizes.length < gauges.length) return fail('4 AWG and larger goes by 314.28');
  const device = sizes[0]!;
  const yokes = hasYoke(box) ? [{ gauge: device, gangs: gangsOf(box) }] : [];
  const clamps = box.enclosure.clamps !== 'no';
  const found = asFound(box, device);
  if (found) return ok({ ...found, yokes, clamps });
  const why = unclear(view, box, run, stop);
  if (why !== null) return fail(why);
  const each = conductorsOf(circuit);
  return ok({
    ...EMPTY_BOX,
    conductors: sizes.map((gauge) => ({ gauge, count: each, stands: 'ends' as const })),
    grounds: hasGround(circuit) ? sizes.map((gauge) => ({ gauge, count: 1 })) : [],
    yokes,
    clamps,
  });
}
