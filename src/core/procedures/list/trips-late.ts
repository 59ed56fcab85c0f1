import { tripTime, type TripPicture } from '#core/circuits/tripCurve.ts';
import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { hunting } from '../hunting/prelude.ts';
import { amps, ask, look, measure, optional, volts, when, work, type Line, type Procedure } from '../step.ts';

const minutes = (seconds: number): string =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;

export const tripsLate: Procedure = {
  id: 'trips-late',
  title: 'Breaker trips after a while',
  use: 'It holds for minutes or hours, then goes.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet on it', (box) => {
      const { log, circuit } = c;
      const rating = circuit?.breaker.rating ?? 15;
      const measured = log.figure('amps', 'amps');
      const over = measured !== null && measured > rating;
      const near = measured !== null && !over && measured > 0.8 * rating;
      const after = log.figure('how-long', 'minutes');
      return [
        ...breakerFor(c, box),
        measure(
          'how-long',
          'How long does it hold?',
          'The time is half the answer: seconds, minutes or hours are different faults.',
          [{ name: 'minutes', label: 'Minutes until it goes', unit: 'min', min: 0, max: 600 }],
          { text: 'With what usually runs on it.' },
        ),
        measure(
          'amps',
          'Clamp it at the panel',
          'Measured amps decide; nameplates and habits do not.',
          [
            amps('amps', 'On its hot, loads on', `up to ${0.8 * rating} for three hours, ${rating} at most`),
            optional(amps('neutral', 'On its neutral', 'as on its hot')),
            optional({
              name: 'celsius',
              label: 'Its handle, by infrared',
              unit: '°F',
              min: 30,
              max: 300,
              expects: 'as its neighbors',
            }),
          ],
          {
            text: 'Cover off: the energized measurement. One hand, nothing touched, clamp only.',
            caution: 'Line lugs and bus are live. Qualified persons only. Cover back on after it.',
            liveOpen: circuit,
          },
        ),
        ...when(
          measured !== null,
          ask(
            'verdict',
            over
              ? 'It carries too much'
              : near
                ? 'Within its rating, too much for hours'
                : 'It should hold this',
            'A breaker is a clock of heat: how long it holds follows from how far it is overloaded.',
            [
              ['overload', 'Take loads off it'],
              ['joint', 'Look at its landing, then the breaker'],
              ['leak', 'It is GFCI or AFCI: look for leakage or arcs'],
              ['hunt', 'None of these: step by step'],
            ],
            {
              working: verdictLines(measured ?? 0, rating, after),
              curve: curveOf(measured ?? 0, rating, after),
            },
          ),
        ),
        ...when(
          log.picked('verdict', 'overload'),
          work('spread', 'Spread the load', 'What runs three hours or more counts at 125 %.', [
            [`At most ${0.8 * rating} A for three hours on ${rating} A.`, '', '210.20(A)'],
            ['Move the heater or the cooler to another circuit, or give it its own.'],
            ['A larger breaker on the same wire is no cure: the wire then burns first.', '', '240.4(D)'],
          ]),
        ),
        ...when(
          log.picked('verdict', 'joint'),
          look(
            'landing',
            'Main off: look at its landing',
            'A loose lug heats the breaker from outside: it trips below its rating.',
            [
              ['loose', 'Lug turns before its torque'],
              ['burnt', 'Discolored conductor or stab'],
              ['two', 'Two conductors under one lug'],
              ['aluminum', 'Aluminum without compound'],
            ],
            [['looked', 'Looked at, set to its torque']],
            {
              text: 'Line lugs stay live with the main off. Torque as marked on the breaker, by a screwdriver that measures.',
              caution: 'Line lugs stay live. Insulated tools.',
              inPanel: true,
            },
          ),
          ...when(
            log.picked('landing', 'burnt'),
            work('swap', 'A burnt stab is not left', 'The next breaker on it burns as well.', [
              ['Another space for it, this one marked; go on with “Swap a breaker”.'],
            ]),
          ),
        ),
        ...when(
          log.picked('verdict', 'leak'),
          work('leak', 'Leakage and arcs', 'It opens on milliamperes, or on the noise of a bad contact.', [
            ['Everything unplugged: does it hold as long? Then one thing at a time.'],
            ['Dead and proved, unplugged: insulation of each conductor to ground, over 1 MΩ.'],
          ]),
          work(
            'leak-neutral',
            'Its neutral at the panel',
            'A sensor counts what goes out and comes back: a neutral shared beyond it never adds up.',
            [['Neutral of this circuit alone on its breaker; none shared, none joined beyond it.']],
            { inPanel: true, done: 'Looked at' },
          ),
        ),
        ...when(log.picked('verdict', 'hunt'), ...hunting(c, circuit)),
        measure(
          'proof-load',
          'Full load, for as long as it used to take',
          'Seconds prove nothing: it is held as long as it used to hold, and more.',
          [
            amps('amps', 'Measured amps', `up to ${0.8 * rating}`),
            {
              name: 'minutes',
              label: 'Held',
              unit: 'min',
              min: 0,
              max: 600,
              expects: after === null ? 'longer than it used to' : `over ${after}`,
            },
            optional(volts('volts', 'Volts under load', '114 or more')),
          ],
          {
            live: circuit,
            refuses: ({ figures }) => {
              const held = figures.find((f) => f.name === 'minutes')?.value ?? 0;
              return after !== null && held < after
                ? `Held: expected ${after} min or more, as long as it used to take`
                : null;
            },
            cannot: 'Not proved: written down as open',
          },
        ),
      ];
    }),
};

/** The current on the breaker’s band, with the minutes after which it went. */
const curveOf = (measured: number, rating: number, after: number | null): TripPicture => ({
  rating,
  currents: [
    { name: 'rating', amps: rating },
    { name: 'measured', amps: measured, ...(after === null ? {} : { opened: 60 * after }) },
  ].filter((c) => c.amps > 0),
});

/** What a current means for a breaker of a rating, from its time-current band. */
function verdictLines(measured: number, rating: number, after: number | null): Line[] {
  const { least, most } = tripTime(rating, measured);
  return [
    { text: `${measured} A on ${rating} A is ${Math.round((100 * measured) / rating)} %.` },
    {
      text:
        measured <= rating
          ? 'By its curve it holds for good.'
          : Number.isFinite(most)
            ? `By its curve it goes between ${minutes(least)} and ${minutes(most)}.`
            : Number.isFinite(least)
              ? `By its curve it may go after ${minutes(least)}, or hold.`
              : 'By its curve it holds for good.',
      ...(after === null ? {} : { because: `It went after ${after} min.` }),
    },
  ];
}
