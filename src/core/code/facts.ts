/**
 * The least facts that a rule needs. A job need not be drawn, nor a circuit be known whole: what a rule would then say of
 * what nobody knows is not said.
 */
import type { Area, Box, Circuit, Fixture, Panel } from '#core/job/schema.ts';
import { runOf } from '#core/circuits/run.ts';
import type { Scope } from '#core/view/touched.ts';
import type { View } from '#core/view/view.ts';
import type { Subjects } from './rule.ts';

/** Each fact with what is said where it is missing. */
export const NEEDS = {
  /** Its room is drawn, and it stands on the plan; of a circuit or the house, all that belong to it. */
  plan: 'no plan',
  /** The length of every cable was measured, or follows from the plan. */
  lengths: 'cable lengths are not on record',
  /** Which box feeds which. */
  order: 'the order of its boxes is not on record',
  /** Every outlet of the circuit, or of every circuit. */
  'all outlets': 'not all that it feeds is on record',
  conductors: 'its conductors were not looked at',
  panel: 'the main, the bus and the spaces of the panel are not on record',
} as const;
export type Need = keyof typeof NEEDS;
const NEED_WORDS: Readonly<Record<Need, string>> = {
  plan: 'the plan',
  lengths: 'cable lengths',
  order: 'the order of the boxes',
  'all outlets': 'every outlet of the circuit',
  conductors: 'its conductors',
  panel: 'the panel’s ratings and spaces',
};

/** Facts without which a rule does not judge; those it needs to say that all is in order; those to find fault. */
export interface Facts {
  needs?: readonly Need[];
  clears?: readonly Need[];
  blames?: readonly Need[];
}

const isDrawn = (area: Area | undefined): boolean => area !== undefined && area.walls.length > 0;

/** Whether an outlet or a fixture stands on the plan of a room that is drawn. */
export const isPlaced = (view: View, { areaId, wallId }: Box | Fixture): boolean =>
  wallId !== null && isDrawn(view.document.areas[areaId]);

const circuitsOf = (view: View, scope: Scope, subject: Subjects[Scope]): readonly Circuit[] => {
  switch (scope) {
    case 'circuit':
      return [subject as Circuit];
    case 'box': {
      const circuit = view.circuitOf((subject as Box).id);
      return circuit ? [circuit] : [];
    }
    case 'panel':
      return view.circuitsIn(subject as Panel);
    default:
      return view.rows('circuits').filter((c) => c.status !== 'remove');
  }
};

const panelsOf = (view: View, scope: Scope, subject: Subjects[Scope]): readonly Panel[] =>
  scope === 'panel' ? [subject as Panel] : view.rows('panels').filter((p) => p.status !== 'remove');

function hasPlan(view: View, scope: Scope, subject: Subjects[Scope]): boolean {
  switch (scope) {
    case 'area':
      return isDrawn(subject as Area);
    case 'box':
    case 'fixture':
      return isPlaced(view, subject as Box | Fixture);
    case 'circuit':
      return runOf(view, subject as Circuit).stops.every(({ box }) => isPlaced(view, box));
    case 'house':
    case 'panel':
      return view.rows('areas').every(isDrawn);
  }
}

/** What a rule needs, in words; empty where it judges whatever is on record. */
export function needsOf({ needs = [], clears = [], blames = [] }: Facts): string {
  const words = (list: readonly Need[]) => list.map((n) => NEED_WORDS[n]).join(', ');
  return [
    words(needs),
    clears.length > 0 && `to say in order: ${words(clears)}`,
    blames.length > 0 && `to find fault: ${words(blames)}`,
  ]
    .filter(Boolean)
    .join('; ');
}

/** Whether a fact is on record for a subject. */
export function isKnown(view: View, need: Need, scope: Scope, subject: Subjects[Scope]): boolean {
  switch (need) {
    case 'plan':
      return hasPlan(view, scope, subject);
    case 'order':
      return circuitsOf(view, scope, subject).every((c) => c.ordered === 'yes');
    case 'conductors':
      return circuitsOf(view, scope, subject).every((c) => c.seen === 'yes');
    case 'panel':
      return panelsOf(view, scope, subject).every((p) => p.known === 'yes');
    case 'all outlets':
      return circuitsOf(view, scope, subject).every((c) => c.complete === 'yes');
    case 'lengths':
      return circuitsOf(view, scope, subject).every((c) =>
        runOf(view, c).stops.every(({ segment }) => segment.source !== 'assumed'),
      );
  }
}
