/** `npm run screenshots`: one picture of each main view, from the demo job, into docs/screenshots. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { openBrowser, press, setSize, sees } from '../tests/support/browser.ts';
import { startServer } from '../tests/support/server.ts';

const JOB = '/job/job-tamarack';
type Shot = {
  name: string;
  path: string;
  size: [number, number];
  words: RegExp;
  press?: string[];
  /** Words to wait for after the last press. */
  until?: RegExp;
  scroll?: number;
  /** Element to be scrolled to. */
  into?: string;
};
const DESK: [number, number] = [1280, 800];
const PHONE: [number, number] = [390, 844];
const SHOTS: Shot[] = [
  { name: 'jobs', path: '/', size: DESK, words: /Open calls[\s\S]*14 Tamarack/ },
  {
    name: 'call-phone',
    path: '/job/job-sedge-lane/call',
    size: PHONE,
    words: /What to do about the ground/,
  },
  {
    name: 'walk',
    path: `${JOB}/walk?area=area-kitchen`,
    size: DESK,
    words: /Closes within/,
    press: ['Fixtures', 'island'],
  },
  { name: 'lists', path: `${JOB}/layout/lists`, size: DESK, words: /to mend/ },
  { name: 'runs', path: `${JOB}/runs`, size: DESK, words: /Equipment ground/ },
  {
    name: 'planner',
    path: `${JOB}/runs`,
    size: DESK,
    words: /Equipment ground/,
    press: ['Plan circuits', 'Work out a plan'],
    until: /proven best, done/,
  },
  { name: 'panel', path: `${JOB}/panel`, size: DESK, words: /planning load/ },
  { name: 'panel-load', path: `${JOB}/panel?view=load`, size: DESK, words: /Load of the dwelling/ },
  { name: 'panel-directory', path: `${JOB}/panel?view=directory`, size: DESK, words: /408\.4/ },
  {
    name: 'trim',
    path: `${JOB}/trim?box=box-e3&tab=done`,
    size: DESK,
    words: /hot and neutral are reversed/,
    until: /silver, bottom/,
  },
  {
    name: 'trim-phone',
    path: `${JOB}/trim?box=box-z3&tab=picture`,
    size: PHONE,
    words: /ground lead/,
    until: /^(?![^]*Laying out)/,
  },
  {
    name: 'prove',
    path: `${JOB}/prove?circuit=circuit-bedroom`,
    size: DESK,
    words: /On record/,
    press: ['Next box'],
  },
  {
    name: 'readings',
    path: `${JOB}/prove/readings`,
    size: DESK,
    words: /5 of 5 shown[\s\S]*False \(bootleg\) ground/,
  },
  {
    name: 'prove-phone',
    path: `${JOB}/prove?circuit=circuit-bedroom`,
    size: PHONE,
    words: /On record/,
    press: ['Next box'],
    into: '.fields',
  },
  {
    name: 'proof-phone',
    path: `${JOB}/prove?circuit=circuit-studio`,
    size: PHONE,
    words: /On record/,
    press: [
      'Next box',
      'Prove dead',
      'It was live here',
      'The ground in this box',
      '120 V lit',
      '120 V lit',
      'Done',
      'All 7 read dead',
    ],
    until: /black splice to ground splice/i,
    into: '.progress',
  },
  {
    name: 'hunt',
    path: `${JOB}/hunt?circuit=circuit-bedroom&box=box-b3`,
    size: DESK,
    words: /Find a fault/,
    press: [
      'Start the hunt at B3',
      'None of these',
      'Dim',
      'These; the rest nobody tried',
      'That is all of it',
      'The rest is here',
    ],
    until: /What fits[\s\S]*Seen so far/,
  },
  {
    name: 'hunt-phone',
    path: `${JOB}/hunt`,
    size: PHONE,
    words: /Hunts of this job/,
    press: ['Find a fault, B3'],
    until: /Seen so far/,
  },
  { name: 'hand-over', path: `${JOB}/hand-over`, size: DESK, words: /Open findings/ },
  { name: 'layout-attic', path: `${JOB}/layout`, size: DESK, words: /out of reach/ },
];

const server = await startServer();
const browser = await openBrowser();
try {
  const { driver } = browser;
  const folder = new URL('../docs/screenshots/', import.meta.url);
  mkdirSync(folder, { recursive: true });
  await driver.get(`${server.origin}/demo`);
  await sees(driver, /out of reach/);
  for (const shot of SHOTS) {
    await setSize(driver, ...shot.size);
    const light = shot.name.endsWith('attic') ? 'attic' : 'day';
    await driver.executeScript(
      `localStorage.setItem('hekto-light', '${light}'); localStorage.setItem('hekto-by', 'M. Alder')`,
    );
    await driver.get(server.origin + shot.path);
    await sees(driver, shot.words);
    for (const name of shot.press ?? []) await press(driver, name);
    if (shot.until) await sees(driver, shot.until, 'body', 90000);
    await driver.sleep(700);
    await driver.executeScript(
      'scrollTo(0, arguments[0]); document.querySelector(arguments[1])?.scrollIntoView()',
      shot.scroll ?? 0,
      shot.into ?? 'no-such-element',
    );
    writeFileSync(new URL(`${shot.name}.png`, folder), Buffer.from(await driver.takeScreenshot(), 'base64'));
  }
} finally {
  await browser.close();
  await server.stop();
}
