/**
 * What a procedure is made of: steps as data, with their choices, figures and what an answer changes in the job. Which step
 * comes when is a pure function of the document and of what was answered; the engine brings in proof of dead and power.
 */
import { byTime } from '#core/units/time.ts';
import type { TripPicture } from '#core/circuits/tripCurve.ts';
import type { Command } from '#core/job/commands.ts';
import { rows, standingRows } from '#core/job/document.ts';
import type {
  AreaKind,
  Box,
  Call,
  Circuit,
  Closing,
  DeviceKind,
  Entry,
  JobDocument,
  Reading,
} from '#core/job/schema.ts';
import type { View } from '#core/view/view.ts';

/** Who answers, and when (UTC). */
export interface Signed {
  by: string;
  at: string;
}

/** What was answered at one step. */
export interface Answer {
  picks: readonly string[];
  value: number | null;
  figures: readonly { name: string; value: number }[];
  note: string;
}
export const NO_ANSWER: Answer = { picks: [], value: null, figures: [], note: '' };

/** The answers of a call that stand: the newest of each step that was not taken back. */
export class Log {
  private readonly standing = new Map<string, Entry>();
  /** Newest answer of each step that was taken back: shown again, so that nothing is typed twice. */
  private readonly before = new Map<string, Entry>();
  /** In the order in which they were given. */
  readonly entries: readonly Entry[];

  constructor(document: JobDocument, callId: string) {
    const own = Object.fromEntries(Object.entries(document.entries).filter(([, e]) => e.callId === callId));
    this.entries = standingRows(own);
    const struck = new Set(rows(own).flatMap((e) => e.strikes ?? []));
    const taken = rows(own).filter((e) => struck.has(e.id));
    for (const e of taken.sort((a, b) => byTime(a.at, b.at))) this.before.set(e.step, e);
    for (const e of this.entries) this.standing.set(e.step, e);
  }

  has = (step: string): boolean => this.standing.has(step);
  entry = (step: string): Entry | null => this.standing.get(step) ?? null;
  /** What was answered here before it was taken back. */
  earlier = (step: string): Entry | null => this.before.get(step) ?? null;
  picks = (step: string): readonly string[] => this.standing.get(step)?.picks ?? [];
  pick = (step: string): string | null => this.picks(step)[0] ?? null;
  picked = (step: string, value: string): boolean => this.picks(step).includes(value);
  note = (step: string): string => this.standing.get(step)?.note ?? '';
  figure = (step: string, name: string): number | null =>
    this.standing.get(step)?.figures.find((f) => f.name === name)?.value ?? null;
}

/** All that a step may depend on. */
export interface Context {
  view: View;
  document: JobDocument;
  call: Call;
  log: Log;
  /** UTC time. */
  now: string;
  /** The outlet, its circuit and its appliance, as far as they are on record. */
  box: Box | null;
  circuit: Circuit | null;
}

/** How a decision came about: a line, its figures and its section. */
export interface Line {
  text: string;
  because?: string;
  section?: string;
}

interface Base {
  /** Its own name in the log. */
  key: string;
  title: string;
  text?: string;
  why: string;
  caution?: string;
  /** How what it says was worked out. */
  working?: readonly Line[];
  /** When its breaker opens, with what it carries. */
  curve?: TripPicture;
  /** Hands are in this box: a proof of dead has to hold. */
  inside?: Box | null;
  /** The neutrals of the box stay joined, or were parted before; where nothing is said, work in a box may part them. */
  keepsNeutrals?: true;
  /** Hands are in the panel: its main is off and its bus was read dead. */
  inPanel?: boolean;
  /** How the box is left once it is answered: closed, or open with its ends apart and capped and no hand in it. */
  leaves?: Closing['left'];
  /** The cover of the panel is on once it is answered. */
  closesPanel?: true;
  /** It is done with the power back on for use. */
  live?: Circuit | null;
  /** It is measured at an open box with the power on, nobody working. */
  liveOpen?: Circuit | null;
  /** It is on record already. */
  met?: boolean;
  /** What the answer changes in the job, and puts on record with it. @param entry id of the answer itself */
  effects?: (answer: Answer, signed: Signed, entry: string) => Command[];
  /** An answer in words for the record, where its choices and figures do not say it by themselves. */
  says?: (answer: Answer) => string;
  /** What is wrong with an answer, or null. */
  refuses?: (answer: Answer) => string | null;
}

export interface Option {
  value: string;
  name: string;
  hint?: string;
  /** Why it cannot be chosen here. */
  not?: string;
}

export interface Figure {
  name: string;
  label: string;
  unit: string;
  min: number;
  max: number;
  optional?: boolean;
  /** What is to be expected, said beside the field. */
  expects?: string;
}

