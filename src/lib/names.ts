/** Words for the kinds and states the document records. */
import { AREA_FACTS } from '../core/code/tables/areas.ts';
import { AREA_KINDS, GAUGES, type Box, type Circuit, type OpeningKind } from '../core/job/schema.ts';

type Options<T> = readonly { value: T; name: string }[];
const options = <T extends string>(names: Record<T, string>): Options<T> =>
  (Object.entries(names) as [T, string][]).map(([value, name]) => ({ value, name }));

export const AREA_OPTIONS = AREA_KINDS.map((value) => ({ value, name: AREA_FACTS[value].label }));

export const OPENING_NAMES: Record<OpeningKind, string> = {
  door: 'Door',
  opening: 'Cased opening',
  'sliding-panel': 'Sliding glass panel',
  'fixed-glass': 'Window to the floor, fixed',
  fireplace: 'Fireplace',
  cabinet: 'Fixed cabinet, no counter',
  'cabinet-with-counter': 'Fixed cabinet with counter',
};
export const OPENING_OPTIONS = options(OPENING_NAMES);

export const HINGE_OPTIONS = options({ none: 'Not into this room', start: 'Near jamb', end: 'Far jamb' });

export const STATUS_OPTIONS: Options<Box['status']> = options({
  existing: 'Existing',
  new: 'New',
  replace: 'Replace',
  remove: 'Remove',
});

export const DEVICE_OPTIONS: Options<Box['device']['kind']> = options({
  duplex: 'Duplex',
  single: 'Single',
  gfci: 'GFCI receptacle',
  'two-slot': 'Two-slot, no ground',
});

export const RATING_OPTIONS = ([15, 20, 30, 50] as const).map((value) => ({ value, name: `${value} A` }));

export const GROUNDING_OPTIONS: Options<Box['grounding']> = options({
  grounded: 'Grounded',
  none: 'No ground',
  unknown: 'Not looked at',
});

export const LOCATION_OPTIONS = options({ dry: 'Dry', damp: 'Damp', wet: 'Wet' });

export const PROTECTION_OPTIONS: Options<Circuit['breaker']['protection']> = options({
  none: 'Plain',
  afci: 'AFCI',
  gfci: 'GFCI',
  dual: 'AFCI + GFCI',
});

export const BREAKER_OPTIONS = ([10, 15, 20, 25, 30, 35, 40, 45, 50, 60] as const).map((value) => ({
  value,
  name: `${value} A`,
}));
export const GAUGE_OPTIONS = GAUGES.map((value) => ({ value, name: `${value} AWG` }));
export const MATERIAL_OPTIONS = options({ copper: 'Copper', aluminium: 'Aluminium' });
export const CABLE_OPTIONS: Options<Circuit['cable']> = options({
  'NM-B': 'NM-B',
  'UF-B': 'UF-B',
  'old two-wire': 'Old two-wire',
});
