import type { Circuit } from '#core/job/schema.ts';
import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { mainOn } from '../parts/panelDead.ts';
import { amps, ask, look, measure, optional, volts, when, work, type Procedure } from '../step.ts';

export const breakerSwap: Procedure = {
  id: 'breaker-swap',
  title: 'Swap a breaker',
  use: 'A breaker is worn, burnt, of the wrong kind or rating, or gets AFCI or GFCI.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet on it', (box) => {
      const { circuit, log } = c;
      const kind = (log.pick('kind') ?? 'none') as Circuit['breaker']['protection'];
      const rating = circuit?.breaker.rating ?? 15;
      const shared = circuit !== null && circuit.breaker.poles === 2 && circuit.neutral;
      const minutes = log.figure('held-before', 'minutes') ?? 10;
      return [
        ...breakerFor(c, box),
        ask('kind', 'What goes in?', 'Rating stays what the wire allows; protection may come with it.', [
          ['none', 'The same, plain'],
          ['gfci', 'GFCI'],
          ['afci', 'AFCI'],
          ['dual', 'AFCI and GFCI'],
        ]),
        ...when(
          shared && kind !== 'none',
          work(
            'two-pole',
            'It shares its neutral',
            'A single-pole one cannot see the other hot’s current come back: it trips at once.',
            [['A two-pole breaker of this kind, for both hots.', '', '210.4']],
          ),
        ),
        look(
          'listed',
          'Is it for this panel?',
          'What fits is not what is listed: the stab and the spring decide, and the panel’s label says which.',
          [
            ['not-listed', 'Its type is not on the panel’s label'],
            ['tandem', 'A tandem where the label allows none'],
            ['rating', `Another rating than ${rating} A`],
          ],
          [['yes', 'Listed on the label, same rating']],
          {
            refuses: ({ picks }) =>
              picks.some((p) => p === 'not-listed' || p === 'tandem')
                ? 'expected a breaker of the panel’s label; this one stays out, 110.3(B)'
                : null,
          },
        ),
        ...when(
          log.picked('listed', 'rating'),
          ask(
            'rating',
            'Why another rating?',
            'A larger breaker on the same wire lets the wire burn first.',
            [
              ['smaller', 'Smaller than what was there'],
              ['wire', 'The wire was read and is heavier'],
            ],
          ),
        ),
        measure(
          'held-before',
          'How long did it hold?',
          'What it took to trip is what proves the new one.',
          [{ name: 'minutes', label: 'Until it went', unit: 'min', min: 0, max: 600 }],
          { cannot: 'It did not trip by load' },
        ),
        look(
          'old',
          'Old one out: stab and conductor',
          'A burnt stab ruins the next breaker as well.',
          [
            ['stab', 'Stab pitted or discolored'],
            ['insulation', 'Insulation burnt or brittle'],
            ['loose', 'Its lug was loose'],
            ['doubled', 'Two conductors under it'],
            ['aluminum', 'Aluminum conductor'],
          ],
          [['looked', 'Looked at']],
          { inPanel: true, text: 'Load off, conductor out, breaker off the bus from its inner end.' },
        ),
        ...when(
          log.picked('old', 'stab'),
          ask(
            'stab',
            'The stab is burnt',
            'No new breaker belongs on it.',
            [
              ['move', 'It goes to a sound space; this one is closed and marked'],
              ['panel', 'No other space: the panel is to be replaced'],
            ],
            { inPanel: true },
          ),
        ),
        work(
          'new',
          'New one in',
          'Torque is what keeps a lug from becoming a heater.',
          [
            ['Conductor cut back to bright copper, stripped to the breaker’s gauge.'],
            ['Under the lug, to the torque marked on the breaker: by a tool that measures.', '', '110.14(D)'],
            ...(kind === 'none'
              ? []
              : ([
                  [
                    'This circuit’s own neutral on the breaker; the breaker’s lead on the neutral bar.',
                    'Left on the bar it trips with the first load.',
                  ],
                  ['Find that neutral before it is parted: same cable as the hot.'],
                ] as const)),
            [
              'On the bus outer end first, home to the stop; off; cover on; directory line written.',
              '',
              '408.4',
            ],
          ],
          {
            inPanel: true,
            done: 'In, tight, closed',
            effects: () =>
              circuit
                ? [
                    {
                      type: 'put',
                      table: 'circuits',
                      rows: [
                        { ...circuit, breaker: { ...circuit.breaker, protection: kind, listed: 'yes' } },
                      ],
                    },
                  ]
                : [],
          },
        ),
        mainOn,
        ...when(kind !== 'none' && circuit, {
          kind: 'test',
          key: 'test-breaker',
          title: 'Its own test button',
          why: 'It is tested where it is, by its own button.',
          box: null,
          circuit: circuit!,
          device: kind === 'afci' ? 'afci' : 'gfci',
          live: circuit!,
        } as const),
        measure(
          'full-load',
          'Full load, for the time that matters',
          'Three seconds prove nothing where it used to take minutes.',
          [
            volts('unloaded', 'Volts without load', '114 to 126'),
            volts('loaded', 'Volts under load', '3 % less at most'),
            amps('amps', 'Measured amps', `up to ${0.8 * rating}`),
            { name: 'minutes', label: 'Held', unit: 'min', min: 0, max: 600, expects: `over ${minutes}` },
            optional({ name: 'celsius', label: 'Handle', unit: '°F', min: 30, max: 300 }),
          ],
          {
            live: circuit,
            refuses: ({ figures, picks }) =>
              !picks.includes('cannot') && (figures.find((f) => f.name === 'minutes')?.value ?? 0) < minutes
                ? `Held: expected ${minutes} min or more, as long as the old one took`
                : null,
            cannot: 'No load to hand: written down as not proved',
          },
        ),
      ];
    }),
};
