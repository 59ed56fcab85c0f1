/** New panels and circuits, and outlets put on a circuit, as commands. */
import type { Command } from '#core/job/commands.ts';
import { breakerOf, newId, PLAIN_CIRCUIT, PLAIN_PANEL, rows } from '#core/job/document.ts';
import type { Circuit, JobDocument, Panel } from '#core/job/schema.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { purposeOf } from './purpose.ts';
import { freeSpace, spacesIn } from './spaces.ts';

const nameOfNext = ({ panels }: JobDocument): string =>
  `Panel ${String.fromCharCode(65 + (rows(panels).length % 26))}`;

/** A panel at the service. */
export const newPanel = (document: JobDocument, levelId: string): Panel => ({
  ...PLAIN_PANEL,
  id: newId('panel'),
  levelId,
  name: nameOfNext(document),
  x: 0,
  y: 0,
  mainRating: 100,
  busRating: 100,
  spaces: 20,
});

/** A 60 A subpanel beside the panel that feeds it. */
export function newSubpanel(document: JobDocument, from: Panel): Result<Panel> {
  const space = freeSpace(spacesIn(document, from), 2);
  if (space === null) return fail(`${from.name} has no two free spaces, one below the other, for a feeder`);
  return ok({
    ...newPanel(document, from.levelId),
    x: from.x,
    y: from.y,
    mainRating: 60,
    spaces: 12,
    bonded: false,
    electrode: false,
    feeder: {
      panelId: from.id,
      space,
      rating: 60,
      gauge: '4',
      material: 'copper',
      cable: 'NM-B',
      status: 'new',
      ground: true,
      ambient: 30,
      bundled: 2,
      measured: null,
    },
  });
}

/** A spare 20 A circuit in the first free space of a panel. */
export function newCircuit(document: JobDocument, panel: Panel): Result<Circuit> {
  const space = freeSpace(spacesIn(document, panel), 1);
  if (space === null)
    return fail(`${panel.name} has no free space; expected one of its ${panel.spaces} to be empty`);
  return ok({
    ...PLAIN_CIRCUIT,
    id: newId('circuit'),
    panelId: panel.id,
    space,
    name: `Spare ${space}`,
    status: 'new',
    breaker: breakerOf(20, 'afci'),
    gauge: '12',
    stops: [],
  });
}

/** Names a spare that gets its first outlets for them. */
function named(document: JobDocument, to: Circuit, ids: readonly string[]): Command[] {
  if (to.stops.length > 0 || !/^spare\b/i.test(to.name)) return [];
  const outlets = ids.flatMap((id) => {
    const box = document.boxes[id];
    const area = box && document.areas[box.areaId];
    return box && area ? [{ box, area }] : [];
  });
  return [{ type: 'put', table: 'circuits', rows: [{ ...to, name: purposeOf(document, outlets) }] }];
}

/**
 * Puts an outlet on a circuit after another one.
 * @param circuitId null: on none
 * @param after null: first
 * @param branch as a branch of its own
 */
export function putOnCircuit(
  document: JobDocument,
  boxId: string,
  circuitId: string | null,
  after: string | null,
  branch = false,
): Command {
  const move: Command = { type: 'move-stop', boxId, circuitId, after, branch };
  const to = circuitId === null ? undefined : document.circuits[circuitId];
  const names = to ? named(document, to, [boxId]) : [];
  if (names.length === 0) return move;
  const label = `Put ${document.boxes[boxId]?.name ?? 'outlet'} on a circuit`;
  return { type: 'batch', label, commands: [...names, move] };
}

/** Puts an outlet at the end of a circuit’s stops. */
export const appendToCircuit = (document: JobDocument, boxId: string, to: Circuit): Command =>
  putOnCircuit(document, boxId, to.id, to.stops.filter((s) => s.boxId !== boxId).at(-1)?.boxId ?? null);

/** Outlets one after the other at the end of a circuit: a start, to be changed by hand. */
export function appendAllToCircuit(document: JobDocument, ids: readonly string[], to: Circuit): Command {
  let after = to.stops.at(-1)?.boxId ?? null;
  const commands = named(document, to, ids);
  for (const boxId of ids) {
    commands.push({ type: 'move-stop', boxId, circuitId: to.id, after });
    after = boxId;
  }
  return { type: 'batch', label: `Put ${ids.length} outlets on ${to.name}`, commands };
}
