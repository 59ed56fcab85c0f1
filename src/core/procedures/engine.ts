/**
 * Walks a procedure: the next step follows from the document, the log and the clock alone, so that it goes on anywhere after
 * a reload. The engine, and no procedure, brings in proof of dead before hands go in, and power before what is tested live.
 */
import type { Command } from '#core/job/commands.ts';
import { circuitOf, newId, rows, struckBy } from '#core/job/document.ts';
import type { Box, Call, Entry } from '#core/job/schema.ts';
import { closingCommand } from '#core/records/open.ts';
import { circuitsIn } from '#core/records/points.ts';
import { whyNeutralsShut } from '#core/records/neutrals.ts';
import { panelGap, provesPanel } from '#core/records/panel.ts';
import { circuitState, isSaidOff, validProof, whyUnproved } from '#core/records/proof.ts';
import type { View } from '#core/view/view.ts';
import { askBreaker, panelOf, strikeFlips } from './parts/breaker.ts';
import { strikePartings } from './parts/chain.ts';
import { beforeTheEnd, powerOn } from './parts/finish.ts';
import { panelStep } from './parts/panelDead.ts';
import { beforeFlips, isLeft } from './parts/start.ts';
import {
  Log,
  NO_ANSWER,
  type Answer,
  type Context,
  type Figure,
  type Option,
  type Procedure,
  type Signed,
  type Step,
} from './step.ts';

/** @param now UTC time */
export function contextOf(view: View, call: Call, now: string): Context {
  const { document } = view;
  const box = document.boxes[call.boxId ?? ''] ?? null;
  const circuit = document.circuits[call.circuitId ?? ''] ?? (box && circuitOf(document, box.id)) ?? null;
  return { view, document, call, log: new Log(document, call.id), now, box, circuit };
}

export interface Standing {
  /** All that comes by what is on record now, in its order. */
  steps: readonly Step[];
  /** What is to be done now; null when the call is over. */
  current: Step | null;
  /** What was done, in the order of the procedure. */
  done: readonly Step[];
  /** Steps that would still come by what is on record now. */
  ahead: number;
  /** It was left off or unfinished, for safety. */
  stopped: boolean;
}

const stepsOf = (procedure: Procedure, c: Context): Step[] =>
  procedure.steps(c).filter((s): s is Step => s !== null && s !== false);

const isDone = (c: Context, step: Step): boolean => step.met === true || c.log.has(step.key);

/** Longest note of an answer: a pasted report. */
const MOST_NOTE = 8000;

/** Whether a step may part the neutrals of its box: work with the hands, where nothing else is said. */
const partsNeutrals = (step: Step): step is Step & { inside: Box } =>
  step.kind === 'do' && Boolean(step.inside) && step.keepsNeutrals !== true;

/** Who and what must not lose power without being asked: once in a call, before its first breaker. */
const seeTo = (c: Context): Step | null =>
  beforeFlips(c).find((s): s is Step => Boolean(s) && !isDone(c, s as Step)) ?? null;

/** What has to come before a step: proof of dead for hands, power for what is tested. */
function before(c: Context, step: Step): Step | null {
  const { document, now } = c;
  const { inside, live, liveOpen, inPanel } = step;
  if (step.kind === 'record') return isLeft(c) ? null : beforeTheEnd(c);
  const gap = inPanel ? panelGap(document, panelOf(document).id, now) : null;
  if (gap) return seeTo(c) ?? panelStep(c, gap);
  if (inside && !validProof(document, inside, now)) {
    if (circuitsIn(document, inside).length === 0) return askBreaker(c, inside, `breaker ${inside.id}`);
    const first = circuitsIn(document, inside).every((k) => isSaidOff(document, k, now)) ? null : seeTo(c);
    return (
      first ?? {
        kind: 'dead',
        key: `dead ${inside.id}`,
        title: `Prove ${inside.name} dead`,
        text: whyUnproved(document, inside, now),
        why: 'Every splice group and loose end is read: a loose wire behind a dead face can be live.',
        box: inside,
      }
    );
  }
  if (partsNeutrals(step) && whyNeutralsShut(document, step.inside, now) !== null)
    return {
      kind: 'clamp',
      key: `clamp ${step.inside.id}`,
      title: `Clamp the neutral in ${step.inside.name}`,
      text: 'It stays joined until the clamp shows that no other circuit uses it.',
      why: 'A neutral that another circuit uses reads nothing while it is joined, and has 120 V on it once it is parted.',
      box: step.inside,
    };
  const [circuit, purpose, wanted] = liveOpen
    ? ([liveOpen, 'measurement', 'measuring'] as const)
    : ([live, 'use', 'energized'] as const);
  if (!circuit || circuitState(document, circuit, now) === wanted) return null;
  return powerOn(circuit, purpose);
}

