/**
 * One look of any instrument at any place of a box: what it would show on a network, with all that opens by itself while
 * it is on. The place is a key of `boxes/probes.ts`.
 */
import { cableKey, isPanelPlace, type PanelPlace, type Slot } from '#core/boxes/probes.ts';
import type { LampLevel, Measuring } from '#core/job/schema.ts';
import { MAINS_HERTZ, type Branch, type Complex, type Voltages } from '#core/network/network.ts';
import { currentIn, magnitude, resistor, solved, sum } from '#core/network/read.ts';
import { spotKey, type FaceNodes, type Terminals, type Wiring } from '#core/network/wiring.ts';
import { settle, type Opening, type Settled } from '#core/protection/settle.ts';
import { analyze, type Analysis } from './analyzer.ts';
import { lampLevels, LAMP_TESTER, lampBranches, readTwoPole } from './lamps.ts';
import { HIGH_OHMS, LOW_OHMS, readInsulation, readOhms, readVolts, type OhmsReading } from './meter.ts';
import { penSounds } from './pen.ts';
import { ownButton } from './protection.ts';
import { barsOf, TONE_HERTZ, withTone } from './tone.ts';

/** What is asked of an instrument. */
export interface Look {
  instrument: Measuring;
  /** Position of the box in the stops. */
  stop: number;
  node: string;
  to: string | null;
  inputOhms: number | null;
  loadAmps: number;
  gain: number | null;
  testVolts: number | null;
  testMilliamps: number | null;
  /** The transmitter: at which stop, between what. */
  sender: { stop: number; node: string; to: string } | null;
  /** Its button is pressed: a two-pole tester loads what it reads. */
  pressed?: boolean;
}

/** What it shows. */
export interface Showing {
  shows: 'value' | 'over' | 'nothing' | 'live' | 'sounds' | 'lamps' | 'trips' | 'holds';
  value: number | null;
  lamps: LampLevel[] | null;
  seconds: number | null;
  /** What opened while it was on. */
  opened: readonly Opening[];
  /** All that an analyzer worked out. */
  analysis: Analysis | null;
}

const NOTHING: Showing = {
  shows: 'nothing',
  value: null,
  lamps: null,
  seconds: null,
  opened: [],
  analysis: null,
};
const value = (of: number): Showing => ({ ...NOTHING, shows: 'value', value: of });

/** What an ohmmeter shows. @param unit of its scale, ohms */
function resistanceShown(reading: OhmsReading, unit: number): Showing {
  switch (reading.shows) {
    case 'live':
      return { ...NOTHING, shows: 'live', value: reading.volts };
    case 'over':
      return { ...NOTHING, shows: 'over' };
    case 'ohms':
      return value(reading.ohms / unit);
  }
}

/** How long an instrument is left on, seconds. */
const LEFT_ON = 5;
const TESTER_VOLTS = 120;
/** What an analyzer sends down the ground, amperes. */
const ANALYZER_GROUND_AMPS = 10;

/** A circuit after what would open by itself has opened, with a load on at a stop or none. */
export const atRest = (wiring: Wiring): Settled => settle(wiring, { seconds: LEFT_ON, edge: 'slow' });

/** The node of a place; null where the box has none such. */
export function nodeAt(wiring: Wiring, stop: number, key: string): number | null {
  if (isPanelPlace(key)) return panelNode(wiring, key);
  const parts = key.split('.');
  if (parts[0] !== 'face') return wiring.inBox[stop]?.get(key) ?? null;
  const slot = parts.at(-1) as Slot;
  const face = wiring.terminals[stop]?.faces.find((f) => f.name === parts.slice(1, -1).join('.'));
  return face?.[slot] ?? null;
}

function panelNode({ panel }: Wiring, key: PanelPlace): number | null {
  switch (key) {
    case 'panel.hot':
      return panel.breaker.black;
    case 'panel.hot-b':
      return panel.breaker.red;
    case 'panel.bus':
      return panel.bus.black;
    case 'panel.neutral':
      return panel.neutral;
    case 'panel.ground':
      return panel.ground;
  }
}

