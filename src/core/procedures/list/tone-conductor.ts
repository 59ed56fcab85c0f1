import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { ask, measure, when, work, type Context, type Line, type Procedure } from '../step.ts';

/** The strongest has to stand out by so much, or the gain was too high. */
const STANDS_OUT = 1.5;

function verdict({ log }: Context, count: number): { says: string; lines: Line[]; clear: boolean } {
  const bars = Array.from({ length: count }, (_, k) => log.figure(`conductor ${k + 1}`, 'bars') ?? 0);
  const order = bars.map((b, k) => ({ b, k: k + 1 })).sort((x, y) => y.b - x.b);
  const [first, second] = order;
  const clear = first !== undefined && first.b > 0 && first.b >= STANDS_OUT * (second?.b ?? 0);
  return {
    says: clear ? `It is conductor ${first.k}` : 'Two answer alike: less gain, and again',
    lines: bars.map((b, k) => ({ text: `Conductor ${k + 1}: ${b}` })),
    clear,
  };
}

export const toneConductor: Procedure = {
  id: 'tone-conductor',
  title: 'Which conductor is it?',
  use: 'Several conductors or cables come into a box, and one of them has to be told.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet at the far end', (box) => {
      const count = Math.min(12, Math.max(0, c.log.figure('count', 'count') ?? 0));
      const asked = Array.from({ length: count }, (_, k) => k + 1);
      const { says, lines, clear } = verdict(c, count);
      return [
        ...breakerFor(c, box),
        work(
          'hook',
          'Transmitter at this end',
          'Its own leads are listened to first: a flat battery says “none of them”.',
          [
            ['Conductor to a separate proven ground; breaker off, loads unplugged.'],
            ['Receiver at the leads: it answers. The reference ground is written down.'],
          ],
          { inside: box, done: 'It sends, heard at its leads' },
        ),
        measure('count', 'How many are there to choose from?', 'Each is listened to alone, held apart.', [
          { name: 'count', label: 'Conductors or cables', unit: '', min: 2, max: 12 },
          { name: 'gain', label: 'Gain', unit: '', min: 1, max: 10 },
        ]),
        ...asked.map((k) =>
          measure(`conductor ${k}`, `Strength at conductor ${k}`, 'One gain for all of them.', [
            {
              name: 'bars',
              label: `Bars at gain ${c.log.figure('count', 'gain') ?? '?'}`,
              unit: 'bars',
              min: 0,
              max: 20,
            },
          ]),
        ),
        ...when(
          count > 0 && asked.every((k) => c.log.has(`conductor ${k}`)),
          ask(
            'which',
            says,
            'Where a neighbor answers too the gain was too high.',
            [
              ['marked', 'Marked at both ends'],
              ['unsure', 'Not sure: written down as open'],
            ],
            { working: lines },
          ),
          ...when(
            clear && c.log.picked('which', 'marked'),
            work(
              'confirm',
              'Confirmed by ohms',
              'A tone leaks; ohms with the far end tied do not.',
              [['Far end tied to ground: near zero here; tie off: over. Only this one.']],
              { inside: box, done: 'Confirmed, tie off' },
            ),
          ),
        ),
      ];
    }),
};
