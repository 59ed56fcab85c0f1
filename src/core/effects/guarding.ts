/** What ground-fault and arc-fault devices protect as they are wired, beside what they are meant to. */
import { plannedBoxes } from '#core/boxes/planned.ts';
import type { Run } from '#core/circuits/run.ts';
import { solved } from '#core/network/read.ts';
import { LOW_OHMS } from '#core/instruments/meter.ts';
import { breakerLoad } from '#core/instruments/protection.ts';
import { difference, groundedNeutralTrips, isReversed } from '#core/protection/sensors.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import type { Probe } from '#core/network/predict.ts';
import { wiringOf, type Wiring } from '#core/network/wiring.ts';
import { isOutlet } from '#core/plan/wallSpaces.ts';
import type { Findings } from './findings.ts';
import { isDead, isLive, readAll } from './shown.ts';

/** Amperes at each outlet for what shows under load alone. */
export const TEST_AMPS = 1;

/** Outlets that a device of the circuit is meant to protect, and does not. */
export function protection(run: Run, boxes: readonly BoxWiring[], findings: Findings): void {
  const none = new Set<number>();
  run.stops.forEach(({ box }, device) => {
    if (box.device.kind !== 'gfci' && box.device.kind !== 'outlet-afci') return;
    const what = box.device.kind === 'gfci' ? 'GFCI' : 'AFCI device';
    const closed = wiringOf(run, { amps: new Map(), open: none }, boxes);
    if (isReversed(closed, device)) {
      findings.add(
        'reset',
        'wrong',
        [box.name, ''],
        (who) =>
          `${who}: its feed is on LOAD. One made since 2006 does not reset and its face is dead; an older one feeds its face unprotected.`,
      );
      return;
    }
    const behind = guardedBy(run, boxes, device);
    const meant = guardedBy(run, plannedBoxes(run), device);
    const at = (stop: number) => [run.stops[stop]!.box.name, ''] as const;
    for (const stop of meant)
      if (!behind.has(stop))
        findings.add(
          `unguarded ${device}`,
          'danger',
          at(stop),
          (who, many) =>
            `${who} ${many ? 'are' : 'is'} no longer protected by the ${what} at ${box.name}: fed from its LINE side, or past it.`,
        );
    for (const stop of behind)
      if (!meant.has(stop))
        findings.add(
          `guarded ${device}`,
          'wrong',
          at(stop),
          (who, many) =>
            `${who} ${many ? 'go' : 'goes'} dead with the ${what} at ${box.name}, which the plan does not have.`,
        );
    if (box.device.kind !== 'gfci') return;
    const sensor = { at: 'box', stop: device } as const;
    if (groundedNeutralTrips(closed, sensor))
      findings.add(
        `joined ${device}`,
        'wrong',
        [box.name, ''],
        (who) => `The GFCI at ${who} trips and does not hold: neutral and ground are joined behind it.`,
      );
    else {
      const loaded = wiringOf(run, { amps: loadsOf(run), open: none }, boxes);
      if (breakerHolds(run, loaded) && difference(loaded, solved(loaded), sensor) >= CLASS_A_TRIPS)
        findings.add(
          `unequal ${device}`,
          'wrong',
          [box.name, ''],
          (who) =>
            `The GFCI at ${who} trips as soon as something behind it draws current: what goes out by it does not come back by it.`,
        );
    }
  });
}

/** Class A devices open from here on, amperes; UL 943. */
const CLASS_A_TRIPS = 0.006;

/** One ampere at every outlet. */
export const loadsOf = (run: Run): Map<number, number> =>
  new Map(run.stops.flatMap(({ box }, k) => (isOutlet(box) ? [[k, TEST_AMPS] as const] : [])));

export const breakerHolds = (run: Run, wiring: Wiring): boolean =>
  breakerLoad(wiring, run.circuit.breaker.rating).amps < 2 * run.circuit.breaker.rating;

/**
 * Stops whose outlets go dead when a protecting device opens: what is fed through its contacts.
 * @param device position of its box in the run's stops
 */
export function guardedBy(run: Run, boxes: readonly BoxWiring[], device: number): Set<number> {
  const read = (open: ReadonlySet<number>) => {
    const wiring = wiringOf(run, { amps: new Map(), open }, boxes);
    // Reversed, it is the other contact that is live.
    const hots = wiring.terminals.map(({ hot, faces }) => [
      ...faces.flatMap((f) => [
        ...(f.hot === null ? [] : [f.hot]),
        ...(f.neutral === null ? [] : [f.neutral]),
      ]),
      hot,
    ]);
    const probes = hots.flat().map((a): Probe => ({ a, b: wiring.panel.neutral, ohms: LOW_OHMS }));
    const volts = readAll(wiring, probes);
    let next = 0;
    return hots.map((list) => {
      const at = list.map(() => volts[next++]!);
      return { live: at.some(isLive), allDead: at.every(isDead) };
    });
  };
  const closed = read(new Set());
  const open = read(new Set([device]));
  return new Set(run.stops.flatMap((_, k) => (closed[k]!.live && open[k]!.allDead ? [k] : [])));
}
