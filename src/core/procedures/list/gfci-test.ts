import { isBefore } from '#core/units/time.ts';
import { atOutlet } from '../parts/frame.ts';
import { asLeft } from '../parts/box.ts';
import { breakerFor } from '../parts/breaker.ts';
import { rows } from '#core/job/document.ts';
import { protectedBy } from '#core/records/deviceTests.ts';
import { runOf } from '#core/circuits/run.ts';
import { ask, when, work, type Procedure } from '../step.ts';

export const gfciTest: Procedure = {
  id: 'gfci-test',
  title: 'Monthly GFCI test',
  use: 'A GFCI is tested by its own button, and the owner is told what else it takes down.',
  steps: (c) =>
    atOutlet(c, 'gfci', 'GFCI', (box) => {
      const { circuit } = c;
      const protects = circuit ? protectedBy(runOf(c.view, circuit), box).map((p) => p.name) : [];
      return [
        ...breakerFor(c, box),
        ...asLeft(c, box, circuit).slice(0, 1),
        ...when(circuit, {
          kind: 'test',
          key: `test ${box.id}`,
          title: 'Press test, then reset',
          why: 'Its button needs no ground; a plug-in tester does. Left reset at the end: people forget.',
          box,
          circuit: circuit!,
          device: 'gfci',
          live: circuit!,
          met: rows(c.document.deviceTests).some((t) => t.boxId === box.id && !isBefore(t.at, c.call.opened)),
        } as const),
        ask(
          'also-dead',
          'What else went dead with it?',
          'An outlet in another room that dies with it is looked for in the dark, some day.',
          [
            ['none', 'Nothing else'],
            ['listed', 'What is written below'],
          ],
          { noteLabel: 'Dead with it, parted by commas' },
        ),
        work(
          'owner-card',
          'Card for the owner',
          'Who knows where to reset does not call an electrician at night.',
          [
            [`Reset here: ${c.document.areas[box.areaId]?.name ?? ''}${box.spot ? `, ${box.spot}` : ''}.`],
            [
              `It also protects: ${[...protects, c.log.note('also-dead')].filter(Boolean).join(', ') || 'nothing else'}.`,
            ],
            ['It compares what goes out with what comes back, and opens on a few thousandths of an ampere.'],
            ['Test it monthly; ten years is a usual age to replace one.'],
          ],
          { done: 'Left with the owner' },
        ),
      ];
    }),
};
