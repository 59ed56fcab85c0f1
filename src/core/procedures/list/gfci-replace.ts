import { breakerFor } from '../parts/breaker.ts';
import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { changeBox, signs } from '../parts/place.ts';
import { atOutlet } from '../parts/frame.ts';
import { fitCommands } from '../parts/fit.ts';
import { look, when, work, type Procedure } from '../step.ts';

export const gfciReplace: Procedure = {
  id: 'gfci-replace',
  title: 'Replace a GFCI',
  use: 'It does not trip, does not reset, or is past its age.',
  steps: (c) =>
    atOutlet(c, 'gfci', 'GFCI', (box) => {
      const { circuit } = c;
      const cables = box.cables ?? 1;
      const several = cables > 1;
      return [
        asFound(c, box),
        ...signs(c),
        ...breakerFor(c, box),
        ...lookInside(c, box),
        work(
          'gfci-off',
          'Old one off, conductors apart',
          several
            ? 'Which cable is the feed shows only with the conductors apart and the power on.'
            : 'One cable is the feed: it goes to LINE, and LOAD stays taped.',
          [
            ['Picture. LINE and LOAD read on the back: their places differ by make.'],
            ['Old one off; each conductor capped, spread, clear of the box.'],
          ],
          { inside: box, done: 'Off and capped', leaves: 'clear' },
        ),
        ...when(
          several && circuit,
          look(
            'feed',
            'Power on: which cable is live?',
            'Line and load are told by this reading, and by nothing else.',
            Array.from({ length: cables }, (_, k) => [`${k + 1}`, `Cable ${k + 1}, from the left`] as const),
            [['looked', 'Black to white read in each']],
            {
              text: 'Black to white in each cable, low impedance. The live one is the feed.',
              caution: 'Probes only, nobody working. Then off, and proved dead again.',
              liveOpen: circuit,
              refuses: ({ picks }) =>
                picks.filter((p) => p !== 'looked').length === 1
                  ? null
                  : 'expected one live cable; none or two: stop, another circuit or a dead feed',
            },
          ),
        ),
        ...when(
          several,
          work(
            'mark-feed',
            'Mark the feed',
            'A device with line and load reversed since 2006 does not reset; older ones leave the face live.',
            [
              [
                `Tape on cable ${c.log.picks('feed').find((p) => p !== 'looked') ?? '…'}: LINE. The others: LOAD.`,
              ],
            ],
            {
              inside: box,
              keepsNeutrals: true,
              done: 'Marked',
              effects: () => [...fitCommands(c, box, 'gfci')],
            },
          ),
        ),
        ...when(
          !several,
          work(
            'new-gfci',
            'Take the new one',
            'The box decides: deep devices need room.',
            [
              [
                `A ${box.device.rating} A GFCI, tamper-resistant${box.device.weatherResistant ? ', weather-resistant' : ''}.`,
              ],
            ],
            { done: 'Have it', effects: () => [...fitCommands(c, box, 'gfci')] },
          ),
        ),
        ...wireUp(c, box),
        ...testAfter(c, box),
        ...when(
          box.device.kind === 'gfci',
          work(
            'age',
            'Write the day on it',
            'Ten years is a usual age to replace one.',
            [['Month and year on the side of the device and in the register.']],
            {
              done: 'Written',
              effects: () => [changeBox(box, { found: box.found && { ...box.found, deviceAge: 0 } })],
            },
          ),
        ),
      ];
    }),
};
