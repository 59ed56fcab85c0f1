/** Faults in the words of the trade. */
import type { Fault } from './faults.ts';
import type { Conductor, Part } from './places.ts';

/** What the places of a fault are called. */
export interface FaultNames {
  box(stop: number): string;
  circuit(index: number): string;
}

const CONDUCTOR_WORDS: Readonly<Record<Conductor, string>> = {
  black: 'hot',
  red: 'second hot',
  neutral: 'neutral',
  ground: 'ground',
  switched: 'switched hot',
  'switched-b': 'second switched hot',
  'traveler-1': 'traveler 1',
  'traveler-2': 'traveler 2',
  interconnect: 'interconnect',
  other: 'spare conductor',
};

const place = (part: Part, conductor: Conductor, stop: number, names: FaultNames): string => {
  const box = stop < 0 ? `the panel, ${names.circuit(-1 - stop)}` : names.box(stop);
  switch (part) {
    case 'supply':
      return `the leg that feeds the bus of ${box}`;
    case 'contact':
      return stop < 0
        ? `the breaker of ${names.circuit(-1 - stop)} (contact, stab or lug)`
        : `the contact of the device in ${box}`;
    case 'bar':
      return `the breaker’s own ${CONDUCTOR_WORDS[conductor]} lead, ${names.circuit(-1 - stop)}`;
    case 'start':
      return `where the cable to ${box} starts`;
    case 'cable':
    case 'beyond':
      return `the cable to ${box}`;
    case 'end':
      return `the splice in ${box}`;
    case 'tail':
      return `the tail’s splice in ${box}`;
    case 'terminal':
      return `the screw or push-in at ${box}`;
    case 'tab':
      return `the tab of ${box}`;
    case 'load':
      return `what is plugged in at ${box}`;
    case 'cord':
      return `the cord at ${box}`;
  }
};

const both = ([a, b]: readonly [Conductor, Conductor]): string =>
  `${CONDUCTOR_WORDS[a]} and ${CONDUCTOR_WORDS[b]}`;
const ohms = (value: number): string => `${value < 10 ? Number(value.toPrecision(2)) : Math.round(value)} Ω`;
const lost = (what: string, value: number | null | undefined): string =>
  value === null || value === undefined ? `${what} lost` : `Poor joint in the ${what}, ${ohms(value)}`;
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A fault in a line. */
export function faultName(fault: Fault, names: FaultNames): string {
  const box = (stop: number) => names.box(stop);
  const circuit = (index: number | undefined) => names.circuit(index ?? 0);
  switch (fault.kind) {
    case 'open':
      return fault.stop < 0 && fault.part === 'supply'
        ? `Leg of the ${CONDUCTOR_WORDS[fault.conductor]} lost before the bus of ${circuit(-1 - fault.stop)}`
        : `Open ${CONDUCTOR_WORDS[fault.conductor]} at ${place(fault.part, fault.conductor, fault.stop, names)}`;
    case 'resistance':
      return `Poor joint in the ${CONDUCTOR_WORDS[fault.conductor]}, ${ohms(fault.ohms)}, at ${place(fault.part, fault.conductor, fault.stop, names)}`;
    case 'short':
      return fault.ohms < 1
        ? `${capital(both(fault.conductors))} touch in ${box(fault.stop)}`
        : `Leak of ${ohms(fault.ohms)} between ${both(fault.conductors)} in ${box(fault.stop)}`;
    case 'swap':
      return `${capital(both(fault.conductors))} reversed at ${box(fault.stop)}`;
    case 'crossed':
      return `${capital(both(fault.conductors))} crossed in the cable to ${box(fault.stop)}`;
    case 'false-ground':
      return `False (bootleg) ground at ${box(fault.stop)}: neutral jumpered to the ground screw`;
    case 'other-hot':
      return `A hot of ${fault.leg === 'same' ? 'the same' : 'the other'} leg where the neutral belongs at ${box(fault.stop)}`;
    case 'other-neutral':
      return `From ${box(fault.stop)} on the neutral goes home by another circuit`;
    case 'same-leg':
      return `Both hots of ${circuit(fault.circuit)} on one leg: their currents add up in the neutral`;
    case 'reversed':
      return `LINE and LOAD reversed at ${box(fault.stop)}${fault.age === 'before-2006' ? ' (made before 2006)' : ''}`;
    case 'switched-neutral':
      return `The switch at ${box(fault.stop)} breaks the neutral`;
    case 'landing':
      return fault.place === null
        ? `${fault.end} capped in ${box(fault.stop)}`
        : `${fault.end} landed on ${fault.place} in ${box(fault.stop)}`;
    case 'tab-left':
      return `${capital(fault.side)} tab left on at ${box(fault.stop)}`;
    case 'tab-broken':
      return `${capital(fault.side)} tab broken off at ${box(fault.stop)}`;
    case 'cable-leak':
      return fault.ohms < 1
        ? `Cable damage before ${box(fault.stop)}: ${both(fault.conductors)} touch`
        : `Cable damage before ${box(fault.stop)}: ${both(fault.conductors)} leak, ${ohms(fault.ohms)}`;
    case 'hidden-junction':
      return `Hidden junction before ${box(fault.stop)}: the ${CONDUCTOR_WORDS[fault.conductor]} is ${fault.ohms === null ? 'open' : `a poor joint, ${ohms(fault.ohms)}`}`;
    case 'tied':
      return `Two circuits tied: ${CONDUCTOR_WORDS[fault.conductor]} at ${box(fault.stop)} to ${CONDUCTOR_WORDS[fault.otherConductor]} at ${box(fault.other)}`;
    case 'borrowed-neutral':
      return `Borrowed neutral: ${box(fault.stop)} returns by the neutral of ${box(fault.other)}`;
    case 'lifted-neutral':
      return `Neutral of ${circuit(fault.circuit)} off its bar`;
    case 'wrong-bar':
      return `${capital(fault.conductor)} of ${circuit(fault.circuit)} on the ${fault.conductor === 'neutral' ? 'ground' : 'neutral'} bar`;
    case 'beside-breaker':
      return `Neutral of ${circuit(fault.circuit)} on the bar, not on its GFCI or AFCI breaker`;
    case 'single-pole-sensor':
      return `Single-pole GFCI or AFCI breaker on ${circuit(fault.circuit)}, whose neutral is shared`;
    case 'crossed-breakers':
      return `Hots of ${fault.circuits.map((c) => names.circuit(c)).join(' and ')} on each other’s breakers`;
    case 'service-neutral':
      return lost(fault.ohms === null ? 'Service neutral' : 'service neutral', fault.ohms);
    case 'service-leg':
      return lost(
        `${(fault.ohms ?? null) === null ? 'S' : 's'}ervice leg of ${fault.leg === 'own' ? 'this circuit' : 'the other circuits'}`,
        fault.ohms,
      );
    case 'feeder-neutral':
      return lost(`${fault.ohms === null ? 'F' : 'f'}eeder neutral to ${fault.panel}`, fault.ohms);
    case 'feeder-leg':
      return lost(`${fault.ohms === null ? 'O' : 'o'}ne leg of the feeder to ${fault.panel}`, fault.ohms);
    case 'feeder-ground':
      return `Feeder ground to ${fault.panel} lost`;
    case 'no-bond':
      return 'Main bonding jumper missing: neutral and ground are not joined at the service';
    case 'second-bond':
      return `Neutral and ground joined a second time, at ${fault.panel}`;
  }
}
