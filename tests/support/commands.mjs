/** Runs commands of `hekto` one after another, as arguments in JSON on standard input; gives what each ends with. */
import { readFileSync } from 'node:fs';
import { main } from '../../build/cli/main.js';

const calls = JSON.parse(readFileSync(0, 'utf8'));
const { write } = process.stdout;
const ended = [];
for (const args of calls) {
  process.stdout.write = process.stderr.write = () => true;
  ended.push(await main(args));
}
process.stdout.write = write;
process.stdout.write(JSON.stringify(ended));
