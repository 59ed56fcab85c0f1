/**
 * The circuits of a house as problems to be solved: outlets sorted into the designated circuits of 210.11(C) and
 * the rest, each sort with its limits and prices, and plans turned back into one command.
 */
import { buildRun, lengthOf, panelPlace, plannedBetween, positionOf, type Place } from '../circuits/run.ts';
import { sizeCircuit, standardBreaker } from '../circuits/sizing.ts';
import { decisionOn } from '../code/decisions.ts';
import { isArcRoom, isOutside } from '../code/tables/areas.ts';
import { ohmsPerThousandFeet } from '../code/tables/conductors.ts';
import type { View } from '../code/view.ts';
import type { Command } from '../job/commands.ts';
import { newId, rows } from '../job/document.ts';
import type { Area, Box, Circuit, Fixture, FixtureKind, Gauge, Panel } from '../job/schema.ts';
import { hasCounterRule } from '../plan/counters.ts';
import { isReceptacle } from '../plan/wallSpaces.ts';
import type { Prices } from './prices.ts';
import {
  EITHER,
  GARAGE,
  GENERAL,
  NEEDS_AFCI,
  NEEDS_GFCI,
  Pricer,
  type CircuitOption,
  type Plan,
  type PricedCircuit,
  type Problem,
} from './problem.ts';

/** The designated circuits of 210.11(C), individual circuits, and everything else. */
export const SORTS = ['kitchen', 'laundry', 'bathroom', 'individual', 'general'] as const;
export type Sort = (typeof SORTS)[number];

export interface PlannerSettings {
  prices: Prices;
  /** GFCI for what asks for it and has none: at the breaker, or a receptacle at the first box. */
  gfciAt: 'breaker' | 'first-box';
  /** Cables that may leave a box. */
  maxOut: number;
  /** Circuits to leave as they are, beside those that exist or are on record as proved. */
  locked: readonly string[];
}

/** An outlet as a site; a switch is a site together with what it controls. */
interface Site {
  box: Box;
  area: Area;
  place: Place;
  /** Outlets fed from this box alone: what its switch controls. */
  hung: Box[];
}

/** One sort of circuit, to be grouped by itself. */
export interface Part {
  sort: Sort;
  sites: Site[];
  pricer: Pricer;
  /** How the sites are grouped in the job as it stands; those on no circuit each by itself. */
  present: number[][];
}

export interface HouseProblem {
  panel: Panel;
  parts: Part[];
  /** Circuits that stay as they are. */
  kept: Circuit[];
  /** Circuits that are planned anew. */
  open: Circuit[];
  /** Outlets left out, with the reason. */
  leftOut: { box: Box; why: string }[];
}

/** Appliances that get a circuit of their own. */
const DEDICATED: readonly FixtureKind[] = [
  'range',
  'cooktop',
  'wall-oven',
  'microwave',
  'dishwasher',
  'disposer',
  'dryer',
  'water-heater',
  'furnace',
  'air-handler',
  'outdoor-unit',
  'sump-pump',
  'kiln',
  'vehicle-charger',
];
/** Loads taken to run three hours or more. */
const CONTINUOUS: readonly FixtureKind[] = [
  'water-heater',
  'kiln',
  'vehicle-charger',
  'furnace',
  'air-handler',
];

/** Load units: a receptacle outlet is two, a light or an alarm one. */
const RECEPTACLE_UNITS = 2;

const small = (box: Box): boolean =>
  isReceptacle(box) && box.device.rating <= 20 && box.device.volts === '125';

function sortOf(view: View, { box, area }: Pick<Site, 'box' | 'area'>): Sort {
  const served = box.serves === null ? undefined : view.document.fixtures[box.serves];
  if (box.device.kind === 'hard-wired' || (isReceptacle(box) && !small(box))) return 'individual';
  if (box.purpose === 'vehicle' || (served && DEDICATED.includes(served.kind))) return 'individual';
  if (!isReceptacle(box)) return 'general';
  if (hasCounterRule(area)) return 'kitchen';
  if (area.kind === 'laundry') return 'laundry';
  return area.kind === 'bathroom' ? 'bathroom' : 'general';
}

