/** What must hold between entities: checked after every command and on every file. */
import { formatLength } from '#core/units/length.ts';
import { rows, type Change } from './document.ts';
import { nameKey } from './names.ts';
import type {
  Area,
  Box,
  BoxWiring,
  Circuit,
  Fixture,
  JobDocument,
  Opening,
  Panel,
  Picture,
  TableName,
} from './schema.ts';

export interface Problem {
  /** Path of the field, such as `openings[door-1].width`. */
  path: string;
  message: string;
}

const at = (table: TableName, id: string, field: string) => `${table}[${id}].${field}`;

function checkArea(document: JobDocument, area: Area): Problem[] {
  const problems: Problem[] = [];
  if (!document.levels[area.levelId]) {
    problems.push({
      path: at('areas', area.id, 'levelId'),
      message: 'expected the id of a level in this job',
    });
  }
  const ids = area.walls.map((w) => w.id);
  if (new Set(ids).size !== ids.length) {
    problems.push({ path: at('areas', area.id, 'walls'), message: 'expected a different id for each wall' });
  }
  return problems;
}

function checkOpening(document: JobDocument, opening: Opening): Problem[] {
  if (opening.top <= opening.bottom) {
    return [
      {
        path: at('openings', opening.id, 'top'),
        message: `expected more than ${formatLength(opening.bottom)}, its lower edge`,
      },
    ];
  }
  const area = document.areas[opening.areaId];
  const wall = area?.walls.find((w) => w.id === opening.wallId);
  if (!area)
    return [{ path: at('openings', opening.id, 'areaId'), message: 'expected the id of a room in this job' }];
  if (!wall) {
    return [
      { path: at('openings', opening.id, 'wallId'), message: `expected the id of a wall of ${area.name}` },
    ];
  }
  const thing = `the ${opening.kind.replaceAll('-', ' ')}`;
  if (opening.width > wall.length) {
    return [
      {
        path: at('openings', opening.id, 'width'),
        message: `${thing}, ${formatLength(opening.width)} wide, is wider than its wall; expected ${formatLength(wall.length)} or less`,
      },
    ];
  }
  if (opening.offset + opening.width > wall.length + 1e-6) {
    return [
      {
        path: at('openings', opening.id, 'offset'),
        message: `${thing} runs past the end of its wall; expected an offset of ${formatLength(wall.length - opening.width)} or less`,
      },
    ];
  }
  const other = rows(document.openings).find(
    (o) =>
      o.id !== opening.id &&
      o.wallId === opening.wallId &&
      o.areaId === opening.areaId &&
      o.offset < opening.offset + opening.width - 1e-6 &&
      opening.offset < o.offset + o.width - 1e-6,
  );
  return other
    ? [
        {
          path: at('openings', opening.id, 'offset'),
          message: `${thing} overlaps the ${other.kind.replaceAll('-', ' ')} from ${formatLength(other.offset)} to ${formatLength(other.offset + other.width)} on the same wall`,
        },
      ]
    : [];
}

/** Problems of something that stands on a wall of a room. */
function checkPlace(
  document: JobDocument,
  table: 'boxes' | 'fixtures',
  { id, name, areaId, wallId, offset }: Box | Fixture,
): Problem[] {
  const area = document.areas[areaId];
  if (!area) return [{ path: at(table, id, 'areaId'), message: 'expected the id of a room in this job' }];
  // Not on the plan: a room and words are all that is known.
  if (wallId === null) return [];
  const wall = area.walls.find((w) => w.id === wallId);
  if (!wall) return [{ path: at(table, id, 'wallId'), message: `expected the id of a wall of ${area.name}` }];
  return offset > wall.length + 1e-6
    ? [
        {
          path: at(table, id, 'offset'),
          message: `${name} at ${formatLength(offset)} is past the end of its wall; expected ${formatLength(wall.length)} or less`,
        },
      ]
    : [];
}

function checkBox(document: JobDocument, box: Box): Problem[] {
  const problems = checkPlace(document, 'boxes', box);
  for (const field of ['fixtureId', 'serves', 'alsoServes'] as const) {
    const id = box[field];
    if (id !== null && !document.fixtures[id]) {
      problems.push({
        path: at('boxes', box.id, field),
        message: 'expected the id of a fixture in this job, or null',
      });
    }
  }
  if (box.through.some((id) => !document.circuits[id])) {
    problems.push({
      path: at('boxes', box.id, 'through'),
      message: 'expected ids of circuits in this job',
    });
  }
  if (box.controls.some((id) => !document.boxes[id] || id === box.id)) {
    problems.push({
      path: at('boxes', box.id, 'controls'),
      message: 'expected ids of other outlets in this job',
    });
  }
  return box.wiring ? [...problems, ...checkWiring(box.id, box.wiring.wiring)] : problems;
}

