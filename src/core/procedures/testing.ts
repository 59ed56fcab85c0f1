/** Walking procedures as a person would: for tests and for the demo. */
import { run } from '#core/job/commands.ts';
import { newJob } from '#core/job/document.ts';
import type { Call, Energizing, JobDocument } from '#core/job/schema.ts';
import { GATES } from '#core/records/gates.ts';
import { powerCommand, waitsFor } from '#core/records/open.ts';
import { clamped, draftFor, recorded, walk } from '#core/records/testing.ts';
import { View } from '#core/view/view.ts';
import { addedCommand, answerCommand, contextOf, problemWith, standingOf } from './engine.ts';
import { procedureOf } from './index.ts';
import { callOf } from './tiles.ts';
import { NO_ANSWER, type Answer, type Context, type Procedure, type Step } from './step.ts';

/** A call of a procedure in a job that nobody has drawn. @param at UTC time */
function jobWithCall(procedure: string, at: string, by: string): JobDocument {
  const empty = newJob('A call', '2023', 'call');
  const call: Call = { ...callOf({ name: '', procedure }, by, at), id: 'call-1' };
  return {
    ...empty,
    job: { ...empty.job, otherSources: { asked: true, kinds: [] } },
    calls: { [call.id]: call },
  };
}

/** One person at one call, with a clock that goes on by itself. */
export class Walker {
  document: JobDocument;
  readonly procedure: Procedure;
  private minute = 0;
  private readonly start: number;

  constructor(
    procedure: string,
    start = Date.parse('2026-05-04T14:00:00Z'),
    private readonly by = 'A. Tester',
  ) {
    this.start = start;
    this.document = jobWithCall(procedure, this.now, by);
    this.procedure = procedureOf(procedure)!;
  }

  get now(): string {
    return new Date(this.start + this.minute * 1000).toISOString();
  }
  get call(): Call {
    return this.document.calls['call-1']!;
  }
  private known: { document: JobDocument; now: string; context: Context; step: Step | null } | null = null;
  private stand() {
    const { document, now } = this;
    if (this.known?.document !== document || this.known.now !== now) {
      const context = contextOf(new View(document), this.call, now);
      this.known = { document, now, context, step: standingOf(this.procedure, context).current };
    }
    return this.known;
  }
  get context(): Context {
    return this.stand().context;
  }
  get step(): Step | null {
    return this.stand().step;
  }

  /** Runs commands behind every gate. @throws InvalidError where one is refused */
  run(commands: readonly Parameters<typeof run>[1][]): void {
    for (const command of commands) this.document = run(this.document, command, GATES).document;
  }

  /** @returns what is wrong with the answer, or null once it is on record */
  answer(values: Partial<Answer>): string | null {
    this.minute += 1;
    const { step } = this;
    if (!step) return 'the call is over';
    const answer = { ...NO_ANSWER, ...values };
    const problem = problemWith(step, answer);
    if (problem !== null) return problem;
    this.run([answerCommand(this.context, step, answer, { by: this.by, at: this.now })]);
    return null;
  }

  /** Puts something on record that no step asked for. */
  add(step: string, picks: readonly string[]): void {
    this.minute += 1;
    const said = { step, title: step, said: picks.join(', '), picks: [...picks] };
    this.run([addedCommand(this.call.id, said, { by: this.by, at: this.now })]);
  }

