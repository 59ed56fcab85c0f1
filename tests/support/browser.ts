/** Chromium for tests and pictures, driven through Debian's driver. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, error, Key, logging, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--force-color-profile=srgb',
];

export interface Browser {
  driver: Driver;
  downloads: string;
  close(): Promise<void>;
}

/**
 * @param profile to be used again; without one it begins with nothing
 * @param more flags of its own
 */
export async function openBrowser(
  profile = mkdtempSync(join(tmpdir(), 'hekto-profile-')),
  more: readonly string[] = [],
): Promise<Browser> {
  const downloads = mkdtempSync(join(tmpdir(), 'hekto-downloads-'));
  const options = new Options();
  options.addArguments(...FLAGS, ...more, `--user-data-dir=${profile}`);
  options.setChromeBinaryPath('/usr/bin/chromium');
  const prefs = new logging.Preferences();
  prefs.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  options.setLoggingPrefs(prefs);
  options.setUserPreferences({
    'download.default_directory': downloads,
    'download.prompt_for_download': false,
  });
  const driver = (await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build()) as Driver;
  await driver.manage().setTimeouts({ script: 60000, pageLoad: 30000 });
  return {
    driver,
    downloads,
    async close() {
      await driver.quit();
      for (const folder of [profile, downloads])
        rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}

/** True size of the page, whatever the window's frame takes. */
export const setSize = (driver: Driver, width: number, height: number): Promise<unknown> =>
  driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: width < 600,
  }) as Promise<unknown>;

const WAIT = 15000;
/** One look lasts no longer than the driver lets a script run, milliseconds. */
const LONGEST_LOOK = 40_000;
/** What the driver says of a page that was left. */
const LEFT = /unload|navigat|detached|context|reload|target/i;

/**
 * Waits within the page until an expression in the arguments `a` of a function is true there, and gives what it then is: looked
 * at whenever the page changes, and now and then besides. Asking from outside as often costs more than the page itself does.
 * @param look body of a function of `a`
 * @returns null where it never came true
 */
export async function inPage<T>(
  driver: WebDriver,
  look: string,
  args: readonly unknown[] = [],
  wait = WAIT,
): Promise<T | null> {
  const until = Date.now() + wait;
  for (;;) {
    try {
      const found = await driver.executeAsyncScript<T | null>(
        `const [a, left, done] = arguments;
         const look = () => { ${look} };
         let over = false;
         const end = (value) => {
           over = true;
           changes.disconnect();
           clearInterval(again);
           clearTimeout(late);
           done(value);
         };
         const ask = () => {
           if (over) return;
           const value = look();
           if (value) end(value);
         };
         let asked = false;
         const soon = () => {
           if (asked) return;
           asked = true;
           setTimeout(() => { asked = false; ask(); }, 20);
         };
         const changes = new MutationObserver(soon);
         changes.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
         const again = setInterval(ask, 150);
         const late = setTimeout(() => end(null), left);
         ask();`,
        args,
        Math.min(LONGEST_LOOK, Math.max(0, until - Date.now())),
      );
      if (found !== null || Date.now() >= until) return found;
    } catch (problem) {
      // Another page came while this one was looked at: it is looked for there.
      const left = problem instanceof error.WebDriverError && LEFT.test(problem.message);
      if (!left || Date.now() > until) throw problem;
    }
  }
}

/** An element by an XPath or a selector, as soon as it is there. */
async function located(
  driver: WebDriver,
  by: 'css' | 'xpath',
  path: string,
  what: string,
): Promise<WebElement> {
  const find =
    by === 'css'
      ? 'return document.querySelector(a[0]);'
      : 'return document.evaluate(a[0], document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue;';
  const found = await inPage<WebElement>(driver, find, [path]);
  if (!found) throw new Error(`no ${what}`);
  return found;
}

export const css = (driver: WebDriver, selector: string): Promise<WebElement> =>
  located(driver, 'css', selector, selector);

const literal = (text: string): string => `concat('', '${text.replaceAll("'", `', "'", '`)}')`;

/** A button or link by its words or its label. */
export const button = (driver: WebDriver, name: string): Promise<WebElement> =>
  located(
    driver,
    'xpath',
    `//*[self::button or self::a or self::summary][@aria-label=${literal(name)} or starts-with(normalize-space(.), ${literal(name)})]`,
    `button “${name}”`,
  );

export async function press(driver: WebDriver, name: string): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      await tapOn(driver, await button(driver, name));
      return;
    } catch (problem) {
      // What was found is drawn anew before the finger is on it: the new one is pressed.
      if (!(problem instanceof error.StaleElementReferenceError) || tries === 5) throw problem;
    }
  }
}

/** Presses an element, brought clear of the bars at the edges of the screen. */
export async function tapOn(driver: WebDriver, found: WebElement): Promise<void> {
  // On a slow machine a bar may still be on its way over what is to be pressed.
  for (let tries = 0; ; tries++) {
    await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', found);
    try {
      await found.click();
      return;
    } catch (problem) {
      if (!(problem instanceof error.ElementClickInterceptedError) || tries === 5) throw problem;
      await driver.sleep(300);
    }
  }
}

/** A field by the words of its label; the nth where several share them. */
export async function field(driver: WebDriver, label: string, nth = 1): Promise<WebElement> {
  const found = await located(
    driver,
    'xpath',
    `(//label[starts-with(normalize-space(.), ${literal(label)})])[${nth}]`,
    `field “${label}”`,
  );
  return driver.findElement(By.id((await found.getAttribute('for')) ?? ''));
}

/** Types into a field in place of what it holds, and leaves it. */
export async function fill(driver: WebDriver, label: string, text: string, nth = 1): Promise<void> {
  const input = await field(driver, label, nth);
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', input);
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.TAB);
}

/** Chooses an option by its words, or by those that it begins with. */
export async function choose(driver: WebDriver, label: string, option: string, nth = 1): Promise<void> {
  const select = await field(driver, label, nth);
  const [whole] = await select.findElements(By.xpath(`./option[normalize-space(.) = ${literal(option)}]`));
  const found =
    whole ??
    (await select.findElement(By.xpath(`./option[starts-with(normalize-space(.), ${literal(option)})]`)));
  await found.click();
}

/** Waits until the page's text matches. */
export async function sees(
  driver: WebDriver,
  words: RegExp,
  selector = 'body',
  wait = WAIT,
): Promise<string> {
  const read =
    "const text = [...document.querySelectorAll(a[0])].map((e) => e.innerText ?? e.textContent).join('\\n');";
  const text = await inPage<string>(
    driver,
    `${read} return new RegExp(a[1], a[2]).test(text) && (text || ' ');`,
    [selector, words.source, words.flags.replace(/[gy]/g, '')],
    wait,
  );
  if (text !== null) return text;
  const shows = await driver.executeScript<string>(`const a = arguments; ${read} return text;`, selector);
  throw new Error(`${words} did not appear in ${selector}: ${shows.slice(0, 6000)}`);
}

export const keys = (driver: WebDriver, ...pressed: string[]): Promise<void> =>
  driver
    .actions()
    .sendKeys(...pressed)
    .perform();

export { By, Key, until };
