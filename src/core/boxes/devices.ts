/**
 * Devices as tables: their terminals, what is joined inside them, and the contacts of their faces. One record a device; the
 * picture, the steps and the network know devices by these records alone.
 */
import type { Color, YokeKind } from '#core/job/schema.ts';

export interface Terminal {
  /** Unique on its device. */
  id: string;
  name: string;
  /** What it looks like: metal of the screw, or color of the lead. */
  finish: 'brass' | 'silver' | 'green' | 'dark' | Color;
  /** A screw holds one conductor under its head; a clamp plate one in each of its holes; a lead is joined in a splice. */
  held: 'screw' | 'clamp' | 'lead';
  /** Conductors that it takes; none for a lead, which is an end itself. */
  takes: number;
}

/** A way through the device from one node to another. Nodes are its terminals and what its record names inside. */
export interface Bridge {
  from: string;
  to: string;
  /**
   * `tab`: a break-off tab, one metal while it is kept. `contact`: opens when the device trips; current through it is
   * sensed. `face`: opens with the contacts where the device has not reset. A list: positions in which it is closed.
   */
  by: 'hot tab' | 'neutral tab' | 'contact' | 'face' | readonly number[];
  /** Ohms where it is open by its switch: what an electronic switch lets through. */
  leaks?: number;
}

/** What a plug, a lamp or a load finds; nodes of the device, null where there is no such contact. */
interface Face {
  name: string;
  hot: string | null;
  /** The other hot of a face that takes both. */
  hotB: string | null;
  neutral: string | null;
  ground: string | null;
}

export interface DeviceRecord {
  name: string;
  /** Gangs that its yoke is wide; 0 where it hangs outside the box by leads. */
  gangs: number;
  terminals: readonly Terminal[];
  bridges: readonly Bridge[];
  faces: readonly Face[];
  /** Names of its switch positions; the load is on with all switches of its group in their first. */
  positions: readonly string[];
  /** So deep that conductors need room behind it. */
  bulky: boolean;
}

const screw = (id: string, finish: Terminal['finish'], name: string = `${finish} screw`): Terminal => ({
  id,
  name,
  finish,
  held: 'screw',
  takes: 1,
});
const clamp = (id: string, finish: Terminal['finish'], name: string): Terminal => ({
  id,
  name,
  finish,
  held: 'clamp',
  takes: 2,
});
const lead = (id: string, finish: Color, name = `${finish} lead`): Terminal => ({
  id,
  name,
  finish,
  held: 'lead',
  takes: 0,
});
const GREEN = screw('green', 'green');
const GROUND_LEAD = lead('green', 'green', 'ground lead');

const record = (values: Partial<DeviceRecord> & Pick<DeviceRecord, 'name' | 'terminals'>): DeviceRecord => ({
  gangs: 1,
  bridges: [],
  faces: [],
  positions: [],
  bulky: false,
  ...values,
});
const face = (name: string, values: Partial<Face>): Face => ({
  name,
  hot: null,
  hotB: null,
  neutral: null,
  ground: null,
  ...values,
});

const DUPLEX_SCREWS = [
  screw('brass-1', 'brass', 'brass screw, top'),
  screw('brass-2', 'brass', 'brass screw, bottom'),
  screw('silver-1', 'silver', 'silver screw, top'),
  screw('silver-2', 'silver', 'silver screw, bottom'),
];
const TABS: Bridge[] = [
  { from: 'brass-1', to: 'brass-2', by: 'hot tab' },
  { from: 'silver-1', to: 'silver-2', by: 'neutral tab' },
];
const halves = (ground: string | null): Face[] => [
  face('top', { hot: 'brass-1', neutral: 'silver-1', ground }),
  face('bottom', { hot: 'brass-2', neutral: 'silver-2', ground }),
];

/** A receptacle that opens both of its conductors; its face hangs on the load side. */
const guarding = (name: string): DeviceRecord =>
  record({
    name,
    bulky: true,
    terminals: [
      clamp('line-hot', 'brass', 'LINE hot'),
      clamp('load-hot', 'brass', 'LOAD hot'),
      clamp('line-neutral', 'silver', 'LINE white'),
      clamp('load-neutral', 'silver', 'LOAD white'),
      GREEN,
    ],
    bridges: [
      { from: 'line-hot', to: 'load-hot', by: 'contact' },
      { from: 'line-neutral', to: 'load-neutral', by: 'contact' },
      { from: 'load-hot', to: 'face-hot', by: 'face' },
      { from: 'load-neutral', to: 'face-neutral', by: 'face' },
    ],
    faces: [face('face', { hot: 'face-hot', neutral: 'face-neutral', ground: 'green' })],
  });

const ON_OFF = ['on', 'off'] as const;
/** Ohms through a switch that feeds its electronics by the load while it is off: about half a milliampere. */
const OFF_LEAK = 240e3;

