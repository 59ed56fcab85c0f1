/** A call walked on a phone: each step answered by its keys, as a thumb would. */
import type { WebDriver } from 'selenium-webdriver';
import { inPage } from './browser.ts';

export interface Shown {
  key: string;
  kind: string;
  title: string;
  /** What is before the hands within the step, as an act of a proof. */
  act: string;
  answers: number;
}

const SHOWN = `
  const card = document.querySelector('[data-step]');
  const now = {
    key: card?.dataset.step ?? '',
    kind: card?.dataset.kind ?? '',
    title: card?.querySelector('h1')?.innerText ?? '',
    act: card?.querySelector('.act .words')?.innerText ?? '',
    answers: Number(card?.dataset.answers ?? 0),
  };`;

export const shown = (driver: WebDriver): Promise<Shown> =>
  driver.executeScript<Shown>(`${SHOWN} return now;`);

/** Waits until another step, or another act of it, is shown. */
export async function moved(driver: WebDriver, from: Shown): Promise<Shown> {
  const now = await inPage<Shown>(
    driver,
    `${SHOWN}
     const from = a[0];
     return now.key !== '' && (now.key !== from.key || now.act !== from.act || now.answers !== from.answers) && now;`,
    [from],
  );
  if (now) return now;
  const said = await driver.executeScript<string>(
    `return [...document.querySelectorAll('.wrong')].map((e) => e.innerText).join('; ')`,
  );
  throw new Error(`nothing comes after “${from.title}” ${from.act}: ${said}`);
}

/** Presses a key of the card by its words, or the nth of a kind of element. */
const press = (driver: WebDriver, selector: string, words: string): Promise<boolean> =>
  driver.executeScript<boolean>(
    `const [selector, words] = arguments;
     const found = [...document.querySelectorAll('[data-step] ' + selector)].filter((e) => !e.disabled && e.offsetParent !== null);
     const one = words === '' ? found[0] : found.find((e) => e.innerText.trim().startsWith(words));
     one?.scrollIntoView({ block: 'center' });
     one?.click();
     return one !== undefined;`,
    selector,
    words,
  );

/** Types into the fields of the card, each by the words of its label. */
const type = (driver: WebDriver, values: Readonly<Record<string, string>>): Promise<void> =>
  driver.executeScript(
    `for (const label of document.querySelectorAll('[data-step] label')) {
       const input = document.getElementById(label.getAttribute('for'));
       const words = label.innerText.trim();
       const hit = Object.entries(arguments[0]).find(([k]) => words.startsWith(k));
       if (!input || !hit) continue;
       input.value = hit[1];
       input.dispatchEvent(new Event('input', { bubbles: true }));
       input.dispatchEvent(new Event('change', { bubbles: true }));
     }`,
    values,
  );

/** What a person answers where it matters; everything else is the first key that there is. */
export interface Plan {
  /** Words of the choice by the key of its step. */
  choose?: Readonly<Record<string, string>>;
  /** Ticks before the exit of a look. */
  tick?: Readonly<Record<string, readonly string[]>>;
  /** Figures by the label of their field. */
  figures?: Readonly<Record<string, string>>;
  /** Notes by the label of their field. */
  notes?: Readonly<Record<string, string>>;
  room?: string;
  space?: string;
}

const FIGURES: Readonly<Record<string, string>> = {
  'Tester on': '120',
  'Tester again': '120',
  'Leg A to': '0',
  'Leg B to': '0',
  'Neutral to': '0',
};
/** A figure in the middle of what a field takes: volts, ohms and the rest are told by their unit. */
const figuresOf = (driver: WebDriver): Promise<Record<string, string>> =>
  driver.executeScript<Record<string, string>>(`
    const usual = { V: 120, A: 12, 'Ω': 12.8, min: 15, W: 4500, ft: 4, lb: 8, VA: 1000, 'ft²': 1600, '°F': 90, 'cu in.': 20, 'in.': 3 };
    return Object.fromEntries([...document.querySelectorAll('[data-step] label')].map((label) => {
      const words = label.innerText.trim();
      const unit = label.querySelector('.unit')?.innerText.trim() ?? '';
      return [words, String(usual[unit] ?? (/Year/.test(words) ? 2019 : 2))];
    }));`);

