import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';

const root = new URL('../', import.meta.url).pathname;
const shell = (command: string, input = '') =>
  spawnSync('bash', ['-c', `hekto() { node cli/hekto.js "$@"; }; { ${command}; } 2>&1`], {
    cwd: root,
    input,
    encoding: 'utf8',
  });

const examples = [...readFileSync(`${root}docs/cli.md`, 'utf8').matchAll(/```console\n\$ (.+)\n([^`]*)```/g)];

test('docs/cli.md has its examples', () => assert.ok(examples.length >= 6));
for (const [, command, output] of examples) {
  test(`docs/cli.md: ${command}`, () => assert.equal(shell(command!).stdout, output));
}

const STATUS: [string, string, number][] = [
  ['hekto check demo/tamarack-court.json', '', 1],
  ['hekto check no-such-file.json', '', 2],
  ['hekto check', '', 2],
  ['hekto check a b', '', 2],
  ['hekto size', '{"load": {"kind": "general", "amps": 12}}', 0],
  ['hekto size', '{"load": {"kind": "general", "amps": 12}, "gauge": "14", "ambientCelsius": 85}', 1],
  ['hekto size', '{"load": {"kind": "water-heater"}}', 1],
  ['hekto size', '{}', 2],
  ['hekto size', '[1]', 2],
  ['hekto size', '{"load": {"kind": "general", "amps": 1e9}}', 2],
  ['hekto size', '{"load": {"kind": "sauna", "amps": 10}}', 2],
  ['hekto size', '{"load": {"kind": "general"', 2],
  ['hekto load', '{"floorArea": 1500}', 0],
  ['hekto load', '{"floorArea": 20000, "items": [{"name": "heat", "kind": "space-heat", "va": 90000}]}', 1],
  ['hekto load', '{}', 2],
  ['hekto load', '{"floorArea": -1}', 2],
  ['hekto plan', '', 2],
  ['hekto plan demo/tamarack-court.json --max-out many', '', 2],
  ['hekto plan demo/tamarack-court.json --keep circuit-none', '', 2],
  ['hekto plan demo/tamarack-court.json --seed', '', 2],
  ['hekto solve demo/tamarack-court.json --circuit "Range"', '', 0],
  ['hekto solve demo/tamarack-court.json', '', 2],
  ['hekto solve demo/tamarack-court.json --circuit "No such circuit"', '', 2],
  ['hekto solve demo/tamarack-court.json --circuit "Studio receptacles" --faults "[{"', '', 2],
  ["hekto solve demo/tamarack-court.json --circuit 'Studio receptacles' --faults '[null]'", '', 2],
  ['hekto box demo/tamarack-court.json --box K3', '', 0],
  ['hekto box demo/tamarack-court.json --box K3 --move feed.black=capped', '', 1],
  ['hekto box demo/tamarack-court.json --box E3', '', 1],
  ['hekto box demo/tamarack-court.json --box K3 --move feed.black=nowhere', '', 2],
  ['hekto box demo/tamarack-court.json --box K3 --move', '', 2],
  ['hekto box demo/tamarack-court.json --box K3 --jumper device.green', '', 2],
  ['hekto box demo/tamarack-court.json --box Z99', '', 2],
  ['hekto box demo/tamarack-court.json', '', 2],
  ['hekto solve demo/tamarack-court.json --circuit Range --house off', '', 0],
  ['hekto solve demo/tamarack-court.json --circuit Range --house never', '', 2],
  [`hekto solve demo/tamarack-court.json --circuit Range --house-faults '[{"kind": "no-bond"}]'`, '', 2],
  [
    `hekto solve demo/tamarack-court.json --circuit Range --house off --house-faults '[{"kind": "flood"}]'`,
    '',
    2,
  ],
  ['hekto help', '', 0],
  ['hekto', '', 2],
  ['hekto fly', '', 2],
  ['hekto constructor', '', 2],
  ['hekto check --json=1 demo/tamarack-court.json', '', 2],
  ['hekto size --feet 10', '{}', 2],
];
/** A command line in words, what is quoted as one. */
const words = (command: string): string[] =>
  [...command.matchAll(/'([^']*)'|"([^"]*)"|(\S+)/g)].map(([, one, two, bare]) => one ?? two ?? bare!);

test('each command exits with 0, 1 or 2 by what it finds', async (t) => {
  const folder = mkdtempSync(join(tmpdir(), 'hekto-cli-'));
  // One process for all of them: most of the time of a short command is loading it.
  const calls = STATUS.map(([command, input], k) => {
    const [, ...args] = words(command);
    if (input === '') return args;
    const file = join(folder, `${k}.json`);
    writeFileSync(file, input);
    return [...args, file];
  });
  const child = spawnSync(process.execPath, ['tests/support/commands.mjs'], {
    cwd: root,
    input: JSON.stringify(calls),
    encoding: 'utf8',
  });
  const ended = JSON.parse(child.stdout) as number[];
  for (const [k, [command, input, status]] of STATUS.entries())
    await t.test(`${command} ${input} exits with ${status}`, () => assert.equal(ended[k], status));
  // From standard input, and as a process of its own.
  for (const status of [0, 1, 2]) {
    const [command, input] = STATUS.find((s) => s[2] === status && s[1] !== '')!;
    assert.equal(shell(command, input).status, status);
  }
});

test('a job with nothing to mend exits with 0', () => {
  const job = JSON.parse(readFileSync(`${root}demo/tamarack-court.json`, 'utf8'));
  const bare = {
    ...job,
    areas: [],
    openings: [],
    fixtures: [],
    amendments: [],
    panels: [{ ...job.panels.find((p: { feeder: unknown }) => p.feeder === null), found: null }],
    boxes: [],
    circuits: [],
    readings: [],
    proofs: [],
    energizings: [],
  };
  assert.equal(shell('hekto check -', JSON.stringify(bare)).status, 0);
});

test('a planned job file is a job file, with every outlet of the old one on one circuit', () => {
  const keep = 'circuit-lights,circuit-lights-lower,circuit-living,circuit-boiler,circuit-shed';
  const { stdout, status } = shell(`hekto plan demo/tamarack-court.json --job --keep ${keep}`);
  assert.equal(status, 0);
  const job = JSON.parse(stdout);
  const wired = job.circuits.flatMap((c: { stops: { boxId: string }[] }) => c.stops.map((s) => s.boxId));
  assert.equal(new Set(wired).size, wired.length);
  assert.equal(wired.length, job.boxes.length);
  assert.equal(shell('hekto check -', stdout).status, 1);
});

test('a name that fits several circuits is refused with the list, one of several outlets as the file', () => {
  const job = JSON.parse(readFileSync(`${root}demo/tamarack-court.json`, 'utf8'));
  const [a, b] = job.circuits;
  a.name = b.name = 'Twin';
  const solve = (file: unknown, rest: string) => shell(`hekto solve - ${rest}`, JSON.stringify(file));
  const two = solve(job, '--circuit Twin');
  assert.equal(two.status, 2);
  assert.match(
    two.stdout,
    new RegExp(`“Twin” fits 2 circuits; expected the id of one: .*${a.id} \\(space \\d+\\)`),
  );
  assert.equal(solve(job, `--circuit ${a.id}`).status, 0);
  const studio = job.circuits.find((c: { id: string }) => c.id === 'circuit-studio');
  const name = (id: string) => job.boxes.find((x: { id: string }) => x.id === id);
  name(studio.stops[1].boxId).name = name(studio.stops[0].boxId).name;
  const twice = solve(job, `--circuit circuit-studio --touch ${name(studio.stops[0].boxId).name}`);
  assert.equal(twice.status, 2);
  assert.match(twice.stdout, /is the name of another outlet/);
});

test('the wiring of a box goes out with what it does; a jumper is said, and the picture is a file', () => {
  const svg = `${mkdtempSync(join(tmpdir(), 'hekto-cli-'))}/k3.svg`;
  const { stdout, status } = shell(
    `hekto box demo/tamarack-court.json --box K3 --jumper device.silver-2=device.green --svg ${svg}`,
  );
  assert.equal(status, 1);
  const box = JSON.parse(stdout) as {
    conductors: { end: string; at: string }[];
    energized: { effects: { text: string }[] };
    fill: { volume: number };
  };
  assert.ok(box.conductors.some((c) => c.end === 'jumper-1.a' && c.at === 'device.silver-2'));
  assert.ok(box.energized.effects.some((e) => /Neutral current flows in the grounds/.test(e.text)));
  // Two 12/2 with grounds, a device, clamps: 4 × 2.25 + 2.25 + 4.5 + 2.25.
  assert.equal(box.fill.volume, 18);
  assert.match(readFileSync(svg, 'utf8'), /^<svg xmlns=[\s\S]*jumper-1[\s\S]*<\/svg>/);
});
