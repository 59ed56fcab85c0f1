/** What was measured, proved, amended and photographed. */
import * as yup from 'yup';
import { id, text, name, flag, whole, volts, time, day, entity, list, number, word } from './fields.ts';
import { HALVES_READ, INDICATORS, TEST_KINDS } from './words.ts';

export const readingSchema = entity({
  id: id(),
  boxId: id(),
  /** Box and room as they were called when the reading was taken. */
  place: text(160),
  at: time(),
  by: name(),
  stage: yup
    .string()
    .strict()
    .defined()
    .oneOf(['as-found', 'as-left'] as const),
  instrument: text(80),
  /** Lamps hot–neutral, hot–ground, neutral–ground; null when no lamp tester was used. */
  lamps: yup
    .array(flag())
    .strict()
    .defined()
    .nullable()
    .test(
      'three',
      '${path}: expected three lamps: hot–neutral, hot–ground, neutral–ground',
      (v) => !v || v.length === 3,
    ),
  hotNeutral: volts(),
  hotGround: volts(),
  neutralGround: volts(),
  /** Between the two hots of a 240 V outlet. */
  hotHot: volts(),
  /** Amperes flowing at this outlet while measured. */
  loadAmps: yup.number().strict().defined().min(0).max(50),
  /** Ground path from the outlet to the panel, as an analyzer or meter gives it. */
  groundOhms: number(0, 1e6).nullable(),
  /** Half of a duplex that was read. */
  half: word(HALVES_READ),
  /** Read with power on and the box open, on spread and capped conductors. */
  openBox: flag(),
  note: text(),
  /** The reading this one replaces; that one is kept and struck through. */
  corrects: id().nullable(),
});

const deadReadings = entity({
  hotNeutral: volts(),
  hotGround: volts(),
  neutralGround: volts(),
  /** Null where there is one hot. */
  hotHot: volts(),
});

export const proofSchema = entity({
  id: id(),
  circuitId: id(),
  boxId: id(),
  place: text(160),
  at: time(),
  by: name(),
  /** Breaker found, opened, and locked or taped with a note. */
  lockedOut: flag(),
  /** Volts read at this outlet before the breaker was opened: shows that the breaker did it. */
  liveBefore: volts(),
  /** Volts on the known live source, before and after. */
  knownLiveBefore: volts(),
  knownLiveAfter: volts(),
  face: deadReadings,
  screws: deadReadings,
});

/** Power put back on a circuit: voids every earlier proof on it. */
export const energizingSchema = entity({
  id: id(),
  circuitId: id(),
  at: time(),
  by: name(),
  /** To use it, or to measure at an open box with nobody working. */
  purpose: word(['use', 'measurement'] as const),
});

/** Steps inside a box opened without a proof of dead, and why. */
export const overrideSchema = entity({
  id: id(),
  circuitId: id(),
  boxId: id(),
  place: text(160),
  at: time(),
  by: name(),
  reason: text().trim().min(10),
});

/** A test of a ground-fault or arc-fault device by its own button, with what it is known to protect. */
export const deviceTestSchema = entity({
  id: id(),
  circuitId: id(),
  /** Null is the breaker. */
  boxId: id().nullable(),
  place: text(160),
  at: time(),
  by: name(),
  kind: word(TEST_KINDS),
  /** It opened when its own button was pressed. */
  tripped: flag(),
  voltsAfterTest: volts(),
  /** Every outlet that should go dark with it, and whether it did. */
  downstream: list(entity({ boxId: id(), dead: flag() }), 400),
  /** It closed again, as it is left at the end. */
  reset: flag(),
  voltsAfterReset: volts(),
  /** With a tester plugged in at its face: what it was sent, and how long it took; null without one. */
  tester: entity({ milliamps: number(1, 100), seconds: number(0, 60).nullable() }).nullable(),
  indicator: word(INDICATORS),
  /** Day it was put in, as far as known. */
  installed: day().nullable(),
  note: text(),
});

/** A local change to the code: a rule switched off, its limit tightened, or a note added. */
export const amendmentSchema = entity({
  id: id(),
  /** Id of a rule in the catalogue. */
  rule: text(60).min(1),
  action: yup
    .string()
    .strict()
    .defined()
    .oneOf(['off', 'tighten', 'note'] as const),
  /** The tighter limit, in the rule's own unit. */
  limit: yup.number().strict().defined().nullable().min(0).max(10000),
  /** Where the amendment stands, in the user's own words. */
  reference: text(120).trim().min(1),
  note: text(),
});

/** A picture of something in the job; the picture itself is kept beside the document. */
export const pictureSchema = entity({
  id: id(),
  about: entity({
    table: yup
      .string()
      .strict()
      .defined()
      .oneOf(['areas', 'fixtures', 'boxes', 'panels', 'circuits'] as const),
    id: id(),
  }),
  at: time(),
  caption: text(160),
  width: whole(1, 20000),
  height: whole(1, 20000),
});
