/** What a measure may show under each hypothesis, in the few classes that a tradesperson tells apart. */
import { worksShare } from './densities.ts';
import { DOES_RESET, PAIRS, type Finding } from './evidence.ts';
import type { Hypothesis } from './branch.ts';
import { isAt } from './causes.ts';
import type { Likelihood } from './likelihood.ts';
import type { Measure } from './measures.ts';
import { FIELD } from './fields.ts';
import { LEGS, USUAL_OHMS, type Predictions } from './predictions.ts';

/** Classes of answers with their shares. */
export type Shares = Map<string, number>;
const add = (shares: Shares, key: string, share: number): void => {
  if (share > 0) shares.set(key, (shares.get(key) ?? 0) + share);
};

/** Bounds between what is read of hot–neutral and hot–ground, and of neutral–ground, volts. */
const HOT = [20, 60, 108, 127.5] as const;
const HOT_WORDS = ['dead', 'a ghost', 'low', 'good', 'high'] as const;
const NEUTRAL = [3.5, 12, 60] as const;
const NEUTRAL_WORDS = ['near zero', 'raised', 'high', 'live'] as const;
/** Drop under the test load, as shares. */
const DROP = [0.035, 0.065, 0.12, 0.5] as const;
const DROP_WORDS = ['holds', 'sags', 'sags much', 'falls', 'collapses'] as const;

const classOf = (value: number, bounds: readonly number[]): number => bounds.filter((b) => value >= b).length;

/** Shares of the classes that a figure falls into, blurred. */
function blurred(value: number, sigma: number, bounds: readonly number[]): [number, number][] {
  const list = [-1.2, 0, 1.2].map((k): [number, number] => [
    classOf(value + k * sigma, bounds),
    k === 0 ? 0.5 : 0.25,
  ]);
  const merged = new Map<number, number>();
  for (const [c, p] of list) merged.set(c, (merged.get(c) ?? 0) + p);
  return [...merged];
}

/** Answers of one measure by cause, and by the cell of a joint’s ohms. */
export class Outcomes {
  private readonly predictions: Predictions;
  private readonly likelihood: Likelihood;
  private readonly known = new Map<string, Map<number, Shares>>();

  constructor(predictions: Predictions, likelihood: Likelihood) {
    [this.predictions, this.likelihood] = [predictions, likelihood];
  }

  /** @param stopOf positions of the stops in the hypothesis’ drawing */
  of(measure: Measure, key: string, h: Hypothesis, stopOf: readonly number[]): Shares {
    const one = this.remembered(measure, key, h.cause, h.ohms, stopOf);
    if (h.second === null) return one;
    // Of two at once the one shows that sound wiring would show less.
    const other = this.remembered(measure, key, h.second, null, stopOf);
    const sound = this.remembered(measure, key, 0, null, stopOf);
    const likeness = (a: Shares) =>
      [...a].reduce((sum, [says, p]) => sum + Math.min(p, sound.get(says) ?? 0), 0);
    return likeness(one) <= likeness(other) ? one : other;
  }

  private remembered(
    measure: Measure,
    key: string,
    c: number,
    ohms: number | null,
    stopOf: readonly number[],
  ): Shares {
    let list = this.known.get(key);
    if (!list) this.known.set(key, (list = new Map()));
    const cell = ohms === null ? 0 : 1 + Math.max(0, Math.round(2 * Math.log(ohms) + 6));
    const at = c * 64 + cell;
    let shares = list.get(at);
    if (!shares) list.set(at, (shares = this.ofCause(measure, c, ohms, stopOf)));
    return shares;
  }

