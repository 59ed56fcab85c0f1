/** A whole house: drawn from nothing by keyboard and by mouse, surveyed on a phone, compared, brought in from files. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { tamarackJob } from '../demo/tamarack.ts';
import { check } from '#core/code/checker.ts';
import { parseFile } from '#core/job/file.ts';
import type { Box } from '#core/job/schema.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { By, button, choose, css, field, fill, Key, keys, press, sees } from './support/browser.ts';

const app = useApp();

/** Goes on with Tab until the thing with this name has the keyboard, then gives it keys. */
async function tabTo(name: RegExp, ...then: string[]): Promise<void> {
  for (let i = 0; i < 400; i++) {
    const here = await app.script<string>(`
      const e = document.activeElement;
      if (e === document.body) return '';
      const label = e.id ? document.querySelector('label[for="' + e.id + '"]') : null;
      return [e.getAttribute('aria-label'), label?.innerText, e.tagName === 'INPUT' ? '' : e.innerText]
        .filter(Boolean).map((t) => t.trim().replace(/\\s+/g, ' ')).join(' | ');`);
    if (name.test(here)) {
      await keys(app.driver, ...then);
      return;
    }
    await keys(app.driver, Key.TAB);
  }
  throw new Error(`no way by Tab to ${name}`);
}
const alt = (key: string) => app.driver.actions().keyDown(Key.ALT).sendKeys(key).keyUp(Key.ALT).perform();
/** Types in place of what a field holds. */
async function type(name: RegExp, text: string, end: string = Key.ENTER): Promise<void> {
  await tabTo(name);
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  await keys(app.driver, text, end);
}

