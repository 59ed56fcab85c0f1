#!/usr/bin/env node
// Starts the command as it was built; where there is no build, or one older than its sources, from the sources.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const path = (relative) => fileURLToPath(new URL(relative, import.meta.url));
const built = path('../build/cli/main.js');

/** When a file below a folder was changed last. */
const newest = (folder) =>
  Math.max(
    ...readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => statSync(`${entry.parentPath ?? entry.path}/${entry.name}`).mtimeMs),
  );
const isCurrent = () =>
  existsSync(built) &&
  (!existsSync(path('../src/core')) ||
    statSync(built).mtimeMs > Math.max(newest(path('../src/core')), newest(path('.'))));

async function load() {
  if (isCurrent()) return import('../build/cli/main.js');
  const { register } = await import('tsx/esm/api');
  register();
  return import('./main.ts');
}
const { main } = await load();
process.exitCode = await main(process.argv.slice(2));
