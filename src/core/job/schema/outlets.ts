/** Boxes, the devices in them, and what was found behind old ones. */
import * as yup from 'yup';
import { MAX_WALL, id, text, word, name, flag, inches, entity, list, number, whole } from './fields.ts';
import { recordedSchema, schoolSchema } from './wiring.ts';
import {
  ANSWERS,
  DEVICE_BUILDS,
  DEVICE_KINDS,
  LUMINAIRES,
  MOUNTS,
  PURPOSES,
  SIGNS,
  STATUSES,
} from './words.ts';

export const deviceSchema = entity({
  kind: yup.string().strict().defined().oneOf(DEVICE_KINDS),
  rating: yup
    .number()
    .strict()
    .defined()
    .oneOf([15, 20, 30, 50] as const),
  volts: yup
    .string()
    .strict()
    .defined()
    .oneOf(['125', '250', '125/250'] as const),
  tamperResistant: flag(),
  weatherResistant: flag(),
  cover: yup
    .string()
    .strict()
    .defined()
    .oneOf(['indoor', 'weatherproof', 'in-use'] as const),
  /** Which contacts are controlled rather than always hot. */
  switched: yup
    .string()
    .strict()
    .defined()
    .oneOf(['none', 'half', 'whole'] as const),
  /** Controlled by an automatic device or for energy management, not by a plain wall switch. */
  automatic: flag(),
  /** Marked “Controlled” on its face. */
  markedControlled: flag(),
  build: word(DEVICE_BUILDS),
  /** Break-off tabs between the halves of a duplex. */
  tabs: word(['whole', 'hot-broken', 'both-broken'] as const),
});

/** What was found when an old box was opened; what is joined to what in it is its wiring. */
export const foundSchema = entity({
  signs: list(yup.string().strict().defined().oneOf(SIGNS), SIGNS.length),
  boxMaterial: yup
    .string()
    .strict()
    .defined()
    .oneOf(['metal', 'plastic', 'unknown'] as const),
  /** Cubic inches. */
  boxVolume: yup.number().strict().defined().nullable().min(1).max(400),
  /** Years; null when not known. */
  deviceAge: yup.number().strict().defined().nullable().min(0).max(150),
});

export const boxSchema = entity({
  id: id(),
  name: name(),
  areaId: id(),
  /** Null: its place is not on the plan. */
  wallId: id().nullable(),
  /** Where it is in words, as “left of the bed”. */
  spot: text(80),
  /** Center of the box from the wall's start. */
  offset: inches(0, MAX_WALL),
  /** How far out from the wall line; more than 0 is a floor outlet. */
  fromWall: inches(0, MAX_WALL),
  /** Center of the box above the floor. */
  height: inches(0, 480),
  status: yup.string().strict().defined().oneOf(STATUSES),
  grounding: yup
    .string()
    .strict()
    .defined()
    .oneOf(['grounded', 'none', 'unknown'] as const),
  /** Shortest path of a cord to a sink's edge, tub or shower; null when there is none near. */
  waterDistance: inches(0, 1200).nullable(),
  device: deviceSchema,
  mount: yup.string().strict().defined().oneOf(MOUNTS),
  /** The counter, island or vanity it is mounted in or on. */
  fixtureId: id().nullable(),
  /** The appliance it is dedicated to. */
  serves: id().nullable(),
  /** A second appliance with its own half of a duplex. */
  alsoServes: id().nullable(),
  purpose: yup.string().strict().defined().oneOf(PURPOSES),
  /** Can be reached without a ladder, tools or moving what is fastened. */
  accessible: flag(),
  /** Outlets that a switch here controls. */
  controls: list(id(), 60),
  /** The box itself: its room in cubic inches as marked, and whether it clamps cables inside. */
  enclosure: entity({ volume: number(1, 400).nullable(), clamps: word(ANSWERS) }),
  /** Cables that were counted in it; null where nobody looked in. */
  cables: whole(0, 12).nullable(),
  /** What was looked at here; each unknown until somebody did. */
  seen: entity({
    luminaire: word(LUMINAIRES),
    /** A box listed to carry a fan, 314.27(C). */
    fanBox: word(ANSWERS),
    /** A device marked CO/ALR for the aluminum on it, 406.3(C), 404.14(C). */
    aluminumRated: word(ANSWERS),
    /** A neutral of the circuit in the box of a switch, 404.2(C). */
    switchNeutral: word(ANSWERS),
    /** Every label that the outlet needs is on it. */
    labels: word(ANSWERS),
  }),
  found: foundSchema.nullable(),
  /** Its wiring as it was found or done, where that differs from what is planned or nothing was; null as planned. */
  wiring: recordedSchema.nullable(),
  /** How this box is wired where that is another way than the job's. */
  school: schoolSchema.nullable(),
  /** Other circuits with conductors in this box. */
  through: list(id(), 20),
  note: text(),
});
