/** How a breaker is looked for, and what to do for each way. */
import type { FLIP_MEANS } from '#core/job/schema.ts';

export type Means = (typeof FLIP_MEANS)[number];

export const MEANS_WORDS: Readonly<Record<Means, { name: string; hint: string }>> = {
  eyes: { name: 'I go and look', hint: 'A lamp or tester in the outlet; every look is a walk.' },
  helper: { name: 'A helper watches', hint: 'A lamp in the outlet; the helper calls “off” and “on”.' },
  sound: {
    name: 'Alone, by ear',
    hint: 'A vacuum cleaner or a loud radio in the outlet, heard at the panel.',
  },
  'two-phones': {
    name: 'Two phones',
    hint: 'One listens at the outlet, the other stamps the flips here. No network needed.',
  },
  tone: { name: 'Tone at the panel', hint: 'Transmitter at the outlet, receiver along the breakers.' },
};
