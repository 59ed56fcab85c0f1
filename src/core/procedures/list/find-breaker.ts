import { findBreaker, panelOf, searchFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import type { Procedure } from '../step.ts';

export const findTheBreaker: Procedure = {
  id: 'find-breaker',
  title: 'Find the breaker',
  use: 'Nobody knows which breaker feeds an outlet, or the directory is not to be trusted.',
  steps: (c) =>
    atOutlet(
      c,
      'duplex',
      'outlet',
      (box) => findBreaker(c, box),
      (box) => {
        const { certain, possible } = searchFor(c.document, panelOf(c.document), box);
        return [
          {
            text:
              certain !== null
                ? `Breaker ${certain} feeds ${box.name}: it was seen dead with it off.`
                : `Still possible: ${possible.join(', ') || 'none; the flips contradict each other'}.`,
          },
        ];
      },
    ),
};