/** Answers what is shown. */
export async function answer(driver: WebDriver, at: Shown, plan: Plan): Promise<void> {
  const chosen = plan.choose?.[at.key] ?? '';
  switch (at.kind) {
    case 'ask':
      if (at.key === 'items')
        await type(driver, { Paste: 'Outlet in the hall is loose\nNo GFCI in the bath' });
      if (plan.notes) await type(driver, plan.notes);
      await press(driver, '.choices button', chosen);
      return;
    case 'look':
      for (const tick of plan.tick?.[at.key] ?? []) await press(driver, '.ticks button', tick);
      // What feeds a panel is off and locked as its ticks say; nothing else feeds on from it.
      if (at.key === 'panel-off')
        await driver.executeScript(
          `for (const tick of [...document.querySelectorAll('[data-step] .ticks button')].slice(0, -1)) tick.click()`,
        );
      // A box that is looked into for a fault: nothing is ticked, so nothing is wrong there.
      await press(driver, '.exits button', chosen || (at.key.startsWith('find ') ? 'All tight' : ''));
      return;
    case 'measure':
      await type(driver, { ...(await figuresOf(driver)), ...FIGURES, ...plan.figures });
      await press(driver, '.exits button', '');
      return;
    case 'decide':
      await press(driver, 'article button', chosen);
      return;
    case 'where':
      // Another box of the same work is told from the first by its words.
      if (at.key !== 'where') await type(driver, { 'Where in the room': `${at.key}, by the door` });
      await press(driver, '.rooms button', plan.room ?? 'Bathroom');
      return;
    case 'breaker':
      await type(driver, { Space: plan.space ?? '7' });
      await press(driver, '.keys button', chosen || '15 A');
      return;
    case 'read':
    case 'test':
      await driver.executeScript(
        `for (const d of document.querySelectorAll('[data-step] details')) d.open = true`,
      );
      await leaveOut(driver);
      return;
    case 'dead':
      return proofAct(driver, at.act);
    case 'power':
      // What one holds open is closed first, each by its own tick where there are several.
      await driver.executeScript(
        `for (const c of document.querySelectorAll('[data-step] .power .own input')) if (!c.checked) c.click()`,
      );
      await inPage(
        driver,
        `return [...document.querySelectorAll('[data-step] .power button')].some((b) => b.innerText.startsWith('Power is on') && !b.disabled);`,
      );
      await press(driver, '.power button', 'Power is on');
      return;
    case 'clamp':
      await press(driver, '.clamp button', '0.00 A');
      return;
    default:
      await press(driver, '.exits button', chosen);
  }
}

const leaveOut = (driver: WebDriver): Promise<void> =>
  driver.executeScript(`
    const label = [...document.querySelectorAll('[data-step] label')].find((l) => l.innerText.trim().startsWith('Why not'));
    const input = document.getElementById(label.getAttribute('for'));
    input.value = 'tester in the van';
    input.dispatchEvent(new Event('input', { bubbles: true }));
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));`);

async function proofAct(driver: WebDriver, act: string): Promise<void> {
  const keys: readonly [RegExp, string][] = [
    [/generator, inverter/, 'None of these, asked'],
    [/What shows that the breaker/, 'It was live here'],
    [/shows that this breaker feeds/, 'Something else of this run'],
    [/What every conductor is read to/, 'The ground in this box'],
    [/how many cables/, '1'],
    [/known live|switched off/, '120 V lit'],
    [/locked/, 'Done'],
    [/Any other conductor/, 'None: I looked'],
    [/Every conductor on record/, 'Record'],
  ];
  const key = keys.find(([words]) => words.test(act))?.[1] ?? 'Dead';
  if (!(await press(driver, '.act button', key)))
    // No ground on record here: a lead from one that is proven.
    if (!(await press(driver, '.act button', 'A lead'))) throw new Error(`no key for “${act}”`);
  if (/What every conductor/.test(act)) await type(driver, { 'Lead from': 'ground bar' });
}
