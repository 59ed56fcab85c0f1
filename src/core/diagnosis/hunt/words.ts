/** Causes, measures and answers in the words of the trade. */
import type { Run } from '#core/circuits/run.ts';
import type { CausePlace } from './causes.ts';
import type { Finding } from './evidence.ts';
import type { Suspect } from './hunt.ts';
import { KINDS, type CauseKind } from './kinds.ts';
import type { Measure } from './measures.ts';

const boxName = (run: Run, stop: number): string =>
  stop < 0 ? 'the panel' : (run.stops[stop]?.box.name ?? '?');

function placeWords(place: CausePlace, run: Run): string {
  switch (place.at) {
    case 'box':
      return `in ${boxName(run, place.stop)}`;
    case 'cable':
      return `in the cable from ${boxName(run, run.stops[place.stop]?.feeder ?? -1)} to ${boxName(run, place.stop)}`;
    case 'panel':
      return 'at the panel';
    case 'service':
      return 'before the panel';
    case 'plugged':
      return 'plugged in or wired there';
    case 'nowhere':
      return '';
  }
}

function one(kind: CauseKind, place: CausePlace, run: Run): string {
  const { name } = KINDS[kind];
  const where = place.at === 'nowhere' || place.at === 'plugged' ? '' : placeWords(place, run);
  return where === '' || name.endsWith(where) ? name : `${name} ${where}`;
}

/** A suspect in a line. */
export function suspectWords(suspect: Suspect, run: Run): string {
  const { kind, place, second, differs, ohms } = suspect;
  const joint =
    ohms === null || !kind.startsWith('poor')
      ? ''
      : `, about ${ohms < 1 ? ohms.toFixed(2) : ohms.toFixed(1)} Ω`;
  const pair = second ? `; and ${lower(one(second.kind, second.place, run))}` : '';
  return `${one(kind, place, run)}${joint}${pair}${differs ? `, and the drawing is wrong: ${differs}` : ''}`;
}
const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** A key of a cause, as `box 3 open-neutral`, taken apart. */
export function causeOfKey(key: string): { kind: CauseKind; place: CausePlace } {
  const [at = 'nowhere', ...rest] = key.split(' ');
  const kind = rest.at(-1) as CauseKind;
  const place = at === 'box' || at === 'cable' ? { at, stop: Number(rest[0]) } : { at };
  return { kind, place: place as CausePlace };
}

/** A key, or two joined, with other names for its stops. */
export const keyWith = (key: string, nameOf: (stop: number) => string): string =>
  key
    .split(' + ')
    .map((part) => {
      const { kind, place } = causeOfKey(part);
      return 'stop' in place ? `${place.at} ${nameOf(place.stop)} ${kind}` : `${place.at} ${kind}`;
    })
    .join(' + ');

export const keyWords = (key: string, run: Run): string =>
  key
    .split(' + ')
    .map((part) => {
      const { kind, place } = causeOfKey(part);
      return one(kind, place, run);
    })
    .join('; and ');

const PAIR_WORDS = {
  hotNeutral: 'hot to neutral',
  hotGround: 'hot to ground',
  neutralGround: 'neutral to ground',
} as const;

/** What is to be done, and how. */
export function measureWords(measure: Measure, run: Run): { title: string; how: string } {
  const at = 'stop' in measure ? boxName(run, measure.stop) : '';
  switch (measure.kind) {
    case 'volts':
      return measure.amps > 0
        ? {
            title: `Volts at ${at} with ${measure.amps} A on`,
            how: 'Hot to neutral first; then a heater or hair dryer running beside the meter, and the three pairs of slots. What it falls by is the ohms on the way.',
          }
        : {
            title: `Volts at ${at}`,
            how: 'Meter on low impedance, so that a ghost falls to nothing. Three pairs of slots, nothing plugged in.',
          };
    case 'state':
      return measure.stop < 0
        ? {
            title: 'Look at its breaker',
            how: 'Handle on, off, or between and loose? Between is tripped. Leave it as it stands.',
          }
        : { title: `Look at ${at}`, how: 'Button in or out, its light on or off; a switch on or off.' };
    case 'works':
      return { title: `${at}: does it light?`, how: 'Switch it on and look: full, dim, or dark.' };
    case 'reference':
      return {
        title: `Ground slot of ${at} to a proven ground`,
        how: 'A long lead from a ground that was shown good, to the ground slot. Near zero is joined; near 120 V it is live.',
      };
    case 'breaker':
      return {
        title: 'Everything unplugged, breaker on once',
        how: 'Unplug all on it, wall switches off, hardwired things off. Fully off, then on, once. Wait five minutes.',
      };
    case 'device':
      return {
        title: `Reset ${at}, once`,
        how: 'Nothing plugged in on it or after it. Press reset until it clicks.',
      };
    case 'ohms':
      return {
        title: `Ohms at ${at}, ${PAIR_WORDS[measure.pair]}`,
        how: 'Breaker off and locked, everything unplugged. Volts first: they read zero. Then ohms between the two slots.',
      };
    case 'open':
      return measure.stop < 0
        ? {
            title: 'Look in the panel at its landing',
            how: 'Main off. Look at lug, stab, neutral and ground of this circuit: color, torque, tug.',
          }
        : {
            title: `Open ${at} and look`,
            how: 'Proved dead. Every splice, screw and push-in of it: looked at and tugged, also those that go on.',
          };
    case 'part':
      return {
        title: `Part what goes on from ${at}`,
        how: 'Proved dead. The cables that go on come apart there; ohms into each of them, and into what comes from the panel.',
      };
    case 'legs':
      return {
        title: 'Both legs at the panel, free and loaded',
        how: 'Each leg to neutral; then both again with about 10 A more on a good outlet of one leg: a kettle, a hair dryer. Where the other leg rises as that one falls, the neutral before the panel is poor.',
      };
    case 'appliance':
      return {
        title: 'Try it on an outlet that is good',
        how: 'The appliance that fails, on another circuit that was read good.',
      };
    case 'elsewhere':
      return {
        title: 'The rest of the house',
        how: 'Lights on in other rooms: is anything dim, bright or dead there?',
      };
    case 'amps':
      return {
        title: 'Amps at its breaker',
        how: 'Clamp around its hot, with all that usually runs on it running.',
      };
  }
}