/** Parts of a recorded box have names of their own, and what is joined is of the box. */
function checkWiring(boxId: string, { cables, yokes, splices, tails, places }: BoxWiring): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string) =>
    problems.push({ path: at('boxes', boxId, `wiring.wiring.${field}`), message });
  const alone = (field: string, names: readonly string[]) => {
    if (new Set(names).size !== names.length) say(field, 'expected a different name for each');
  };
  const ids = (list: readonly { id: string }[]) => list.map((one) => one.id);
  alone('cables', ids(cables));
  alone('yokes', ids(yokes));
  alone('splices', ids(splices));
  alone('tails', ids(tails));
  cables.forEach((cable, k) => alone(`cables[${k}].conductors`, ids(cable.conductors)));
  alone(
    'places',
    places.map((p) => p.end),
  );
  const ends = new Set([
    ...cables.flatMap((cable) => cable.conductors.map((c) => `${cable.id}.${c.id}`)),
    ...tails.flatMap(({ id }) => [`${id}.a`, `${id}.b`]),
  ]);
  const ofYoke = (name: string) => yokes.some(({ id }) => name.startsWith(`${id}.`));
  const joins = new Set(['box', ...ids(splices)]);
  // Without a device on record its terminals are those of the outlet's own.
  const ofDevice = (name: string) => ofYoke(name) || (yokes.length === 0 && name.startsWith('device.'));
  places.forEach((place, k) => {
    if (!ends.has(place.end) && !ofDevice(place.end))
      say(`places[${k}].end`, 'expected an end of a cable, a tail or a lead of this box');
    if (place.at !== null && !joins.has(place.at) && !ofDevice(place.at))
      say(`places[${k}].at`, 'expected a splice or a terminal of this box, box, or null');
  });
  return problems;
}

const checkFixture = (document: JobDocument, fixture: Fixture): Problem[] =>
  checkPlace(document, 'fixtures', fixture);

function checkPicture(document: JobDocument, picture: Picture): Problem[] {
  const { table, id } = picture.about;
  return document[table][id]
    ? []
    : [{ path: at('pictures', picture.id, 'about.id'), message: `expected an id from ${table}` }];
}

function checkPanel(document: JobDocument, panel: Panel): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string) =>
    problems.push({ path: at('panels', panel.id, field), message });
  if (!document.levels[panel.levelId]) say('levelId', 'expected the id of a level in this job');
  // Up the feeders to the service: a ring would come back.
  const above = new Set([panel.id]);
  for (let { feeder } = panel; feeder !== null;) {
    const from: Panel | undefined = document.panels[feeder.panelId];
    if (!from) {
      say('feeder.panelId', 'expected the id of a panel in this job');
      break;
    }
    if (above.has(from.id)) {
      say('feeder.panelId', `${panel.name} would feed itself; expected a panel nearer the service`);
      break;
    }
    above.add(from.id);
    feeder = from.feeder;
  }
  const from = panel.feeder && document.panels[panel.feeder.panelId];
  if (from && panel.feeder!.space > from.spaces)
    say('feeder.space', `expected 1 to ${from.spaces}, the spaces of ${from.name}`);
  return problems;
}

function checkCircuit(document: JobDocument, circuit: Circuit): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string) =>
    problems.push({ path: at('circuits', circuit.id, field), message });
  const panel = document.panels[circuit.panelId];
  if (!panel) say('panelId', 'expected the id of a panel in this job');
  else if (circuit.space > panel.spaces)
    say('space', `expected 1 to ${panel.spaces}, the spaces of ${panel.name}`);
  const same = rows(document.circuits).find(
    (c) =>
      c.id !== circuit.id &&
      c.panelId === circuit.panelId &&
      c.space === circuit.space &&
      (c.half === circuit.half || c.half === 'whole' || circuit.half === 'whole'),
  );
  if (same) say('space', `space ${circuit.space} is taken by “${same.name}”; expected a free space`);
  const placed = new Set<string>();
  circuit.stops.forEach((stop, i) => {
    if (!document.boxes[stop.boxId]) say(`stops[${i}].boxId`, 'expected the id of an outlet in this job');
    if (placed.has(stop.boxId))
      say(`stops[${i}].boxId`, 'stands on this circuit twice; expected each outlet once');
    if (stop.from !== null && !placed.has(stop.from)) {
      say(`stops[${i}].from`, 'expected null (the panel) or an outlet that stands earlier on this circuit');
    }
    placed.add(stop.boxId);
  });
  if (circuit.stops.filter((s) => s.from === null).length > 1) {
    say('stops', 'expected one home run: only the first stop is fed from the panel');
  }
  for (const other of rows(document.circuits)) {
    if (other.id === circuit.id) continue;
    const shared = other.stops.find((s) => placed.has(s.boxId));
    if (shared) {
      const box = document.boxes[shared.boxId];
      say('stops', `${box?.name ?? shared.boxId} is on “${other.name}” too; expected it on one circuit`);
    }
  }
  return problems;
}

