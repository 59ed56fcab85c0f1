import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { otherBox, whereOther } from '../parts/others.ts';
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
      const near = otherBox(c, 'near', 'junction');
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
        whereOther(
          c,
          'near',
          'At which box are they told apart?',
          'What comes in there may be of other circuits: that box is proved dead too.',
          'junction',
        ),
        measure(
          'count',
          'How many are there to choose from?',
          'Each is listened to alone, held apart.',
          [
            { name: 'count', label: 'Conductors or cables', unit: '', min: 2, max: 12 },
            { name: 'gain', label: 'Gain', unit: '', min: 1, max: 10 },
          ],
          { inside: near },
        ),
        ...asked.map((k) =>
          measure(
            `conductor ${k}`,
            `Strength at conductor ${k}`,
            'One gain for all of them.',
            [
              {
                name: 'bars',
                label: `Bars at gain ${c.log.figure('count', 'gain') ?? '?'}`,
                unit: 'bars',
                min: 0,
                max: 20,
              },
            ],
            { inside: near },
          ),
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
              [['The conductor at the far end tied to its ground there.']],
              { inside: box, keepsNeutrals: true, done: 'Tied' },
            ),
            work(
              'confirm-near',
              'Ohms at the near end',
              'Only the right one shows the tie.',
              [['Near zero to ground here; tie off at the far end: over. Only this one.']],
              { inside: near, keepsNeutrals: true, done: 'Confirmed, tie off' },
            ),
          ),
        ),
      ];
    }),
};
