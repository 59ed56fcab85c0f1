import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { chainOn, chainSteps } from '../parts/chain.ts';
import { fitCommands } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { about } from '../parts/place.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const gfciRoom: Procedure = {
  id: 'gfci-room',
  title: 'Protect a room by one GFCI',
  use: 'Several plain outlets are to be protected from the first box of their chain.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet of the room', (box) => {
      const { circuit, document, log } = c;
      const shared = circuit !== null && circuit.breaker.poles === 2 && circuit.neutral;
      const first = circuit && log.has('chain-first') ? chainOn(document, circuit).first : null;
      const at = (first !== null && document.boxes[first]) || null;
      return [
        ...breakerFor(c, box),
        ...when(
          shared,
          work(
            'shared',
            'It shares its neutral',
            'One GFCI receptacle on one hot of two trips, or protects nothing, where the neutrals join again.',
            [
              [
                'A two-pole GFCI breaker serves both hots; or split the neutral at this box first.',
                '',
                '210.4',
              ],
            ],
          ),
        ),
        ...when(circuit, ...chainSteps(c)),
        ...when(
          at !== null,
          ask(
            'here',
            `Install it at ${at?.name ?? ''}?`,
            'It resets where it sits: behind a freezer nobody finds it.',
            [
              ['yes', 'Yes, it can be reached there'],
              ['no', 'No: use a GFCI breaker instead'],
            ],
            {
              effects: ({ picks }) =>
                at && picks.includes('yes')
                  ? [about(c, { boxId: at.id }), ...fitCommands(c, at, 'gfci')]
                  : [],
            },
          ),
        ),
        ...when(
          log.picked('here', 'yes') && at,
          ...(at ? [...lookInside(c, at), ...wireUp(c, at), ...testAfter(c, at)] : []),
        ),
        ...when(
          log.picked('here', 'yes'),
          work(
            'stickers',
            'Stickers and card',
            'A dead outlet two rooms away is looked for here only by who was told.',
            [
              [
                '“GFCI Protected” on every plain outlet after it; without a ground “No Equipment Ground” as well.',
                '',
                '406.4(D)(2)',
              ],
              ['Card at the device: what else it protects.'],
            ],
          ),
        ),
      ];
    }),
};
