/** Outlets in general, and one thing with a cord. */
import { at, type PerEdition } from '#core/tables/editions.ts';
import type { Edition } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { fail, type Result } from '#core/units/result.ts';
import { demand, plateAmps, shown, type BranchLoad, type Demand } from './demand.ts';

export function general(load: BranchLoad): Result<Demand> {
  const rest = load.amps ?? 0;
  const amps = rest + load.continuousAmps;
  if (amps <= 0) return fail('amps: expected a load above 0 A');
  const counted = 1.25 * load.continuousAmps + rest;
  return demand({
    amps,
    counted,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Load for conductor and breaker',
        working: `1.25 × ${load.continuousAmps} A + ${rest} A = ${round(counted, 2)} A`,
        section: '210.19(A)(1), 210.20(A)',
      },
    ],
  });
}

const CORD_SHARE: PerEdition<string> = {
  '2017': '210.21(B)(2), 210.23(A)(1)',
  '2020': '210.21(B)(2), 210.23(A)(1)',
  '2023': '210.21(B)(2), 210.23(B)(1)',
};

/** One thing with a cord: 80 % of a circuit with other outlets, 210.23(A)(1); all of one of its own. */
export function cord(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps } = plate.value;
  const counted = load.severalReceptacles ? amps / 0.8 : amps;
  return demand({
    amps,
    counted,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Cord-and-plug load',
        working: load.severalReceptacles
          ? `${plate.value.working}; at most 80 % of the circuit: ${shown(amps)} ÷ 0.8 = ${shown(counted)}`
          : plate.value.working,
        section: load.severalReceptacles ? at(CORD_SHARE, edition) : '210.23',
      },
    ],
  });
}
