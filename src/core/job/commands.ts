/**
 * Everything that changes a job is one of these commands. A command is plain data, validated before it
 * runs; running it gives a new document, the changes it made, and a label for undo. Nothing is changed
 * in place, and a refused command changes nothing.
 */
import { applyChanges, changesBetween, circuitOf, rows, stopAt, type Change } from './document.ts';
import { editsBetween, GoneError, withEdits, type FieldEdit } from './edits.ts';
import { problemsAfter, type Problem } from './integrity.ts';
import { withOwnNames } from './names.ts';
import { allStamped, countOfRows, IN_MEMORY, Stamper, type Clock, type Recorded } from './order.ts';
import {
  isAppendOnly,
  jobSchema,
  TABLE_NAMES,
  TABLES,
  type Alteration,
  type AppendOnly,
  type Circuit,
  type Entity,
  type Job,
  type JobDocument,
  type Rows,
  type Stop,
  type TableName,
} from './schema.ts';
import { InvalidError, problemsOf } from './validate.ts';

export type PutCommand = { [T in TableName]: { type: 'put'; table: T; rows: Rows[T][] } }[TableName];

export type Command =
  /** Changes the job's own row: name, address, edition, settings. */
  | { type: 'edit-job'; values: Partial<Omit<Job, 'id'>> }
  /** Adds rows or replaces whole rows. */
  | PutCommand
  /** Changes fields of a row as it is by then; the job’s own row is in the table `job`. */
  | { type: 'edit'; table: Exclude<TableName, AppendOnly> | 'job'; id: string; edits: FieldEdit[] }
  /** Removes rows and what stands on them. */
  | { type: 'remove'; table: Exclude<TableName, AppendOnly>; ids: string[] }
  /** Slides an outlet to a place on a wall of its room. */
  | { type: 'move-box'; id: string; wallId: string; offset: number }
  /**
   * Puts an outlet on a circuit after another outlet (null: first), or on no circuit. It takes over what that one
   * fed, unless it is to be a branch of its own.
   */
  | { type: 'move-stop'; boxId: string; circuitId: string | null; after: string | null; branch?: boolean }
  /** Feeds an outlet, with all that hangs on it, from another outlet of its circuit. */
  | { type: 'feed-stop'; boxId: string; from: string }
  /** Several commands as one step of undo. */
  | { type: 'batch'; label: string; commands: Command[] };

/**
 * Says why changes may not be made: what is missing for them on record. Empty when they may.
 * @param now UTC time by the device that makes them; null where only the rows say when
 */
export type Guard = (
  before: JobDocument,
  after: JobDocument,
  changes: readonly Change[],
  now: string | null,
) => Problem[];

/** What has to go on record with edits, whoever makes them. */
export type Clerk = (
  before: JobDocument,
  after: JobDocument,
  edits: readonly Change[],
) => Omit<Alteration, 'id' | 'at'>[];

/** What a command has to pass, and what is put down with it. */
export interface Rules {
  guards: readonly Guard[];
  clerk: Clerk | null;
}
export const NO_RULES: Rules = { guards: [], clerk: null };

export interface Outcome {
  document: JobDocument;
  changes: Change[];
  label: string;
}

const refuse = (path: string, message: string): never => {
  throw new InvalidError([{ path, message }]);
};

export const isOfRecord = ({ table }: Change): boolean => table !== 'job' && isAppendOnly(table);

/**
 * Runs a command: its edits and what it puts on record, or neither.
 * @param clock of who writes; without one the rows alone say when
 * @throws InvalidError naming each field and what is expected there
 */
export function run(
  document: JobDocument,
  command: Command,
  { guards, clerk }: Rules,
  clock: Clock | null = null,
): Outcome {
  const before = allStamped(document, IN_MEMORY);
  const edits = changesBetween(before, step(before, command));
  const settled = recorded(before, edits, recordsOf(command), clerk, clock);
  const problems = [
    ...problemsAfter(settled.document, settled.changes),
    ...guards.flatMap((guard) => guard(before, settled.document, settled.changes, clock?.now ?? null)),
  ];
  if (problems.length > 0) throw new InvalidError(problems);
  return { ...settled, label: labelOf(document, command) };
}

