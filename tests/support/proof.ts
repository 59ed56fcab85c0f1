/** The acts of a proof of dead, tapped. */
import type { WebDriver } from 'selenium-webdriver';
import { css, press, sees } from './browser.ts';

const card = (driver: WebDriver): Promise<string> => css(driver, '.act .words').then((e) => e.getText());

/** Makes the act before the hands by one of its keys, once its words match. */
export async function tap(driver: WebDriver, match: RegExp, key: string): Promise<void> {
  await sees(driver, match, '.act');
  await press(driver, key);
}

const keyFor = (words: string): string => {
  if (/known live|switched off/.test(words)) return '120 V lit';
  if (/locked/.test(words)) return 'Done';
  if (/shows that this breaker feeds/.test(words)) return 'Something else of this run';
  return /Any other conductor/.test(words) ? 'None: I looked' : 'Dead';
};

/** Taps through everything that is left with the keys for what is dead. @returns the acts' words */
export async function tapThrough(driver: WebDriver): Promise<string[]> {
  const words: string[] = [];
  for (;;) {
    const now = await card(driver);
    if (/Every conductor on record is read dead/.test(now)) return words;
    words.push(now);
    await press(driver, keyFor(now));
    await driver.wait(async () => (await card(driver)) !== now, 5000, `stuck at “${now}”`);
  }
}

/** Says of each box that is held open that it is closed, and puts power back. @param words of its key */
export async function powerBack(driver: WebDriver, words: string): Promise<void> {
  await sees(driver, new RegExp(words));
  await driver.executeScript(
    `for (const c of document.querySelectorAll('.own input')) if (!c.checked) c.click()`,
  );
  await press(driver, words);
}
