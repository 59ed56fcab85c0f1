/** The words a job document is written in: kinds, statuses, gauges, signs. */
export const EDITIONS = ['2017', '2020', '2023'] as const;
export type Edition = (typeof EDITIONS)[number];

export const AREA_KINDS = [
  'bedroom',
  'living',
  'family',
  'dining',
  'den',
  'recreation',
  'sunroom',
  'kitchen',
  'pantry',
  'hallway',
  'foyer',
  'stairs',
  'closet',
  'laundry',
  'bathroom',
  'garage',
  'basement-finished',
  'basement-unfinished',
  'crawl-space',
  'attic',
  'utility',
  'accessory',
  'boathouse',
  'outdoors',
  'deck',
] as const;
export type AreaKind = (typeof AREA_KINDS)[number];

export const OPENING_KINDS = [
  'door',
  'opening',
  'sliding-panel',
  'fixed-glass',
  'window',
  'fireplace',
  'cabinet',
  'railing',
  'bar-counter',
  'blocked',
] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];

export const STATUSES = ['existing', 'new', 'replace', 'remove'] as const;
/** Conductor sizes from thin to thick: AWG to 4/0, thousands of circular mils (kcmil) from 250 on. */
export const GAUGES = [
  ...(['14', '12', '10', '8', '6', '4', '3', '2', '1', '1/0', '2/0', '3/0', '4/0'] as const),
  ...(['250', '300', '350', '400', '500', '600'] as const),
] as const;
export type Gauge = (typeof GAUGES)[number];
export const MATERIALS = ['copper', 'aluminum'] as const;
/** `old NM`: grounded nonmetallic cable from before the mid-1980s, with 60 °C insulation. */
export const CABLES = ['NM-B', 'UF-B', 'SE', 'MC', 'raceway', 'old NM', 'old two-wire'] as const;
export type CableKind = (typeof CABLES)[number];
/** What makes the poles of a breaker open together. */
export const TIES = ['none', 'handle-tie', 'common-trip'] as const;
/** What a job began as: a call at a door, or a house to be planned. */
export const ENTRIES = ['call', 'project'] as const;
/** As what a person works. `owner`: of the dwelling, where local law lets them. */
export const ROLES = ['licensed', 'apprentice', 'owner'] as const;
export type Role = (typeof ROLES)[number];
/** How a breaker was looked for when it was turned off. */
export const FLIP_MEANS = ['eyes', 'helper', 'sound', 'two-phones', 'tone'] as const;
/** Whether a thing is so, is not, or is not on record. */
export const ANSWERS = ['yes', 'no', 'unknown'] as const;
/** Position of a breaker in its space: a tandem holds two circuits in one. */
export const HALVES = ['whole', 'a', 'b'] as const;
/** Hots of a three-wire circuit that a box takes. */
export const HOTS = ['black', 'red', 'both'] as const;
export const BREAKER_PROTECTIONS = ['none', 'gfci', 'afci', 'dual'] as const;
export const RECEPTACLE_KINDS = ['duplex', 'single', 'gfci', 'outlet-afci', 'two-slot'] as const;
/** `junction`: a box with splices and no device. */
export const DEVICE_KINDS = [
  ...RECEPTACLE_KINDS,
  ...(['light', 'switch', 'smoke-alarm', 'hardwired', 'junction'] as const),
] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];

/** Where in the room a box sits. `face-up`: in a counter or sill without an assembly listed for it. */
export const MOUNTS = [
  'wall',
  'floor',
  'ceiling',
  'counter-assembly',
  'face-up',
  'cabinet-face',
  'in-cabinet',
  'in-luminaire',
] as const;
export type Mount = (typeof MOUNTS)[number];

/** What an outlet is there for, where the code treats it apart. */
export const PURPOSES = [
  'general',
  'deicing',
  'alarm-system',
  'ceiling-support',
  'ceiling-fan',
  'vehicle',
  'equipment-service',
] as const;

export const FIXTURE_KINDS = [
  'basin',
  'sink',
  'tub',
  'shower',
  'counter',
  'island',
  'peninsula',
  'appliance-garage',
  'range',
  'cooktop',
  'wall-oven',
  'microwave',
  'hood',
  'refrigerator',
  'dishwasher',
  'disposal',
  'washer',
  'dryer',
  'water-heater',
  'furnace',
  'air-handler',
  'outdoor-unit',
  'heat-pump',
  'evaporative-cooler',
  'sump-pump',
  'kiln',
  'vehicle-charger',
  'television',
  'baseboard-heater',
  'floor-heat',
  'bath-heater',
  'exhaust-fan',
  'tankless-heater',
  'boiler',
  'hood-microwave',
  'toilet',
  'bidet-seat',
  'room-cooler',
  'motor',
  'fixed-equipment',
  'hydromassage-tub',
  'hot-tub',
  'pool',
  'fountain',
  'sauna',
  'generator',
  'inverter',
] as const;
export type FixtureKind = (typeof FIXTURE_KINDS)[number];

