/** A panel proved dead before hands go in, act by act, and the main back on after the work. */
import { OTHER_SOURCES, type OtherSource } from '#core/job/schema.ts';
import {
  isFedOn,
  MAIN_ON,
  PANEL_DEAD,
  PANEL_OFF,
  panelTicks,
  whyNotDead,
  whyNotOff,
  type PanelGap,
} from '#core/records/panel.ts';
import { panelCaution, SOURCE_WORDS } from '#core/records/sources.ts';
import { look, measure, volts, work, type Context, type Step } from '../step.ts';
import { panelOf } from './breaker.ts';

const isSource = (pick: string): pick is OtherSource => (OTHER_SOURCES as readonly string[]).includes(pick);

/** Asked once for the house: with one of these the main off makes nothing dead. */
const sources = (): Step =>
  look(
    'panel-sources',
    'Does anything else feed this house?',
    'With one of these on, the main off leaves the bus live.',
    OTHER_SOURCES.map((k) => [k, SOURCE_WORDS[k]]),
    [
      ['none', 'None of these, asked and looked'],
      ['these', 'These are here'],
    ],
    {
      refuses: ({ picks }) =>
        picks.some(isSource) === picks.includes('these')
          ? null
          : 'expected those that are here ticked, or none of these',
      effects: ({ picks }) => [
        { type: 'edit-job', values: { otherSources: { asked: true, kinds: picks.filter(isSource) } } },
      ],
    },
  );

const off = ({ document }: Context): Step => {
  const panel = panelOf(document);
  return look(
    PANEL_OFF,
    `${panel.name}: off and locked`,
    'Each is a way in which a bus was live with its main off.',
    panelTicks(document, panel),
    [['done', 'Done, each as ticked']],
    {
      caution: panelCaution(document, panel),
      refuses: ({ picks }) => whyNotOff(document, panel, picks),
    },
  );
};

const dead = ({ document }: Context): Step => {
  const panel = panelOf(document);
  const fed = isFedOn(document, panel.id);
  return measure(
    PANEL_DEAD,
    'Read the bus dead',
    'The main may leave the bus live: a second feed, a split bus, a generator, or a main that does not open both legs.',
    [
      volts('before', 'Tester on a known source', 'about 120'),
      volts('a-n', 'Leg A to neutral', '0'),
      volts('b-n', 'Leg B to neutral', '0'),
      volts('a-b', 'Leg A to leg B', '0'),
      volts('a-g', 'Leg A to enclosure', '0'),
      volts('b-g', 'Leg B to enclosure', '0'),
      volts('n-g', 'Neutral to enclosure', '0'),
      ...(fed
        ? [
            volts('f-n', 'Lugs that feed on, to neutral', '0'),
            volts('f-g', 'Lugs that feed on, to enclosure', '0'),
          ]
        : []),
      volts('after', 'Tester again', 'about 120'),
    ],
    {
      text: 'Two-pole tester or low impedance. With the main off no outlet is live: a proving unit counts.',
      caution: `${panelCaution(document, panel)} Licensed practice where local law wants it.`,
      refuses: ({ figures }) => whyNotDead([...figures], fed),
    },
  );
};

/** Hands go into a panel only after these, each in its turn. */
export const panelStep = (c: Context, { next }: PanelGap): Step =>
  next === 'sources' ? sources() : next === PANEL_OFF ? off(c) : dead(c);

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
