/**
 * Proofs of dead against the network of the circuit: an honest person with a random tester walks through the acts at a
 * random box of a random circuit, with poles that are not what they are said to be, open grounds and neutrals, and a
 * neutral that another circuit uses. No proof passes while anything in the box is live, and none leaves a joint that
 * raises an end once it is parted.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { BOX } from '#core/boxes/wiring.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { currentIn, magnitude, resistor, solved } from '#core/network/read.ts';
import { HIGH_OHMS, LOW_OHMS, readVolts } from '#core/instruments/meter.ts';
import { breakerOf } from '#core/job/document.ts';
import type { Circuit, Instrument, JobDocument } from '#core/job/schema.ts';
import { chain, house, outlet } from '#core/job/testing.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { EARTH, MAINS_HERTZ, type Branch } from '#core/network/network.ts';
import {
  PERSON_OHMS,
  spotKey,
  wiringOf,
  type Conductor,
  type Part,
  type Wiring,
} from '#core/network/wiring.ts';
import { pointsIn, type Point } from './points.ts';
import type { Draft, Seen } from './acts.ts';
import { whyNotParted } from './neutrals.ts';
import { draftFor, recorded, walk, withProof, type Reader } from './testing.ts';

interface House {
  boxes: number;
  at: number;
  poles: 1 | 2;
  neutral: boolean;
  splice: 'pigtail' | 'feed-through';
  isNew: boolean;
  /** Poles that are really off. */
  off: { black: boolean; red: boolean };
  opens: { stop: number; conductor: 'neutral' | 'ground' | 'black'; part: 'start' | 'end' | 'terminal' }[];
  /** Ohms of load at each box at 120 V; 0 for nothing plugged in. */
  loads: number[];
  /** A load of another circuit that returns by this circuit’s neutral, at a box. */
  borrowed: { stop: number; ohms: number; leg: 'black' | 'red' } | null;
  tester: Instrument;
  lead: boolean;
}

const HOUSE: fc.Arbitrary<House> = fc
  .record({
    boxes: fc.integer({ min: 1, max: 3 }),
    poles: fc.constantFrom<1 | 2>(1, 2),
    neutral: fc.boolean(),
    splice: fc.constantFrom('pigtail', 'feed-through'),
    isNew: fc.boolean(),
    off: fc.record({ black: fc.boolean(), red: fc.boolean() }),
    at: fc.nat(2),
    opens: fc.array(
      fc.record({
        stop: fc.nat(2),
        conductor: fc.constantFrom('neutral', 'ground', 'black'),
        part: fc.constantFrom('start', 'end', 'terminal'),
      }),
      { maxLength: 2 },
    ),
    loads: fc.array(fc.constantFrom(0, 0, 12, 100, 1500), { minLength: 3, maxLength: 3 }),
    borrowed: fc.option(
      fc.record({
        stop: fc.nat(2),
        ohms: fc.constantFrom(12, 240, 2400),
        leg: fc.constantFrom<'black' | 'red'>('black', 'red'),
      }),
    ),
    tester: fc.constantFrom<Instrument>('two-pole tester', 'low-impedance meter', 'high-impedance meter'),
    lead: fc.boolean(),
  })
  .map((h) => ({
    ...h,
    // Every other case is of poles that are off: else hardly a proof gets far.
    off: h.isNew ? { black: true, red: true } : h.off,
    at: h.at % h.boxes,
    neutral: h.poles === 1 || h.neutral,
    opens: h.opens.map((o) => ({ ...o, stop: o.stop % h.boxes })),
    borrowed: h.isNew || h.borrowed === null ? null : { ...h.borrowed, stop: h.borrowed.stop % h.boxes },
  })) as fc.Arbitrary<House>;

function documentOf(h: House): JobDocument {
  const boxes = Array.from({ length: h.boxes }, (_, i) =>
    outlet(`R${i + 1}`, 1, 20 + 40 * i, { status: h.isNew ? 'new' : 'existing' }),
  );
  const plain = chain(boxes, {
    status: h.isNew ? 'new' : 'existing',
    breaker: breakerOf(20, 'none', h.poles),
    neutral: h.neutral,
  });
  const circuit: Circuit = { ...plain, stops: plain.stops.map((s) => ({ ...s, splice: h.splice })) };
  return house({ boxes, circuits: [circuit], job: { otherSources: { asked: true, kinds: [] } } });
}