/** Rows that a command puts on record, in the order in which it has them. */
const recordsOf = (command: Command): Change[] =>
  command.type === 'batch'
    ? command.commands.flatMap(recordsOf)
    : command.type === 'put' && isAppendOnly(command.table)
      ? command.rows.map((row) => ({ table: command.table, id: row.id, before: null, after: row }))
      : [];

/** @throws InvalidError where rows are none, are on record already or are too many */
function checkRecords(before: JobDocument, records: readonly Change[]): void {
  const added = new Map<TableName, Set<string>>();
  for (const { table, id, after } of records as (Change & { table: AppendOnly })[]) {
    const { schema, noun, limit } = TABLES[table];
    const problems = problemsOf(schema, after, noun);
    if (problems.length > 0) throw new InvalidError(problems);
    const ids = added.get(table) ?? new Set<string>();
    if (before[table][id] || ids.has(id))
      refuse(`${noun}.id`, 'is on record already; records are added to, never changed');
    added.set(table, ids.add(id));
    if (countOfRows(before[table]) + ids.size > limit) refuse(table, `expected at most ${limit}`);
  }
}

/**
 * Edits and rows of the record with all that goes on record with them, each row with its stamp.
 * @param records in their order
 * @throws InvalidError where a row may not be put on record
 */
export function recorded(
  before: JobDocument,
  edits: readonly Change[],
  records: readonly Change[],
  clerk: Clerk | null,
  clock: Clock | null,
): Pick<Outcome, 'document' | 'changes'> {
  checkRecords(before, records);
  const at = clock?.now ?? timeOf(records);
  const stamper = new Stamper(before, clock ?? { device: IN_MEMORY, now: at });
  const taking = stamper.taking();
  const made: Change[] = [
    ...(taking === null ? [] : [{ table: 'takings' as const, id: taking.id, before: null, after: taking }]),
    ...edits,
    ...records.map((c) => ({ ...c, after: { ...c.after, stamp: stamper.next() } as Entity })),
  ];
  const document = applyChanges(before, made);
  const altered = alteredBy(before, document, edits, clerk, stamper, at);
  return altered.length === 0
    ? { document, changes: made }
    : { document: applyChanges(document, altered), changes: [...made, ...altered] };
}

/** What goes on record with edits. */
function alteredBy(
  before: JobDocument,
  after: JobDocument,
  edits: readonly Change[],
  clerk: Clerk | null,
  stamper: Stamper,
  at: string,
): Change[] {
  if (clerk === null || edits.length === 0) return [];
  return clerk(before, after, edits).map((row) => {
    const stamp = stamper.next();
    const id = `alteration-${stamp.device.replace(/^device-/, '')}-${stamp.n}`;
    return { table: 'alterations', id, before: null, after: { ...row, id, at, stamp } };
  });
}

/** A document that takes the place of another one, with what that alters put on record. */
export function inPlaceOf(
  before: JobDocument,
  document: JobDocument,
  clerk: Clerk,
  clock: Clock,
): JobDocument {
  const edits = changesBetween(before, document).filter((c) => !isOfRecord(c));
  const stamper = new Stamper(document, clock);
  return applyChanges(document, alteredBy(before, document, edits, clerk, stamper, clock.now));
}

/** When rows went on record, by the last of them; the beginning of time where there is none. */
const timeOf = (records: readonly Change[]): string =>
  (records.at(-1)?.after as Recorded | undefined)?.at ?? '1970-01-01T00:00:00Z';

function step(document: JobDocument, command: Command): JobDocument {
  switch (command.type) {
    case 'edit-job':
      return withJob(document, { ...document.job, ...command.values });
    case 'put':
      // It goes on record by itself, beside what is edited.
      if (isAppendOnly(command.table)) return document;
      // Another may have taken the name meanwhile.
      return command.table === 'boxes'
        ? put(document, 'boxes', withOwnNames(document, command.rows))
        : put(document, command.table, command.rows);
    case 'edit':
      return edit(document, command);
    case 'remove':
      return remove(document, command.table, command.ids);
    case 'move-box': {
      const box = document.boxes[command.id] ?? refuse('id', 'expected the id of an outlet in this job');
      return put(document, 'boxes', [{ ...box, wallId: command.wallId, offset: command.offset }]);
    }
    case 'move-stop':
      return moveStop(document, command);
    case 'feed-stop':
      return feedStop(document, command);
    case 'batch':
      return command.commands.reduce(step, document);
  }
}

