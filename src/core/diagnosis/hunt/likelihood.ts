/**
 * How likely each finding is under each cause. Poor joints are carried with all ohms that they may have, each cell of a scale
 * with its width, so that several readings agree on one figure.
 */
import { LOW_OHMS } from '#core/instruments/meter.ts';
import { isAt, type Cause } from './causes.ts';
import {
  litShare,
  ohmsDensity,
  SLIPS,
  slipDensity,
  voltsAt,
  utilityDensity,
  voltsDensity,
  worksShares,
  type Told,
} from './densities.ts';
import { PAIRS, type Finding, type Pair } from './evidence.ts';
import type { CauseKind } from './kinds.ts';
import { FIELD, FLOATS, underLoad, WIDTH } from './fields.ts';
import type { Predictions } from './predictions.ts';
import { Topology } from './topology.ts';

/** Cells of a poor joint’s ohms, evenly by their logarithm, all alike at first. */
const CELLS = 18;
const LEAST = 0.15;
const STEP = 1.42;
export const JOINT_CELLS: readonly number[] = Array.from({ length: CELLS }, (_, k) => LEAST * STEP ** k);

/** Findings that follow from the network itself: two causes at once are worked out, not guessed. */
export const ELECTRICAL: ReadonlySet<Finding['kind']> = new Set(['volts', 'lamps', 'works', 'shock']);

/** Volts of fields at a stop, by scene. */
export type Reader = (scene: number, field: number) => number;

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

/** Share of the time that an overload is on while something is read, and volts that it pulls. */
const OFTEN_ON = 0.35;
const OVERLOADED = 6;

/** Volts of the high-impedance meter with a load put on there. */
export const withLoad =
  (read: Reader, amps: number): Reader =>
  (scene, field) =>
    amps > 0 && field < PAIRS.length
      ? underLoad((f) => read(scene, f), PAIRS[field]!, amps)
      : read(scene, field);

export class Likelihood {
  private readonly predictions: Predictions;
  readonly topology: Topology;

  constructor(predictions: Predictions) {
    this.predictions = predictions;
    this.topology = new Topology(predictions.ground.run);
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
    if (ELECTRICAL.has(finding.kind)) {
      const { stop } = finding as { stop: number };
      const amps = finding.kind === 'volts' ? finding.amps : 0;
      const of = (cause: number): Reader =>
        withLoad((scene, field) => predictions.at(scene, cause, stop, field), amps);
      if (cells === 1) return [this.electrical(finding, [cause], of(c), c)];
      return this.overCells(finding, cause, c, of(0), of(c), of(cause.parted!));
    }
    if (finding.kind === 'ohms') return this.ohms(finding, c, cells);
    const share = this.told(finding, cause, c);
    return Array.from({ length: cells }, () => share);
  }

  /** A poor joint, for all ohms that it may have: from sound, one ohm, and parted. */
  private overCells(
    finding: Finding,
    cause: Cause,
    c: number,
    base: Reader,
    own: Reader,
    parted: Reader,
  ): number[] {
    const { predictions } = this;
    const total = new Array<number>(CELLS).fill(0);
    const has = (kind: CauseKind) => cause.kind === kind;
    const fields = fieldsOf(finding);
    const series = new Float64Array(WIDTH * (CELLS + 1));
    predictions.scenes.forEach(({ share }, scene) => {
      for (const field of fields) {
        const [none, one, open] = [base(scene, field), own(scene, field), parted(scene, field)];
        for (let k = 0; k <= CELLS; k++)
          series[field * (CELLS + 1) + k] = joint(none, one, open, LEAST * STEP ** k);
      }
      const off = predictions.isOff(c, (finding as { stop: number }).stop, scene > 0);
      for (let k = 0; k < CELLS; k++) {
        const at = (field: number) => (off ? 0 : series[field * (CELLS + 1) + k]!);
        // A cell is as wide as a step of the scale.
        const spread = (field: number) =>
          off ? 0 : Math.abs(series[field * (CELLS + 1) + k + 1]! - series[field * (CELLS + 1) + k]!) / 3.5;
        total[k]! += share * this.inScene(finding, at, has, spread, scene);
      }
    });
    return total;
  }

