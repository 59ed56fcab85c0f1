import { readdirSync } from 'node:fs';

/** Files below a folder that end in something, sorted. */
export const globSync = (folder, end) =>
  readdirSync(folder, { recursive: true })
    .filter((file) => file.endsWith(end))
    .map((file) => `${folder}/${file}`)
    .sort();
