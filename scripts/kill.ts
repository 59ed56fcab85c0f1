/**
 * `npm run kill`: the browser is killed in the middle of edits, again and again, and what was shown as saved must be there
 * when it comes back. Build first. The number of rounds may be given, such as `npm run kill -- 10`.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseFileValue } from '#core/job/file.ts';
import { SCHEMA, VERSION } from '#core/job/migrations.ts';
import { TABLE_NAMES, type Job } from '#core/job/schema.ts';
import { field, openBrowser, press, sees, setSize } from '../tests/support/browser.ts';
import { startServer } from '../tests/support/server.ts';

const ROUNDS = Number(process.argv[2] ?? 50);
const profile = mkdtempSync(join(tmpdir(), 'hekto-kill-'));
const server = await startServer();
const WALK = `${server.origin}/job/job-tamarack/walk`;

/** Types a new name into the job's own field as fast as the page takes it, numbered. */
const TYPE = `
  const [input, from] = arguments;
  let n = from;
  window.__typing = setInterval(() => {
    if (document.querySelector('[data-unsaved]')) return;
    n++;
    input.value = 'Round ' + n;
    input.dispatchEvent(new Event('input', { bubbles: true }));
    input.dispatchEvent(new Event('change', { bubbles: true }));
  }, 5);`;
/** The number shown, and whether it is stored. */
const SHOWN = `
  const name = document.querySelector('header .job strong')?.textContent ?? '';
  return [Number(/Round (\\d+)/.exec(name)?.[1] ?? 0), document.querySelector('[data-unsaved]') === null];`;
const STORED = `
  const done = arguments[0];
  const open = indexedDB.open('hekto');
  open.onsuccess = () => {
    const all = open.result.transaction('entities').objectStore('entities').getAll();
    all.onsuccess = () => { open.result.close(); done(all.result); };
  };`;

const processes = (): number[] =>
  execFileSync('ps', ['-eo', 'pid=,args='], { encoding: 'utf8', maxBuffer: 1e8 })
    .split('\n')
    .filter((line) => line.includes(profile) && !line.includes('ps -eo'))
    .map((line) => Number(line.trim().split(' ')[0]));

let edits = 0;
let lost = 0;
let halves = 0;
let last = 0;
try {
  for (let round = 0; round < ROUNDS; round++) {
    const { driver } = await openBrowser(profile);
    await setSize(driver, 1280, 800);
    if (round === 0) {
      await driver.get(`${server.origin}/demo`);
      await sees(driver, /out of reach/);
    }
    await driver.get(WALK);
    await sees(driver, /14 Tamarack|Round/, 'header');
    if (round > 0) {
      const rows = await driver.executeAsyncScript<{ table: string; value: unknown }[]>(STORED);
      const of = (table: string) => rows.filter((r) => r.table === table).map((r) => r.value);
      const job = of('job')[0] as Job;
      const stored = Number(/Round (\d+)/.exec(job.name)?.[1] ?? 0);
      if (stored < last) {
        lost += last - stored;
        console.log(`round ${round}: ${last} was shown as saved, ${stored} is stored`);
      }
      try {
        parseFileValue({
          schema: SCHEMA,
          version: VERSION,
          job,
          ...Object.fromEntries(TABLE_NAMES.map((t) => [t, of(t)])),
        });
      } catch (error) {
        halves++;
        console.log(`round ${round}: what is stored does not read back: ${String(error).slice(0, 200)}`);
      }
      last = stored;
    }
    await press(driver, 'House');
    await driver.executeScript(TYPE, await field(driver, 'Job name'), last);
    const until = performance.now() + 300 + ((round * 137) % 900);
    const from = last;
    while (performance.now() < until) {
      const [shown, saved] = await driver.executeScript<[number, boolean]>(SHOWN);
      if (saved) last = Math.max(last, shown);
    }
    edits += last - from;
    for (const pid of processes()) {
      try {
        process.kill(pid, 'SIGKILL');
      } catch {
        // It went with its parent.
      }
    }
    await driver.quit().catch(() => {});
  }
} finally {
  await server.stop();
  rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
}
console.log(`${ROUNDS} kills in ${edits} edits shown as saved: ${lost} lost, ${halves} stored halves`);
process.exit(lost + halves > 0 ? 1 : 0);
