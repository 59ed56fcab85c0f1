/** What the command line and the server say of a check: counts by level, then the findings. */
import type { Finding, Level } from './rule.ts';

export interface Summary {
  counts: Record<Level, number>;
  /** Nothing violated and nothing left unjudged. */
  clean: boolean;
  findings: Omit<Finding, 'fixes'>[];
}

/** How many findings there are of each level. */
export function countsOf(findings: readonly Finding[]): Record<Level, number> {
  const counts: Record<Level, number> = { violation: 0, unknown: 0, recommended: 0, note: 0, satisfied: 0 };
  for (const f of findings) counts[f.level]++;
  return counts;
}

export function summarise(findings: readonly Finding[]): Summary {
  const counts = countsOf(findings);
  return {
    counts,
    clean: counts.violation + counts.unknown === 0,
    findings: findings.map(({ fixes: _fixes, ...rest }) => rest),
  };
}
