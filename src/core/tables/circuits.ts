/** What circuits may be shared for, per edition. */
import { type PerEdition } from './editions.ts';

/** Vehicle charging up to this may share a circuit, 625.40; none in 2017. */
export const VEHICLE_SHARED: PerEdition<{ amps: number; volts: number } | null> = {
  '2017': null,
  '2020': { amps: 16, volts: 120 },
  '2023': { amps: 16, volts: 120 },
};
