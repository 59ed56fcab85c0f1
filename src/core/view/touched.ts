/** What a change touches: the subjects that rules are to look at again, and the rooms whose shape or ways it alters. */
import { rows, type Change } from '#core/job/document.ts';
import { boundsOf, within } from '#core/job/outline.ts';
import type { Box, Circuit, DeviceKind, Fixture, Opening, TableName } from '#core/job/schema.ts';
import { goesThrough } from '#core/tables/openings.ts';
import { NEAR_WATER } from '#core/tables/areas.ts';
import type { View } from './view.ts';

/** What a rule looks at. */
export type Scope = 'house' | 'area' | 'fixture' | 'box' | 'circuit' | 'panel';

export interface Touched {
  changes: readonly Change[];
  /** The job's own row or a local amendment: everything is to be looked at again. */
  job: boolean;
  /** Ids of the subjects touched. */
  subjects: Readonly<Record<Scope, Set<string>>>;
  /** Rooms whose walls, doors or ways for a cord may be others now. */
  rooms: ReadonlySet<string>;
}

const noSubjects = (): Record<Scope, Set<string>> => ({
  house: new Set(),
  area: new Set(),
  fixture: new Set(),
  box: new Set(),
  circuit: new Set(),
  panel: new Set(),
});

/** Changes, with nothing said yet of what they touch. */
export const justChanges = (list: readonly Change[]): Touched => ({
  changes: list,
  job: false,
  subjects: noSubjects(),
  rooms: new Set(),
});

/** Whether a change is to one of these tables. */
export const changes = (touched: Touched, ...tables: (TableName | 'job')[]): boolean =>
  touched.changes.some((c) => tables.includes(c.table));

/** Whether a change is of an outlet that was or becomes of a kind. */
export const changesDevice = (touched: Touched, kind: DeviceKind): boolean =>
  touched.changes.some((c) => isBoxOf(c, kind));

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

const GARAGE_TABLES: readonly (TableName | 'job')[] = ['areas', 'boxes', 'fixtures', 'circuits'];

/** Fields of an outlet that its panel depends on. */
const PANEL_FIELDS = ['serves', 'status', 'areaId', 'device'] as const satisfies readonly (keyof Box)[];

/** Rooms whose walls, doors or ways for a cord a change may alter, as the view is now. */
export function roomsOf(view: View, { table, id, before, after }: Change, rooms: Set<string>): void {
  const reach = (areaId: string, far: number) => {
    const area = view.document.areas[areaId];
    if (!area) return;
    rooms.add(areaId);
    for (const other of view.areasOn(area.levelId))
      if (within(boundsOf(other), boundsOf(area), far)) rooms.add(other.id);
  };
  if (table === 'areas') reach(id, NEAR_WATER);
  else if (table === 'openings' || table === 'fixtures') {
    for (const row of [before, after]) {
      if (!row) continue;
      const { areaId } = row as Opening | Fixture;
      // Seen from here a thing inside the room matters to the neighbors only where a cord comes through.
      const far = table === 'fixtures' || goesThrough(row as Opening) ? NEAR_WATER : 0;
      reach(areaId, far);
    }
  } else if (table === 'levels') {
    for (const area of view.areasOn(id)) rooms.add(area.id);
  }
}

/**
 * Subjects that changes touch.
 * @param view after the changes
 * @param lit whether there was any light before them
 */
export function touchedBy(
  view: View,
  list: readonly Change[],
  rooms: ReadonlySet<string>,
  lit: boolean,
): Touched {
  const { document, index } = view;
  const subjects = noSubjects();
  for (const id of rooms) subjects.area.add(id);
  for (const change of list) collect(view, change, subjects);
  for (const id of rooms) {
    for (const box of index.byArea.boxes.of(id)) {
      subjects.box.add(box);
      const circuit = index.circuitByBox.get(box);
      if (circuit !== undefined) subjects.circuit.add(circuit);
    }
    for (const fixture of index.byArea.fixtures.of(id)) subjects.fixture.add(fixture);
  }
  // The first light, or the last one gone, opens or closes the question in every room.
  if (list.some((c) => isBoxOf(c, 'light')) && lit !== view.hasLights)
    for (const id in document.areas) subjects.area.add(id);
  // Which of the circuits of garages may feed nothing else hangs on all of them.
  if (list.some((c) => GARAGE_TABLES.includes(c.table)))
    for (const area of rows(document.areas)) {
      if (area.kind !== 'garage') continue;
      for (const box of index.byArea.boxes.of(area.id)) {
        const circuit = index.circuitByBox.get(box);
        if (circuit !== undefined) subjects.circuit.add(circuit);
      }
    }
  // Protection and drop of every stop of a circuit hang together.
  for (const id of subjects.circuit)
    for (const stop of document.circuits[id]?.stops ?? []) subjects.box.add(stop.boxId);
  for (const id of [...subjects.panel]) for (const up of upFrom(view, id)) subjects.panel.add(up);
  if (list.some((c) => HOUSE_TABLES.includes(c.table))) subjects.house.add(document.job.id);
  return {
    changes: list,
    job: list.some((c) => c.table === 'job' || c.table === 'amendments'),
    subjects,
    rooms,
  };
}

