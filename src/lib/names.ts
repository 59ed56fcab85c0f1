/** Words for the kinds and states the document records. */
import { FIXTURES } from '#core/tables/fixtures.ts';
import { sizeName, STANDARD_BREAKERS } from '#core/tables/conductors.ts';
import { AREA_FACTS } from '#core/tables/areas.ts';
import {
  AREA_KINDS,
  FIXTURE_KINDS,
  GAUGES,
  type Box,
  type Circuit,
  type Fixture,
  type Instrument,
  type OpeningKind,
  type OtherSource,
  type Panel,
  type Proof,
  type Stop,
} from '#core/job/schema.ts';

type Options<T> = readonly { value: T; name: string }[];
const options = <T extends string>(names: Record<T, string>): Options<T> =>
  (Object.entries(names) as [T, string][]).map(([value, name]) => ({ value, name }));

export const AREA_OPTIONS = AREA_KINDS.map((value) => ({ value, name: AREA_FACTS[value].label }));

export const OPENING_NAMES: Record<OpeningKind, string> = {
  door: 'Door',
  opening: 'Cased opening',
  'sliding-panel': 'Sliding glass panel',
  'fixed-glass': 'Window to the floor, fixed',
  window: 'Window',
  fireplace: 'Fireplace',
  cabinet: 'Fixed cabinet, no counter',
  railing: 'Railing',
  'bar-counter': 'Free-standing bar counter',
  blocked: 'No box possible here',
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
  'outlet-afci': 'AFCI receptacle',
  'two-slot': 'Two-slot, no ground',
  light: 'Light',
  switch: 'Switch',
  'smoke-alarm': 'Smoke alarm',
  hardwired: 'Fixed equipment, no plug',
  junction: 'Junction box, no device',
});
/** A device in words, with how it is built where that matters. */
export const deviceName = ({ device }: Box): string => {
  const kind = DEVICE_OPTIONS.find((o) => o.value === device.kind)!.name;
  const build =
    device.build === 'usual' ? '' : `, ${BUILD_OPTIONS.find((o) => o.value === device.build)!.name}`;
  return `${kind}${build}`;
};
export const BUILD_OPTIONS: Options<Box['device']['build']> = options({
  usual: 'plain',
  dimmer: 'dimmer',
  smart: 'smart, takes a neutral',
  'smart-no-neutral': 'smart, without a neutral',
  'lead-wired': 'with leads',
});
/** Ways in which a kind of device is built. */
export const buildsOf = (kind: Box['device']['kind']): typeof BUILD_OPTIONS =>
  BUILD_OPTIONS.filter(({ value }) =>
    kind === 'switch'
      ? value !== 'lead-wired'
      : kind === 'duplex'
        ? value === 'usual' || value === 'lead-wired'
        : value === 'usual',
  );

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

const PROTECTION_NAMES: Record<Circuit['breaker']['protection'], string> = {
  none: '',
  afci: 'AFCI',
  gfci: 'GFCI',
  dual: 'AFCI + GFCI',
};
/** What a breaker is beside its rating, in a word or two. */
export const breakerWords = ({ breaker }: Pick<Circuit, 'breaker'>): string =>
  [PROTECTION_NAMES[breaker.protection], breaker.poles === 2 ? '2-pole' : ''].filter(Boolean).join(', ');
