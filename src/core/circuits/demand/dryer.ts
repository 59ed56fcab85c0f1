/** Clothes dryers. */
import { type Result } from '#core/units/result.ts';
import { demand, plateAmps, shown, volts, type BranchLoad, type Demand } from './demand.ts';

const LEAST_DRYER = 5000;
/** Above this a dryer heats with electricity; below it turns a drum over a gas flame, volts. */
const GAS_UP_TO = 150;

/** An electric dryer by 220.54; a gas dryer by what its motor and controls draw. */
export function dryer(load: BranchLoad): Result<Demand> {
  if (load.volts <= GAS_UP_TO) {
    const plate = plateAmps(load);
    if (!plate.ok) return plate;
    const { amps, working } = plate.value;
    return demand({
      amps,
      counted: amps,
      mostBreaker: load.maximumBreaker,
      steps: [{ what: 'Gas dryer', working, section: '422.10(A)' }],
    });
  }
  const plate = load.amps === null && load.watts === null ? null : plateAmps(load);
  if (plate && !plate.ok) return plate;
  const watts = Math.max(LEAST_DRYER, (plate?.value.amps ?? 0) * load.volts);
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
        working: `larger of 5,000 VA and the nameplate: ${Math.round(watts).toLocaleString('en-US')} VA ÷ ${volts(load)} = ${shown(amps)}`,
        section: '220.54',
      },
    ],
  });
}