/** A face as a plug finds it. */
function plugged(wiring: Wiring, stop: number, key: string): Terminals | null {
  const terminals = wiring.terminals[stop];
  const name = key.replace(/^face\./, '');
  const face: FaceNodes | undefined = terminals?.faces.find((f) => f.name === name);
  if (!terminals || !face || face.hot === null) return null;
  return {
    ...terminals,
    hot: face.hot,
    neutral: face.neutral ?? face.hotB ?? terminals.neutral,
    ground: face.ground ?? terminals.ground,
  };
}

/** The network with one more branch, after what that opens. */
const withLoad = (wiring: Wiring, load: Branch): Settled =>
  atRest({ ...wiring, branches: [...wiring.branches, load] });

/**
 * @param sound the network with its faults, in the state of its breakers and switches
 * @throws when the box has no such place
 */
export function look(sound: Wiring, asked: Look): Showing {
  const { stop, instrument } = asked;
  const rest = atRest(sound);
  const loaded = asked.loadAmps > 0 ? loadAt(rest.wiring, asked) : rest;
  const { wiring } = loaded;
  const opened = [...rest.openings, ...(loaded === rest ? [] : loaded.openings)];
  const at = (key: string): number => {
    const node = nodeAt(wiring, stop, key);
    if (node === null) throw new Error(`There is no “${key}” in this box`);
    return node;
  };
  const pair = (): [number, number] => {
    if (asked.to === null) throw new Error(`A ${instrument} takes two places`);
    return [at(asked.node), at(asked.to)];
  };
  const face = (): Terminals => {
    const found = plugged(wiring, stop, asked.node);
    if (!found) throw new Error(`There is no face “${asked.node}” to plug into`);
    return found;
  };
  const said = (showing: Showing): Showing => ({ ...showing, opened: [...opened, ...showing.opened] });
  switch (instrument) {
    case 'high-impedance meter':
      return said(value(readVolts(wiring, ...pair(), asked.inputOhms ?? HIGH_OHMS)));
    case 'low-impedance meter':
      return said(value(readVolts(wiring, ...pair(), asked.inputOhms ?? LOW_OHMS)));
    case 'two-pole tester': {
      const step = readTwoPole(wiring, ...pair(), asked.pressed ?? false);
      return said(step === 0 ? NOTHING : value(step));
    }
    case 'three-lamp tester': {
      const terminals = face();
      const on = {
        ...wiring,
        branches: [...wiring.branches, ...lampBranches(terminals, LAMP_TESTER.lampOhms)],
      };
      return said({ ...NOTHING, shows: 'lamps', lamps: lampLevels(on, terminals) });
    }
    case 'voltage pen':
      return said({ ...NOTHING, shows: penSounds(wiring, at(asked.node)) ? 'sounds' : 'nothing' });
    case 'clamp meter':
      return said(value(clamp(wiring, stop, asked.node)));
    case 'ohmmeter':
      return said(resistanceShown(readOhms(wiring, ...pair()), 1));
    case 'insulation tester':
      return said(resistanceShown(readInsulation(wiring, ...pair()), 1e6));
    case 'loading analyzer': {
      const terminals = face();
      const analysis = analyze(wiring, terminals);
      if (!analysis) return said(NOTHING);
      const down = resistor(terminals.hot, terminals.ground, TESTER_VOLTS / ANALYZER_GROUND_AMPS);
      const after = withLoad(wiring, down);
      return said({ ...value(analysis.drop[15]), analysis, opened: after.openings });
    }
    case 'plug-in GFCI tester': {
      const terminals = face();
      const sent = TESTER_VOLTS / ((asked.testMilliamps ?? 8) / 1000);
      const { openings } = withLoad(wiring, resistor(terminals.hot, terminals.ground, sent));
      const [first] = openings;
      return said({
        ...NOTHING,
        shows: first ? 'trips' : 'holds',
        seconds: first?.at ?? null,
        opened: openings,
      });
    }
    case 'own button': {
      const { trip, seconds } = ownButton(wiring, stop);
      const trips = trip === 'trips';
      return said({ ...NOTHING, shows: trips ? 'trips' : 'holds', seconds: trips ? seconds : null });
    }
    case 'tone receiver': {
      if (!asked.sender) throw new Error('Expected where the transmitter is');
      const from = nodeAt(wiring, asked.sender.stop, asked.sender.node);
      const reference = nodeAt(wiring, asked.sender.stop, asked.sender.to);
      if (from === null || reference === null) throw new Error('The transmitter is at no place of that box');
      const tone = withTone(wiring, from, reference);
      const voltages = solved(tone, [], TONE_HERTZ);
      const others = [...(wiring.inBox[stop] ?? [])].flatMap(([id, node]) =>
        id.includes('.') && node !== at(asked.node) ? [node] : [],
      );
      const bars = barsOf(voltages, at(asked.node), [...new Set(others)], asked.gain ?? 1);
      return said(bars === 0 ? NOTHING : value(bars));
    }
    case 'breaker finder': {
      const terminals = face();
      const bars = signalAtBreaker(wiring, terminals);
      return said(bars === 0 ? NOTHING : value(bars));
    }
  }
}

