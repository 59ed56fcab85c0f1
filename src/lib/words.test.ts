/** The words that users read, docs/words.md: those of the trade, and none of those it does not use. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { test } from 'node:test';

const ROOTS = ['core', 'lib', 'routes'];
/** Old files keep the words they were written in. */
const KEPT = /migrations\.ts$|\.test\.ts$/;

const REFUSED: readonly (readonly [RegExp, string])[] = [
  [/\baluminium\b/i, 'aluminum'],
  [/\bcolou?rs? ?blindness\b|\bcolour/i, 'color'],
  [/\bgrey\b/i, 'gray'],
  [/\bcentre/i, 'center'],
  [/\blabell(ed|ing)/i, 'labeled'],
  [/\bneighbour/i, 'neighbor'],
  [/\btravell/i, 'traveler'],
  [/\b(de-)?energis/i, 'energized'],
  [/\bdisposer\b/i, 'disposal'],
  [/\bhard[- ]wired\b/i, 'hardwired'],
  [/\bvehicle charger\b/i, 'EV charger'],
  [/\bsockets?\b(?!:)/i, 'receptacle'],
  [/\bearth(ed|ing)\b/i, 'grounded, grounding'],
  [/\bconsumer unit\b|\bfuse box\b|\bdistribution board\b/i, 'panel'],
  [/\bRCDs?\b|\bAFDDs?\b/, 'GFCI, AFCI'],
  [/\bwashbasin\b/i, 'vanity sink'],
  [/\bmm²/, 'AWG or kcmil'],
  [/\bstorey\b/i, 'level'],
  [/\bwhilst\b|\bamongst\b/i, 'while, among'],
  [/\bFit (an?|the)\b|; fit (an?|the)\b/, 'install'],
];

const withoutComments = (text: string): string =>
  text.replace(/\/\*[\s\S]*?\*\//g, '').replace(/^\s*\/\/.*$|<!--[\s\S]*?-->/gm, '');

const sources = ROOTS.flatMap((root) => {
  const base = new URL(`../${root}/`, import.meta.url);
  return readdirSync(base, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(ts|svelte)$/.test(file) && !KEPT.test(file))
    .map((file) => [`${root}/${file}`, withoutComments(readFileSync(new URL(file, base), 'utf8'))] as const);
});

test('no word that the trade does not use stands in anything that is read', () => {
  assert.ok(sources.length > 200);
  const found = sources.flatMap(([file, text]) =>
    text
      .split('\n')
      .flatMap((line, i) =>
        REFUSED.filter(([word]) => word.test(line)).map(
          ([, say]) => `${file}:${i + 1}: say ${say}: ${line.trim()}`,
        ),
      ),
  );
  assert.deepEqual(found, []);
});

test('the page of words names each word that is refused by what is said in its place', () => {
  const page = readFileSync(new URL('../../docs/words.md', import.meta.url), 'utf8');
  for (const say of [
    'aluminum',
    'gray',
    'traveler',
    'energized',
    'disposal',
    'hardwired',
    'EV charger',
    'install',
  ])
    assert.match(page, new RegExp(`\\b${say}\\b`));
});
