/**
 * The circuits of a house as problems to be solved: outlets sorted into the designated circuits of 210.11(C) and
 * the rest, each sort with its limits and prices.
 */
import { FIXTURES } from '#core/tables/fixtures.ts';
import { countsAtCounter } from '#core/plan/coverage.ts';
import { lengthOf, panelPlace, plannedBetween, positionOf, type Place, runOf } from '#core/circuits/run.ts';
import { decisionOn } from '#core/code/decisions.ts';
import { isArcRoom, isOutside } from '#core/tables/areas.ts';
import type { Finding } from '#core/code/rule.ts';
import type { View } from '#core/view/view.ts';
import { breakerOf, rows, servedBy } from '#core/job/document.ts';
import type { Area, Box, Circuit, Gauge, Panel } from '#core/job/schema.ts';
import { hasCounterRule } from '#core/plan/counters.ts';
import { isReceptacle, isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import { breakerPrice, cablePrice } from '#core/panel/prices.ts';
import {
  EITHER,
  GARAGE,
  GENERAL,
  NEEDS_AFCI,
  NEEDS_GFCI,
  Pricer,
  type CircuitOption,
  type Problem,
} from './search/problem.ts';
import { SORTS, unitsOf, unitsOn, type PlannerSettings, type Sort } from './settings.ts';
import { isOnRecord, ohmsPerInch, trunkOf, trunkOption, upstreamOf, wayFrom, type Trunk } from './trunks.ts';

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
  /** Existing circuits that its outlets may join: sites too, after the outlets. */
  trunks: Trunk[];
  /** How the sites are grouped in the job as it stands; those on no circuit each by itself. */
  present: number[][];
}

export interface HouseProblem {
  panel: Panel;
  parts: Part[];
  /** Circuits that stay as they are. */
  kept: Circuit[];
  /** Existing circuits that may be extended. */
  trunks: Trunk[];
  /** Existing circuits that may not, with the reason. */
  notExtended: { circuit: Circuit; why: string }[];
  /** Circuits that are planned anew. */
  open: Circuit[];
  /** Outlets left out, with the reason. */
  leftOut: { box: Box; why: string }[];
}

function sortOf(view: View, { box, area }: Pick<Site, 'box' | 'area'>): Sort {
  const served = servedBy(view.document, box);
  if (box.device.kind === 'hardwired' || (isReceptacle(box) && !isSmallReceptacle(box))) return 'individual';
  if (box.purpose === 'vehicle' || (served && FIXTURES[served.kind].ownCircuit)) return 'individual';
  if (!isReceptacle(box)) return 'general';
  if (hasCounterRule(area)) return 'kitchen';
  if (area.kind === 'laundry') return 'laundry';
  return area.kind === 'bathroom' ? 'bathroom' : 'general';
}

const isKept = ({ document }: View, circuit: Circuit, locked: readonly string[]): boolean =>
  circuit.status === 'existing' ||
  locked.includes(circuit.id) ||
  isOnRecord(document, circuit) ||
  // A thermostat of two poles stands ahead of its heater: such a circuit is as good as it gets.
  circuit.stops.some(({ boxId }) => isTwoPoleSwitch(document.boxes[boxId]));
const isTwoPoleSwitch = (box: Box | undefined): boolean =>
  box?.device.kind === 'switch' && box.device.volts === '250';

function needsOf(view: View, { box, area, hung }: Site): number {
  let needs = 0;
  for (const b of [box, ...hung]) {
    const room = view.document.areas[b.areaId] ?? area;
    if (isArcRoom(room) && b.device.volts === '125') needs |= NEEDS_AFCI;
    if (b.device.kind !== 'gfci' && decisionOn('gfci', view, b)?.asked === 'required') needs |= NEEDS_GFCI;
  }
  return needs;
}

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
function optionsOf({ document }: View, sort: Sort, settings: PlannerSettings): CircuitOption[] {
  const { prices } = settings;
  const option = (rating: 15 | 20, gauge: Gauge): CircuitOption => ({
    rating,
    gauge,
    breaker: prices.breaker,
    perInch: cablePrice(prices, gauge, 2) / 12,
    ohmsPerInch: ohmsPerInch(document, gauge),
    capacity: unitsOn(rating, document, settings),
  });
  const twenty = [option(20, '12'), option(20, '10')];
  return sort === 'general' ? [option(15, '14'), ...twenty] : twenty;
}

