import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { ask, measure, when, work, type Procedure } from '../step.ts';

export const tripsAtOnce: Procedure = {
  id: 'trips-at-once',
  title: 'Breaker trips at once',
  use: 'It goes as soon as it is put back, with a click or a bang.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that is dead', (box) => {
      const { log } = c;
      const wiring = log.picked('bare', 'short');
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
        ask('once', 'One try, with nothing on it', 'Once is evidence; twice is damage. Stand to the side.', [
          ['holds', 'It holds'],
          ['trips', 'It goes again, at once'],
          ['later', 'It holds, goes after a while'],
        ]),
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
        ...when(
          log.picked('once', 'trips'),
          measure(
            'ohms',
            'Ohms, dead, everything off it',
            'Hot to neutral or hot to ground near zero is the short; both open says the breaker.',
            [
              { name: 'hn', label: 'Hot to neutral', unit: 'Ω', min: 0, max: 1e7 },
              { name: 'hg', label: 'Hot to ground', unit: 'Ω', min: 0, max: 1e7 },
            ],
            { text: 'At this outlet, breaker off, box proved dead.', inside: box },
          ),
          ask(
            'bare',
            'What do they say?',
            'A transformer, doorbell or clock left on reads a few ohms and is no short.',
            [
              ['short', 'Under 5 Ω: a short in the wiring'],
              ['open', 'Thousands of ohms: no short now'],
            ],
          ),
        ),
        ...when(
          wiring,
          work(
            'halve',
            'Halve the run',
            'Each box opened in the middle parts what is left; walking box by box costs twice as many.',
            [
              ['Middle box of the run: its onward cable apart, dead.'],
              ['Ohms into each half: the half that reads the short is halved again.'],
              ['Signs first: a new screw in a wall, a picture hung, the last box that was worked in.'],
              ['Between two boxes: the cable itself. It is replaced, not spliced in the wall.', '', '300.15'],
            ],
            { inside: box, done: 'Found, mended' },
          ),
        ),
        ...when(
          log.picked('bare', 'open'),
          work(
            'breaker',
            'Then the breaker, or its landing',
            'A breaker that trips on nothing is worn, or its lug touches something.',
            [['Go on with “Swap a breaker”: its conductor off, insulated, one try without load.']],
            { done: 'Known' },
          ),
        ),
        ask(
          'after',
          'Breaker on, with everything back',
          'A cure is proved with the load that used to trip it.',
          [
            ['holds', 'It holds'],
            ['open', 'Left off, written down'],
          ],
        ),
      ];
    }),
};
