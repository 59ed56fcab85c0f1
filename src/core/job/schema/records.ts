/** What was measured, proved, amended and photographed. */
import * as yup from 'yup';
import {
  id,
  text,
  name,
  flag,
  whole,
  volts,
  time,
  day,
  entity,
  list,
  number,
  word,
  stamp,
  device,
  MOST_WRITTEN,
} from './fields.ts';
import {
  FEEDS_SHOWN,
  HALVES_READ,
  INDICATORS,
  INSTRUMENTS,
  JOINED,
  LAMP_LEVELS,
  LOOK_RESULTS,
  MEASURING,
  METERS,
  OTHER_SOURCES,
  PROOF_BASES,
  REFERENCES,
  SHOWN,
  TEMPORARIES,
  TEST_KINDS,
} from './words.ts';

export const readingSchema = entity({
  id: id(),
  stamp: stamp(),
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
  /** What its volts were read with. */
  meter: word(METERS),
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
  /** From the ground slot to a proven reference, such as a lead from a proven ground. */
  groundReference: volts(),
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
  /** The answer of a call that it was put down with; null where it came from a form or a file. */
  from: id().nullable(),
});

/** Most circuits taken into one box. */
const MOST_CIRCUITS = 120;
const circuitIds = () => list(id(), MOST_CIRCUITS);

/** One thing seen with an instrument: at which place, in which state, between what, and the value. */
export const observationSchema = entity({
  id: id(),
  stamp: stamp(),
  /** Null: at the panel. */
  boxId: id().nullable(),
  place: text(160),
  at: time(),
  by: name(),
  /** The splice group, loose end, slot or source that was touched: a key, and what it was called then. */
  node: text(200).trim().min(1),
  nodeName: text(160),
  /** The other one; null where the instrument goes around a conductor. */
  to: text(200).trim().min(1).nullable(),
  toName: text(160),
  /** `absent`: what is on record was looked for and is not in the box. */
  quantity: word(['volts', 'amps', 'absent'] as const),
  /** Volts or amperes; 0 for what is absent. */
  value: number(0, 1000),
  instrument: word(INSTRUMENTS),
  /** Name of the connected instrument that gave the value; empty where a person read it. */
  link: text(80),
  /** Breakers that were on and off, as far as known, by their circuits. */
  on: circuitIds(),
  off: circuitIds(),
});

/** One look of an instrument at one place, with all that its figure depends on. */
export const measurementSchema = entity({
  id: id(),
  stamp: stamp(),
  /** The outlet that it was made at. */
  boxId: id(),
  /** Null: the outlet is on no circuit. */
  circuitId: id().nullable(),
  place: text(160),
  at: time(),
  by: name(),
  instrument: word(MEASURING),
  /** What was touched, gripped or plugged into: a key, and what it was called then. */
  node: text(200).trim().min(1),
  nodeName: text(160),
  /** The other probe; null where there is one alone. */
  to: text(200).trim().min(1).nullable(),
  toName: text(160),
  stands: word(JOINED),
  /** Ohms that it puts between its probes; null where that is not known or does not matter. */
  inputOhms: number(1, 1e12).nullable(),
  /** Amperes drawn at this outlet while it looked. */
  loadAmps: number(0, 50),
  /** Step of a receiver’s gain. */
  gain: whole(1, 20).nullable(),
  /** Direct volts of an insulation test. */
  testVolts: number(1, 1000).nullable(),
  /** Milliamperes that a ground-fault tester sends. */
  testMilliamps: number(1, 100).nullable(),
  shows: word(SHOWN),
  /** In the unit of the instrument: V, A, Ω, bars, percent of drop; null where it shows none. */
  value: number(0, 1e12).nullable(),
  /** Lamps hot–neutral, hot–ground, neutral–ground of a plug-in tester. */
  lamps: list(word(LAMP_LEVELS), 3).nullable(),
  /** Seconds until it opened. */
  seconds: number(0, 36000).nullable(),
  /** What was taken off the circuit before an insulation test, by its key. */
  cleared: list(text(120), 80),
  /** Ties and separated ends that stood then. */
  temporaries: list(id(), 40),
  /** Where a transmitter was, and between what. */
  sender: text(160),
  /** From the practice circuit, not from a real one. */
  simulated: flag(),
  note: text(),
  /** The measurement this one replaces; that one is kept and struck through. */
  corrects: id().nullable(),
});

/** A tie or separated ends, for a measurement; or that they were undone. */
export const temporarySchema = entity({
  id: id(),
  stamp: stamp(),
  boxId: id(),
  place: text(160),
  at: time(),
  by: name(),
  kind: word(TEMPORARIES),
  /** Ends of the box’s wiring, and what they are called. */
  ends: list(text(90).trim().min(1), 20),
  names: text(400),
  /** The one that this undoes; null where it is put in place. */
  undoes: id().nullable(),
});

