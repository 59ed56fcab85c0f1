/**
 * What each electrical figure of a call’s answers is of, by the step and its name. Figures of other units (counts, sizes, minutes,
 * temperatures) stay words of their answer.
 */

/**
 * `circuit`: volts or amperes at the outlet or breaker that the call is about: more than nothing shows it live. `legs`: at the
 * bus, which stays live with a breaker off. `source`: the tester on what is known to be live. `dead`: ohms, which a dead circuit
 * shows. `plate`: what somebody reads off a nameplate, sets or works out; nothing was measured.
 */
export type FigureOf = 'circuit' | 'legs' | 'source' | 'dead' | 'plate';

const all = <N extends string>(of: FigureOf, ...names: N[]): Record<N, FigureOf> =>
  Object.fromEntries(names.map((n) => [n, of])) as Record<N, FigureOf>;

/** By the step without its number or box. */
const FIGURES: Readonly<Record<string, Readonly<Record<string, FigureOf>>>> = {
  '': { ...all('circuit', 'volts'), ...all('dead', 'ohms') },
  amps: all('circuit', 'amps', 'neutral'),
  balance: all('circuit', 'amps'),
  demand: all('plate', 'amps'),
  draw: all('plate', 'amps'),
  elements: all('dead', 'ground', 'lower', 'upper'),
  find: {
    ...all('circuit', 'free', 'hn', 'hg', 'ng', 'ref'),
    ...all('legs', 'a', 'b', 'la', 'lb', 'pipe'),
    ...all('dead', 'ohms'),
    // Of a load on one leg, or of the breaker that is hunted: the legs beside it tell them apart.
    ...all('circuit', 'amps'),
  },
  'full-load': all('circuit', 'amps', 'loaded', 'unloaded'),
  'hot-to-box': { ...all('circuit', 'volts'), ...all('dead', 'ohms') },
  'legs panel': all('legs', 'a', 'b', 'ab', 'a-load', 'b-load', 'amps', 'a-amps', 'b-amps', 'gec'),
  legs: all('circuit', 'xy', 'xg', 'yg', 'xn', 'yn', 'ng'),
  line: all('circuit', 'volts'),
  load: all('circuit', 'amps', 'loaded', 'loaded-120', 'unloaded'),
  'managed-to': all('plate', 'amps'),
  'no-short': all('dead', 'ohms'),
  'panel-dead': {
    ...all('source', 'before', 'after'),
    ...all('legs', 'a-n', 'b-n', 'a-b', 'a-g', 'b-g', 'n-g', 'f-n', 'f-g'),
  },
  plate: all('plate', 'volts'),
  'proof-load': all('circuit', 'amps', 'volts'),
  running: all('circuit', 'amps', 'volts'),
  service: all('plate', 'bus', 'main'),
};

/** What a figure of an answer is of; null where it is none of these. @param names of all figures of the answer */
export function figureOf(step: string, name: string, names: readonly string[]): FigureOf | null {
  // Legs of a panel are read together.
  if (names.includes('a') && names.includes('b')) return FIGURES['legs panel']![name] ?? 'legs';
  const [stem = ''] = step.split(' ');
  return FIGURES[stem]?.[name] ?? FIGURES['']?.[name] ?? null;
}
