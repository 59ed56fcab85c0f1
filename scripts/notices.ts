/** `npm run notices`: the licenses of what ships in the browser and on the server, into THIRD-PARTY-NOTICES.txt. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

interface Package {
  name: string;
  version: string;
  license?: string | { type: string };
  dependencies?: Record<string, string>;
}
const root = new URL('..', import.meta.url).pathname;
const own = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
/** What is built into the pages or runs beside them, though it is needed to build only. */
const BUILT_IN = [
  '@fontsource-variable/atkinson-hyperlegible-mono',
  '@fontsource-variable/atkinson-hyperlegible-next',
  '@sveltejs/kit',
  'flowbite',
  'flowbite-svelte',
  'flowbite-svelte-icons',
  'svelte',
  'tailwindcss',
];

const folderOf = (name: string, from: string): string | null => {
  for (let at = from; at.startsWith(root); at = join(at, '..')) {
    const folder = join(at, 'node_modules', name);
    if (existsSync(join(folder, 'package.json'))) return folder;
    if (at === root) break;
  }
  const folder = join(root, 'node_modules', name);
  return existsSync(join(folder, 'package.json')) ? folder : null;
};

const found = new Map<string, { is: Package; text: string }>();
function take(name: string, from: string): void {
  const folder = folderOf(name, from);
  if (!folder) return;
  const is = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as Package;
  const key = `${is.name} ${is.version}`;
  if (found.has(key)) return;
  const file = readdirSync(folder).find((f) => /^(licen[cs]e|copying)/i.test(f));
  found.set(key, { is, text: file ? readFileSync(join(folder, file), 'utf8').trim() : '' });
  for (const dependency of Object.keys(is.dependencies ?? {})) take(dependency, folder);
}
for (const name of [...Object.keys(own.dependencies), ...BUILT_IN]) take(name, root);

const termsOf = ({ license }: Package) =>
  typeof license === 'object' ? license.type : (license ?? 'not stated');
const parts = [...found.values()]
  .sort((a, b) => a.is.name.localeCompare(b.is.name) || a.is.version.localeCompare(b.is.version))
  .map(({ is, text }) => `${is.name} ${is.version}\n${termsOf(is)}\n\n${text}`.trim());
const head = 'Hekto is built with the packages below. Each is under the terms that stand with it.';
const all = `${[head, ...parts].join(`\n\n${'-'.repeat(72)}\n\n`)}\n`;
for (const place of ['THIRD-PARTY-NOTICES.txt', 'static/third-party-notices.txt'])
  writeFileSync(join(root, place), all);
