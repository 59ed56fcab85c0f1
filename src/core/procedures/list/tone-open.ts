import { runOf } from '#core/circuits/run.ts';
import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { PAST_BREAK } from '../hunting/case.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, look, measure, when, work, type Context, type Line, type Procedure } from '../step.ts';

/** Strengths by box at one gain, along the run. */
function strengths(c: Context): { name: string; id: string; bars: number }[] {
  if (!c.circuit) return [];
  return runOf(c.view, c.circuit).stops.flatMap(({ box }) => {
    const bars = c.log.figure(`tone ${box.id}`, 'bars');
    return bars === null ? [] : [{ name: box.name, id: box.id, bars }];
  });
}

/** Between which boxes it falls. */
function bracket(c: Context): Line[] {
  const list = strengths(c);
  const most = Math.max(0, ...list.map((s) => s.bars));
  const weak = list.find((s) => s.bars < PAST_BREAK * most);
  const strong = list.filter((s) => s.bars >= PAST_BREAK * most).at(-1);
  const table = list.map((s) => ({ text: `${s.name}: ${s.bars}` }));
  if (!weak || !strong)
    return [...table, { text: 'It does not fall: the conductor is whole between these boxes.' }];
  return [...table, { text: `Strong to ${strong.name}, weak at ${weak.name}: the break is between them.` }];
}

export const toneOpen: Procedure = {
  id: 'tone-open',
  title: 'Open conductor by tone',
  use: 'A conductor is broken somewhere along a run, and boxes should stay closed.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'dead outlet where the transmitter goes', (box) => {
      const stops = c.circuit ? runOf(c.view, c.circuit).stops.filter((s) => s.box.id !== box.id) : [];
      return [
        ...breakerFor(c, box),
        ask('open-which', 'Which conductor is open?', 'Hot to ground and neutral to ground told it before.', [
          ['hot', 'The hot'],
          ['neutral', 'The neutral'],
          ['ground', 'The ground'],
        ]),
        measure(
          'no-short',
          'No short to ground first',
          'A tone to ground on a shorted conductor goes everywhere.',
          [
            {
              name: 'ohms',
              label: 'Conductor to ground; empty where it shows over',
              unit: 'Ω',
              min: 0,
              max: 1e9,
              optional: true,
            },
          ],
          { text: 'Breaker off, all loads unplugged.', inside: box },
        ),
        ask(
          'hook-up',
          'How is it hooked up?',
          'To a separate proven ground it is clearest; hot to neutral finds breaks and is weak along healthy pairs.',
          [
            ['ground', 'Conductor to a proven separate ground'],
            ['pair', 'Hot to neutral'],
          ],
          { text: 'Battery tested, the receiver hears the transmitter at its own leads.', inside: box },
        ),
        ...when(
          c.log.picked('hook-up', 'ground'),
          work(
            'others-tied',
            'The other conductors to ground through a load',
            'Loose beside it they would carry the tone past the break.',
            [
              ['Neutral and ground joined at the panel: confirmed.'],
              ['At a live box of it the others tied to ground through a lamp; the tie is put on record.'],
              ['With every conductor of the cable open no load is needed.'],
            ],
            { done: 'Tied, on record' },
          ),
        ),
        measure(
          'gain',
          'Gain',
          'As low as still answers at the conductor: strengths at other gains cannot be compared.',
          [{ name: 'gain', label: 'Gain of the receiver', unit: '', min: 1, max: 10 }],
        ),
        ...stops.map((s) =>
          measure(
            `tone ${s.box.id}`,
            `Strength at ${s.box.name}`,
            'One gain, one attitude of the receiver, plate on.',
            [
              {
                name: 'bars',
                label: `Bars at gain ${c.log.figure('gain', 'gain') ?? '?'}`,
                unit: 'bars',
                min: 0,
                max: 20,
              },
            ],
            { cannot: 'Not reached' },
          ),
        ),
        ...when(
          stops.length > 0 && stops.every((s) => c.log.has(`tone ${s.box.id}`)),
          ask(
            'bracket',
            'The break is bracketed',
            'Between the last strong and the first weak reading.',
            [['on', 'Go on with it']],
            {
              working: bracket(c),
            },
          ),
        ),
        ...when(
          c.log.has('bracket') || stops.length === 0,
          look(
            'conduit',
            'What could fool it?',
            'Steel hides a break in mid-run; cable ends in boxes do not.',
            [
              ['steel', 'Steel conduit between them'],
              ['parallel', 'Runs beside another cable'],
            ],
            [['known', 'That is all']],
          ),
          ...hunting(c, c.circuit),
        ),
      ];
    }),
};
