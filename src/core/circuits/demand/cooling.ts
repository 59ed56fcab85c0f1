/** Air conditioning and heat pumps, Article 440. */
import { standardAtMost, standardBreaker } from '#core/tables/conductors.ts';
import { type Result } from '#core/units/result.ts';
import {
  betweenMarks,
  continuousStep,
  demand,
  plateAmps,
  shown,
  type BranchLoad,
  type Demand,
} from './demand.ts';

/** Air conditioning and heat pumps: by their marked limits, or 125 % and 175 % of the marked current. */
export function cooling(load: BranchLoad): Result<Demand> {
  const { minimumAmpacity, maximumBreaker } = load;
  if (minimumAmpacity !== null && maximumBreaker !== null) {
    const most = standardAtMost(maximumBreaker);
    return demand({
      amps: load.amps ?? minimumAmpacity,
      counted: minimumAmpacity,
      corrected: minimumAmpacity,
      leastIs: betweenMarks(minimumAmpacity, maximumBreaker),
      mostBreaker: most,
      usualBreaker: most,
      ownProtection: true,
      steps: [
        {
          what: 'Marked limits',
          working: `conductor at least ${shown(minimumAmpacity)}, breaker at most ${shown(maximumBreaker)}`,
          section: '440.4(B), 440.22, 440.32',
        },
      ],
    });
  }
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const most = Math.max(15, standardAtMost(1.75 * amps) ?? 15);
  return demand({
    amps,
    counted: 1.25 * amps,
    corrected: 1.25 * amps,
    leastBreaker: 15,
    mostBreaker: Math.max(most, standardBreaker(1.25 * amps) ?? most),
    usualBreaker: most,
    ownProtection: true,
    steps: [
      { what: 'Nameplate', working, section: '440.6' },
      continuousStep(amps, '440.32'),
      {
        what: 'Largest breaker',
        working: `1.75 × ${shown(amps)} = ${shown(1.75 * amps)}: ${most} A; to 225 % only where it will not start`,
        section: '440.22(A)',
      },
    ],
  });
}

/** A cord-connected room cooler: 80 % of a circuit of its own, half of one with other outlets. */
export function roomCooler(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const share = load.severalReceptacles ? 0.5 : 0.8;
  return demand({
    amps,
    counted: amps / share,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Room air conditioner',
        working: `${working}; at most ${100 * share} % of the circuit: ${shown(amps / share)}`,
        section: load.severalReceptacles ? '440.62(C)' : '440.62(B)',
      },
    ],
  });
}