const branchAt = (wiring: Wiring, stop: number, conductor: Conductor, part: Part): Branch | undefined => {
  const spot = wiring.spotAt.get(spotKey({ stop, conductor, part }));
  return spot && wiring.branches[spot.branch];
};

/** The house with its breaker on, or as it really is once the person has switched it off. */
function networkOf(h: House, line: Run, on: boolean): Wiring {
  const amps = new Map(h.loads.slice(0, h.boxes).flatMap((ohms, i) => (ohms > 0 ? [[i, 120 / ohms]] : [])));
  const wiring = wiringOf(line, { amps: amps as Map<number, number>, open: new Set() });
  const dead = (['black', 'red'] as const).filter((p) => !on && h.off[p] && (p === 'black' || h.poles === 2));
  const faults: Fault[] = [
    ...dead.map((conductor): Fault => ({ kind: 'open', stop: -1, conductor, part: 'contact' })),
    ...h.opens
      .filter((o, i) => branchAt(wiring, o.stop, o.conductor, o.part) && same(h, o) === i)
      .map((o): Fault => ({ kind: 'open', ...o })),
  ];
  const faulty = withFaults(wiring, faults);
  if (!h.borrowed) return faulty;
  const to = branchAt(wiring, h.borrowed.stop, 'neutral', 'end')?.to;
  if (to === undefined) return faulty;
  const load = resistor(wiring.panel.bus[h.borrowed.leg], to, h.borrowed.ohms);
  return { ...faulty, branches: [...faulty.branches, load] };
}
const same = (h: House, o: House['opens'][number]) =>
  h.opens.findIndex((p) => p.stop === o.stop && p.conductor === o.conductor && p.part === o.part);

/** Where a probe touches for a point: the splice, or the end of one conductor. */
function nodeOf(h: House, wiring: Wiring, points: readonly Point[], key: string): number {
  return wiring.inBox[h.at]!.get(points.find((p) => p.key === key)!.at!)!;
}

const INPUT: Partial<Record<Instrument, number>> = {
  'two-pole tester': 7000,
  'low-impedance meter': LOW_OHMS,
  'high-impedance meter': HIGH_OHMS,
};
const shown = (volts: number) => Math.round(volts * 10) / 10;

/** Joints of a box: where each conductor of each cable is held, and the device’s screws. */
const jointsOf = (h: House, wiring: Wiring) =>
  wiring.spots.filter(
    (s) =>
      (s.stop === h.at && (s.part === 'end' || s.part === 'terminal')) ||
      (s.stop === h.at + 1 && s.part === 'start'),
  );

/** Volts that a body, hand to foot, takes at a node. */
const onBody = (wiring: Wiring, node: number) => readVolts(wiring, node, EARTH, PERSON_OHMS);

