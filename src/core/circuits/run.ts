/** A circuit as it runs through the house: every stop at its distance, with load, drop and protection. */
import { ohmsPerThousandFeet, type Material } from '#core/tables/conductors.ts';
import { placeInPlan } from '#core/job/outline.ts';
import type { Area, Box, Circuit, Gauge, Job, JobDocument, Panel, School, Stop } from '#core/job/schema.ts';
import { lookup } from '#core/view/lookup.ts';
import type { View } from '#core/view/view.ts';
import { isOutlet, isReceptacle } from '#core/plan/wallSpaces.ts';

type Settings = Job['settings'];

interface Segment {
  /** Installed length, inches. */
  length: number;
  /** `assumed`: neither measured nor on the plan, as long as such cables usually are. */
  source: 'measured' | 'plan' | 'assumed';
  /** What a planned length is made of, inches. */
  planned: PlannedLength;
  gauge: Gauge;
  /** One conductor, ohms at the shop's conductor temperature. */
  ohms: number;
}

export interface PlannedLength {
  east: number;
  south: number;
  levels: number;
  rise: number;
  /** False when one of the two ends has no place on the plan. */
  onPlan: boolean;
}

/** How a planned length came about, in feet. */
export function describePlanned({ east, south, levels, rise, onPlan }: PlannedLength): string {
  if (!onPlan) return 'not on the plan';
  const feet = (inches: number) => (inches / 12).toFixed(1);
  const between = levels > 0 ? ` + ${feet(levels)} ft between levels` : '';
  return `${feet(east)} + ${feet(south)} ft through framing${between} + ${feet(rise)} ft rise and free ends`;
}

/** Where protection of a kind begins: at the breaker, or at a box on the run. */
export type ProtectionOrigin =
  | { at: 'breaker' }
  | { at: 'box'; kind: 'gfci' | 'afci'; boxId: string; name: string; first: boolean };

/** Inches east and south of plan zero, and of the floor from grade. */
export interface Place {
  x: number;
  y: number;
  z: number;
}

export interface RunStop {
  stop: Stop;
  box: Box;
  area: Area;
  /** Where it is in the house; null when its wall is gone. */
  place: Place | null;
  /** Position in `Run.stops` of the stop that feeds this one; −1 is the panel. */
  feeder: number;
  segment: Segment;
  /** Cable from the breaker to here, inches. */
  distance: number;
  /** One conductor from the breaker to here, ohms. */
  pathOhms: number;
  /** Planning load of its own outlet, amperes. */
  ownAmps: number;
  /** Planning load carried by the segment that feeds this stop, on its fuller hot, amperes. */
  amps: number;
  /** Drop here under the planning load with nothing on the other hot, volts. */
  plannedDrop: number;
  /** How what goes on is joined here, by its own word or the school of the box. */
  joining: School['joining'];
  school: School;
  /** What this stop is to the run: a switch loop is fed from what it controls. */
  role: StopRole;
  /** Protection of the outlet itself; what leaves from its line side has that which arrived. */
  gfci: ProtectionOrigin | null;
  afci: ProtectionOrigin | null;
}

/** `switch-loop`: a switch fed from what it controls. `switched`: fed from the switch that controls it. */
type StopRole = 'through' | 'switch-loop' | 'switched';

export interface Run {
  circuit: Circuit;
  /** What its outlets work at, and what a drop is a share of, volts. */
  volts: number;
  stops: RunStop[];
  /** All cable as installed, inches. */
  installed: number;
  /** Cable to buy: installed and waste, inches. */
  toBuy: number;
  /** Planning load on each hot at the breaker, amperes; without a second pole the red has none. */
  hots: readonly [black: number, red: number];
  /** Planning load at the breaker on its fuller hot, amperes. */
  plannedAmps: number;
  /** The stop with the most resistance from the breaker; null on an empty run. */
  end: RunStop | null;
}

function segmentOf(
  document: JobDocument,
  circuit: Circuit,
  stop: Stop,
  place: Place | null,
  feeder: RunStop | null,
): Segment {
  const { settings } = document.job;
  const gauge = stop.gauge ?? circuit.gauge;
  const planned = plannedLength(document, circuit, place, feeder);
  const length = stop.measured ?? lengthOf(planned);
  const perThousand = resistancePerThousand(gauge, circuit.material, settings.conductorTemperature);
  return {
    length,
    source: stop.measured !== null ? 'measured' : planned.onPlan ? 'plan' : 'assumed',
    planned,
    gauge,
    ohms: (perThousand * length) / 12 / 1000,
  };
}

/** Aluminum 14 AWG does not exist; its resistance is taken as that of 12 AWG so that a finding can be shown. */
const resistancePerThousand = (gauge: Gauge, material: Material, celsius: number): number =>
  ohmsPerThousandFeet(gauge, material, celsius) ?? ohmsPerThousandFeet('12', material, celsius)!;

