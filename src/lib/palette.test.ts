import assert from 'node:assert/strict';
import { test } from 'node:test';
import { search, type PaletteItem } from './palette.ts';

const item = (name: string, hint: string, words = ''): PaletteItem => ({
  id: name,
  name,
  hint,
  words,
  run: () => undefined,
});
const ITEMS = [
  item('Place all that is missing', 'P', 'receptacles outlets spacing'),
  item('Runs', 'Go to', 'circuits cable gauge breaker gfci afci'),
  item('Light: attic', 'Screen', 'dark'),
  item('S2', 'Studio', 'receptacle outlet clay sink'),
  item('Export the job file', 'File', 'json backup'),
];
const FOUND: [string, string][] = [
  ['plug', 'Place all that is missing'],
  ['socket', 'S2'],
  ['arc', 'Runs'],
  ['dark', 'Light: attic'],
  ['sink', 'S2'],
  ['save', 'Export the job file'],
  ['exort', 'Export the job file'],
  ['studio', 'S2'],
];
for (const [text, name] of FOUND) {
  test(`“${text}” finds ${name}`, () => assert.ok(search(ITEMS, text).some((i) => i.name === name)));
}
test('nothing typed lists all; nonsense finds nothing', () => {
  assert.equal(search(ITEMS, ' ').length, ITEMS.length);
  assert.deepEqual(search(ITEMS, 'zzzzqq'), []);
});
