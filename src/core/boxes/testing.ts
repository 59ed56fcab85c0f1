/** Every kind of box as a small circuit, with what its faces show; for tests of the wiring, the network and the steps. */
import { buildRun, type Run } from '#core/circuits/run.ts';
import { breakerOf, DEFAULT_SETTINGS } from '#core/job/document.ts';
import { chain, house, outlet, receptacle } from '#core/job/testing.ts';
import type { Box, Circuit, School, Stop } from '#core/job/schema.ts';

/**
 * `live`: 120 V to neutral and to ground. `dead`: nothing to either. `bare`: 120 V to neutral, a ground slot that goes
 * nowhere. `both`: two hots of 240 V between them. `three`: the same, with the frame on the neutral.
 */
type State = 'live' | 'dead' | 'bare' | 'both' | 'three';

export interface Kind {
  name: string;
  boxes: Box[];
  circuit?: Partial<Circuit>;
  stops?: Partial<Stop>[];
  others?: Circuit[];
  /** State of each face, `box` or `box face`, with the switches that are thrown; those not named are `live`. */
  faces: (thrown: ReadonlySet<string>) => Record<string, State>;
}

const box = (name: string, device: Partial<Box['device']> = {}, values: Partial<Box> = {}): Box =>
  outlet(name, 0, 20, { device: receptacle(device), ...values });
const light = (name: string, values: Partial<Box> = {}): Box => box(name, { kind: 'light' }, values);
const toggle = (
  name: string,
  controls: string[],
  device: Partial<Box['device']> = {},
  values: Partial<Box> = {},
): Box =>
  box(
    name,
    { kind: 'switch', ...device },
    { controls: controls.map((c) => `box-${c.toLowerCase()}`), ...values },
  );
const METAL = { found: { signs: [], boxMaterial: 'metal' as const, boxVolume: null, deviceAge: null } };
const TWO = (rating: number, neutral: boolean, values: Partial<Circuit> = {}): Partial<Circuit> => ({
  breaker: breakerOf(rating, 'none', 2),
  neutral,
  ...values,
});
/** The light is on while an even number of its switches is thrown from where it is on. */
const even =
  (...lights: string[]) =>
  (thrown: ReadonlySet<string>): Record<string, State> =>
    Object.fromEntries(lights.map((l) => [l, thrown.size % 2 === 0 ? 'live' : 'dead']));
const always =
  (faces: Record<string, State> = {}) =>
  () =>
    faces;
const after = (...from: (string | null)[]): Partial<Stop>[] =>
  from.map((f) => ({ from: f === null ? null : `box-${f.toLowerCase()}` }));

