/**
 * How likely each finding is under each cause. Poor joints are carried with all ohms that they may have, each cell of a scale
 * with its width, so that several readings agree on one figure.
 */
import { isAt, type Cause } from './causes.ts';
import { insulationDensity, normal, ohmsDensity, SLIPS, slipDensity, SOURCE, UTILITY } from './densities.ts';
import {
  ampsShare,
  breakerShare,
  buttonShare,
  clearedShare,
  countedShare,
  elsewhereShare,
  liveShare,
  openedShare,
  overloadShare,
  stateShare,
} from './devices.ts';
import { PAIRS, type Finding } from './evidence.ts';
import { FIELD, joint, WIDTH } from './fields.ts';
import type { CauseKind } from './kinds.ts';
import { LEGS, type Predictions } from './predictions.ts';
import { isElectrical, rowOf, shareOf, type Electrical, type Row } from './slots.ts';
import { Topology } from './topology.ts';
import { traitsOf, type Traits } from './traits.ts';

/** Cells of a poor joint’s ohms, evenly by their logarithm, all alike at first. */
const CELLS = 18;
const LEAST = 0.15;
const STEP = 1.42;
export const JOINT_CELLS: readonly number[] = Array.from({ length: CELLS }, (_, k) => LEAST * STEP ** k);

const WEAR: ReadonlySet<CauseKind> = new Set([
  ...(['open-hot', 'open-neutral', 'open-ground', 'poor-hot', 'poor-neutral', 'poor-ground'] as const),
  ...(['dead-device', 'weak-breaker', 'poor-breaker', 'service-neutral', 'leak'] as const),
]);
const HEATS: ReadonlySet<CauseKind> = new Set(['poor-hot', 'poor-neutral', 'open-hot', 'open-neutral']);

const HIGHS = PAIRS.map((_, k) => FIELD.high + k);
const LOWS = PAIRS.map((_, k) => FIELD.low + k);
const IMPEDANCES = PAIRS.map((_, k) => FIELD.ohms + k);
/** What a finding is compared with. */
function fieldsOf(finding: Finding): readonly number[] {
  switch (finding.kind) {
    case 'volts':
    case 'lamps':
      return [...HIGHS, ...LOWS, ...IMPEDANCES, FIELD.reference];
    case 'works':
      return [FIELD.loaded];
    default:
      return [FIELD.body];
  }
}

const rows = Array.from({ length: 5 }, () => new Float64Array(WIDTH));
const [BASE, OWN, PARTED, CELL, NEXT] = rows as [Row, Row, Row, Row, Row];
const SPREAD: Row = new Float64Array(WIDTH);
/** Amperes on one leg more than on the other that nobody knows, and volts that a parted supply may be anywhere off. */
const UNKNOWN_AMPS = 6;
const ANYWHERE = 26;
/** What a cause before the panel lets the volts of a leg wander by, one standard deviation. @param ohms null for what is parted */
const wandersBy = ({ supply }: Traits, ohms: number | null): number =>
  !supply ? 0 : ohms === null ? ANYWHERE : Math.min(ANYWHERE, UNKNOWN_AMPS * ohms);

/** What is read of the dead circuit. */
export type Dead = Extract<Finding, { kind: 'ohms' | 'insulation' }>;
export const isDead = (finding: Finding): finding is Dead =>
  finding.kind === 'ohms' || finding.kind === 'insulation';
/** How likely it is where so many ohms are. */
export const deadDensity = (finding: Dead, told: number): number =>
  finding.kind === 'ohms' ? ohmsDensity(finding.ohms, told) : insulationDensity(1e6 * finding.megohms, told);

export class Likelihood {
  private readonly predictions: Predictions;
  readonly topology: Topology;
  private readonly guessed: boolean;

  constructor(predictions: Predictions) {
    this.predictions = predictions;
    this.topology = new Topology(predictions.ground.run);
    this.guessed = predictions.ground.guessed ?? false;
  }

  /** Cells of a cause: one, or all that a poor joint may have. */
  cells(cause: Cause): number {
    return cause.parted === null ? 1 : CELLS;
  }

  /** How likely a finding is under a cause, one figure for each of its cells. */
  of(finding: Finding, c: number): number[] {
    const { predictions } = this;
    const cause = predictions.causes[c]!;
    const cells = this.cells(cause);
    if (isElectrical(finding)) {
      if (cells > 1) return this.overCells(finding, cause, c);
      return [
        this.electrical(
          finding,
          predictions.volts,
          predictions.rowAt(c, finding.stop),
          traitsOf(cause.kind),
          c,
        ),
      ];
    }
    if (isDead(finding)) return this.dead(finding, c, cells);
    if (finding.kind === 'legs') return this.legs(finding, c, cells);
    const share = this.told(finding, cause, c);
    return Array.from({ length: cells }, () => share);
  }

