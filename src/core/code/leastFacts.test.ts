/**
 * A false “in order” is worse than “not judged”: with a rule's least facts missing it says that they are, by name, or
 * says nothing; it never approves.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { breakerOf } from '#core/job/document.ts';
import { chain, fixture, house, outlet, PANEL, receptacle as device, room } from '#core/job/testing.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { check } from './checker.ts';
import { ALL_RULES } from './rules/index.ts';

type House = NonNullable<Parameters<typeof house>[0]>;
/** A situation with the facts missing, and the words that name them; null where the rule has nothing to speak of. */
type Missing = readonly [situation: House, named: RegExp | null, editions?: readonly Edition[]];

const bare = (values = {}) => outlet('A', 1, 60, values);
const onCircuit = (boxes = [bare()], values = {}): House => ({ boxes, circuits: [chain(boxes, values)] });
const light = outlet('Z', 1, 60, {
  device: device({ kind: 'light', tamperResistant: false }),
  mount: 'ceiling',
  fromWall: 40,
  height: 96,
});
const unwalled = room([], [], { kind: 'kitchen', name: 'Kitchen' });
const heater = fixture('water-heater', 2, 60, 24, { connection: 'hardwired', status: 'new' });
const served = outlet('H', 2, 60, {
  device: device({ kind: 'hardwired', tamperResistant: false }),
  serves: heater.id,
});
const empty: House = { area: unwalled };

/** No rule is left out: what it needs least is taken away here, or there is nothing optional about it. */
const MISSING: Record<string, Missing> = {
  // Without walls nothing of a room can be measured.
  'room-outline': [{ area: room([100, 100]) }, /needs three/],
  'rooms-overlap': [empty, null],
  'wall-spacing': [empty, null],
  'counter-spacing': [empty, null],
  'hallway-receptacle': [{ area: room([], [], { kind: 'hallway' }) }, null],
  'foyer-receptacles': [{ area: room([], [], { kind: 'foyer' }) }, null],
  'every-wall': [empty, null],
  'garage-receptacles': [
    {
      area: room([288, 264, 288, 264], undefined, {
        kind: 'garage',
        conditions: { ...room([1, 1, 1, 1]).conditions, bays: 2 },
      }),
      boxes: [outlet('A', 4, 40, { height: 44 }), outlet('B', 4, 200, { height: 44 })],
    },
    /draw the vehicle doors/,
  ],
  'lighting-outlet': [{}, null],
  'luminaire-place': [{ kind: 'closet', boxes: [light] }, /kind of luminaire.* not on record/],
  'box-fill': [
    onCircuit([bare({ enclosure: { volume: 20, clamps: 'no' }, through: ['circuit-1'] })]),
    /not judged/,
  ],
  'fan-box': [{ boxes: [{ ...light, purpose: 'ceiling-fan' }] }, /not on record/],
  'aluminum-device': [onCircuit([bare()], { material: 'aluminum', gauge: '10' }), /not on record/],
  'switch-neutral': [
    onCircuit([
      light,
      outlet('Y', 2, 20, {
        device: device({ kind: 'switch', tamperResistant: false }),
        controls: [light.id],
      }),
    ]),
    /not on record/,
  ],
  'switch-rating': [
    {
      fixtures: [heater],
      ...onCircuit([
        outlet('Y', 2, 20, {
          device: device({ kind: 'switch', tamperResistant: false }),
          controls: [served.id],
        }),
        served,
      ]),
    },
    /no nameplate/,
  ],
  'no-equipment-ground': [onCircuit([bare({ grounding: 'unknown' })]), /not recorded/],
  // From 2023 every receptacle of a kitchen is asked for, whatever it serves.
  gfci: [{ kind: 'kitchen', ...onCircuit([bare({ height: 60 })]) }, /not on record/, ['2017', '2020']],
  'outdoor-outlets': [
    {
      kind: 'outdoors',
      fixtures: [fixture('heat-pump', 2, 60, 24, { connection: 'hardwired' })],
      ...onCircuit([{ ...served, serves: 'fixture-heat-pump-2-60' }], {
        breaker: breakerOf(30, 'none', 2),
        gauge: '10',
      }),
    },
    /permit is not on record/,
    ['2017', '2023'],
  ],
  'service-load': [{ fixtures: [heater], ...onCircuit([served]) }, /nameplate is not on record/],
  'breaker-listed': [onCircuit(), /not on record|not known|whether/],
  'equipment-disconnect': [{ fixtures: [heater] }, /nobody has looked/],
  'labels-stuck': [
    onCircuit([bare({ grounding: 'none', status: 'replace', device: device({ kind: 'gfci' }) })], {
      status: 'existing',
    }),
    /nobody has looked/,
  ],
  'cable-route': [onCircuit([bare()], { route: 'buried', cable: 'UF-B' }), /not measured/],
  'ground-size': [onCircuit(), null],
  'service-conductor': [{}, null],
  electrodes: [{}, null],
  'doubled-lugs': [{}, null],
  surge: [{ panels: [{ ...PANEL, status: 'new' }] }, /not on record/],
  'outdoor-disconnect': [{ panels: [{ ...PANEL, status: 'new' }] }, /not on record/],
  'panel-place': [{}, /not measured/],
  alarms: [{}, /ask the inspector/],
};

