/**
 * Hunts as tradespeople tell them: what was said, what was truly the matter, and the sensible way, written down before they
 * were followed. Each ends right in no more steps and opened boxes than a good electrician needs.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Finding } from './evidence.ts';
import { chainGround, makeTruth, voltsFound, otherOrder, play, type Trouble } from './testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { oneIn } from '../../../../tests/support/sample.ts';

interface Told {
  /** As it is told, and the sensible way. */
  told: string;
  way: string;
  /** Boxes on the circuit, and the seed of its house. */
  boxes: number;
  seed: number;
  said: readonly Finding[];
  truth: readonly Trouble[];
  /** Steps and opened boxes that a good electrician needs at most. */
  steps: number;
  opened: number;
  /** The run is wired in another order than drawn. */
  otherOrder?: true;
  /** Position of a GFCI. */
  gfci?: number;
}

const works = (stop: number, does: (Finding & { kind: 'works' })['does']): Finding => ({
  kind: 'works',
  stop,
  does,
});
const rest = (from: number, to: number): Finding[] =>
  Array.from({ length: to - from + 1 }, (_, k) => works(from + k, 'works'));
const dead = (from: number, to: number): Finding[] =>
  Array.from({ length: to - from + 1 }, (_, k) => works(from + k, 'dead'));
const elsewhere = (does: (Finding & { kind: 'elsewhere' })['does']): Finding => ({ kind: 'elsewhere', does });
const trips = (
  does: (Finding & { kind: 'breaker' })['does'],
  unplugged = false,
  minutes: number | null = null,
  amps: number | null = null,
): Finding => ({ kind: 'breaker', does, unplugged, minutes, amps });
const sign = (stop: number, s: (Finding & { kind: 'sign' })['sign']): Finding => ({
  kind: 'sign',
  stop,
  sign: s,
});
const OPEN = 1e10;
const joint = (
  box: number,
  wire: 'h' | 'n' | 'g',
  where: (Trouble & { what: 'joint' })['where'],
  ohms = OPEN,
): Trouble => ({ what: 'joint', box, wire, where, ohms });
const touch = (
  box: number,
  wires: readonly ['h', 'n'] | readonly ['h', 'g'],
  where: 'box' | 'cable' = 'box',
): Trouble => ({
  what: 'touch',
  box,
  wires,
  ohms: 0.02,
  where,
});

