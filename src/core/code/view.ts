/** The document with the look-ups rules need, kept up to date change by change. */
import type { Change } from '../job/document.ts';
import { rows } from '../job/document.ts';
import type { Area, Box, Circuit, Edition, JobDocument, Opening } from '../job/schema.ts';
import { buildRun, type Run, type RunStop } from '../circuits/run.ts';
import { coverageOf, type SpaceCoverage } from '../plan/wallSpaces.ts';

/** What a rule looks at. */
export type Scope = 'area' | 'box' | 'circuit';

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

const present = <T>(value: T | undefined): value is T => value !== undefined;

export class View {
  document: JobDocument;
  private readonly boxesByArea = new Groups();
  private readonly openingsByArea = new Groups();
  private readonly areasByLevel = new Groups();
  private readonly circuitsByPanel = new Groups();
  private readonly circuitByBox = new Map<string, string>();
  private readonly runs = new Map<string, Run>();

  constructor(document: JobDocument) {
    this.document = document;
    for (const box of rows(document.boxes)) this.boxesByArea.add(box.areaId, box.id);
    for (const opening of rows(document.openings)) this.openingsByArea.add(opening.areaId, opening.id);
    for (const area of rows(document.areas)) this.areasByLevel.add(area.levelId, area.id);
    for (const circuit of rows(document.circuits)) this.indexCircuit(circuit);
  }

  get edition(): Edition {
    return this.document.job.edition;
  }
  boxesIn(area: Area): Box[] {
    return [...this.boxesByArea.of(area.id)].map((id) => this.document.boxes[id]).filter(present);
  }
  openingsIn(area: Area): Opening[] {
    return [...this.openingsByArea.of(area.id)].map((id) => this.document.openings[id]).filter(present);
  }
  circuitOf(boxId: string): Circuit | null {
    const id = this.circuitByBox.get(boxId);
    return (id !== undefined && this.document.circuits[id]) || null;
  }
  run(circuit: Circuit): Run {
    let run = this.runs.get(circuit.id);
    if (!run) {
      run = buildRun(this.document, circuit);
      this.runs.set(circuit.id, run);
    }
    return run;
  }
  stopOf(box: Box): { circuit: Circuit; stop: RunStop } | null {
    const circuit = this.circuitOf(box.id);
    const stop = circuit && this.run(circuit).stops.find((s) => s.box.id === box.id);
    return circuit && stop ? { circuit, stop } : null;
  }
  coverage(area: Area): SpaceCoverage[] | null {
    return coverageOf(area, this.openingsIn(area), this.boxesIn(area), this.edition);
  }

  /** Makes the changes and returns what must be looked at again; `all` after a change to the job itself. */
  apply(document: JobDocument, changes: readonly Change[]): 'all' | Record<Scope, Set<string>> {
    this.document = document;
    const stale: Record<Scope, Set<string>> = { area: new Set(), box: new Set(), circuit: new Set() };
    let all = false;
    for (const change of changes) {
      this.reindex(change);
      if (change.table === 'job') all = true;
      else this.collect(change, stale);
    }
    // Protection and drop of every stop of a circuit hang together.
    for (const id of stale.circuit) {
      this.runs.delete(id);
      for (const stop of document.circuits[id]?.stops ?? []) stale.box.add(stop.boxId);
    }
    if (all) this.runs.clear();
    return all ? 'all' : stale;
  }

  private collect({ table, id, before, after }: Change, stale: Record<Scope, Set<string>>) {
    const circuitOfBox = (boxId: string) => {
      const circuit = this.circuitByBox.get(boxId);
      if (circuit !== undefined) stale.circuit.add(circuit);
    };
    const area = (areaId: string) => {
      stale.area.add(areaId);
      for (const boxId of this.boxesByArea.of(areaId)) {
        stale.box.add(boxId);
        circuitOfBox(boxId);
      }
    };
    for (const row of [before, after]) {
      if (!row) continue;
      if (table === 'boxes') {
        stale.box.add(id);
        stale.area.add((row as Box).areaId);
        circuitOfBox(id);
      } else if (table === 'areas') area(id);
      else if (table === 'openings') stale.area.add((row as Opening).areaId);
      else if (table === 'circuits') {
        stale.circuit.add(id);
        for (const stop of (row as Circuit).stops) stale.box.add(stop.boxId);
      } else if (table === 'panels') {
        for (const circuit of this.circuitsByPanel.of(id)) stale.circuit.add(circuit);
      } else if (table === 'levels') {
        for (const areaId of this.areasByLevel.of(id)) area(areaId);
        for (const panel of rows(this.document.panels)) {
          if (panel.levelId === id) for (const c of this.circuitsByPanel.of(panel.id)) stale.circuit.add(c);
        }
      }
    }
  }

  private reindex({ table, id, before, after }: Change) {
    if (table === 'boxes') {
      if (before) this.boxesByArea.remove((before as Box).areaId, id);
      if (after) this.boxesByArea.add((after as Box).areaId, id);
    } else if (table === 'openings') {
      if (before) this.openingsByArea.remove((before as Opening).areaId, id);
      if (after) this.openingsByArea.add((after as Opening).areaId, id);
    } else if (table === 'areas') {
      if (before) this.areasByLevel.remove((before as Area).levelId, id);
      if (after) this.areasByLevel.add((after as Area).levelId, id);
    } else if (table === 'circuits') {
      if (before) this.unindexCircuit(before as Circuit);
      if (after) this.indexCircuit(after as Circuit);
    }
  }

  private indexCircuit(circuit: Circuit) {
    this.circuitsByPanel.add(circuit.panelId, circuit.id);
    for (const stop of circuit.stops) this.circuitByBox.set(stop.boxId, circuit.id);
  }
  private unindexCircuit(circuit: Circuit) {
    this.circuitsByPanel.remove(circuit.panelId, circuit.id);
    for (const stop of circuit.stops) {
      if (this.circuitByBox.get(stop.boxId) === circuit.id) this.circuitByBox.delete(stop.boxId);
    }
  }
}
