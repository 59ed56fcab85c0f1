/** Rules about circuits, devices and outlines: situations worked from the code's sections, edition by edition. */
import { breakerOf } from '#core/job/document.ts';
import { chain, house, opening, outlet, receptacle as device, room } from '#core/job/testing.ts';
import type { Box, Circuit } from '#core/job/schema.ts';
import { asCase, S, V, type Answer, type Answers, type RuleCase } from './ruleCase.ts';

type House = Parameters<typeof house>[0];
export const one = (values: Partial<Box> = {}, circuit: Partial<Circuit> = {}): NonNullable<House> => {
  const box = outlet('A', 1, 60, values);
  return { boxes: [box], circuits: [chain([box], circuit)] };
};
const breaker = (
  rating: Circuit['breaker']['rating'],
  protection: Circuit['breaker']['protection'] = 'none',
) => ({ breaker: breakerOf(rating, protection) });
const old = { status: 'existing' } as const;

const TABLE: [string, string, House, Answer | Answers, RegExp?][] = [
  ['room-outline', 'a room that closes', {}, S],
  ['room-outline', 'a room 4 in. short', { area: room([144, 120, 140, 120]) }, 'unknown', /4" west/],
  [
    'room-outline',
    'a room that crosses itself',
    { area: room([100, 100, 50, 200, 50, 100], [90, 90, 90, 90, 90, 90]) },
    'unknown',
    /cross/,
  ],
  ['room-outline', 'two walls', { area: room([100, 100]) }, 'unknown', /needs three/],

  ['wall-spacing', 'an empty bedroom', {}, V, /44' of wall out of reach/],
  ['wall-spacing', 'an empty hallway', { kind: 'hallway' }, null],
  ['wall-spacing', 'a room that does not close is not judged', { area: room([144, 120, 100, 120]) }, null],
  [
    'wall-spacing',
    'a wall 23 in. wide needs none',
    { area: room([23, 100, 23, 100]), openings: [opening(2, 0, 100), opening(3, 0, 23), opening(4, 0, 100)] },
    S,
  ],
  [
    'wall-spacing',
    'a wall 24 in. wide needs one',
    { area: room([24, 100, 24, 100]), openings: [opening(2, 0, 100), opening(3, 0, 24), opening(4, 0, 100)] },
    V,
    /2' of wall/,
  ],

  ['receptacle-rating', '15 A duplex on 20 A', one({ device: device({ rating: 15 }) }), S],
  [
    'receptacle-rating',
    '20 A duplex on 15 A',
    one({}, { ...breaker(15), gauge: '14' }),
    V,
    /20 A on a 15 A circuit; allowed: 15 A/,
  ],
  [
    'receptacle-rating',
    '20 A receptacle tapped from 30 A',
    one({}, { ...breaker(30), gauge: '10' }),
    V,
    /allowed: 30 A/,
  ],
  [
    'receptacle-rating',
    'a single 15 A receptacle alone on 20 A',
    one({ device: device({ kind: 'single', rating: 15 }) }),
    V,
    /210\.21\(B\)\(1\)|single 15 A/,
  ],
  [
    'receptacle-rating',
    'a single 20 A receptacle alone on 20 A',
    one({ device: device({ kind: 'single' }) }),
    S,
  ],
  [
    'receptacle-rating',
    '50 A receptacle on 40 A',
    one({ device: device({ rating: 50 }) }, { ...breaker(40), gauge: '8' }),
    S,
  ],
  [
    'receptacle-rating',
    'any receptacle on 10 A',
    one({ device: device({ rating: 15 }) }, breaker(10)),
    V,
    /no receptacle belongs/,
  ],

  [
    'small-conductor',
    '14 AWG on 15 A',
    one({ device: device({ rating: 15 }) }, { ...breaker(15), gauge: '14' }),
    S,
  ],
  [
    'small-conductor',
    '14 AWG on 20 A',
    one({}, { ...breaker(20), gauge: '14' }),
    V,
    /20 A breaker on 14 AWG copper; at most 15 A/,
  ],
  [
    'small-conductor',
    '12 AWG aluminum on 20 A',
    one({}, { ...breaker(20), material: 'aluminum' }),
    V,
    /at most 15 A/,
  ],
  [
    'small-conductor',
    '10 AWG on 30 A',
    one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }),
    S,
  ],
  [
    'small-conductor',
    '6 AWG cable on 60 A',
    one({ device: device({ rating: 50 }) }, { ...breaker(60), gauge: '6' }),
    V,
    /at most 55 A/,
  ],

  ['voltage-drop', 'a short run', one(), S],
  [
    'voltage-drop',
    'a long measured run',
    (() => {
      const h = one();
      h.circuits![0]!.stops[0]!.measured = 1200;
      return h;
    })(),
    'recommended',
    /5\.1 % at A with 16 A/,
  ],

  ['gfci', 'a bedroom', one(), null],
  ['gfci', 'a bathroom', { ...one(), kind: 'bathroom' }, V, /every receptacle in a bathroom/],
  [
    'gfci',
    'a bathroom behind a GFCI breaker',
    { ...one({}, breaker(20, 'gfci')), kind: 'bathroom' },
    S,
    /provided by breaker/,
  ],
  [
    'gfci',
    'a bathroom with its own device',
    { ...one({ device: device({ kind: 'gfci' }) }), kind: 'bathroom' },
    S,
    /its own GFCI/,
  ],
  [
    'gfci',
    'a finished basement',
    { ...one(), kind: 'basement-finished' },
    [null, V, V],
    /210\.8|finished basement/,
  ],
  ['gfci', 'an unfinished basement in 2017', { ...one(), kind: 'basement-unfinished' }, V],
  ['gfci', 'a kitchen wall receptacle', { ...one(), kind: 'kitchen' }, [null, null, V]],
  ['gfci', 'a kitchen counter receptacle', { ...one({ height: 44 }), kind: 'kitchen' }, V, /counter|kitchen/],
  ['gfci', '6 ft from a sink', one({ waterDistance: 72 }), V, /6' from a sink, tub or shower as measured/],
  ['gfci', '6 ft 1 in. from a sink', one({ waterDistance: 73 }), null],
  [
    'gfci',
    'a 30 A laundry receptacle',
    { ...one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }), kind: 'laundry' },
    [null, V, V],
  ],
  [
    'gfci',
    'a damp den',
    { ...one(), area: room([144, 120, 144, 120], undefined, { kind: 'den', location: 'damp' }) },
    [null, V, V],
    /damp/,
  ],
  [
    'gfci',
    'an existing bathroom receptacle left alone',
    { ...one(old), kind: 'bathroom' },
    'note',
    /existing and not altered/,
  ],
  ['gfci', 'a replaced bathroom receptacle', { ...one({ status: 'replace' }), kind: 'bathroom' }, V],

  ['afci', 'a bedroom on a plain breaker', one({}, breaker(20)), V, /AFCI at the breaker: it supplies Room/],
  ['afci', 'a bedroom on an AFCI breaker', one({}, breaker(20, 'afci')), S],
  ['afci', 'a bedroom on a dual-function breaker', one({}, breaker(20, 'dual')), S],
  ['afci', 'a bathroom', { ...one({}, breaker(20)), kind: 'bathroom' }, null],
  [
    'afci',
    'a 30 A circuit in a laundry',
    { ...one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }), kind: 'laundry' },
    null,
  ],
  [
    'afci',
    'an existing circuit left alone',
    one(old, { ...breaker(15), status: 'existing', gauge: '14' }),
    'note',
  ],
  [
    'afci',
    'a replaced receptacle on an existing circuit',
    one({ status: 'replace' }, { ...breaker(15), status: 'existing', gauge: '14' }),
    V,
  ],

  ['tamper-resistant', 'a plain receptacle', one({ device: device({ tamperResistant: false }) }), V],
  ['tamper-resistant', 'a tamper-resistant one', one(), S],
  [
    'tamper-resistant',
    'above 5 ft 6 in.',
    one({ height: 67, device: device({ tamperResistant: false }) }),
    null,
  ],
  [
    'tamper-resistant',
    'a two-slot replacement',
    one({ status: 'replace', device: device({ kind: 'two-slot', tamperResistant: false }) }),
    null,
  ],
  [
    'tamper-resistant',
    'an old one left alone',
    one({ ...old, device: device({ tamperResistant: false }) }),
    'note',
  ],

  ['weather-resistant', 'indoors', one(), null],
  ['weather-resistant', 'outdoors', { ...one(), kind: 'outdoors' }, V, /damp location/],
  [
    'weather-resistant',
    'a wet place with the right device',
    {
      ...one({ device: device({ weatherResistant: true }) }),
      area: room([99, 99, 99, 99], undefined, { kind: 'outdoors', location: 'wet' }),
    },
    S,
    /while in use/,
  ],

  ['no-equipment-ground', 'a grounded box', one(), null],
  ['no-equipment-ground', 'not recorded', one({ grounding: 'unknown' }), 'unknown'],
  ['no-equipment-ground', 'three slots, no ground, no GFCI', one({ ...old, grounding: 'none' }), V],
  [
    'no-equipment-ground',
    'two slots',
    one({ ...old, grounding: 'none', device: device({ kind: 'two-slot' }) }),
    S,
  ],
  [
    'no-equipment-ground',
    'behind a GFCI breaker',
    one({ ...old, grounding: 'none' }, breaker(20, 'gfci')),
    S,
    /breaker, with its labels/,
  ],

  ['on-a-circuit', 'no circuit', { boxes: [outlet('A', 1, 60)] }, 'unknown'],
  ['on-a-circuit', 'on a circuit', one(), null],
  ['shop-limit', 'one on a circuit', one(), null],
  [
    'shop-limit',
    'eleven on one circuit',
    (() => {
      const boxes = Array.from({ length: 11 }, (_, i) => outlet(`R${i}`, 1, 5 + i * 10));
      return { boxes, circuits: [chain(boxes)] };
    })(),
    'recommended',
    /habit is 10/,
  ],
];

export const CIRCUIT_CASES: RuleCase[] = TABLE.map(([rule, what, parts, answers, words]) =>
  asCase(rule, what, (edition) => house({ ...parts, edition }), answers, words),
);
