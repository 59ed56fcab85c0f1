/** A panel with its main off and its bus read dead, and the main back on after the work. */
import { panelCaution } from '#core/records/sources.ts';
import { isLive } from '#core/records/acts.ts';
import { DEAD_VOLTS } from '#core/records/thresholds.ts';
import { measure, volts, work, type Answer, type Context, type Step } from '../step.ts';
import { panelOf } from './breaker.ts';

export const PANEL_DEAD = 'panel-dead';
export const MAIN_ON = 'main-on';

const PAIRS = ['a-n', 'b-n', 'a-b', 'a-g', 'b-g'] as const;

function problem({ figures }: Answer): string | null {
  const of = (name: string) => figures.find((f) => f.name === name)?.value;
  for (const name of ['before', 'after']) {
    const proved = of(name);
    if (proved === undefined || !isLive(proved))
      return `Tester ${name}: expected 100 to 140 V on a known live source; else it proves nothing`;
  }
  const live = PAIRS.find((p) => (of(p) ?? Infinity) > DEAD_VOLTS);
  return live === undefined
    ? null
    : `Not dead: expected ${DEAD_VOLTS} V or less on every pair of the bus. Stop here`;
}

/** Hands go into a panel only after this. */
export const panelDead = (c: Context): Step =>
  measure(
    PANEL_DEAD,
    'Main off, locked: read the bus dead',
    'The main may leave the bus live: a second feed, a split bus, a generator, or a main that does not open both legs.',
    [
      volts('before', 'Tester on a known source', 'about 120'),
      volts('a-n', 'Leg A to neutral', '0'),
      volts('b-n', 'Leg B to neutral', '0'),
      volts('a-b', 'Leg A to leg B', '0'),
      volts('a-g', 'Leg A to enclosure', '0'),
      volts('b-g', 'Leg B to enclosure', '0'),
      volts('after', 'Tester again', 'about 120'),
    ],
    {
      text: 'Branch breakers off, then the main. Note on it. Two-pole tester or low impedance.',
      caution: `${panelCaution(c.document, panelOf(c.document))} Licensed practice where local law wants it.`,
      refuses: problem,
    },
  );

/** Cover on, main on, branches one by one. */
export const mainOn: Step = work(
  MAIN_ON,
  'Cover on, main on',
  'All branches at once is a rush of current through a cold main.',
  [
    ['Tools counted, cover on with every screw, empty spaces filled.', '', '408.4, 408.7'],
    ['Main on, then the branches one by one; stand to the side.'],
  ],
  { done: 'Power is on' },
);