/** A choice with what it brings and costs. */
export interface Choice extends Option {
  /** What it protects from, and what not. */
  brings: string;
  walls: 'none' | 'one' | 'several';
  hours: number;
  /** US dollars, by the job’s prices. */
  price: number;
  parts: readonly string[];
  labels: readonly string[];
  section: string;
  /** The one that we would choose. */
  first?: boolean;
}

export type Step = Base &
  (
    | { kind: 'ask'; options: readonly Option[]; noteLabel?: string; noteRows?: number; pictures?: true }
    /** Any number of choices, and one of the exits that ends the look. */
    | {
        kind: 'look';
        options: readonly Option[];
        exits: readonly Option[];
        pictures?: Box;
        noteLabel?: string;
      }
    /** `pictures` of a box, or of the call. */
    | {
        kind: 'measure';
        figures: readonly Figure[];
        cannot?: string;
        noteLabel?: string;
        pictures?: Box | true;
      }
    | { kind: 'read'; box: Box; half: Reading['half']; stage: Reading['stage'] }
    | { kind: 'dead'; box: Box }
    /** Its neutrals are clamped before one is parted. */
    | { kind: 'clamp'; box: Box }
    | { kind: 'power'; circuit: Circuit; purpose: 'use' | 'measurement' }
    | { kind: 'do'; lines: readonly Line[]; picture?: Box; done?: string }
    | { kind: 'decide'; options: readonly Choice[] }
    | { kind: 'test'; box: Box | null; circuit: Circuit; device: 'gfci' | 'afci' }
    | { kind: 'where'; device: DeviceKind; rooms: readonly AreaKind[] }
    | { kind: 'breaker'; box: Box }
    | { kind: 'flip'; off: readonly string[]; watch: Box; left: number; atMost: number }
    | { kind: 'phones'; watch: Box }
    /** What is asked next is worked out aside; its pick is an order of `hunting/orders.ts`. */
    | { kind: 'think'; circuit: Circuit }
    | { kind: 'record'; lines: readonly Line[] }
  );
export type StepKind = Step['kind'];
export type StepOf<K extends StepKind> = Extract<Step, { kind: K }>;

export interface Procedure {
  id: string;
  title: string;
  /** When to use it, in a sentence. */
  use: string;
  /** Steps under what is on record, in their order; those that do not come are left out. */
  steps: (c: Context) => readonly (Step | false | null)[];
}

/** Steps that come only so. */
export const when = (
  comes: unknown,
  ...steps: readonly (Step | false | null)[]
): readonly (Step | false | null)[] => (comes ? steps : []);

type Rest<K extends StepKind, Given extends string> = Omit<
  StepOf<K>,
  'kind' | 'key' | 'title' | 'why' | Given
>;
const options = (list: readonly (readonly [string, string, string?])[]): Option[] =>
  list.map(([value, name, hint]) => ({ value, name, ...(hint === undefined ? {} : { hint }) }));

/** A question with one answer; options as value, name and hint. */
export const ask = (
  key: string,
  title: string,
  why: string,
  list: readonly (readonly [string, string, string?])[],
  more: Partial<Rest<'ask', 'options'>> = {},
): Step => ({ kind: 'ask', key, title, why, options: options(list), ...more });

/** A look with any number of ticks, and the exits that end it. */
export const look = (
  key: string,
  title: string,
  why: string,
  list: readonly (readonly [string, string])[],
  exits: readonly (readonly [string, string])[],
  more: Partial<Rest<'look', 'options' | 'exits'>> = {},
): Step => ({ kind: 'look', key, title, why, options: options(list), exits: options(exits), ...more });

/** Work in lines: text, reason, section. */
export const work = (
  key: string,
  title: string,
  why: string,
  list: readonly (readonly [string, string?, string?])[],
  more: Partial<Rest<'do', 'lines'>> = {},
): Step => ({
  kind: 'do',
  key,
  title,
  why,
  lines: list.map(([text, because, section]) => ({
    text,
    ...(because ? { because } : {}),
    ...(section ? { section } : {}),
  })),
  ...more,
});

/** Figures to be read; each with its unit, range and what to expect. */
export const measure = (
  key: string,
  title: string,
  why: string,
  figures: readonly Figure[],
  more: Partial<Rest<'measure', 'figures'>> = {},
): Step => ({ kind: 'measure', key, title, why, figures, ...more });

export const volts = (name: string, label: string, expects?: string): Figure => ({
  name,
  label,
  unit: 'V',
  min: 0,
  max: 300,
  ...(expects ? { expects } : {}),
});
export const amps = (name: string, label: string, expects?: string): Figure => ({
  name,
  label,
  unit: 'A',
  min: 0,
  max: 400,
  ...(expects ? { expects } : {}),
});
export const optional = (figure: Figure): Figure => ({ ...figure, optional: true });