  /**
   * @param causes all that are there at once
   * @param read volts with all of them
   * @param c the one whose devices open
   */
  electrical(finding: Finding, causes: readonly Cause[], read: Reader, c: number): number {
    const { predictions } = this;
    const has = (kind: CauseKind) => causes.some((x) => x.kind === kind);
    let total = 0;
    predictions.scenes.forEach(({ share }, scene) => {
      if (!('stop' in finding) || finding.stop === null) return;
      const off = predictions.isOff(c, finding.stop as number, scene > 0);
      const volts = (field: number) => (off ? 0 : read(scene, field));
      total += share * this.inScene(finding, volts, has, () => 0, scene);
    });
    return total;
  }

  private inScene(
    finding: Finding,
    read: (field: number) => number,
    has: (kind: CauseKind) => boolean,
    spread: (field: number) => number,
    scene: number,
  ): number {
    const floats = (pair: number): boolean => read(FIELD.ohms + pair) > FLOATS;
    // Before the panel nobody knows what loads pull where: the legs wander.
    const supply = has('service-neutral') || has('feeder-neutral') || has('lost-leg');
    // A parted neutral stands where the loads behind it put it.
    const parted = has('open-neutral') || has('lifted-neutral');
    const poor = has('poor-hot') || has('poor-neutral') || has('poor-breaker');
    const wanders = (pair: number, mean: number): number => {
      if (finding.kind !== 'volts' || (!supply && !parted && !poor)) return 0;
      const sound = this.predictions.at(scene, 0, finding.stop, FIELD.high + pair);
      const off = Math.abs(mean - sound);
      if (supply) return Math.min(22, 1.5 * off);
      // Between hot and such a neutral nothing stands while the meter loads it.
      if (parted && off > 6) return pair === 0 && mean < 5 ? 0.5 : 12;
      // What hangs behind a poor joint besides the load that was put on pulls it down as well.
      return poor ? (finding.amps > 0 ? 0.1 : 0.3) * off : 0;
    };
    // Too much plugged in may be on or off while it is read.
    if (finding.kind === 'volts' && has('overload')) {
      const without = (kind: CauseKind) => kind !== 'overload' && has(kind);
      const pulled = (field: number) => Math.hypot(spread(field), OVERLOADED);
      return (
        (1 - OFTEN_ON) * this.inScene(finding, read, without, spread, scene) +
        OFTEN_ON * this.inScene(finding, read, without, pulled, scene)
      );
    }
    switch (finding.kind) {
      case 'volts': {
        const loading = finding.meterOhms <= 2 * LOW_OHMS;
        const from = (pair: number): number =>
          loading && (finding.amps === 0 || floats(pair)) ? FIELD.low : FIELD.high;
        const list: { pair: Pair; volts: number }[] = [];
        const told: Told[] = [];
        PAIRS.forEach((pair, k) => {
          const volts = finding.volts[pair];
          if (volts === null) return;
          const mean = read(from(k) + k);
          list.push({ pair, volts });
          told.push(
            Number.isNaN(mean)
              ? { volts: 0, spread: 0, floats: true, joined: false }
              : {
                  volts: mean,
                  spread: Math.hypot(spread(from(k) + k), wanders(k, mean)),
                  floats: !loading && floats(k),
                  joined: has('false-ground') && mean < 0.05,
                },
          );
        });
        if (finding.reference !== null) {
          list.push({ pair: 'hotGround', volts: finding.reference });
          told.push({ volts: read(FIELD.reference), spread: 1, floats: false, joined: false });
        }
        const density = has('utility') ? utilityDensity : voltsDensity;
        return (1 - SLIPS) * density(list, told) + SLIPS * slipDensity(list.length);
      }
      case 'lamps': {
        let share = 1;
        finding.lamps.forEach((lit, k) => {
          const at = voltsAt(1e5, read(FIELD.high + k), read(FIELD.low + k));
          const on = litShare(Number.isNaN(at) ? 0 : at, floats(k));
          share *= lit ? on : 1 - on;
        });
        return 0.97 * share + 0.03 / 8;
      }
      case 'works': {
        const loaded = read(FIELD.loaded);
        const shares = worksShares(Number.isNaN(loaded) ? 0 : loaded);
        if (has('appliance') || has('switched-off'))
          return { works: 0.25, dead: 0.5, dim: 0.1, 'comes and goes': 0.15 }[finding.does];
        if (has('overload') || has('weak-breaker'))
          return { works: 0.6, dead: 0.3, dim: 0.04, 'comes and goes': 0.06 }[finding.does];
        const fades = poor ? 0.3 : has('open-hot') || has('open-neutral') ? 0.08 : 0.01;
        if (finding.does === 'comes and goes') return shares.works > 0.5 && !poor ? 0.01 : fades;
        return 0.97 * (1 - fades) * shares[finding.does] + 0.01;
      }
      case 'shock': {
        const body = read(FIELD.body);
        const felt = body > 30 ? 0.8 : 0.004;
        if (has('appliance')) return 0.3;
        return has('open-ground') || has('leak') ? Math.max(felt, 0.1) : felt;
      }
      default:
        return 1;
    }
  }

