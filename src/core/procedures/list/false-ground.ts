import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, work, type Procedure } from '../step.ts';

export const falseGround: Procedure = {
  id: 'false-ground',
  title: 'False ground',
  use: 'An old outlet reads grounded though no ground should be there, or neutral to ground reads exactly zero.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that is suspected', (box) => [
      work(
        'lead',
        'A lead from a ground that was shown good',
        'The outlet’s own ground cannot judge itself: an independent one does.',
        [
          [
            'From a ground rod conductor, a metal water pipe near its entry, or an outlet of another circuit.',
          ],
          ['Hot of this outlet to the lead reads about 120 V: the lead is good.'],
        ],
        {
          caution: 'Probes only. Nobody touches what is plugged in here meanwhile.',
          done: 'Lead is here, shown good',
        },
      ),
      ask('complaint', 'Why is it suspected?', 'A zero under load, or a third slot in an old house.', [
        ['none', 'Neutral to ground reads zero under load'],
        ['shock', 'Somebody felt a tingle'],
        ['dead', 'It is dead as well'],
      ]),
      ...breakerFor(c, box),
      ...hunting(c, c.circuit),
    ]),
};
