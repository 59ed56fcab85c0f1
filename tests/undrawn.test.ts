/** A house nobody has drawn: a room by name, an outlet in words, a circuit known in part; drawn later, nothing is lost. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Box, Circuit } from '#core/job/schema.ts';
import { PHONE, DESK, useApp } from './support/app.ts';
import { choose, fill, Key, field, press, sees } from './support/browser.ts';

const app = useApp();
const rowsOf = async <T>(table: string): Promise<T[]> =>
  (await app.rows<{ table: string; value: T }>('entities'))
    .filter((e) => e.table === table)
    .map((e) => e.value);
const enter = async (label: string, text: string): Promise<void> => {
  const input = await field(app.driver, label);
  await app.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', input);
  await input.sendKeys(text, Key.ENTER);
};

test('an outlet in words is tested without a plan, says what is not judged, and is put on the plan later', async () => {
  await app.size(...PHONE);
  await app.go('/');
  await fill(app.driver, 'What do you call it?', '9 Alder Row');
  await press(app.driver, 'Start the job');
  await sees(app.driver, /No walls on this level yet/);
  const at = new URL(await app.driver.getCurrentUrl()).pathname.replace('/walk', '');
  await press(app.driver, 'Add a room');
  await choose(app.driver, 'Kind', 'Bedroom');
  await press(app.driver, 'Outlets');
  await enter('Existing outlet, in words', 'left of the bed');
  await sees(app.driver, /Not on the plan: the room is not drawn/);
  const [box] = await rowsOf<Box>('boxes');
  assert.deepEqual([box!.wallId, box!.spot, box!.status], [null, 'left of the bed', 'existing']);
  // On a circuit of which nobody knows the rest.
  await app.go(`${at}/runs`);
  await press(app.driver, 'Add circuit');
  await choose(app.driver, 'All it feeds is here', 'Not known');
  await choose(app.driver, 'Order of boxes seen', 'Not known');
  const [circuit] = await rowsOf<Circuit>('circuits');
  assert.deepEqual([circuit!.complete, circuit!.ordered], ['unknown', 'unknown']);
  // Drawn later: the outlet keeps its words and gets its place.
  await app.size(...DESK);
  await app.go(`${at}/walk?box=${box!.id}&part=walls`);
  for (const wall of ["12'", "10'", "12'", "10'"]) await enter('Next wall', wall);
  await sees(app.driver, /Closes within/);
  await press(app.driver, 'Outlets');
  await sees(app.driver, /Where it is/);
  await enter('Put it on the plan, from wall start', "3'");
  await app.driver.wait(async () => (await rowsOf<Box>('boxes'))[0]!.wallId !== null, 10000);
  const [placed] = await rowsOf<Box>('boxes');
  assert.deepEqual([placed!.offset, placed!.spot], [36, 'left of the bed']);
  await fill(app.driver, 'Where it is', 'behind the headboard');
  await app.driver.wait(async () => (await rowsOf<Box>('boxes'))[0]!.spot === 'behind the headboard', 10000);
});