  private ohms(finding: Finding & { kind: 'ohms' }, c: number, cells: number): number[] {
    const { predictions } = this;
    const { stop, pair, ohms } = finding;
    const told = (of: number) => predictions.ohms[predictions.ohmsAt(of, stop, pair)]!;
    const own = told(c);
    if (cells === 1) return [ohmsDensity(ohms, own)];
    const base = told(0);
    return JOINT_CELLS.map((x) => ohmsDensity(ohms, base + Math.max(0, own - base) * x));
  }

  /** What is not volts: seen, heard, told, or done by a device. */
  private told(finding: Finding, cause: Cause, c: number): number {
    const { predictions, topology } = this;
    const { kind, place } = cause;
    const opens = predictions.opens[c]!;
    switch (finding.kind) {
      case 'breaker':
        return breakerShare(finding, cause, opens, predictions.ground.run.circuit.breaker.rating);
      case 'device': {
        const { stop, does } = finding;
        const fed = predictions.at(0, c, stop, FIELD.low);
        const dead = opens.breaker !== 'no' || fed < 60;
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
      case 'opened': {
        const here = isAt(place, finding.stop);
        if (finding.found.length === 0) return here ? 0.06 : 0.97;
        if (here) return finding.found.includes(kind) ? 0.9 : 0.0008;
        return 0.012;
      }
      case 'parted': {
        if (!('stop' in place)) return 0.5;
        const beyond = topology.isBeyond(place, finding.stop);
        return beyond === (finding.amiss === 'beyond') ? 0.96 : 0.04;
      }
      case 'legs':
        return this.legsShare(finding, kind, c);
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
      case 'amps': {
        const rating = predictions.ground.run.circuit.breaker.rating;
        const over = finding.amps > rating;
        if (kind === 'overload') return over ? 0.9 : finding.amps > 0.8 * rating ? 0.25 : 0.03;
        return over ? 0.15 : 0.85;
      }
      default:
        return 1;
    }
  }

  private legsShare({ a, b }: Finding & { kind: 'legs' }, kind: CauseKind, c: number): number {
    const { predictions } = this;
    const density = kind === 'utility' ? utilityDensity : voltsDensity;
    let total = 0;
    predictions.scenes.forEach(({ share }, scene) => {
      const [x, y] = [predictions.legs[scene]![2 * c]!, predictions.legs[scene]![2 * c + 1]!];
      // Where the neutral is lost the legs stand wherever the loads put them.
      const spread = Math.abs(x - y) > 12 ? 18 : 0.8;
      const told = [x, y].map((volts): Told => ({ volts, spread, floats: false, joined: false }));
      const swapped = [...told].reverse();
      const read = [a, b].map((volts) => ({ pair: 'hotNeutral' as const, volts }));
      const fits = spread > 1 ? (density(read, told) + density(read, swapped)) / 2 : density(read, told);
      total += share * ((1 - SLIPS) * fits + SLIPS * slipDensity(2));
    });
    return total;
  }
}

/** Volts with a joint of so many ohms, from those of none, of one ohm, and of one that is parted: a Möbius function of its ohms. */
export function joint(none: number, one: number, parted: number, ohms: number): number {
  const bend = (none - one) / (one - parted);
  if (Math.abs(none - one) < 1e-6 || !Number.isFinite(bend)) return none;
  if (bend <= 0) return none + (one - none) * Math.min(ohms, 3);
  return (none + parted * bend * ohms) / (1 + bend * ohms);
}

function breakerShare(
  { does, unplugged, amps }: Finding & { kind: 'breaker' },
  { kind }: Cause,
  opens: Predictions['opens'][number],
  rating: number,
): number {
  type Shares = Record<typeof does, number>;
  const shares = ((): Shares => {
    if (opens.breaker === 'at once') return { holds: 0.02, 'trips at once': 0.95, 'trips later': 0.03 };
    if (opens.breaker === 'later') return { holds: 0.1, 'trips at once': 0.2, 'trips later': 0.7 };
    if (opens.device === -1 && !(opens.withLoad && unplugged))
      return { holds: 0.05, 'trips at once': 0.8, 'trips later': 0.15 };
    switch (kind) {
      case 'overload': {
        if (unplugged) return { holds: 0.96, 'trips at once': 0.02, 'trips later': 0.02 };
        if (amps === null) return { holds: 0.15, 'trips at once': 0.05, 'trips later': 0.8 };
        return amps > rating
          ? { holds: 0.1, 'trips at once': 0.03, 'trips later': 0.87 }
          : { holds: 0.85, 'trips at once': 0.02, 'trips later': 0.13 };
      }
      case 'weak-breaker':
        return unplugged
          ? { holds: 0.7, 'trips at once': 0.15, 'trips later': 0.15 }
          : { holds: 0.15, 'trips at once': 0.15, 'trips later': 0.7 };
      case 'poor-breaker':
        return unplugged
          ? { holds: 0.95, 'trips at once': 0.02, 'trips later': 0.03 }
          : { holds: 0.35, 'trips at once': 0.03, 'trips later': 0.62 };
      case 'appliance':
        return unplugged
          ? { holds: 0.97, 'trips at once': 0.02, 'trips later': 0.01 }
          : { holds: 0.45, 'trips at once': 0.4, 'trips later': 0.15 };
      case 'dead-breaker':
        return { holds: 0.5, 'trips at once': 0.45, 'trips later': 0.05 };
      default:
        return { holds: 0.96, 'trips at once': 0.015, 'trips later': 0.025 };
    }
  })();
  return shares[does];
}

function elsewhereShare(does: (Finding & { kind: 'elsewhere' })['does'], kind: CauseKind): number {
  type Shares = Record<typeof does, number>;
  const shares: Shares =
    kind === 'service-neutral' || kind === 'feeder-neutral'
      ? { fine: 0.12, 'some dim, some bright': 0.78, 'some dead': 0.04, 'all dim': 0.06 }
      : kind === 'lost-leg'
        ? { fine: 0.08, 'some dim, some bright': 0.1, 'some dead': 0.77, 'all dim': 0.05 }
        : kind === 'utility'
          ? { fine: 0.2, 'some dim, some bright': 0.03, 'some dead': 0.02, 'all dim': 0.75 }
          : { fine: 0.94, 'some dim, some bright': 0.02, 'some dead': 0.02, 'all dim': 0.02 };
  return shares[does];
}