test('a house of three rooms from nothing to clean findings, by keyboard alone', async () => {
  await app.freshDemo();
  await app.go('/');
  await type(/What do you call it/, '3 Alder Way', Key.TAB);
  await tabTo(/Start the job/, Key.ENTER);
  await sees(app.driver, /No walls on this level yet/);

  const room = async (name: string, kind: string, walls: string[]) => {
    await tabTo(/^Add room/, Key.ENTER);
    await sees(app.driver, /Start at any corner/);
    await app.script('document.activeElement.blur()');
    await type(/^Name/, name, Key.TAB);
    await tabTo(/^Kind/, kind);
    for (const wall of walls) {
      await tabTo(/^Next wall/, wall, Key.ENTER);
      await app.driver.wait(
        async () => (await app.script<string>('return document.activeElement.value')) === '',
        15000,
        `${wall} was not taken`,
      );
    }
    await sees(app.driver, /Closes within 0"/);
  };
  await room('Den', 'Den', ['14', '12', '14', '12']);
  await room('Hall', 'Hallway', ['11', '4', '11', '4']);
  await room('Bath', 'Bathroom', ['8', '6', '8', '6']);
  await tabTo(/^Fixtures/, Key.ENTER);
  await tabTo(/^Add a/, 'Vanity sink');
  await type(/^Its center from wall start/, `3'`);
  await sees(app.driver, /Vanity sink on wall 1/);

  await app.script('document.activeElement.blur()');
  await alt('2');
  await sees(app.driver, /No receptacle within 3' of the vanity sink/);
  await app.driver.actions().keyDown(Key.SHIFT).sendKeys('p').keyUp(Key.SHIFT).perform();
  await sees(app.driver, /Placed \d+[\s\S]*from the edge of the vanity sink/);

  await alt('3');
  await sees(app.driver, /No circuits yet/);
  await tabTo(/^Add circuit/, Key.ENTER);
  await tabTo(/^Put all \d+ on Spare 1/, Key.ENTER);
  await sees(app.driver, /breaker to last|boxes|AFCI/);
  await app.script('document.activeElement.blur()');
  await alt('2');
  await sees(app.driver, /needs GFCI protection/);
  await tabTo(/^Install a dual-function breaker/, Key.ENTER);
  // A bathroom's circuit feeds nothing else: the rest gets one of its own.
  await sees(app.driver, /A bathroom circuit may not feed/);
  await tabTo(/^Take .* off/, Key.ENTER);
  await sees(app.driver, /is on no circuit yet/);
  await app.script('document.activeElement.blur()');
  await alt('3');
  await sees(app.driver, /On no circuit yet/);
  await tabTo(/^Add circuit/, Key.ENTER);
  await sees(app.driver, /Put all \d+ on Spare/);
  await tabTo(/^Spare/, Key.ENTER);
  await tabTo(/^Put all \d+ on Spare/, Key.ENTER);
  await app.script('document.activeElement.blur()');
  await alt('2');
  await sees(app.driver, /\b0 violations/);

  const stored = await app.rows<{ jobId: string; table: string; id: string; value: unknown }>('entities');
  const areas = stored.filter((e) => e.table === 'areas' && (e.value as { name: string }).name === 'Den');
  assert.equal(areas.length, 1);
});

test('two rooms by mouse: dragged together they snap to one wall, and a door in it joins them', async () => {
  await app.freshDemo();
  await app.go('/');
  await (await css(app.driver, '#new-name')).sendKeys('5 Alder Way');
  await press(app.driver, 'Start the job');
  for (const [name, walls] of [
    ['West', ['10', '10', '10', '10']],
    ['East', ['12', '10', '12', '10']],
  ] as const) {
    await press(app.driver, 'Add room');
    await fill(app.driver, 'Name', name);
    for (const wall of walls) {
      const next = await field(app.driver, 'Next wall');
      await next.sendKeys(wall, Key.ENTER);
      await app.driver.wait(async () => (await next.getAttribute('value')) === '', 15000);
    }
  }
  const center = (selector: string) =>
    app.script<{ x: number; y: number; w: number }>(
      `const r = document.querySelector(arguments[0]).getBoundingClientRect();
       return { x: Math.round(r.x + r.width / 2), y: Math.round(r.y + r.height * 0.8), w: r.width };`,
      selector,
    );
  const area = async (name: string) =>
    (
      await app.rows<{
        table: string;
        value: { id: string; name: string; x: number; y: number; walls: { length: number }[] };
      }>('entities')
    ).find((e) => e.table === 'areas' && e.value.name === name)!.value;
  const east = await area('East');
  const from = await center(`[data-area="${east.id}"] .floor`);
  // Away and down, then back to a little too far left: within reach of West's wall.
  await app.driver
    .actions()
    .move({ x: from.x, y: from.y })
    .press()
    .move({ x: from.x + 60, y: from.y + 40, duration: 150 })
    .release()
    .perform();
  await button(app.driver, 'Undo: Move East');
  const apart = await area('East');
  assert.ok(apart.x > 140 && apart.y > 5, JSON.stringify(apart));
  const pixels = from.w / 144;
  const now = await center(`[data-area="${east.id}"] .floor`);
  const back = {
    x: Math.round(now.x - (apart.x - 124.5 + 3) * pixels),
    y: Math.round(now.y - (apart.y - 2) * pixels),
  };
  await app.driver
    .actions()
    .move({ x: now.x, y: now.y })
    .press()
    .move({ x: now.x - 5, y: now.y, duration: 50 })
    .move({ ...back, duration: 200 })
    .release()
    .perform();
  await app.driver.wait(async () => (await area('East')).x !== apart.x, 15000, 'East did not move');
  const home = await area('East');
  assert.deepEqual([home.x, home.y], [124.5, 0]);

  // A wall is pushed out by its handle.
  const handle = await app.script<{ x: number; y: number }>(
    `const h = [...document.querySelectorAll('.handle')][1].getBoundingClientRect(); return { x: Math.round(h.x + h.width / 2), y: Math.round(h.y + h.height / 2) };`,
  );
  await app.driver
    .actions()
    .move(handle)
    .press()
    .move({ x: handle.x + 30, y: handle.y, duration: 150 })
    .release()
    .perform();
  await button(app.driver, 'Undo: Push a wall of East');
  const longer = await area('East');
  assert.ok(longer.walls[0]!.length > 150 && longer.walls[2]!.length === longer.walls[0]!.length);

  await press(app.driver, 'Doors');
  await choose(app.driver, 'On', 'Wall 4');
  await (await field(app.driver, 'From wall start, width')).sendKeys(`3', 32`, Key.ENTER);
  await sees(app.driver, /Door on wall 4, to West/);
  await press(app.driver, 'West');
  await sees(app.driver, /From the other side: door on wall 2 at 4' 4"/);

  // An outlet placed by the engine is dragged along its wall.
  await app.driver.actions().keyDown(Key.ALT).sendKeys('2').keyUp(Key.ALT).perform();
  await press(app.driver, 'Place in West');
  await sees(app.driver, /Placed \d/);
  const box = await center('[data-box=W1] .body');
  await app.driver
    .actions()
    .move({ x: box.x, y: box.y - 4 })
    .press()
    .move({ x: box.x + 30, y: box.y, duration: 150 })
    .release()
    .perform();
  await button(app.driver, 'Undo: Move W1');
});

test('many outlets: marquee, arrow keys, align, duplicate at a spacing, one step of undo each', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/layout?area=area-dining`);
  await css(app.driver, '[data-box=D1]');
  const box = await app.script<{ l: number; t: number; r: number; b: number }>(`
    const rects = [...document.querySelectorAll('[data-area="area-dining"] .floor')].map((e) => e.getBoundingClientRect());
    const { left, top, right, bottom } = rects[0]; return { l: Math.round(left), t: Math.round(top), r: Math.round(right), b: Math.round(bottom) };`);
  await app.driver
    .actions()
    .keyDown(Key.SHIFT)
    .move({ x: box.l - 3, y: box.t - 3 })
    .press()
    .move({ x: box.r + 3, y: box.b + 3, duration: 150 })
    .release()
    .keyUp(Key.SHIFT)
    .perform();
  await sees(app.driver, /\d+ outlets[\s\S]*D1, D2, D3, D4/);
  await press(app.driver, 'Level with');
  await button(app.driver, 'Undo: Level 8 outlets');
  await app.script('document.querySelector("[data-box=D1]").focus()');
  const offset = async (name: string) =>
    (await app.rows<{ id: string; value: { offset: number } }>('entities')).find(
      (e) => e.id === `box-${name}`,
    )!.value.offset;
  const before = await offset('d2');
  await app.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform();
  await app.driver.wait(
    async () => Math.abs((await offset('d2')) - before - 12) < 1e-6,
    8000,
    'the others did not come along',
  );
  await press(app.driver, 'Undo: Move 8 outlets');
  await app.driver.wait(async () => (await offset('d2')) === before, 15000);

  await app.go(`${JOB}/layout?box=box-h1`);
  const spacing = await field(app.driver, 'Duplicate along the wall');
  await spacing.sendKeys(`4', 2`, Key.ENTER);
  await sees(app.driver, /3 outlets/);
  const added = (
    await app.rows<{ table: string; value: { name: string; wallId: string; offset: number } }>('entities')
  ).filter((e) => e.table === 'boxes' && e.value.wallId === 'wall-hall-w3' && e.value.offset > 190);
  assert.deepEqual(added.map((e) => e.value.offset).sort(), [238, 286]);
  await press(app.driver, 'Undo: Duplicate H1 2 times');
});

test('zoom by wheel and keys, pan by drag; the plan fits again on 0', async () => {
  await app.freshDemo();
  const scale = () =>
    app.script<{ k: number; x: number }>(
      `const svg = document.querySelector('.plan .ground > svg'); return { x: new DOMMatrix(getComputedStyle(svg).transform).e, k: 1 / Number(svg.style.getPropertyValue('--u')) };`,
    );
  const svg = await css(app.driver, '.plan .ground');
  const fitted = await scale();
  await app.script(
    `const r = arguments[0].getBoundingClientRect();
     arguments[0].dispatchEvent(new WheelEvent('wheel', { deltaY: -300, clientX: r.x + 300, clientY: r.y + 200, bubbles: true, cancelable: true }));`,
    svg,
  );
  await app.driver.wait(async () => (await scale()).k > fitted.k * 1.2, 15000, 'the wheel does not zoom');
  await app.script('arguments[0].focus()', svg);
  const zoomed = await scale();
  await keys(app.driver, Key.ARROW_LEFT);
  await app.driver.wait(async () => (await scale()).x !== zoomed.x, 15000, 'arrows do not pan');
  await keys(app.driver, '-');
  await app.driver.wait(async () => (await scale()).k < zoomed.k, 15000, 'minus does not zoom out');
  await keys(app.driver, '0');
  await app.driver.wait(async () => Math.abs((await scale()).k - fitted.k) < 1e-6, 15000, '0 does not fit');
});

test('editions are compared as a list and on the plan; the way of a cord is drawn', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/layout?box=box-k5`);
  await press(app.driver, 'Compare editions');
  await choose(app.driver, 'Against NEC 2020', 'NEC 2023');
  await sees(app.driver, /things? changes? on this plan under NEC 2023/);
  await sees(app.driver, /Newly asked[\s\S]*K5/);
  await css(app.driver, '[data-box=K5].asked .ring');
  await press(app.driver, 'Findings');
  assert.equal((await app.driver.findElements(By.css('.plan .ring'))).length, 0);
  await app.go(`${JOB}/layout?box=box-k6`);
  await press(app.driver, 'Follow a cord to water');
  await sees(app.driver, /6 7\/16" to the kitchen sink/);
  await css(app.driver, '.plan .cord');
});

test('a local amendment switches a rule off, and the finding says whose words those are', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk`);
  await press(app.driver, 'House and panel');
  await choose(app.driver, 'Rule', 'Receptacles along walls');
  await choose(app.driver, 'What it does', 'Tighten its limit');
  await (await field(app.driver, 'Where it stands; the limit')).sendKeys(`Ordinance 9; 7'`, Key.ENTER);
  await sees(app.driver, /7' is not tighter than the code’s 6'/);
  await choose(app.driver, 'What it does', 'Switch the rule off');
  await (
    await field(app.driver, 'Where it stands; a note')
  ).sendKeys(Key.chord(Key.CONTROL, 'a'), 'Ordinance 9; old houses', Key.ENTER);
  await sees(app.driver, /Receptacles along walls: not asked for here/);
  await app.go(`${JOB}/layout`);
  await sees(app.driver, /in Studio · Receptacles along walls\s+local amendment Ordinance 9: old houses/);
});