for (const [id, [situation, named, editions = EDITIONS]] of Object.entries(MISSING))
  for (const edition of editions)
    test(`${id}, ${edition}: nothing is approved without its facts`, () => {
      const found = check(house({ ...situation, edition })).filter((f) => f.rule === id);
      assert.ok(
        found.every((f) => f.level !== 'satisfied'),
        found.map((f) => f.message).join('; '),
      );
      if (found.length > 0 && named !== null)
        assert.ok(
          found.some((f) => named.test(f.message)),
          found.map((f) => f.message).join('; '),
        );
      if (named === null) assert.deepEqual(found, []);
    });

/** Facts that the schema always holds: what these rules judge cannot be missing. */
const ALWAYS_THERE: readonly string[] = [
  'outdoor-receptacles',
  'required-circuits',
  'laundry-receptacle',
  'outbuilding-receptacle',
  'basement-receptacle',
  'deck-receptacle',
  'fixture-in-room',
  'island-receptacles',
  'bathroom-basin',
  'equipment-receptacle',
  'appliance-receptacle',
  'at-television',
  'small-load-on-240',
  'equipment-out-of-scope',
  'gfci-accessible',
  'tamper-resistant',
  'weather-resistant',
  'weather-cover',
  'controlled-marking',
  'three-wire-appliance',
  'tub-zone',
  'face-up',
  'not-counted',
  'on-a-circuit',
  'receptacle-voltage',
  'half-switched-tab',
  'receptacle-rating',
  'small-conductor',
  'circuit-load',
  'fixed-equipment-share',
  'cord-share',
  'vehicle-circuit',
  'designated-circuits',
  'afci',
  'extension-ground',
  'opposite-legs',
  'simultaneous-disconnect',
  'shared-neutral-protection',
  'neutral-through-device',
  'split-receptacle',
  'white-as-hot',
  'voltage-drop',
  'shop-limit',
  'standard-rating',
  'luminaire-voltage',
  'hood-circuit',
  'panel-spaces',
  'panel-rating',
  'panel-bonding',
  'panel-openings',
  'directory',
  'feeder',
  'service-out-of-scope',
];

test('each rule is in one of the two lists', () => {
  const listed = [...Object.keys(MISSING), ...ALWAYS_THERE];
  assert.deepEqual(
    ALL_RULES.map((r) => r.id).filter((id) => !listed.includes(id)),
    [],
  );
  assert.equal(new Set(listed).size, listed.length);
});
