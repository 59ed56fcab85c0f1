/** `npm run fuzz`: 10,000 broken job files and 2,000 of every other format, fixed seeds; crashes and hangs fail it. */
import { spawnSync } from 'node:child_process';
import { installPackages } from './install.mjs';

installPackages();
process.exit(
  spawnSync(process.execPath, ['--import', 'tsx', 'scripts/fuzz.ts', ...process.argv.slice(2)], {
    stdio: 'inherit',
  }).status ?? 1,
);