/** Where a panel is in the house. */
export const panelPlace = (document: JobDocument, { x, y, levelId }: Panel): Place => ({
  x,
  y,
  z: elevation(document, levelId),
});

/** Manhattan distance through the framing, the change of level, and an allowance at each end. */
export const plannedBetween = (
  { boxRise, panelRise }: Settings,
  from: Place,
  to: Place,
  fromPanel: boolean,
): PlannedLength => ({
  east: Math.abs(to.x - from.x),
  south: Math.abs(to.y - from.y),
  levels: Math.abs(to.z - from.z),
  rise: (fromPanel ? panelRise : boxRise) + boxRise,
  onPlan: true,
});
/** All of a planned length, inches. */
export const lengthOf = ({ east, south, levels, rise }: PlannedLength): number =>
  east + south + levels + rise;

/** Cable through the framing where nothing was drawn or measured, inches: 40 ft from the panel, 15 ft from box to box. */
const USUAL = { homeRun: 480, between: 180 } as const;

function plannedLength(
  document: JobDocument,
  circuit: Circuit,
  to: Place | null,
  feeder: RunStop | null,
): PlannedLength {
  const { settings } = document.job;
  const panel = document.panels[circuit.panelId];
  const from = feeder ? feeder.place : panel && panelPlace(document, panel);
  return to && from
    ? plannedBetween(settings, from, to, !feeder)
    : {
        east: feeder ? USUAL.between : USUAL.homeRun,
        south: 0,
        levels: 0,
        rise: settings.boxRise,
        onPlan: false,
      };
}

const elevation = (document: JobDocument, levelId: string) => document.levels[levelId]?.elevation ?? 0;

export function positionOf(document: JobDocument, box: Box): Place | null {
  const area = document.areas[box.areaId];
  const place = area && placeInPlan(area, box.wallId, box.offset, box.fromWall);
  return place ? { ...place, z: elevation(document, area.levelId) } : null;
}

/** The protection that a device of its kind begins at its box. */
const here = (box: Box, kind: 'gfci' | 'outlet-afci', first: boolean): ProtectionOrigin | null =>
  box.device.kind === kind
    ? { at: 'box', kind: kind === 'gfci' ? 'gfci' : 'afci', boxId: box.id, name: box.name, first }
    : null;

/** An outlet for one appliance that takes both hots: a hardwired one, or a receptacle of 30 A and more. */
const isAppliance = (box: Box): boolean =>
  box.device.kind === 'hardwired' || (isReceptacle(box) && box.device.rating >= 30);

/** Voltage that the outlets of a circuit work at. A circuit with two hots and a neutral feeds 120 V outlets. */
function voltsOf(document: JobDocument, { breaker, neutral, stops }: Circuit): number {
  const { voltage } = document.job.settings;
  if (breaker.poles === 1) return voltage;
  const outlets = stops.flatMap((s) => document.boxes[s.boxId] ?? []);
  return !neutral || (outlets.length > 0 && outlets.every(isAppliance)) ? 2 * voltage : voltage;
}

/** Planning load of one outlet, amperes: its appliance's nameplate, or so many volt-amperes a receptacle. */
function planningAmps(document: JobDocument, box: Box, circuitVolts: number): number {
  if (box.status === 'remove') return 0;
  const plate = box.serves === null ? null : document.fixtures[box.serves]?.nameplate;
  const marked = plate && (plate.amps ?? (plate.watts === null ? null : plate.watts / plate.volts));
  if (marked) return marked;
  return isReceptacle(box) ? document.job.settings.vaPerReceptacle / circuitVolts : 0;
}

/** Two hots on one neutral with 120 V outlets between them: a multiwire circuit, 210.4. */
export const isMultiwire = ({ circuit, volts }: Run): boolean =>
  circuit.breaker.poles === 2 && circuit.neutral && volts <= 150;

function roleOf(box: Box, feeder: Box | undefined): StopRole {
  if (!feeder) return 'through';
  if (box.device.kind === 'switch' && box.controls.includes(feeder.id)) return 'switch-loop';
  return feeder.device.kind === 'switch' && feeder.controls.includes(box.id) ? 'switched' : 'through';
}

