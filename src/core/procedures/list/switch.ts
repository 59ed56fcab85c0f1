import { breakerFor } from '../parts/breaker.ts';
import { lookInside, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, workedOn } from '../parts/place.ts';
import { ask, measure, optional, when, work, type Procedure } from '../step.ts';

export const replaceSwitch: Procedure = {
  id: 'switch',
  title: 'Replace or add a switch',
  use: 'A switch is worn, crackles or is warm, or a light gets one.',
  steps: (c) =>
    atOutlet(c, 'switch', 'switch', (box) => {
      const { log } = c;
      return [
        ask(
          'screws',
          'How many does it work with?',
          'Three screws beside the ground: it is one of two; four: between two others.',
          [
            ['one', 'Alone: on and off marked'],
            ['two', 'From two places: no marks'],
            ['more', 'From three places or more'],
          ],
        ),
        ask('load', 'What does it control?', 'A motor or many lamps ask more of its contacts than a lamp.', [
          ['light', 'Lights'],
          ['fan', 'A fan or motor'],
          ['receptacle', 'A receptacle'],
        ]),
        ...breakerFor(c, box),
        ...lookInside(c, box),
        work(
          'tag',
          'Tag before it comes off',
          'The odd-colored screw is the common: on the wrong one both switches work only together.',
          [
            [
              log.picked('screws', 'one')
                ? 'Feed and switched leg marked.'
                : 'Tape on the conductor of the common screw; travelers need none.',
            ],
            ['A white that comes back hot is marked black or red at both ends.', '', '200.7(C)'],
          ],
          { inside: box, done: 'Tagged' },
        ),
        ask(
          'neutral',
          'Is there a neutral in the box?',
          'New switch boxes bring one for what needs it later.',
          [
            ['yes', 'Yes: whites joined in the back'],
            ['no', 'No: a switch loop'],
          ],
          {
            inside: box,
            effects: ({ picks }) => [
              changeBox(box, {
                seen: { ...box.seen, switchNeutral: picks.includes('yes') ? 'yes' : 'no' },
                status: workedOn(box),
              }),
            ],
          },
        ),
        ...(log.picked('screws', 'one') || !log.has('screws')
          ? wireUp(c, box)
          : [
              work(
                'wire',
                'Land it',
                'Travelers change places freely; the common does not.',
                [
                  ['Ground to green; a plastic plate and screws where there is none.', '', '404.9(B)'],
                  ['Tagged conductor to the odd-colored screw.'],
                  ['The other two to the matching screws; of a four-way each pair to its own side.'],
                  ['Tug, fold, close.'],
                ],
                { inside: box, picture: box, done: 'Done, closed', leaves: 'closed' },
              ),
            ]),
        ask(
          'works',
          'Every position',
          'Off, the shell of the lampholder is dead: a switched neutral leaves it live.',
          [
            ['right', log.picked('screws', 'one') ? 'On and off as marked' : 'Each throw changes the light'],
            ['wrong', 'Only some positions'],
          ],
          { live: c.circuit },
        ),
        ...when(
          log.picked('works', 'wrong'),
          work(
            'common',
            'The common is on the wrong screw',
            'The pattern says which: dead unless the other is up means this one.',
            [['Prove dead; change the tagged conductor with one traveler.']],
            { inside: box, done: 'Mended, tried again' },
          ),
        ),
        ...when(
          log.picked('load', 'fan'),
          measure('amps', 'Clamp it running', 'A motor takes at most 80 % of a snap switch’s amperes.', [
            optional({ name: 'amps', label: 'Running', unit: 'A', min: 0, max: 30 }),
          ]),
        ),
      ];
    }),
};
