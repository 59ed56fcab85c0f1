import { breakerFor } from '../parts/breaker.ts';
import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { fit } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, signs } from '../parts/place.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const halfHot: Procedure = {
  id: 'half-hot',
  title: 'Switched or half-hot receptacle',
  use: 'A switch controls a receptacle or one half of it.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet', (box) => {
      const half = c.log.picked('which-half', 'half');
      return [
        asFound(c, box),
        ...signs(c),
        ...breakerFor(c, box),
        ask(
          'which-half',
          'What does the switch control?',
          'The tab between the brass screws joins both halves: it comes off for one.',
          [
            ['half', 'One half, the other always hot'],
            ['whole', 'Both halves'],
          ],
          {
            effects: ({ picks: [pick] }) => [
              changeBox(box, {
                device: {
                  ...box.device,
                  switched: pick === 'whole' ? 'whole' : 'half',
                  tabs: pick === 'whole' ? 'whole' : 'hot-broken',
                },
              }),
            ],
          },
        ),
        ask(
          'automatic',
          'What controls it?',
          'What goes off by itself is marked so, or a freezer thaws behind it.',
          [
            ['wall', 'A wall switch'],
            ['auto', 'A timer, sensor or energy control'],
          ],
          {
            effects: ({ picks }) => [
              changeBox(box, {
                device: {
                  ...box.device,
                  automatic: picks.includes('auto'),
                  markedControlled: picks.includes('auto'),
                },
              }),
            ],
          },
        ),
        ...lookInside(c, box),
        fit(c, box),
        ...when(
          half,
          work(
            'functions',
            'Constant or switched: told by the switch, not by color',
            'Red is the switched one by habit; old work may be the other way.',
            [
              ['Brass tab off on the new device; the silver tab stays where both halves share one neutral.'],
              ['Constant hot to one brass screw, switched hot to the other; the same half as before.'],
              ['Two circuits or two poles on one yoke: one handle for both.', '', '210.7'],
            ],
            { inside: box, done: 'Tab off, functions told' },
          ),
        ),
        ...wireUp(c, box),
        ...testAfter(c, box),
        ask('switch', 'Work the switch', 'A tab left on joins both: the switch then does nothing.', [
          ['right', half ? 'One half follows, the other stays' : 'Both follow'],
          ['wrong', 'It does not do so'],
        ]),
        ...when(
          c.log.picked('switch', 'wrong'),
          work(
            'tab',
            'Tab or conductors',
            'Both halves live with the switch off: the tab is on. Both follow: the constant is not there.',
            [['Prove it dead again; tab, then which hot is which.']],
            { inside: box, done: 'Mended' },
          ),
        ),
        ...when(
          c.log.picked('automatic', 'auto'),
          work('controlled', 'Mark it', 'Who plugs in must know that it goes off by itself.', [
            ['“Controlled” and its sign on the face of the controlled half.', '', '406.3(E)'],
          ]),
        ),
      ];
    }),
};
