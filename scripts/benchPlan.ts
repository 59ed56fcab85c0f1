/** Measures the plan in a real browser: how soon it stands, and whether it keeps up with the hand. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { Origin } from 'selenium-webdriver/lib/input.js';
import { serialize } from '#core/job/file.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { css, openBrowser, sees, setSize } from '../tests/support/browser.ts';

export interface Frames {
  /** Median time between frames, ms. */
  between: number;
  /** Mean time the page's thread was busy for a frame: script, style, layout and painting, ms. */
  work: number;
}
export interface PlanTimes {
  /** From asking for the page until outlets are drawn, ms. */
  opened: number;
  pan: Frames;
  drag: Frames;
}

const STEPS = 150;

/** Moves the pressed pointer to and fro, one step a frame, and gives the median time between frames, ms. */
const MOVE = `
  const [type, x, y, steps, done] = arguments;
  const ground = document.querySelector('.plan .ground');
  const between = [];
  let last = 0, step = 0;
  function frame(now) {
    if (step > 0) between.push(now - last);
    last = now;
    if (++step > steps) return done(between.sort((a, b) => a - b)[Math.floor(between.length / 2)]);
    const to = { bubbles: true, view: window, clientX: x + 3 * (step % 60 < 30 ? step % 30 : 30 - (step % 30)), clientY: y };
    ground.dispatchEvent(type === 'pointermove' ? new PointerEvent(type, to) : new MouseEvent(type, to));
    requestAnimationFrame(frame);
  }
  requestAnimationFrame(frame);`;