  /** A whole proof of dead of a box, each act as it should be. */
  prove(boxId: string): void {
    const box = () => this.document.boxes[boxId]!;
    if (box().cables === null && box().wiring === null)
      this.run([{ type: 'put', table: 'boxes', rows: [{ ...box(), cables: 2 }] }]);
    this.minute += 1;
    const draft = draftFor(this.document, box(), {
      basis: 'dead-outlet',
      reference: 'lead',
      referenceName: 'lead from the ground bar',
      by: this.by,
    });
    const seen = walk(this.document, box(), draft);
    const made = recorded(this.document, box(), draft, seen, { id: `proof-${this.ids++}`, at: this.now });
    this.run([
      { type: 'put', table: 'observations', rows: made.observations },
      { type: 'put', table: 'proofs', rows: [made.proof] },
    ]);
  }
  /** A clamp around each neutral of a box that shows nothing, with a load on all else of its panels. */
  clamp(boxId: string): void {
    this.minute += 1;
    const box = this.document.boxes[boxId]!;
    const rows = clamped(this.document, box).map((seen) => ({
      ...{ ...seen, link: '', id: `clamp-${this.ids++}`, boxId, place: box.name },
      ...{ at: this.now, by: this.by },
    }));
    this.run([{ type: 'put', table: 'observations', rows }]);
  }
  private ids = 0;

  energize(circuitId: string, purpose: Energizing['purpose']): void {
    this.minute += 1;
    const circuit = this.document.circuits[circuitId]!;
    const signed = { by: this.by, at: this.now };
    const closing = waitsFor(this.document, circuit, { purpose, by: this.by });
    this.run([powerCommand(this.document, circuit, purpose, signed, closing)]);
  }
}

/** Orders that any circuit may be given. */
const SOME_ORDERS = [
  'elsewhere',
  'appliance',
  'legs',
  'amps',
  'breaker',
  'open panel',
  'repair plugged appliance',
  'done',
  'stop none fits',
] as const;

/** What a panel that is dead shows, each of its steps answered as it has to be; null at any other step. */
export function panelAnswer(step: Step, volts = 0): Partial<Answer> | null {
  if (step.kind === 'look' && step.key === 'panel-off')
    return { picks: [...step.options.map((o) => o.value).filter((v) => v !== 'fed'), 'done'] };
  if (step.kind !== 'measure' || step.key !== 'panel-dead') return null;
  return {
    figures: step.figures.map(({ name, label }) => ({
      name,
      value: label.startsWith('Tester') ? 120 : volts,
    })),
  };
}

/** An answer that a step takes. @param pick a number below n, whatever it is drawn from */
export function someAnswer(step: Step, pick: (n: number) => number): Partial<Answer> {
  const dead = panelAnswer(step);
  if (dead && pick(4) > 0) return dead;
  switch (step.kind) {
    case 'ask':
    case 'decide': {
      const open = step.options.filter((o) => o.not === undefined);
      const chosen = open[pick(open.length)];
      const note =
        'noteRows' in step && step.noteRows
          ? 'Outlet in the hall is loose\nNo GFCI in the bath'
          : 'by the door';
      return { picks: chosen ? [chosen.value] : [], note };
    }
    case 'look': {
      const picks = step.options.filter(() => pick(4) === 0).map((o) => o.value);
      return { picks: [...picks, step.exits[pick(step.exits.length)]!.value] };
    }
    case 'measure': {
      if (step.cannot !== undefined && pick(4) === 0) return { picks: ['cannot'] };
      return {
        figures: step.figures.map((f) => {
          if (f.unit === '') return { name: f.name, value: f.min + pick(Math.min(5, f.max - f.min + 1)) };
          const usual =
            f.unit === 'V' && f.label.startsWith('Tester') ? 120 : f.min + ((f.max - f.min) * pick(8)) / 8;
          return { name: f.name, value: Math.round(usual * 100) / 100 };
        }),
      };
    }
    case 'where':
      return { picks: [step.rooms[pick(step.rooms.length)]!], note: 'left of the bed' };
    case 'breaker':
      return step.key === 'breaker' && pick(3) === 0
        ? { picks: ['find'] }
        : { picks: ['1'], value: [15, 20][pick(2)]!, note: String(1 + pick(12)) };
    case 'flip':
      return { picks: [pick(2) === 0 ? 'dead' : 'live'] };
    case 'think':
      return { picks: [SOME_ORDERS[pick(SOME_ORDERS.length)]!] };
    case 'read':
    case 'test':
      return { picks: ['skip'], note: 'not to hand' };
    default:
      return { picks: ['done'] };
  }
}