export const TIE_OPTIONS: Options<Circuit['breaker']['tie']> = options({
  'common-trip': 'Trip together',
  'handle-tie': 'Handles tied',
  none: 'Neither',
});
/** Whether a thing is so. */
export const ANSWER_OPTIONS: Options<Circuit['complete']> = options({
  yes: 'Yes',
  no: 'No',
  unknown: 'Not known',
});
export const LISTED_OPTIONS: Options<Circuit['breaker']['listed']> = options({
  unknown: 'Not looked at',
  yes: 'Yes, its label names it',
  no: 'No',
});
export const HALF_OPTIONS: Options<Circuit['half']> = options({
  whole: 'The whole space',
  a: 'Upper half of a tandem',
  b: 'Lower half of a tandem',
});
export const SIDE_OPTIONS: Options<Stop['side']> = options({
  load: 'Load side, protected on',
  line: 'Line side, not protected',
});
export const SPLICE_OPTIONS: Options<Stop['splice']> = options({
  school: 'As the job does it',
  pigtail: 'Joined, device on a pigtail',
  'feed-through': 'Through the device’s screws',
});
export const HOT_OPTIONS: Options<Stop['hot']> = options({
  black: 'Black',
  red: 'Red',
  both: 'Black and red',
});
export const WHITE_OPTIONS: Options<Stop['whiteMarked']> = options({
  unknown: 'Not looked at',
  yes: 'Marked at both ends',
  no: 'Not marked',
});
export const TAB_OPTIONS: Options<Box['device']['tabs']> = options({
  whole: 'Both in place',
  'hot-broken': 'Hot tab off',
  'both-broken': 'Both tabs off',
});

const amperes = <T extends number>(ratings: readonly T[]) =>
  ratings.map((value) => ({ value, name: `${value} A` }));
export const RATING_OPTIONS = amperes([15, 20, 30, 50] as const);
/** Largest breaker of a branch circuit to choose from, amperes. */
const BRANCH_MOST = 150;
const withFound = (ratings: readonly number[], found: number) =>
  amperes([...new Set([...ratings, found])].sort((a, b) => a - b));
/** Breakers to choose from, with the one found though it may not be a standard one. */
export const breakerOptions = (found: number) =>
  withFound([10, ...STANDARD_BREAKERS.filter((r) => r <= BRANCH_MOST)], found);
export const feederOptions = (found: number) =>
  withFound(
    STANDARD_BREAKERS.filter((r) => r >= 30),
    found,
  );
export const GAUGE_OPTIONS = GAUGES.map((value) => ({ value, name: sizeName(value) }));
export const MATERIAL_OPTIONS = options({ copper: 'Copper', aluminum: 'Aluminum' });
export const CABLE_OPTIONS: Options<Circuit['cable']> = options({
  'NM-B': 'NM-B',
  'UF-B': 'UF-B',
  SE: 'SE',
  MC: 'MC',
  raceway: 'Single conductors in raceway',
  'old NM': 'Old NM with ground, 60 °C',
  'old two-wire': 'Old two-wire',
});

