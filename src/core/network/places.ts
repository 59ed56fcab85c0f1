/** The places of a wiring and what they are called: conductors, parts, spots, and where a tester's probes go. */
import type { ConductorFunction } from '#core/job/schema.ts';

/** Conductors of a circuit: black and red are its hots, whatever color they have. */
export const CONDUCTORS = [
  ...(['black', 'red', 'neutral', 'ground'] as const),
  ...(['switched', 'switched-b', 'traveler-1', 'traveler-2', 'interconnect', 'other'] as const),
] as const;
export type Conductor = (typeof CONDUCTORS)[number];

export const CONDUCTOR_OF: Readonly<Record<ConductorFunction, Conductor>> = {
  hot: 'black',
  'hot-b': 'red',
  neutral: 'neutral',
  ground: 'ground',
  switched: 'switched',
  'switched-b': 'switched-b',
  'traveler-1': 'traveler-1',
  'traveler-2': 'traveler-2',
  interconnect: 'interconnect',
  spare: 'other',
  unknown: 'other',
};

/**
 * What a branch is of the wiring: `start` and `end` are the joints of a cable's conductor in the two boxes, `tail` the joint
 * of a tail with a splice, `terminal` what lands on the device, `supply` the leg that feeds a bus of the panel, `cord` joins
 * what is plugged in, its frame to the ground; `beyond` is the far piece of a cable that is laid in two, `bar` the lead by
 * which a protecting breaker joins its neutral to the bar, `tab` a break-off tab that is laid apart. A conductor that lands on the device itself is its `terminal`;
 * it is asked for as its `end` as well.
 */
export const PARTS = [
  ...(['supply', 'start', 'cable', 'end', 'tail', 'terminal', 'contact', 'load', 'cord'] as const),
  ...(['beyond', 'bar', 'tab'] as const),
] as const;
export type Part = (typeof PARTS)[number];

/** A place where something may be wrong. */
export interface Spot {
  /** Position in the stops; −1 − k is the breaker of the k-th circuit. */
  stop: number;
  conductor: Conductor;
  part: Part;
  branch: number;
}

/** A number of its own for each place. */
export const spotKey = ({ stop, conductor, part }: Omit<Spot, 'branch'>): number =>
  ((stop + 1) * CONDUCTORS.length + CONDUCTORS.indexOf(conductor)) * PARTS.length + PARTS.indexOf(part);

/** Nodes at the face of one device: where a tester's probes go. */
export interface Terminals {
  hot: number;
  neutral: number;
  ground: number;
  /** The other hot of a 240 V device or of a duplex split between two hots; null where there is but one. */
  red: number | null;
  /** Metal frame of what is plugged in; null where nothing is. */
  frame: number | null;
  /** The conductor that its hot is. */
  hotIs: Conductor;
  /** Every contact of its faces, by the face's name. */
  faces: readonly FaceNodes[];
}

/** Contacts of one face; null where it has none. */
export interface FaceNodes {
  name: string;
  hot: number | null;
  hotB: number | null;
  neutral: number | null;
  ground: number | null;
}

/** Something that draws current. */
export interface Load {
  stop: number;
  /** Amperes at nominal volts. */
  amps: number;
  /** Position of the face of its device that it is plugged in at; the first where it is not said. */
  face?: number;
  /** Takes more current where the voltage sags, as electronics do; a resistance where it is not said. */
  constantPower?: boolean;
  /** Switched off by its own switch. */
  off?: boolean;
}

/** What is on and who touches what. */
export interface Use {
  /** Amperes at nominal voltage by position in the run's stops: one resistance at each. */
  amps: ReadonlyMap<number, number>;
  /** What else draws current. */
  loads?: readonly Load[];
  /**
   * Switches that are thrown from the position in which the load is on, and protecting devices that have tripped or do not reset, by stop;
   * the face of one is parted too.
   */
  open: ReadonlySet<number>;
  /** Devices made before 2006, by stop: their faces stay joined to their load side whatever the contacts do. */
  old?: ReadonlySet<number>;
  /** The breaker is off. */
  dead?: boolean;
  /** Where someone on damp ground touches the frame of what is plugged in. */
  touch?: number;
  /** Cables laid in two pieces, by the stop that they arrive at: how far along they are parted, 0 to 1. */
  cut?: ReadonlyMap<number, number>;
  /** Devices whose break-off tabs are laid as branches of their own, by stop. */
  apart?: ReadonlySet<number>;
  /** Strays of each cable as built, or with all that its spread allows toward the hots or away from them. */
  strays?: 'as built' | 'toward hots' | 'away from hots';
}
export const NOTHING_ON: Use = { amps: new Map(), open: new Set() };
