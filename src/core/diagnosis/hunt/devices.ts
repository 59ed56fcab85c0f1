/** What a breaker does when it is closed, and the rest of the house, by cause. */
import { isAt, placeKey, type Cause } from './causes.ts';
import type { Finding } from './evidence.ts';
import type { CauseKind } from './kinds.ts';
import type { Opens } from './predictions.ts';

export function breakerShare(
  { does, unplugged, amps }: Finding & { kind: 'breaker' },
  { kind }: Cause,
  opens: Opens,
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
        if (unplugged) return { holds: 0.996, 'trips at once': 0.002, 'trips later': 0.002 };
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
        return unplugged
          ? { holds: 0.988, 'trips at once': 0.004, 'trips later': 0.008 }
          : { holds: 0.96, 'trips at once': 0.015, 'trips later': 0.025 };
    }
  })();
  return shares[does];
}

/**
 * What a clamp at the breaker shows with all usual loads on, where too much is not plugged in.
 * @param bare amperes with nothing plugged in
 */
export function ampsShare(amps: number, bare: number, rating: number): number {
  if (bare > rating / 2) return amps > 0.85 * bare && amps < 1.1 * bare + rating ? 0.95 : 0.03;
  return amps > FAR_OVER * rating ? 0.01 : amps > rating ? 0.14 : 0.85;
}
/** Much more than this many times its rating nobody plugs in. */
const FAR_OVER = 2;
/** As `ampsShare`, where too much is plugged in. */
export const overloadShare = (amps: number, rating: number): number =>
  amps > FAR_OVER * rating ? 0.05 : amps > rating ? 0.85 : amps > 0.8 * rating ? 0.25 : 0.03;

/** How a handle, a button or a switch stands, before anybody moves it. */
export function stateShare(
  { stop, on }: Finding & { kind: 'state' },
  { kind, place }: Cause,
  opens: Opens,
): number {
  const off = ((): number => {
    if (stop >= 0) {
      const here = (kind === 'tripped' || kind === 'switched-off') && isAt(place, stop);
      return here ? 0.97 : opens.device === stop ? 0.85 : 0.03;
    }
    if (kind === 'breaker-off') return 0.97;
    if (opens.breaker === 'at once') return 0.92;
    if (opens.breaker === 'later' || opens.device === -1) return 0.7;
    if (kind === 'weak-breaker' || kind === 'overload') return 0.35;
    return kind === 'appliance' ? 0.1 : 0.02;
  })();
  return on ? 1 - off : off;
}

/** Whether an outlet is live with the breaker of its circuit off. */
export function liveShare(live: boolean, kind: CauseKind): number {
  const share = kind === 'other-hot' || kind === 'crossed-breakers' || kind === 'tied' ? 0.6 : 0.01;
  return live ? share : 1 - share;
}

/** What the TEST button of a device does. @param idle it is open or without power */
export function buttonShare(
  does: 'its button trips it' | 'its button does nothing',
  idle: boolean,
  fedOnLoad: boolean,
): number {
  const trips = idle ? 0.03 : fedOnLoad ? 0.5 : 0.96;
  return does === 'its button trips it' ? trips : 1 - trips;
}

/** Cables in a box that the drawing has so many of: a spare one or another circuit’s may be there as well. */
export const countedShare = (cables: number, drawn: number): number =>
  cables === drawn ? 0.8 : cables > drawn ? 0.19 : 0.01;

/** One look misses a cause that is there, and finds what is none, so often. */
const MISSES = 0.06;
const MISTAKES = 2e-4;
const DEADLY: readonly CauseKind[] = ['reversed', 'false-ground'];

/** What a look into a box finds. @param kinds of all causes that are there */
export function openedShare(found: readonly CauseKind[], kinds: readonly CauseKind[]): number {
  // Reversed and falsely grounded is one matter, and each of the two.
  const there = new Set<CauseKind>(kinds);
  if (there.has('false-ground-reversed')) for (const k of DEADLY) there.add(k);
  if (DEADLY.every((k) => there.has(k))) there.add('false-ground-reversed');
  const missed = kinds.filter((k) => !found.includes(k)).length;
  const mistaken = found.filter((k) => !there.has(k)).length;
  return 0.97 * MISSES ** missed * MISTAKES ** mistaken;
}

/** Conductors that touch are parted by the same hands, whichever two they are. */
const TOUCHING: readonly CauseKind[] = ['short', 'ground-fault'];
const isAlike = (one: CauseKind, other: CauseKind): boolean =>
  one === other || (TOUCHING.includes(one) && TOUCHING.includes(other));

/** What was looked for where it would be mended is seldom missed. */
export const clearedShare = (
  { place, cause: of }: Finding & { kind: 'cleared' },
  { place: at, kind }: Cause,
): number => (placeKey(place) === placeKey(at) && isAlike(kind, of) ? MISSES : 1 - MISSES);

export function elsewhereShare(does: (Finding & { kind: 'elsewhere' })['does'], kind: CauseKind): number {
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
