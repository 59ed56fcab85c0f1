import { asFound } from '../parts/box.ts';
import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const deadOutlet: Procedure = {
  id: 'dead-outlet',
  title: 'Dead outlet or room',
  use: 'Something has no power and its breaker looks on.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that is dead', (box) => {
      const { log } = c;
      const found = (key: string) => log.picked(key, 'back');
      const back = ['gfcis', 'switches', 'breaker-reset'].some(found);
      return [
        asFound(c, box),
        ask(
          'gfcis',
          'Every GFCI: press reset',
          'One tripped in the garage takes the bathroom: chains leave the room.',
          [
            ['back', 'It is back'],
            ['no', 'All reset, still dead'],
          ],
          {
            text: 'Kitchen, bathrooms, garage, basement, outdoors, laundry, behind the freezer; and in the panel.',
          },
        ),
        ...when(
          log.picked('gfcis', 'no'),
          ask(
            'switches',
            'Every switch in the room: try both ways',
            'A half-hot outlet waits for a switch that nobody knows.',
            [
              ['back', 'It is back'],
              ['no', 'Still dead'],
            ],
          ),
        ),
        ...when(
          log.picked('switches', 'no'),
          ask(
            'breaker-reset',
            'Its breaker: fully off, then on',
            'A tripped handle may stand near “on”. If it goes again at once it stays off.',
            [
              ['back', 'It is back'],
              ['trips', 'It trips at once'],
              ['no', 'It holds, still dead'],
            ],
          ),
        ),
        ...when(
          log.picked('breaker-reset', 'trips'),
          work('leave-off', 'Leave it off', 'It reports a short: go on with “Breaker trips at once”.', [
            ['Off, told, no more resets.'],
          ]),
        ),
        ...when(log.picked('breaker-reset', 'no'), ...breakerFor(c, box), ...hunting(c, c.circuit)),
        ...when(
          back,
          ask('why-off', 'Why was it off?', 'What tripped it may still be there.', [
            ['known', 'Known: overload, rain, a test'],
            ['unknown', 'Not known: watch it'],
          ]),
        ),
      ];
    }),
};