function withJob(document: JobDocument, job: Job): JobDocument {
  const problems = problemsOf(jobSchema, job, 'job');
  if (problems.length > 0) throw new InvalidError(problems);
  return { ...document, job };
}

function edit(document: JobDocument, { table, id, edits }: Extract<Command, { type: 'edit' }>): JobDocument {
  const rowsOf: Readonly<Record<string, Entity>> = table === 'job' ? {} : document[table];
  const noun = table === 'job' ? 'job' : TABLES[table].noun;
  const row = table === 'job' ? document.job : rowsOf[id];
  if (!row) return refuse(noun, 'is not in this job any more');
  try {
    if (table === 'job') return withJob(document, withEdits(document.job, edits));
    return put(document, table, [withEdits(row as Entity, edits)]);
  } catch (error) {
    if (error instanceof GoneError) return refuse(noun, error.message);
    throw error;
  }
}

/**
 * A command by the fields that it changes: rows that are in the document become edits, so that it can be applied to what
 * others made of them meanwhile; whole rows stay only where they are new.
 * @param document that the command was made from
 */
export function byFields(document: JobDocument, command: Command): Command {
  switch (command.type) {
    case 'edit-job':
      return {
        type: 'edit',
        table: 'job',
        id: document.job.id,
        edits: editsBetween(document.job, { ...document.job, ...command.values }),
      };
    case 'put':
      return isAppendOnly(command.table) ? command : putByFields(document, command);
    case 'batch': {
      let now = document;
      const commands = command.commands.map((c) => {
        const narrow = byFields(now, c);
        now = step(now, c);
        return narrow;
      });
      return { ...command, commands };
    }
    default:
      return command;
  }
}

function putByFields(document: JobDocument, command: PutCommand): Command {
  const table = command.table as Exclude<TableName, AppendOnly>;
  const old: Readonly<Record<string, Entity>> = document[table];
  const commands = command.rows.map((row): Command => {
    const before = old[row.id];
    return before
      ? { type: 'edit', table, id: row.id, edits: editsBetween(before, row) }
      : ({ type: 'put', table, rows: [row] } as PutCommand);
  });
  if (commands.every((c) => c.type === 'put')) return command;
  const [only] = commands;
  return only && commands.length === 1
    ? only
    : { type: 'batch', label: labelOf(document, command), commands };
}

function put(document: JobDocument, table: TableName, added: readonly Entity[]): JobDocument {
  const { schema, noun, limit } = TABLES[table];
  const old: Readonly<Record<string, Entity>> = document[table];
  const next = { ...old };
  for (const row of added) {
    const problems = problemsOf(schema, row, noun);
    if (problems.length > 0) throw new InvalidError(problems);
    next[row.id] = row;
  }
  if (Object.keys(next).length > limit) refuse(table, `expected at most ${limit}`);
  return { ...document, [table]: next };
}

function without<T>(table: Readonly<Record<string, T>>, ids: readonly string[]): Record<string, T> {
  const next = { ...table };
  for (const id of ids) delete next[id];
  return next;
}

/** Rows of other tables that stand or fall with a row, by the column that names it. */
const DEPENDENTS = TABLE_NAMES.flatMap((table) =>
  Object.entries(TABLES[table].standsOn).map(([column, owner]) => ({ owner, table, column })),
);

function remove(document: JobDocument, table: TableName, ids: readonly string[]): JobDocument {
  if (isAppendOnly(table)) refuse(table, 'records are added to, never removed');
  const gone = new Set(ids);
  let next = document;
  for (const { owner, table: dependent, column } of DEPENDENTS) {
    if (owner !== table) continue;
    const standing = rows<Entity>(next[dependent]).filter((row) =>
      gone.has((row as unknown as Record<string, string>)[column]!),
    );
    if (standing.length > 0)
      next = remove(
        next,
        dependent,
        standing.map((row) => row.id),
      );
  }
  if (table === 'boxes') {
    for (const circuit of rows(next.circuits)) {
      const stops = ids.reduce(takeOut, circuit.stops);
      if (stops !== circuit.stops) next = withCircuit(next, { ...circuit, stops });
    }
  }
  if (table === 'boxes' || table === 'fixtures' || table === 'circuits') next = forget(next, gone);
  if (table === 'panels') next = feedAgain(next, gone);
  const pictures = rows(next.pictures).filter((p) => p.about.table === table && gone.has(p.about.id));
  if (pictures.length > 0)
    next = {
      ...next,
      pictures: without(
        next.pictures,
        pictures.map((p) => p.id),
      ),
    };
  return { ...next, [table]: without<unknown>(next[table], ids) };
}

