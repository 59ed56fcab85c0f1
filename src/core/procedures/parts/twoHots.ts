/** Readings and load of what hangs on two hots. */
import { round } from '#core/units/quantity.ts';
import type { Box } from '#core/job/schema.ts';
import type { Context, Line, Step } from '../step.ts';
import { amps, measure, optional, volts, when, ask } from '../step.ts';

/** Every pair of an outlet with two hots, power on. @param neutral it has one */
export const legs = (c: Context, neutral = true): readonly (Step | false | null)[] => [
  measure(
    'legs',
    'Every pair of volts',
    'Both hots on one leg read 120 V each and nothing between them; an open neutral reads well until it is loaded.',
    [
      volts('xy', 'Hot to hot', '228 to 252, or about 208'),
      volts('xg', 'First hot to ground', '114 to 126'),
      volts('yg', 'Second hot to ground', '114 to 126'),
      ...(neutral
        ? [
            volts('xn', 'First hot to neutral', '114 to 126'),
            volts('yn', 'Second hot to neutral', '114 to 126'),
            volts('ng', 'Neutral to ground', 'under 2'),
          ]
        : []),
    ],
    { live: c.circuit, caution: 'Face on, probes only.' },
  ),
  ...when(
    c.log.has('legs'),
    ask('legs-say', legsWords(c), 'The pairs are judged together: one alone says little.', [
      ['go', 'Go on'],
      ['stop', 'Leave it off: it is to be mended'],
    ]),
  ),
];

const near = (v: number | null, target: number, within: number): boolean =>
  v !== null && Math.abs(v - target) <= within;

/** More than this between two legs is length and load, or a neutral: a load tells which, volts. */
const PARTED = 2.5;

/** What the pairs say. */
export function legsWords({ log }: Context): string {
  const of = (name: string) => log.figure('legs', name);
  const [xy, xg, yg] = [of('xy'), of('xg'), of('yg')];
  const [xn, yn, ng] = [of('xn'), of('yn'), of('ng')];
  if (near(xg, 120, 12) && near(yg, 120, 12) && (xy ?? 0) < 20) return 'Both hots are on one leg';
  if (!near(xg, 120, 12) && !near(yg, 120, 12)) return 'No hot arrives, or there is no ground';
  if (!near(xg, 120, 12) || !near(yg, 120, 12)) return 'One hot is missing or weak';
  if (xn !== null && yn !== null && (!near(xn, 120, 12) || !near(yn, 120, 12)))
    return 'The neutral is open or floats: off now';
  if (xn !== null && yn !== null && Math.abs(xn - yn) > PARTED)
    return 'The legs part: load one leg, read both';
  if ((ng ?? 0) > 5) return 'The neutral carries a fault or a bad joint';
  if (near(xy, 208, 8)) return 'In order, on a 208 V service: heat is a quarter less';
  return near(xy, 240, 14) ? 'In order' : 'Hot to hot is off: read it again';
}

/** Volts with and without a load of measured amps; the drop with its amps beside each percent. */
export const loadTest = (c: Context, box: Box, nominal: 120 | 240): readonly (Step | false | null)[] => [
  measure(
    'load',
    'Load it: volts and measured amps',
    'A good reading without load says nothing of a joint.',
    [
      volts('unloaded', 'Without load', `about ${nominal}`),
      volts('loaded', 'Under load', '3 % less at most'),
      amps('amps', 'Measured amps', `up to ${0.8 * (c.circuit?.breaker.rating ?? box.device.rating)}`),
      optional(volts('loaded-120', 'Hot to neutral under load', 'where something works at 120')),
    ],
    {
      text: 'A heater or the appliance itself, clamped: never the amps of its nameplate.',
      live: c.circuit,
      cannot: 'Nothing to load it with: written down as not loaded',
    },
  ),
  ...when(c.log.has('load') && !c.log.picked('load', 'cannot'), {
    kind: 'ask',
    key: 'load-say',
    title: dropWords(c),
    why: 'Two voltages and one current make a resistance: any meter is a drop tester.',
    options: [
      { value: 'go', name: 'Go on' },
      { value: 'joint', name: 'Look for a joint first' },
    ],
    working: dropLines(c),
  }),
];

/** Source ohms and drop of a load test. @returns null while it is not made */
export function dropOf({
  log,
}: Context): { drop: number; percent: number; ohms: number; amps: number } | null {
  const [unloaded, loaded, current] = ['unloaded', 'loaded', 'amps'].map((n) => log.figure('load', n));
  if (typeof unloaded !== 'number' || typeof loaded !== 'number' || typeof current !== 'number') return null;
  if (current <= 0 || unloaded <= 0) return null;
  const drop = unloaded - loaded;
  return { drop, percent: (100 * drop) / unloaded, ohms: drop / current, amps: current };
}
const dropWords = (c: Context): string => {
  const found = dropOf(c);
  return found ? `${round(found.percent, 1)} % at ${round(found.amps, 1)} A` : 'Not loaded';
};
const dropLines = (c: Context): Line[] => {
  const found = dropOf(c);
  return found
    ? [
        {
          text: `${round(found.drop, 1)} V over ${round(found.amps, 1)} A: ${round(found.ohms, 3)} Ω there and back.`,
        },
        {
          text: 'Over 3 % is advice, over 5 % to the service as well; a joint is where it differs from its neighbors.',
        },
      ]
    : [];
};
