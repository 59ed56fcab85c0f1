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

export function summarize(findings: readonly Finding[]): Summary {
  const counts = countsOf(findings);
  return {
    counts,
    clean: counts.violation + counts.unknown === 0,
    findings: findings.map(({ fixes: _fixes, ...rest }) => rest),
  };
}

/** How many violations more, or fewer where negative, a rule finds after a change. */
export interface ViolationChange {
  title: string;
  by: number;
}

/** What a change of the job does to its violations, rule by rule: what it mends most first, what it brings last. */
export function violationChanges(before: readonly Finding[], after: readonly Finding[]): ViolationChange[] {
  const by = new Map<string, number>();
  const count = (findings: readonly Finding[], one: number) => {
    for (const f of findings) if (f.level === 'violation') by.set(f.title, (by.get(f.title) ?? 0) + one);
  };
  count(before, -1);
  count(after, 1);
  return [...by]
    .filter(([, n]) => n !== 0)
    .map(([title, n]) => ({ title, by: n }))
    .sort((a, b) => a.by - b.by || a.title.localeCompare(b.title));
}
