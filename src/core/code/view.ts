/** The document with the look-ups rules need, kept up to date change by change. */
import type { Change } from '../job/document.ts';
import { changesBetween, rows } from '../job/document.ts';
import type {
  Amendment,
  Area,
  Box,
  Circuit,
  DeviceKind,
  Edition,
  Fixture,
  JobDocument,
  Opening,
  Panel,
  TableName,
} from '../job/schema.ts';
import { buildRun, type Run, type RunStop } from '../circuits/run.ts';
import { Index, IN_ROOMS, type NearWater } from './lookups.ts';
import { isOutside, isServiced } from './tables/areas.ts';
import { outlineOf, pointOnWall, type Point } from '../job/outline.ts';
import {
  Barriers,
  barriersOf,
  cordStart,
  isPassage,
  isWater,
  shortestCord,
  type CordPath,
  type FurnishedRoom,
  type Segment,
} from '../plan/cord.ts';
import type { Duties } from '../panel/duty.ts';
import { dutiesOn, jobLoad, type JobLoad } from '../panel/jobLoad.ts';
import { COUNTER_REACH, counterBreaks, counterCoverage } from '../plan/counters.ts';
import { boundsOf, distance, footprint, isNearFixture, nearestOnSegment, within } from '../plan/footprint.ts';
import { goesThrough, joinedOpenings, THICKEST_WALL } from '../plan/joined.ts';
import { coverageOf, REACH, type SpaceCoverage } from '../plan/wallSpaces.ts';

/** What a rule looks at. */
export type Scope = 'house' | 'area' | 'fixture' | 'box' | 'circuit' | 'panel';
export type Stale = Record<Scope, Set<string>>;

/** The distance within which a sink, tub or shower brings GFCI, inches. */
export const NEAR_WATER = 72;

const NO_BOXES: readonly Box[] = [];
const present = <T>(value: T | undefined): value is T => value !== undefined;

export class View {
  document: JobDocument;
  private readonly index: Index;

  constructor(document: JobDocument, index = new Index(document)) {
    this.document = document;
    this.index = index;
  }

  /** A view of a later document. It takes over this view's look-ups, so this one is not to be used any more. */
  follow(document: JobDocument): View {
    const next = new View(this.document, this.index);
    next.apply(document, changesBetween(this.document, document));
    return next;
  }

