import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { look, work, type Procedure } from '../step.ts';

export const intermittent: Procedure = {
  id: 'intermittent',
  title: 'Comes and goes',
  use: 'It fails and comes back by itself, or when something is touched, warm or wet.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that it shows at', (box) => [
      look(
        'when',
        'When does it go?',
        'What brings it on is put on while it is measured: else it hides.',
        [
          ['load', 'With something large on'],
          ['warm', 'After it ran for a while'],
          ['touch', 'When a plug, switch or wall is touched'],
          ['wet', 'In rain or damp'],
          ['cold', 'In the cold'],
          ['door', 'When a door slams or somebody walks'],
        ],
        [['known', 'That is all that is known']],
      ),
      work(
        'bring-on',
        'Bring it on first',
        'A joint that is cool and still reads as a good one.',
        [
          ['The load of the complaint on for as long as it takes; a lamp at the outlet watches.'],
          ['Plates felt with the back of the hand, one after the other: the warm one is noted.'],
          ['Each cord wiggled at its plug, each switch worked ten times.'],
        ],
        { caution: 'A plate too hot to touch, or a smell: breaker off at once.', done: 'Tried' },
      ),
      ...breakerFor(c, box),
      ...hunting(c, c.circuit),
    ]),
};
