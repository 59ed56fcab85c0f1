/** What the faces of a circuit show in one state of its switches, and what the metal beside them does to a body. */
import { BOX } from '#core/boxes/wiring.ts';
import type { Run } from '#core/circuits/run.ts';
import { LOW_OHMS } from '#core/instruments/meter.ts';
import { isReversed } from '#core/protection/sensors.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import { PERSON_OHMS, wiringOf, type FaceNodes, type Use, type Wiring } from '#core/network/wiring.ts';
import { round } from '#core/units/quantity.ts';

/** Volts at one face on a meter that loads, every switch where its load is on; null where it has no such pair. */
export interface FaceVolts {
  face: string;
  hotNeutral: number | null;
  hotGround: number | null;
  neutralGround: number | null;
  hotHot: number | null;
}

/** What a face shows in one state of the switches. */
export interface Shown extends FaceVolts {
  stop: number;
  /** Each contact to earth itself, whatever its ground slot is. */
  hotEarth: number | null;
  otherEarth: number | null;
  neutralEarth: number | null;
  /** Through a body from the metal that can be touched there to earth, the most of it, amperes. */
  bodyAmps: number;
}

/** Volts from which a contact is live, and below which it is dead. */
const LIVE = 60;
const DEAD = 10;

export const isLive = (v: number | null): boolean => v !== null && v >= LIVE;
export const isDead = (v: number | null): boolean => v === null || v < DEAD;

/** Readings of many pairs at once, each with its own meter. */
export function readAll(wiring: Wiring, probes: readonly Probe[]): Float64Array {
  const volts = new Float64Array(probes.length);
  new Predictor(wiring, [], probes, MAINS_HERTZ, 1).readings(volts);
  return volts;
}

/** Metal that can be touched at a stop: the ground contacts, the green screw of its device, the box. */
function metalOf({ terminals, inBox }: Wiring, stop: number): number[] {
  const nodes = inBox[stop]!;
  const at = [terminals[stop]!.ground, nodes.get(BOX), nodes.get('device.green')];
  return [...new Set(at.flatMap((n) => n ?? []))];
}

export function show(wiring: Wiring): Shown[] {
  const probes: Probe[] = [];
  const ask = (a: number | null, b: number | null, ohms = LOW_OHMS): number | null =>
    a === null || b === null || a === b ? null : probes.push({ a, b, ohms }) - 1;
  const earth = wiring.panel.ground;
  const asked = wiring.terminals.flatMap(({ faces, ground: slot }, stop) => {
    const metal = metalOf(wiring, stop).map((node) => ask(node, EARTH, PERSON_OHMS));
    const list: readonly Partial<FaceNodes>[] = faces.length > 0 ? faces : [{}];
    return list.map(({ name = '', hot = null, hotB = null, neutral = null, ground = null }) => ({
      stop,
      face: name,
      hotNeutral: ask(hot, neutral),
      hotGround: ask(hot, ground ?? slot),
      hotEarth: ask(hot, earth),
      otherEarth: ask(hotB, earth),
      neutralEarth: ask(neutral, earth),
      neutralGround: ask(neutral, ground ?? slot),
      hotHot: ask(hot, hotB),
      metal,
    }));
  });
  const volts = readAll(wiring, probes);
  const read = (at: number | null) => (at === null ? null : round(volts[at]!, 1));
  return asked.map(
    ({
      stop,
      face,
      hotNeutral,
      hotGround,
      hotEarth,
      otherEarth,
      neutralEarth,
      neutralGround,
      hotHot,
      metal,
    }): Shown => ({
      stop,
      face,
      hotNeutral: read(hotNeutral),
      hotGround: read(hotGround),
      hotEarth: read(hotEarth),
      otherEarth: read(otherEarth),
      neutralEarth: read(neutralEarth),
      neutralGround: read(neutralGround),
      hotHot: read(hotHot),
      bodyAmps: Math.max(0, ...metal.map((at) => (at === null ? 0 : volts[at]! / PERSON_OHMS))),
    }),
  );
}

/** Devices that do not reset as they are wired: their contacts stay open, and their faces with them. */
export function withReset(run: Run, boxes: readonly BoxWiring[], use: Use): Wiring {
  const wiring = wiringOf(run, use, boxes);
  const stuck = run.stops.flatMap(({ box }, stop) =>
    ['gfci', 'outlet-afci'].includes(box.device.kind) && isReversed(wiring, stop) ? [stop] : [],
  );
  return stuck.length === 0
    ? wiring
    : wiringOf(run, { ...use, open: new Set([...use.open, ...stuck]) }, boxes);
}

const remembered = new WeakMap<Run, Map<string, Shown[]>>();

/** As planned, for a position of the switches. */
export function plannedShown(run: Run, open: readonly number[]): Shown[] {
  const known = remembered.get(run) ?? new Map<string, Shown[]>();
  remembered.set(run, known);
  const key = open.join(' ');
  const shown = known.get(key) ?? show(wiringOf(run, { amps: new Map(), open: new Set(open) }));
  known.set(key, shown);
  return shown;
}
