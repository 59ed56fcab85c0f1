import { breakerFor } from '../parts/breaker.ts';
import { lookInside, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { servedCommands } from '../parts/place.ts';
import { legs } from '../parts/twoHots.ts';
import { ask, measure, optional, volts, amps, when, work, type Procedure } from '../step.ts';
import { round } from '#core/units/quantity.ts';
import { standardBreaker } from '#core/tables/conductors.ts';

/** Ohms of an element from its marks: V² / W. */
export const elementOhms = (v: number, watts: number): number => (v * v) / watts;
/** An element within a tenth of its ohms is sound. */
const WITHIN = 0.1;

export const waterHeater: Procedure = {
  id: 'water-heater',
  title: 'Water heater',
  use: 'No hot water, too little of it, or a heater is connected.',
  steps: (c) =>
    atOutlet(c, 'hardwired', 'water heater', (box) => {
      const { log } = c;
      const marked = { v: log.figure('plate', 'volts') ?? 240, w: log.figure('plate', 'watts') ?? 4500 };
      const expected = elementOhms(marked.v, marked.w);
      const least = (1.25 * marked.w) / marked.v;
      const found = ['upper', 'lower'].map((n) => log.figure('elements', n));
      const bad =
        log.has('elements') && found.some((f) => f !== null && Math.abs(f - expected) > WITHIN * expected);
      return [
        measure(
          'plate',
          'Its nameplate',
          'The circuit follows from it: 125 % of what it draws.',
          [
            { name: 'watts', label: 'Watts, the larger figure', unit: 'W', min: 500, max: 12000 },
            { name: 'volts', label: 'Volts', unit: 'V', min: 110, max: 277 },
          ],
          {
            effects: ({ figures }) => {
              const of = (n: string) => figures.find((f) => f.name === n)?.value ?? null;
              return servedCommands(
                c,
                { ...box, device: { ...box.device, volts: (of('volts') ?? 240) > 150 ? '250' : '125' } },
                'water-heater',
                {
                  volts: of('volts') ?? 240,
                  watts: of('watts'),
                  amps: null,
                },
              );
            },
          },
        ),
        ask('what', 'What is it?', 'A heater with one element of two makes hot water, and little of it.', [
          ['none', 'No hot water'],
          ['little', 'Too little, or only warm'],
          ['hot', 'Too hot, or the red button popped'],
          ['new', 'It is to be connected'],
        ]),
        ...breakerFor(c, box, marked.v > 150 ? 2 : 1),
        ...when(
          c.circuit !== null && log.has('plate'),
          ask(
            'size',
            `1.25 × ${round(marked.w / marked.v, 1)} A = ${round(least, 1)} A`,
            'Storage heaters count as continuous.',
            [
              [
                'right',
                `On ${c.circuit?.breaker.rating ?? '…'} A: ${(c.circuit?.breaker.rating ?? 0) >= least ? 'enough' : 'too small'}`,
              ],
              ['change', 'To be changed'],
            ],
            {
              working: [
                { text: `${marked.w} W ÷ ${marked.v} V × 1.25 = ${round(least, 1)} A`, section: '422.13' },
                {
                  text: `Breaker ${standardBreaker(least) ?? '—'} A; conductors of that ampacity.`,
                  section: '422.10(A)',
                },
              ],
            },
          ),
        ),
        ...lookInside(c, box),
        ...when(
          log.picked('what', 'hot'),
          work(
            'limit',
            'The high limit',
            'It pops for a reason: a thermostat that sticks, a loose joint that heats it, an element to ground.',
            [
              ['Reset it once. Again popped: the thermostat behind it is replaced, not held in.'],
              ['Look for a burnt wire at it.'],
            ],
            { inside: box },
          ),
        ),
        ...when(
          !log.picked('what', 'new'),
          measure(
            'elements',
            'Ohms of its elements',
            'V² ÷ W tells what each must read; open is burnt out, far less is another element or a short.',
            [
              optional({
                name: 'upper',
                label: 'Upper',
                unit: 'Ω',
                min: 0,
                max: 1e7,
                expects: `${round(expected, 1)}`,
              }),
              {
                name: 'lower',
                label: 'Lower, or the only one',
                unit: 'Ω',
                min: 0,
                max: 1e7,
                expects: `${round(expected, 1)}`,
              },
              {
                name: 'ground',
                label: 'Either to the tank',
                unit: 'Ω',
                min: 0,
                max: 1e9,
                expects: 'none: over 1,000,000',
              },
            ],
            {
              inside: box,
              text: 'One lead of each element off.',
              working: [{ text: `${marked.v}² ÷ ${marked.w} = ${round(expected, 1)} Ω` }],
            },
          ),
          ...when(
            bad || (log.figure('elements', 'ground') ?? Infinity) < 1e6,
            work(
              'element',
              'New element, like for like',
              'Another wattage asks for another circuit; another length burns dry.',
              [
                [`${marked.v} V, ${marked.w} W, same length and mounting.`],
                ['Water off, drained below the element; new gasket.'],
                ['Tank full, air out at a hot tap, before any power: dry it burns out in a minute.'],
              ],
              { inside: box, done: 'In, tank full' },
            ),
          ),
        ),
        work(
          'connect',
          'Its connection',
          'Heat, damp and a cable that hangs free.',
          [
            ['Two-wire cable: its white marked as a hot at both ends.', '', '200.7(C)(1)'],
            [
              'Cable protected from the junction box to the heater: flexible conduit; no stripped cable cores in it.',
              '',
              '334.15(B)',
            ],
            ['Ground to the green screw.', '', '250.114'],
            ['Disconnect in sight, or a breaker that can be locked.', '', '422.31(B)'],
            ['Straps, upper and lower third, where quakes are.'],
          ],
          { inside: box, done: 'Done' },
        ),
        ...when(log.picked('what', 'new'), ...wireUp(c, box, 'Land it')),
        ask('full', 'Is the tank full?', 'Power on a dry element and it is gone.', [
          ['full', 'Full: water runs without air at a hot tap'],
        ]),
        ...legs(c, false),
        measure(
          'running',
          'Running',
          'Amps say which element works, volts under load what the joints do.',
          [
            amps('amps', 'Clamped', `${round(marked.w / marked.v, 1)}`),
            volts('volts', 'Volts at its terminals', '3 % less at most'),
          ],
          { live: c.circuit, cannot: 'Thermostat satisfied: not running' },
        ),
      ];
    }),
};
