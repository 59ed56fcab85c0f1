import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { ask, look, measure, optional, volts, when, work, type Procedure } from '../step.ts';

export const deadOutlet: Procedure = {
  id: 'dead-outlet',
  title: 'Dead outlet or room',
  use: 'Something has no power and its breaker looks on.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet that is dead', (box) => {
      const { log } = c;
      const found = (key: string) => log.picked(key, 'back');
      const back = ['gfcis', 'switches', 'breaker-reset'].some(found);
      const neutral = log.picked('volts-say', 'neutral');
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
        ...when(
          log.picked('breaker-reset', 'no'),
          ...breakerFor(c, box),
          measure(
            'volts',
            'Hot and neutral, each to ground',
            'An open hot and an open neutral look alike to a lamp.',
            [
              volts('hg', 'Hot slot to ground'),
              volts('ng', 'Neutral slot to ground'),
              volts('hn', 'Hot to neutral'),
              optional(volts('lead', 'Hot slot to a lead from a proven ground')),
            ],
            {
              text: 'Low-impedance meter, so that ghosts fall to nothing.',
              caution: 'Face on, probes only.',
            },
          ),
          ask(
            'volts-say',
            (log.figure('volts', 'hg') ?? 0) > 90 || (log.figure('volts', 'lead') ?? 0) > 90
              ? 'Hot is there: the neutral is open'
              : 'No hot arrives',
            'The neutral slot near 120 V with a load on says the same.',
            [
              [
                (log.figure('volts', 'hg') ?? 0) > 90 || (log.figure('volts', 'lead') ?? 0) > 90
                  ? 'neutral'
                  : 'hot',
                'Go on',
              ],
            ],
          ),
          look(
            'neighbors',
            'What else is dead?',
            'The fault lies between the last that works and the first that does not.',
            [
              ['room', 'Others in this room'],
              ['next', 'In the next room'],
              ['lights', 'Lights as well'],
              ['alone', 'Only this one'],
            ],
            [['looked', 'All tried']],
            { noteLabel: 'The last one that works, nearest to it' },
          ),
          ask(
            'open-which',
            'Which box is opened first?',
            neutral
              ? 'A neutral opens most at a push-in or a splice upstream.'
              : 'Most opens sit at a push-in of the last live or the first dead box.',
            [
              ['live', 'The last that works', 'its onward splice'],
              ['dead', 'The first that is dead', 'its feed'],
            ],
          ),
          ...lookInside(c, box),
          ask(
            'found-open',
            'Found?',
            'A push-in that looks whole is tugged; a splice is made anew.',
            [
              ['yes', 'Yes: a loose or burnt end here'],
              ['no', 'No: all tight here'],
            ],
            { inside: box },
          ),
          ...when(log.picked('found-open', 'yes'), ...wireUp(c, box, 'Make it anew'), ...testAfter(c, box)),
          ...when(
            log.picked('found-open', 'no'),
            work(
              'next-box',
              'The next box',
              'Each box opened moves the last good one by one; a tone does it without opening.',
              [
                [
                  'Close this one; the neighbor on the other side of the gap is next: another call of this kind there.',
                ],
                [
                  'Or a transmitter on the dead conductor, unplugged and apart: strengths box by box at one gain.',
                ],
                ['No box left: a hidden one, or the cable itself.'],
              ],
              { inside: box, done: 'Closed, written down' },
            ),
          ),
        ),
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