  /** A poor joint, for all ohms that it may have: from sound, one ohm, and parted. */
  private overCells(finding: Electrical, { kind, parted }: Cause, c: number): number[] {
    const { predictions } = this;
    const { stop } = finding;
    const traits = traitsOf(kind);
    const total = new Array<number>(CELLS).fill(0);
    const fields = fieldsOf(finding);
    const sound = predictions.rowAt(0, stop);
    for (let scene = 0; scene < predictions.scenes.length; scene++) {
      const table = predictions.volts[scene]!;
      const { share } = predictions.scenes[scene]!;
      const off = predictions.isOff(c, stop, scene > 0);
      rowOf(finding, table, sound, off, BASE);
      rowOf(finding, table, predictions.rowAt(c, stop), off, OWN);
      rowOf(finding, table, predictions.rowAt(parted!, stop), off, PARTED);
      for (const f of fields) NEXT[f] = joint(BASE[f]!, OWN[f]!, PARTED[f]!, LEAST);
      for (let k = 0; k < CELLS; k++) {
        const ohms = LEAST * STEP ** (k + 1);
        for (const f of fields) {
          CELL[f] = NEXT[f]!;
          NEXT[f] = joint(BASE[f]!, OWN[f]!, PARTED[f]!, ohms);
          // A cell is as wide as a step of the scale.
          SPREAD[f] = Math.abs(NEXT[f] - CELL[f]) / 3.5;
        }
        const wanders = wandersBy(traits, JOINT_CELLS[k]!);
        total[k]! += share * shareOf(finding, CELL, SPREAD, table, sound, traits, wanders, this.guessed);
      }
    }
    return total;
  }

  /**
   * @param tables volts by scene, with all that is the matter
   * @param at where the row of the outlet begins in each of them
   * @param c the cause whose devices open
   * @param open whether the breaker is, where more than that cause is the matter
   */
  electrical(
    finding: Electrical,
    tables: readonly Row[],
    at: number,
    traits: Traits,
    c: number,
    open?: boolean,
  ): number {
    const { predictions } = this;
    const sound = predictions.rowAt(0, finding.stop);
    const wanders = wandersBy(traits, null);
    let total = 0;
    for (let scene = 0; scene < predictions.scenes.length; scene++) {
      const off = predictions.isOff(c, finding.stop, scene > 0, open);
      rowOf(finding, tables[scene]!, at, off, CELL);
      const share = shareOf(
        finding,
        CELL,
        null,
        predictions.volts[scene]!,
        sound,
        traits,
        wanders,
        this.guessed,
      );
      total += predictions.scenes[scene]!.share * share;
    }
    return total;
  }

  private dead(finding: Dead, c: number, cells: number): number[] {
    const { predictions } = this;
    const told = (of: number) => predictions.ohms[predictions.ohmsAt(of, finding.stop, finding.pair)]!;
    const own = told(c);
    if (cells === 1) return [deadDensity(finding, own)];
    const base = told(0);
    return JOINT_CELLS.map((x) => deadDensity(finding, base + Math.max(0, own - base) * x));
  }