/** Where a call stands. */
export function standingOf(procedure: Procedure, c: Context): Standing {
  const steps = stepsOf(procedure, c);
  const next = steps.find((s) => !isDone(c, s)) ?? null;
  const done = steps.filter((s) => isDone(c, s));
  return {
    steps,
    current: next && (before(c, next) ?? next),
    done,
    ahead: steps.length - done.length,
    stopped: c.log.picked('danger-stop', 'left'),
  };
}

const numberProblem = (
  { label, unit, min, max, optional }: Figure,
  value: number | undefined,
): string | null => {
  if (value === undefined) return optional ? null : `${label}: expected a figure in ${unit}`;
  // What is counted has no unit.
  if (unit === '' && !Number.isInteger(value)) return `${label}: expected a whole number`;
  return Number.isFinite(value) && value >= min && value <= max
    ? null
    : `${label}: expected ${min} to ${max} ${unit}`;
};
const pickProblem = (options: readonly Option[], picks: readonly string[]): string | null => {
  for (const pick of picks) {
    const option = options.find((o) => o.value === pick);
    if (!option) return `expected one of: ${options.map((o) => o.name).join(', ')}`;
    if (option.not !== undefined) return `${option.name}: ${option.not}`;
  }
  return null;
};

/** What is wrong with an answer to a step; null when it can be taken. */
export function problemWith(step: Step, answer: Answer): string | null {
  const { picks, figures } = answer;
  const own = step.refuses?.(answer) ?? null;
  if (own !== null) return own;
  if (answer.note.length > MOST_NOTE) return `expected a note of up to ${MOST_NOTE} characters`;
  switch (step.kind) {
    case 'ask':
    case 'decide':
      return picks.length === 1 ? pickProblem(step.options, picks) : 'expected one of the choices';
    case 'look':
      return picks.filter((p) => step.exits.some((e) => e.value === p)).length === 1
        ? pickProblem([...step.options, ...step.exits], picks)
        : `expected one of: ${step.exits.map((e) => e.name).join(', ')}`;
    case 'measure':
      if (picks.includes('cannot')) return step.cannot === undefined ? 'expected a figure' : null;
      for (const f of step.figures) {
        const problem = numberProblem(f, figures.find((g) => g.name === f.name)?.value);
        if (problem !== null) return problem;
      }
      return null;
    case 'flip':
      return picks.length === 1 && ['dead', 'live'].includes(picks[0]!) ? null : 'expected dead or still on';
    case 'read':
    case 'test':
      return picks.includes('skip') && answer.note.trim() === '' ? 'expected why it is left out' : null;
    case 'think':
      return picks.length === 1 ? null : 'expected what comes next';
    case 'dead':
    case 'clamp':
    case 'power':
      return 'it is recorded by its own form';
    default:
      return null;
  }
}

const nameOf = (options: readonly Option[], pick: string): string =>
  options.find((o) => o.value === pick)?.name ?? pick;

/** A text of so many characters at most, and no half of one at its end. */
const cut = (text: string, most: number): string => text.slice(0, most).replace(/[\ud800-\udbff]$/, '');

/** An answer in words, for the record. */
function said(step: Step, answer: Answer): string {
  if (step.says && !answer.picks.includes('skip')) return cut(step.says(answer).replace(/\s+/g, ' '), 400);
  const options = [...('options' in step ? step.options : []), ...('exits' in step ? step.exits : [])];
  // The exit of a look says something only where nothing else was ticked, or where there are several.
  const exits = step.kind === 'look' && step.exits.length === 1 ? step.exits : [];
  const told = answer.picks.filter((p) => answer.picks.length === 1 || !exits.some((e) => e.value === p));
  const parts = told.map((p) => nameOf(options, p));
  if (step.kind === 'measure') {
    if (answer.picks.includes('cannot')) parts.splice(0, parts.length, step.cannot ?? 'not measured');
    for (const f of step.figures) {
      const value = answer.figures.find((g) => g.name === f.name)?.value;
      if (value !== undefined) parts.push(`${f.label} ${value} ${f.unit}`.trim());
    }
  }
  if (answer.note.trim() !== '') parts.push(answer.note.trim().replace(/\s+/g, ' '));
  return cut(parts.join('; '), 400);
}

