/** Motors, Article 430. */
import { motorAmps } from '#core/tables/motors.ts';
import { standardAtMost, standardBreaker } from '#core/tables/conductors.ts';
import { round } from '#core/units/quantity.ts';
import { fail, type Result } from '#core/units/result.ts';
import {
  continuousStep,
  demand,
  plateAmps,
  shown,
  volts,
  type BranchLoad,
  type Demand,
  type Step,
} from './demand.ts';

/** A motor: 125 % for its conductor; its breaker may be up to 250 % so that it starts. */
export function motor(load: BranchLoad): Result<Demand> {
  let amps: number;
  let step: Step;
  if (load.horsepower !== null && load.horsepower > 0) {
    const listed = motorAmps(load.horsepower, load.volts);
    if (listed === null) return fail(`horsepower: ${load.horsepower} is not in Table 430.248, from ⅙ to 10`);
    amps = listed;
    step = {
      what: 'Full-load current',
      working: `${round(load.horsepower, 2)} hp at ${volts(load)}: ${shown(amps)}`,
      section: '430.6(A), Table 430.248',
    };
  } else {
    const plate = plateAmps(load);
    if (!plate.ok) return plate;
    amps = plate.value.amps;
    step = { what: 'Nameplate', working: plate.value.working, section: '430.6(A)' };
  }
  const most = standardBreaker(2.5 * amps) ?? standardAtMost(2.5 * amps)!;
  return demand({
    amps,
    counted: 1.25 * amps,
    corrected: 1.25 * amps,
    mostBreaker: most,
    ownProtection: true,
    steps: [
      step,
      continuousStep(amps, '430.22'),
      {
        what: 'Largest breaker',
        working: `2.5 × ${shown(amps)} = ${shown(2.5 * amps)}, next standard size ${most} A`,
        section: '430.52',
      },
    ],
  });
}