test('phone: an old box is recorded step by step with a picture and a first reading; a reload loses nothing', async () => {
  await app.freshDemo();
  await app.size(...PHONE);
  try {
    await app.go(`${JOB}/walk?box=box-e2`);
    for (let i = 0; i < 2; i++) await press(app.driver, 'Cables in the box: one more');
    await press(app.driver, 'Two-wire');
    await choose(app.driver, 'Goes to', 'The feed');
    await choose(app.driver, 'What it does', 'hot');
    await press(app.driver, 'Splices: one more');
    await press(app.driver, 'back-stabbed');
    await press(app.driver, 'heat marks');
    await choose(app.driver, 'Box', 'Metal');
    await fill(app.driver, 'Box size', '12.5');
    await fill(app.driver, 'Device age', '300');
    await sees(app.driver, /300 is out of range; expected 0 to 150 years/);
    await fill(app.driver, 'Device age', '45');
    // A picture of 3,000 by 2,000 pixels, shrunk in a worker.
    const path = join(app.folder, 'box.png');
    const data = await app.driver.executeAsyncScript<string>(`
      const done = arguments[0];
      const c = document.createElement('canvas'); c.width = 3000; c.height = 2000;
      c.getContext('2d').fillRect(100, 100, 800, 800);
      done(c.toDataURL('image/png').split(',')[1]);`);
    writeFileSync(path, Buffer.from(data, 'base64'));
    await (await css(app.driver, 'input[aria-label="Picture of E2"]')).sendKeys(path);
    await css(app.driver, 'figure img[src^="blob:"]');
    await press(app.driver, 'First readings at E2');
    await press(app.driver, 'Use the keyboard instead');
    await fill(app.driver, 'Hot–neutral', '118');
    await press(app.driver, 'Log at E2');
    await sees(app.driver, /As found: hot–neutral 118 V/);
    const small = await app.script<string[]>(
      `return [...document.querySelectorAll('.found button, .chip, .next button, .next a')].filter((b) => b.offsetHeight > 0 && b.offsetHeight < 36).map((b) => b.innerText)`,
    );
    assert.deepEqual(small, [], 'targets too small for a thumb');

    await app.driver.navigate().refresh();
    await css(app.driver, 'figure img[src^="blob:"]');
    const stored = await app.rows<{ id: string; value: Box }>('entities');
    const { found, wiring } = stored.find((e) => e.id === 'box-e2')!.value;
    assert.deepEqual(found, {
      signs: ['back-stabbed', 'heat marks'],
      boxMaterial: 'metal',
      boxVolume: 12.5,
      deviceAge: 45,
    });
    assert.deepEqual(
      wiring!.wiring.cables.map((cable) => [
        cable.toward,
        cable.conductors.map((x) => [x.color, x.function]),
      ]),
      [
        [
          'feed',
          [
            ['black', 'hot'],
            ['white', 'neutral'],
          ],
        ],
        ['unknown', []],
      ],
    );
    assert.equal(wiring!.wiring.splices.length, 1);
    const [picture] = stored.filter((e) => e.id.startsWith('picture-'));
    const { width, height } = picture!.value as unknown as { width: number; height: number };
    assert.deepEqual([width, height], [1600, 1067]);
    assert.equal((await app.rows('pictures')).length, 1);
    await press(app.driver, 'Next outlet');
    await sees(app.driver, /4 of|of \d+ in East bedroom/);

    const text = join(app.folder, 'notes.txt');
    writeFileSync(text, 'not a picture');
    const input = await css(app.driver, 'input[aria-label^="Picture of"]');
    await input.sendKeys(text);
    await sees(app.driver, /notes\.txt cannot be read as a picture/);
  } finally {
    await app.size(...DESK);
  }
});

