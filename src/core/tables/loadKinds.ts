/** Kinds of load: of a branch circuit, by which it is sized, and of the dwelling, Article 220. */
export const BRANCH_LOADS = [
  'general',
  'cord',
  'appliance',
  'water-heater',
  'tankless-heater',
  'space-heat',
  'range',
  'oven-or-cooktop',
  'dryer',
  'cooling',
  'room-cooler',
  'kiln',
  'vehicle',
  'motor',
] as const;
/** `several`: loads on one circuit, each a part. */
export type BranchLoadKind = (typeof BRANCH_LOADS)[number] | 'several';

export const DWELLING_LOADS = [
  'appliance',
  'range',
  'dryer',
  'cooling',
  'heat-pump',
  'supplementary-heat',
  'space-heat',
  'storage-heat',
  'vehicle',
] as const;
export type DwellingLoadKind = (typeof DWELLING_LOADS)[number];
