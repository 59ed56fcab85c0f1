/** Clothes dryers. */
import { type Result } from '#core/units/result.ts';
import { demand, shown, volts, type BranchLoad, type Demand } from './demand.ts';

const LEAST_DRYER = 5000;

export function dryer(load: BranchLoad): Result<Demand> {
  const watts = Math.max(LEAST_DRYER, load.watts ?? (load.amps ?? 0) * load.volts);
  const amps = watts / load.volts;
  return demand({
    amps,
    counted: amps,
    mostBreaker: load.maximumBreaker,
    // Dryer receptacles are made for 30 A.
    usualBreaker: 30,
    steps: [
      {
        what: 'Dryer',
        working: `larger of 5,000 VA and the nameplate: ${watts.toLocaleString('en-US')} VA ÷ ${volts(load)} = ${shown(amps)}`,
        section: '220.54',
      },
    ],
  });
}
