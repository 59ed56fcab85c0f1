import type { PerEdition } from '#core/tables/editions.ts';
import { byName } from '#core/job/names.ts';
import type { Command } from '#core/job/commands.ts';
import type { Area, Box, Circuit, Fixture, Job, Panel, Stop, TableName } from '#core/job/schema.ts';
import type { WallSpan } from '#core/plan/wallSpaces.ts';
import type { Quantity } from '#core/units/quantity.ts';
import type { Scope } from '#core/view/touched.ts';
import type { View } from '#core/view/view.ts';
import type { Facts } from './facts.ts';

/**
 * `violation`: the code asks for it. `recommended`: advice or shop habit. `note`: worth knowing.
 * `unknown`: cannot be judged on what is recorded. `satisfied`: judged and in order.
 */
export type Level = 'violation' | 'unknown' | 'recommended' | 'note' | 'satisfied';

export const LEVELS: readonly Level[] = ['violation', 'unknown', 'recommended', 'note', 'satisfied'];

/** Orders findings for reading: gravest first, then by what they are about. */
export const byGravity = (a: Finding, b: Finding): number =>
  LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) || byName(a.about, b.about);

/** A fix is data: a command to run, or a room to place outlets in. */
export type Fix = { label: string } & ({ command: Command } | { placeIn: string });

/** What a rule says of its subject. */
export interface Verdict {
  level: Level;
  message: string;
  /** Section where it differs from the rule's own. */
  section?: string;
  measured?: Quantity;
  limit?: Quantity;
  /** Stretches of wall it is about, painted on the plan. */
  spans?: WallSpan[];
  fixes?: Fix[];
}

export interface Finding extends Omit<Verdict, 'fixes' | 'section'> {
  /** Stable across re-checks. */
  key: string;
  rule: string;
  title: string;
  section: string;
  about: { table: TableName | 'job'; id: string; name: string };
  why: string;
  fixes: Fix[];
  /** The local amendment it was judged under, in the user's own words. */
  amendment: string | null;
}

export interface Subjects {
  house: Job;
  area: Area;
  fixture: Fixture;
  box: Box;
  circuit: Circuit;
  panel: Panel;
}

export interface Rule<S extends Scope = Scope> extends Facts {
  id: string;
  title: string;
  scope: S;
  /** The gravest level it gives. */
  level: Exclude<Level, 'satisfied'>;
  sections: PerEdition<string>;
  /** Why it matters, in a sentence of plain language. */
  why: string;
  /** A limit that a local amendment may tighten. */
  limit?: { value: number; unit: 'in'; tighter: 'less' | 'more'; of: string };
  check(subject: Subjects[S], view: View): Verdict[];
}

/** Types a rule by its scope. */
export const rule = <S extends Scope>(definition: Rule<S>): Rule<S> => definition;

/** A command that changes fields of an outlet. */
export const changeBox = (box: Box, values: Partial<Box>): Command => ({
  type: 'put',
  table: 'boxes',
  rows: [{ ...box, ...values }],
});

/** A command that changes fields of an outlet's device. */
export const changeDevice = (box: Box, values: Partial<Box['device']>): Command => ({
  type: 'put',
  table: 'boxes',
  rows: [{ ...box, device: { ...box.device, ...values } }],
});

/** A command that changes fields of a circuit. */
export const changeCircuit = (circuit: Circuit, values: Partial<Circuit>): Command => ({
  type: 'put',
  table: 'circuits',
  rows: [{ ...circuit, ...values }],
});

/** A command that changes how a box is wired into its circuit. */
export const changeStop = (circuit: Circuit, boxId: string, values: Partial<Stop>): Command =>
  changeCircuit(circuit, {
    stops: circuit.stops.map((s) => (s.boxId === boxId ? { ...s, ...values } : s)),
  });

/** A command that changes fields of a panel. */
export const changePanel = (panel: Panel, values: Partial<Panel>): Command => ({
  type: 'put',
  table: 'panels',
  rows: [{ ...panel, ...values }],
});

/** A command that changes fields of a circuit's breaker. */
export const changeBreaker = (circuit: Circuit, values: Partial<Circuit['breaker']>): Command =>
  changeCircuit(circuit, { breaker: { ...circuit.breaker, ...values } });