/** Circuits with records are not taken apart: what was proved and read there would say nothing any more. */
function isKept(view: View, circuit: Circuit, locked: readonly string[]): boolean {
  const { document } = view;
  return (
    circuit.status === 'existing' ||
    locked.includes(circuit.id) ||
    [...rows(document.proofs), ...rows(document.energizings)].some((r) => r.circuitId === circuit.id)
  );
}

function needsOf(view: View, { box, area, hung }: Site): number {
  let needs = 0;
  for (const b of [box, ...hung]) {
    const room = view.document.areas[b.areaId] ?? area;
    if (isArcRoom(room) && b.device.volts === '125') needs |= NEEDS_AFCI;
    if (b.device.kind !== 'gfci' && decisionOn('gfci', view, b)?.asked === 'required') needs |= NEEDS_GFCI;
  }
  return needs;
}

const unitsOf = (box: Box): number =>
  box.device.kind === 'switch' ? 0 : isReceptacle(box) ? RECEPTACLE_UNITS : 1;

/** 210.21(B): a 20 A receptacle may not be on 15 A; 210.11(C)(4): a garage's circuit is of 20 A. */
const leastRating = ({ box, area, hung }: Site): number =>
  [box, ...hung].some((b) => isReceptacle(b) && (b.device.rating > 15 || area.kind === 'garage')) ? 20 : 15;

/** Cable and breakers that circuits of a sort may be made of. */
function optionsOf(view: View, sort: Sort, prices: Prices): CircuitOption[] {
  const { maxReceptacles, conductorTemperature } = view.document.job.settings;
  const option = (rating: 15 | 20, gauge: Gauge): CircuitOption => ({
    rating,
    gauge,
    breaker: prices.breaker.none,
    perInch: (prices.cable[gauge] ?? 0) / 12,
    ohmsPerInch: ohmsPerThousandFeet(gauge, 'copper', conductorTemperature)! / 12000,
    // The shop's habit is for 20 A; in proportion for 15 A.
    capacity: RECEPTACLE_UNITS * Math.max(1, Math.floor((maxReceptacles * rating) / 20)),
  });
  const twenty = [option(20, '12'), option(20, '10')];
  return sort === 'general' ? [option(15, '14'), ...twenty] : twenty;
}

/** Outlets that the counters of a kitchen ask for, or all of its outlets where no counter is on record. */
function markedSites(view: View, sites: readonly Site[]): Problem['marked'] {
  const counter = sites.map(({ box, area }) => {
    const spaces = view.counterCoverage(area) ?? [];
    return box.fixtureId !== null || spaces.some((s) => s.counted.some((c) => c.box.id === box.id));
  });
  const marked = counter.filter(Boolean).length >= 2 ? counter : sites.map(() => true);
  return {
    sites: Uint8Array.from(marked, (m) => (m ? 1 : 0)),
    circuits: Math.min(2, marked.filter(Boolean).length),
  };
}

function problemOf(
  view: View,
  panel: Panel,
  sort: Sort,
  sites: readonly Site[],
  settings: PlannerSettings,
): Problem {
  const { document } = view;
  const { settings: shop } = document.job;
  const { prices } = settings;
  const from = panelPlace(document, panel);
  const pairs = <T>(make: (a: Site, b: Site) => T): T[] => sites.flatMap((a) => sites.map((b) => make(a, b)));
  const { none, afci, gfci, dual } = prices.breaker;
  const protection = (needs: number): number => {
    if (settings.gfciAt === 'first-box' && needs & NEEDS_GFCI)
      return prices.gfciReceptacle + (needs & NEEDS_AFCI ? afci - none : 0);
    return [none, afci, gfci, dual][needs]! - none;
  };
  return {
    ids: sites.map((s) => s.box.id),
    home: Float64Array.from(sites, (s) => lengthOf(plannedBetween(shop, from, s.place, true))),
    between: Float64Array.from(
      pairs((a, b) => (a === b ? 0 : lengthOf(plannedBetween(shop, a.place, b.place, false)))),
    ),
    change: Float64Array.from(pairs((a, b) => (a.area === b.area ? 0 : prices.roomChange))),
    size: Int32Array.from(sites, (s) => [s.box, ...s.hung].reduce((t, b) => t + unitsOf(b), 0)),
    least: Uint8Array.from(sites, (s) => leastRating(s)),
    amps: Float64Array.from(
      sites,
      (s) => [s.box, ...s.hung].filter(isReceptacle).length * (shop.vaPerReceptacle / shop.voltage),
    ),
    needs: Uint8Array.from(sites, (s) => needsOf(view, s)),
    guards: Uint8Array.from(sites, (s) =>
      s.box.device.kind === 'gfci' && s.box.status !== 'existing' ? 1 : 0,
    ),
    protection: [0, protection(1), protection(2), protection(3)],
    options: optionsOf(view, sort, prices),
    maxOut: Uint8Array.from(sites, (s) => Math.max(1, settings.maxOut - (s.hung.length > 0 ? 1 : 0))),
    company: Uint8Array.from(sites, (s) => {
      if (!small(s.box)) return GENERAL;
      return s.area.kind === 'garage' ? GARAGE : isOutside(s.area) ? EITHER : GENERAL;
    }),
    maxDrop: (shop.dropLimitPercent / 100) * shop.voltage,
    marked:
      sort === 'kitchen' ? markedSites(view, sites) : { sites: new Uint8Array(sites.length), circuits: 0 },
  };
}

