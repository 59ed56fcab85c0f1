/** Runs every reader on broken files in a process each, and counts. A file may take a second of the processor. */
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { READERS } from './mutations.ts';

const HANG_MS = 1000;
/** Past this on the clock a reader is ended: it does not come back, however busy the machine. */
const END_MS = 10000;
/** A share of them, such as `npm run fuzz -- 0.1`; all without one. */
const share = Number(process.argv[2] ?? 1);
const countOf = (name: string) => Math.ceil((name === 'job file' ? 10000 : 2000) * share);

interface Count {
  read: number;
  refused: number;
  crashes: string[];
  hangs: number[];
  slowest: number;
}

/** @returns the seed it hung at, or null when it came to the end */
function runFrom(reader: number, from: number, to: number, count: Count): Promise<number | null> {
  return new Promise((resolve) => {
    const worker = fork(fileURLToPath(new URL('./fuzzWorker.ts', import.meta.url)), {
      execArgv: ['--import', 'tsx'],
      // Parsers may have much to say of a broken file.
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    let seed = from;
    let timer: NodeJS.Timeout | undefined;
    const end = (at: number | null) => {
      clearTimeout(timer);
      worker.kill('SIGKILL');
      resolve(at);
    };
    worker.on('message', (message) => {
      const m = message as { seed: number; at: string; is: unknown; ms: number };
      clearTimeout(timer);
      if (m.at === 'end') end(null);
      else if (m.at === 'begun') {
        seed = m.seed;
        timer = setTimeout(() => end(seed), END_MS);
      } else {
        count.slowest = Math.max(count.slowest, m.ms);
        if (m.ms > HANG_MS) count.hangs.push(m.seed);
        if (m.is === 'read') count.read++;
        else if (m.is === 'refused') count.refused++;
        else count.crashes.push(`seed ${m.seed}: ${(m.is as { crash: string }).crash}`);
      }
    });
    worker.on('error', (error) => {
      count.crashes.push(`seed ${seed}: ${error.message}`);
      end(seed);
    });
    worker.send({ reader, from, to });
  });
}

let bad = false;
for (const [index, { name }] of READERS.entries()) {
  const count: Count = { read: 0, refused: 0, crashes: [], hangs: [], slowest: 0 };
  const to = countOf(name);
  for (let from = 0; from < to;) {
    const hung = await runFrom(index, from, to, count);
    if (hung === null) break;
    if (!count.crashes.some((c) => c.startsWith(`seed ${hung}:`))) count.hangs.push(hung);
    from = hung + 1;
  }
  const { read, refused, crashes, hangs, slowest } = count;
  console.log(
    `${name}: ${to} broken files; ${read} read, ${refused} refused, ${crashes.length} crashes, ${hangs.length} hangs; slowest ${slowest.toFixed(0)} ms`,
  );
  for (const line of [...crashes.slice(0, 8), ...hangs.slice(0, 8).map((s) => `seed ${s} hung`)])
    console.log(`  ${line}`);
  bad ||= crashes.length + hangs.length > 0;
}
process.exit(bad ? 1 : 0);
