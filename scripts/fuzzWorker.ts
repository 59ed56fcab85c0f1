/** One reader on broken files, in a process that can be ended when it hangs. */
import { mutated, outcome, READERS } from './mutations.ts';

process.on('message', ({ reader, from, to }: { reader: number; from: number; to: number }) => {
  const one = READERS[reader]!;
  for (let seed = from; seed < to; seed++) {
    process.send!({ seed, at: 'begun' });
    const text = mutated(one.samples, seed);
    // Of the processor, not of the clock: others may keep it busy.
    const begun = process.cpuUsage();
    const is = outcome(one, text);
    const { user, system } = process.cpuUsage(begun);
    process.send!({ seed, at: 'done', is, ms: (user + system) / 1000 });
  }
  process.send!({ at: 'end' });
});