function presentGroups(view: View, sites: readonly Site[]): number[][] {
  const groups = new Map<string, number[]>();
  for (const [i, { box }] of sites.entries()) {
    const key = view.circuitOf(box.id)?.id ?? box.id;
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()];
}

/** Sorts a house's outlets into problems; null without a panel. */
export function houseProblem(
  view: View,
  settings: PlannerSettings,
  panelId: string | null = null,
): HouseProblem | null {
  const { document } = view;
  const panel = panelId === null ? rows(document.panels)[0] : document.panels[panelId];
  if (!panel) return null;
  const circuits = rows(document.circuits);
  const kept = circuits.filter((c) => c.panelId !== panel.id || isKept(view, c, settings.locked));
  const open = circuits.filter((c) => !kept.includes(c));
  const leftOut: HouseProblem['leftOut'] = [];
  const free: Site[] = [];
  for (const box of rows(document.boxes)) {
    const area = document.areas[box.areaId];
    const circuit = view.circuitOf(box.id);
    if (!area || box.status === 'remove' || (circuit && kept.includes(circuit))) continue;
    const place = positionOf(document, box);
    if (!place) leftOut.push({ box, why: 'it has no place on the plan' });
    else if (!circuit && box.status === 'existing')
      leftOut.push({ box, why: 'it exists, and on which circuit is not on record' });
    else free.push({ box, area, place, hung: [] });
  }
  // What a switch controls hangs from the first switch that does.
  const hung = new Set<string>();
  const byId = new Map(free.map((s) => [s.box.id, s]));
  for (const site of free) {
    if (site.box.device.kind !== 'switch') continue;
    for (const id of site.box.controls) {
      const target = byId.get(id);
      if (!target || hung.has(id) || target.box.device.kind === 'switch') continue;
      if (sortOf(view, target) !== 'general') continue;
      hung.add(id);
      site.hung.push(target.box);
    }
  }
  const sites = free.filter((s) => !hung.has(s.box.id));
  const parts = SORTS.flatMap((sort): Part[] => {
    const mine = sites.filter((s) => sortOf(view, s) === sort);
    if (mine.length === 0) return [];
    const groups = sort === 'individual' ? mine.map((s) => [s]) : [mine];
    return groups.map((group) => ({
      sort,
      sites: group,
      present: presentGroups(view, group),
      pricer: new Pricer(problemOf(view, panel, sort, group, settings)),
    }));
  });
  return { panel, parts, kept, open, leftOut };
}

/** A circuit before it has a place in the panel. */
interface Drafted {
  name: string;
  boxIds: string[];
  stops: Circuit['stops'];
  breaker: Circuit['breaker'];
  gauge: Gauge;
  /** A receptacle to become a GFCI so that all after it are protected. */
  gfciAt: Box | null;
}

const listed = (names: readonly string[]): string =>
  names.length <= 2 ? names.join(' and ') : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;

function nameOf(sort: Sort, sites: readonly Site[], fixture: Fixture | undefined): string {
  const rooms = [...new Set(sites.map((s) => s.area.name))];
  if (sort === 'individual') {
    const name = fixture?.name ?? sites[0]!.box.name;
    return name.charAt(0).toUpperCase() + name.slice(1);
  }
  const lights = sites.every(({ box, hung }) => !isReceptacle(box) && !hung.some(isReceptacle));
  const what = lights
    ? 'lights'
    : sites.some(({ box }) => !isReceptacle(box))
      ? 'outlets and lights'
      : 'receptacles';
  return `${listed(rooms)} ${what}`;
}

