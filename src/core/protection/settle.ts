/**
 * A network with its protection at work: what would open opens, the network is solved again, and so on until nothing moves.
 * Breakers and joints are first-order thermal models, so that between two openings all currents stand still and each has
 * a time of its own to open at; the earliest goes first. Every device opens once; a joint that opens when warm and closes
 * when cool may go on for ever, and is stopped by the time that is asked for.
 *
 * Not simulated: the waveform of an arc. An arc-fault device opens by its button, or by current where it is a breaker.
 */
import { breakerModel, type BreakerModel, type Edge } from '#core/circuits/tripCurve.ts';
import { MAINS_HERTZ, OPEN_OHMS, type Branch, type Voltages } from '#core/network/network.ts';
import { currentIn, impedanceBetween, magnitude } from '#core/network/read.ts';
import { eliminationOf, Factors, type Elimination } from '#core/network/solve.ts';
import type { Spot, Wiring } from '#core/network/wiring.ts';
import {
  CLASS_A,
  classATime,
  contactSides,
  differenceIn,
  findsGroundedNeutral,
  isFedOnLoad,
  WORKS_AT,
} from './sensors.ts';

type Guard = Wiring['guards'][number];

/** A joint that opens when it is warm enough and closes when it has cooled. */
interface WarmJoint {
  branch: number;
  /** Steady heat in it that just opens it, watts. */
  watts: number;
  /** Time constant, seconds. */
  tau: number;
}

export interface Asked {
  /** How long it is left on, seconds. */
  seconds: number;
  /** Devices at the quick or the slow edge of what they are made for. */
  edge: Edge;
  warm?: readonly WarmJoint[];
  /** Breakers that are worn or stand in the heat: share of its current that each still holds, by stop. */
  holds?: ReadonlyMap<number, number>;
}

type Why =
  | 'difference'
  | 'grounded neutral'
  | 'fed on LOAD'
  | 'short'
  | 'overcurrent'
  | 'warm joint opens'
  | 'warm joint closes';

export interface Opening {
  /** Seconds after power came on. */
  at: number;
  why: Why;
  /** Position of the stop of a device; −1 − k for the breaker of the k-th circuit; null for a joint. */
  stop: number | null;
  /** The pole that opens alone, else null. */
  pole: 'black' | 'red' | null;
  /** Joint that opens or closes. */
  branch: number | null;
  /** What did it, amperes. */
  amps: number;
}

export interface Settled {
  openings: Opening[];
  /** The network as it is left. */
  wiring: Wiring;
  voltages: Voltages;
  /** It would go on opening and closing. */
  cycles: boolean;
}

/** Quickest time of a class A device, seconds. */
const QUICKEST = 0.025;
/** A grounded neutral is found within this, seconds. */
const FOUND_WITHIN = 0.1;
/** A joint closes when it has cooled to this share of the heat that opened it. */
const CLOSES_AT = 0.6;
const MOST_OPENINGS = 400;
/** Below this share of its volts electronics stop. */
const DROPS_OUT = 0.5;
const POWER_ROUNDS = 60;
/** What the electronics of a device draw themselves: some five milliamperes. */
const ELECTRONICS_OHMS = 24e3;

/** What warms toward a limit: θ′ = (a − θ)/τ, and does something at θ = 1. */
class Warming {
  theta = 0;
  /** Where it is heading. */
  toward = 0;
  readonly tau: number;
  constructor(tau: number) {
    this.tau = tau;
  }
  /** Seconds until it reaches a level; Infinity where it never does. */
  until(level: number): number {
    const { theta, toward, tau } = this;
    if (level >= theta ? toward <= level : toward >= level) return level === theta ? 0 : Infinity;
    return tau * Math.log((toward - theta) / (toward - level));
  }
  pass(seconds: number): void {
    this.theta = this.toward + (this.theta - this.toward) * Math.exp(-seconds / this.tau);
  }
}

interface Pole {
  guard: Guard;
  spot: Spot;
  model: BreakerModel;
  heat: Warming;
}

interface Joint {
  asked: WarmJoint;
  conductance: number;
  open: boolean;
  heat: Warming;
}

