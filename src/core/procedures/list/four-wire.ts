import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox } from '../parts/place.ts';
import { loadTest, legs } from '../parts/twoHots.ts';
import { ask, look, when, work, type Procedure } from '../step.ts';

export const fourWire: Procedure = {
  id: 'four-wire',
  title: 'Range or dryer outlet',
  use: 'A 125/250 V outlet is checked, replaced or put in; old three-wire ones are judged.',
  steps: (c) =>
    atOutlet(c, 'single', 'outlet', (box) => {
      const { log } = c;
      const jumper = log.picked('fourth', 'jumper');
      const three = log.picked('wires', 'three') || jumper;
      const may = mayStay(log.picks('cable'));
      return [
        ask(
          'for',
          'What is it for?',
          'The appliance decides rating and protection.',
          [
            ['dryer', 'A dryer, 30 A'],
            ['range', 'A range, 40 or 50 A'],
          ],
          {
            effects: ({ picks: [pick] }) => [
              changeBox(box, {
                device: {
                  ...box.device,
                  kind: 'single',
                  volts: '125/250',
                  rating: pick === 'range' ? 50 : 30,
                  tamperResistant: false,
                },
              }),
            ],
          },
        ),
        ask('wires', 'How many holes has it?', 'Three share neutral and ground; four keep them apart.', [
          ['three', 'Three: no ground of its own'],
          ['four', 'Four'],
        ]),
        ...breakerFor(c, box, 2),
        ...lookInside(c, box),
        ...when(
          log.picked('wires', 'four'),
          ask(
            'fourth',
            'What is on its ground screw?',
            'Four holes promise a ground. On three wires with a jumper the frame hangs on the neutral.',
            [
              ['own', 'A ground of its own from the cable'],
              ['jumper', 'A jumper from the neutral: three wires'],
            ],
            { inside: box },
          ),
        ),
        ...when(
          three,
          look(
            'cable',
            'What is the third wire?',
            'An old circuit may stay on three wires only where its neutral is one that may be: 250.140.',
            [
              ['insulated', 'An insulated neutral'],
              ['se', 'Bare, in SE cable from the service panel'],
              ['bare-nm', 'Bare wire of NM cable'],
              ['subpanel', 'It comes from a subpanel'],
              ['new', 'The circuit is new or moved'],
            ],
            [['looked', 'Looked at']],
            { inside: box },
          ),
          ask(
            'stay',
            jumper
              ? 'Four slots on three wires: it may not stay'
              : may
                ? 'It may stay on three wires'
                : 'It may not stay on three wires',
            jumper
              ? 'The jumper joins the frame to the neutral behind a ground that is none: a violation, whatever the cable.'
              : may
                ? 'Existing, with a neutral that 250.140 allows: the bond strap stays in the appliance.'
                : 'The frame of the appliance would be a live conductor’s way home.',
            [
              ...(may
                ? ([
                    ['stay', jumper ? 'Jumper out, a three-slot outlet' : 'Leave it on three wires'],
                  ] as const)
                : []),
              ['four', 'New four-wire cable and outlet'],
              ...(may && !jumper ? [] : ([['off', 'Leave it off until that is done']] as const)),
            ],
            {
              effects: ({ picks }) => [
                changeBox(box, {
                  grounding: picks.includes('four') ? 'grounded' : 'none',
                  status: picks.includes('four') ? 'replace' : box.status,
                }),
              ],
            },
          ),
        ),
        ...when(
          log.picked('fourth', 'own') || log.picked('stay', 'four') || log.picked('stay', 'stay'),
          ...wireUp(c, box, 'Land it'),
          work(
            'bond',
            'The strap in the appliance',
            'On four wires the frame must not be on the neutral; on three it must be.',
            [
              [
                log.picked('stay', 'stay')
                  ? 'Bond strap in: three-wire cord.'
                  : 'Four-wire cord with its ground on the frame first; then the bond strap out.',
                '',
                '250.140',
              ],
              ['Bare or green never on the neutral contact of a four-wire outlet.'],
            ],
          ),
          ...legs(c),
          ...loadTest(c, box, 240),
          ...testAfter(c, box).filter((s) => s && s.key === 'downstream'),
        ),
      ];
    }),
};

/** An existing branch circuit with a neutral that 250.140 allows. */
export const mayStay = (found: readonly string[]): boolean =>
  (found.includes('insulated') || (found.includes('se') && !found.includes('subpanel'))) &&
  !found.includes('bare-nm') &&
  !found.includes('new');
