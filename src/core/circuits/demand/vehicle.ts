/** EV charging, Article 625. */
import { since } from '#core/tables/editions.ts';
import type { Edition } from '#core/job/schema.ts';
import { type Result } from '#core/units/result.ts';
import { continuousStep, demand, plateAmps, type BranchLoad, type Demand } from './demand.ts';

export function vehicle(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: load.maximumBreaker,
    steps: [
      { what: 'Charging current', working, section: !since(edition, '2020') ? '625.41' : '625.42' },
      continuousStep(amps, !since(edition, '2020') ? '625.41' : '625.41, 625.42'),
    ],
  });
}