/** Commands as one: all of them or none. */
const asOne = (label: string, commands: Command[]): Command =>
  commands.length === 1 ? commands[0]! : { type: 'batch', label: label.slice(0, 80), commands };

/** What hands are in at a step. */
const touchesOf = ({ document }: Context, step: Step): Entry['touches'] => {
  const { key, inside, inPanel } = step;
  return [
    ...(inside ? [{ in: 'box' as const, id: inside.id }] : []),
    ...(partsNeutrals(step) ? [{ in: 'neutral' as const, id: step.inside.id }] : []),
    ...(inPanel || provesPanel(key) ? [{ in: 'panel' as const, id: panelOf(document).id }] : []),
  ];
};

/** The command that puts an answer on record with all that it changes in the job: whole or not at all. */
export function answerCommand(c: Context, step: Step, answer: Answer, { by, at }: Signed): Command {
  const entry: Entry = {
    id: newId('entry'),
    callId: c.call.id,
    step: step.key,
    title: step.title.slice(0, 200),
    said: said(step, answer),
    touches: touchesOf(c, step),
    at,
    by,
    picks: [...answer.picks],
    value: answer.value,
    figures: [...answer.figures],
    note: answer.note.trim(),
    strikes: null,
  };
  const effects = step.effects?.(answer, { by, at }, entry.id) ?? [];
  const { document } = c;
  const closed: Command[] = [
    ...(step.leaves && step.inside
      ? [closingCommand(document, { in: 'box', id: step.inside.id }, step.leaves, { by, at })]
      : []),
    ...(step.closesPanel
      ? [closingCommand(document, { in: 'panel', id: panelOf(document).id }, 'closed', { by, at })]
      : []),
  ];
  return asOne(step.title, [...effects, { type: 'put', table: 'entries', rows: [entry] }, ...closed]);
}

/** Puts something on record that no step asked for. */
export const addedCommand = (
  callId: string,
  said: Pick<Entry, 'step' | 'title' | 'said' | 'picks'>,
  { by, at }: Signed,
): Command => {
  const rest = { touches: [], value: null, figures: [], note: '', strikes: null };
  return { type: 'put', table: 'entries', rows: [{ ...said, ...rest, id: newId('entry'), callId, at, by }] };
};

/** Takes one answer back, wherever in the call it stands. */
export const strikeCommand = (entry: Entry, signed: Signed): Command => ({
  type: 'put',
  table: 'entries',
  rows: [
    {
      ...struckBy(entry, 'entry', signed),
      ...NO_ANSWER,
      picks: [],
      figures: [],
      said: 'taken back',
      touches: [],
    },
  ],
});

/** Gives another answer in place of one that is on record. */
export const insteadCommand = (entry: Entry, values: Partial<Entry>, signed: Signed): Command =>
  asOne(entry.title, [
    strikeCommand(entry, signed),
    {
      type: 'put',
      table: 'entries',
      rows: [{ ...entry, ...values, ...signed, id: newId('entry'), strikes: null }],
    },
  ]);

/** Takes the last answer back; what it changed in the job stays until it is answered otherwise. Null: there is none. */
export function backCommand({ document, log }: Context, signed: Signed): Command | null {
  const last = log.entries.at(-1);
  if (!last) return null;
  // What a look put on record with the answer is taken back with it.
  const flips = rows(document.flips).filter((f) => f.at === last.at && f.strikes === null);
  const partings = rows(document.partings).filter((p) => p.at === last.at && p.strikes === null);
  return asOne('Back', [
    strikeCommand(last, signed),
    ...strikeFlips(flips, signed),
    ...strikePartings(partings, signed),
  ]);
}

/** What was answered at a step before it was taken back, to start from. */
export function earlierAnswer({ log }: Context, { key }: Step): Answer | null {
  const entry = log.earlier(key);
  return entry && { picks: entry.picks, value: entry.value, figures: entry.figures, note: entry.note };
}