/** Runs a network for a while with all that would open by itself. */
export function settle(sound: Wiring, { seconds, edge, warm = [], holds }: Asked): Settled {
  const branches: Branch[] = [...sound.branches];
  const wiring: Wiring = { ...sound, branches };
  const structure = eliminationOf(wiring);
  const closed = new Set(sound.guards);
  const poles = sound.guards.flatMap((guard): Pole[] =>
    guard.rating === null
      ? []
      : guard.contacts.map((spot) => {
          const model = breakerModel(guard.rating!, edge);
          const share = holds?.get(guard.stop) ?? 1;
          return {
            guard,
            spot,
            model: { ...model, holds: model.holds * share },
            heat: new Warming(model.tau),
          };
        }),
  );
  const joints = warm.map((asked): Joint => ({
    asked,
    conductance: branches[asked.branch]!.conductance,
    open: false,
    heat: new Warming(asked.tau),
  }));
  const openings: Opening[] = [];
  const conduct = (branch: number, conductance: number): void => {
    branches[branch] = { ...branches[branch]!, conductance };
  };
  const part = (branch: number): void => conduct(branch, 1 / OPEN_OHMS);
  const openGuard = (guard: Guard): void => {
    closed.delete(guard);
    for (const { branch } of guard.contacts) part(branch);
    if (!guard.old) guard.faces.forEach(part);
  };
  let now = 0;
  const note = (why: Why, values: Partial<Opening>): void => {
    openings.push({ at: now, why, stop: null, pole: null, branch: null, amps: 0, ...values });
  };

  // Fed on its load terminals a device since 2006 does not close; what hangs on it is dead for the next one.
  for (let again = true; again;) {
    again = false;
    for (const guard of closed) {
      if (guard.rating !== null || guard.old || !isFedOnLoad(wiring, guard.contacts, structure)) continue;
      openGuard(guard);
      note('fed on LOAD', { stop: guard.stop });
      again = true;
    }
  }

  for (;;) {
    const { voltages, factors } = solveLoads(wiring, branches, structure);
    const next: { in: number; act: () => void }[] = [];
    for (const guard of closed) {
      if (!guard.groundFault || !hasPower(wiring, voltages, factors, guard)) continue;
      const amps = differenceIn(wiring, voltages, guard.senses);
      const trips = edge === 'quick' ? amps > CLASS_A.holds : amps >= CLASS_A.trips;
      if (trips)
        next.push({
          in: edge === 'quick' ? QUICKEST : classATime(amps),
          act: () => {
            openGuard(guard);
            note('difference', { stop: guard.stop, amps });
          },
        });
      if (findsGroundedNeutral(wiring, guard.senses, structure))
        next.push({
          in: FOUND_WITHIN,
          act: () => {
            openGuard(guard);
            note('grounded neutral', { stop: guard.stop, amps });
          },
        });
    }
    for (const { guard, spot, model, heat } of poles) {
      const amps = magnitude(currentIn(wiring, voltages, spot.branch, MAINS_HERTZ));
      const multiple = amps / guard.rating!;
      heat.toward = (multiple / model.holds) ** 2;
      if (!closed.has(guard) || branches[spot.branch]!.conductance * OPEN_OHMS <= 1.5) continue;
      const magnetic = multiple >= model.magnet;
      const wait = magnetic ? model.instant : Math.max(model.instant, heat.until(1));
      if (wait < Infinity)
        next.push({
          in: wait,
          act: () => {
            const pole = spot.conductor === 'red' ? 'red' : 'black';
            const alone = guard.contacts.length > 1 && !guard.together;
            if (alone) part(spot.branch);
            else openGuard(guard);
            note(magnetic ? 'short' : 'overcurrent', {
              stop: guard.stop,
              pole: alone ? pole : null,
              amps,
            });
          },
        });
    }
    for (const joint of joints) {
      const { asked, heat } = joint;
      const amps = magnitude(currentIn(wiring, voltages, asked.branch, MAINS_HERTZ));
      heat.toward = joint.open ? 0 : amps ** 2 / joint.conductance / asked.watts;
      const wait = heat.until(joint.open ? CLOSES_AT : 1);
      if (wait < Infinity)
        next.push({
          in: wait,
          act: () => {
            joint.open = !joint.open;
            conduct(asked.branch, joint.open ? 1 / OPEN_OHMS : joint.conductance);
            heat.theta = joint.open ? 1 : CLOSES_AT;
            note(joint.open ? 'warm joint opens' : 'warm joint closes', { branch: asked.branch, amps });
          },
        });
    }
    const first = next.reduce<(typeof next)[number] | null>(
      (least, n) => (least && least.in <= n.in ? least : n),
      null,
    );
    const most = openings.length >= MOST_OPENINGS;
    if (!first || now + first.in > seconds || most) {
      const cycles = most || openings.some((o) => o.why === 'warm joint closes');
      return { openings, wiring, voltages, cycles };
    }
    now += first.in;
    for (const { heat } of [...poles, ...joints]) heat.pass(first.in);
    first.act();
  }
}

/** Whether the electronics of a device have what they need; a breaker has it from its bus. */
function hasPower(wiring: Wiring, voltages: Voltages, factors: Factors, guard: Guard): boolean {
  if (guard.rating !== null) return true;
  const sides = contactSides(wiring, guard.contacts);
  if (!sides) return false;
  const { hotLine, neutralLine } = sides;
  const open = voltages.between(hotLine, neutralLine);
  if (open < WORKS_AT) return false;
  // A ghost falls with what the electronics draw: it stands behind the impedance of what feeds it.
  const { re, im } = impedanceBetween(factors, wiring.nodes.length, hotLine, neutralLine);
  return open / Math.hypot(1 + re / ELECTRONICS_OHMS, im / ELECTRONICS_OHMS) >= WORKS_AT;
}

/** Voltages with constant-power loads at the current that they then take. */
function solveLoads(
  wiring: Wiring,
  branches: Branch[],
  structure: Elimination,
): { voltages: Voltages; factors: Factors } {
  const loads = wiring.loads.filter((l) => l.constantPower);
  const stopped = new Set<number>();
  let factors = new Factors(wiring, MAINS_HERTZ, structure);
  let voltages = factors.voltages();
  for (let round = 0; loads.length > 0 && round < POWER_ROUNDS; round++) {
    let moved = 0;
    for (const { branch, power, volts } of loads) {
      const { from, to, conductance } = branches[branch]!;
      const there = voltages.between(from, to);
      // What has stopped for want of volts does not start again on what comes back without it.
      if (there < DROPS_OUT * volts) stopped.add(branch);
      const wanted = stopped.has(branch) ? 1 / OPEN_OHMS : power / there ** 2;
      // Half of the way each time: a weak source would swing.
      const taken = (conductance + wanted) / 2;
      moved = Math.max(moved, Math.abs(taken - conductance) / taken);
      branches[branch] = { ...branches[branch]!, conductance: taken };
    }
    factors = new Factors(wiring, MAINS_HERTZ, structure);
    voltages = factors.voltages();
    if (moved < 1e-9) break;
  }
  return { voltages, factors };
}
