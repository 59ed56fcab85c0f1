/** Which rows stand where: kept in step change by change. */
import { rows, type Change } from '#core/job/document.ts';
import type { Area, Box, Circuit, Fixture, JobDocument, Opening } from '#core/job/schema.ts';

/** Ids by the id of what they belong to. */
class Groups {
  private readonly groups = new Map<string, Set<string>>();
  move(id: string, from: string | undefined, to: string | undefined): void {
    // A row that stays keeps its place in the order.
    if (from === to) return;
    if (from !== undefined) this.groups.get(from)?.delete(id);
    if (to === undefined) return;
    const group = this.groups.get(to);
    if (group) group.add(id);
    else this.groups.set(to, new Set([id]));
  }
  of(key: string): Iterable<string> {
    return this.groups.get(key) ?? [];
  }
}

/** Tables whose rows stand in a room. */
const IN_ROOMS = ['boxes', 'openings', 'fixtures'] as const;
export type InRoom = (typeof IN_ROOMS)[number];

export class RowIndex {
  readonly byArea: Record<InRoom, Groups> = {
    boxes: new Groups(),
    openings: new Groups(),
    fixtures: new Groups(),
  };
  readonly areasByLevel = new Groups();
  readonly circuitsByPanel = new Groups();
  readonly circuitByBox = new Map<string, string>();

  constructor(document: JobDocument) {
    for (const table of IN_ROOMS)
      for (const row of rows<Box | Opening | Fixture>(document[table]))
        this.byArea[table].move(row.id, undefined, row.areaId);
    for (const area of rows(document.areas)) this.areasByLevel.move(area.id, undefined, area.levelId);
    for (const circuit of rows(document.circuits)) this.changeCircuit(null, circuit);
  }

  change({ table, id, before, after }: Change): void {
    if (table === 'boxes' || table === 'openings' || table === 'fixtures') {
      const [from, to] = [before, after] as (Box | null)[];
      this.byArea[table].move(id, from?.areaId, to?.areaId);
    } else if (table === 'areas') {
      const [from, to] = [before, after] as (Area | null)[];
      this.areasByLevel.move(id, from?.levelId, to?.levelId);
    } else if (table === 'circuits') {
      this.changeCircuit(before as Circuit | null, after as Circuit | null);
    }
  }

  private changeCircuit(before: Circuit | null, after: Circuit | null): void {
    const id = (after ?? before)!.id;
    this.circuitsByPanel.move(id, before?.panelId, after?.panelId);
    for (const stop of before?.stops ?? [])
      if (this.circuitByBox.get(stop.boxId) === id) this.circuitByBox.delete(stop.boxId);
    for (const stop of after?.stops ?? []) this.circuitByBox.set(stop.boxId, id);
  }
}
