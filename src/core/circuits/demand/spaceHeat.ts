/** Fixed electric space heating, Article 424. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import { standardBreaker } from '#core/tables/conductors.ts';
import type { Edition } from '#core/job/schema.ts';
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

const SPACE_HEAT: PerEdition<string> = { '2017': '424.3(B)', '2020': '424.4(B)', '2023': '424.4(B)' };
/** Largest load and breaker of one part of resistance elements, 424.22(B), amperes. */
export const ELEMENT_PART = { load: 48, breaker: 60 };

/** Elements of more than one part come divided, each part behind a device of its own inside. */
export const dividedInside = (section: string): Step => ({
  what: 'Divided inside',
  working: `more than ${ELEMENT_PART.load} A of elements: its maker divides them into parts of ${ELEMENT_PART.load} A or less behind ${ELEMENT_PART.breaker} A or less each; without such devices inside each part has a circuit of its own`,
  section,
});

/** Fixed electric space heating with its blower: 125 % of both. */
export function spaceHeat(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const heat = plate.value.amps;
  const blower = load.blowerAmps ?? 0;
  const amps = heat + blower;
  const section = at(SPACE_HEAT, edition);
  const divided = heat > ELEMENT_PART.load;
  // The blower comes on top of what one part of the elements may have.
  const most = divided
    ? null
    : Math.max(ELEMENT_PART.breaker, blower > 0 ? (standardBreaker(1.25 * amps) ?? 0) : 0);
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: load.maximumBreaker ?? most,
    steps: [
      { what: 'Nameplate', working: plate.value.working, section },
      ...(blower > 0
        ? [
            {
              what: 'With the blower',
              working: `${shown(heat)} + ${shown(blower)} = ${shown(amps)}`,
              section,
            },
          ]
        : []),
      continuousStep(amps, section),
      divided
        ? dividedInside('424.22(B), (C)')
        : { what: 'Largest breaker', working: `${most} A for one part of the heating`, section: '424.22(B)' },
    ],
  });
}
