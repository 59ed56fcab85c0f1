/** `npm run bench`: the speeds that are promised, with what each must stay under. */
import { readFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import { generatedHouse } from '../demo/generate.ts';
import { tamarackJob } from '../demo/tamarack.ts';
import { Checker } from '#core/code/checker.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import { parseFile } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import type { JobDocument, Reading } from '#core/job/schema.ts';
import { View } from '#core/view/view.ts';
import { placeMissing } from '#core/layout/placeMissing.ts';
import { healthUnder, loads } from './healthUnderLoad.ts';
import { startServer, type Server } from '../tests/support/server.ts';
import { PLAIN_READING, rows } from '#core/job/document.ts';
import { measurePlan, measureReadings, measureRun, measureFirstTap } from './benchPlan.ts';
import { randomHouse, randomProblem } from '#core/planner/search/testing.ts';
import { diagnosisBench } from './benchDiagnosis.ts';
import { measureHouse, measureNetwork } from './benchNetwork.ts';
import { measurePlanner, measureProof } from './benchPlanner.ts';

const [what, ...rest] = process.argv.slice(2);
if (what === 'diagnosis') {
  diagnosisBench(rest);
  process.exit(0);
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

function time(work: () => unknown, rounds = 60, warm = 15): number {
  for (let i = 0; i < warm; i++) work();
  return median(
    Array.from({ length: rounds }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    }),
  );
}

/** A sixtieth of a second, with what the clock of frames wavers, ms. */
const FRAME = 17;

/** Room for what is measured, and for its figure. */
const WIDTHS = [96, 14] as const;
/** Each figure is printed as it is there. */
const line = (what: string, value: string, limit: string): void =>
  console.log(`${what.padEnd(WIDTHS[0])}  ${value.padStart(WIDTHS[1])}  ${limit}`.trimEnd());
const row = (what: string, value: number, unit: string, limit: number | null) =>
  line(
    what,
    `${value.toFixed(2)} ${unit}`,
    limit === null ? '' : `${limit} ${unit}  ${value <= limit ? 'met' : 'NOT MET'}`,
  );

let failures = 0;
/** Measures something; where that fails it says so, and the others go on. */
async function measuring(what: string, work: () => Promise<void> | void): Promise<void> {
  try {
    await work();
  } catch (error) {
    failures++;
    line(what, 'failed', String(error));
  }
}

function bench(name: string, document: JobDocument, full: number | null, edit: number | null) {
  const count = Object.keys(document.boxes).length;
  row(
    `${name}, ${count} outlets: full check`,
    time(() => new Checker(document).findings()),
    'ms',
    full,
  );
  const checker = new Checker(document);
  const box = Object.values(document.boxes)[Math.floor(count / 2)]!;
  let current = document;
  let offset = 20;
  row(
    `${name}: one outlet moved, re-checked`,
    time(() => {
      offset = offset === 20 ? 21 : 20;
      const outcome = run(current, { type: 'move-box', id: box.id, wallId: box.wallId!, offset });
      current = outcome.document;
      checker.apply(outcome.changes);
      checker.findings();
    }),
    'ms',
    edit,
  );
}

await measuring('Checks', () => {
  bench('Demo job', tamarackJob(), 10, 2);
  bench('Generated house', generatedHouse(200), 10, 2);
  bench('Generated building', generatedHouse(3000), 150, 16);
});

const demo = tamarackJob();
await measuring('Placing', () =>
  row(
    'Demo house: place all that is missing',
    time(() => placeMissing(new View(demo), Object.values(demo.areas)), 20, 5),
    'ms',
    null,
  ),
);
await measuring('A file of 100,000 readings', () => {
  const text = gunzipSync(readFileSync(`tests/frozen/version-${VERSION}-large.json.gz`)).toString();
  row(
    'A file of 100,000 readings: read',
    time(() => parseFile(text), 1, 0),
    'ms',
    null,
  );
});

for (const [what, make] of [
  ['house', randomHouse],
  ['random outlets', randomProblem],
] as const) {
  for (const outlets of [12, 16, 20, 25]) {
    await measuring(`Planner, ${what} of ${outlets}`, async () => {
      const { find, prove, found, proven, agreed } = await measureProof(make, outlets, 5);
      const said = outlets > 16 ? '' : `, ${agreed} borne out by all subsets`;
      row(`Planner, ${what} of ${outlets}: search, best found in ${found} of 5`, find, 'ms', 100);
      row(`Planner, ${what} of ${outlets}: proof, ${proven} of 5${said}`, prove, 'ms', 2000);
    });
  }
}
// Drop that binds on nearly every circuit.
for (const [what, make, volts] of [
  ['house', randomHouse, 1.8],
  ['random outlets', randomProblem, 3.6],
] as const) {
  await measuring(`Planner, ${what} of 25 within ${volts} V`, async () => {
    const { find, prove, found, proven } = await measureProof(make, 25, 5, volts);
    row(`Planner, ${what} of 25 within ${volts} V: search, best found in ${found} of 5`, find, 'ms', null);
    row(`Planner, ${what} of 25 within ${volts} V: proof, ${proven} of 5`, prove, 'ms', null);
  });
}
for (const outlets of [20, 40, 80, 150]) {
  await measuring(`Planner, house of ${outlets}`, async () => {
    const figures = await measurePlanner(outlets);
    if (!figures) throw new Error('no bound: npm run bounds');
    const { houses, gapMean, gapWorst, behind, time, gapAfter, timeAfter } = figures;
    row(`Planner, house of ${outlets}: search`, time, 'ms', 10000);
    row(`Planner, house of ${outlets}: after 2.5 s above its last price`, behind, '%', 1);
    row(`Planner, house of ${outlets}: above the bound, mean of ${houses}`, gapMean, '%', 2);
    row(`Planner, house of ${outlets}: above the bound, worst of ${houses}`, gapWorst, '%', 3.5);
    row(`Planner, house of ${outlets}: circuits planned anew together`, timeAfter, 'ms', null);
    row(`Planner, house of ${outlets}: above the bound after that, mean of ${houses}`, gapAfter, '%', 2);
  });
}

await measuring('Network', () => {
  const network = measureNetwork(time);
  const perPair = network.pair / network.pairs;
  row(
    `Network of ${network.nodes} nodes: ${network.faults} single faults, ${network.probes} meters`,
    network.single,
    'ms',
    10,
  );
  row(`Network: ${network.pairs} pairs of faults, all but ${network.left}`, network.pair, 'ms', 700);
  const inHouse = measureHouse(time);
  row(
    'Network: a circuit of 30 boxes in a house of 20, against alone',
    inHouse.inHouse / inHouse.alone,
    'times',
    1.3,
  );
  row('Network: ngspice, alter and ac, for one fault', network.spice, 'ms', null);
  line(
    'Network: times as fast as ngspice, for one fault and for one pair',
    `${(network.spice / (network.single / network.faults)).toFixed(0)} and ${(network.spice / perPair).toFixed(0)}`,
    '100',
  );
});

/** Scripts the first page needs: those it names, and all that they import before anything is shown. */
async function firstViewKilobytes(origin: string): Promise<number> {
  const page = await fetch(origin);
  const named = `${page.headers.get('link')} ${await page.text()}`.matchAll(/_app\/immutable\/[\w./-]+\.js/g);
  const pending = [...new Set([...named].map(([path]) => path))];
  const seen = new Set(pending);
  let bytes = 0;
  for (let path = pending.pop(); path !== undefined; path = pending.pop()) {
    const source = await (await fetch(`${origin}/${path}`)).text();
    bytes += gzipSync(source).length;
    for (const [, from] of source.matchAll(/(?:from|import)\s*["'](\.[^"']+\.js)["']/g)) {
      const target = new URL(from!, `${origin}/${path}`).pathname.slice(1);
      if (!seen.has(target)) {
        seen.add(target);
        pending.push(target);
      }
    }
  }
  return bytes / 1024;
}

/** So many readings, round the outlets of a job. */
function withReadings(document: JobDocument, count: number): JobDocument {
  const boxes = rows(document.boxes);
  const readings = Array.from({ length: count }, (_, i): Reading => {
    const box = boxes[i % boxes.length]!;
    return {
      ...PLAIN_READING,
      id: `reading-${i}`,
      boxId: box.id,
      place: box.name,
      at: new Date(Date.UTC(2026, 4, 6, 8, 0, i)).toISOString(),
      by: 'M. Alder',
      stage: i % 2 ? 'as-left' : 'as-found',
      instrument: 'meter',
      hotNeutral: 117 + (i % 40) / 10,
      hotGround: 119,
      neutralGround: 0.2,
      loadAmps: i % 3 === 0 ? 8 : 0,
    };
  });
  return { ...document, readings: Object.fromEntries(readings.map((r) => [r.id, r])) };
}

let server: Server | null = null;
await measuring('Browser measurements: build first, npm run build', async () => {
  server = await startServer();
});
const { origin } = (server as Server | null) ?? { origin: null };
if (origin !== null) {
  await measuring('First view', async () =>
    row('First view: scripts, compressed', await firstViewKilobytes(origin), 'kB', 120),
  );
  await measuring('Generated building', async () => {
    const building = await measurePlan(origin, generatedHouse(3000));
    row(
      'Generated building, 3000 outlets: Layout opened until its plan is drawn',
      building.opened,
      'ms',
      2000,
    );
  });
  await measuring('2,000 readings', async () => {
    const scrolled = await measureReadings(origin, withReadings(generatedHouse(200), 2000));
    row('2,000 readings, scrolled: time between frames', scrolled.between, 'ms', FRAME);
    row('2,000 readings, scrolled: work in a frame', scrolled.work, 'ms', FRAME);
  });
  await measuring('300 outlets on screen', async () => {
    const house = await measurePlan(origin, generatedHouse(300));
    for (const [what, frames] of [
      ['panned', house.pan],
      ['one outlet dragged', house.drag],
    ] as const) {
      row(`300 outlets on screen, ${what}: time between frames`, frames.between, 'ms', FRAME);
      row(`300 outlets on screen, ${what}: work in a frame`, frames.work, 'ms', FRAME);
    }
  });
  await measuring('200 outlets on their runs', async () =>
    row(
      '200 outlets on their runs, one box moved: until run, drop and protection are drawn',
      await measureRun(origin, generatedHouse(200)),
      'ms',
      FRAME,
    ),
  );
  await measuring('Answers to a tap', async () => {
    for (const [page, ms] of await measureFirstTap(origin, tamarackJob(), 4))
      row(`Demo job, ${page} on a processor slowed four times: answers a tap after`, ms, 'ms', 1000);
  });
  for (const load of loads())
    await measuring(`Server, ${load}`, async () =>
      row(
        `Server, ${load}: health answers, 99 of 100 within`,
        (await healthUnder(origin, load)).most,
        'ms',
        50,
      ),
    );
  await (server as Server | null)?.stop();
}
if (failures > 0) console.log(`${failures} could not be measured`);
process.exit(failures > 0 ? 1 : 0);