  private ofCause(measure: Measure, c: number, ohms: number | null, stopOf: readonly number[]): Shares {
    const shares: Shares = new Map();
    const { predictions } = this;
    const cause = predictions.causes[c]!;
    const stop = 'stop' in measure ? (measure.stop < 0 ? -1 : stopOf[measure.stop]!) : -1;
    const read = (scene: number, field: number): number => {
      if (predictions.isOff(c, stop, scene > 0)) return 0;
      return predictions.fitted(c, ohms, (of) => predictions.at(scene, of, stop, field));
    };
    const share = (finding: Finding): number => {
      const all = this.likelihood.of(finding, c);
      return all.reduce((a, b) => a + b, 0) / all.length;
    };
    const spread = (list: readonly (readonly [string, Finding])[]): Shares => {
      const weights = list.map(([says, finding]) => [says, share(finding)] as const);
      const total = weights.reduce((sum, [, p]) => sum + p, 0);
      for (const [says, p] of weights) add(shares, says, p / total);
      return shares;
    };
    switch (measure.kind) {
      case 'volts':
        predictions.scenes.forEach(({ share: part }, scene) => {
          if (measure.amps > 0) {
            const loaded = read(scene, FIELD.loaded);
            const free = read(scene, FIELD.low);
            if (free < 60) return add(shares, 'dead', part);
            const sound =
              1 - predictions.at(scene, 0, stop, FIELD.loaded) / predictions.at(scene, 0, stop, FIELD.low);
            for (const [k, p] of blurred(1 - loaded / free - Math.max(0, sound - 0.02), 0.008, DROP))
              add(shares, DROP_WORDS[k]!, part * p);
            return;
          }
          const [hn, hg, ng] = PAIRS.slice(0, 3).map((_, k) => read(scene, FIELD.low + k));
          for (const [a, p] of blurred(hn || 0, 2.5, HOT))
            for (const [b, q] of blurred(hg || 0, 2.5, HOT))
              for (const [n, r] of blurred(ng || 0, 0.6, NEUTRAL))
                add(
                  shares,
                  `${HOT_WORDS[a]}, to ground ${HOT_WORDS[b]}, neutral ${NEUTRAL_WORDS[n]}`,
                  part * p * q * r,
                );
        });
        return shares;
      case 'works':
        predictions.scenes.forEach(({ share: part }, scene) => {
          const loaded = read(scene, FIELD.loaded);
          for (const does of ['works', 'dim', 'dead', 'bright'] as const)
            add(shares, does, part * worksShare(does, Number.isNaN(loaded) ? 0 : loaded));
        });
        return shares;
      case 'reference':
        predictions.scenes.forEach(({ share: part }, scene) => {
          for (const [k, p] of blurred(read(scene, FIELD.reference) || 0, 0.6, NEUTRAL))
            add(shares, NEUTRAL_WORDS[k]!, part * p);
        });
        return shares;
      case 'ohms': {
        const at = (of: number) => predictions.ohms[predictions.ohmsAt(of, stop, measure.pair)]!;
        const own = cause.parted === null ? at(c) : at(0) + Math.max(0, at(c) - at(0)) * (ohms ?? USUAL_OHMS);
        // Below an ohm leads and contacts are as large as what is read.
        const bounds = [1.2, 12, 1e3, 1e6];
        const words = ['joined', 'a few ohms', 'a hundred ohms or so', 'thousands', 'over'];
        for (const [k, p] of blurred(Math.log(own + 0.02), 0.15, bounds.map(Math.log)))
          add(shares, words[k]!, p);
        return shares;
      }
      case 'state':
        return spread([
          ['on', { kind: 'state', stop, on: true }],
          ['off or tripped', { kind: 'state', stop, on: false }],
        ]);
      case 'breaker':
        return spread(
          (['holds', 'trips at once', 'trips later'] as const).map((does) => [
            does,
            { kind: 'breaker', does, unplugged: true, minutes: null, amps: null },
          ]),
        );
      case 'device':
        return spread(DOES_RESET.map((does) => [does, { kind: 'device', stop, does }]));
      case 'open': {
        const { place, kind } = cause;
        const here = isAt(place, stop);
        add(shares, 'nothing found', here ? 0.05 : 0.97);
        add(shares, here ? `found: ${kind}` : 'found: something', here ? 0.95 : 0.03);
        return shares;
      }
      case 'part':
        return spread([
          ['before', { kind: 'parted', stop, amiss: 'before', toward: null }],
          ...this.likelihood.topology
            .goesOn(stop)
            .map(
              (toward) =>
                [
                  `beyond, toward ${predictions.ground.run.stops[toward]!.box.name}`,
                  { kind: 'parted', stop, amiss: 'beyond', toward },
                ] as const,
            ),
        ]);
      case 'legs':
        predictions.scenes.forEach(({ share: part }, scene) => {
          const table = predictions.legs[scene]!;
          const [x, y, , rises] = [0, 1, 2, 3].map((figure) =>
            predictions.fitted(c, ohms, (of) => table[LEGS * of + figure]!),
          ) as [number, number, number, number];
          if (cause.kind === 'utility') return add(shares, 'both off alike', part);
          if (Math.min(x, y) < 60) return add(shares, 'one dead', part);
          for (const [k, p] of blurred(Math.abs(x - y), 1.2, [7]))
            for (const [up, q] of blurred(rises, 0.4, [1.6]))
              add(
                shares,
                `${k > 0 ? 'uneven' : 'even'}${up > 0 ? ', one rises as the other falls' : ''}`,
                part * p * q,
              );
        });
        return shares;
      case 'appliance':
        return spread([
          ['fails there too', { kind: 'appliance', fails: true }],
          ['works there', { kind: 'appliance', fails: false }],
        ]);
      case 'elsewhere':
        return spread(
          (['fine', 'some dim, some bright', 'some dead', 'all dim'] as const).map((does) => [
            does,
            { kind: 'elsewhere', does },
          ]),
        );
      case 'amps': {
        const rating = predictions.ground.run.circuit.breaker.rating;
        return spread([
          ['far over its rating', { kind: 'amps', amps: 3 * rating }],
          ['over its rating', { kind: 'amps', amps: 1.3 * rating }],
          ['under it', { kind: 'amps', amps: 0.6 * rating }],
        ]);
      }
    }
  }
}
