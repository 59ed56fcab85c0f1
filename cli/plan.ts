/** `hekto plan`: a job's circuits, planned by the same search as in the browser. */
import loadHighs from 'highs';
import { check } from '#core/code/checker.ts';
import { countsOf } from '#core/code/summary.ts';
import { View } from '#core/view/view.ts';
import { newId } from '#core/job/document.ts';
import { runGuarded } from '#core/records/gates.ts';
import { parseFile, serialize } from '#core/job/file.ts';
import type { Circuit } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { houseProblem } from '#core/planner/houseProblem.ts';
import { figuresNow, planFigures, propose } from '#core/planner/proposal.ts';
import { PLAIN_PLANNING, type PlannerSettings } from '#core/planner/settings.ts';
import { priceBookOf } from '#core/panel/prices.ts';
import { HouseSearch } from '#core/planner/solve.ts';
import { CLEAN, FINDINGS, oneFile, parsed, print, read } from './input.ts';

function whole(
  path: string,
  text: string | undefined,
  least: number,
  most: number,
  otherwise: number,
): number {
  if (text === undefined) return otherwise;
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new InvalidError([
      { path, message: `expected a whole number from ${least} to ${most}, found ${text}` },
    ]);
  return value;
}

export async function runPlan(args: string[]): Promise<number> {
  const { values, positionals } = parsed(args, {
    job: { type: 'boolean' },
    'gfci-at-first-box': { type: 'boolean' },
    seed: { type: 'string' },
    'max-out': { type: 'string' },
    keep: { type: 'string' },
    panel: { type: 'string' },
    spare: { type: 'string' },
    'lights-apart': { type: 'boolean' },
    extend: { type: 'boolean' },
  });
  const { panel = null } = values;
  const document = parseFile(read(oneFile(positionals, 'one job file')));
  if (panel !== null && !document.panels[panel])
    throw new InvalidError([
      { path: '--panel', message: `expected the id of a panel in the job, found ${panel}` },
    ]);
  const locked = values.keep?.split(',') ?? [];
  for (const id of locked)
    if (!document.circuits[id])
      throw new InvalidError([
        { path: '--keep', message: `expected ids of circuits in the job, found ${id}` },
      ]);
  const settings: PlannerSettings = {
    ...PLAIN_PLANNING,
    panelId: panel,
    spare: whole('--spare', values.spare, 0, 50, 0),
    lightsApart: values['lights-apart'] ?? false,
    extend: values.extend ?? false,
    prices: priceBookOf(document.job),
    gfciAt: values['gfci-at-first-box'] ? 'first-box' : 'breaker',
    maxOut: whole('--max-out', values['max-out'], 1, 4, 2),
    locked,
  };
  const view = new View(document);
  const house = houseProblem(view, settings);
  if (!house) throw new InvalidError([{ path: 'panels', message: 'expected a panel to plan circuits from' }]);
  const search = new HouseSearch(house, whole('--seed', values.seed, 0, 2 ** 31, 1), await loadHighs());
  while (search.step());
  const proposal = propose(view, house, search.plans, settings);
  const { command, circuits, extended, withoutSpace } = proposal;
  // One run of the command line is a device of its own.
  const clock = { device: newId('device'), now: new Date().toISOString() };
  const after = runGuarded(document, command, clock).document;
  if (values.job) {
    process.stdout.write(serialize(after));
    return withoutSpace.length === 0 ? CLEAN : FINDINGS;
  }
  const count = (d: typeof document) => countsOf(check(d)).violation;
  const { proven, parts } = search.progress;
  const inWords = ({ id: _, stops, ...c }: Circuit) => ({
    ...c,
    stops: stops.map((s) => ({
      outlet: document.boxes[s.boxId]!.name,
      from: s.from === null ? null : document.boxes[s.from]!.name,
    })),
  });
  print(
    JSON.stringify(
      {
        before: { ...figuresNow(view, house, settings), violations: count(document) },
        after: { ...planFigures(view, after, proposal, settings), violations: count(after) },
        proven,
        parts,
        kept: house.kept.map((c) => c.name),
        notExtended: house.notExtended.map(({ circuit, why }) => ({ circuit: circuit.name, why })),
        leftOut: house.leftOut.map(({ box, why }) => ({ outlet: box.name, why })),
        withoutSpace,
        extended: extended.map((e) => inWords(e.circuit)),
        circuits: circuits.map(inWords),
      },
      null,
      2,
    ),
  );
  return withoutSpace.length === 0 ? CLEAN : FINDINGS;
}
