import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { complaint, hunting } from '../hunting/prelude.ts';
import type { Procedure } from '../step.ts';

export const hunt: Procedure = {
  id: 'hunt',
  title: 'Find a fault',
  use: 'Something is wrong on a circuit, and nobody knows where.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that shows it', (box) => [
      complaint(),
      ...breakerFor(c, box),
      ...hunting(c, c.circuit),
    ]),
};