  get edition(): Edition {
    return this.document.job.edition;
  }
  private in<T extends (typeof IN_ROOMS)[number]>(table: T, areaId: string): JobDocument[T][string][] {
    const known = this.index.lists[table].get(areaId);
    if (known) return known as JobDocument[T][string][];
    const rowsById = this.document[table] as Readonly<Record<string, JobDocument[T][string]>>;
    return this.index.lists[table].of(areaId, () =>
      [...this.index.byArea[table].of(areaId)].map((id) => rowsById[id]).filter(present),
    ) as JobDocument[T][string][];
  }
  boxesIn(area: Area): Box[] {
    return this.in('boxes', area.id);
  }
  fixturesIn(area: Area): Fixture[] {
    return this.in('fixtures', area.id);
  }
  /** Doors, glass and built-ins on record in this room. */
  ownOpeningsIn(area: Area): Opening[] {
    return this.in('openings', area.id);
  }
  /** The room's own openings and its side of those on record in its neighbours. */
  openingsIn(area: Area): Opening[] {
    return this.index.openings.of(area.id, () => [
      ...this.ownOpeningsIn(area),
      ...joinedOpenings(
        area,
        this.neighboursOf(area).map((n) => ({ area: n, openings: this.ownOpeningsIn(n) })),
      ),
    ]);
  }
  areasOn(levelId: string): Area[] {
    const known = this.index.levels.get(levelId);
    if (known) return known;
    return this.index.levels.of(levelId, () =>
      [...this.index.areasByLevel.of(levelId)].map((id) => this.document.areas[id]).filter(present),
    );
  }
  /** Rooms of the same level that a wall may be shared with. */
  neighboursOf(area: Area): Area[] {
    return this.index.neighbours.of(area.id, () =>
      this.areasOn(area.levelId).filter(
        (a) => a.id !== area.id && within(boundsOf(a), boundsOf(area), THICKEST_WALL),
      ),
    );
  }
  /** Rooms that a door on record in this one leads to. */
  roomsBeyond(area: Area, opening: Opening): Area[] {
    return this.neighboursOf(area).filter(
      (n) => joinedOpenings(n, [{ area, openings: [opening] }]).length > 0,
    );
  }
  circuitOf(boxId: string): Circuit | null {
    const id = this.index.circuitByBox.get(boxId);
    return (id !== undefined && this.document.circuits[id]) || null;
  }
  run(circuit: Circuit): Run {
    return (
      this.index.runs.get(circuit.id) ??
      this.index.runs.of(circuit.id, () => buildRun(this.document, circuit))
    );
  }
  /** What a circuit is by what it feeds, and what on it does not belong there. */
  duties(circuit: Circuit): Duties {
    return (
      this.index.duties.get(circuit.id) ?? this.index.duties.of(circuit.id, () => dutiesOn(this, circuit))
    );
  }
  /** Circuits of a panel by their spaces. */
  circuitsIn(panel: Panel): Circuit[] {
    return [...this.index.circuitsByPanel.of(panel.id)]
      .map((id) => this.document.circuits[id])
      .filter(present)
      .sort((a, b) => a.space - b.space || a.id.localeCompare(b.id));
  }
  /** The load of the dwelling, or of what a panel feeds. */
  load(panel: Panel): JobLoad {
    return this.index.loads.of(panel.id, () => jobLoad(this, panel));
  }
  /** The panels from one up to the service, itself first. */
  private upFrom(panelId: string): string[] {
    const chain: string[] = [];
    let at: string | undefined = panelId;
    while (at !== undefined && !chain.includes(at)) {
      chain.push(at);
      at = this.document.panels[at]?.feeder?.panelId;
    }
    return chain;
  }
  stopOf(box: Box): { circuit: Circuit; stop: RunStop } | null {
    const circuit = this.circuitOf(box.id);
    const stop = circuit && this.run(circuit).stops.find((s) => s.box.id === box.id);
    return circuit && stop ? { circuit, stop } : null;
  }
  /** Wall spaces of 210.52(A) with what covers them; null when the outline does not close. */
  coverage(area: Area): SpaceCoverage[] | null {
    return this.index.coverage.of(area.id, () =>
      coverageOf(
        area,
        this.openingsIn(area),
        this.boxesIn(area),
        counterBreaks(area, outlineOf(area), this.fixturesIn(area), this.edition),
        this.limit('wall-spacing', REACH),
      ),
    );
  }
  /** Counter spaces of 210.52(C) with what covers them; null where that does not apply. */
  counterCoverage(area: Area): SpaceCoverage[] | null {
    return this.index.counters.of(area.id, () =>
      counterCoverage(
        area,
        this.fixturesIn(area),
        this.boxesIn(area),
        this.limit('counter-spacing', COUNTER_REACH),
      ),
    );
  }

  /** Whether an outlet serves a wall counter space of its room. */
  countsAtCounter(box: Box, area: Area): boolean {
    return (this.counterCoverage(area) ?? []).some((s) => s.counted.some((c) => c.box.id === box.id));
  }

