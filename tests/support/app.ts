/** One server and one browser for a file of browser tests. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, afterEach, before } from 'node:test';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { studioJob } from '../../demo/studio.ts';
import { serialize } from '#core/job/file.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { css, openBrowser, sees, setSize, type Browser } from './browser.ts';
import { startServer, type Server } from './server.ts';

/** Where a failed test leaves what it saw. */
const FAILURES = 'failures';
export const JOB = '/job/job-tamarack';
export const DESK = [1280, 800] as const;
export const PHONE = [390, 844] as const;

/** How long a job may take to open on a machine that has much else to do, milliseconds. */
const OPENING = 40_000;

export class App {
  /** For files that tests make. */
  readonly folder = mkdtempSync(join(tmpdir(), 'hekto-test-'));
  server!: Server;
  browser!: Browser;

  get driver(): Driver {
    return this.browser.driver;
  }
  get downloads(): string {
    return this.browser.downloads;
  }
  /** Opens a page, once the one left has stored what was typed into it. */
  async go(path: string): Promise<void> {
    await this.driver.wait(
      () => this.script<boolean>('return document.querySelector("[data-unsaved]") === null'),
      15000,
      'the page never stored its work',
    );
    await this.driver.get(this.server.origin + path);
  }
  /** The demo house as it ships, whatever an earlier test left. */
  async freshDemo(): Promise<void> {
    const open = async () => {
      await this.forget();
      await this.go('/demo');
      await this.judged();
    };
    // A browser that has just begun may keep its storage waiting for good: it is asked once more.
    await open().catch(open);
  }
  /** The part of the demo that is a studio and a bedroom, brought in as a file, and Layout open on it. */
  async freshStudio(): Promise<void> {
    await this.bring(studioJob());
    await this.go(`${JOB}/layout`);
    await this.judged();
  }
  /** A job brought in as a file, with no other there. */
  async bring(job: JobDocument): Promise<void> {
    await this.forget();
    await this.go('/');
    const path = join(this.folder, 'job.json');
    writeFileSync(path, serialize(job));
    await (await css(this.driver, 'input[aria-label="Job file"]')).sendKeys(path);
    await sees(this.driver, /Closes within/);
  }
  /** Waits until Layout shows its plan and its findings. */
  private async judged(): Promise<void> {
    await sees(this.driver, /out of reach/, 'body', OPENING);
    await sees(this.driver, /\d\s+violation/, '.findings', OPENING);
  }
  private async forget(): Promise<void> {
    // From a page of ours that holds no database open: a delete beside an open one may wait for good.
    await this.go('/license.txt');
    await this.driver.sendDevToolsCommand('Storage.clearDataForOrigin', {
      origin: this.server.origin,
      storageTypes: 'indexeddb,local_storage',
    });
    await this.script(`
      localStorage.setItem('hekto-by', 'M. Alder');
      localStorage.setItem('hekto-light', 'day');`);
  }
  /** Leaves what a test saw when it failed: a picture, the page’s words, and what its console said. */
  async leave(test: string): Promise<void> {
    const name = test
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .slice(0, 80);
    mkdirSync(FAILURES, { recursive: true });
    writeFileSync(`${FAILURES}/${name}.png`, await this.driver.takeScreenshot(), 'base64');
    const log = await this.driver.manage().logs().get('browser');
    const said = log.map((entry) => `${entry.level.name} ${entry.message}`);
    const words = await this.script<string>('return document.body.innerText');
    const at = await this.driver.getCurrentUrl();
    writeFileSync(`${FAILURES}/${name}.txt`, [test, at, '', ...said, '', words, ''].join('\n'));
    console.log(`left in ${FAILURES}/${name}.png and .txt: ${at}\n${said.join('\n')}`);
  }
  size(width: number, height: number): Promise<unknown> {
    return setSize(this.driver, width, height);
  }
  script<T>(code: string, ...args: unknown[]): Promise<T> {
    return this.driver.executeScript<T>(code, ...args);
  }
  /** Rows of the job that is open. */
  async rowsHere<T>(table: string): Promise<T[]> {
    const job = new URL(await this.driver.getCurrentUrl()).pathname.split('/')[2];
    const all = await this.rows<{ jobId: string; table: string; value: T }>('entities');
    return all.filter((e) => e.table === table && e.jobId === job).map((e) => e.value);
  }
  /** All rows of a table of the database. */
  rows<T>(table: string): Promise<T[]> {
    return this.driver.executeAsyncScript<T[]>(
      `const [table, done] = arguments;
       const open = indexedDB.open('hekto');
       open.onsuccess = () => {
         const all = open.result.transaction(table).objectStore(table).getAll();
         all.onsuccess = () => { open.result.close(); done(all.result); };
       };`,
      table,
    );
  }
}

export function useApp(): App {
  const app = new App();
  before(async () => {
    app.server = await startServer();
    app.browser = await openBrowser();
    await app.size(...DESK);
  });
  afterEach(async (test) => {
    const { name, passed } = test as { name?: string; passed?: boolean };
    // What cannot be left is no reason to fail for another one.
    if (passed === false) await app.leave(name ?? 'test').catch((error) => console.log(String(error)));
  });
  after(async () => {
    await app.browser?.close();
    await app.server?.stop();
    rmSync(app.folder, { recursive: true, force: true });
  });
  return app;
}
