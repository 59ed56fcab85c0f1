/** Fixed electric space heating, Article 424. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import type { Edition } from '#core/job/schema.ts';
import { fail, type Result } from '#core/units/result.ts';
import { continuousStep, demand, plateAmps, shown, type BranchLoad, type Demand } from './demand.ts';

const SPACE_HEAT: PerEdition<string> = { '2017': '424.3(B)', '2020': '424.4(B)', '2023': '424.4(B)' };
/** Largest load and breaker of one part of electric heating, 424.22(B), amperes. */
const HEAT_PART = { load: 48, breaker: 60 };

/** Fixed electric space heating: 125 %, and divided so that no breaker is above 60 A. */
export function spaceHeat(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const section = at(SPACE_HEAT, edition);
  if (amps > HEAT_PART.load)
    return fail(
      `${shown(amps)} of heating elements: divide them into circuits of ${HEAT_PART.load} A or less, 424.22(B)`,
    );
  const most = load.maximumBreaker ?? HEAT_PART.breaker;
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: most,
    steps: [
      { what: 'Nameplate', working, section },
      continuousStep(amps, section),
      { what: 'Largest breaker', working: `${most} A for one part of the heating`, section: '424.22(B)' },
    ],
  });
}
