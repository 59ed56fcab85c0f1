/**
 * Causes of what is amiss: each is a set of faults of the network, or none where the wiring is sound, with the place where
 * hands mend it. Causes of one place and one repair are one to whoever mends them.
 */
import type { Run } from '#core/circuits/run.ts';
import { hypothesesOf } from '#core/diagnosis/hypotheses.ts';
import type { Fault } from '#core/network/faults.ts';
import type { Conductor } from '#core/network/places.ts';
import type { Wiring } from '#core/network/wiring.ts';
import type { CauseKind } from './kinds.ts';

/** Where hands go: a box or the cable that arrives at it, by stop; the panel; before it; what is plugged in; nowhere known. */
export type CausePlace =
  | { at: 'box' | 'cable'; stop: number }
  | { at: 'panel' | 'service' | 'plugged' | 'nowhere' };

export interface Cause {
  /** Place and repair; causes that share it are mended alike. */
  key: string;
  kind: CauseKind;
  place: CausePlace;
  /** What it changes in the network; empty where the wiring is sound. */
  faults: readonly Fault[];
  /** Position among the causes of its joint parted whole, where it is a poor joint: any ohms lie between the two. */
  parted: number | null;
}

/** Whether a place is a box, or the panel for −1. */
export const isAt = (place: CausePlace, stop: number): boolean =>
  stop < 0 ? place.at === 'panel' : place.at === 'box' && place.stop === stop;

export const placeKey = (place: CausePlace): string =>
  'stop' in place ? `${place.at} ${place.stop}` : place.at;

/** The place of a cause, from its faults. */
function placeOf(fault: Fault, run: Run): CausePlace {
  switch (fault.kind) {
    case 'hidden-junction':
    case 'crossed':
    case 'cable-leak':
      return { at: 'cable', stop: fault.stop };
    case 'open':
    case 'resistance': {
      if (fault.part === 'supply') return { at: 'service' };
      if (fault.part === 'cable' || fault.part === 'beyond') return { at: 'cable', stop: fault.stop };
      // The joint where a cable starts is in the box that it comes from.
      const at = fault.part === 'start' ? (run.stops[fault.stop]?.feeder ?? -1) : fault.stop;
      return at < 0 ? { at: 'panel' } : { at: 'box', stop: at };
    }
    case 'same-leg':
    case 'lifted-neutral':
    case 'wrong-bar':
    case 'beside-breaker':
    case 'single-pole-sensor':
    case 'crossed-breakers':
    case 'second-bond':
      return { at: 'panel' };
    case 'service-neutral':
    case 'service-leg':
    case 'feeder-neutral':
    case 'feeder-leg':
    case 'feeder-ground':
    case 'no-bond':
      return { at: 'service' };
    default:
      return { at: 'box', stop: fault.stop };
  }
}

type Role = 'hot' | 'neutral' | 'ground';
const roleOf = (conductor: Conductor): Role =>
  conductor === 'neutral' || conductor === 'ground' ? conductor : 'hot';

/** Two conductors that touch or change places, whichever is named first. */
function between(a: Role, b: Role): 'hot-hot' | 'hot-neutral' | 'hot-ground' | 'neutral-ground' {
  const has = (role: Role) => a === role || b === role;
  if (!has('hot')) return 'neutral-ground';
  return has('neutral') ? 'hot-neutral' : has('ground') ? 'hot-ground' : 'hot-hot';
}

/** Below this two conductors touch; from it on they leak, ohms. */
const TOUCHES = 100;

function kindOf(fault: Fault, run: Run): CauseKind {
  switch (fault.kind) {
    case 'open': {
      if (fault.part === 'supply') return 'lost-leg';
      if (fault.part === 'contact') return fault.stop < 0 ? 'dead-breaker' : 'dead-device';
      if (fault.part === 'bar') return 'lifted-neutral';
      return `open-${roleOf(fault.conductor)}`;
    }
    case 'resistance':
      if (fault.part === 'contact' && fault.stop < 0) return 'poor-breaker';
      return `poor-${roleOf(fault.conductor)}`;
    case 'hidden-junction':
      return `${fault.ohms === null ? 'open' : 'poor'}-${roleOf(fault.conductor)}`;
    case 'short':
    case 'cable-leak': {
      const [a, b] = fault.conductors;
      const pair = between(roleOf(a), roleOf(b));
      if (fault.ohms >= TOUCHES) return pair === 'neutral-ground' ? 'neutral-ground' : 'leak';
      return pair === 'hot-ground' ? 'ground-fault' : pair === 'neutral-ground' ? 'neutral-ground' : 'short';
    }
    case 'swap':
    case 'crossed': {
      const [a, b] = fault.conductors;
      const pair = between(roleOf(a), roleOf(b));
      if (pair === 'hot-hot') return 'wrong-landing';
      return pair === 'hot-neutral'
        ? 'reversed'
        : pair === 'hot-ground'
          ? 'hot-on-ground'
          : 'neutral-on-ground';
    }
    case 'landing': {
      const device = run.stops[fault.stop]?.box.device.kind;
      return device === 'gfci' || device === 'outlet-afci' ? 'line-load' : 'wrong-landing';
    }
    case 'reversed':
      return 'line-load';
    case 'tab-left':
    case 'tab-broken':
      return 'tab';
    case 'other-hot':
      return 'other-hot';
    case 'tied':
      return 'tied';
    case 'other-neutral':
    case 'borrowed-neutral':
      return 'borrowed-neutral';
    case 'service-leg':
    case 'feeder-leg':
      return 'lost-leg';
    default:
      return fault.kind;
  }
}

