/** Service calls: what is the matter, each answer of its procedure, and what flips and opened boxes showed on the way. */
import { entity, flag, id, lines, list, name, number, stamp, text, time, whole, word } from './fields.ts';
import { FAULT_PLACES, FLIP_MEANS, RETESTS, ROLES } from './words.ts';

/** One matter of a call, and the procedure that goes through it. */
export const callSchema = entity({
  id: id(),
  /** Id of a procedure. */
  procedure: text(60).trim().min(1),
  /** In the customer’s words. */
  words: text(160),
  opened: time(),
  by: text(80),
  /** What it is about, as far as that is on record. */
  boxId: id().nullable(),
  circuitId: id().nullable(),
  fixtureId: id().nullable(),
});

/** One answer of a procedure; what it says is kept, whatever is answered later. */
export const entrySchema = entity({
  id: id(),
  stamp: stamp(),
  callId: id(),
  /** Key of the step. */
  step: text(160).trim().min(1),
  at: time(),
  by: name(),
  /** What was asked, and what was answered, in the words of then. */
  title: text(200),
  said: text(),
  /** Boxes and panels that hands were in, and boxes of which a neutral was parted. */
  touches: list(entity({ in: word(['box', 'panel', 'neutral'] as const), id: id() }), 40),
  /** Choices that were picked. */
  picks: list(text(120), 80),
  /** In the unit of the step; null where it asks for none. */
  value: number(-1e6, 1e9).nullable(),
  /** Further figures, by their names. */
  figures: list(entity({ name: text(60), value: number(-1e6, 1e9) }), 20),
  note: lines(8000),
  /** The entry that this one takes back; null for an answer. */
  strikes: id().nullable(),
});

/** Breakers turned off, and the outlets that were looked at meanwhile. */
export const flipSchema = entity({
  id: id(),
  stamp: stamp(),
  panelId: id(),
  at: time(),
  by: name(),
  means: word(FLIP_MEANS),
  /** Spaces that were off, with the half of a tandem: `7`, `12a`. */
  off: list(text(4).trim().min(1), 84),
  outlets: list(entity({ boxId: id(), dead: flag() }), 200),
  /** The flip that this one takes back. */
  strikes: id().nullable(),
});

/** A box opened with its cables apart and the power on: which cable is live, and which outlets went dead. */
export const partingSchema = entity({
  id: id(),
  stamp: stamp(),
  circuitId: id(),
  boxId: id(),
  at: time(),
  by: name(),
  cables: whole(1, 12),
  /** The cable that was live, counted from the left; null where none was, or nobody looked. */
  feed: whole(1, 12).nullable(),
  dead: list(id(), 200),
  live: list(id(), 200),
  strikes: id().nullable(),
});

/** As what a person works from then on. */
export const personSchema = entity({
  id: id(),
  stamp: stamp(),
  at: time(),
  name: name(),
  role: word(ROLES),
  license: text(60),
});

/** A licensed person has looked over what an apprentice did until then. */
export const countersignSchema = entity({
  id: id(),
  stamp: stamp(),
  of: name(),
  through: time(),
  at: time(),
  by: name(),
  note: text(),
});

/** A fault as it was found and mended, for this house and for the next one. */
export const faultSchema = entity({
  id: id(),
  stamp: stamp(),
  /** The call that found it; null where it was put down by itself. */
  callId: id().nullable(),
  circuitId: id(),
  /** The box it was in or before; null at the panel, before it, or in what was plugged in. */
  boxId: id().nullable(),
  place: word(FAULT_PLACES),
  /** Kind of cause. */
  cause: text(40).trim().min(1),
  at: time(),
  by: name(),
  /** What was found, what showed it, what was done and with what. */
  found: text(),
  evidence: lines(4000),
  fix: text(),
  parts: text(),
  /** Readings from before and after the repair. */
  before: list(id(), 50),
  after: list(id(), 50),
  /** Earlier readings that no longer hold, since what they read was mended. */
  voids: list(id(), 200),
  retest: word(RETESTS),
  /** How long it was tested under the load that used to do it, minutes. */
  minutes: number(0, 1e4).nullable(),
  /** Of the device then, years; null where it was not known. */
  age: number(0, 150).nullable(),
  /** Device, joints, conductors. */
  makeUp: text(160),
  /** The record that this one takes back; null for a record. */
  strikes: id().nullable(),
});
