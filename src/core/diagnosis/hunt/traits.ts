/** What of the causes at work bears on how readings scatter. */
import type { CauseKind } from './kinds.ts';

export interface Traits {
  /** Before the panel: all volts of a leg wander together with loads that nobody knows. */
  supply: boolean;
  /** A leg that only what hangs across both of them feeds: never above the other one. */
  fedBack: boolean;
  /** A neutral that stands where the loads behind it put it. */
  parted: boolean;
  /** A joint that heats, pulled down by what hangs behind it. */
  poor: boolean;
  /** A joint that is open, which may touch now and then. */
  open: boolean;
  /** Neutral and ground joined at the slots. */
  joined: boolean;
  overload: boolean;
  utility: boolean;
  appliance: boolean;
  switchedOff: boolean;
  weakBreaker: boolean;
  /** A frame that nothing holds at earth, or that something leaks into. */
  tingles: boolean;
}

const traits = (...kinds: readonly CauseKind[]): Traits => {
  const has = (...any: readonly CauseKind[]) => any.some((k) => kinds.includes(k));
  return {
    supply: has('service-neutral', 'feeder-neutral', 'lost-leg'),
    fedBack: has('lost-leg'),
    parted: has('open-neutral', 'lifted-neutral'),
    poor: has('poor-hot', 'poor-neutral', 'poor-breaker'),
    open: has('open-hot', 'open-neutral'),
    joined: has('false-ground'),
    overload: has('overload'),
    utility: has('utility'),
    appliance: has('appliance'),
    switchedOff: has('switched-off'),
    weakBreaker: has('weak-breaker'),
    tingles: has('open-ground', 'leak'),
  };
};

const known = new Map<string, Traits>();

/** @param second another cause that is there at the same time */
export function traitsOf(kind: CauseKind, second?: CauseKind): Traits {
  const key = second === undefined ? kind : `${kind} ${second}`;
  let found = known.get(key);
  if (!found) known.set(key, (found = traits(kind, ...(second === undefined ? [] : [second]))));
  return found;
}
