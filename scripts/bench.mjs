/** `npm run bench`: bundles the measurements as the application is bundled, so that what ships is measured. */
import { spawnSync } from 'node:child_process';
import { build } from 'vite';

const folder = 'node_modules/.cache/hekto-bench';
await build({
  configFile: false,
  logLevel: 'error',
  build: { ssr: 'scripts/bench.ts', outDir: folder, emptyOutDir: true, target: 'node20', minify: false },
});
const args = [`${folder}/bench.js`, ...process.argv.slice(2)];
process.exit(spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1);
