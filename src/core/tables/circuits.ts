/** What circuits may be shared for, per edition. */
import { type PerEdition } from './editions.ts';

/** EV charging up to this may share a circuit, 625.40; none in 2017. */
export const VEHICLE_SHARED: PerEdition<{ amps: number; volts: number } | null> = {
  '2017': null,
  '2020': { amps: 16, volts: 120 },
  '2023': { amps: 16, volts: 120 },
};

/** Largest circuit of several receptacles of 15 and 20 A in a dwelling, amperes. */
export const SEVERAL_MOST = 20;
export const SEVERAL_SECTION: PerEdition<string> = {
  '2017': '210.21(B)(3), 210.23(A)',
  '2023': '210.21(B)(3), 210.23(B)',
};

/** One thing by cord beside other outlets, and what is fastened beside them. */
export const CORD_SHARE_SECTION: PerEdition<string> = {
  '2017': '210.21(B)(2), 210.23(A)(1)',
  '2023': '210.21(B)(2), 210.23(B)(1)',
};
export const FIXED_SHARE_SECTION: PerEdition<string> = { '2017': '210.23(A)(2)', '2023': '210.23(B)(2)' };

/** Share of its rating that conductors of a whole dwelling, of 100 to 400 A, must carry. */
export const DWELLING_SHARE = 0.83;
export const DWELLING_SECTION: PerEdition<string> = { '2017': '310.15(B)(7)', '2020': '310.12' };
