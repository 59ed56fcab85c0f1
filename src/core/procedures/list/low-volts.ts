import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, work, when, type Procedure } from '../step.ts';

export const lowVolts: Procedure = {
  id: 'low-volts',
  title: 'Low voltage everywhere',
  use: 'All of the house is dim, motors are slow, a meter reads low in every room.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet to read at', (box) => [
      ask(
        'complaint',
        'All alike?',
        'Alike everywhere it comes from outside; unlike on the two legs it is the neutral.',
        [
          ['low', 'Everywhere alike'],
          ['uneven', 'Some low, some high'],
          ['dim', 'Only on one circuit'],
        ],
      ),
      ...when(
        c.log.picked('complaint', 'uneven'),
        work(
          'main',
          'Main off, now',
          'With an open neutral one side gets up to 240 V.',
          [['Main off, electronics unplugged, the utility called.']],
          { caution: 'It stays off until the neutral was found.', done: 'Off, called' },
        ),
      ),
      ...breakerFor(c, box),
      ...hunting(c, c.circuit),
    ]),
};