function proofAt(h: House) {
  const document = documentOf(h);
  const line = buildRun(document, document.circuits['circuit-1']!);
  const [before, after] = [networkOf(h, line, true), networkOf(h, line, false)];
  const box = line.stops[h.at]!.box;
  const lead = before.panel.ground;
  const draft: Draft = draftFor(document, box, {
    reference: h.lead ? 'lead' : 'ground',
    referenceName: h.lead ? 'lead from the panel’s ground' : '',
    others: 'none',
  });
  const points = pointsIn(document, box);
  const ground = points.find((p) => p.role === 'ground')!;
  const probe = (wiring: Wiring, node: string): number => {
    if (node === 'reference') return h.lead ? lead : nodeOf(h, wiring, points, ground.key);
    if (node === 'live') return branchAt(wiring, h.at, 'black', 'terminal')!.from;
    const { hot, neutral, ground: slot, red } = wiring.terminals[h.at]!;
    // The yoke hangs on the ground screw; both halves of a duplex hang on the same screws.
    if (node === BOX) return slot;
    if (node.startsWith('face.'))
      return { hot, neutral, ground: slot, 'other hot': red ?? hot }[node.split('.').at(-1)!]!;
    if (node.startsWith('other.')) return Number(node.slice(6));
    return nodeOf(h, wiring, points, node);
  };
  const read: Reader = ({ kind, reads }) => {
    if (kind === 'source') return { value: 120, instrument: h.tester };
    // What shows the reference is read with a tester that loads it.
    if (kind === 'live') {
      const [a, b] = [probe(before, 'live'), probe(before, 'reference')];
      return { value: shown(readVolts(before, a, b, LOW_OHMS)), instrument: 'low-impedance meter' };
    }
    const volts = readVolts(after, probe(after, reads.node), probe(after, reads.to), INPUT[h.tester]);
    return { value: shown(volts), instrument: h.tester };
  };
  const seen = walk(document, box, draft, read);
  // A joint that is open in this box is a loose end: the pull test finds it, and both sides are read.
  const loose = jointsOf(h, after).filter(({ branch }) => after.branches[branch]!.conductance < 1);
  const others = loose.flatMap(({ branch }) => {
    const { from, to } = after.branches[branch]!;
    return [from, to].map((node): Seen => {
      const volts = readVolts(after, node, probe(after, 'reference'), INPUT[h.tester]);
      return {
        node: `other.${node}`,
        nodeName: 'loose end',
        to: 'reference',
        toName: '',
        quantity: 'volts',
        value: shown(volts),
        instrument: h.tester,
        on: [],
        off: draft.lockedOut,
      };
    });
  });
  const last = seen.pop()!;
  const clamps = points.filter((p) => p.role === 'neutral').map((p) => clampOn(h, after, p));
  const whole = { ...draft, others: others.length > 0 ? ('read' as const) : ('none' as const) };
  const made = recorded(document, box, whole, [...seen, ...others, ...clamps, last]);
  return { document, after, points, made };
}

/** The clamp goes around each white that meets there; the largest is written down. */
function clampOn(h: House, wiring: Wiring, point: Point): Seen {
  const voltages = solved(wiring);
  const amps = wiring.spots
    .filter(
      (s) => s.conductor === 'neutral' && s.part === 'cable' && (s.stop === h.at || s.stop === h.at + 1),
    )
    .map((s) => magnitude(currentIn(wiring, voltages, s.branch, MAINS_HERTZ)));
  return {
    node: point.key,
    nodeName: point.name,
    to: null,
    toName: '',
    quantity: 'amps',
    value: Math.round(100 * Math.max(0, ...amps)) / 100,
    instrument: 'clamp meter',
    on: ['panel-1'],
    off: [],
  };
}

test('no proof passes while anything in the box is live, and no joint raises an end once it is parted', () => {
  let passed = 0;
  let refused = 0;
  fc.assert(
    fc.property(HOUSE, (h) => {
      const { document, after, points, made } = proofAt(h);
      if (made.gaps.length > 0) {
        refused++;
        return;
      }
      passed++;
      const joints = jointsOf(h, after);
      const nodes = new Set(
        joints.flatMap(({ branch }) => [after.branches[branch]!.from, after.branches[branch]!.to]),
      );
      for (const node of nodes) {
        const volts = onBody(after, node);
        // 5 mA through a body of 1 kΩ.
        assert.ok(volts < 5, `${after.nodes[node]} at ${volts} V: ${JSON.stringify(h)}`);
      }
      const withIt = withProof(document, made);
      const neutral = points.find((p) => p.role === 'neutral');
      const mayPart = !neutral || whyNotParted(withIt, made.proof, neutral) === null;
      for (const joint of joints) {
        if (joint.conductor === 'neutral' && !mayPart) continue;
        const parted = {
          ...after,
          branches: after.branches.map((b, i) => (i === joint.branch ? { ...b, conductance: 1e-14 } : b)),
        };
        const { from, to } = after.branches[joint.branch]!;
        for (const node of [from, to]) {
          const volts = onBody(parted, node);
          assert.ok(volts < 30, `${after.nodes[node]} at ${volts} V once parted: ${JSON.stringify(h)}`);
        }
      }
    }),
    { numRuns: 1000, seed: 7 },
  );
  assert.ok(passed > 100 && refused > 100, `${passed} passed, ${refused} refused`);
});

test('every box of a sound circuit that is really off is proved', () => {
  fc.assert(
    fc.property(HOUSE, (h) => {
      const sound = { ...h, opens: [], borrowed: null, off: { black: true, red: true } };
      assert.deepEqual(proofAt(sound).made.gaps, [], JSON.stringify(sound));
    }),
    { numRuns: 300, seed: 7 },
  );
});
