import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox } from '../parts/place.ts';
import { loadTest, legs } from '../parts/twoHots.ts';
import { ask, measure, when, work, type Procedure } from '../step.ts';
import { round } from '#core/units/quantity.ts';
import { standardBreaker } from '#core/tables/conductors.ts';

export const vehicleOutlet: Procedure = {
  id: 'vehicle-outlet',
  title: 'EV charger or its outlet',
  use: 'A vehicle is charged from an outlet or a hardwired unit, or trips what it hangs on.',
  steps: (c) =>
    atOutlet(c, 'single', 'outlet or unit', (box) => {
      const draw = c.log.figure('draw', 'amps');
      const least = draw === null ? null : 1.25 * draw;
      return [
        measure('draw', 'What does it draw?', 'It runs for hours: 125 % of it is what the circuit is for.', [
          { name: 'amps', label: 'Amps, as set or marked', unit: 'A', min: 6, max: 80 },
        ]),
        ask(
          'how',
          'How is it connected?',
          'A plug is made for so many insertions; a hardwired unit asks for no GFCI breaker of its own in many places.',
          [
            ['plug', 'By a plug'],
            ['wired', 'Hardwired'],
          ],
          {
            working:
              least === null
                ? []
                : [
                    {
                      text: `1.25 × ${draw} A = ${round(least, 1)} A: a ${standardBreaker(least) ?? '—'} A circuit or larger.`,
                      section: '625.42, 210.20(A)',
                    },
                  ],
            effects: ({ picks: [pick] }) => [
              changeBox(box, {
                purpose: 'vehicle',
                device: {
                  ...box.device,
                  kind: pick === 'wired' ? 'hardwired' : 'single',
                  volts: '250',
                  rating: (draw ?? 0) > 24 ? 50 : (draw ?? 0) > 16 ? 30 : 20,
                },
                status: box.status === 'existing' ? 'replace' : box.status,
              }),
            ],
          },
        ),
        ...breakerFor(c, box, 2),
        ...when(
          least !== null && c.circuit !== null && c.circuit.breaker.rating < least,
          ask(
            'too-small',
            `${c.circuit?.breaker.rating ?? ''} A is too small for ${draw} A`,
            'Continuous load: the breaker would run at its limit all night, and so would the outlet.',
            [
              ['down', `Set the charger to ${Math.floor(0.8 * (c.circuit?.breaker.rating ?? 0))} A or less`],
              ['new', 'A new circuit of the right size'],
            ],
          ),
        ),
        ...lookInside(c, box),
        work('alone', 'A circuit of its own', 'Nothing else hangs on it.', [
          ['No other outlet on this circuit.', '', '625.40'],
          ['Receptacle: GFCI at the breaker.', '', '625.54'],
          ['Receptacle rated for it, of industrial grade where it charges daily: a household one softens.'],
          ['Whether the service takes it: “Can my panel take it”.', '', '220.57, 220.87'],
        ]),
        ...wireUp(c, box, 'Land it'),
        ...legs(c, box.device.volts === '125/250'),
        ...loadTest(c, box, 240),
        measure(
          'hour',
          'After an hour: how warm?',
          'Heat at the plug shows after an hour, and on no meter before.',
          [
            {
              name: 'celsius',
              label: 'Plug and face',
              unit: '°F',
              min: 30,
              max: 300,
              expects: 'hand-warm: under 120',
            },
          ],
          {
            live: c.circuit,
            cannot: 'Not waited for: the owner looks',
          },
        ),
        ...testAfter(c, box).filter((s) => s && s.key === 'downstream'),
      ];
    }),
};