const singlePole = (
  name: string,
  terminals: Terminal[],
  values: { bulky?: boolean; leaks?: number } = {},
): DeviceRecord =>
  record({
    name,
    terminals,
    positions: ON_OFF,
    bulky: values.bulky ?? false,
    bridges: [{ from: 'line', to: 'load', by: [0], ...(values.leaks ? { leaks: values.leaks } : {}) }],
  });

const threeWay = (name: string, terminals: Terminal[], values: { bulky?: boolean; leaks?: number } = {}) =>
  record({
    name,
    terminals,
    bulky: values.bulky ?? false,
    positions: ['one way', 'the other way'],
    bridges: [
      { from: 'common', to: 'traveler-1', by: [0], ...(values.leaks ? { leaks: values.leaks } : {}) },
      { from: 'common', to: 'traveler-2', by: [1], ...(values.leaks ? { leaks: values.leaks } : {}) },
    ],
  });

const EQUIPMENT = { gangs: 0 } as const;

export const DEVICES: Readonly<Record<YokeKind, DeviceRecord>> = {
  duplex: record({
    name: 'duplex receptacle',
    terminals: [...DUPLEX_SCREWS, GREEN],
    bridges: TABS,
    faces: halves('green'),
  }),
  single: record({
    name: 'single receptacle',
    terminals: [screw('brass-1', 'brass'), screw('silver-1', 'silver'), GREEN],
    faces: [face('face', { hot: 'brass-1', neutral: 'silver-1', ground: 'green' })],
  }),
  'two-slot': record({
    name: 'two-slot receptacle',
    terminals: DUPLEX_SCREWS,
    bridges: TABS,
    faces: halves(null),
  }),
  gfci: guarding('GFCI receptacle'),
  'outlet-afci': guarding('AFCI receptacle'),
  'lead-wired duplex': record({
    name: 'duplex with leads',
    bulky: true,
    terminals: [lead('black', 'black'), lead('white', 'white'), GROUND_LEAD],
    faces: ['top', 'bottom'].map((name) => face(name, { hot: 'black', neutral: 'white', ground: 'green' })),
  }),
  '250 V receptacle': record({
    name: '250 V receptacle',
    terminals: [screw('x', 'brass', 'brass screw X'), screw('y', 'brass', 'brass screw Y'), GREEN],
    faces: [face('face', { hot: 'x', hotB: 'y', ground: 'green' })],
  }),
  'four-wire receptacle': record({
    name: '125/250 V, four wires',
    gangs: 2,
    bulky: true,
    terminals: [
      screw('x', 'brass', 'brass screw X'),
      screw('y', 'brass', 'brass screw Y'),
      screw('w', 'silver', 'silver screw W'),
      GREEN,
    ],
    faces: [face('face', { hot: 'x', hotB: 'y', neutral: 'w', ground: 'green' })],
  }),
  // The frame of what is plugged in is joined to its neutral: its ground is the neutral screw.
  'three-wire receptacle': record({
    name: '125/250 V, three wires',
    gangs: 2,
    bulky: true,
    terminals: [
      screw('x', 'brass', 'brass screw X'),
      screw('y', 'brass', 'brass screw Y'),
      screw('w', 'silver', 'silver screw W'),
    ],
    faces: [face('face', { hot: 'x', hotB: 'y', neutral: 'w', ground: 'w' })],
  }),
  'combination duplex': record({
    name: 'combination duplex',
    terminals: [
      screw('linked-1', 'brass', 'linked brass, 125 V'),
      screw('linked-2', 'brass', 'linked brass, 250 V'),
      screw('y', 'brass', 'single brass, 250 V'),
      screw('silver', 'silver'),
      GREEN,
    ],
    bridges: [{ from: 'linked-1', to: 'linked-2', by: 'hot tab' }],
    faces: [
      face('125 V half', { hot: 'linked-1', neutral: 'silver', ground: 'green' }),
      face('250 V half', { hot: 'linked-2', hotB: 'y', ground: 'green' }),
    ],
  }),
  'single-pole': singlePole('single-pole switch', [
    screw('line', 'brass', 'brass screw, feed'),
    screw('load', 'brass', 'brass screw, switched'),
    GREEN,
  ]),
  'three-way': threeWay('three-way switch', [
    screw('common', 'dark', 'dark screw (common)'),
    screw('traveler-1', 'brass', 'brass screw 1, traveler'),
    screw('traveler-2', 'brass', 'brass screw 2, traveler'),
    GREEN,
  ]),
  'four-way': record({
    name: 'four-way switch',
    terminals: [
      screw('in-1', 'dark', 'dark screw 1, in'),
      screw('in-2', 'dark', 'dark screw 2, in'),
      screw('out-1', 'brass', 'brass screw 1, out'),
      screw('out-2', 'brass', 'brass screw 2, out'),
      GREEN,
    ],
    positions: ['straight', 'crossed'],
    bridges: [
      { from: 'in-1', to: 'out-1', by: [0] },
      { from: 'in-2', to: 'out-2', by: [0] },
      { from: 'in-1', to: 'out-2', by: [1] },
      { from: 'in-2', to: 'out-1', by: [1] },
    ],
  }),
  'double-pole': record({
    name: 'double-pole',
    bulky: true,
    terminals: [
      screw('line', 'brass', 'LINE screw L1'),
      screw('line-b', 'brass', 'LINE screw L2'),
      screw('load', 'brass', 'LOAD screw T1'),
      screw('load-b', 'brass', 'LOAD screw T2'),
      GREEN,
    ],
    positions: ON_OFF,
    bridges: [
      { from: 'line', to: 'load', by: [0] },
      { from: 'line-b', to: 'load-b', by: [0] },
    ],
  }),
  dimmer: singlePole(
    'dimmer',
    [lead('line', 'black', 'black lead, feed'), lead('load', 'red', 'red lead, switched'), GROUND_LEAD],
    { bulky: true, leaks: OFF_LEAK },
  ),
  'three-way dimmer': threeWay(
    'three-way dimmer',
    [
      lead('common', 'black', 'black lead (common)'),
      lead('traveler-1', 'red', 'red lead 1, traveler'),
      lead('traveler-2', 'red', 'red lead 2, traveler'),
      GROUND_LEAD,
    ],
    { bulky: true, leaks: OFF_LEAK },
  ),
  'smart switch': singlePole(
    'smart switch',
    [
      lead('line', 'black', 'black lead, feed'),
      lead('load', 'red', 'red lead, switched'),
      lead('white', 'white', 'white lead'),
      GROUND_LEAD,
    ],
    { bulky: true },
  ),
  'smart switch, no neutral': singlePole(
    'smart, no neutral',
    [lead('line', 'black', 'black lead, feed'), lead('load', 'red', 'red lead, switched'), GROUND_LEAD],
    { bulky: true, leaks: OFF_LEAK },
  ),
  light: record({
    ...EQUIPMENT,
    name: 'luminaire',
    terminals: [lead('black', 'black'), lead('white', 'white'), GROUND_LEAD],
    faces: [face('lamp', { hot: 'black', neutral: 'white', ground: 'green' })],
  }),
  fan: record({
    ...EQUIPMENT,
    name: 'fan with a light',
    terminals: [
      lead('black', 'black', 'black lead, fan'),
      lead('blue', 'blue', 'blue lead, its light'),
      lead('white', 'white'),
      GROUND_LEAD,
    ],
    faces: [
      face('fan', { hot: 'black', neutral: 'white', ground: 'green' }),
      face('its light', { hot: 'blue', neutral: 'white', ground: 'green' }),
    ],
  }),
  'smoke alarm': record({
    ...EQUIPMENT,
    name: 'smoke alarm',
    terminals: [
      lead('black', 'black', 'black lead'),
      lead('white', 'white', 'white lead'),
      lead('interconnect', 'orange', 'interconnect lead'),
    ],
    faces: [face('alarm', { hot: 'black', neutral: 'white' })],
  }),
  equipment: record({
    ...EQUIPMENT,
    name: 'equipment on 120 V',
    terminals: [lead('black', 'black'), lead('white', 'white'), GROUND_LEAD],
    faces: [face('equipment', { hot: 'black', neutral: 'white', ground: 'green' })],
  }),
  '240 V equipment': record({
    ...EQUIPMENT,
    name: 'equipment on 240 V',
    terminals: [screw('l1', 'brass', 'terminal L1'), screw('l2', 'brass', 'terminal L2'), GREEN],
    faces: [face('equipment', { hot: 'l1', hotB: 'l2', ground: 'green' })],
  }),
  '125/250 V equipment': record({
    ...EQUIPMENT,
    name: 'equipment, four wires',
    terminals: [
      screw('l1', 'brass', 'terminal L1'),
      screw('l2', 'brass', 'terminal L2'),
      screw('n', 'silver', 'terminal N'),
      GREEN,
    ],
    faces: [face('equipment', { hot: 'l1', hotB: 'l2', neutral: 'n', ground: 'green' })],
  }),
  '125/250 V equipment, three wires': record({
    ...EQUIPMENT,
    name: 'equipment, three wires',
    terminals: [
      screw('l1', 'brass', 'terminal L1'),
      screw('l2', 'brass', 'terminal L2'),
      screw('n', 'silver', 'terminal N'),
    ],
    faces: [face('equipment', { hot: 'l1', hotB: 'l2', neutral: 'n', ground: 'n' })],
  }),
};
