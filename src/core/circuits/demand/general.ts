/** Outlets in general, and one thing with a cord. */
import { CORD_SHARE_SECTION } from '#core/tables/circuits.ts';
import { at } from '#core/tables/editions.ts';
import type { Edition } from '#core/job/schema.ts';
import { fail, type Result } from '#core/units/result.ts';
import { demand, plateAmps, shown, type BranchLoad, type Demand } from './demand.ts';

/** What outlets in general draw; what runs three hours or more counts at 125 %. */
export function general(load: BranchLoad): Result<Demand> {
  const given = load.amps !== null || load.watts !== null;
  const plate = given && (load.amps ?? load.watts ?? 0) > 0 ? plateAmps(load) : null;
  if (plate && !plate.ok) return plate;
  const rest = plate?.value.amps ?? 0;
  const amps = rest + load.continuousAmps;
  if (amps <= 0) return fail('amps: expected a load above 0 A');
  const counted = 1.25 * load.continuousAmps + rest;
  const plain = load.continuousAmps === 0;
  return demand({
    amps,
    counted,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Load for conductor and breaker',
        working: plain
          ? plate!.value.working.replace(/ marked$/, '')
          : `1.25 × ${shown(load.continuousAmps)} + ${shown(rest)} = ${shown(counted)}`,
        section: '210.19(A)(1), 210.20(A)',
      },
    ],
  });
}

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
        section: load.severalReceptacles ? at(CORD_SHARE_SECTION, edition) : '210.23',
      },
    ],
  });
}
