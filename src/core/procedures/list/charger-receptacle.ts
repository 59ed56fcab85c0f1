import { breakerFor } from '../parts/breaker.ts';
import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { fit } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, signs } from '../parts/place.ts';
import { ask, measure, when, work, type Procedure } from '../step.ts';

/** A charger receptacle takes so much more room than a plain one that old boxes are read first, cubic inches. */
const ROOM_WANTED = 18;

export const chargerReceptacle: Procedure = {
  id: 'charger-receptacle',
  title: 'Receptacle with chargers',
  use: 'A duplex with USB chargers is to go in place of a plain one.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet', (box) => [
      asFound(c, box),
      ...signs(c),
      ...breakerFor(c, box),
      ...lookInside(c, box),
      measure(
        'room',
        'How large is the box?',
        'It is deep: an old shallow box does not take it, whatever its volume.',
        [
          { name: 'volume', label: 'Marked', unit: 'cu in.', min: 5, max: 60, optional: true },
          { name: 'depth', label: 'Inside depth', unit: 'in.', min: 1, max: 6 },
        ],
        {
          inside: box,
          effects: ({ figures }) => {
            const volume = figures.find((f) => f.name === 'volume')?.value ?? null;
            return [changeBox(box, { enclosure: { ...box.enclosure, volume } })];
          },
        },
      ),
      ...when(
        (c.log.figure('room', 'depth') ?? 3) < 2.25 || (c.log.figure('room', 'volume') ?? 20) < ROOM_WANTED,
        ask(
          'too-small',
          'The box is small for it',
          'Pressed in it chafes insulation and cooks its own electronics.',
          [
            ['new-box', 'A deeper old-work box goes in'],
            ['plain', 'A plain receptacle stays, the charger is a plug-in one'],
          ],
        ),
      ),
      fit(c, box),
      work(
        'charger',
        'For this device',
        'It makes heat all day.',
        [
          ['Ventilation slots free: no tape over them, no insulation against the box.'],
          ['Read which way is up: many are marked “top”.'],
          ['With leads in place of screws: splice by color, ground first; count the splices in the box.'],
          [
            'A 15 A one on a 20 A circuit is right; its charger’s amperes are not the circuit’s.',
            '',
            '210.21(B)',
          ],
        ],
        { done: 'Read' },
      ),
      ...wireUp(c, box),
      ...testAfter(c, box),
    ]),
};