export const KINDS: readonly Kind[] = [
  { name: 'the end of a run', boxes: [box('A')], faces: always() },
  { name: 'three in a row', boxes: [box('A'), box('B'), box('C')], faces: always() },
  {
    name: 'a branch to two',
    boxes: [box('A'), box('B'), box('C')],
    stops: after(null, 'A', 'A'),
    faces: always(),
  },
  {
    name: 'a plain junction box, buried',
    boxes: [box('J', { kind: 'junction' }, { accessible: false }), box('B'), box('C')],
    stops: after(null, 'J', 'J'),
    faces: always(),
  },
  { name: 'a switch with its feed', boxes: [toggle('S', ['L']), light('L')], faces: even('L') },
  { name: 'a switch fed from its light', boxes: [light('L'), toggle('S', ['L'])], faces: even('L') },
  {
    name: 'an old two-wire loop',
    boxes: [
      light('L', { grounding: 'none', status: 'existing' }),
      toggle('S', ['L'], {}, { status: 'existing', grounding: 'none' }),
    ],
    circuit: { cable: 'old two-wire' },
    faces: (thrown) => ({ L: thrown.size > 0 ? 'dead' : 'bare' }),
  },
  {
    name: 'a switch whose light feeds a receptacle that stays hot',
    boxes: [toggle('S', ['L']), light('L'), box('R')],
    faces: (thrown) => ({ L: thrown.size > 0 ? 'dead' : 'live', R: 'live' }),
  },
  {
    name: 'two lights with a switch each, over one box',
    boxes: [toggle('S', ['L']), toggle('T', ['M']), light('L'), light('M')],
    stops: after(null, 'S', 'S', 'T'),
    faces: (thrown) => ({ L: thrown.has('S') ? 'dead' : 'live', M: thrown.has('T') ? 'dead' : 'live' }),
  },
  {
    name: 'three-way, switch switch light',
    boxes: [toggle('S', ['L']), toggle('T', ['L']), light('L')],
    faces: even('L'),
  },
  {
    name: 'three-way, switch light switch',
    boxes: [toggle('S', ['L']), light('L'), toggle('T', ['L'])],
    faces: even('L'),
  },
  {
    name: 'three-way, light switch switch',
    boxes: [light('L'), toggle('S', ['L']), toggle('T', ['L'])],
    faces: even('L'),
  },
  {
    name: 'three-way, fed at the light between its switches',
    boxes: [light('L'), toggle('S', ['L']), toggle('T', ['L'])],
    stops: after(null, 'L', 'L'),
    faces: even('L'),
  },
  {
    name: 'four-way between two three-way, light last',
    boxes: [toggle('S', ['L']), toggle('F', ['L']), toggle('T', ['L']), light('L')],
    faces: even('L'),
  },
  {
    name: 'four-way, light between the switches, two lights',
    boxes: [
      toggle('S', ['L', 'M']),
      toggle('F', ['L', 'M']),
      light('L'),
      light('M'),
      toggle('T', ['L', 'M']),
    ],
    stops: after(null, 'S', 'F', 'L', 'L'),
    faces: even('L', 'M'),
  },
  {
    name: 'four-way, light first',
    boxes: [light('L'), toggle('S', ['L']), toggle('F', ['L']), toggle('T', ['L'])],
    faces: even('L'),
  },
  {
    name: 'two four-ways',
    boxes: [toggle('S', ['L']), toggle('F', ['L']), toggle('G', ['L']), toggle('T', ['L']), light('L')],
    faces: even('L'),
  },
  { name: 'a dimmer', boxes: [toggle('S', ['L'], { build: 'dimmer' }), light('L')], faces: even('L') },
  {
    name: 'a three-way dimmer',
    boxes: [toggle('S', ['L'], { build: 'dimmer' }), toggle('T', ['L']), light('L')],
    faces: even('L'),
  },
  {
    name: 'a smart switch with a neutral',
    boxes: [toggle('S', ['L'], { build: 'smart' }), light('L')],
    faces: even('L'),
  },
  {
    name: 'a smart switch in a loop brings its neutral',
    boxes: [light('L'), toggle('S', ['L'], { build: 'smart' })],
    faces: even('L'),
  },
  {
    name: 'a smart switch without a neutral',
    boxes: [light('L'), toggle('S', ['L'], { build: 'smart-no-neutral' })],
    faces: even('L'),
  },
  {
    name: 'a half-hot fed at the switch',
    boxes: [toggle('S', ['R']), box('R', { switched: 'half' }), box('Q')],
    faces: (thrown) => ({ 'R bottom': thrown.size > 0 ? 'dead' : 'live' }),
  },
  {
    name: 'a half-hot fed at the receptacle',
    boxes: [box('R', { switched: 'half' }), toggle('S', ['R'])],
    faces: (thrown) => ({ 'R bottom': thrown.size > 0 ? 'dead' : 'live' }),
  },
  {
    name: 'a controlled receptacle, switched whole',
    boxes: [toggle('S', ['R']), box('R', { switched: 'whole', automatic: true, markedControlled: true })],
    faces: (thrown) => ({
      'R top': thrown.size > 0 ? 'dead' : 'live',
      'R bottom': thrown.size > 0 ? 'dead' : 'live',
    }),
  },
  {
    name: 'a GFCI with all that follows on LINE',
    boxes: [box('G', { kind: 'gfci' }), box('B')],
    stops: [{}, { side: 'line' }],
    faces: (thrown) => ({ G: thrown.has('G') ? 'dead' : 'live', B: 'live' }),
  },
  {
    name: 'a GFCI with what follows on LOAD',
    boxes: [box('G', { kind: 'gfci' }), box('B'), box('C')],
    faces: (thrown) => {
      const state = thrown.has('G') ? 'dead' : 'live';
      return { G: state, 'B top': state, 'B bottom': state, 'C top': state, 'C bottom': state };
    },
  },
  {
    name: 'a GFCI with one cable on LINE and two on LOAD',
    boxes: [box('G', { kind: 'gfci' }), box('B'), box('C'), box('D')],
    stops: [{}, { from: 'box-g', side: 'line' }, { from: 'box-g' }, { from: 'box-g' }],
    faces: (thrown) => {
      const state = thrown.has('G') ? 'dead' : 'live';
      return { G: state, 'C top': state, 'C bottom': state, 'D top': state, 'D bottom': state };
    },
  },
  {
    name: 'an AFCI outlet with what follows on LOAD',
    boxes: [box('G', { kind: 'outlet-afci' }), box('B')],
    faces: (thrown) => {
      const state = thrown.has('G') ? 'dead' : 'live';
      return { G: state, 'B top': state, 'B bottom': state };
    },
  },
  {
    name: 'a multiwire duplex split between two hots',
    boxes: [box('A', { tabs: 'hot-broken' }), box('B')],
    circuit: TWO(20, true),
    stops: [{ hot: 'both' }, { hot: 'red' }],
    faces: always(),
  },
  {
    name: 'a multiwire circuit passing through',
    boxes: [box('A'), box('B'), box('C')],
    circuit: TWO(20, true),
    stops: [{ hot: 'black' }, { hot: 'red' }, { hot: 'black' }],
    faces: always(),
  },
  {
    name: 'a combination 125/250 V duplex',
    boxes: [box('A', { volts: '125/250', rating: 20 })],
    circuit: TWO(20, true),
    faces: always({ 'A 250 V half': 'both' }),
  },
  {
    name: '30 A, four wires',
    boxes: [box('D', { kind: 'single', volts: '125/250', rating: 30 })],
    circuit: TWO(30, true, { gauge: '10' }),
    faces: always({ D: 'both' }),
  },
  {
    name: '50 A, four wires',
    boxes: [box('E', { kind: 'single', volts: '125/250', rating: 50 })],
    circuit: TWO(50, true, { gauge: '6' }),
    faces: always({ E: 'both' }),
  },
  {
    name: 'an old dryer on three wires',
    boxes: [
      box('D', { kind: 'single', volts: '125/250', rating: 30 }, { status: 'existing', grounding: 'none' }),
    ],
    circuit: TWO(30, true, { gauge: '10', cable: 'SE', status: 'existing' }),
    faces: always({ D: 'three' }),
  },
  {
    name: 'an old range, hardwired on three wires',
    boxes: [box('E', { kind: 'hardwired', volts: '125/250' }, { status: 'existing', grounding: 'none' })],
    circuit: TWO(50, true, { gauge: '6', cable: 'SE', status: 'existing' }),
    faces: always({ E: 'three' }),
  },
  {
    name: 'a water heater, its white marked',
    boxes: [box('W', { kind: 'hardwired', volts: '250' })],
    circuit: TWO(30, false, { gauge: '10' }),
    faces: always({ W: 'both' }),
  },
  {
    name: 'a baseboard with its thermostat',
    boxes: [toggle('T', ['H'], { volts: '250' }), box('H', { kind: 'hardwired', volts: '250' })],
    circuit: TWO(20, false),
    faces: (thrown) => ({ H: thrown.size > 0 ? 'dead' : 'both' }),
  },
  {
    name: 'a kiln',
    boxes: [box('K', { kind: 'single', volts: '250', rating: 50 })],
    circuit: TWO(60, false, { gauge: '6' }),
    faces: always({ K: 'both' }),
  },
  {
    name: 'a vehicle outlet with four wires',
    boxes: [box('V', { kind: 'single', volts: '125/250', rating: 50 }, { purpose: 'vehicle' })],
    circuit: TWO(50, true, { gauge: '6' }),
    faces: always({ V: 'both' }),
  },
  {
    name: 'a hardwired charger',
    boxes: [box('V', { kind: 'hardwired', volts: '250' }, { purpose: 'vehicle' })],
    circuit: TWO(60, false, { gauge: '6' }),
    faces: always({ V: 'both' }),
  },
  {
    name: 'a duplex with leads, something after it',
    boxes: [box('A', { build: 'lead-wired' }), box('B')],
    faces: always(),
  },
  {
    name: 'no ground, a GFCI first',
    boxes: [box('G', { kind: 'gfci' }, { grounding: 'none' }), box('B', {}, { grounding: 'none' })],
    circuit: { cable: 'old two-wire' },
    faces: (thrown) => {
      const state = thrown.has('G') ? 'dead' : 'bare';
      return { G: state, 'B top': state, 'B bottom': state };
    },
  },
  {
    name: 'new cable with a ground behind old cable without one',
    boxes: [box('A', {}, { grounding: 'none' }), box('B', {}, { grounding: 'none' })],
    circuit: { cable: 'old two-wire' },
    stops: [{}, { cable: 'NM-B' }],
    faces: always({ 'A top': 'bare', 'A bottom': 'bare', 'B top': 'bare', 'B bottom': 'bare' }),
  },
  { name: 'a metal box with a tail', boxes: [box('A', {}, METAL), box('B')], faces: always() },
  {
    name: 'a metal box grounded by its sheath',
    boxes: [box('A', {}, { ...METAL, status: 'existing' }), box('B', {}, { ...METAL, status: 'existing' })],
    circuit: { cable: 'old two-wire' },
    faces: always(),
  },
  {
    name: 'another circuit passing through the box',
    boxes: [box('A', {}, { through: ['circuit-2'] }), box('B')],
    others: [chain([], { id: 'circuit-2', space: 3 })],
    faces: always(),
  },
  {
    name: 'two circuits on one duplex, both tabs off',
    boxes: [box('A', { tabs: 'both-broken' }, { through: ['circuit-2'] })],
    others: [chain([], { id: 'circuit-2', space: 5 })],
    faces: always(),
  },
  {
    name: 'a raceway with single conductors, spliced and passing',
    boxes: [box('A', {}, { through: ['circuit-2'] }), toggle('S', ['L']), light('L')],
    circuit: { cable: 'raceway' },
    others: [chain([], { id: 'circuit-2', space: 3 })],
    faces: (thrown) => ({ L: thrown.size > 0 ? 'dead' : 'live' }),
  },
  {
    name: 'three-way in a raceway',
    boxes: [toggle('S', ['L']), toggle('T', ['L']), light('L')],
    circuit: { cable: 'raceway' },
    faces: even('L'),
  },
  {
    name: 'a fan from a fan-rated box',
    boxes: [toggle('S', ['F']), light('F', { purpose: 'ceiling-fan' })],
    faces: (thrown) => ({
      'F fan': thrown.size > 0 ? 'dead' : 'live',
      'F its light': thrown.size > 0 ? 'dead' : 'live',
    }),
  },
  {
    name: 'smoke alarms with their interconnect',
    boxes: [
      box('A', { kind: 'smoke-alarm' }),
      box('B', { kind: 'smoke-alarm' }),
      box('C', { kind: 'smoke-alarm' }),
    ],
    faces: always(),
  },
  {
    name: 'aluminum',
    boxes: [box('A'), box('B')],
    circuit: { material: 'aluminum', gauge: '12' },
    faces: always(),
  },
];

export const SCHOOLS: readonly School[] = (['pigtail', 'feed-through'] as const).flatMap((joining) =>
  (['tail', 'clip'] as const).map((bond) => ({
    ...DEFAULT_SETTINGS.school,
    joining,
    bond,
    connector: joining === 'pigtail' ? ('twist-on' as const) : ('lever' as const),
    landing: joining === 'pigtail' ? ('ground-neutral-hot' as const) : ('hot-neutral-ground' as const),
  })),
);

export function runOfKind({ boxes, circuit = {}, stops = [], others = [] }: Kind, school: School): Run {
  const plain = chain(boxes, circuit);
  const built = { ...plain, stops: plain.stops.map((s, i) => ({ ...s, ...stops[i] })) };
  const job = { settings: { ...DEFAULT_SETTINGS, school } };
  return buildRun(house({ boxes, circuits: [built, ...others], job }), built);
}