/** That a box is dead: the observations that show it, and what was done so that it stays so. */
export const proofSchema = entity({
  id: id(),
  stamp: stamp(),
  boxId: id(),
  place: text(160),
  at: time(),
  by: name(),
  basis: word(PROOF_BASES),
  /** Of a box that was dead before: what shows that the breaker feeds it. */
  feeds: word(FEEDS_SHOWN),
  /** Who saw that the home run is not landed. */
  seenBy: text(80),
  /** Circuits taken to be in the box: each breaker opened, and locked or taped with a note. */
  lockedOut: circuitIds(),
  /** The main is locked off as well. */
  mainOff: flag(),
  /** Other sources of the house that were shut off and locked. */
  sourcesOff: list(word(OTHER_SOURCES), OTHER_SOURCES.length),
  /** What the conductors were read to, and where it comes from. */
  reference: word(REFERENCES),
  referenceName: text(120),
  /** Looked for conductors that are not on record: none is there, or each was read too. */
  others: word(['not-looked', 'none', 'read'] as const),
  /** In the order in which they were made. */
  observations: list(id(), 200),
  /**
   * How far each device had written when the first of them was made with the locks on: a proof goes on record minutes later, and
   * what came between counts against it. Null: it went on record as it was made.
   */
  had: list(entity({ device: device(), n: whole(0, MOST_WRITTEN) }), 400).nullable(),
  /** Of an earlier override: its reason. */
  reason: text(),
});

/** That somebody closed what they held open, or keeps hands out of it. Each speaks for themselves alone. */
export const closingSchema = entity({
  id: id(),
  stamp: stamp(),
  of: entity({ in: word(['box', 'panel'] as const), id: id() }),
  place: text(160),
  at: time(),
  by: name(),
  /** Closed, tools out; or open with its ends apart and capped and nobody’s hand in it, to be measured. */
  left: word(['closed', 'clear'] as const),
});

/** The lock-out of a circuit ended: voids every earlier proof of every box that the circuit is in. */
export const energizingSchema = entity({
  id: id(),
  stamp: stamp(),
  circuitId: id(),
  at: time(),
  by: name(),
  /** Power on to use it, or to measure at an open box with nobody working; or the lock is off, and it may come on. */
  purpose: word(['use', 'measurement', 'lock-removed'] as const),
});

/** A test of a ground-fault or arc-fault device by its own button, with what it is known to protect. */
export const deviceTestSchema = entity({
  id: id(),
  stamp: stamp(),
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

/** A step of the work in a box, ticked off or taken back. */
export const tickSchema = entity({
  id: id(),
  stamp: stamp(),
  boxId: id(),
  place: text(160),
  /** Name of the step among those of its box. */
  step: text(200).trim().min(1),
  at: time(),
  by: name(),
  done: flag(),
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

/** What an eye or a hand found at an inspection, of one item of a list and one thing of the job. */
export const lookSchema = entity({
  id: id(),
  stamp: stamp(),
  /** Id of a look item. */
  item: text(60).min(1),
  about: entity({
    table: word(['job', 'areas', 'fixtures', 'boxes', 'panels', 'circuits'] as const),
    id: id(),
  }),
  place: text(160),
  at: time(),
  by: name(),
  result: word(LOOK_RESULTS),
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
      .oneOf(['areas', 'fixtures', 'boxes', 'panels', 'circuits', 'looks', 'calls'] as const),
    id: id(),
  }),
  at: time(),
  caption: text(160),
  width: whole(1, 20000),
  height: whole(1, 20000),
});

/** What an alteration is of: any row that can be edited. */
const ALTERED = [
  ...(['job', 'levels', 'areas', 'openings', 'fixtures', 'panels', 'boxes', 'circuits'] as const),
  ...(['amendments', 'pictures', 'calls'] as const),
] as const;

/**
 * That a row was changed, by whatever hand: an edit, an undo, a file. The newest of a field says when it became what it is; the
 * one of a row that is gone, `removed`, is all that is left of it.
 */
export const alterationSchema = entity({
  id: id(),
  stamp: stamp(),
  at: time(),
  table: word(ALTERED),
  row: id(),
  fields: list(text(40).min(1), 60),
  /** Proofs that held until then and no more after it: taking the change back brings none of them back. */
  ended: list(id(), 2000),
  /** Of the wiring of a box: what was dangerous in it as it was done, an empty text where nothing was; null where none was done. */
  danger: text().nullable(),
});

/** How far a device had taken in what others wrote. */
export const takingSchema = entity({
  id: id(),
  stamp: stamp(),
  at: time(),
  heads: list(entity({ device: device(), n: whole(1, MOST_WRITTEN) }), 400),
});
