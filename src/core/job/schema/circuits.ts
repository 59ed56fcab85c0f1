/** Panels, breakers and the runs they feed. */
import * as yup from 'yup';
import { entity, flag, id, inches, list, name, number, text, whole, word } from './fields.ts';
import {
  ANSWERS,
  BREAKER_PROTECTIONS,
  CABLES,
  ELECTRODES,
  GAUGES,
  HALVES,
  HOTS,
  JOININGS,
  MATERIALS,
  OUTDOOR_DISCONNECTS,
  PANEL_SIGNS,
  ROUTES,
  STATUSES,
  TIES,
} from './words.ts';

/** The panel as it was found. */
export const panelFoundSchema = entity({
  protection: yup
    .string()
    .strict()
    .defined()
    .oneOf(['breakers', 'fuses', 'pull-outs'] as const),
  signs: list(yup.string().strict().defined().oneOf(PANEL_SIGNS), PANEL_SIGNS.length),
  fillersMissing: whole(0, 84),
  doubledLugs: whole(0, 84),
  /** Each breaker or fuse with what its directory says. */
  breakers: list(
    entity({
      space: whole(1, 84),
      rating: yup.number().strict().defined().min(5).max(400),
      poles: whole(1, 2),
      label: text(80),
    }),
    84,
  ),
});

/** As found or planned, standard or not: what is not standard is advised against, 240.6(A). */
const breakerRating = () => number(5, 400).meta({ unit: 'A' });
const gaugeOnRecord = () =>
  yup
    .string()
    .strict()
    .defined()
    .nullable()
    .oneOf([...GAUGES, null]);

/** What conductors meet on their way. */
const way = {
  /** Hottest surroundings. */
  ambient: number(-40, 85).meta({ unit: '°C' }),
  /** Current-carrying conductors bundled, its own included. */
  bundled: whole(1, 100),
};

/** The feeder of a subpanel: the breaker it leaves from and the conductors between. */
export const feederSchema = entity({
  panelId: id(),
  space: whole(1, 84),
  rating: breakerRating(),
  gauge: word(GAUGES),
  material: word(MATERIALS),
  cable: word(CABLES),
  status: word(STATUSES),
  /** An equipment ground runs with it: four wires. */
  ground: flag(),
  ...way,
  /** Measured length, inches. */
  measured: inches(1, 24000).nullable(),
});

export const panelSchema = entity({
  id: id(),
  levelId: id(),
  name: name(),
  x: inches(-24000, 24000),
  y: inches(-24000, 24000),
  mainRating: number(30, 3000),
  busRating: number(30, 3000),
  spaces: whole(2, 84),
  /** Its main, bus and spaces were read; else the figures stand in for what nobody knows. */
  known: word(ANSWERS),
  /** Spaces that the panel’s label allows a tandem in. */
  tandemSpaces: list(whole(1, 84), 84),
  /** Null for the panel at the service. */
  feeder: feederSchema.nullable(),
  /** One main opens all that feeds this panel. */
  oneMain: word(ANSWERS),
  /** The screw or strap that joins neutral and enclosure is in. */
  bonded: flag(),
  /** In another building than the panel that feeds it. */
  otherBuilding: flag(),
  /** A grounding electrode is connected here. */
  electrode: flag(),
  status: word(STATUSES),
  /** Clear space in front of it, 110.26(A), and the height of its highest handle; null where not measured. */
  clear: entity({
    width: inches(0, 600).nullable(),
    depth: inches(0, 600).nullable(),
    height: inches(0, 600).nullable(),
    highestHandle: inches(0, 240).nullable(),
  }),
  /** Pipes, ducts or what is foreign in its footprint, from the floor to 6 ft above it, 110.26(E). */
  foreignAbove: word(ANSWERS),
  /** Of the panel at the service. */
  service: entity({
    gauge: gaugeOnRecord(),
    material: word(MATERIALS),
    surge: word(ANSWERS),
    outdoorDisconnect: word(OUTDOOR_DISCONNECTS),
    /** Null where nobody looked. */
    electrodes: list(word(ELECTRODES), ELECTRODES.length).nullable(),
    /** Rods, where there are any. */
    rods: whole(0, 8),
    /** One rod proved to be of 25 Ω or less. */
    rodProved: word(ANSWERS),
    waterBonded: word(ANSWERS),
    gasBonded: word(ANSWERS),
    /** Bar for the bonding of communications, 250.94. */
    intersystem: word(ANSWERS),
  }),
  /** What the next one to look for a fault should know. */
  note: text(),
  found: panelFoundSchema.nullable(),
});

export const stopSchema = entity({
  boxId: id(),
  /** The box that feeds this one; null is the panel. */
  from: id().nullable(),
  /** Measured cable length from the feeding box, when taken on site. */
  measured: inches(1, 24000).nullable(),
  /** This segment's own gauge where it differs from the circuit's. */
  gauge: gaugeOnRecord(),
  /** Terminals of a protecting device in the feeding box that this cable leaves from. */
  side: word(['load', 'line'] as const),
  /** Whether what goes on is joined behind the device or carried through its terminals; `school`: as the job does it. */
  splice: word(['school', ...JOININGS] as const),
  /** This segment's own cable where it differs from the circuit's. */
  cable: yup
    .string()
    .strict()
    .defined()
    .nullable()
    .oneOf([...CABLES, null]),
  /** Hots of a three-wire circuit that the box takes. */
  hot: word(HOTS),
  /** The white of this cable marked as a hot at every end, where it serves as one. */
  whiteMarked: word(ANSWERS),
});

export const circuitSchema = entity({
  id: id(),
  panelId: id(),
  space: whole(1, 84),
  half: word(HALVES),
  /** Space of the second pole where it is not the one below the first. */
  otherSpace: whole(1, 84).nullable(),
  name: name(),
  status: word(STATUSES),
  breaker: entity({
    rating: breakerRating(),
    protection: word(BREAKER_PROTECTIONS),
    /** 1 for a 120 V circuit, 2 for 240 V and multiwire. */
    poles: yup
      .number()
      .strict()
      .defined()
      .oneOf([1, 2] as const),
    /** Of a breaker with two poles. */
    tie: word(TIES),
    /** Marked as suited to this panel. */
    listed: word(ANSWERS),
  }),
  /** A neutral runs with the hots; a plain 240 V circuit has none. */
  neutral: flag(),
  gauge: word(GAUGES),
  material: word(MATERIALS),
  cable: word(CABLES),
  /** Its conductors were looked at; else gauge, material and cable stand in for what nobody knows. */
  seen: word(ANSWERS),
  /** Equipment ground as it was seen; null where nobody looked. */
  ground: gaugeOnRecord(),
  route: word(ROUTES),
  /** Least cover over what is buried, inches; null where it was not measured. */
  cover: inches(0, 120).nullable(),
  ...way,
  /** Every outlet that it feeds is on record. */
  complete: word(ANSWERS),
  /** Which box feeds which is on record; else the stops are in no order that anybody saw. */
  ordered: word(ANSWERS),
  /** Outlets of which one is fed from the panel, as far as that is known; empty where any may be. */
  mayBeFirst: list(id(), 400),
  stops: list(stopSchema, 400),
});
