/** Two open calls in invented houses, as they stand at a moment: one begun, one half done. */
import type { JobDocument } from '#core/job/schema.ts';
import { Walker } from '#core/procedures/testing.ts';
import type { Answer } from '#core/procedures/step.ts';
import { PLAIN_READING } from '#core/job/document.ts';
import { standingOf } from '#core/procedures/engine.ts';

export interface DemoCall {
  document: JobDocument;
  title: string;
  next: string;
}

function made(walker: Walker, id: string, name: string, address: string, words: string): DemoCall {
  const { document, procedure } = walker;
  const { current } = standingOf(procedure, walker.context);
  return {
    document: {
      ...document,
      job: { ...document.job, id, name, address },
      calls: { [walker.call.id]: { ...walker.call, words } },
    },
    title: procedure.title,
    next: current?.title ?? '',
  };
}

const BY = 'R. Quill';
const answer = (walker: Walker, values: Partial<Answer>): void => {
  const problem = walker.answer(values);
  if (problem !== null) throw new Error(`${walker.step?.title}: ${problem}`);
};

/** A porch GFCI that does not hold: one look at danger, and where it is. */
function porch(now: number): DemoCall {
  const walker = new Walker('gfci-reset', now - 6 * 60_000, BY);
  answer(walker, { picks: ['none'] });
  answer(walker, { picks: ['outdoors'], note: 'porch, by the steps' });
  return made(
    walker,
    'job-ferry-bank',
    '27 Ferry Bank',
    '27 Ferry Bank, Upper Quill',
    'The porch plug pops as soon as it rains.',
  );
}

/** An old bedroom outlet: read, locked off, proved dead, looked into; what to fit is open. */
function bedroom(now: number): DemoCall {
  const walker = new Walker('two-slot', now - 40 * 60_000, BY);
  answer(walker, { picks: ['none'] });
  answer(walker, { picks: ['bedroom'], note: 'left of the bed' });
  const box = walker.context.box!;
  walker.run([
    {
      type: 'put',
      table: 'readings',
      rows: [
        {
          ...PLAIN_READING,
          id: 'reading-sedge-1',
          boxId: box.id,
          place: `${box.name}, Bedroom`,
          at: walker.now,
          by: BY,
          stage: 'as-found',
          instrument: 'low-impedance meter',
          hotNeutral: 121.3,
        },
      ],
    },
  ]);
  answer(walker, { picks: ['two-slot', 'worn', 'none'] });
  answer(walker, { picks: ['1'], value: 15, note: '9' });
  answer(walker, { picks: ['none'] });
  walker.prove(box.id);
  answer(walker, { picks: ['done'] });
  walker.energize(walker.context.circuit!.id, 'measurement');
  answer(walker, { figures: [{ name: 'volts', value: 1.2 }] });
  walker.prove(box.id);
  answer(walker, { picks: ['cloth', 'metal', '14', 'no-ground'] });
  return made(
    walker,
    'job-sedge-lane',
    '3 Sedge Lane',
    '3 Sedge Lane, Larkmoor',
    'My computer’s plug has three pins and the wall has two holes.',
  );
}

/** @param now milliseconds since 1970 */
export const demoCalls = (now: number): DemoCall[] => [bedroom(now), porch(now)];
