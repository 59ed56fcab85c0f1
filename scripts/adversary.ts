/**
 * `npm run adversary -- --count 100000 --seed 1`: random sequences against the gates, beside a reference that knows what is truly
 * live; prints what each gate let through and held back, and which acts moved it.
 */
import { parseArgs } from 'node:util';
import { newTally, play, World } from '#core/records/adversary.ts';
import { randomFrom } from '#core/planner/search/random.ts';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '1000' },
    seed: { type: 'string', default: '1' },
    steps: { type: 'string', default: '40' },
  },
});
const tally = newTally();
const [count, seed, steps] = [Number(values.count), Number(values.seed), Number(values.steps)];
let failed = 0;
for (let k = 0; k < count; k++)
  try {
    play(randomFrom(seed + k), steps, tally);
  } catch (error) {
    failed++;
    if (failed <= 3) console.log(`seed ${seed + k}: ${error instanceof Error ? error.stack : String(error)}`);
  }
console.log(`${count} sequences of ${steps} acts, ${tally.proofs} proofs, ${failed} failed`);
for (const gate of new Set([...Object.keys(tally.opened), ...Object.keys(tally.shut)]))
  console.log(`${gate.padEnd(22)} open ${tally.opened[gate] ?? 0}, shut ${tally.shut[gate] ?? 0}`);
const gates = ['hands', 'neutral', 'power', 'flip', 'panel'];
console.log(`\n${'shut by it / opened by it'.padEnd(26)}${gates.map((g) => g.padStart(14)).join('')}`);
for (const kind of new World(randomFrom(1), newTally()).kinds)
  console.log(
    kind.padEnd(26) +
      gates
        .map((g) => {
          const { shut = 0, opened = 0 } = tally.moved[kind]?.[g] ?? {};
          return `${shut} / ${opened}`.padStart(14);
        })
        .join(''),
  );
process.exit(failed > 0 ? 1 : 0);
