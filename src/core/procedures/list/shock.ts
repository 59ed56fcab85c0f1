import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const shock: Procedure = {
  id: 'shock',
  title: 'Shock or tingle',
  use: 'Somebody felt a shock or a tingle at an appliance, a tap or a lamp.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that it is plugged in at', (box) => [
      work(
        'care',
        'First the people, then the power',
        'A shock that went through the chest can stop a heart hours later.',
        [
          ['Whoever felt it strongly sees a doctor, even if well.'],
          ['Its breaker off, or the main where taps tingle; nobody touches it.'],
          ['It is unplugged by its cord, dry hands, one hand, shoes on.'],
        ],
        {
          caution: 'It is measured through the slots only, with the appliance unplugged.',
          done: 'Done, it is unplugged',
        },
      ),
      ask(
        'how-many',
        'Where does it tingle?',
        'At taps and several appliances it is the ground or neutral of the house, at one it is that or its outlet.',
        [
          ['one', 'At this one thing'],
          ['many', 'At several, or at taps'],
        ],
      ),
      ...when(
        c.log.picked('how-many', 'many'),
        work(
          'main',
          'Main off, utility called',
          'An open service neutral makes every ground of the house live.',
          [['Main off. Say “open neutral, metal is live”. It comes at any hour.']],
          { caution: 'Nobody bathes, nobody touches taps.', done: 'Off, called' },
        ),
      ),
      ...breakerFor(c, box),
      ...hunting(c, c.circuit),
    ]),
};