/** Opens a job in a browser of its own. */
async function withJob<T>(
  origin: string,
  document: JobDocument,
  use: (driver: Driver) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'hekto-bench-'));
  const { driver, close } = await openBrowser();
  try {
    await setSize(driver, 1280, 800);
    await driver.get(origin);
    const path = join(folder, 'job.json');
    writeFileSync(path, serialize(document));
    await (await css(driver, 'input[aria-label="Job file"]')).sendKeys(path);
    await sees(driver, /Closes within|does not close/);
    return await use(driver);
  } finally {
    await close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Seconds that the page's thread has been busy. */
async function busySeconds(driver: Driver): Promise<number> {
  const { metrics } = (await driver.sendAndGetDevToolsCommand('Performance.getMetrics', {})) as unknown as {
    metrics: { name: string; value: number }[];
  };
  return metrics.find((m) => m.name === 'TaskDuration')!.value;
}

/** Scrolls the table of readings down a row a frame; gives the median time between frames, ms. */
const SCROLL = `
  const [steps, done] = arguments;
  const table = document.querySelector('.scroll');
  const between = [];
  let last = 0, step = 0;
  function frame(now) {
    if (step > 0) between.push(now - last);
    last = now;
    if (++step > steps) return done(between.sort((a, b) => a - b)[Math.floor(between.length / 2)]);
    table.scrollTop += 44;
    requestAnimationFrame(frame);
  }
  requestAnimationFrame(frame);`;

/** All readings of a job, scrolled. */
export const measureReadings = (origin: string, document: JobDocument): Promise<Frames> =>
  withJob(origin, document, async (driver) => {
    await driver.get(`${origin}/job/${document.job.id}/prove/readings`);
    await sees(driver, /shown/);
    // Judging runs in slices of its own first.
    await driver.wait(
      () =>
        driver.executeScript<boolean>(`return !document.querySelector('.scroll').innerText.includes('…')`),
      30000,
    );
    await driver.sendDevToolsCommand('Performance.enable', {});
    const busy = await busySeconds(driver);
    const between = await driver.executeAsyncScript<number>(SCROLL, STEPS);
    return { between, work: (1000 * ((await busySeconds(driver)) - busy)) / STEPS };
  });

/** Moves the first box of the first run to and fro by keys; gives the median time until it is drawn there, ms. */
const SWAP = `
  const done = arguments[0];
  const order = () => [...document.querySelectorAll('[data-circuit]')[0].querySelectorAll('[data-stop]')].map((s) => s.dataset.stop);
  const name = order()[0];
  const times = [];
  function once(k) {
    if (k === 24) return done(times.sort((a, b) => a - b)[12]);
    const before = order().join();
    const stop = document.querySelector('[data-stop="' + name + '"]');
    const start = performance.now();
    stop.dispatchEvent(new KeyboardEvent('keydown', { key: k % 2 ? 'ArrowLeft' : 'ArrowRight', altKey: true, bubbles: true }));
    const look = () => {
      if (order().join() === before) return setTimeout(look, 0);
      times.push(performance.now() - start);
      setTimeout(() => once(k + 1), 150);
    };
    Promise.resolve().then(look);
  }
  once(0);`;

/** From the key that moves a box on its run until run, drop and protection are drawn anew, ms. */
export const measureRun = (origin: string, document: JobDocument): Promise<number> =>
  withJob(origin, document, async (driver) => {
    await driver.get(`${origin}/job/${document.job.id}/runs`);
    await sees(driver, /violations/);
    return driver.executeAsyncScript<number>(SWAP);
  });

/**
 * The point of a thing nearest to its middle where nothing else is hit: in a crowded plan the middle of the ground is an
 * outlet, and what is pressed there is that one.
 */
const SPOT = `
  const [target] = arguments;
  const { x, y, width, height } = target.getBoundingClientRect();
  const [cx, cy] = [x + width / 2, y + height / 2];
  const free = (px, py) => {
    const hit = document.elementFromPoint(px, py);
    const box = hit?.closest('[data-box]') ?? null;
    return target.contains(hit) && box === (target.closest('[data-box]') ?? null);
  };
  for (let r = 0; r < Math.max(width, height) / 2; r += 4)
    for (let k = 0; k < 16; k++) {
      const at = { x: Math.round(cx + r * Math.cos(k * Math.PI / 8)), y: Math.round(cy + r * Math.sin(k * Math.PI / 8)) };
      if (free(at.x, at.y)) return at;
    }
  throw new Error('no point of it is free');`;

export const measurePlan = (origin: string, document: JobDocument): Promise<PlanTimes> =>
  withJob(origin, document, async (driver) => {
    await driver.get(`${origin}/job/${document.job.id}/layout`);
    const opened = await driver.executeAsyncScript<number>(`
      const done = arguments[0];
      const look = () => document.querySelector('[data-box]') ? done(performance.now()) : requestAnimationFrame(look);
      look();`);
    await sees(driver, /violations/);
    await driver.sendDevToolsCommand('Performance.enable', {});
    /** The plan's own transform and that of an outlet. */
    const drawn = () =>
      driver.executeScript<string>(
        `return document.querySelector('.ground > svg').getAttribute('style') + document.querySelector('[data-box="R150"]').getAttribute('style')`,
      );
    const move = async (type: string, selector: string): Promise<Frames> => {
      const target = await css(driver, selector);
      const { x, y } = await driver.executeScript<{ x: number; y: number }>(SPOT, target);
      await driver.actions().move({ x, y, origin: Origin.VIEWPORT }).press().perform();
      const before = await drawn();
      const busy = await busySeconds(driver);
      const between = await driver.executeAsyncScript<number>(MOVE, type, x, y, STEPS);
      const work = (1000 * ((await busySeconds(driver)) - busy)) / STEPS;
      if ((await drawn()) === before) throw new Error(`${selector} did not move`);
      await driver.actions().release().perform();
      return { between, work };
    };
    const count = Object.keys(document.boxes).length;
    const seen = await driver.executeScript<number>(`return document.querySelectorAll('[data-box]').length`);
    if (count <= 300 && seen !== count) throw new Error(`${seen} of ${count} outlets are on screen`);
    return {
      opened,
      pan: await move('mousemove', '.plan .ground'),
      drag: await move('pointermove', '[data-box="R150"] .target'),
    };
  });

/** Milliseconds from asking for a page until it shows its content and its thread has time for a tap. */
const READY = `
  const [selector, done] = arguments;
  const look = () => document.querySelector(selector)
    ? requestIdleCallback(() => requestAnimationFrame(() => done(performance.now())))
    : setTimeout(look, 10);
  look();`;
const PAGES: [page: string, shows: string][] = [
  ['walk', '.entry h2, .rooms'],
  ['layout', '.findings li'],
  ['runs', '.run svg'],
  ['panel', '[data-space]'],
  ['prove', '.work'],
  ['hand-over', 'article table'],
];

/** How soon each page of a job answers a tap on a processor slowed so many times. */
export const measureFirstTap = (
  origin: string,
  document: JobDocument,
  slowed: number,
): Promise<[page: string, ms: number][]> =>
  withJob(origin, document, async (driver) => {
    await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: slowed });
    const times: [string, number][] = [];
    for (const [page, shows] of PAGES) {
      const tries: number[] = [];
      for (let i = 0; i < 3; i++) {
        await driver.get(`${origin}/job/${document.job.id}/${page}`);
        tries.push(await driver.executeAsyncScript<number>(READY, shows));
      }
      times.push([page, tries.sort((a, b) => a - b)[1]!]);
    }
    return times;
  });
