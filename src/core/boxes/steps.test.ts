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
    [
      /Bare of the feed to the green screw/,
      /White of the feed to the silver screw, top/,
      /Black of the feed to the brass screw, top/,
    ],
    [/splice must stand/],
  ],
  [
    'a duplex in the middle',
    { onward: [{}] },
    [
      /splice must stand/,
      /Join the whites of the feed and to B1, with a tail for the device: medium twist-on/,
    ],
    [],
  ],
  [
    'carried through its screws',
    { onward: [{}], stop: { splice: 'feed-through' } },
    [/White of the feed to the silver screw, top; White to B1 to the silver screw, bottom/],
    [/whites.*with a tail/],
  ],
  [
    'a multiwire circuit never through the device',
    {
      onward: [{}],
      stop: { splice: 'feed-through', hot: 'red' },
      circuit: { breaker: breakerOf(20, 'none', 2) },
    },
    [
      /Join the whites of the feed and to B1, with a tail/,
      /Join the hots \(black\) of the feed and to B1: small/,
      /Red of the feed to the brass screw, top; Red to B1 to the brass screw, bottom/,
    ],
    [/White of the feed to the silver/],
  ],
  [
    'a GFCI with one cable on LOAD and one on LINE',
    { box: { device: is('gfci') }, onward: [{}, { stop: { side: 'line' } }] },
    [
      /Join the whites of the feed and to B2, with a tail/,
      /feed on LINE and the cable to B1 on LOAD; B2 stays with LINE/,
      /White to B1 to the LOAD white/,
    ],
    [/cables to B1, B2 on LOAD/],
  ],
  ['a GFCI at the end', { box: { device: is('gfci') } }, [/leave the tape on LOAD/], [/to the LOAD white/]],
  [
    'a half that is switched',
    { box: { device: is('duplex', { switched: 'half' }) } },
    [
      /Break off the tab between the brass screws; leave the tab on the silver/,
      /Black of the feed to the brass screw, top/,
    ],
    [/to the brass screw, bottom/],
  ],
  [
    'a switch',
    {
      box: { device: is('switch'), controls: ['box-b1'] },
      onward: [{ box: { device: is('light') } }],
    },
    [
      /No white goes on a plain switch/,
      /Black to B1 to the brass screw, switched; Black of the feed to the brass screw, feed/,
      /switch’s green screw/,
    ],
    [/silver/],
  ],
  [
    'a light',
    { box: { device: is('light') } },
    [/Join the whites of the feed, with the white lead/, /fixture level and snug/],
    [/silver|brass/],
  ],
  [
    '250 V with two hots',
    { box: { device: is('single', { volts: '250', rating: 30 }) }, circuit: { ...TWO, neutral: false } },
    [/Mark the white as a hot/, /White, marked red, of the feed to the brass screw Y/],
    [/silver/],
  ],
  [
    '125/250 V with four wires',
    { box: { device: is('single', { volts: '125/250', rating: 30 }) }, circuit: TWO },
    [
      /White of the feed to the silver screw W/,
      /Black of the feed to the brass screw X; Red of the feed to the brass screw Y/,
      /strap between neutral and frame comes off/,
    ],
    [/Cap the/],
  ],
  [
    '125/250 V with three wires',
    { box: { device: is('single', { volts: '125/250', rating: 30 }), grounding: 'none' }, circuit: TWO },
    [/Three wires, no ground: stop/],
    [/to the green screw/],
  ],
  [
    'hardwired at 240 V',
    { box: { device: is('hardwired', { volts: '250' }) }, circuit: { ...TWO, neutral: false } },
    [
      /disconnect is open and locked/,
      /Black of the feed to the terminal L1; White, marked red, of the feed to the terminal L2/,
      /Bare of the feed to the green screw/,
    ],
    [/silver|brass/],
  ],
  [
    'two-slot without a ground',
    { box: { device: is('two-slot'), grounding: 'none' }, circuit: { cable: 'old two-wire' } },
    [/nothing may join it to the neutral/, /wider slot.*it has no ground screw/],
    [/green/],
  ],
  ['two-slot where a ground is', { box: { device: is('two-slot') } }, [/A ground is here: a two-slot/], []],
  [
    'a GFCI where no ground is',
    { box: { device: is('gfci'), grounding: 'none' }, circuit: { cable: 'old two-wire' } },
    [/Labels on: “No Equipment Ground”\./],
    [/GFCI Protected/],
  ],
  [
    'a receptacle that a controller switches',
    { box: { device: is('duplex', { switched: 'whole', automatic: true }) } },
    [/Labels on: “Controlled”/, /ground slot down/],
    [],
  ],
  [
    'a junction box',
    { box: { device: is('junction') }, onward: [{}, {}] },
    [/Join all grounds of the feed, to B1 and to B2:/, /blank cover on: it stays reachable/],
    [/mount the device|Plate|without the device/],
  ],
  [
    'a dimmer by its leads',
    {
      box: { device: is('switch', { build: 'dimmer' }), controls: ['box-b1'] },
      onward: [{ box: { device: is('light') } }],
    },
    [/No white goes on a dimmer/, /with the black lead, feed: small/, /this device is deep/],
    [/brass/],
  ],
  [
    'the first of two three-way switches',
    {
      box: { device: is('switch'), controls: ['box-b2'] },
      onward: [
        { box: { device: is('switch'), controls: ['box-b2'] } },
        { box: { device: is('light') }, stop: { from: 'box-b1' } },
      ],
    },
    [
      /dark screw \(common\): it takes the feed/,
      /Black to B1 to the brass screw 1, traveler; Red to B1 to the brass screw 2/,
    ],
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
    // The ground is joined before anything else of the box.
    const ground = said.findIndex((s) =>
      /grounds|No ground|no ground|bare|Bare|ground screw: nothing/.test(s),
    );
    const landed = said.findIndex((s) => /to the (brass|silver|white lead|terminal L1)/.test(s));
    assert.ok(ground >= 0 && (landed < 0 || ground < landed), all);
  });