function loadAt(wiring: Wiring, { stop, node, loadAmps }: Look): Settled {
  const [name] = node.startsWith('face.') ? [node.split('.').slice(0, 2).join('.')] : [];
  const face = name ? plugged(wiring, stop, name) : null;
  const { hot, neutral } = face ?? wiring.terminals[stop]!;
  return withLoad(wiring, resistor(hot, neutral, TESTER_VOLTS / loadAmps));
}

/** Amperes in a conductor, in a whole cable, or in a pole at the panel. */
function clamp(wiring: Wiring, stop: number, key: string): number {
  const voltages = solved(wiring);
  if (key === 'panel.hot' || key === 'panel.hot-b') {
    const conductor = key === 'panel.hot' ? 'black' : 'red';
    const pole = wiring.spotAt.get(spotKey({ stop: -1, conductor, part: 'contact' }));
    return pole ? magnitude(currentIn(wiring, voltages, pole.branch, MAINS_HERTZ)) : 0;
  }
  const whole = key.startsWith(cableKey(''));
  const prefix = `${key.slice(cableKey('').length)}.`;
  const gripped = [...(wiring.inBox[stop] ?? [])].filter(([id]) =>
    whole ? id.startsWith(prefix) : id === key,
  );
  return magnitude(sum(gripped.map(([id, node]) => into(wiring, voltages, stop, id, node))));
}

/** Current that comes into a box by a conductor: in its cable, or where it has none at its joint. */
function into(wiring: Wiring, voltages: Voltages, stop: number, end: string, node: number): Complex {
  const cable = wiring.spots.find(({ part, branch }) => {
    const { from, to } = wiring.branches[branch]!;
    return (part === 'cable' || part === 'beyond') && (from === node || to === node);
  });
  const branch = cable?.branch ?? wiring.joints[stop]?.get(end);
  if (branch === undefined) return { re: 0, im: 0 };
  const { re, im } = currentIn(wiring, voltages, branch, MAINS_HERTZ);
  const arrives = (wiring.branches[branch]!.to === node) === (cable !== undefined);
  return arrives ? { re, im } : { re: -re, im: -im };
}

/** The finder’s scale: so many bars, the last at so many amperes at the breaker. */
const FINDER = { bars: 9, full: 0.004 } as const;

/** A signal plugged in at a face, as strong as it is at the breaker of the circuit, in bars. */
function signalAtBreaker(wiring: Wiring, { hot, neutral }: Terminals): number {
  const sending = withTone(wiring, hot, neutral);
  const spot = wiring.spotAt.get(spotKey({ stop: -1, conductor: 'black', part: 'contact' }))!;
  const red = wiring.spotAt.get(spotKey({ stop: -1, conductor: 'red', part: 'contact' }));
  const voltages = solved(sending, [], TONE_HERTZ);
  const amps = Math.max(
    ...[spot, red].flatMap((s) => (s ? [magnitude(currentIn(sending, voltages, s.branch, TONE_HERTZ))] : [])),
  );
  return Math.min(FINDER.bars, Math.floor((FINDER.bars * amps) / FINDER.full));
}
