/** Fixed appliances without a motor, Article 422. */
import { standardBreaker } from '#core/tables/conductors.ts';
import { type Result } from '#core/units/result.ts';
import {
  continuousStep,
  demand,
  plateAmps,
  shown,
  type BranchLoad,
  type Demand,
  type Step,
} from './demand.ts';

/**
 * Largest breaker of a single appliance without a motor, 422.11(E): as marked; else 150 % and the next standard size
 * above 13.3 A, 20 A otherwise.
 */
function applianceMost(load: BranchLoad, amps: number): { most: number; step: Step } {
  const section = '422.11(E)';
  if (load.maximumBreaker !== null)
    return {
      most: load.maximumBreaker,
      step: { what: 'Largest breaker', working: `${shown(load.maximumBreaker)} marked`, section },
    };
  if (amps <= 13.3)
    return {
      most: 20,
      step: { what: 'Largest breaker', working: `${shown(amps)} is 13.3 A or less: 20 A`, section },
    };
  const most = standardBreaker(1.5 * amps) ?? 200;
  return {
    most,
    step: {
      what: 'Largest breaker',
      working: `1.5 × ${shown(amps)} = ${shown(1.5 * amps)}, next standard size ${most} A`,
      section,
    },
  };
}

/** A fixed appliance that is not on for three hours. */
export function appliance(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  return demand({
    amps,
    counted: amps,
    mostBreaker: most,
    steps: [{ what: 'Nameplate', working, section: '422.10(A)' }, step],
  });
}

/** Storage water heaters of 120 gal or less, and kilns: on for three hours or more. */
export function continuous(load: BranchLoad, section: string, usual: number | null): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: most,
    usualBreaker: usual,
    steps: [{ what: 'Nameplate', working, section: '422.10(A)' }, continuousStep(amps, section), step],
  });
}
