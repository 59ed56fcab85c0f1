/** Existing circuits that may be extended: from which of their boxes, by how much, and what comes with it. */
import {
  buildRun,
  lengthOf,
  plannedBetween,
  type Place,
  type Run,
  type RunStop,
} from '#core/circuits/run.ts';
import { isArcRoom } from '#core/tables/areas.ts';
import { ohmsPerThousandFeet } from '#core/tables/conductors.ts';
import type { View } from '#core/view/view.ts';
import { rows, servedBy } from '#core/job/document.ts';
import type { Circuit, JobDocument, Stop } from '#core/job/schema.ts';
import { dutiesOf, type Duty } from '#core/panel/duty.ts';
import { breakerPrice, cablePrice } from '#core/panel/prices.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import { GARAGE, GENERAL, NEEDS_AFCI, NEEDS_GFCI, type CircuitOption } from './search/problem.ts';
import { protectionWith, unitsOf, unitsOn, type PlannerSettings, type Sort } from './settings.ts';

/** A box that more cable may start at. */
export interface Start {
  stop: RunStop;
  place: Place;
  /** Cables that may still leave it. */
  spare: number;
}

export interface Trunk {
  circuit: Circuit;
  /** The circuit without the new outlets at its ends, which are planned anew. */
  run: Run;
  sort: Sort;
  company: typeof GARAGE | typeof GENERAL;
  starts: Start[];
  /** Load units that are on it. */
  units: number;
  /** It supplies a room that asks for AFCI once something is added, 210.12. */
  arc: boolean;
}

const SORT_OF: Partial<Record<Duty, Sort>> = {
  'small-appliance': 'kitchen',
  laundry: 'laundry',
  bathroom: 'bathroom',
  garage: 'general',
  general: 'general',
};

/** Resistance of one conductor, ohms an inch. */
export const ohmsPerInch = ({ job }: JobDocument, gauge: Circuit['gauge']): number =>
  ohmsPerThousandFeet(gauge, 'copper', job.settings.conductorTemperature)! / 12000;

/** A circuit that was proved dead or energized is not taken apart: what is on record would say nothing any more. */
export const isOnRecord = ({ proofs, energizings }: JobDocument, { id }: Circuit): boolean =>
  rows(proofs).some((p) => p.lockedOut.includes(id)) || rows(energizings).some((e) => e.circuitId === id);

/** Stops that stay: all but new outlets that feed none of them. */
function standing(document: JobDocument, circuit: Circuit): Stop[] {
  if (isOnRecord(document, circuit)) return circuit.stops;
  const { boxes } = document;
  const stays = new Set<string>();
  for (const { boxId, from } of [...circuit.stops].reverse()) {
    if (boxes[boxId]?.status !== 'new') stays.add(boxId);
    if (from !== null && stays.has(boxId)) stays.add(from);
  }
  return circuit.stops.filter((s) => stays.has(s.boxId));
}

function startsOf({ stops }: Run, { maxOut }: PlannerSettings): Start[] {
  return stops.flatMap((stop, at): Start[] => {
    const { box, place, role } = stop;
    const leaving = stops.filter((s) => s.feeder === at).length;
    // Of a half-hot receptacle and behind a switch not every hot is always on.
    const always = role === 'through' && box.device.switched === 'none';
    const fit = box.device.volts === '125' && box.device.kind !== 'hardwired';
    if (!place || !always || !fit || box.status === 'remove' || box.grounding !== 'grounded') return [];
    return leaving < maxOut ? [{ stop, place, spare: maxOut - leaving }] : [];
  });
}

