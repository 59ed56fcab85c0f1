import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, workedOn } from '../parts/place.ts';
import { loadTest, legs } from '../parts/twoHots.ts';
import { look, when, work, type Procedure } from '../step.ts';

export const combination: Procedure = {
  id: 'combination',
  title: 'Combination outlet, 120 and 240 V',
  use: 'One half is to give 120 V and the other 240 V, on three conductors and a ground.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet', (box) => [
      look(
        'may',
        'May it be here?',
        'In dwellings small loads stay on 120 V, and kitchen counters on their own circuits.',
        [
          ['small', 'What is to use it is under 1,440 VA or ¼ hp'],
          ['counter', 'It would be one of the counter’s two circuits'],
          ['two-wire', 'Only two conductors and a ground come here'],
        ],
        [['looked', 'Looked at']],
        {
          refuses: ({ picks }) =>
            picks.includes('two-wire')
              ? 'expected both hots and a neutral in one cable: 240 V and 120 V do not come on two conductors'
              : null,
          effects: () => [
            changeBox(box, {
              device: {
                ...box.device,
                kind: 'duplex',
                volts: '125/250',
                rating: box.device.rating > 20 ? 20 : box.device.rating,
              },
              status: workedOn(box),
            }),
          ],
        },
      ),
      ...when(
        c.log.picked('may', 'small'),
        work(
          'small-load',
          'A small load belongs on 120 V',
          'Cord-and-plug loads of up to 1,440 VA or under ¼ hp are kept to 120 V in dwellings.',
          [['Use the 120 V half for it.', '', '210.6(A)']],
        ),
      ),
      ...breakerFor(c, box, 2),
      ...lookInside(c, box),
      work(
        'tie',
        'One handle for both hots',
        'Both hots on one yoke go off together, or hands meet a live half.',
        [
          [
            'A two-pole breaker, or a listed handle tie where nothing works hot to hot.',
            '',
            '210.4(B), 240.15(B)',
          ],
          ['Neutral in a tail: it never hangs on the device.', '', '300.13(B)'],
        ],
      ),
      ...wireUp(c, box, 'Land it'),
      ...legs(c),
      ...loadTest(c, box, 120),
      ...testAfter(c, box).filter((s) => s && s.key === 'downstream'),
    ]),
};