/** Takes what is gone out of what outlets control, serve, are mounted on and are passed through by. */
function forget(document: JobDocument, gone: ReadonlySet<string>): JobDocument {
  const oneLeft = (id: string | null) => (id !== null && gone.has(id) ? null : id);
  const left = (ids: string[]) => (ids.some((id) => gone.has(id)) ? ids.filter((id) => !gone.has(id)) : ids);
  const changed = rows(document.boxes).flatMap((box) => {
    const fixtureId = oneLeft(box.fixtureId);
    const serves = oneLeft(box.serves);
    const alsoServes = oneLeft(box.alsoServes);
    const controls = left(box.controls);
    const through = left(box.through);
    return fixtureId === box.fixtureId &&
      serves === box.serves &&
      alsoServes === box.alsoServes &&
      controls === box.controls &&
      through === box.through
      ? []
      : [{ ...box, fixtureId, serves, alsoServes, controls, through }];
  });
  if (changed.length === 0) return document;
  return {
    ...document,
    boxes: { ...document.boxes, ...Object.fromEntries(changed.map((b) => [b.id, b])) },
  };
}

/** Subpanels of a panel that is gone are fed from where that one was fed. */
function feedAgain(document: JobDocument, gone: ReadonlySet<string>): JobDocument {
  const changed = rows(document.panels).flatMap((panel) => {
    let { feeder } = panel;
    while (feeder !== null && gone.has(feeder.panelId))
      feeder = document.panels[feeder.panelId]?.feeder ?? null;
    return feeder === panel.feeder ? [] : [{ ...panel, feeder }];
  });
  if (changed.length === 0) return document;
  return {
    ...document,
    panels: { ...document.panels, ...Object.fromEntries(changed.map((p) => [p.id, p])) },
  };
}

const withCircuit = (document: JobDocument, circuit: Circuit): JobDocument => ({
  ...document,
  circuits: { ...document.circuits, [circuit.id]: circuit },
});

/** The stops without one box: what it fed is fed from where it was fed. */
function takeOut(stops: readonly Stop[], boxId: string): Stop[] {
  const gone = stops.find((s) => s.boxId === boxId);
  if (!gone) return stops as Stop[];
  const rest = stops
    .filter((s) => s !== gone)
    .map((s) => (s.from === boxId ? { ...s, from: gone.from, measured: null } : s));
  // Only one stop may hang on the panel: with the first stop gone, its first branch leads the others.
  const heads = rest.filter((s) => s.from === null);
  return heads.length < 2
    ? rest
    : rest.map((s) => (s.from === null && s !== heads[0] ? { ...s, from: heads[0]!.boxId } : s));
}

/** The stops with a box put in after another. Measured lengths of what it takes over lapse. */
function putIn(stops: readonly Stop[], boxId: string, after: string | null, branch: boolean): Stop[] {
  const index = after === null ? 0 : stops.findIndex((s) => s.boxId === after) + 1;
  if (branch && after !== null) return [...stops, stopAt(boxId, after)];
  const moved = stops.map((s) => (s.from === after ? { ...s, from: boxId, measured: null } : s));
  return [...moved.slice(0, index), stopAt(boxId, after), ...moved.slice(index)];
}