/** A finding in a line. */
export function findingWords(finding: Finding, run: Run): string {
  const at = 'stop' in finding && finding.stop !== null ? boxName(run, finding.stop) : '';
  switch (finding.kind) {
    case 'volts': {
      const { hotNeutral, hotGround, neutralGround, hotHot } = finding.volts;
      const list = [
        [hotNeutral, 'H–N'],
        [hotGround, 'H–G'],
        [neutralGround, 'N–G'],
        [hotHot, 'H–H'],
        [finding.reference, 'G–reference'],
      ].flatMap(([v, name]) => (v === null ? [] : `${name} ${v} V`));
      return `${at}: ${list.join(', ')}${finding.amps > 0 ? ` with ${finding.amps} A on` : ''}`;
    }
    case 'lamps':
      return `${at}: lamps ${finding.lamps.map((l) => (l ? '●' : '○')).join('')}`;
    case 'works':
      return `${at}: ${finding.does}`;
    case 'shock':
      return `${at}: somebody felt a shock`;
    case 'breaker':
      return `Breaker ${finding.does}${finding.unplugged ? ', all unplugged' : ''}${finding.minutes === null ? '' : `, after ${finding.minutes} min`}${finding.amps === null ? '' : ` at ${finding.amps} A`}`;
    case 'device':
      return `${at}: ${finding.does}`;
    case 'ohms':
      return `${at}: ${PAIR_WORDS[finding.pair]} ${finding.ohms === Infinity ? 'over' : `${finding.ohms} Ω`}`;
    case 'insulation':
      return `${at}: insulation ${PAIR_WORDS[finding.pair]} ${finding.megohms === Infinity ? 'over' : `${finding.megohms} MΩ`}`;
    case 'state':
      return `${finding.stop < 0 ? 'Breaker' : at} ${finding.on ? 'stands on' : 'is off or tripped'}`;
    case 'live':
      return `${at}: ${finding.live ? 'live' : 'dead'} with its breaker off`;
    case 'counted':
      return `${at}: ${finding.cables} cables`;
    case 'opened':
      return `${at} opened: ${finding.found.length === 0 ? 'all tight' : finding.found.map((k) => KINDS[k].name).join(', ')}`;
    case 'parted':
      return `${at} parted: the fault is ${finding.amiss === 'before' ? 'before it' : `past it${finding.toward === null ? '' : `, toward ${boxName(run, finding.toward)}`}`}`;
    case 'legs':
      return `Legs ${finding.a} V and ${finding.b} V${finding.loaded ? `, with a load on one ${finding.loaded.join(' V and ')} V` : ''}`;
    case 'sign':
      return `${at}: ${finding.sign}`;
    case 'elsewhere':
      return `Elsewhere: ${finding.does}`;
    case 'appliance':
      return finding.fails ? 'The appliance fails elsewhere too' : 'The appliance works elsewhere';
    case 'work':
      return at ? `Since work at ${at}` : 'Since work somewhere';
    case 'rain':
      return 'Since rain';
    case 'tone':
      return `Tone from ${boxName(run, finding.from)} to ${boxName(run, finding.to)} on the ${finding.conductor}: ${finding.heard ? 'heard' : 'not heard'}`;
    case 'cleared':
      return `Looked at: not ${lower(one(finding.cause, finding.place, run))}`;
    case 'amps':
      return `${finding.amps} A at the breaker`;
  }
}
