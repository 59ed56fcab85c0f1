import { breakerFor } from '../parts/breaker.ts';
import { lookInside, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, workedOn } from '../parts/place.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const smartSwitch: Procedure = {
  id: 'smart-switch',
  title: 'Smart switch',
  use: 'A switch with electronics goes in, with or without a neutral in the box.',
  steps: (c) =>
    atOutlet(c, 'switch', 'switch', (box) => {
      const { log } = c;
      const none = log.picked('neutral', 'no');
      return [
        ask(
          'screws',
          'How many switches work the light?',
          'Most smart ones want their own partner at the other end.',
          [
            ['one', 'This one alone'],
            ['two', 'Two or more'],
          ],
        ),
        ...breakerFor(c, box),
        ...lookInside(c, box),
        ask(
          'neutral',
          'Is there a neutral in the box?',
          'A white in a switch loop is a hot: color proves nothing.',
          [
            ['yes', 'Yes: whites of two cables joined in the back'],
            ['no', 'No: the white goes to the switch'],
          ],
          {
            inside: box,
            effects: ({ picks }) => [
              changeBox(box, { seen: { ...box.seen, switchNeutral: picks.includes('yes') ? 'yes' : 'no' } }),
            ],
          },
        ),
        ...when(
          none,
          ask(
            'without',
            'No neutral: what then?',
            'The ground is never one, and neither is another circuit’s white.',
            [
              ['no-neutral', 'A switch made for no neutral', 'its least load and bypass read'],
              ['cable', 'A cable with a neutral is pulled'],
              ['lamp', 'The plain switch stays, the lamps are smart'],
            ],
          ),
        ),
        work(
          'fits',
          'Does it fit?',
          'It is deep, warms, and is marked for its kinds of load.',
          [
            ['Box fill: its yoke counts for two conductors of the largest gauge.', '', '314.16(B)(4)'],
            ['LED watts within its marking; motors only where it says so.'],
            ...(log.picked('screws', 'two')
              ? ([
                  ['Both ends: its partner, or the plain switch out and travelers joined as its sheet says.'],
                ] as const)
              : []),
          ],
          {
            done: 'Read',
            effects: () =>
              log.picked('without', 'lamp')
                ? []
                : [
                    changeBox(box, {
                      device: {
                        ...box.device,
                        build: log.picked('without', 'no-neutral') ? 'smart-no-neutral' : 'smart',
                      },
                      status: workedOn(box),
                    }),
                  ],
          },
        ),
        ...when(!log.picked('without', 'lamp'), ...wireUp(c, box, 'Land it')),
        ask(
          'works',
          'Does it work?',
          'On, off, dark when off; then by what it is linked to.',
          [
            ['right', 'It does'],
            ['glows', 'Lamps glow when off'],
            ['no', 'It does not'],
          ],
          { live: c.circuit },
        ),
        ...when(
          log.picked('works', 'glows'),
          work('bypass', 'A bypass at the lamp', 'Without a neutral it feeds itself through the lamp.', [
            ['Across hot and neutral of the luminaire, as its sheet says.'],
            ['It goes in under “Light fixture or fan”, where that box is proved dead.'],
          ]),
        ),
      ];
    }),
};
