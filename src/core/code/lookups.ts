/** What a view keeps between questions: which rows stand where, and what was worked out from them. */
import type { Run } from '../circuits/run.ts';
import type { Change } from '../job/document.ts';
import { rows } from '../job/document.ts';
import type { Amendment, Area, Box, Circuit, Fixture, JobDocument, Opening } from '../job/schema.ts';
import type { Barriers, CordPath, Segment } from '../plan/cord.ts';
import type { Duties } from '../panel/duty.ts';
import type { JobLoad } from '../panel/jobLoad.ts';
import type { SpaceCoverage } from '../plan/wallSpaces.ts';

export interface NearWater {
  fixture: Fixture;
  path: CordPath;
}

class Groups {
  private readonly groups = new Map<string, Set<string>>();
  add(key: string, id: string) {
    const group = this.groups.get(key);
    if (group) group.add(id);
    else this.groups.set(key, new Set([id]));
  }
  remove(key: string, id: string) {
    this.groups.get(key)?.delete(id);
  }
  of(key: string): Iterable<string> {
    return this.groups.get(key) ?? [];
  }
}

/** Look-ups worked out once and dropped when what they rest on changes. */
class Memo<T> {
  private readonly known = new Map<string, T>();
  of(key: string, make: () => T): T {
    let value = this.known.get(key);
    if (value === undefined) {
      value = make();
      this.known.set(key, value);
    }
    return value;
  }
  /** What is known already; spares the hot paths a closure. */
  get(key: string): T | undefined {
    return this.known.get(key);
  }
  drop(key: string) {
    this.known.delete(key);
  }
  clear() {
    this.known.clear();
  }
}

/** Tables whose rows stand in a room, with the column that names it. */
export const IN_ROOMS = ['boxes', 'openings', 'fixtures'] as const;

export class Index {
  readonly byArea = { boxes: new Groups(), openings: new Groups(), fixtures: new Groups() };
  readonly areasByLevel = new Groups();
  readonly circuitsByPanel = new Groups();
  readonly circuitByBox = new Map<string, string>();
  /** What stands in a room, by table and room; the same list until one of them changes. */
  readonly lists = {
    boxes: new Memo<unknown[]>(),
    openings: new Memo<unknown[]>(),
    fixtures: new Memo<unknown[]>(),
  };
  readonly runs = new Memo<Run>();
  readonly duties = new Memo<Duties>();
  readonly loads = new Memo<JobLoad>();
  readonly neighbours = new Memo<Area[]>();
  readonly openings = new Memo<Opening[]>();
  readonly coverage = new Memo<SpaceCoverage[] | null>();
  readonly counters = new Memo<SpaceCoverage[] | null>();
  readonly barriers = new Memo<Barriers>();
  readonly doorways = new Memo<Segment[] | null>();
  readonly water = new Memo<NearWater[]>();
  /** Sinks, basins, tubs and showers near a room, with their rooms. */
  readonly waterBy = new Memo<Fixture[]>();
  readonly lights = new Memo<boolean>();
  /** Switches by what they control. */
  readonly switches = new Memo<Map<string, Box[]>>();
  readonly serviced = new Memo<Fixture[]>();
  readonly levels = new Memo<Area[]>();
  readonly amendments = new Memo<Amendment[]>();

  constructor(document: JobDocument) {
    for (const table of IN_ROOMS)
      for (const row of rows<Box | Opening | Fixture>(document[table]))
        this.byArea[table].add(row.areaId, row.id);
    for (const area of rows(document.areas)) this.areasByLevel.add(area.levelId, area.id);
    for (const circuit of rows(document.circuits)) this.addCircuit(circuit);
  }

  change({ table, id, before, after }: Change) {
    if (table === 'boxes' || table === 'openings' || table === 'fixtures') {
      for (const row of [before, after]) if (row) this.lists[table].drop((row as Box).areaId);
      const from = (before as Box | null)?.areaId;
      const to = (after as Box | null)?.areaId;
      // A row that stays in its room keeps its place in the order.
      if (from !== to) {
        if (from !== undefined) this.byArea[table].remove(from, id);
        if (to !== undefined) this.byArea[table].add(to, id);
      }
    } else if (table === 'areas') {
      const from = (before as Area | null)?.levelId;
      const to = (after as Area | null)?.levelId;
      if (from !== to) {
        if (from !== undefined) this.areasByLevel.remove(from, id);
        if (to !== undefined) this.areasByLevel.add(to, id);
      }
    } else if (table === 'circuits') {
      if (before) this.removeCircuit(before as Circuit);
      if (after) this.addCircuit(after as Circuit);
    }
  }

  private addCircuit(circuit: Circuit) {
    this.circuitsByPanel.add(circuit.panelId, circuit.id);
    for (const stop of circuit.stops) this.circuitByBox.set(stop.boxId, circuit.id);
  }
  private removeCircuit(circuit: Circuit) {
    this.circuitsByPanel.remove(circuit.panelId, circuit.id);
    for (const stop of circuit.stops) {
      if (this.circuitByBox.get(stop.boxId) === circuit.id) this.circuitByBox.delete(stop.boxId);
    }
  }
}