  /** The rooms of a level with all that stands in them. */
  furnished(levelId: string): FurnishedRoom[] {
    return this.areasOn(levelId).map((area) => ({
      area,
      openings: this.openingsIn(area),
      fixtures: this.fixturesIn(area),
    }));
  }
  /** What stops a cord on a level. In 2017 a door or doorway ends its path. */
  barriers(levelId: string): Barriers {
    return this.index.barriers.of(
      levelId,
      () => new Barriers(barriersOf(this.furnished(levelId), this.edition !== '2017')),
    );
  }
  /** The shortest way of a cord from an outlet to a fixture on its level, or null when none is that short. */
  cord(box: Box, fixture: Fixture, limit: number): CordPath | null {
    const from = this.document.areas[box.areaId];
    const to = this.document.areas[fixture.areaId];
    if (!from || !to || from.levelId !== to.levelId) return null;
    const start = cordStart(from, box);
    const target = footprint(to, fixture);
    if (!start || !isNearFixture(start, to, fixture, limit + 1)) return null;
    if (from !== to && !this.connected(start, from, to, fixture, limit)) return null;
    return target ? shortestCord(start, target, this.barriers(from.levelId), limit) : null;
  }
  /** Doorways a cord may use to leave a room, as lines; null where nothing holds it in. */
  private doorways(area: Area): Segment[] | null {
    return this.index.doorways.of(area.id, () => {
      if (isOutside(area)) return null;
      if (this.edition === '2017') return [];
      const outline = outlineOf(area);
      return this.openingsIn(area).flatMap((o) => {
        const wall = isPassage(o) ? outline.walls.find((w) => w.id === o.wallId) : undefined;
        if (!wall) return [];
        const a = pointOnWall(outline, wall, o.offset);
        return [{ a, b: pointOnWall(outline, wall, o.offset + o.width) }];
      });
    });
  }
  /** Whether a cord can run from a place in one room to a fixture in another at all. */
  private connected(start: Point, from: Area, to: Area, fixture: Fixture, limit: number): boolean {
    const out = this.doorways(from);
    if (out?.every(({ a, b }) => distance(start, nearestOnSegment(start, a, b)) > limit)) return false;
    const into = this.doorways(to);
    return !into?.every(
      ({ a, b }) => !isNearFixture(a, to, fixture, limit) && !isNearFixture(b, to, fixture, limit),
    );
  }
  /** Sinks, basins, tubs and showers that a cord of 6 ft reaches from an outlet, nearest first. */
  waterNear(box: Box): NearWater[] {
    const reach = this.limit('gfci', NEAR_WATER, 'more');
    return this.index.water.of(box.id, () => {
      const area = this.document.areas[box.areaId];
      if (!area) return [];
      const found: NearWater[] = [];
      for (const fixture of this.waterBy(area, reach)) {
        const path = this.cord(box, fixture, reach);
        if (path) found.push({ fixture, path });
      }
      return found.sort((a, b) => a.path.distance - b.path.distance);
    });
  }
  private waterBy(area: Area, reach: number): Fixture[] {
    return this.index.waterBy.of(area.id, () =>
      this.areasOn(area.levelId)
        .filter((room) => within(boundsOf(room), boundsOf(area), reach))
        .flatMap((room) => this.fixturesIn(room).filter((f) => isWater(f) && f.status !== 'remove')),
    );
  }
  private serviced(): Fixture[] {
    return this.index.serviced.of('all', () => rows(this.document.fixtures).filter(isServiced));
  }
  boxesServing(fixtureId: string): Box[] {
    return rows(this.document.boxes).filter((b) => b.serves === fixtureId && b.status !== 'remove');
  }
  /** Whether any light is on record: without one nothing is said of lighting. */
  get hasLights(): boolean {
    return this.index.lights.of('all', () =>
      rows(this.document.boxes).some((b) => b.device.kind === 'light'),
    );
  }
  /** Wall switches that control an outlet. */
  switchesOf(box: Box): readonly Box[] {
    const by = this.index.switches.of('all', () => {
      const found = new Map<string, Box[]>();
      for (const s of rows(this.document.boxes)) {
        if (s.device.kind !== 'switch' || s.status === 'remove') continue;
        for (const id of s.controls) found.set(id, [...(found.get(id) ?? []), s]);
      }
      return found;
    });
    return by.get(box.id) ?? NO_BOXES;
  }
  amendmentsOf(rule: string): Amendment[] {
    const known = this.index.amendments.get(rule);
    if (known) return known;
    return this.index.amendments.of(rule, () =>
      rows(this.document.amendments).filter((a) => a.rule === rule),
    );
  }
  /** A rule's limit as a local amendment tightens it. */
  limit(rule: string, limit: number, tighter: 'less' | 'more' = 'less'): number {
    const amendments = this.amendmentsOf(rule);
    if (amendments.length === 0) return limit;
    return amendments
      .flatMap((a) => (a.action === 'tighten' && a.limit !== null ? [a.limit] : []))
      .reduce((l, a) => (tighter === 'less' ? Math.min(l, a) : Math.max(l, a)), limit);
  }

