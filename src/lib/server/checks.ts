/** Checks by the pool of the built server; while developing, where no built thread is, in place. */
import { existsSync, realpathSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Pool } from './pool.ts';
import { checked, type Answer } from './work.ts';

/** Beside the server that was started: `server.mjs`, or the build itself. */
function threadFile(): string | null {
  const started = process.argv[1];
  if (!started || !existsSync(started)) return null;
  const folder = realpathSync(started).replace(/index\.js$/, '');
  const places = [folder, dirname(folder), join(dirname(folder), 'build')];
  return places.map((p) => join(p, 'threads', 'work.js')).find((p) => existsSync(p)) ?? null;
}

const file = threadFile();
const pool = file === null ? null : new Pool(pathToFileURL(file));

export const checkApart = async (text: string): Promise<Answer> => (pool ? pool.run(text) : checked(text));
