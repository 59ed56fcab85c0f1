import { judgeLegs } from '#core/diagnosis/legs.ts';
import { breakerFor } from '../parts/breaker.ts';
import { framed } from '../parts/frame.ts';
import { which } from '../parts/place.ts';
import { hunting } from '../hunting/prelude.ts';
import { mainOn } from '../parts/panelDead.ts';
import {
  ask,
  look,
  measure,
  volts,
  amps,
  optional,
  when,
  work,
  type Context,
  type Line,
  type Procedure,
} from '../step.ts';

/** What the legs at the panel say. */
export function neutralVerdict({ log }: Context): {
  says: string;
  open: boolean;
  even: boolean;
  lines: Line[];
} {
  const of = (name: string) => log.figure('legs', name);
  const [a, b] = [of('a'), of('b')];
  if (a === null || b === null) return { says: 'Not measured', open: false, even: false, lines: [] };
  const [onA, onB] = [of('a-amps'), of('b-amps')];
  const [loadedA, loadedB] = [of('a-load'), of('b-load')];
  const { say, danger, title, lines } = judgeLegs({
    a,
    b,
    ab: of('ab'),
    amps: onA === null && onB === null ? null : { a: onA ?? 0, b: onB ?? 0 },
    loaded: loadedA === null || loadedB === null ? null : { a: loadedA, b: loadedB, amps: of('amps') },
    pipe: of('gec'),
  });
  return {
    says: title,
    open: danger,
    even: say === 'even' || say === 'low',
    lines: lines.map((text) => ({ text })),
  };
}

export const dimLights: Procedure = {
  id: 'dim-lights',
  title: 'Lights dim, surge or burn bright',
  use: 'Some lights grow bright while others dim, or all of them change by themselves.',
  steps: (c) =>
    framed(c, () => {
      const { log } = c;
      const house = log.picked('which', 'both') || log.picked('which', 'house');
      const verdict = neutralVerdict(c);
      return [
        ask(
          'which',
          'What do they do?',
          'Bright in one room and dim in the other is an open neutral until it is shown to be none.',
          [
            ['both', 'Some bright, some dim, or appliances failed'],
            ['house', 'All over the house'],
            ['start', 'Only when something large starts'],
            ['one', 'One room or one lamp'],
          ],
        ),
        ...when(
          log.picked('which', 'both'),
          work(
            'off',
            'Main off, now',
            'With an open neutral one side gets up to 240 V: electronics burn, and fires start.',
            [
              ['Main off. Unplug electronics, televisions, chargers.'],
              ['Nobody touches taps and appliances that tingle.'],
              ['Call the utility: “open service neutral, both legs float”. It comes at any hour.'],
            ],
            { caution: 'It stays off until the neutral was found.', done: 'Off, utility called' },
          ),
        ),
        ...when(
          house || log.picked('which', 'start'),
          ask(
            'may',
            'Who measures at the panel?',
            'It is measured live: for qualified persons, where local law wants a license by one.',
            [
              ['qualified', 'A qualified person, now'],
              ['wait', 'Nobody: it stays off'],
            ],
          ),
          ...when(
            log.picked('may', 'qualified'),
            measure(
              'legs',
              'Both legs, at the panel',
              'An open neutral shows in three readings: they keep their sum and part under load.',
              [
                volts('a', 'Leg A to neutral', '114 to 126'),
                volts('b', 'Leg B to neutral', '114 to 126'),
                volts('ab', 'Leg A to leg B', '228 to 252'),
                optional(volts('a-load', 'A, with a heater on A alone', 'falls by 1 or 2 V')),
                optional(volts('b-load', 'B, with a heater on A alone', 'stays where it was')),
                optional(amps('amps', 'Amps of that heater, clamped', 'about 10')),
                optional(amps('a-amps', 'Clamp on leg A at the first three', 'any')),
                optional(amps('b-amps', 'Clamp on leg B at the first three', 'any')),
                optional(amps('gec', 'Clamp on the electrode conductor or pipe', 'near 0')),
              ],
              {
                text: 'Sensitive things unplugged, main on only for this. Cover off, probes only.',
                caution: 'Bus and lugs are live. One hand, eye protection, nobody near; off again after it.',
              },
            ),
            ask(
              'verdict',
              verdict.says,
              'The three readings are judged together.',
              [
                ...(verdict.open
                  ? ([['off', 'Main off, utility and neutral']] as const)
                  : verdict.even
                    ? ([['on', 'Go on to the circuit']] as const)
                    : ([
                        ['load', 'Nothing to load it with: it stays off'],
                        ['on', 'Go on to the circuit, the neutral not cleared'],
                      ] as const)),
              ],
              { working: verdict.lines },
            ),
            ...when(
              verdict.open && log.has('verdict'),
              look(
                'lugs',
                'Main off: the neutral in the panel',
                'The house’s own part of the neutral first: its lug, its bar, its bond.',
                [
                  ['loose', 'Neutral lug loose or burnt'],
                  ['aluminum', 'Aluminum, corroded'],
                  ['bond', 'Bond to the enclosure missing'],
                ],
                [['looked', 'Looked at, set to its torque']],
                { inPanel: true, caution: 'Line lugs stay live with the main off.' },
              ),
              mainOn,
              ask(
                'still',
                'Even now?',
                'What stays after the lug was set lies ahead of the panel: it is the utility’s.',
                [
                  ['even', 'Both legs even, with load'],
                  ['utility', 'Still apart: off, utility called'],
                ],
              ),
            ),
          ),
        ),
        ...when(
          log.picked('which', 'one') || log.picked('verdict', 'on') || log.picked('which', 'start'),
          work('lamp', 'The lamp first', 'A lamp in a poor holder dims alone.', [
            ['Another lamp in the same holder, and this lamp in another one.'],
            ['A dip when a motor starts, under 3 %, is no fault.'],
          ]),
          which(c, 'light', 'outlet that dims'),
          ...(c.box ? [...breakerFor(c, c.box), ...hunting(c, c.circuit)] : []),
        ),
      ];
    }),
};
