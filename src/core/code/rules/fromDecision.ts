import type { Box } from '#core/job/schema.ts';
import { decisionIfAsked, type Decision, type Topic } from '../decisions.ts';
import type { Fix, Verdict } from '../rule.ts';
import type { View } from '#core/view/view.ts';

const MISSING: Record<Topic, string> = {
  gfci: 'needs GFCI protection',
  afci: 'needs AFCI protection',
  'tamper-resistant': 'needs a tamper-resistant receptacle',
  'weather-resistant': 'needs a weather-resistant receptacle',
};

/** Turns the decision on one topic into what a rule says of an outlet. */
export function verdictFromDecision(
  topic: Topic,
  box: Box,
  view: View,
  fixes: () => Fix[],
  belongs: (decision: Decision) => boolean = () => true,
): Verdict[] {
  const decision = box.status === 'remove' ? null : decisionIfAsked(topic, view, box);
  if (!decision || !belongs(decision)) return [];
  const { reason, section, providedBy, waived, asked } = decision;
  if (asked === 'not-judged') return [];
  if (waived) return [{ level: 'note', message: `${box.name}: ${reason}`, section }];
  if (providedBy)
    return [{ level: 'satisfied', message: `${box.name}: ${reason}; provided by ${providedBy}`, section }];
  if (asked === 'not-known') return [{ level: 'unknown', message: `${box.name}: ${reason}`, section }];
  if (asked === 'existing') return [{ level: 'note', message: `${box.name}: ${reason}`, section }];
  return [
    {
      level: 'violation',
      message: `${box.name} ${MISSING[topic]}: ${reason}`,
      section,
      fixes: fixes(),
    },
  ];
}
