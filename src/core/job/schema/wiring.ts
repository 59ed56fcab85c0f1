/** What is joined to what inside a box, and the ways in which shops join it. */
import * as yup from 'yup';
import { entity, flag, id, list, text, time, word } from './fields.ts';
import {
  COLORS,
  CONDUCTOR_FUNCTIONS,
  CONNECTORS,
  GAUGES,
  JOININGS,
  LANDING_ORDERS,
  MATERIALS,
  STANDS,
  YOKES,
} from './words.ts';

/** Name of a part within its box. */
const partName = () => text(90).trim().min(1);

const conductorSchema = entity({
  /** Its name in the cable, the same at both ends: its color, with a number where there are several alike. */
  id: partName(),
  color: word(COLORS),
  function: word(CONDUCTOR_FUNCTIONS),
  gauge: yup
    .string()
    .strict()
    .defined()
    .nullable()
    .oneOf([...GAUGES, null]),
  material: word(MATERIALS),
  /** Color of the tape or paint that it is marked with at this end. */
  mark: yup
    .string()
    .strict()
    .defined()
    .nullable()
    .oneOf([...COLORS, null]),
});

export const boxWiringSchema = entity({
  cables: list(
    entity({
      id: partName(),
      /** `feed`, the id of the box that it goes on to, or `unknown`. */
      toward: text(80).trim().min(1),
      /** Null: the circuit of the outlet itself. */
      circuitId: id().nullable(),
      raceway: flag(),
      stands: word(STANDS),
      conductors: list(conductorSchema, 40),
    }),
    24,
  ),
  yokes: list(entity({ id: partName(), kind: word(YOKES), hotTab: flag(), neutralTab: flag() }), 6),
  splices: list(entity({ id: partName(), connector: word(CONNECTORS) }), 40),
  /** Short conductors within the box; each has two ends, `<id>.a` and `<id>.b`. */
  tails: list(entity({ id: partName(), color: word(COLORS), function: word(CONDUCTOR_FUNCTIONS) }), 60),
  /** Where each end stands: a splice, a terminal, `box`, or null where it is capped. Ends not looked at are left out. */
  places: list(entity({ end: partName(), at: text(90).trim().min(1).nullable() }), 400),
});

/** A box's wiring as someone recorded it. */
export const recordedSchema = entity({
  stage: word(['as-found', 'as-done'] as const),
  /** Null where it was not put down. */
  at: time().nullable(),
  by: text(80),
  wiring: boxWiringSchema,
});

/** Ways of working that shops differ in; all of them are allowed, with the exceptions that the steps name. */
export const schoolSchema = entity({
  joining: word(JOININGS),
  connector: word(['twist-on', 'lever'] as const),
  /** Tape around the terminals of a device before it is folded in. */
  tape: flag(),
  groundSlot: word(['up', 'down'] as const),
  landing: word(LANDING_ORDERS),
  /** How a metal box is bonded. */
  bond: word(['tail', 'clip'] as const),
});