const cause = (kind: CauseKind, place: CausePlace, faults: readonly Fault[]): Cause => ({
  key: `${placeKey(place)} ${kind}`,
  kind,
  place,
  faults,
  parted: null,
});

/** What two faults share when one is the other’s joint parted whole. */
function jointOf(fault: Fault): string | null {
  if (fault.kind === 'open' || fault.kind === 'resistance')
    return `${fault.stop} ${fault.conductor} ${fault.part}`;
  if (fault.kind === 'hidden-junction') return `${fault.stop} ${fault.conductor} hidden`;
  if (fault.kind === 'service-neutral') return 'service neutral';
  if (fault.kind === 'feeder-neutral') return `feeder neutral ${fault.panel}`;
  return null;
}
const isPoor = (fault: Fault): boolean =>
  fault.kind === 'resistance' || ('ohms' in fault && fault.ohms !== null && jointOf(fault) !== null);

/** Devices that were tripped, switched off or never reset: the wiring is sound, and something is off. */
function turnedOff({ terminals, spots }: Wiring, run: Run): Cause[] {
  const contacts = (stop: number): Fault[] =>
    spots
      .filter((s) => s.stop === stop && s.part === 'contact')
      .map(({ conductor, part }) => ({ kind: 'open', stop, conductor, part }));
  const breaker = contacts(-1);
  return [
    ...(breaker.length > 0 ? [cause('breaker-off', { at: 'panel' }, breaker)] : []),
    ...terminals.flatMap((_, stop) => {
      const kind = run.stops[stop]?.box.device.kind;
      const parts = contacts(stop);
      if (parts.length === 0) return [];
      if (kind === 'gfci' || kind === 'outlet-afci') return [cause('tripped', { at: 'box', stop }, parts)];
      return kind === 'switch' ? [cause('switched-off', { at: 'box', stop }, parts)] : [];
    }),
  ];
}

/** Causes with sound wiring. */
const SOUND: readonly Cause[] = [
  cause('nothing', { at: 'nowhere' }, []),
  cause('appliance', { at: 'plugged' }, []),
  cause('overload', { at: 'plugged' }, []),
  cause('weak-breaker', { at: 'panel' }, []),
  cause('utility', { at: 'service' }, []),
];

/** The deadly pair of one box that no reading at its slots shows: it is a cause of its own. */
const reversedFalseGrounds = (faults: readonly Fault[]): Cause[] =>
  faults.flatMap((jumper) => {
    if (jumper.kind !== 'false-ground') return [];
    const swap = faults.find(
      (f) =>
        f.kind === 'swap' &&
        f.stop === jumper.stop &&
        f.conductors.includes('neutral') &&
        !f.conductors.includes('ground'),
    );
    return swap ? [cause('false-ground-reversed', { at: 'box', stop: jumper.stop }, [swap, jumper])] : [];
  });

/** Ohms of a poor joint before it is fitted. */
const POOR_OHMS = 1;

/** Everything that may be the matter with a circuit in its house; the sound ones come first. */
export function causesOf(wiring: Wiring, run: Run): Cause[] {
  const starts = wiring.spots.filter((s) => s.part === 'start' && s.stop >= 0);
  const faults: Fault[] = [
    ...hypothesesOf(wiring).filter((f) => !('circuits' in f)),
    // A joint that heats where a cable starts reads like one where it arrives, and is in another box.
    ...starts.map(({ stop, conductor, part }): Fault => ({
      kind: 'resistance',
      stop,
      conductor,
      part,
      ohms: POOR_OHMS,
    })),
  ];
  const causes = [
    ...SOUND,
    ...turnedOff(wiring, run),
    ...faults.map((fault) => cause(kindOf(fault, run), placeOf(fault, run), [fault])),
    ...reversedFalseGrounds(faults),
  ];
  const opens = new Map<string, number>();
  causes.forEach(({ faults: [fault, ...others] }, i) => {
    const joint = fault && others.length === 0 && !isPoor(fault) ? jointOf(fault) : null;
    if (joint !== null) opens.set(joint, i);
  });
  return causes.map((c) => {
    const [fault] = c.faults;
    if (!fault || !isPoor(fault)) return c;
    return { ...c, parted: opens.get(jointOf(fault)!) ?? null };
  });
}
