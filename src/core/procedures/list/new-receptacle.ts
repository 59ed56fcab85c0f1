import { appendBoxes } from '../parts/extend.ts';
import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { fit } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { signs } from '../parts/place.ts';
import { OLD_HOUSE } from '../parts/start.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const newReceptacle: Procedure = {
  id: 'new-receptacle',
  title: 'New receptacle',
  use: 'An outlet is to go where none is, fed from one that is there.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet feeds it', (box) => {
      const { log, circuit } = c;
      const ungrounded = box.grounding === 'none';
      const made = log.note('new-box');
      return [
        ...signs(c),
        ...breakerFor(c, box),
        ...lookInside(c, box),
        ...when(
          ungrounded,
          ask(
            'no-ground-here',
            'No ground to extend',
            'An old two-wire box has none to give: a new outlet needs one of its own.',
            [
              ['other', 'Feed it from a box with a ground'],
              ['new', 'A ground of its own is run, 250.130(C)'],
            ],
          ),
        ),
        ask(
          'new-box',
          'Where does the new one go?',
          'It is on record with the outlet that feeds it.',
          [
            ['same', 'In this room'],
            ['through', 'Through the wall, in the next room'],
          ],
          {
            noteLabel: 'Where, in words',
            effects: ({ picks, note }) =>
              appendBoxes(c, box, note || 'new outlet', picks.includes('through')),
          },
        ),
        work(
          'old-house',
          'Before a wall is opened',
          'What is in old paint and plaster is breathed in by who opens it, and by who lives there.',
          [
            [OLD_HOUSE],
            [
              'Look behind it: pipes, ducts, other cables. Drill 1¼ in. from the edge of a stud, or plate it.',
              '',
              '300.4',
            ],
          ],
          { done: 'Known, seen to' },
        ),
        ...when(
          circuit,
          work(
            'cable',
            'Run the cable',
            'What is carried on has the gauge and the ground of what feeds it.',
            [
              [
                `${circuit?.gauge ?? '12'} AWG with ground, or heavier; never thinner than the breaker of ${circuit?.breaker.rating ?? 15} A asks for.`,
                '',
                '240.4(D)',
              ],
              [
                'Fastened within 8 in. of a box without a clamp, 12 in. of one with, and every 4½ ft; an old wall that is fished needs none inside.',
                '',
                '334.30',
              ],
              ['Old-work box of the room that its cables need.', '', '314.16'],
            ],
            { inside: box, done: `In place${made ? `: ${made}` : ''}` },
          ),
        ),
        fit(c, box, 'What to install where it is fed'),
        ...wireUp(c, box),
        ...testAfter(c, box),
      ];
    }),
};