/** What a conductor looks like; `armor` is the metal sheath of a cable, `cloth` is rubber or cloth of no color left. */
export const COLORS = [
  ...(['black', 'red', 'blue', 'white', 'gray', 'green', 'bare', 'cloth'] as const),
  ...(['yellow', 'orange', 'brown', 'purple', 'armor'] as const),
] as const;
export type Color = (typeof COLORS)[number];
/**
 * What a conductor is there for, whatever it looks like. `hot` is of the leg of the circuit's first pole, `hot-b` of the
 * second; `switched` comes from the last switch on its way.
 */
export const CONDUCTOR_FUNCTIONS = [
  ...(['hot', 'hot-b', 'switched', 'switched-b', 'traveler-1', 'traveler-2'] as const),
  ...(['interconnect', 'neutral', 'ground', 'spare', 'unknown'] as const),
] as const;
export type ConductorFunction = (typeof CONDUCTOR_FUNCTIONS)[number];
/** What joins conductors: twist-on by size class, lever by its number of ways, `-large` from 10 AWG on. */
export const CONNECTORS = [
  ...(['small twist-on', 'medium twist-on', 'large twist-on', 'extra-large twist-on'] as const),
  ...(['2-way lever', '3-way lever', '5-way lever', '8-way lever'] as const),
  ...(['2-way lever, large', '3-way lever, large', '5-way lever, large'] as const),
  ...(['aluminum-rated lug connector', 'crimp', 'terminal block', 'none', 'unknown'] as const),
] as const;
export type ConnectorKind = (typeof CONNECTORS)[number];
/** How a device is built where that changes how it is wired. */
export const DEVICE_BUILDS = ['usual', 'dimmer', 'smart', 'smart-no-neutral', 'lead-wired'] as const;
/** The devices that have terminals of their own, as they are wired. */
export const YOKES = [
  ...(['duplex', 'single', 'two-slot', 'gfci', 'outlet-afci', 'lead-wired duplex'] as const),
  ...(['250 V receptacle', 'four-wire receptacle', 'three-wire receptacle', 'combination duplex'] as const),
  ...(['single-pole', 'three-way', 'four-way', 'double-pole'] as const),
  ...(['dimmer', 'three-way dimmer', 'smart switch', 'smart switch, no neutral'] as const),
  ...(['light', 'fan', 'smoke alarm', 'equipment', '240 V equipment', '125/250 V equipment'] as const),
  '125/250 V equipment, three wires',
] as const;
export type YokeKind = (typeof YOKES)[number];
/** How a cable or raceway goes through a box: its conductors end there, pass unbroken, or loop through. */
export const STANDS = ['ends', 'passes', 'loops'] as const;
/** Ways of joining what goes on: behind the device by a tail, or through its own terminals. */
export const JOININGS = ['pigtail', 'feed-through'] as const;
/** Order in which the terminals of a device are landed. */
export const LANDING_ORDERS = ['ground-neutral-hot', 'hot-neutral-ground'] as const;
/** Half of a duplex that a reading speaks of. */
export const HALVES_READ = ['both', 'top', 'bottom'] as const;
/** What a value was read with. */
export const INSTRUMENTS = [
  'two-pole tester',
  'low-impedance meter',
  'high-impedance meter',
  'clamp meter',
  'three-lamp tester',
  'voltage pen',
] as const;
export type Instrument = (typeof INSTRUMENTS)[number];
/** What the volts of a reading were read with, as far as somebody said: it decides whether a ghost shows. */
export const METERS = ['unknown', 'low-impedance meter', 'high-impedance meter', 'two-pole tester'] as const;
export type Meter = (typeof METERS)[number];
/** What a measurement is made with. */
export const MEASURING = [
  ...(['low-impedance meter', 'high-impedance meter', 'two-pole tester', 'three-lamp tester'] as const),
  ...(['voltage pen', 'clamp meter', 'ohmmeter', 'insulation tester', 'loading analyzer'] as const),
  ...(['tone receiver', 'plug-in GFCI tester', 'own button', 'breaker finder'] as const),
] as const;
export type Measuring = (typeof MEASURING)[number];
/** How the conductor that was touched stood then. */
export const JOINED = ['joined', 'separated', 'unknown'] as const;
/** A lamp that shows something and not what it should is dim. */
export const LAMP_LEVELS = ['dark', 'dim', 'lit'] as const;
export type LampLevel = (typeof LAMP_LEVELS)[number];
/** What an instrument showed: a figure, more than its scale has, nothing, that it refuses what is live, what opened or held. */
export const SHOWN = ['value', 'over', 'nothing', 'live', 'sounds', 'lamps', 'trips', 'holds'] as const;
/** What is changed in a box for a measurement and has to be undone after it. */
export const TEMPORARIES = ['tie', 'separated'] as const;
/**
 * What shows that the breaker made a box dead: it was live there before; or it could not be, since the work is new, the
 * outlet was dead or a device upstream had tripped; or its home run is not landed, so that it cannot be live by
 * construction; or another box was proved under the same lock-out, which still stands. `earlier` proofs and overrides were recorded in a form that no longer opens a box.
 */
