/** Wrong landings with what they do, worked out by hand from circuit laws; and protection against what is reached. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { withJumper } from '#core/boxes/asFound.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { KINDS, runOfKind, SCHOOLS } from '#core/boxes/testing.ts';
import { moved } from '#core/boxes/wiring.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import { randomRun } from '#core/network/testing.ts';
import { energized } from './energized.ts';
import { guardedBy } from './guarding.ts';

/** Ends with the places they are moved to. */
type Moves = Record<string, string | null>;

const wire = (wiring: BoxWiring, moves: Moves): BoxWiring => {
  const splices = Object.values(moves).filter((at) => at?.startsWith('new-'));
  const more = [...new Set(splices)].map((id) => ({ id: id!, connector: 'unknown' as const }));
  return Object.entries(moves).reduce((w, [end, at]) => moved(w, end, at), {
    ...wiring,
    splices: [...wiring.splices, ...more],
  });
};

/** Kind, box, what is landed wrong, what must be said of it, and what must not. */
const WRONG: [
  kind: string,
  box: string,
  moves: Moves | 'hot tab' | 'neutral tab',
  said: RegExp[],
  unsaid?: RegExp[],
][] = [
  [
    'the end of a run',
    'A',
    { 'feed.black': 'device.silver-1', 'feed.white': 'device.brass-1' },
    [/danger A: hot and neutral are reversed/],
  ],
  // Black on green with the ground capped: a frame has 120 V behind 1 kΩ of a body, 119 mA.
  [
    'the end of a run',
    'A',
    { 'feed.black': 'device.green', 'feed.bare': 'device.brass-1' },
    [/danger The ground slot and every metal frame at A are live: 11\d mA/],
  ],
  [
    'the end of a run',
    'A',
    { 'feed.black': 'device.green' },
    [/danger A hot meets .* breaker opens at once/],
  ],
  ['the end of a run', 'A', { 'feed.black': 'device.silver-1' }, [/danger A hot meets/]],
  ['the end of a run', 'A', { 'feed.black': null }, [/wrong A is dead\./], [/danger/]],
  ['the end of a run', 'A', { 'feed.white': null }, [/danger A does not work, and the hot is there/]],
  ['the end of a run', 'A', { 'feed.bare': null }, [/danger The ground slot at A goes nowhere/], [/wrong/]],
  [
    'the end of a run',
    'A',
    { 'feed.white': 'device.green', 'feed.bare': 'device.silver-1' },
    [/danger Neutral current flows in the grounds/],
  ],
  ['three in a row', 'A', { 'box-b.white': null }, [/danger B, C do not work/]],
  ['three in a row', 'B', { 'box-c.black': null }, [/wrong C is dead/], [/ B /]],
  // The tail of the green screw on the white splice: every reading is right until the neutral opens.
  [
    'three in a row',
    'A',
    { 'tail-ground-green.a': 'splice-neutral' },
    [/danger False ground at A/],
    [/reversed/, /goes nowhere/],
  ],
  [
    'a branch to two',
    'A',
    { 'box-b.black': 'splice-neutral', 'box-b.white': 'splice-hot' },
    [/danger B: hot and neutral are reversed/],
    [/ C/],
  ],
  ['a plain junction box, buried', 'J', { 'box-c.bare': null }, [/danger The ground slot at C goes nowhere/]],
  [
    'a switch with its feed',
    'S',
    {
      'feed.white': 'device.line',
      'box-l.white': 'device.load',
      'feed.black': 'new-1',
      'box-l.black': 'new-1',
    },
    [/danger L is off and live all the same: the switch opens the neutral.*Its shell is 120 V/],
  ],
  ['a switch with its feed', 'S', { 'box-l.black': 'device.green' }, [/wrong L is dead\./]],
  [
    'a switch with its feed',
    'S',
    { 'feed.black': 'new-1', 'box-l.black': 'new-1' },
    [/wrong L is live, where the plan has it off/],
  ],
  // The white of the loop carries the supply: on the silver of the light it makes a short.
  ['a switch fed from its light', 'L', { 'device.black': 'splice-neutral' }, [/wrong L is dead/]],
  ['a switch fed from its light', 'L', { 'device.black': 'splice-hot' }, [/wrong L is live, where/]],
  [
    'a switch with its feed',
    'L',
    { 'feed.black': 'splice-neutral', 'device.black': null },
    [/danger A hot meets/],
  ],
  [
    'a switch with its feed',
    'L',
    {
      'device.black': 'splice-neutral',
      'device.white': 'splice-switched',
    },
    [/danger L: hot and neutral are reversed: the shell of the lampholder is 120 V/],
  ],
  // Common and traveler changed: dead in one of the four positions in which it should be lit.
  [
    'three-way, switch switch light',
    'S',
    { 'feed.black': 'device.traveler-1', 'box-t.black': 'device.common' },
    [/wrong L is dead with S and T thrown/],
    [/danger/],
  ],
  [
    'three-way, switch switch light',
    'T',
    { 'box-l.black': 'device.traveler-1', 'feed.black': 'device.common' },
    [/wrong L is dead with S and T thrown/],
  ],
  // Travelers changed with each other: it works, up for down.
  [
    'three-way, switch switch light',
    'S',
    { 'box-t.black': 'device.traveler-2', 'box-t.red': 'device.traveler-1' },
    [/wrong L is dead\./, /wrong L is live, where the plan has it off/],
    [/danger/],
  ],
  [
    'four-way between two three-way, light last',
    'F',
    { 'feed.red': 'device.out-1', 'box-t.black': 'device.in-2' },
    [/wrong L is dead/],
  ],
  ['a half-hot fed at the switch', 'R', 'hot tab', [/wrong R \(bottom\) is live, where/], [/danger/]],
  ['a half-hot fed at the switch', 'R', { 'feed.red': null }, [/wrong R \(bottom\) is dead/], [/R \(top\)/]],
  [
    'a GFCI with what follows on LOAD',
    'G',
    {
      'feed.black': 'device.load-hot',
      'feed.white': 'device.load-neutral',
      'box-b.black': 'device.line-hot',
      'box-b.white': 'device.line-neutral',
    },
    [/wrong G: its feed is on LOAD. One made since 2006 does not reset/, /wrong G, B, C are dead/],
  ],
  [
    'a GFCI with what follows on LOAD',
    'G',
    { 'box-b.black': 'device.line-hot', 'box-b.white': 'device.line-neutral' },
    [/danger B, C are no longer protected by the GFCI at G/],
  ],
  [
    'a GFCI with what follows on LOAD',
    'G',
    { 'box-b.white': 'device.line-neutral' },
    [/wrong The GFCI at G trips as soon as something behind it draws current/],
  ],
  [
    'a GFCI with what follows on LOAD',
    'C',
    { 'feed.white': 'device.green' },
    [/wrong The GFCI at G trips and does not hold: neutral and ground are joined behind it/],
  ],
  [
    'a GFCI with one cable on LINE and two on LOAD',
    'G',
    { 'box-b.black': 'device.load-hot', 'box-b.white': 'device.load-neutral' },
    [/wrong B goes dead with the GFCI at G/],
  ],
  // The brass tab left on: both legs are joined by the device.
  ['a multiwire duplex split between two hots', 'A', 'hot tab', [/danger A hot meets .* the other hot/]],
  [
    'a multiwire circuit passing through',
    'B',
    { 'tail-neutral-silver-1.b': 'device.brass-2' },
    [/danger A hot meets/],
  ],
  [
    'a multiwire circuit passing through',
    'B',
    { 'tail-neutral-silver-1.a': 'splice-hot' },
    [/danger B: 240 V where 120 V is meant/],
  ],
  [
    '30 A, four wires',
    'D',
    { 'feed.white': 'device.green', 'feed.bare': 'device.w' },
    [/danger Neutral current flows|danger False ground/],
  ],
  ['30 A, four wires', 'D', { 'feed.red': null }, [/wrong D: no 240 V between its hots/]],
  [
    '30 A, four wires',
    'D',
    { 'feed.white': 'device.y', 'feed.red': 'device.w' },
    [/danger D: 240 V where 120 V is meant/],
  ],
  ['a water heater, its white marked', 'W', { 'feed.white': 'device.green' }, [/danger A hot meets/]],
  [
    'a water heater, its white marked',
    'W',
    { 'feed.white': 'device.green', 'feed.bare': 'device.l2' },
    [/danger The ground slot and every metal frame at W are live/],
  ],
  [
    'a baseboard with its thermostat',
    'T',
    { 'feed.white': 'new-1', 'box-h.white': 'new-1' },
    [/danger H is off and live all the same: one of its hots/],
  ],
  ['a kiln', 'K', { 'feed.black': null }, [/wrong K/]],
  [
    'no ground, a GFCI first',
    'B',
    { 'feed.black': 'device.silver-1', 'feed.white': 'device.brass-1' },
    [/danger B: hot and neutral are reversed/],
    [/protected/],
  ],
  // The other half of the pair: two conductors under the screw that takes one.
  [
    'three in a row',
    'C',
    { 'feed.bare': 'device.silver-1' },
    [/wrong C: 2 conductors under the silver screw, top, which takes 1/, /danger White and ground meet at C/],
  ],
  ['no ground, a GFCI first', 'B', { 'feed.white': 'device.green' }, [/danger/]],
  [
    'a metal box with a tail',
    'A',
    { 'tail-ground-box.a': 'splice-hot' },
    [/danger The ground slot and every metal frame at A are live: 11\d mA/],
  ],
  [
    'two circuits on one duplex, both tabs off',
    'A',
    'neutral tab',
    [/danger The neutrals of two circuits are joined at A/],
  ],
  [
    'a smart switch with a neutral',
    'S',
    { 'device.white': 'splice-ground' },
    [/danger White and ground meet at S/],
  ],
  ['smoke alarms with their interconnect', 'A', { 'feed.white': null }, [/danger A, B, C do not work/]],
];

