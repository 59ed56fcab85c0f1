/**
 * `npm test`: installs what is missing, then every check. Two lanes run beside each other: one of checks and unit tests, which
 * begin once the types are there, one of the build and the browser tests that need it; a lane that is empty helps the other.
 * Longest files first. A name in part runs those test files alone: `npm test -- hunt`. Long walks are sampled;
 * `npm test -- --whole` takes all of them.
 */
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { globSync } from './glob.mjs';
import { installPackages, installTools } from './install.mjs';

const named = process.argv.slice(2);
const only = named.find((name) => !name.startsWith('--')) ?? '';
if (named.includes('--whole')) process.env.HEKTO_WHOLE = 'yes';
const SECONDS = 'scripts/seconds.json';
/** How long each file took when it was last put down. */
const seconds = JSON.parse(readFileSync(SECONDS, 'utf8'));
/** How long each took this time: what the list is renewed from, by hand. */
const TIMES = 'node_modules/.cache/hekto-seconds.json';
const SHORT = 3;
/** One that is not listed is taken for a short one. */
const secondsOf = (file) => seconds[file] ?? SHORT / 2;
/** Short files share a process: most of their time is loading what they test. */
const SHARED = 12;
const TOGETHER = 'scripts/together.mjs';

/** Runs a command; what it prints comes in one piece, when it has ended. */
function run(command, args) {
  return new Promise((resolve) => {
    const began = performance.now();
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    child.stdout.on('data', (piece) => said.push(piece));
    child.stderr.on('data', (piece) => said.push(piece));
    child.on('close', (code) =>
      resolve({
        status: code ?? 1,
        said: Buffer.concat(said).toString(),
        seconds: (performance.now() - began) / 1000,
      }),
    );
  });
}

const script = (name, of, after = []) => ({
  name,
  after,
  length: seconds[name] ?? 60,
  run: () => run('npm', ['run', '--silent', of]),
});
// What the tests serve goes over no wire: pressing it takes longer than building it.
process.env.HEKTO_COMPRESS = 'no';
const tests = (name, files, after) => ({
  name,
  after,
  files,
  length: files.reduce((sum, f) => sum + secondsOf(f), 0),
  run: () => run(process.execPath, ['--import', 'tsx', '--test-reporter=spec', TOGETHER, ...files]),
});

/** Short files by twelves, of one folder as far as they go. */
function shared(files) {
  const groups = [];
  for (let k = 0; k < files.length; k += SHARED) groups.push(files.slice(k, k + SHARED));
  return groups;
}
const isLong = (file) => secondsOf(file) >= SHORT || file.includes('/store/');
const chosen = (files) => files.filter((f) => f.includes(only));
const unit = chosen(globSync('src', '.test.ts'));
const NEEDS_BUILD = /useApp|startServer|openBrowser|cli\/hekto/;
const others = chosen(globSync('tests', '.test.ts'));
const browser = others.filter((f) => NEEDS_BUILD.test(readFileSync(f, 'utf8')));
const plain = [...unit, ...others.filter((f) => !browser.includes(f))];

const LANES = [
  [
    ...(only ? [] : [script('Types', 'types')]),
    ...[
      ...plain.filter(isLong).map((f) => tests(f, [f], ['Types'])),
      ...shared(plain.filter((f) => !isLong(f))).map((g, k) => tests(`short files ${k + 1}`, g, ['Types'])),
    ].sort((a, b) => b.length - a.length),
    ...(only ? [] : [script('Lint', 'lint', ['Types']), script('Format', 'format:check')]),
  ],
  [
    ...(only && browser.length === 0 ? [] : [script('Build', 'build')]),
    ...browser.map((f) => tests(f, [f], ['Build'])).sort((x, y) => y.length - x.length),
  ],
];

const began = performance.now();
const ended = new Set();
const planned = new Set(LANES.flat().map((job) => job.name));
const took = {};
const longest = [];
const counts = { tests: 0, pass: 0, fail: 0 };
const failed = [];
const running = new Set();

const ready = (job) => job.after.every((name) => ended.has(name) || !planned.has(name));
/** The next of a lane, or of another one where it has none that can begin. */
function next(lane) {
  for (const list of [LANES[lane % 2], LANES[(lane + 1) % 2]]) {
    const at = list.findIndex(ready);
    if (at >= 0) return list.splice(at, 1)[0];
  }
  return null;
}

function note(job, { said, seconds: time }) {
  took[job.files?.length === 1 ? job.files[0] : job.name] = Math.round(10 * time) / 10;
  for (const [, kind, n] of said.matchAll(/^ℹ (tests|pass|fail) (\d+)/gm)) counts[kind] += Number(n);
  for (const [, name, ms] of said.matchAll(/^\s*[✔✖] (.+) \(([\d.]+)ms\)$/gm))
    longest.push({ name, seconds: Number(ms) / 1000, file: job.name });
}

async function work(lane) {
  while (LANES.some((list) => list.length > 0)) {
    const job = next(lane);
    if (!job) {
      if (running.size === 0) throw new Error('nothing can begin');
      await Promise.race(running);
      continue;
    }
    const done = job.run();
    running.add(done);
    const result = await done;
    running.delete(done);
    ended.add(job.name);
    console.log(`\n== ${job.name} (${result.seconds.toFixed(1)} s)\n${result.said.trimEnd()}`);
    note(job, result);
    if (result.status !== 0) {
      failed.push(job.name);
      // Without types and build nothing else means anything.
      if (job.name === 'Types' || job.name === 'Build') LANES.forEach((list) => (list.length = 0));
    }
  }
}

installPackages();
installTools();
// Before the lanes: beside the build it would give the server another version than the client has, and no page would start.
const sync = await run('npm', ['run', '--silent', 'sync']);
if (sync.status !== 0) {
  console.error(sync.said);
  process.exit(1);
}
await Promise.all(
  Array.from({ length: Math.max(2, Math.min(4, availableParallelism())) }, (_, k) => work(k)),
);

mkdirSync('node_modules/.cache', { recursive: true });
writeFileSync(TIMES, JSON.stringify(took, Object.keys(took).sort(), 2));
longest.sort((a, b) => b.seconds - a.seconds);
console.log('\nThe ten longest');
for (const { name, seconds: time, file } of longest.slice(0, 10))
  console.log(`${time.toFixed(1).padStart(6)} s  ${name}  (${file})`);
console.log(`ℹ tests ${counts.tests}`);
console.log(`ℹ pass ${counts.pass}`);
console.log(`ℹ fail ${counts.fail}`);
console.log(`ℹ duration ${((performance.now() - began) / 1000).toFixed(0)} s`);
if (failed.length > 0) {
  console.error(`\nfailed: ${failed.join(', ')}`);
  process.exit(1);
}