  /** What is not volts: seen, heard, told, or done by a device. */
  private told(finding: Finding, cause: Cause, c: number): number {
    const { predictions, topology } = this;
    const { kind, place } = cause;
    const opens = predictions.opens[c]!;
    switch (finding.kind) {
      case 'breaker':
        return breakerShare(finding, cause, opens, predictions.ground.run.circuit.breaker.rating);
      case 'state':
        return stateShare(finding, cause, opens);
      case 'live':
        return liveShare(finding.live, kind);
      case 'counted':
        return countedShare(finding.cables, 1 + topology.goesOn(finding.stop).length);
      case 'device': {
        const { stop, does } = finding;
        const fed = predictions.at(0, c, stop, FIELD.low);
        const dead = opens.breaker !== 'no' || fed < 60;
        if (does === 'its button trips it' || does === 'its button does nothing') {
          // Without power, or tripped already, a button moves nothing.
          const idle = dead || ((kind === 'tripped' || kind === 'dead-device') && isAt(place, stop));
          return buttonShare(does, idle || opens.device === stop, kind === 'line-load' && isAt(place, stop));
        }
        const shares =
          kind === 'tripped' && isAt(place, stop)
            ? { resets: 0.96, 'does not reset': 0.02, 'resets and trips': 0.02 }
            : dead || (kind === 'dead-device' && isAt(place, stop))
              ? { resets: 0.05, 'does not reset': 0.9, 'resets and trips': 0.05 }
              : opens.device === stop
                ? opens.refuses
                  ? { resets: 0.04, 'does not reset': 0.92, 'resets and trips': 0.04 }
                  : opens.withLoad
                    ? { resets: 0.2, 'does not reset': 0.2, 'resets and trips': 0.6 }
                    : { resets: 0.03, 'does not reset': 0.45, 'resets and trips': 0.52 }
                : kind === 'appliance'
                  ? { resets: 0.6, 'does not reset': 0.1, 'resets and trips': 0.3 }
                  : { resets: 0.95, 'does not reset': 0.03, 'resets and trips': 0.02 };
        return shares[does];
      }
      case 'opened':
        return openedShare(finding.found, isAt(place, finding.stop) ? [kind] : []);
      case 'parted': {
        if (!('stop' in place)) return 0.5;
        const { stop, amiss, toward } = finding;
        if (topology.isBeyond(place, stop) !== (amiss === 'beyond')) return 0.02;
        if (amiss === 'before') return 0.96;
        // Where several cables go on and nobody said which it is, any of them may be meant.
        if (toward === null) return 0.96 / topology.goesOn(stop).length;
        return topology.feeds(toward, place.stop) ? 0.96 : 0.96 * 0.02;
      }
      case 'sign': {
        const near = topology.isNear(place, finding.stop);
        if (near && HEATS.has(kind)) return finding.sign === 'buzz' ? 0.3 : 0.5;
        return kind === 'overload' || kind === 'poor-breaker' || kind === 'poor-hot' ? 0.06 : 0.025;
      }
      case 'elsewhere':
        return elsewhereShare(finding.does, kind);
      case 'appliance':
        return (kind === 'appliance') === finding.fails ? 0.95 : 0.05;
      case 'work':
        if (finding.stop === null) return WEAR.has(kind) ? 0.15 : 0.4;
        return topology.isNear(place, finding.stop) ? 0.5 : 0.1;
      case 'rain':
        return kind === 'leak' || kind === 'ground-fault' ? 0.4 : kind === 'service-neutral' ? 0.15 : 0.03;
      case 'tone': {
        const role = finding.conductor;
        const [low, high] = [finding.from, finding.to];
        const parts = kind === `open-${role}` && topology.cutOff(cause, low) !== topology.cutOff(cause, high);
        return parts === finding.heard ? 0.06 : 0.94;
      }
      case 'cleared':
        return clearedShare(finding, cause);
      case 'amps': {
        const rating = predictions.ground.run.circuit.breaker.rating;
        return kind === 'overload'
          ? overloadShare(finding.amps, rating)
          : ampsShare(finding.amps, predictions.amps[c]!, rating);
      }
      default:
        return 1;
    }
  }

  /** Both legs, and what a load moves them by; a poor neutral with all ohms that it may have. */
  private legs({ a, b, loaded }: Finding & { kind: 'legs' }, c: number, cells: number): number[] {
    const { predictions } = this;
    const { kind, parted } = predictions.causes[c]!;
    const moved = loaded && movedBy([a, b], loaded);
    const slip = slipDensity(2) * (moved ? slipDensity(2) : 1);
    const scales = kind === 'utility' ? [UTILITY.low, UTILITY.high] : [1];
    const source = kind === 'utility' ? UTILITY.sigma : SOURCE;
    return Array.from({ length: cells }, (_, k) => {
      const ohms = parted === null ? null : JOINT_CELLS[k]!;
      const wanders = wandersBy(traitsOf(kind), ohms);
      let total = 0;
      predictions.scenes.forEach(({ share }, scene) => {
        const table = predictions.legs[scene]!;
        const told = (figure: number) => predictions.fitted(c, ohms, (of) => table[LEGS * of + figure]!);
        const [x, y] = [told(0), told(1)];
        // What one leg loses at a poor neutral the other gains: their sum is the source’s, their difference wanders.
        let fits = 0;
        for (const scale of scales)
          fits +=
            (2 *
              normal(a + b, scale * (x + y), Math.hypot(1.5, source * (x + y))) *
              normal(a - b, scale * (x - y), Math.hypot(1.6, 2 * wanders))) /
            scales.length;
        if (moved)
          for (const of of [0, 1] as const) {
            const mean = told(2 + of);
            fits *= normal(
              moved[of],
              mean,
              Math.hypot(0.5, (parted === null && wanders > 0 ? 0.5 : 0.08) * mean),
            );
          }
        total += share * ((1 - SLIPS) * fits + SLIPS * slip);
      });
      return total;
    });
  }
}

/** By how much the leg that a load was put on fell, and the other rose. */
function movedBy(
  free: readonly [number, number],
  loaded: readonly [number, number],
): readonly [number, number] {
  const [a, b] = [free[0] - loaded[0], free[1] - loaded[1]];
  return a >= b ? [a, -b] : [b, -a];
}
