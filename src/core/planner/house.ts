/**
 * The circuits of a house as problems to be solved: outlets sorted into the designated circuits of 210.11(C) and
 * the rest, each sort with its limits and prices.
 */
import { lengthOf, panelPlace, plannedBetween, positionOf, type Place } from '../circuits/run.ts';
import { decisionOn } from '../code/decisions.ts';
import { isArcRoom, isOutside } from '../code/tables/areas.ts';
import { ohmsPerThousandFeet } from '../code/tables/conductors.ts';
import type { Finding } from '../code/rule.ts';
import type { View } from '../code/view.ts';
import { breakerOf, rows, servedBy } from '../job/document.ts';
import type { Area, Box, Circuit, FixtureKind, Gauge, Panel } from '../job/schema.ts';
import { hasCounterRule } from '../plan/counters.ts';
import { isReceptacle, isSmallReceptacle } from '../plan/wallSpaces.ts';
import { breakerPrice, cablePrice, type PriceBook } from '../panel/prices.ts';
import {
  EITHER,
  GARAGE,
  GENERAL,
  NEEDS_AFCI,
  NEEDS_GFCI,
  Pricer,
  type CircuitOption,
  type Problem,
} from './problem.ts';

/** The designated circuits of 210.11(C), individual circuits, and everything else. */
export const SORTS = ['kitchen', 'laundry', 'bathroom', 'individual', 'general'] as const;
export type Sort = (typeof SORTS)[number];

export interface PlannerSettings {
  prices: PriceBook;
  /** The panel that circuits are planned from; null is the first one at a service. */
  panelId: string | null;
  /** Share of each circuit left for what comes later, percent. */
  spare: number;
  /** A room whose lights and receptacles all go out with one breaker costs the plan something. */
  lightsApart: boolean;
  /** GFCI for what asks for it and has none: at the breaker, or a receptacle at the first box. */
  gfciAt: 'breaker' | 'first-box';
  /** Cables that may leave a box. */
  maxOut: number;
  /** Circuits to leave as they are, beside those that exist or are on record as proved. */
  locked: readonly string[];
}

/** What a shop changes of these; the rest follows from the job. */
export const PLAIN_PLANNING: Omit<PlannerSettings, 'prices'> = {
  panelId: null,
  spare: 0,
  lightsApart: false,
  gfciAt: 'breaker',
  maxOut: 2,
  locked: [],
};

/** An outlet as a site; a switch is a site together with what it controls. */
export interface Site {
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
  /** Made when first asked for: what is shown before planning does without it. */
  readonly pricer: Pricer;
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
  'heat-pump',
  'sump-pump',
  'kiln',
  'vehicle-charger',
];

/** Load units: a receptacle outlet is two, a light or an alarm one. */
const RECEPTACLE_UNITS = 2;

