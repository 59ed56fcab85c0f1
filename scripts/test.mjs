/** `npm test`: installs what is missing, then every check, and the runner's closing lines last. */
import { spawnSync } from 'node:child_process';
import { globSync } from './glob.mjs';
import { installTools, installPackages } from './install.mjs';

function step(name, command, args) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, { stdio: 'inherit' });
  if (status !== 0) {
    console.error(`\n${name} failed`);
    process.exit(status ?? 1);
  }
}

installPackages();
installTools();
step('Types', 'npm', ['run', '--silent', 'typecheck']);
step('Lint', 'npm', ['run', '--silent', 'lint']);
step('Format', 'npm', ['run', '--silent', 'format:check']);
step('Build', 'npm', ['run', '--silent', 'build']);
const files = [...globSync('src', '.test.ts'), ...globSync('tests', '.test.ts')];
step('Unit, command line, server and browser tests', process.execPath, [
  '--import',
  'tsx',
  '--test',
  '--test-concurrency=2',
  '--test-reporter=spec',
  ...files,
]);
