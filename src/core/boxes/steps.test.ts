import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun } from '#core/circuits/run.ts';
import { breakerOf } from '#core/job/document.ts';
import type { Box, Circuit, Stop } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle } from '#core/job/testing.ts';
import { stepsFor } from './steps.ts';

interface Setup {
  box?: Partial<Box>;
  /** What is fed from the box, with how it leaves. */
  onward?: { box?: Partial<Box>; stop?: Partial<Stop> }[];
  circuit?: Partial<Circuit>;
  stop?: Partial<Stop>;
}
function words({ box = {}, onward = [], circuit = {}, stop = {} }: Setup): string[] {
  const boxes = [
    outlet('A', 1, 20, box),
    ...onward.map((o, i) => outlet(`B${i + 1}`, 1, 60 + 30 * i, o.box ?? {})),
  ];
  const plain = chain(boxes, circuit);
  const stops = plain.stops.map((s, i) => ({
    ...s,
    ...(i === 0 ? stop : { from: 'box-a', ...onward[i - 1]!.stop }),
  }));
  const built = { ...plain, stops };
  const run = buildRun(house({ boxes, circuits: [built] }), built);
  return stepsFor(run, run.stops[0]!).map((s) => s.text);
}
const TWO = { breaker: breakerOf(30, 'none', 2), gauge: '10' as const };
const is = (kind: Box['device']['kind'], values: Partial<Box['device']> = {}) =>
  receptacle({ kind, ...values });

/** What must be among the steps of each kind of device, and what must not. */
const CASES: [string, Setup, RegExp[], RegExp[]][] = [
  [
    'a duplex at the end',
    {},
    [/take one tail to the green screw/, /White to silver, then black to brass/],
    [/splice must stand/],
  ],
  [
    'a duplex in the middle',
    { onward: [{}] },
    [/splice must stand/, /Join the whites of the feed and B1 with a tail/],
    [],
  ],
  [
    'carried through its screws',
    { onward: [{}], stop: { splice: 'feed-through' } },
    [/Carry B1 through the device’s second pair of screws/],
    [/with a tail for the device/],
  ],
  [
    'a multiwire circuit never through the device',
    {
      onward: [{}],
      stop: { splice: 'feed-through', hot: 'red' },
      circuit: { breaker: breakerOf(20, 'none', 2) },
    },
    [/Join the whites.*then the reds/, /The black is not used here/, /White to silver, then red to brass/],
    [/second pair of screws/],
  ],
  [
    'a GFCI with one cable on LOAD and one on LINE',
    { box: { device: is('gfci') }, onward: [{}, { stop: { side: 'line' } }] },
    [/Join the feed and B2 with tails to LINE/, /feed on LINE and the cable to B1 on LOAD/],
    [/cable to B1, B2 on LOAD/],
  ],
  [
    'a GFCI at the end',
    { box: { device: is('gfci') } },
    [/leave the tape on LOAD/],
    [/Black and white of each LOAD/],
  ],
  [
    'a half that is switched',
    { box: { device: is('duplex', { switched: 'half' }) } },
    [
      /Break off the tab between the brass screws; leave the tab on the silver/,
      /the constant hot to one brass screw/,
    ],
    [/White to silver, then black to brass/],
  ],
  [
    'a switch',
    {
      box: { device: is('switch'), controls: ['box-b1'] },
      onward: [{ box: { device: is('light') } }],
    },
    [
      /no white goes on a plain switch/,
      /Switched hot to B1 on one screw, then the feed/,
      /switch’s green screw/,
    ],
    [/silver|brass/],
  ],
  [
    'a light',
    { box: { device: is('light') } },
    [/white to the fixture’s white lead/i, /fixture level and snug/],
    [/silver|brass/],
  ],
  [
    '250 V with two hots',
    { box: { device: is('single', { volts: '250', rating: 30 }) }, circuit: { ...TWO, neutral: false } },
    [/Mark the white as a hot/, /One hot to each brass screw/],
    [/silver/],
  ],
  [
    '125/250 V with four wires',
    { box: { device: is('single', { volts: '125/250', rating: 30 }) }, circuit: TWO },
    [/White to the silver screw \(W\), black and red/, /strap between neutral and frame comes off/],
    [/then black to brass/],
  ],
  [
    '125/250 V with three wires',
    { box: { device: is('single', { volts: '125/250', rating: 30 }), grounding: 'none' }, circuit: TWO },
    [/Three wires, no ground: stop/],
    [/take one tail to the green screw/],
  ],
  [
    'hardwired at 240 V',
    { box: { device: is('hardwired', { volts: '250' }) }, circuit: { ...TWO, neutral: false } },
    [/disconnect is open and locked/, /One hot to each line terminal/, /equipment’s green screw/],
    [/silver|brass/],
  ],
  [
    'two-slot without a ground',
    { box: { device: is('two-slot'), grounding: 'none' }, circuit: { cable: 'old two-wire' } },
    [/nothing may join it to the neutral/, /wider slot.*It has no ground screw/],
    [/green/],
  ],
  [
    'two-slot where a ground is',
    { box: { device: is('two-slot') } },
    [/a two-slot receptacle does not belong/],
    [],
  ],
  ['a smoke alarm', { box: { device: is('smoke-alarm') } }, [/interconnect/], [/silver|brass/]],
];
for (const [what, setup, wanted, unwanted] of CASES)
  test(`steps follow the device: ${what}`, () => {
    const said = words(setup);
    const all = said.join('\n');
    for (const w of wanted) assert.match(all, w);
    for (const u of unwanted) assert.doesNotMatch(all, u);
    // The ground is landed before anything else of the device.
    const ground = said.findIndex((s) => /grounds|No ground|ground screw: nothing/.test(s));
    const landed = said.findIndex((s) => /brass|silver|white lead|on one screw|line terminal/.test(s));
    assert.ok(ground >= 0 && (landed < 0 || ground < landed), all);
  });
