/** How far today's rule reaches back. */
import type { Box } from '#core/job/schema.ts';
import type { Verdict } from '../rule.ts';

/** Existing work that is left alone is not brought up to today's rule: what would be asked for is noted. */
export const byAge = (box: Box, verdict: Verdict): Verdict =>
  box.status === 'existing' && verdict.level === 'violation'
    ? {
        ...verdict,
        level: 'note',
        message: `${verdict.message}; existing and not altered`,
        fixes: verdict.fixes ?? [],
      }
    : verdict;
