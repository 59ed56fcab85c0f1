/** Ranges, ovens and cooktops. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import { rangeDemand } from '#core/tables/cooking.ts';
import type { Edition } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { type Result } from '#core/units/result.ts';
import { demand, plateAmps, shown, volts, type BranchLoad, type Demand } from './demand.ts';

const COOKING_LEAST: PerEdition<string> = {
  '2017': '210.19(A)(3)',
  '2020': '210.19(A)(3)',
  '2023': '210.19(C)',
};

/** A range by its demand, 40 A at least from 8.75 kW up. */
export function range(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const watts = plate.value.amps * load.volts;
  const cooking = rangeDemand([{ va: watts }]);
  if (!cooking.ok) return cooking;
  const amps = cooking.value.va / load.volts;
  const large = watts >= 8750;
  return demand({
    amps,
    counted: amps,
    leastBreaker: large ? 40 : 0,
    mostBreaker: load.maximumBreaker,
    nextSizeUp: false,
    steps: [
      {
        what: 'Demand of one range',
        working: `${round(watts / 1000, 2)} kW: ${cooking.value.working} = ${round(cooking.value.va, 0)} W; ÷ ${volts(load)} = ${shown(amps)}`,
        section: 'Table 220.55',
      },
      ...(large
        ? [{ what: 'Least circuit', working: '8.75 kW or more: 40 A', section: at(COOKING_LEAST, edition) }]
        : []),
    ],
  });
}

/** One wall oven or one counter-mounted cooking unit: its nameplate. */
export function ovenOrCooktop(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  return demand({
    amps,
    counted: amps,
    mostBreaker: load.maximumBreaker,
    nextSizeUp: false,
    steps: [{ what: 'Nameplate of one cooking unit', working, section: 'Table 220.55 note 4' }],
  });
}