test('the panel as found: fuses, fillers, what its directory says', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk`);
  await press(app.driver, 'House and panel');
  await choose(app.driver, 'Protected by', 'Fuses');
  await press(app.driver, 'Doubled lugs: one more');
  const breaker = await field(app.driver, 'Found in a space');
  await breaker.sendKeys('99, 15, shed', Key.ENTER);
  await sees(app.driver, /space: expected 1 to 40/);
  await breaker.sendKeys(Key.chord(Key.CONTROL, 'a'), '12, 30/2, dryer', Key.ENTER);
  await sees(app.driver, /12 30 A, two poles dryer/);
  const { value } = (
    await app.rows<{ id: string; value: { found: { doubledLugs: number; protection: string } } }>('entities')
  ).find((e) => e.id === 'panel-a')!;
  assert.deepEqual([value.found.protection, value.found.doubledLugs], ['fuses', 2]);
});

test('a wall seen from inside: a box moved up and along by keys', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk?area=area-kitchen`);
  await press(app.driver, 'Wall view');
  await app.script(`document.querySelector('.elevation [data-box=K3]').focus()`);
  await keys(app.driver, Key.ARROW_UP, Key.ARROW_UP, Key.ARROW_RIGHT);
  await button(app.driver, 'Undo: Move K3');
  const k3 = (await app.rows<{ id: string; value: { height: number; offset: number } }>('entities')).find(
    (e) => e.id === 'box-k3',
  )!;
  assert.deepEqual([k3.value.height, k3.value.offset], [46, 95]);
});

