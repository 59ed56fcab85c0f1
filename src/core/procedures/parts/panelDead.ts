/** A panel with its main off and its bus read dead, and the main back on after the work. */
import { panelCaution } from '#core/records/sources.ts';
import { MAIN_ON, PANEL_DEAD, whyNotDead } from '#core/records/panel.ts';
import { measure, volts, work, type Context, type Step } from '../step.ts';
import { panelOf } from './breaker.ts';

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
      refuses: ({ figures }) => whyNotDead([...figures]),
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
  { done: 'Power is on', closesPanel: true },
);