const TOLD: readonly Told[] = [
  {
    told: 'Half of the bedroom is dead: the two by the window, the other three work.',
    way: 'Meter at the first dead one tells hot or neutral; then the last live and the first dead box.',
    boxes: 5,
    seed: 101,
    said: [...rest(0, 2), ...dead(3, 4)],
    truth: [joint(3, 'h', 'in')],
    steps: 6,
    opened: 2,
  },
  {
    told: 'Same bedroom, but the tester lights “open neutral” at the dead ones.',
    way: 'Neutral open between the last good and the first bad one: those two boxes.',
    boxes: 5,
    seed: 102,
    said: [
      ...rest(0, 2),
      { kind: 'lamps', stop: 3, lamps: [false, true, false] },
      { kind: 'lamps', stop: 4, lamps: [false, true, false] },
    ],
    truth: [joint(3, 'n', 'start')],
    steps: 6,
    opened: 3,
  },
  {
    told: 'One outlet behind the couch is dead, everything around it works.',
    way: 'Volts there: no hot. Its own push-in.',
    boxes: 6,
    seed: 103,
    said: [works(5, 'dead'), ...rest(0, 4)],
    truth: [joint(5, 'h', 'in')],
    steps: 6,
    opened: 2,
  },
  {
    told: 'The whole circuit is dead, the breaker looks on.',
    way: 'Breaker fully off and on first; then volts at the first outlet; then the panel.',
    boxes: 5,
    seed: 104,
    said: [...dead(0, 4)],
    truth: [{ what: 'breaker', ohms: OPEN }],
    steps: 8,
    opened: 2,
  },
  {
    told: 'Bathroom is dead since the porch got wet; a GFCI sits upstream.',
    way: 'Reset the GFCI, and that was it.',
    boxes: 5,
    seed: 107,
    said: [works(4, 'dead'), works(3, 'dead'), { kind: 'rain' }],
    truth: [{ what: 'tripped', box: 1 }],
    gfci: 1,
    steps: 7,
    opened: 1,
  },
  {
    told: 'Breaker goes with a bang as soon as it is put back, everything unplugged.',
    way: 'Ohms: hot to neutral. Part in the middle, half again.',
    boxes: 8,
    seed: 106,
    said: [trips('trips at once', true)],
    truth: [touch(5, ['h', 'n'])],
    steps: 9,
    opened: 4,
  },
  {
    told: 'Breaker trips at once since a picture was hung in the hall.',
    way: 'The hall box and its cables first.',
    boxes: 7,
    seed: 108,
    said: [trips('trips at once', true), { kind: 'work', stop: 3 }],
    truth: [touch(3, ['h', 'g'])],
    steps: 6,
    opened: 3,
  },
  {
    told: 'Breaker trips at once, but holds with all unplugged.',
    way: 'One of the loads: try each on another circuit.',
    boxes: 5,
    seed: 109,
    said: [trips('trips at once'), trips('holds', true)],
    truth: [{ what: 'appliance' }],
    steps: 4,
    opened: 0,
  },
  {
    told: 'Breaker lets go after ten minutes at 18 A, on a 15 A breaker.',
    way: 'It is what is plugged in: measure, take loads off.',
    boxes: 5,
    seed: 110,
    said: [trips('trips later', false, 10, 18)],
    truth: [{ what: 'overload' }],
    steps: 4,
    opened: 0,
  },
  {
    told: 'Space heater is weak in the back room; its outlet is warm.',
    way: 'Load it, read it: the drop. The warm box is opened.',
    boxes: 6,
    seed: 111,
    said: [works(4, 'dim'), sign(4, 'heat')],
    truth: [joint(4, 'h', 'in', 3)],
    steps: 7,
    opened: 2,
  },
  {
    told: 'Vacuum runs slow everywhere past the hall outlet, fine before it.',
    way: 'Loaded volts before and after: the joint between them.',
    boxes: 7,
    seed: 112,
    said: [works(6, 'dim'), works(3, 'dim'), ...rest(0, 1)],
    truth: [joint(2, 'n', 'in', 3)],
    steps: 9,
    opened: 3,
  },
  {
    told: 'Lights dip and come back when the door is slammed, at the end of the run.',
    way: 'A joint: loaded readings along the run, then that box.',
    boxes: 6,
    seed: 113,
    said: [works(5, 'comes and goes')],
    truth: [joint(4, 'h', 'in', 5)],
    steps: 10,
    opened: 3,
  },
  {
    told: 'Kitchen lights go bright and the den dims when the microwave starts.',
    way: 'Main off, both legs at the panel, the utility.',
    boxes: 5,
    seed: 114,
    said: [elsewhere('some dim, some bright'), works(2, 'dim')],
    truth: [{ what: 'service-neutral', ohms: OPEN }],
    steps: 4,
    opened: 0,
  },
  {
    told: 'Half the house is dead, the rest is fine.',
    way: 'A leg: read both at the panel.',
    boxes: 5,
    seed: 115,
    said: [elsewhere('some dead'), works(1, 'dead')],
    truth: [{ what: 'lost-leg' }],
    steps: 5,
    opened: 0,
  },
  {
    told: 'Tingle at the toaster.',
    way: 'Power off; then slots only: neutral and ground against each other and to a lead.',
    boxes: 5,
    seed: 116,
    said: [{ kind: 'shock', stop: 3 }],
    truth: [
      { what: 'swapped', box: 3, wires: ['h', 'n'] },
      { what: 'false-ground', box: 3 },
    ],
    steps: 14,
    opened: 4,
  },
  {
    told: 'Inspector’s tester says hot and neutral reversed at one outlet.',
    way: 'That box, and the one before it if it goes on.',
    boxes: 6,
    seed: 117,
    said: [{ kind: 'lamps', stop: 5, lamps: [true, false, true] }],
    truth: [{ what: 'swapped', box: 5, wires: ['h', 'n'] }],
    steps: 7,
    opened: 2,
  },
  {
    told: 'Neutral to ground reads 0.0 with the heater on, far from the panel, in an old bedroom.',
    way: 'A false ground: a lead from a proven ground, or straight into the box.',
    boxes: 5,
    seed: 118,
    said: [voltsFound(3, 113.6, 113.6, 0, 10)],
    truth: [{ what: 'false-ground', box: 3 }],
    steps: 5,
    opened: 2,
  },
  {
    told: 'Tester shows open ground at the last three outlets.',
    way: 'Between the last good and the first bad one.',
    boxes: 6,
    seed: 119,
    said: [
      { kind: 'lamps', stop: 2, lamps: [true, true, false] },
      ...[3, 4, 5].map((stop): Finding => ({ kind: 'lamps', stop, lamps: [true, false, false] })),
    ],
    truth: [joint(3, 'g', 'in')],
    steps: 6,
    opened: 3,
  },
  {
    told: 'Outlets dead but a tester in them lights “open neutral”, all of the circuit.',
    way: 'Neutral at the panel or in the first box.',
    boxes: 5,
    seed: 120,
    said: [0, 1, 2, 3, 4].map((stop): Finding => ({ kind: 'lamps', stop, lamps: [false, true, false] })),
    truth: [{ what: 'lifted-neutral' }],
    steps: 6,
    opened: 2,
  },
  {
    told: 'Lamp in the guest room does not light; nothing else was tried.',
    way: 'Another lamp, or this one elsewhere.',
    boxes: 6,
    seed: 121,
    said: [works(4, 'dead')],
    truth: [{ what: 'appliance' }],
    steps: 5,
    opened: 0,
  },
  {
    told: 'The new vanity light has been dim since the day it went in, two boxes before it were opened.',
    way: 'Where hands were: that box, loaded readings confirm.',
    boxes: 6,
    seed: 122,
    said: [works(4, 'dim'), { kind: 'work', stop: 2 }],
    truth: [joint(2, 'n', 'in', 4)],
    steps: 9,
    opened: 3,
  },
  {
    told: 'A burning smell at the second outlet, it still works.',
    way: 'Off, and that box.',
    boxes: 5,
    seed: 123,
    said: [sign(1, 'smell'), works(1, 'works')],
    truth: [joint(1, 'h', 'in', 1.2)],
    steps: 9,
    opened: 3,
  },
  {
    told: 'Plate scorched at the fourth, the fifth and sixth flicker.',
    way: 'The scorched one.',
    boxes: 6,
    seed: 124,
    said: [sign(3, 'scorch'), works(4, 'comes and goes'), works(5, 'comes and goes')],
    truth: [joint(4, 'h', 'start', 6)],
    steps: 7,
    opened: 3,
  },
  {
    told: 'Somebody replaced an outlet on the weekend; now everything after it is dead.',
    way: 'That box: a conductor not put back.',
    boxes: 7,
    seed: 125,
    said: [...rest(0, 2), ...dead(4, 6), { kind: 'work', stop: 3 }],
    truth: [joint(4, 'n', 'start')],
    steps: 5,
    opened: 2,
  },
  {
    told: 'The same, but what was drawn after it works and one before is dead.',
    way: 'The drawing is wrong: read along, believe the meter.',
    boxes: 6,
    seed: 126,
    said: [works(2, 'dead'), works(3, 'works')],
    truth: [joint(2, 'h', 'in')],
    steps: 9,
    opened: 4,
    otherOrder: true,
  },
  {
    told: 'Garage door opener is slow, garage is last on a long run.',
    way: 'Loaded volts there and at the middle: where the drop jumps.',
    boxes: 8,
    seed: 127,
    said: [works(7, 'dim')],
    truth: [joint(5, 'h', 'in', 3)],
    steps: 11,
    opened: 3,
  },
  {
    told: 'Fridge outlet tested bad by the analyzer: 12 % drop at 15 A, its neighbor 3 %.',
    way: 'The joint is between the two.',
    boxes: 5,
    seed: 128,
    said: [voltsFound(2, 116.5, 118.2, 1.7, 10), voltsFound(3, 101.5, 104.4, 2.9, 10)],
    truth: [joint(3, 'h', 'in', 1.4)],
    steps: 6,
    opened: 2,
  },
  {
    told: 'Washer trips the GFCI at the tub; GFCI resets with it unplugged.',
    way: 'The washer.',
    boxes: 4,
    seed: 130,
    said: [{ kind: 'appliance', fails: true }],
    truth: [{ what: 'appliance' }],
    steps: 3,
    opened: 0,
  },
  {
    told: 'Nothing works at the island, a nail went into the wall below it yesterday.',
    way: 'Between the last live and the first dead: the cable there, after both ends were looked at.',
    boxes: 5,
    seed: 131,
    said: [...rest(0, 2), ...dead(3, 4), { kind: 'work', stop: null }],
    truth: [joint(3, 'h', 'middle')],
    steps: 10,
    opened: 2,
  },
  {
    told: 'All of it is dead, the breaker holds with all unplugged, and a pen sounds at every slot.',
    way: 'Hot is there: the neutral, at the panel first.',
    boxes: 5,
    seed: 132,
    said: [...dead(0, 4), trips('holds', true)],
    truth: [{ what: 'lifted-neutral' }],
    steps: 8,
    opened: 2,
  },
  {
    told: 'Hot-to-neutral 78 V at one outlet without load, 120 to ground.',
    way: 'Neutral hangs by a load somewhere: open neutral before it.',
    boxes: 6,
    seed: 133,
    said: [voltsFound(4, 0.4, 120.5, 119.8), voltsFound(2, 120.3, 120.5, 0.2)],
    truth: [joint(3, 'n', 'in')],
    steps: 7,
    opened: 3,
  },
  {
    told: 'Freezer thawed: its outlet dead, the others on the string fine, GFCI at the head reset and fine.',
    way: 'The last box: its own feed.',
    boxes: 6,
    seed: 134,
    said: [works(5, 'dead'), ...rest(0, 4)],
    truth: [joint(5, 'n', 'in')],
    steps: 6,
    opened: 2,
  },
  {
    told: 'Two rooms dead on one breaker, and the breaker buzzes.',
    way: 'The panel: lug and stab.',
    boxes: 6,
    seed: 135,
    said: [...dead(0, 5), sign(0, 'buzz')],
    truth: [joint(0, 'h', 'start')],
    steps: 8,
    opened: 2,
  },
  {
    told: 'Trips at once with all unplugged; ohms hot to ground read dead short at the last outlet.',
    way: 'Part in the middle, then the half.',
    boxes: 8,
    seed: 136,
    said: [trips('trips at once', true), { kind: 'ohms', stop: 7, pair: 'hotGround', ohms: 0.5 }],
    truth: [touch(2, ['h', 'g'])],
    steps: 9,
    opened: 4,
  },
  {
    told: 'It trips at once, outdoors wet, the last box is in the garden.',
    way: 'The garden box and its cable.',
    boxes: 6,
    seed: 137,
    said: [trips('trips at once', true), { kind: 'rain' }],
    truth: [touch(5, ['h', 'g'])],
    steps: 8,
    opened: 4,
  },
  {
    told: 'Lights waver, and somebody read 104 and 136 V at the panel.',
    way: 'The service neutral: main off, the utility.',
    boxes: 4,
    seed: 138,
    said: [elsewhere('some dim, some bright'), { kind: 'legs', a: 104.5, b: 136.2, loaded: null }],
    truth: [{ what: 'service-neutral', ohms: 1.2 }],
    steps: 3,
    opened: 0,
  },
  {
    told: 'Outlet reads 120 to both, 0 between neutral and ground, and still the drill does not start.',
    way: 'Load it: it collapses. A joint before it.',
    boxes: 5,
    seed: 139,
    said: [works(3, 'dead'), voltsFound(3, 119.8, 119.9, 0.1)],
    truth: [joint(3, 'h', 'in', 60)],

    steps: 8,
    opened: 3,
  },
  {
    told: 'An old string of eight: the last four dead, tester dark.',
    way: 'Fourth and fifth box.',
    boxes: 8,
    seed: 140,
    said: [...rest(0, 3), ...dead(4, 7), { kind: 'lamps', stop: 4, lamps: [false, false, false] }],
    truth: [joint(4, 'h', 'in')],
    steps: 6,
    opened: 3,
  },
  {
    told: 'After a repair the heater is still weak: a second poor joint.',
    way: 'Retest under load after the first repair; find the next.',
    boxes: 5,
    seed: 141,
    said: [works(4, 'dim')],
    truth: [joint(2, 'h', 'in', 3), joint(4, 'n', 'in', 2.5)],
    steps: 20,
    opened: 6,
  },
  {
    told: 'Seller’s report: “outlet loose and warm when used”, circuit otherwise fine.',
    way: 'That box.',
    boxes: 6,
    seed: 142,
    said: [sign(2, 'heat'), ...rest(3, 5)],
    truth: [joint(2, 'n', 'in', 0.9)],
    steps: 9,
    opened: 3,
  },
];

test('there are forty of them', () => assert.equal(TOLD.length, 40));

for (const { told, boxes, seed, said, truth, steps, opened, otherOrder: other, gfci } of oneIn(3, TOLD))
  test(told, () => {
    const ground = chainGround(boxes, 15, gfci ?? -1);
    const order = other ? otherOrder(ground, randomFrom(seed)) : undefined;
    const played = play(makeTruth(ground, truth, seed, order), { complaint: said });
    const way = `${played.mended.join()} after ${played.steps.map((s) => s.said).join('; ')}`;
    assert.ok(played.right, way);
    assert.ok(played.steps.length <= steps, `${played.steps.length} steps: ${way}`);
    assert.ok(played.boxes <= opened, `${played.boxes} boxes: ${way}`);
  });
