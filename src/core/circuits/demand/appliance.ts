/** Fixed appliances without a motor, Article 422. */
import { standardAtMost, standardBreaker } from '#core/tables/conductors.ts';
import { at } from '#core/tables/editions.ts';
import type { Edition } from '#core/job/schema.ts';
import { type Result } from '#core/units/result.ts';
import { FIXED_SHARE_SECTION, SEVERAL_MOST } from '#core/tables/circuits.ts';
import { dividedInside, ELEMENT_PART } from './spaceHeat.ts';
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
  const most = standardBreaker(1.5 * amps) ?? standardAtMost(1.5 * amps)!;
  return {
    most,
    step: {
      what: 'Largest breaker',
      working: `1.5 × ${shown(amps)} = ${shown(1.5 * amps)}, next standard size ${most} A`,
      section,
    },
  };
}

/** A fixed appliance that is not on for three hours: half of a circuit that it shares with receptacles. */
export function appliance(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  const shared = load.severalReceptacles;
  return demand({
    amps,
    counted: shared ? 2 * amps : amps,
    mostBreaker: shared ? Math.min(most, SEVERAL_MOST) : most,
    nextSizeUp: !shared,
    steps: [
      { what: 'Nameplate', working, section: '422.10(A)' },
      ...(shared
        ? [
            {
              what: 'Beside receptacles',
              working: `at most half of the circuit: 2 × ${shown(amps)} = ${shown(2 * amps)}`,
              section: at(FIXED_SHARE_SECTION, edition),
            },
          ]
        : []),
      step,
    ],
  });
}

/** A tankless water heater: not on for three hours; large elements are divided inside. */
export function tankless(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  return demand({
    amps,
    counted: amps,
    mostBreaker: most,
    steps: [
      { what: 'Nameplate', working, section: '422.10(A)' },
      step,
      ...(amps > ELEMENT_PART.load ? [dividedInside('422.11(F)(1)')] : []),
    ],
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
