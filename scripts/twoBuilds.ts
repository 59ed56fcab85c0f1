/**
 * `npm run builds`: two real builds in one browser, this one and one whose files are a version newer. What the older one has
 * open is let go of and says so, it writes nothing and hides nothing, and the newer one has every row. Build first.
 */
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { studioJob } from '../demo/studio.ts';
import { serialize } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import { css, fill, openBrowser, press, sees, setSize } from '../tests/support/browser.ts';
import { startServer } from '../tests/support/server.ts';

const folder = mkdtempSync(join(tmpdir(), 'hekto-builds-'));
const newer = join(folder, 'newer');

/** This checkout with the next version of the file, which has nothing new but its number. */
function makeNewer(): void {
  const kept = /(^|\/)(node_modules|build|\.svelte-kit|\.git|docs|scratch)(\/|$)/;
  cpSync('.', newer, { recursive: true, filter: (path) => !kept.test(path) });
  symlinkSync(resolve('node_modules'), join(newer, 'node_modules'));
  const path = join(newer, 'src/core/job/migrations.ts');
  const text = readFileSync(path, 'utf8');
  const made = text
    .replace(`VERSION = ${VERSION};`, `VERSION = ${VERSION + 1};`)
    .replace(
      'const STEPS: Record<number, (file: Raw) => Raw> = {',
      `const STEPS: Record<number, (file: Raw) => Raw> = {\n  ${VERSION}: (file) => ({ ...file, version: ${VERSION + 1} }),`,
    );
  assert.equal(made.match(new RegExp(`VERSION = ${VERSION + 1};|\\n {2}${VERSION}: `, 'g'))?.length, 2);
  writeFileSync(path, made);
  execFileSync('npm', ['run', '--silent', 'build'], { cwd: newer, stdio: ['ignore', 'ignore', 'inherit'] });
}

const STORED = `
  const done = arguments[0];
  const open = indexedDB.open('hekto');
  open.onsuccess = () => {
    const t = open.result.transaction(['entities', 'jobs']);
    const [entities, jobs] = ['entities', 'jobs'].map((s) => t.objectStore(s).getAll());
    t.oncomplete = () => {
      const version = open.result.version;
      open.result.close();
      done(JSON.stringify({ version, entities: entities.result, jobs: jobs.result.map((j) => [j.id, j.version, j.deletedAt]) }));
    };
  };`;

makeNewer();
const { driver, close } = await openBrowser();
let server = await startServer();
const { origin } = server;
const port = Number(new URL(origin).port);
const stored = () => driver.executeAsyncScript<string>(STORED);
const on = async (build: string) => {
  await server.stop();
  server = await startServer(port, build);
};
try {
  await setSize(driver, 1280, 800);
  await driver.get(`${origin}/`);
  const path = join(folder, 'job.json');
  writeFileSync(path, serialize(studioJob()));
  await (await css(driver, 'input[aria-label="Job file"]')).sendKeys(path);
  await sees(driver, /Closes within/);
  const old = await driver.getWindowHandle();
  console.log('the older build has a job open');

  await on(newer);
  await driver.switchTo().newWindow('tab');
  const other = await driver.getWindowHandle();
  await driver.get(`${origin}/job/job-tamarack/walk`);
  await sees(driver, /Closes within/);
  const brought = await stored();
  assert.equal(JSON.parse(brought).version, 10 * (VERSION - 2));
  console.log('the newer build brought the store up beside it');

  await driver.switchTo().window(old);
  await sees(driver, /A newer Hekto is here/);
  await sees(driver, /Closes within/);
  await fill(driver, 'Name', 'Typed in the older build');
  await sees(driver, /A newer Hekto has this job/);
  await sees(driver, /Save my copy as a file/);
  assert.equal(await stored(), brought, 'the older build wrote');
  console.log('the older one said so, and wrote nothing');

  await press(driver, 'Reload');
  await sees(driver, /Closes within/);
  await fill(driver, 'Name', 'Typed in the newer build');
  await driver.wait(async () => (await stored()).includes('Typed in the newer build'), 8000, 'not stored');
  console.log('reloaded it is the newer build, and stores');

  // Somebody goes back to the older build.
  await on('.');
  await driver.switchTo().window(other);
  await driver.close();
  await driver.switchTo().window(old);
  const kept = await stored();
  await driver.get(`${origin}/`);
  await sees(driver, /A newer Hekto is here/);
  await sees(driver, /14 Tamarack Court/);
  await driver.get(`${origin}/job/job-tamarack/walk`);
  await sees(driver, /A newer Hekto has this job/);
  assert.equal(await stored(), kept, 'the older build wrote');
  console.log('the older build on the newer store: the job is listed, nothing is written');
} finally {
  await close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