const CHECKS = {
  areas: checkArea,
  openings: checkOpening,
  fixtures: checkFixture,
  boxes: checkBox,
  pictures: checkPicture,
  panels: checkPanel,
  circuits: checkCircuit,
};
const hasCheck = (table: string): table is keyof typeof CHECKS => table in CHECKS;

function checkRow<T extends keyof typeof CHECKS>(document: JobDocument, table: T, id: string): Problem[] {
  const row = document[table][id];
  return row ? (CHECKS[table] as (d: JobDocument, r: typeof row) => Problem[])(document, row) : [];
}

/** Outlets of a list that have the name of one before them, or of another in the job. */
function sameNames(document: JobDocument, list: readonly Box[]): Problem[] {
  const listed = new Set(list.map((b) => b.id));
  const others = rows(document.boxes).filter((b) => !listed.has(b.id));
  const first = new Map(others.map((b) => [nameKey(b.name), b]));
  return list.flatMap((box): Problem[] => {
    const key = nameKey(box.name);
    const other = first.get(key);
    if (!other) {
      first.set(key, box);
      return [];
    }
    const where = document.areas[other.areaId]?.name ?? 'another room';
    return [
      {
        path: at('boxes', box.id, 'name'),
        message: `“${box.name}” is the name of another outlet, in ${where}; expected a name of its own`,
      },
    ];
  });
}

/** Problems anywhere in the document. */
export function problemsIn(document: JobDocument): Problem[] {
  const inRows = (Object.keys(CHECKS) as (keyof typeof CHECKS)[]).flatMap((table) =>
    Object.keys(document[table]).flatMap((id) => checkRow(document, table, id)),
  );
  return [...inRows, ...sameNames(document, rows(document.boxes))];
}

/** Problems that a set of changes may have brought in: the changed rows and those that stand on them. */
export function problemsAfter(document: JobDocument, changes: readonly Change[]): Problem[] {
  const touched = new Map<string, [keyof typeof CHECKS, string]>();
  const touch = (table: keyof typeof CHECKS, id: string) => touched.set(`${table}/${id}`, [table, id]);
  for (const { table, id, after } of changes) {
    if (hasCheck(table)) touch(table, id);
    if (table === 'areas') {
      for (const o of rows(document.openings)) if (o.areaId === id) touch('openings', o.id);
      for (const f of rows(document.fixtures)) if (f.areaId === id) touch('fixtures', f.id);
      for (const b of rows(document.boxes)) if (b.areaId === id) touch('boxes', b.id);
    }
    if (after === null && (table === 'fixtures' || table === 'boxes')) {
      for (const b of rows(document.boxes)) {
        if (b.serves === id || b.alsoServes === id || b.fixtureId === id || b.controls.includes(id))
          touch('boxes', b.id);
      }
    }
    if (table === 'levels' && after === null) {
      for (const a of rows(document.areas)) if (a.levelId === id) touch('areas', a.id);
      for (const p of rows(document.panels)) if (p.levelId === id) touch('panels', p.id);
    }
    if (table === 'panels') {
      for (const p of rows(document.panels)) if (p.feeder?.panelId === id) touch('panels', p.id);
    }
    if (table === 'panels' || (table === 'boxes' && after === null)) {
      for (const c of rows(document.circuits)) {
        if (c.panelId === id || c.stops.some((s) => s.boxId === id)) touch('circuits', c.id);
      }
    }
  }
  const named = changes.flatMap(({ table, id, before }) => {
    const box = table === 'boxes' ? document.boxes[id] : undefined;
    return box && box.name !== (before as Box | null)?.name ? [box] : [];
  });
  return [
    ...[...touched.values()].flatMap(([table, id]) => checkRow(document, table, id)),
    ...(named.length > 0 ? sameNames(document, named) : []),
  ];
}