for (const [name, at, moves, said, unsaid = []] of WRONG)
  test(`a wrong landing: ${name}, ${at} ${JSON.stringify(moves)}`, () => {
    const run = runOfKind(
      KINDS.find((k) => k.name === name)!,
      SCHOOLS[0]!,
    );
    const stop = run.stops.findIndex((s) => s.box.name === at);
    const planned = plannedBoxes(run)[stop]!;
    const changed =
      typeof moves === 'string'
        ? {
            ...planned,
            yokes: planned.yokes.map((y) => ({
              ...y,
              ...(moves === 'hot tab' ? { hotTab: true } : { neutralTab: true }),
            })),
          }
        : wire(planned, moves);
    const { effects } = energized(run, stop, changed);
    const all = effects.map((e) => `${e.level} ${e.text}`).join('\n');
    for (const words of said) assert.match(all, words);
    for (const words of unsaid) assert.doesNotMatch(all, words);
  });

/** Jumpers that people put in, with what they do. */
const JUMPED: [kind: string, box: string, from: string, to: string, said: RegExp[], unsaid?: RegExp[]][] = [
  // Beside a real ground: readings are right, and the neutral current has two ways home.
  [
    'the end of a run',
    'A',
    'device.silver-2',
    'device.green',
    [/danger Neutral current flows in the grounds/, /wrong A: 2 conductors under the green screw/],
    [/reversed|goes nowhere/],
  ],
  // Without one: the three slots read correct, and hang on the neutral.
  [
    'no ground, a GFCI first',
    'B',
    'device.silver-2',
    'device.green',
    [/danger False ground at B/],
    [/Neutral current/],
  ],
  ['the end of a run', 'A', 'device.brass-2', 'device.silver-2', [/danger A hot meets/]],
  [
    'a switch with its feed',
    'S',
    'device.line',
    'device.load',
    [/wrong L is live, where the plan has it off/],
  ],
  // Around the device: the load side is fed without it.
  [
    'a GFCI with what follows on LOAD',
    'G',
    'device.line-hot',
    'device.load-hot',
    [/danger B, C are no longer protected by the GFCI at G/],
  ],
];
for (const [name, at, from, to, said, unsaid = []] of JUMPED)
  test(`a jumper: ${name}, ${at} from ${from} to ${to}`, () => {
    const run = runOfKind(
      KINDS.find((k) => k.name === name)!,
      SCHOOLS[0]!,
    );
    const stop = run.stops.findIndex((s) => s.box.name === at);
    const { effects } = energized(run, stop, withJumper(plannedBoxes(run)[stop]!, from, to));
    const all = effects.map((e) => `${e.level} ${e.text}`).join('\n');
    for (const words of said) assert.match(all, words);
    for (const words of unsaid) assert.doesNotMatch(all, words);
  });