/** The breaker and conductor of an individual circuit: by its receptacle, or by what the nameplate draws. */
function individual(
  view: View,
  { box }: Site,
): Pick<Circuit, 'gauge'> & { rating: Circuit['breaker']['rating'] } {
  const { document } = view;
  const fixture = box.serves === null ? undefined : document.fixtures[box.serves];
  const plate = fixture?.nameplate;
  const amps = plate?.amps ?? (plate?.watts ? plate.watts / plate.volts : null);
  const continuous = fixture !== undefined && CONTINUOUS.includes(fixture.kind);
  const drawn = amps === null ? null : standardBreaker(amps * (continuous ? 1.25 : 1));
  const rating = isReceptacle(box)
    ? Math.max(box.device.rating, box.device.rating === 15 ? 20 : 0)
    : Math.max(15, drawn ?? 20);
  const sized = sizeCircuit({
    edition: view.edition,
    continuousAmps: continuous && amps !== null ? Math.min(amps, rating / 1.25) : 0,
    noncontinuousAmps: continuous && amps !== null ? 0 : Math.min(amps ?? rating, rating),
    volts: box.device.volts === '125' ? 120 : 240,
    material: 'copper',
    method: 'NM-B',
    insulation: 90,
    terminalRating: 60,
    ambientCelsius: 30,
    currentCarrying: 2,
    severalReceptacles: true,
    feet: 0,
    conductorCelsius: document.job.settings.conductorTemperature,
    breaker: rating,
    gauge: null,
  });
  return { rating: rating as Circuit['breaker']['rating'], gauge: sized.ok ? sized.value.gauge : '6' };
}

function draft(
  view: View,
  { sort, sites, pricer }: Part,
  priced: PricedCircuit,
  settings: PlannerSettings,
): Drafted {
  const members = priced.sites.map((i) => sites[i]!);
  const stop = (boxId: string, from: string | null) => ({ boxId, from, measured: null, gauge: null });
  const order: number[] = [];
  const add = (at: number): void => {
    order.push(at);
    for (const [next, from] of priced.feeders.entries()) if (from === at) add(next);
  };
  add(priced.feeders.indexOf(-1));
  const stops = order.flatMap((at) => {
    const { box, hung } = members[at]!;
    const from = priced.feeders[at]!;
    return [
      stop(box.id, from < 0 ? null : members[from]!.box.id),
      ...hung.map((b, i) => stop(b.id, i === 0 ? box.id : hung[i - 1]!.id)),
    ];
  });
  const needs = priced.sites.reduce((all, i) => all | pricer.problem.needs[i]!, 0);
  const first = members[order[0]!]!.box;
  const atFirstBox = settings.gfciAt === 'first-box' && small(first) && first.device.kind !== 'gfci';
  const gfci = (needs & NEEDS_GFCI) > 0 && !priced.guarded;
  const afci = (needs & NEEDS_AFCI) > 0;
  const own = sort === 'individual' ? individual(view, members[0]!) : null;
  const rating = own?.rating ?? (priced.option.rating as 15 | 20);
  const fixture = first.serves === null ? undefined : view.document.fixtures[first.serves];
  const poles = first.device.volts === '125' && (fixture?.nameplate?.volts ?? 120) < 200 ? 1 : 2;
  const byBreaker = gfci && !atFirstBox;
  // AFCI is asked for on 120 V circuits of 15 and 20 A alone.
  const arc = afci && poles === 1 && rating <= 20;
  return {
    name: nameOf(sort, members, fixture),
    boxIds: stops.map((s) => s.boxId),
    stops,
    breaker: {
      rating,
      protection: byBreaker ? (arc ? 'dual' : 'gfci') : arc ? 'afci' : 'none',
      poles,
    },
    gauge: own?.gauge ?? (priced.option.gauge as Gauge),
    gfciAt: gfci && atFirstBox ? first : null,
  };
}

