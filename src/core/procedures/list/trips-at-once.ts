import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const tripsAtOnce: Procedure = {
  id: 'trips-at-once',
  title: 'Breaker trips at once',
  use: 'It goes as soon as it is put back, with a click or a bang.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that is dead', (box) => {
      const { log } = c;
      return [
        ...breakerFor(c, box),
        work(
          'leave',
          'Leave it off',
          'It is reporting a short: each reset burns the fault and the contacts.',
          [
            ['No more resets until something was changed.'],
            ['Unplug everything on it; light switches off; hardwired things off at their disconnect.'],
          ],
          { caution: 'Do not reset again to see.', done: 'Off, and everything off it' },
        ),
        ask(
          'once',
          'One try, with nothing on it',
          'Once is evidence; twice is damage. Stand to the side.',
          [
            ['holds', 'It holds'],
            ['trips', 'It goes again, at once'],
            ['later', 'It holds, goes after a while'],
          ],
          { live: c.circuit },
        ),
        ...when(
          log.picked('once', 'holds'),
          work(
            'loads',
            'One of the loads',
            'The wiring carries no short: what was unplugged does.',
            [
              ['Breaker off, one thing plugged in, breaker on; then the next.'],
              ['The one that takes it down is marked and stays out. Look at its cord first.'],
            ],
            { done: 'Found, taken out' },
          ),
        ),
        ...when(
          log.picked('once', 'later'),
          work('late', 'It is another matter', 'What trips after minutes is heat or leakage, not a short.', [
            ['Go on with “Breaker trips after a while”.'],
          ]),
        ),
        ...when(log.picked('once', 'trips'), ...hunting(c, c.circuit)),
        ask('end', 'Does it go back on?', 'Left off is an honest end: locked, tagged, and somebody told.', [
          ['on', 'On, with everything back'],
          ['open', 'Left off, written down'],
        ]),
        ...when(
          log.picked('end', 'on'),
          ask(
            'after',
            'With everything back',
            'A cure is proved with the load that used to trip it.',
            [
              ['holds', 'It holds'],
              ['trips', 'It went again: left off'],
            ],
            { live: c.circuit },
          ),
        ),
      ];
    }),
};
