/**
 * What is on in the house while something is read, which nobody at the outlet knows: nothing, a little everywhere, and loads
 * here and there. A reading is judged under each, so that what is on elsewhere is part of what may be.
 */
import type { Run } from '#core/circuits/run.ts';
import type { House } from '#core/network/supply.ts';
import { randomFrom } from '#core/planner/search/random.ts';

export interface Scene {
  /** Share of the time. */
  share: number;
  /** Amperes by stop. */
  amps: ReadonlyMap<number, number>;
  house: House;
}

/** Clocks and chargers that stay plugged in, amperes. */
const IDLE = 0.15;
/** Largest load of one outlet, and share of the breaker that all take together. */
const HEAVY = 7;
const USED = 0.7;

const withOthers = (house: House, a: number, b: number, across = 0.3): House => ({
  ...house,
  panels: house.panels.map((p) => ({ ...p, others: { A: a, B: b, across }, presented: [] })),
});

function some(run: Run, seed: number, share: number): ReadonlyMap<number, number> {
  const random = randomFrom(seed);
  const amps = new Map<number, number>();
  let total = 0;
  run.stops.forEach((stop, i) => {
    if (stop.box.device.kind === 'switch') return;
    const takes = random() < share ? 0.4 + HEAVY * random() ** 2 : IDLE;
    if (total + takes > USED * run.circuit.breaker.rating) return;
    total += takes;
    amps.set(i, takes);
  });
  return amps;
}

/** Scenes of a circuit in its house; the first has nothing on at all. */
export function scenesOf(run: Run, house: House): Scene[] {
  const idle = new Map(
    run.stops.flatMap((s, i) => (s.box.device.kind === 'switch' ? [] : [[i, IDLE] as const])),
  );
  return [
    { share: 0.35, amps: new Map(), house: withOthers(house, 1, 1) },
    { share: 0.25, amps: idle, house: withOthers(house, 9, 2) },
    { share: 0.2, amps: some(run, 1, 0.35), house: withOthers(house, 3, 14) },
    { share: 0.2, amps: some(run, 5, 0.6), house: withOthers(house, 22, 8, 10) },
  ];
}
