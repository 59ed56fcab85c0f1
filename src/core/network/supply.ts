/** What feeds circuits: a source at the panel itself, or the house from the transformer to the bars of every panel. */
import type { Leg } from '#core/panel/spaces.ts';
import type { Bars } from './circuit.ts';
import { BOND_OHMS, ELECTRODE_OHMS, JOINT_OHMS, SOURCE_OHMS, type Layout } from './layout.ts';
import { EARTH, OPEN_OHMS } from './network.ts';
import { layPresented, type Presented } from './present.ts';

/** Bars of a panel. */
export interface PanelBars {
  neutral: number;
  ground: number;
  A: number;
  B: number;
}

/** What circuits take, amperes at nominal volts: on each leg, and across both. */
export interface Taken {
  A: number;
  B: number;
  across: number;
}

export interface HousePanel {
  name: string;
  /** The panel that feeds it; null at the service. */
  from: string | null;
  /** Null at the service. Ohms of each conductor of its feeder; a feeder of three wires has no ground. */
  feeder: { leg: number; neutral: number; ground: number | null } | null;
  /** Neutral and ground are joined here. */
  bonded: boolean;
  /** Ohms of its electrode to earth; null without one. */
  electrode: number | null;
  /** What circuits that are not laid out take. */
  others: Taken;
  /** Circuits that are folded into what they present at the bars. */
  presented?: readonly Presented[];
}

/** From the transformer to every panel; each comes after the one that feeds it. */
export interface House {
  /** Ohms of each conductor from the transformer to the service, and of the transformer’s own earth. */
  service: { A: number; B: number; neutral: number; earth: number };
  panels: readonly HousePanel[];
}

/** What a branch is of the supply. */
export type HousePart =
  | 'service A'
  | 'service B'
  | 'service neutral'
  | `${'feeder A' | 'feeder B' | 'feeder neutral' | 'feeder ground' | 'bond' | 'electrode'}, ${string}`;

/** One source at the panel: what lies before it is taken to be sound. @param half volts of one leg */
export function sourceBars(layout: Layout, supply: Map<HousePart, number>, half: number): Bars {
  const neutral = layout.node('panel.neutral');
  const ground = layout.node('panel.ground');
  supply.set('bond, panel', layout.branch(neutral, ground, BOND_OHMS));
  supply.set('electrode, panel', layout.branch(ground, EARTH, ELECTRODE_OHMS));
  const bus = (conductor: 'black' | 'red', volts: number): number => {
    const leg = layout.node(`service.${conductor}`);
    const at = layout.node(`panel.bus.${conductor}`);
    layout.sources.push({ from: neutral, to: leg, volts, ohms: SOURCE_OHMS });
    layout.join(leg, at, JOINT_OHMS, { stop: -1, conductor, part: 'supply' });
    return at;
  };
  return { neutral, ground, bus: { black: bus('black', half), red: bus('red', -half) } };
}

/** The house up to the bars of each panel. @param half volts of one leg */
export function layHouse(
  layout: Layout,
  { service, panels }: House,
  half: number,
  hertz: number,
): { bars: Map<string, PanelBars>; supply: Map<HousePart, number> } {
  const supply = new Map<HousePart, number>();
  const bars = new Map<string, PanelBars>();
  const center = layout.node('utility.neutral');
  layout.branch(center, EARTH, service.earth);
  const leg = (name: Leg, volts: number): number => {
    const at = layout.node(`utility.${name}`);
    layout.sources.push({ from: center, to: at, volts, ohms: SOURCE_OHMS });
    return at;
  };
  const utility: PanelBars = { neutral: center, ground: EARTH, A: leg('A', half), B: leg('B', -half) };
  for (const { name, from, feeder, bonded, electrode, others, presented } of panels) {
    const above = from === null ? utility : bars.get(from);
    if (!above) throw new Error(`“${from}” does not come before “${name}”`);
    const ohms = feeder
      ? { A: feeder.leg, B: feeder.leg, neutral: feeder.neutral, ground: feeder.ground }
      : { ...service, ground: null };
    const partOf = (part: 'A' | 'B' | 'neutral'): HousePart =>
      feeder ? `feeder ${part}, ${name}` : `service ${part}`;
    const at = (part: 'A' | 'B' | 'neutral', node: string): number => {
      const bar = layout.node(`panel ${name}.${node}`);
      supply.set(partOf(part), layout.branch(above[part], bar, ohms[part]));
      return bar;
    };
    const neutral = at('neutral', 'neutral');
    const ground = layout.node(`panel ${name}.ground`);
    if (ohms.ground !== null)
      supply.set(`feeder ground, ${name}`, layout.branch(above.ground, ground, ohms.ground));
    // A strap that is not there is a branch all the same, so that it may be put in.
    supply.set(`bond, ${name}`, layout.branch(neutral, ground, bonded ? BOND_OHMS : OPEN_OHMS));
    if (electrode !== null) supply.set(`electrode, ${name}`, layout.branch(ground, EARTH, electrode));
    const here: PanelBars = { neutral, ground, A: at('A', 'bus.A'), B: at('B', 'bus.B') };
    bars.set(name, here);
    if (others.A > 0) layout.branch(here.A, neutral, half / others.A);
    if (others.B > 0) layout.branch(here.B, neutral, half / others.B);
    if (others.across > 0) layout.branch(here.A, here.B, (2 * half) / others.across);
    for (const folded of presented ?? []) layPresented(layout, folded, here, hertz);
  }
  return { bars, supply };
}
