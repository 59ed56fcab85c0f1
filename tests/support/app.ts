/** One server and one browser for a file of browser tests. */
import { after, before } from 'node:test';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { openBrowser, sees, setSize, type Browser } from './browser.ts';
import { startServer, type Server } from './server.ts';

export const JOB = '/job/job-tamarack';
export const DESK = [1280, 800] as const;
export const PHONE = [390, 844] as const;

export class App {
  server!: Server;
  browser!: Browser;

  get driver(): Driver {
    return this.browser.driver;
  }
  get downloads(): string {
    return this.browser.downloads;
  }
  async go(path: string): Promise<void> {
    await this.driver.get(this.server.origin + path);
  }
  /** The demo job as it ships, whatever an earlier test left. */
  async freshDemo(): Promise<void> {
    await this.go('/');
    await this.driver.executeAsyncScript(`
      const done = arguments[0];
      localStorage.setItem('hekto-by', 'M. Alder');
      localStorage.setItem('hekto-light', 'day');
      const request = indexedDB.deleteDatabase('hekto');
      request.onsuccess = request.onerror = request.onblocked = () => done();`);
    await this.go('/demo');
    await sees(this.driver, /out of reach/);
  }
  size(width: number, height: number): Promise<unknown> {
    return setSize(this.driver, width, height);
  }
  script<T>(code: string, ...args: unknown[]): Promise<T> {
    return this.driver.executeScript<T>(code, ...args);
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
  after(async () => {
    await app.browser?.close();
    await app.server?.stop();
  });
  return app;
}