  /** Makes the changes and returns what must be looked at again; `all` after a change to the job itself. */
  apply(document: JobDocument, changes: readonly Change[]): 'all' | Stale {
    const { index } = this;
    const stale: Stale = {
      house: new Set(),
      area: new Set(),
      fixture: new Set(),
      box: new Set(),
      circuit: new Set(),
      panel: new Set(),
    };
    // Before and after: what a room leaves behind is looked at again, as is what it comes to.
    const rooms = new Set<string>();
    const lit = this.hasLights;
    for (const change of changes) this.touchedRooms(change, rooms);
    this.document = document;
    for (const change of changes) index.change(change);
    if (changes.some((c) => c.table === 'areas')) {
      index.neighbours.clear();
      index.levels.clear();
    }
    for (const change of changes) this.touchedRooms(change, rooms);
    let all = false;
    for (const change of changes) {
      if (change.table === 'job' || change.table === 'amendments') all = true;
      else this.collect(change, stale);
    }
    for (const id of rooms) {
      stale.area.add(id);
      index.openings.drop(id);
      index.waterBy.drop(id);
      index.doorways.drop(id);
      for (const box of index.byArea.boxes.of(id)) {
        stale.box.add(box);
        index.water.drop(box);
        const circuit = index.circuitByBox.get(box);
        if (circuit !== undefined) stale.circuit.add(circuit);
      }
      for (const fixture of index.byArea.fixtures.of(id)) stale.fixture.add(fixture);
    }
    if (changes.some((c) => isBoxOf(c, 'switch'))) index.switches.clear();
    if (changes.some((c) => c.table === 'fixtures')) index.serviced.clear();
    if (changes.some((c) => isBoxOf(c, 'light'))) {
      index.lights.clear();
      // The first light, or the last one gone, opens or closes the question in every room.
      if (lit !== this.hasLights) for (const id in document.areas) stale.area.add(id);
    }
    if (rooms.size > 0) index.barriers.clear();
    for (const id of stale.area) {
      index.coverage.drop(id);
      index.counters.drop(id);
    }
    // Protection and drop of every stop of a circuit hang together.
    for (const id of stale.circuit) {
      index.runs.drop(id);
      index.duties.drop(id);
      for (const stop of document.circuits[id]?.stops ?? []) stale.box.add(stop.boxId);
    }
    for (const id of [...stale.panel]) for (const up of this.upFrom(id)) stale.panel.add(up);
    for (const id of stale.panel) index.loads.drop(id);
    if (all) {
      const { runs, duties, loads, coverage, counters, barriers, doorways, water, waterBy, amendments } =
        index;
      const memos = [runs, duties, loads, coverage, counters, barriers, doorways, water, waterBy, amendments];
      for (const memo of memos) memo.clear();
    }
    if (changes.some((c) => HOUSE_TABLES.includes(c.table))) stale.house.add(document.job.id);
    return all ? 'all' : stale;
  }

