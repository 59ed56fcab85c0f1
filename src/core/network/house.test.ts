/** Houses of several circuits: against ngspice, and folded against whole. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { randomFrom } from '#core/planner/search/random.ts';
import { withFaults, type Fault } from './faults.ts';
import { MAINS_HERTZ } from './network.ts';
import { presentedBy } from './present.ts';
import { Factors } from './solve.ts';
import { parts, randomFault, randomHouse, spice } from './testing.ts';
import { houseWiring, type HouseStudy, type Wiring } from './wiring.ts';

/** Faults of the house and between its circuits. */
const HOUSE_FAULTS: readonly Fault[] = [
  { kind: 'service-neutral', ohms: null },
  { kind: 'service-neutral', ohms: 0.5 },
  { kind: 'service-leg', leg: 'own' },
  { kind: 'service-leg', leg: 'other' },
  { kind: 'feeder-neutral', panel: 'Shed', ohms: null },
  { kind: 'feeder-neutral', panel: 'Shed', ohms: 2 },
  { kind: 'feeder-leg', panel: 'Shed', leg: 'own', ohms: null },
  { kind: 'no-bond' },
  { kind: 'second-bond', panel: 'Shed' },
  { kind: 'lifted-neutral', circuit: 1 },
  { kind: 'wrong-bar', circuit: 1, conductor: 'neutral' },
  { kind: 'crossed-breakers', circuits: [0, 1] },
];
const HANGS: readonly Fault['kind'][] = [
  'service-neutral',
  'service-leg',
  'feeder-neutral',
  'feeder-leg',
  'no-bond',
  'lifted-neutral',
  'wrong-bar',
  'borrowed-neutral',
];

/** None, one or two faults, of a box or of the house. */
function faultsIn(wiring: Wiring, seed: number): Fault[] {
  const random = randomFrom(seed);
  const between = (): Fault => {
    const first = wiring.circuits[1]!.first;
    return random() < 0.5
      ? {
          kind: 'tied',
          stop: 0,
          conductor: 'black',
          other: first,
          otherConductor: random() < 0.5 ? 'black' : 'neutral',
          ohms: 0.05 + 40 * random(),
        }
      : { kind: 'borrowed-neutral', stop: 0, other: first };
  };
  const one = (): Fault => {
    const kind = random();
    if (kind < 0.45) return HOUSE_FAULTS[Math.floor(random() * HOUSE_FAULTS.length)]!;
    return kind < 0.7 ? between() : randomFault(wiring, random, true);
  };
  return Array.from({ length: seed % 3 }, one);
}

test('houses of 3 to 12 circuits with a subpanel agree with ngspice, sound and with one or two faults', () => {
  const cases = Array.from({ length: 30 }, (_, k) => {
    const { house, studies } = randomHouse(3 + (k % 10), 4000 + 31 * k);
    const sound = houseWiring(house, studies, MAINS_HERTZ);
    const faults = faultsIn(sound, k);
    const opens = faults.some((f) => parts(f) || HANGS.includes(f.kind));
    return { wiring: withFaults(sound, faults), opens, faults };
  });
  const expected = spice(cases.map((c) => c.wiring));
  for (const [k, { wiring, opens, faults }] of cases.entries()) {
    const voltages = new Factors(wiring, MAINS_HERTZ).voltages();
    const said = faults.map((f) => f.kind).join(' and ');
    for (const [node, there] of expected[k]!.entries()) {
      const here = voltages.at(node);
      const apart = Math.hypot(here.re - there.re, here.im - there.im);
      assert.ok(
        apart < (opens ? 1e-3 : 1e-9 * 120),
        `house ${k}, ${said}, ${wiring.nodes[node]}: ${apart} V apart`,
      );
    }
  }
});

test('a circuit with the others folded reads as in the house laid out whole', () => {
  for (let k = 0; k < 8; k++) {
    const { house, studies } = randomHouse(4 + k, 7000 + 17 * k);
    const whole = new Factors(houseWiring(house, studies, MAINS_HERTZ), MAINS_HERTZ).voltages();
    const at = houseWiring(house, studies, MAINS_HERTZ).circuits[0]!;
    const [own, ...others] = studies as [HouseStudy, ...HouseStudy[]];
    const folded = {
      ...house,
      panels: house.panels.map((panel) => ({
        ...panel,
        presented: others
          .filter((s) => s.panel === panel.name)
          .map((s) => presentedBy(s, s.leg, MAINS_HERTZ)),
      })),
    };
    const small = houseWiring(folded, [own], MAINS_HERTZ);
    const voltages = new Factors(small, MAINS_HERTZ).voltages();
    const { terminals } = houseWiring(house, studies, MAINS_HERTZ);
    for (let stop = 0; stop < at.stops; stop++) {
      const [a, b] = [terminals[stop]!, small.terminals[stop]!];
      for (const slot of ['hot', 'neutral', 'ground'] as const) {
        const [x, y] = [whole.at(a[slot]), voltages.at(b[slot])];
        assert.ok(
          Math.hypot(x.re - y.re, x.im - y.im) < 1e-7,
          `house ${k}, stop ${stop}, ${slot}: ${x.re} and ${y.re}`,
        );
      }
    }
  }
  const { house, studies } = randomHouse(2, 1);
  const tone = presentedBy(studies[1]!, 'A', 1000);
  const mixed = { ...house, panels: house.panels.map((p) => ({ ...p, presented: [tone] })) };
  assert.throws(
    () => houseWiring(mixed, [studies[0]!], MAINS_HERTZ),
    /Folded at 1000 Hz and solved at 60 Hz/,
  );
});