/** Builds the run of a circuit. Stops whose outlet or room is missing are left out. */
export function buildRun(document: JobDocument, circuit: Circuit): Run {
  const { settings } = document.job;
  const circuitVolts = voltsOf(document, circuit);
  const fromBreaker: ProtectionOrigin = { at: 'breaker' };
  const has = (kind: 'gfci' | 'afci') =>
    circuit.breaker.protection === kind || circuit.breaker.protection === 'dual' ? fromBreaker : null;
  const stops: RunStop[] = [];
  /** Protection that arrives at each box, before its own device. */
  const arriving: { gfci: ProtectionOrigin | null; afci: ProtectionOrigin | null }[] = [];
  /** Planning load on each hot of the segment that feeds each stop. */
  const hots: [black: number, red: number][] = [];
  const indexOf = new Map<string, number>();
  for (const stop of circuit.stops) {
    const box = document.boxes[stop.boxId];
    const area = box && document.areas[box.areaId];
    if (!box || !area) continue;
    const feeder = stop.from === null ? -1 : (indexOf.get(stop.from) ?? -1);
    const before = stops[feeder];
    const place = positionOf(document, box);
    const segment = segmentOf(document, circuit, stop, place, before ?? null);
    // Where the order is not on record, nobody knows what a device in another box is before.
    const arrives =
      !before || circuit.ordered !== 'yes'
        ? { gfci: has('gfci'), afci: has('afci') }
        : stop.side === 'line'
          ? arriving[feeder]!
          : before;
    const school = box.school ?? settings.school;
    indexOf.set(box.id, stops.length);
    arriving.push({ gfci: arrives.gfci, afci: arrives.afci });
    const load = planningAmps(document, box, circuitVolts);
    const both = circuitVolts > 150 || (isAppliance(box) && circuit.breaker.poles === 2);
    hots.push([both || stop.hot !== 'red' ? load : 0, both || stop.hot !== 'black' ? load : 0]);
    stops.push({
      stop,
      box,
      area,
      place,
      feeder,
      segment,
      distance: (before?.distance ?? 0) + segment.length,
      pathOhms: (before?.pathOhms ?? 0) + segment.ohms,
      ownAmps: load,
      amps: 0,
      plannedDrop: 0,
      joining: stop.splice === 'school' ? school.joining : stop.splice,
      school,
      role: roleOf(box, before?.box),
      gfci: arrives.gfci ?? here(box, 'gfci', feeder === -1),
      afci: arrives.afci ?? here(box, 'outlet-afci', feeder === -1),
    });
  }
  // Feeders stand before what they feed: one pass back sums the loads, one pass forth sums the drop.
  const atBreaker: [number, number] = [0, 0];
  for (let i = stops.length - 1; i >= 0; i--) {
    const [black, red] = hots[i]!;
    stops[i]!.amps = Math.max(black, red);
    const feeder = hots[stops[i]!.feeder] ?? atBreaker;
    feeder[0] += black;
    feeder[1] += red;
  }
  for (const s of stops) {
    s.plannedDrop = (stops[s.feeder]?.plannedDrop ?? 0) + 2 * s.segment.ohms * s.amps;
  }
  const installed = stops.reduce((sum, s) => sum + s.segment.length, 0);
  return {
    circuit,
    volts: circuitVolts,
    stops,
    installed,
    toBuy: installed * (1 + settings.wastePercent / 100),
    hots: atBreaker,
    plannedAmps: Math.max(...atBreaker),
    end: stops.reduce<RunStop | null>(
      (worst, s) => (worst && worst.pathOhms >= s.pathOhms ? worst : s),
      null,
    ),
  };
}

/** The outlets at which current is taken: switches and what goes out are not among them. */
export const outletsOf = (run: Run): RunStop[] =>
  run.stops.filter(({ box }) => box.status !== 'remove' && isOutlet(box));

/** Drop at a stop with one load there and nothing else on, volts. */
export const dropAt = (stop: RunStop, amps: number): number => 2 * stop.pathOhms * amps;

/** The largest load cord-and-plug use may put at one outlet: 80 % of the breaker, as in 210.21(B)(2). */
export const fullLoad = (circuit: Circuit): number => circuit.breaker.rating * 0.8;

/** The stops that a stop feeds, a cable to each. */
export const fedFrom = (run: Run, stop: RunStop): RunStop[] =>
  run.stops.filter((s) => run.stops[s.feeder] === stop);

/** Cables that were counted in a box and go on to boxes that nobody knows, where the order is not on record. */
export const unknownOnward = (run: Run, stop: RunStop): number =>
  run.circuit.ordered === 'yes' ? 0 : Math.max(0, (stop.box.cables ?? 1) - 1 - fedFrom(run, stop).length);

export const runOf = lookup(
  ({ subjects }) => subjects.circuit,
  ({ document }, circuit: Circuit): Run => buildRun(document, circuit),
);

/** The circuit of an outlet, with its stop on the run. */
export function stopOf(view: View, box: Box): { circuit: Circuit; stop: RunStop } | null {
  const circuit = view.circuitOf(box.id);
  const stop = circuit && runOf(view, circuit).stops.find((s) => s.box.id === box.id);
  return circuit && stop ? { circuit, stop } : null;
}