export const PROOF_BASES = [
  'live-before',
  'new-work',
  'dead-outlet',
  'tripped-device',
  'not-landed',
  'same-lock-out',
  'earlier-proof',
  'earlier-override',
] as const;
/** What shows that the breaker that is off feeds a box that was dead before: nothing yet, or one of these. */
export const FEEDS_SHOWN = ['not-shown', 'tone', 'went-dead', 'reset', 'all-off'] as const;
/** What conductors are read to. */
export const REFERENCES = ['ground', 'metal-box', 'lead', 'none'] as const;
/** What else may feed a house beside the utility through one main. */
export const OTHER_SOURCES = ['generator', 'inverter', 'battery', 'second-feed'] as const;
export type OtherSource = (typeof OTHER_SOURCES)[number];
export const TEST_KINDS = ['gfci', 'afci'] as const;
export const INDICATORS = ['none', 'good', 'fault'] as const;
/** Lamps of a plug-in tester from left to right: hot–neutral (HN), hot–ground (HG), neutral–ground (NG). */
export const LAMP_ORDERS = ['HN HG NG', 'HN NG HG', 'HG HN NG', 'HG NG HN', 'NG HN HG', 'NG HG HN'] as const;
export const LAMP_COLORS = ['amber', 'red', 'green', 'white', 'blue'] as const;
/** What eyes and fingers find at an old device. */
export const SIGNS = [
  'back-stabbed',
  'heat marks',
  'worn contacts',
  'painted',
  'cracked',
  'aluminum',
  'cloth insulation',
  'loose',
] as const;
export type Sign = (typeof SIGNS)[number];
export const PANEL_SIGNS = [
  'rust',
  'heat',
  'water',
  'no directory',
  'missing cover screws',
  'not trusted to trip',
] as const;
/** Luminaires as 410.16 (closets) and 410.10(D) (tubs) tell them apart. */
export const LUMINAIRES = [
  'unknown',
  'surface-enclosed',
  'surface-open',
  'recessed-enclosed',
  'recessed-open',
  'hanging',
  'track',
  'fan',
] as const;
/** What a cable passes on its way: the dampest of it. */
export const ROUTES = ['unknown', 'dry', 'damp', 'wet', 'buried'] as const;
/** How equipment is parted from its supply for work on it. */
export const DISCONNECTS = ['unknown', 'in-sight', 'lockable', 'none'] as const;
/** The outdoor disconnect of a dwelling’s service. */
export const OUTDOOR_DISCONNECTS = ['unknown', 'none', 'service-disconnect', 'emergency-only'] as const;
/** Grounding electrodes of 250.52(A). */
export const ELECTRODES = ['water-pipe', 'footing', 'rod', 'plate', 'ring'] as const;
/** What somebody saw who looked: `not-seen` was looked for and could not be seen. */
export const LOOK_RESULTS = ['in-order', 'not-in-order', 'not-seen'] as const;
export const DWELLINGS = ['one-family', 'two-family', 'multifamily'] as const;

/** What a price book gives prices for: cable by the foot, breakers, devices, and the trouble of a new room. */
export const PRICE_ITEMS = [
  ...(['14', '12', '10', '8', '6'] as const).flatMap(
    (gauge) => [`cable-${gauge}-2`, `cable-${gauge}-3`] as const,
  ),
  'breaker',
  'breaker-afci',
  'breaker-gfci',
  'breaker-dual',
  'breaker-two-pole',
  'breaker-two-pole-gfci',
  'gfci-receptacle',
  'room-change',
] as const;
export type PriceItem = (typeof PRICE_ITEMS)[number];

/** Where a fault was. */
export const FAULT_PLACES = ['box', 'cable', 'panel', 'service', 'plugged'] as const;
/** How a repair stood its test under load. */
export const RETESTS = ['held', 'not yet'] as const;
