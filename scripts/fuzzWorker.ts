/** One reader on broken files, in a process that can be ended when it hangs. */
import { mutated, outcome, READERS } from './mutations.ts';

process.on('message', ({ reader, from, to }: { reader: number; from: number; to: number }) => {
  const one = READERS[reader]!;
  for (let seed = from; seed < to; seed++) {
    process.send!({ seed, at: 'begun' });
    const text = mutated(one.samples, seed);
    const begun = performance.now();
    const is = outcome(one, text);
    process.send!({ seed, at: 'done', is, ms: performance.now() - begun });
  }
  process.send!({ at: 'end' });
});