test('rooms are copied, mirrored and stacked, each as one step of undo', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk?area=area-bath`);
  await press(app.driver, 'Where Bathroom stands; copy, mirror');
  await press(app.driver, 'Mirror Bathroom');
  await button(app.driver, 'Bathroom mirrored');
  await press(app.driver, 'Undo: Mirror Bathroom');
  await press(app.driver, 'House and panel');
  await (await field(app.driver, 'Stack a level on it')).sendKeys(`Attic, 8' 6"`, Key.ENTER);
  await button(app.driver, 'Undo: Stack Attic on Upper level');
  const areas = (await app.rows<{ table: string; value: { name: string } }>('entities')).filter(
    (e) => e.table === 'areas' && e.value.name === 'Kitchen',
  );
  assert.equal(areas.length, 2);
});

const files = (end: string) => readdirSync(app.downloads).filter((f) => f.endsWith(end));
test('the plan goes out as DXF and comes back as rooms; bad files are named and change nothing', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk`);
  await press(app.driver, 'Upper level');
  await press(app.driver, 'Files');
  await press(app.driver, 'Save Upper level as DXF');
  await app.driver.wait(() => files('.dxf').length === 1, 10000, 'no DXF');
  const path = join(app.downloads, files('.dxf')[0]!);
  await press(app.driver, 'Add level');
  const input = await css(app.driver, 'input[aria-label="DXF plan"]');
  const before = (await app.rows('entities')).length;
  const bad = join(app.folder, 'bad.dxf');
  writeFileSync(bad, 'this is not a plan');
  await input.sendKeys(bad);
  await sees(app.driver, /Nothing was changed[\s\S]*has no SECTION; expected a DXF plan/);
  writeFileSync(bad, readFileSync(path, 'utf8').slice(0, -4000));
  await (await css(app.driver, 'input[aria-label="DXF plan"]')).sendKeys(bad);
  await sees(app.driver, /does not end with EOF; is it cut short/);
  assert.equal((await app.rows('entities')).length, before);

  await (await css(app.driver, 'input[aria-label="DXF plan"]')).sendKeys(path);
  const rooms = Object.values(tamarackJob().areas).filter((a) => a.levelId === 'level-upper').length;
  await sees(app.driver, new RegExp(`${rooms} rooms found`));
  await fill(app.driver, 'The longest line in the drawing is really', `2`);
  await sees(app.driver, /less than 4 ft²/);
  await fill(app.driver, 'The longest line in the drawing is really', ' ');
  await press(app.driver, `Bring in ${rooms} rooms`);
  await sees(app.driver, new RegExp(`${rooms} rooms brought in`));
  await button(app.driver, `Undo: Bring in ${rooms} rooms`);
});

test('outlets go out as CSV and come back; a bad row is named and nothing is changed', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk`);
  await press(app.driver, 'Files');
  await press(app.driver, 'Save outlets as CSV');
  await app.driver.wait(() => files('outlets.csv').length === 1, 10000, 'no CSV');
  const text = readFileSync(join(app.downloads, files('outlets.csv')[0]!), 'utf8');
  const bad = join(app.folder, 'outlets.csv');
  writeFileSync(bad, text.replace(',duplex,', ',toaster,'));
  await (await css(app.driver, 'input[aria-label="Outlets CSV"]')).sendKeys(bad);
  await sees(app.driver, /Nothing was changed[\s\S]*device: expected duplex/);
  writeFileSync(bad, text.replace(/(box-d1,D1,[^,]*,[^,]*,1,)129\.5/, `$1130`));
  await (await css(app.driver, 'input[aria-label="Outlets CSV"]')).sendKeys(bad);
  await sees(app.driver, /outlets read: 0 new/);
  const d1 = (await app.rows<{ id: string; value: { offset: number } }>('entities')).find(
    (e) => e.id === 'box-d1',
  )!;
  assert.equal(d1.value.offset, 130);
});

