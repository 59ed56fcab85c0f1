/** What a load asks of its circuit, by its kind. */
import type { Edition } from '#core/job/schema.ts';
import { type Result } from '#core/units/result.ts';
import { general, cord } from './general.ts';
import { appliance, continuous, tankless } from './appliance.ts';
import { spaceHeat } from './spaceHeat.ts';
import { range, ovenOrCooktop } from './cooking.ts';
import { dryer } from './dryer.ts';
import { cooling, roomCooler } from './cooling.ts';
import { vehicle } from './vehicle.ts';
import { motor } from './motor.ts';
import type { BranchLoad, Demand } from './demand.ts';

/** What a load of one kind asks of its circuit by its current, or which number is missing or which limits do not meet. */
export function demandByKind(load: BranchLoad, edition: Edition): Result<Demand> {
  switch (load.kind) {
    case 'general':
    case 'several':
      return general(load);
    case 'cord':
      return cord(load, edition);
    case 'appliance':
      return appliance(load, edition);
    case 'water-heater':
      // Trade habit for 4,500 W: 30 A on 10 AWG.
      return continuous(load, '422.13', 30);
    case 'tankless-heater':
      return tankless(load);
    case 'kiln':
      return continuous(load, '210.19(A)(1), 210.20(A)', null);
    case 'space-heat':
      return spaceHeat(load, edition);
    case 'range':
      return range(load, edition);
    case 'oven-or-cooktop':
      return ovenOrCooktop(load);
    case 'dryer':
      return dryer(load);
    case 'cooling':
      return cooling(load);
    case 'room-cooler':
      return roomCooler(load);
    case 'vehicle':
      return vehicle(load, edition);
    case 'motor':
      return motor(load);
  }
}