test('as planned nothing is said of any kind, in any school', () => {
  for (const kind of KINDS)
    for (const school of SCHOOLS) {
      const run = runOfKind(kind, school);
      plannedBoxes(run).forEach((wiring, at) =>
        assert.deepEqual(energized(run, at, wiring).effects, [], `${kind.name}, ${school.joining}`),
      );
    }
});

test('what is protected by record is what goes dead with its device', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const run = randomRun(2 + (seed % 12), seed);
    const boxes = plannedBoxes(run);
    run.stops.forEach(({ box }, device) => {
      if (box.device.kind !== 'gfci') return;
      const behind = guardedBy(run, boxes, device);
      const below = (stop: number): boolean => {
        for (let i = stop; i >= 0; i = run.stops[i]!.feeder) if (i === device) return true;
        return false;
      };
      run.stops.forEach((stop, k) => {
        // On the other hot of a multiwire circuit nothing of it passes the device.
        const same = stop.stop.hot === run.stops[device]!.stop.hot;
        const by = stop.gfci?.at === 'box' && stop.gfci.boxId === box.id;
        if (by && same) assert.ok(behind.has(k), `seed ${seed}: ${stop.box.name} by ${box.name}`);
        if (behind.has(k)) assert.ok(below(k), `seed ${seed}: ${stop.box.name} is not behind ${box.name}`);
      });
    });
  }
});
