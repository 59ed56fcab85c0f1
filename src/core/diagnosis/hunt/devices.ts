/** What a breaker does when it is closed, and the rest of the house, by cause. */
import type { Cause } from './causes.ts';
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