function moveStop(
  document: JobDocument,
  { boxId, circuitId, after, branch = false }: Extract<Command, { type: 'move-stop' }>,
): JobDocument {
  if (!document.boxes[boxId]) refuse('boxId', 'expected the id of an outlet in this job');
  if (after === boxId) refuse('after', 'expected another outlet than the one moved');
  let next = document;
  for (const circuit of rows(document.circuits)) {
    const stops = takeOut(circuit.stops, boxId);
    if (stops !== circuit.stops) next = withCircuit(next, { ...circuit, stops });
  }
  if (circuitId === null) return next;
  const target = next.circuits[circuitId] ?? refuse('circuitId', 'expected the id of a circuit in this job');
  if (after !== null && !target.stops.some((s) => s.boxId === after)) {
    refuse('after', `expected an outlet on “${target.name}”, or null for the first place`);
  }
  return withCircuit(next, { ...target, stops: putIn(target.stops, boxId, after, branch) });
}

function feedStop(
  document: JobDocument,
  { boxId, from }: Extract<Command, { type: 'feed-stop' }>,
): JobDocument {
  const circuit = circuitOf(document, boxId) ?? refuse('boxId', 'expected the id of an outlet on a circuit');
  const { stops } = circuit;
  if (!stops.some((s) => s.boxId === from)) refuse('from', `expected an outlet on “${circuit.name}”`);
  if (stops.find((s) => s.boxId === boxId)!.from === null)
    refuse('boxId', 'the first outlet is fed from the panel: put another one first');
  const hanging = new Set([boxId]);
  for (const s of stops) if (s.from !== null && hanging.has(s.from)) hanging.add(s.boxId);
  if (hanging.has(from)) refuse('from', 'expected an outlet that does not hang on this one');
  const branch = stops
    .filter((s) => hanging.has(s.boxId))
    .map((s) => (s.boxId === boxId ? { ...s, from, measured: null } : s));
  // Feeders stand before what they feed.
  const rest = stops.filter((s) => !hanging.has(s.boxId));
  return withCircuit(document, { ...circuit, stops: [...rest, ...branch] });
}

const LABELS: Record<keyof Omit<Job, 'id'>, string> = {
  name: 'Rename job',
  address: 'Change address',
  entry: 'Make it a project',
  edition: 'Change edition',
  dwelling: 'Change dwelling kind',
  permitDate: 'Change permit day',
  zone: 'Change time zone',
  laundryElsewhere: 'Change laundry',
  load: 'Change load calculation',
  otherSources: 'Change other sources',
  settings: 'Change shop settings',
  prices: 'Change prices',
};

/** What undo will say it takes back, such as `Move R3`. */
function labelOf(document: JobDocument, command: Command): string {
  switch (command.type) {
    case 'edit-job': {
      const [first] = Object.keys(command.values) as (keyof Omit<Job, 'id'>)[];
      return first ? LABELS[first] : 'Edit job';
    }
    case 'edit': {
      const [first] = command.edits;
      if (command.table === 'job') return LABELS[first?.path[0] as keyof typeof LABELS] ?? 'Edit job';
      const known: Readonly<Record<string, Entity>> = document[command.table];
      const row = known[command.id];
      return `Edit ${row ? countOf(command.table, [row]) : TABLES[command.table].noun}`;
    }
    case 'put': {
      const known: Readonly<Record<string, Entity>> = document[command.table];
      const verb = command.rows.every((r) => r.id in known) ? 'Edit' : 'Add';
      return `${verb} ${countOf(command.table, command.rows)}`;
    }
    case 'remove': {
      const known: Readonly<Record<string, Entity>> = document[command.table];
      return `Remove ${countOf(
        command.table,
        command.ids.flatMap((id) => known[id] ?? []),
      )}`;
    }
    case 'move-box':
      return `Move ${document.boxes[command.id]?.name ?? 'outlet'}`;
    case 'move-stop': {
      const name = document.boxes[command.boxId]?.name ?? 'outlet';
      const circuit = command.circuitId === null ? null : document.circuits[command.circuitId];
      return circuit ? `Put ${name} on ${circuit.name}` : `Take ${name} off its circuit`;
    }
    case 'feed-stop': {
      const name = (id: string) => document.boxes[id]?.name ?? 'outlet';
      return `Feed ${name(command.boxId)} from ${name(command.from)}`;
    }
    case 'batch':
      return command.label;
  }
}

function countOf(table: TableName, list: readonly Entity[]): string {
  const { noun } = TABLES[table];
  if (list.length !== 1) return `${list.length} ${noun}s`;
  const [only] = list;
  return only && 'name' in only ? only.name : noun;
}