/** The panels from one up to the service, itself first. */
function upFrom({ document }: View, panelId: string): string[] {
  const chain: string[] = [];
  let at: string | undefined = panelId;
  while (at !== undefined && !chain.includes(at)) {
    chain.push(at);
    at = document.panels[at]?.feeder?.panelId;
  }
  return chain;
}

function collect(
  view: View,
  { table, id, before, after }: Change,
  touched: Record<Scope, Set<string>>,
): void {
  const { document, index } = view;
  const circuitOfBox = (boxId: string) => {
    const circuit = index.circuitByBox.get(boxId);
    if (circuit !== undefined) touched.circuit.add(circuit);
  };
  const panelOfBox = (boxId: string) => {
    const circuit = view.circuitOf(boxId);
    if (circuit) touched.panel.add(circuit.panelId);
  };
  const services = () => {
    for (const panel of rows(document.panels)) if (panel.feeder === null) touched.panel.add(panel.id);
  };
  if (table === 'boxes') {
    const [old, now] = [before, after] as (Box | null)[];
    touched.box.add(id);
    circuitOfBox(id);
    // Sliding along its wall changes nothing at the panel.
    if (!old || !now || PANEL_FIELDS.some((field) => old[field] !== now[field])) panelOfBox(id);
    for (const row of [old, now]) {
      if (!row) continue;
      touched.area.add(row.areaId);
      for (const fixture of index.byArea.fixtures.of(row.areaId)) touched.fixture.add(fixture);
      // A light may be switched from another room, an appliance served from there.
      for (const other of row.controls) {
        const light = document.boxes[other];
        if (!light) continue;
        touched.area.add(light.areaId);
        // Travelers run where a light has more than one switch.
        touched.box.add(light.id);
        for (const twin of view.switchesOf(light)) touched.box.add(twin.id);
      }
      for (const other of view.switchesOf(row)) touched.box.add(other.id);
      if (row.serves !== null) touched.fixture.add(row.serves);
      if (row.alsoServes !== null) touched.fixture.add(row.alsoServes);
    }
    for (const fixture of view.serviced()) touched.fixture.add(fixture.id);
  } else if (table === 'fixtures') {
    touched.fixture.add(id);
    services();
    for (const box of view.boxesServing(id)) {
      touched.box.add(box.id);
      for (const other of view.switchesOf(box)) touched.box.add(other.id);
      circuitOfBox(box.id);
      panelOfBox(box.id);
    }
  } else if (table === 'areas') {
    // Panels stand in rooms.
    for (const panel in document.panels) touched.panel.add(panel);
    for (const box of index.byArea.boxes.of(id)) {
      panelOfBox(box);
      const row = document.boxes[box];
      if (row) for (const other of view.switchesOf(row)) touched.box.add(other.id);
    }
  } else if (table === 'circuits') {
    touched.circuit.add(id);
    for (const row of [before, after] as (Circuit | null)[]) {
      if (row) touched.panel.add(row.panelId);
      for (const stop of row?.stops ?? []) touched.box.add(stop.boxId);
    }
    // The receptacle for service hangs on another circuit than its equipment.
    for (const fixture of view.serviced()) touched.fixture.add(fixture.id);
  } else if (table === 'panels') {
    // Feeders hang together, and there are few.
    for (const panel in document.panels) touched.panel.add(panel);
    touched.panel.add(id);
    for (const circuit of index.circuitsByPanel.of(id)) touched.circuit.add(circuit);
  } else if (table === 'levels') {
    for (const panel of rows(document.panels)) {
      if (panel.levelId === id)
        for (const circuit of index.circuitsByPanel.of(panel.id)) touched.circuit.add(circuit);
    }
  }
}