/** Of what an eye tells: nobody looked until somebody says so. */
export const SEEN_OPTIONS = options({ unknown: 'Not looked at', yes: 'Yes', no: 'No' });
export const LUMINAIRE_OPTIONS: Options<Box['seen']['luminaire']> = options({
  unknown: 'Not looked at',
  'surface-enclosed': 'Surface, lamp enclosed',
  'surface-open': 'Surface, lamp open',
  'recessed-enclosed': 'Recessed, lamp enclosed',
  'recessed-open': 'Recessed, lamp open',
  hanging: 'Hanging',
  track: 'Track',
  fan: 'Paddle fan',
});
export const ROUTE_OPTIONS: Options<Circuit['route']> = options({
  unknown: 'Not said',
  dry: 'Dry places only',
  damp: 'Damp places too',
  wet: 'Wet places too',
  buried: 'In the earth',
});
export const DISCONNECT_OPTIONS: Options<Fixture['disconnect']> = options({
  unknown: 'Not looked at',
  'in-sight': 'In sight',
  lockable: 'Breaker that locks',
  none: 'Neither',
});
export const OUTDOOR_DISCONNECT_OPTIONS: Options<Panel['service']['outdoorDisconnect']> = options({
  unknown: 'Not looked at',
  none: 'None',
  'service-disconnect': 'Service disconnect',
  'emergency-only': 'Emergency only, marked so',
});
export const ELECTRODE_NAMES: Record<NonNullable<Panel['service']['electrodes']>[number], string> = {
  'water-pipe': 'Water pipe',
  footing: 'Footing',
  rod: 'Rod',
  plate: 'Plate',
  ring: 'Ring',
};
/** A gauge, or none where nobody looked. */
export const SEEN_GAUGE_OPTIONS = [
  { value: '', name: 'Not looked at' },
  ...GAUGES.map((value) => ({ value, name: sizeName(value) })),
];
export const MAIN_OPTIONS: Options<Panel['oneMain']> = options({
  unknown: 'Not looked at',
  yes: 'Yes',
  no: 'No: split bus, or a second feed',
});
export const BASIS_OPTIONS: Options<Proof['basis']> = options({
  'live-before': 'It was live here, then I switched it off',
  'new-work': 'New work, never live yet',
  'dead-outlet': 'The outlet was dead before',
  'tripped-device': 'A device upstream has tripped',
  'not-landed': 'Its home run is not landed',
  'same-lock-out': 'Same lock-out as the box before',
  'earlier-proof': 'Earlier form',
  'earlier-override': 'Earlier override',
});
export const FEEDS_OPTIONS: Options<Proof['feeds']> = options({
  'not-shown': 'Nothing yet',
  'went-dead': 'Something else of this run went dead with it',
  tone: 'Tone from here is loudest at it',
  reset: 'A device was reset, this was live, then off',
  'all-off': 'Every breaker that may feed it is off and locked',
}).filter((o) => o.value !== 'not-shown');
export const REFERENCE_OPTIONS: Options<Proof['reference']> = options({
  ground: 'The ground in this box',
  'metal-box': 'The metal box',
  lead: 'A lead from a proven ground',
  none: 'None to be had',
});
export const SOURCE_OPTIONS: Options<OtherSource> = options({
  generator: 'Generator',
  inverter: 'Solar or other inverter',
  battery: 'Battery',
  'second-feed': 'A second feed',
});
export const TESTER_OPTIONS = [
  { value: 'two-pole tester', name: 'Two-pole tester' },
  { value: 'low-impedance meter', name: 'Meter, low Z' },
  { value: 'high-impedance meter', name: 'Meter, high Z' },
] as const satisfies Options<Instrument>;

export const VOLTS_OPTIONS: Options<Box['device']['volts']> = options({
  '125': '125 V',
  '250': '250 V',
  '125/250': '125/250 V',
});
export const COVER_OPTIONS: Options<Box['device']['cover']> = options({
  indoor: 'Indoor plate',
  weatherproof: 'Weatherproof cover, nothing plugged in',
  'in-use': 'In-use cover',
});
export const SWITCHED_OPTIONS: Options<Box['device']['switched']> = options({
  none: 'Always hot',
  half: 'One half controlled',
  whole: 'Both halves controlled',
});
export const MOUNT_OPTIONS: Options<Box['mount']> = options({
  wall: 'Wall',
  floor: 'Floor',
  ceiling: 'Ceiling',
  'counter-assembly': 'Counter, listed assembly',
  'face-up': 'Counter or sill, face up',
  'cabinet-face': 'Side or face of a cabinet',
  'in-cabinet': 'Inside a cabinet',
  'in-luminaire': 'Part of a luminaire',
});
export const PURPOSE_OPTIONS: Options<Box['purpose']> = options({
  general: 'General use',
  deicing: 'De-icing',
  'alarm-system': 'Alarm system',
  'ceiling-support': 'Carries fan or luminaire',
  'ceiling-fan': 'Inside a factory-made fan',
  vehicle: 'EV charging',
  'equipment-service': 'To service equipment',
});

export const FIXTURE_OPTIONS = FIXTURE_KINDS.map((value) => ({ value, name: FIXTURES[value].label }));
export const CONNECTION_OPTIONS: Options<Fixture['connection']> = options({
  none: 'No electricity',
  cord: 'Cord and plug',
  hardwired: 'Wired, no plug',
});