test('an outdoor punch list shows what is and is not in order, and prints without buttons', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/layout/lists`);
  await sees(app.driver, /P2: wet location needs a cover[\s\S]*In order[\s\S]*Deck: one reached from it/);
  await press(app.driver, 'Bathrooms and laundry');
  await sees(app.driver, /W2 needs GFCI protection/);
  await press(app.driver, 'Show W2');
  await sees(app.driver, /W2, Laundry/);
});

test('overlapping rooms and an island outside its room are said, not judged', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/walk?area=area-bath`);
  await press(app.driver, 'Where Bathroom stands');
  await fill(app.driver, 'First corner, east', '15');
  await app.go(`${JOB}/walk?fixture=fixture-island`);
  await fill(app.driver, 'Center from wall start', '18');
  await app.go(`${JOB}/layout`);
  await sees(app.driver, /Bathroom and Kitchen overlap|Kitchen and Bathroom overlap/);
  await sees(app.driver, /[Ii]sland stands outside Kitchen/);
});

test('the demo file and the demo in the browser judge alike', async () => {
  await app.freshDemo();
  const expected = check(
    parseFile(readFileSync(new URL('../demo/tamarack-court.json', import.meta.url), 'utf8')),
  ).filter((f) => f.level === 'violation').length;
  await sees(app.driver, new RegExp(`${expected} violations`));
});
