/** Figures and keys that proofs of dead and what ends them share. */

/** Stray volts up to this are taken as dead. */
export const DEAD_VOLTS = 1;
/** A clamp that shows this much shows a current, amperes: 5 W elsewhere are enough to raise a parted neutral. */
export const NO_AMPS = 0.01;

/** Node keys that do not name a conductor of the box. */
export const KNOWN_SOURCE = 'known-source';
export const LIVE = 'live';
