import type { Edition, JobDocument } from '#core/job/schema.ts';
import type { Level } from '#core/code/rule.ts';

/** The gravest level a rule gives; null where it is silent. */
export type Answer = Level | null;
/** In 2017, 2020 and 2023. */
export type Answers = readonly [Answer, Answer, Answer];

/** A situation and what one rule says of it. */
export interface RuleCase {
  rule: string;
  what: string;
  document(edition: Edition): JobDocument;
  answers: Answers;
  /** Words in its message or section where it answers as in 2020. */
  words?: RegExp;
}

export const V = 'violation';
export const S = 'satisfied';

/** An answer that stands alone holds in every edition. */
export const asCase = (
  rule: string,
  what: string,
  document: RuleCase['document'],
  answers: Answer | Answers,
  words?: RegExp,
): RuleCase => ({
  rule,
  what,
  document,
  answers: typeof answers === 'object' && answers ? answers : [answers, answers, answers],
  words,
});
