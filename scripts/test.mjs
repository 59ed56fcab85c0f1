/** `npm test`: installs what is missing, then every check, and the runner's closing lines last. */
import { spawn, spawnSync } from 'node:child_process';
import { globSync } from './glob.mjs';
import { installTools, installPackages } from './install.mjs';

function fail(name, status) {
  console.error(`\n${name} failed`);
  process.exit(status || 1);
}

/** One after the other in a lane; what a step prints comes in one piece, when it has ended. */
async function lane(steps) {
  for (const [name, script] of steps) {
    const status = await new Promise((resolve) => {
      const child = spawn('npm', ['run', '--silent', script], { stdio: ['ignore', 'pipe', 'pipe'] });
      const said = [];
      child.stdout.on('data', (piece) => said.push(piece));
      child.stderr.on('data', (piece) => said.push(piece));
      child.on('close', (code) => {
        process.stdout.write(`\n== ${name}\n${Buffer.concat(said)}`);
        resolve(code ?? 1);
      });
    });
    if (status !== 0) fail(name, status);
  }
}

installPackages();
installTools();
await lane([['Types', 'typecheck']]);
// What the types made is there: the rest goes two at a time.
await Promise.all([
  lane([
    ['Lint', 'lint'],
    ['Format', 'format:check'],
  ]),
  lane([['Build', 'build']]),
]);
const name = 'Unit, command line, server and browser tests';
console.log(`\n== ${name}`);
const files = [...globSync('src', '.test.ts'), ...globSync('tests', '.test.ts')];
const runner = ['--import', 'tsx', '--test', '--test-concurrency=2', '--test-reporter=spec'];
const { status } = spawnSync(process.execPath, [...runner, ...files], { stdio: 'inherit' });
if (status !== 0) fail(name, status);