/** An existing circuit as one that may be extended, or why it may not. */
export function trunkOf(view: View, circuit: Circuit, settings: PlannerSettings): Trunk | { why: string } {
  const { document } = view;
  const { breaker, gauge } = circuit;
  if (breaker.poles !== 1 || (breaker.rating !== 15 && breaker.rating !== 20))
    return { why: 'not of one pole with 15 or 20 A' };
  if (circuit.cable === 'old two-wire') return { why: 'its cable has no ground' };
  if (circuit.material !== 'copper') return { why: 'its conductors are not copper' };
  if (gauge === '14' && breaker.rating > 15) return { why: '14 AWG on 20 A is to be put right first' };
  const run = buildRun(document, { ...circuit, stops: standing(document, circuit) });
  const staying = run.stops.filter((s) => s.box.status !== 'remove');
  const { duty, strangers } = dutiesOf(staying, ({ box }) => servedBy(document, box), view.edition);
  const sort = SORT_OF[duty];
  if (staying.length === 0 || !sort) return { why: 'it is for its own load alone' };
  if (strangers.length > 0) return { why: 'it feeds what does not belong on it' };
  if (duty === 'bathroom' && !staying.every((s) => isSmallReceptacle(s.box)))
    return { why: 'it feeds more than receptacles of its bathroom' };
  if (duty !== 'general' && breaker.rating < 20) return { why: 'a circuit of its kind is of 20 A' };
  const units = staying.reduce((t, s) => t + unitsOf(s.box), 0);
  if (units >= unitsOn(breaker.rating, document, settings)) return { why: 'it is full by the shop’s limit' };
  const starts = startsOf(run, settings);
  if (starts.length === 0) return { why: 'no box with a ground has room for one more cable' };
  return {
    circuit,
    run,
    sort,
    company: duty === 'garage' ? GARAGE : GENERAL,
    starts,
    units,
    arc: staying.some((s) => isArcRoom(s.area)),
  };
}

/** The cheapest way from a trunk's boxes to a place: where it starts, cable in inches, and what a change of room costs. */
export function wayFrom(
  { starts, circuit }: Trunk,
  document: JobDocument,
  { prices }: PlannerSettings,
  to: { place: Place; area: { id: string } },
): { start: Start; inches: number; change: number } {
  const perInch = cablePrice(prices, circuit.gauge, 2) / 12;
  const ways = starts.map((start) => ({
    start,
    inches: lengthOf(plannedBetween(document.job.settings, start.place, to.place, false)),
    change: start.stop.area.id === to.area.id ? 0 : prices['room-change'],
  }));
  const cents = (way: (typeof ways)[number]) => way.inches * perInch + way.change;
  return ways.reduce((best, way) => (cents(way) < cents(best) ? way : best));
}

/** What is asked of the breaker of a trunk that outlets join which ask for so much. */
export const askedOf = ({ arc }: Trunk, needs: number): number => needs | (arc ? NEEDS_AFCI : 0);

/** @param site the trunk as a site */
export function trunkOption(
  view: View,
  trunk: Trunk,
  site: number,
  settings: PlannerSettings,
): CircuitOption {
  const { document } = view;
  const { prices } = settings;
  const { breaker, gauge } = trunk.circuit;
  const changed = (needs: number): number => {
    const atBox = settings.gfciAt === 'first-box' && (needs & NEEDS_GFCI) > 0;
    const asked = askedOf(trunk, atBox ? needs & ~NEEDS_GFCI : needs);
    const protection = protectionWith(asked, breaker.protection);
    return (
      (protection === breaker.protection ? 0 : breakerPrice(prices, { ...breaker, protection })) +
      (atBox && breaker.protection !== 'gfci' && breaker.protection !== 'dual'
        ? prices['gfci-receptacle']
        : 0)
    );
  };
  return {
    rating: breaker.rating,
    gauge,
    breaker: 0,
    perInch: cablePrice(prices, gauge, 2) / 12,
    ohmsPerInch: ohmsPerInch(document, gauge),
    capacity: unitsOn(breaker.rating, document, settings),
    trunk: site,
    protection: [changed(0), changed(1), changed(2), changed(3)],
  };
}

/**
 * The way to the farthest box that cable may start at, inches of the trunk's own gauge, and the current at its end that
 * drops as much as the worst outlet of the trunk has, amperes: no outlet, old or added, drops more than that makes it.
 */
export function upstreamOf(
  { run, starts, circuit }: Trunk,
  document: JobDocument,
): { inches: number; amps: number } {
  const perInch = ohmsPerInch(document, circuit.gauge);
  const inches = Math.max(...starts.map((s) => s.stop.pathOhms)) / perInch;
  const drop = Math.max(...run.stops.map((s) => s.plannedDrop));
  return { inches, amps: drop / (2 * perInch * inches) };
}
