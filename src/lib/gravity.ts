/** Signs that stand beside the words for how grave a finding is: never color alone. */
import type { Level } from '#core/code/rule.ts';

export const SIGNS: Record<Level, string> = {
  violation: '✕',
  unknown: '?',
  recommended: '△',
  note: 'i',
  satisfied: '✓',
};