/** Outlets that the counters of a kitchen ask for, or all of its outlets where no counter is on record. */
function markedSites(view: View, sites: readonly Site[], trunks: readonly Trunk[]): Problem['marked'] {
  const atCounter = ({ box, area }: Pick<Site, 'box' | 'area'>) =>
    box.fixtureId !== null || countsAtCounter(view, box, area);
  const counter = [...sites.map(atCounter), ...trunks.map(({ run }) => run.stops.some(atCounter))];
  const marked = counter.filter(Boolean).length >= 2 ? counter : counter.map(() => true);
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

/** Between two trunks, which are never joined, inches. */
const FAR = 1e7;

function problemOf(
  view: View,
  panel: Panel,
  { sort, sites, trunks }: Omit<Part, 'pricer' | 'present'>,
  settings: PlannerSettings,
): Problem {
  const { document } = view;
  const { settings: shop } = document.job;
  const { prices } = settings;
  const from = panelPlace(document, panel);
  const [none, afci, gfci, dual] = (['none', 'afci', 'gfci', 'dual'] as const).map((protection) =>
    breakerPrice(prices, breakerOf(20, protection)),
  ) as [number, number, number, number];
  const protection = (needs: number): number => {
    if (settings.gfciAt === 'first-box' && needs & NEEDS_GFCI)
      return prices['gfci-receptacle'] + (needs & NEEDS_AFCI ? afci - none : 0);
    return [none, afci, gfci, dual][needs]! - none;
  };
  // Outlets first, then trunks.
  const n = sites.length;
  const all = [...sites, ...trunks];
  const each = (ofOutlet: (s: Site) => number, ofTrunk: (t: Trunk) => number): number[] =>
    all.map((_, i) => (i < n ? ofOutlet(sites[i]!) : ofTrunk(trunks[i - n]!)));
  const pairs = (
    between: (a: Site, b: Site) => number,
    onward: (way: ReturnType<typeof wayFrom>) => number,
  ) =>
    all.flatMap((_, i) =>
      all.map((_, j) => {
        if (i === j) return 0;
        if (i < n && j < n) return between(sites[i]!, sites[j]!);
        return i >= n && j >= n
          ? FAR
          : onward(wayFrom(trunks[Math.max(i, j) - n]!, document, settings, sites[Math.min(i, j)]!));
      }),
    );
  const { room, dark } = darkRooms(sites, settings);
  const marked = sort === 'kitchen' ? markedSites(view, sites, trunks) : null;
  const upstream = new Map(trunks.map((t) => [t, upstreamOf(t, document)]));
  return {
    ids: [...sites.map((s) => s.box.id), ...trunks.map((t) => t.circuit.id)],
    home: Float64Array.from(
      each(
        (s) => lengthOf(plannedBetween(shop, from, s.place, true)),
        (t) => upstream.get(t)!.inches,
      ),
    ),
    between: Float64Array.from(
      pairs(
        (a, b) => lengthOf(plannedBetween(shop, a.place, b.place, false)),
        (way) => way.inches,
      ),
    ),
    change: Float64Array.from(
      pairs(
        (a, b) => (a.area === b.area ? 0 : prices['room-change']),
        (way) => way.change,
      ),
    ),
    size: Int32Array.from(each(sizeOf, (t) => Math.max(1, t.units))),
    least: Uint8Array.from(each(leastRating, () => 0)),
    amps: Float64Array.from(
      each(
        (s) => [s.box, ...s.hung].filter(isReceptacle).length * (shop.vaPerReceptacle / shop.voltage),
        (t) => upstream.get(t)!.amps,
      ),
    ),
    needs: Uint8Array.from(
      each(
        (s) => needsOf(view, s),
        () => 0,
      ),
    ),
    guards: Uint8Array.from(
      each(
        (s) => (s.box.device.kind === 'gfci' && s.box.status !== 'existing' ? 1 : 0),
        () => 0,
      ),
    ),
    protection: [0, protection(1), protection(2), protection(3)],
    options: [
      ...optionsOf(view, sort, settings),
      ...trunks.map((t, k) => trunkOption(view, t, n + k, settings)),
    ],
    maxOut: Uint8Array.from(
      each(
        (s) => Math.max(1, settings.maxOut - (s.hung.length > 0 ? 1 : 0)),
        (t) =>
          Math.min(
            255,
            t.starts.reduce((sum, { spare }) => sum + spare, 0),
          ),
      ),
    ),
    company: Uint8Array.from(
      each(
        (s) => {
          if (!isSmallReceptacle(s.box)) return GENERAL;
          return s.area.kind === 'garage' ? GARAGE : isOutside(s.area) ? EITHER : GENERAL;
        },
        (t) => t.company,
      ),
    ),
    maxDrop: (shop.dropLimitPercent / 100) * shop.voltage,
    room: Int32Array.from([...room, ...trunks.map(() => -1)]),
    dark,
    marked: marked ?? { sites: new Uint8Array(all.length), circuits: 0 },
  };
}

/**
 * Open and extended circuits that may stay as they are when only what changed is planned anew: nothing on them is violated, and no
 * outlet without a circuit stands in a room that they serve.
 */
export function soundCircuits(view: View, house: HouseProblem, findings: readonly Finding[]): Circuit[] {
  const violated = new Set(findings.filter((f) => f.level === 'violation').map((f) => f.about.id));
  const loose = new Set(
    house.parts.flatMap((p) => p.sites.filter((s) => !view.circuitOf(s.box.id)).map((s) => s.area.id)),
  );
  const extended = house.trunks.filter((t) => t.run.circuit.stops.length < t.circuit.stops.length);
  return [...house.open, ...extended.map((t) => t.circuit)].filter(
    (c) =>
      c.stops.length > 0 &&
      !violated.has(c.id) &&
      runOf(view, c).stops.every((s) => !violated.has(s.box.id) && !loose.has(s.area.id)),
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

/** Sites that stand on one circuit, each trunk with what has joined it. */
function presentGroups(view: View, sites: readonly Site[], trunks: readonly Trunk[]): number[][] {
  const groups = new Map(trunks.map(({ circuit }, k) => [circuit.id, [sites.length + k]]));
  for (const [i, { box }] of sites.entries()) {
    const key = view.circuitOf(box.id)?.id ?? box.id;
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()];
}

/** Whether a trunk may take any of these outlets: a kitchen's own serve no other, 210.52(B)(3). */
function isFor(trunk: Trunk, sort: Sort, sites: readonly Site[]): boolean {
  if (trunk.sort !== sort) return false;
  const kitchens = sites.filter((s) => s.area.kind === 'kitchen');
  const own = trunk.run.stops.filter((s) => s.area.kind === 'kitchen');
  return (
    sort !== 'kitchen' ||
    kitchens.length === 0 ||
    own.length === 0 ||
    kitchens.some((s) => own.some((o) => o.area === s.area))
  );
}

/** What circuits a plan leaves, opens and may extend. */
function sortCircuits(
  view: View,
  panel: Panel,
  settings: PlannerSettings,
): Pick<HouseProblem, 'kept' | 'open' | 'trunks' | 'notExtended'> {
  const sorted: ReturnType<typeof sortCircuits> = { kept: [], open: [], trunks: [], notExtended: [] };
  for (const circuit of rows(view.document.circuits)) {
    const here = circuit.panelId === panel.id;
    const locked = settings.locked.includes(circuit.id);
    if (here && !locked && settings.extend && circuit.status === 'existing') {
      const trunk = trunkOf(view, circuit, settings);
      if ('circuit' in trunk) {
        sorted.trunks.push(trunk);
        continue;
      }
      sorted.notExtended.push({ circuit, why: trunk.why });
    }
    (here && !isKept(view, circuit, settings.locked) ? sorted.open : sorted.kept).push(circuit);
  }
  return sorted;
}

/** Sorts a house's outlets into problems; null without a panel. */
export function houseProblem(view: View, settings: PlannerSettings): HouseProblem | null {
  const { document } = view;
  const panels = rows(document.panels);
  const panel =
    (settings.panelId !== null && document.panels[settings.panelId]) ||
    (panels.find((p) => p.feeder === null) ?? panels[0]);
  if (!panel) return null;
  const circuits = sortCircuits(view, panel, settings);
  const { trunks } = circuits;
  const staying = new Set(
    [...circuits.kept, ...trunks.map((t) => t.run.circuit)].flatMap((c) => c.stops.map((s) => s.boxId)),
  );
  const leftOut: HouseProblem['leftOut'] = [];
  const free: Site[] = [];
  for (const box of rows(document.boxes)) {
    const area = document.areas[box.areaId];
    if (!area || box.status === 'remove' || staying.has(box.id)) continue;
    const place = positionOf(document, box);
    if (!place) leftOut.push({ box, why: 'it has no place on the plan' });
    else if (!view.circuitOf(box.id) && box.status === 'existing')
      leftOut.push({ box, why: 'it exists, and on which circuit is not on record' });
    else if (isTwoPoleSwitch(box))
      leftOut.push({ box, why: 'a thermostat of two poles goes ahead of its heater, on that circuit' });
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
  const unassigned = new Set(trunks);
  const parts = SORTS.flatMap((sort): Part[] => {
    const mine = sites.filter((s) => sortOf(view, s) === sort);
    if (mine.length === 0) return [];
    const groups =
      sort === 'individual' ? mine.map((s) => [s]) : sort === 'kitchen' ? byKitchen(mine) : [mine];
    return groups.map((group) => {
      let pricer: Pricer | null = null;
      const part = { sort, sites: group, trunks: [...unassigned].filter((t) => isFor(t, sort, group)) };
      for (const t of part.trunks) unassigned.delete(t);
      return {
        ...part,
        present: presentGroups(view, group, part.trunks),
        get pricer() {
          return (pricer ??= new Pricer(problemOf(view, panel, part, settings)));
        },
      };
    });
  });
  return { panel, parts, ...circuits, leftOut };
}