/** Spaces of a panel that no kept circuit holds, two poles one below the other. */
function spacesFor(panel: Panel, kept: readonly Circuit[], drafted: readonly Drafted[]): (number | null)[] {
  const taken = new Set<number>();
  for (const c of kept) {
    if (c.panelId !== panel.id) continue;
    taken.add(c.space);
    if (c.breaker.poles === 2) taken.add(c.space + 2);
  }
  const free = (n: number) => n <= panel.spaces && !taken.has(n);
  const found = new Map<Drafted, number>();
  for (const d of [...drafted].sort((a, b) => b.breaker.poles - a.breaker.poles)) {
    for (let n = 1; n <= panel.spaces; n++) {
      if (!free(n) || (d.breaker.poles === 2 && !free(n + 2))) continue;
      taken.add(n);
      if (d.breaker.poles === 2) taken.add(n + 2);
      found.set(d, n);
      break;
    }
  }
  return drafted.map((d) => found.get(d) ?? null);
}

export interface Proposal {
  /** Puts the plan in place of the open circuits, as one step. */
  command: Command;
  circuits: Circuit[];
  /** Circuits for which the panel has no space left: they share space 1 of none and are left out. */
  withoutSpace: string[];
}

/** Turns plans, one for each part, into one command. Circuits keep the identity of those they take most from. */
export function propose(
  view: View,
  house: HouseProblem,
  plans: readonly Plan[],
  settings: PlannerSettings,
): Proposal {
  const { panel, parts, kept, open } = house;
  const drafted = parts.flatMap((part, i) => plans[i]!.circuits.map((c) => draft(view, part, c, settings)));
  const spaces = spacesFor(panel, kept, drafted);
  const unused = new Set(open);
  const names = new Set(kept.map((c) => c.name));
  const free = (name: string): string => {
    for (let n = 1; ; n++) {
      const tried = n === 1 ? name : `${name} ${n}`;
      if (!names.has(tried)) {
        names.add(tried);
        return tried;
      }
    }
  };
  const circuits: Circuit[] = [];
  const withoutSpace: string[] = [];
  for (const [i, d] of drafted.entries()) {
    const shared = (c: Circuit) => c.stops.filter((s) => d.boxIds.includes(s.boxId)).length;
    const heir = [...unused].sort((a, b) => shared(b) - shared(a))[0];
    const before = heir && shared(heir) > 0 ? heir : undefined;
    if (before) unused.delete(before);
    const space = spaces[i] ?? null;
    if (space === null) {
      withoutSpace.push(d.name);
      continue;
    }
    circuits.push({
      id: before?.id ?? newId('circuit'),
      panelId: panel.id,
      space,
      name: free(d.name.slice(0, 76)),
      status: 'new',
      breaker: d.breaker,
      gauge: d.gauge,
      material: 'copper',
      cable: 'NM-B',
      stops: d.stops,
    });
  }
  const gfcis = drafted.flatMap((d) =>
    d.gfciAt ? [{ ...d.gfciAt, device: { ...d.gfciAt.device, kind: 'gfci' as const } }] : [],
  );
  const commands: Command[] = [
    ...(open.length > 0
      ? [{ type: 'remove' as const, table: 'circuits' as const, ids: open.map((c) => c.id) }]
      : []),
    { type: 'put', table: 'circuits', rows: circuits },
    ...(gfcis.length > 0 ? [{ type: 'put' as const, table: 'boxes' as const, rows: gfcis }] : []),
  ];
  return {
    command: { type: 'batch', label: `Plan ${circuits.length} circuits`, commands },
    circuits,
    withoutSpace,
  };
}

export interface PlanFigures {
  circuits: number;
  /** All cable as installed, inches. */
  cable: number;
  cents: number;
  /** Worst drop under the planning load, percent. */
  drop: number;
}

/** What a set of circuits comes to, whoever drew them: cable, breakers and devices at the shop's prices. */
export function figuresOf(
  view: View,
  circuits: readonly Circuit[],
  { prices }: PlannerSettings,
): PlanFigures {
  let cable = 0;
  let cents = 0;
  let drop = 0;
  const { voltage } = view.document.job.settings;
  for (const circuit of circuits) {
    const run = buildRun(view.document, circuit);
    cable += run.installed;
    cents += prices.breaker[circuit.breaker.protection];
    for (const s of run.stops) {
      cents += ((prices.cable[s.segment.gauge] ?? 0) * s.segment.length) / 12;
      drop = Math.max(drop, (100 * s.plannedDrop) / voltage);
    }
  }
  return { circuits: circuits.length, cable, cents, drop };
}