  /** Rooms whose walls, doors or ways for a cord a change may alter. */
  private touchedRooms({ table, id, before, after }: Change, rooms: Set<string>) {
    const reach = (areaId: string, far: number) => {
      const area = this.document.areas[areaId];
      if (!area) return;
      rooms.add(areaId);
      for (const other of this.areasOn(area.levelId))
        if (within(boundsOf(other), boundsOf(area), far)) rooms.add(other.id);
    };
    if (table === 'areas') reach(id, NEAR_WATER);
    else if (table === 'openings' || table === 'fixtures') {
      for (const row of [before, after]) {
        if (!row) continue;
        const { areaId } = row as Opening | Fixture;
        // Seen from here a thing inside the room matters to the neighbours only where a cord comes through.
        const far = table === 'fixtures' || goesThrough(row as Opening) ? NEAR_WATER : 0;
        reach(areaId, far);
      }
    } else if (table === 'levels') {
      for (const area of this.areasOn(id)) rooms.add(area.id);
    }
  }

  private collect({ table, id, before, after }: Change, stale: Stale) {
    const circuitOfBox = (boxId: string) => {
      const circuit = this.index.circuitByBox.get(boxId);
      if (circuit !== undefined) stale.circuit.add(circuit);
    };
    const panelOfBox = (boxId: string) => {
      const circuit = this.circuitOf(boxId);
      if (circuit) stale.panel.add(circuit.panelId);
    };
    const services = () => {
      for (const panel of rows(this.document.panels)) if (panel.feeder === null) stale.panel.add(panel.id);
    };
    if (table === 'boxes') {
      const old = before as Box | null;
      const now = after as Box | null;
      stale.box.add(id);
      this.index.water.drop(id);
      circuitOfBox(id);
      // Sliding along its wall changes nothing at the panel.
      if (!old || !now || PANEL_FIELDS.some((field) => old[field] !== now[field])) panelOfBox(id);
      for (const row of [old, now]) {
        if (!row) continue;
        stale.area.add(row.areaId);
        for (const fixture of this.index.byArea.fixtures.of(row.areaId)) stale.fixture.add(fixture);
        // A light may be switched from another room, an appliance served from there.
        for (const other of row.controls) {
          const lit = this.document.boxes[other];
          if (lit) stale.area.add(lit.areaId);
        }
        if (row.serves !== null) stale.fixture.add(row.serves);
      }
      for (const fixture of this.serviced()) stale.fixture.add(fixture.id);
    } else if (table === 'fixtures') {
      stale.fixture.add(id);
      services();
      for (const box of this.boxesServing(id)) {
        stale.box.add(box.id);
        circuitOfBox(box.id);
        panelOfBox(box.id);
      }
    } else if (table === 'areas') {
      services();
      for (const box of this.index.byArea.boxes.of(id)) panelOfBox(box);
    } else if (table === 'circuits') {
      stale.circuit.add(id);
      for (const row of [before, after] as (Circuit | null)[]) {
        if (row) stale.panel.add(row.panelId);
        for (const stop of row?.stops ?? []) stale.box.add(stop.boxId);
      }
    } else if (table === 'panels') {
      // Feeders hang together, and there are few.
      for (const panel in this.document.panels) stale.panel.add(panel);
      stale.panel.add(id);
      for (const circuit of this.index.circuitsByPanel.of(id)) stale.circuit.add(circuit);
    } else if (table === 'levels') {
      for (const panel of rows(this.document.panels)) {
        if (panel.levelId === id)
          for (const c of this.index.circuitsByPanel.of(panel.id)) stale.circuit.add(c);
      }
    }
  }
}

/** Fields of an outlet that its panel depends on. */
const PANEL_FIELDS = ['serves', 'status', 'areaId', 'device'] as const satisfies readonly (keyof Box)[];

/** Whether a change is of an outlet that was or becomes of a kind. */
const isBoxOf = ({ table, before, after }: Change, kind: DeviceKind): boolean =>
  table === 'boxes' && [before, after].some((row) => (row as Box | null)?.device.kind === kind);

/** Tables the rules about the whole house look at. */
const HOUSE_TABLES: readonly (TableName | 'job')[] = [
  'job',
  'areas',
  'boxes',
  'fixtures',
  'levels',
  'circuits',
];