function sortOf(view: View, { box, area }: Pick<Site, 'box' | 'area'>): Sort {
  const served = servedBy(view.document, box);
  if (box.device.kind === 'hard-wired' || (isReceptacle(box) && !isSmallReceptacle(box))) return 'individual';
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

/** A switch without anything to control yet counts as the light that it will have. */
const sizeOf = ({ box, hung }: Site): number =>
  Math.max(
    1,
    [box, ...hung].reduce((t, b) => t + unitsOf(b), 0),
  );

/** 210.21(B): a 20 A receptacle may not be on 15 A; 210.11(C)(4): a garage's circuit is of 20 A. */
const leastRating = ({ box, area, hung }: Site): number =>
  [box, ...hung].some((b) => isReceptacle(b) && (b.device.rating > 15 || area.kind === 'garage')) ? 20 : 15;

/** Cable and breakers that circuits of a sort may be made of. */
function optionsOf(view: View, sort: Sort, { prices, spare }: PlannerSettings): CircuitOption[] {
  const { maxReceptacles, conductorTemperature } = view.document.job.settings;
  const option = (rating: 15 | 20, gauge: Gauge): CircuitOption => ({
    rating,
    gauge,
    breaker: prices.breaker,
    perInch: cablePrice(prices, gauge, 2) / 12,
    ohmsPerInch: ohmsPerThousandFeet(gauge, 'copper', conductorTemperature)! / 12000,
    // The shop's habit is for 20 A; in proportion for 15 A.
    capacity: RECEPTACLE_UNITS * Math.max(1, Math.floor((maxReceptacles * rating * (1 - spare / 100)) / 20)),
  });
  const twenty = [option(20, '12'), option(20, '10')];
  return sort === 'general' ? [option(15, '14'), ...twenty] : twenty;
}

/** Outlets that the counters of a kitchen ask for, or all of its outlets where no counter is on record. */
function markedSites(view: View, sites: readonly Site[]): Problem['marked'] {
  const counter = sites.map(({ box, area }) => box.fixtureId !== null || view.countsAtCounter(box, area));
  const marked = counter.filter(Boolean).length >= 2 ? counter : sites.map(() => true);
  return {
    sites: Uint8Array.from(marked, (m) => (m ? 1 : 0)),
    circuits: Math.min(2, marked.filter(Boolean).length),
  };
}

/** Price of a room that goes all dark with one breaker, cents: about what a second breaker costs. */
const DARK_ROOM = 1500;

/** Rooms with lights and receptacles, which should not all be on one circuit where the shop wants it so. */
function darkRooms(sites: readonly Site[], { lightsApart }: PlannerSettings): Pick<Problem, 'room' | 'dark'> {
  const rooms = [...new Set(sites.map((s) => s.area))];
  const isLight = (s: Site) => [s.box, ...s.hung].some((b) => b.device.kind === 'light');
  const isMixed = (area: Area) => {
    const here = sites.filter((s) => s.area === area);
    return here.some(isLight) && here.some((s) => isReceptacle(s.box));
  };
  const mixed = rooms.filter((area) => lightsApart && isMixed(area));
  return { room: Int32Array.from(sites, (s) => mixed.indexOf(s.area)), dark: DARK_ROOM };
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
  const [none, afci, gfci, dual] = (['none', 'afci', 'gfci', 'dual'] as const).map((protection) =>
    breakerPrice(prices, breakerOf(20, protection)),
  ) as [number, number, number, number];
  const protection = (needs: number): number => {
    if (settings.gfciAt === 'first-box' && needs & NEEDS_GFCI)
      return prices['gfci-receptacle'] + (needs & NEEDS_AFCI ? afci - none : 0);
    return [none, afci, gfci, dual][needs]! - none;
  };
  return {
    ids: sites.map((s) => s.box.id),
    home: Float64Array.from(sites, (s) => lengthOf(plannedBetween(shop, from, s.place, true))),
    between: Float64Array.from(
      pairs((a, b) => (a === b ? 0 : lengthOf(plannedBetween(shop, a.place, b.place, false)))),
    ),
    change: Float64Array.from(pairs((a, b) => (a.area === b.area ? 0 : prices['room-change']))),
    size: Int32Array.from(sites, sizeOf),
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
    options: optionsOf(view, sort, settings),
    maxOut: Uint8Array.from(sites, (s) => Math.max(1, settings.maxOut - (s.hung.length > 0 ? 1 : 0))),
    company: Uint8Array.from(sites, (s) => {
      if (!isSmallReceptacle(s.box)) return GENERAL;
      return s.area.kind === 'garage' ? GARAGE : isOutside(s.area) ? EITHER : GENERAL;
    }),
    maxDrop: (shop.dropLimitPercent / 100) * shop.voltage,
    ...darkRooms(sites, settings),
    marked:
      sort === 'kitchen' ? markedSites(view, sites) : { sites: new Uint8Array(sites.length), circuits: 0 },
  };
}

/**
 * Open circuits that may stay as they are when only what changed is planned anew: nothing on them is violated, and no
 * outlet without a circuit stands in a room that they serve.
 */
export function soundCircuits(view: View, house: HouseProblem, findings: readonly Finding[]): Circuit[] {
  const violated = new Set(findings.filter((f) => f.level === 'violation').map((f) => f.about.id));
  const loose = new Set(
    house.parts.flatMap((p) => p.sites.filter((s) => !view.circuitOf(s.box.id)).map((s) => s.area.id)),
  );
  return house.open.filter(
    (c) =>
      c.stops.length > 0 &&
      !violated.has(c.id) &&
      view.run(c).stops.every((s) => !violated.has(s.box.id) && !loose.has(s.area.id)),
  );
}

/** Sites of each kitchen, which has circuits of its own, 210.52(B)(3); dining rooms and pantries go with the nearest. */
function byKitchen(sites: Site[]): Site[][] {
  const kitchens = sites.filter((s) => s.area.kind === 'kitchen');
  const areas = [...new Set(kitchens.map((s) => s.area))];
  if (areas.length <= 1) return [sites];
  const far = (a: Place, b: Place) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y) + Math.abs(a.z - b.z);
  const homeOf = (site: Site): Area =>
    site.area.kind === 'kitchen'
      ? site.area
      : kitchens.reduce((near, k) => (far(k.place, site.place) < far(near.place, site.place) ? k : near))
          .area;
  return areas.map((area) => sites.filter((s) => homeOf(s) === area));
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
export function houseProblem(view: View, settings: PlannerSettings): HouseProblem | null {
  const { document } = view;
  const panels = rows(document.panels);
  const panel =
    (settings.panelId !== null && document.panels[settings.panelId]) ||
    (panels.find((p) => p.feeder === null) ?? panels[0]);
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
    const groups =
      sort === 'individual' ? mine.map((s) => [s]) : sort === 'kitchen' ? byKitchen(mine) : [mine];
    return groups.map((group) => {
      let pricer: Pricer | null = null;
      return {
        sort,
        sites: group,
        present: presentGroups(view, group),
        get pricer() {
          return (pricer ??= new Pricer(problemOf(view, panel, sort, group, settings)));
        },
      };
    });
  });
  return { panel, parts, kept, open, leftOut };
}
