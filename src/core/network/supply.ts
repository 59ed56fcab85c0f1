/**
 * What feeds a circuit’s panel: a source at its bars, or the house: transformer, service, bond, electrodes, feeders and
 * subpanels, with every other circuit folded into what it takes at the bars.
 */
import { lengthOf, panelPlace, plannedBetween, runOf } from '#core/circuits/run.ts';
import type { Circuit, Panel } from '#core/job/schema.ts';
import { legsOf } from '#core/panel/spaces.ts';
import { ohmsPerThousandFeet } from '#core/tables/conductors.ts';
import type { View } from '#core/view/view.ts';
import { BOND_OHMS, ELECTRODE_OHMS, JOINT_OHMS, Layout, SOURCE_OHMS } from './layout.ts';
import { EARTH, OPEN_OHMS } from './network.ts';

/** Bars of the panel that a circuit leaves from; the buses by the hot that is meant to be on them. */
export interface Bars {
  neutral: number;
  ground: number;
  bus: { black: number; red: number };
}

/** What circuits take, amperes at nominal volts: on the leg of the black under study, on the other, and across both. */
export interface Taken {
  own: number;
  other: number;
  across: number;
}

export interface HousePanel {
  name: string;
  /** Null at the service. Ohms of each conductor of its feeder; a feeder of three wires has no ground. */
  feeder: { leg: number; neutral: number; ground: number | null } | null;
  /** Neutral and ground are joined here. */
  bonded: boolean;
  /** Ohms of its electrode to earth; null without one. */
  electrode: number | null;
  others: Taken;
}

/** From the transformer to the circuit’s own panel, which is the last. */
export interface House {
  /** Ohms of each conductor from the transformer to the service, and of the transformer’s own earth. */
  service: { black: number; red: number; neutral: number; earth: number };
  panels: readonly HousePanel[];
}

/** What may be wrong with the supply. */
export type HouseFault =
  /** The neutral from the utility is lost, or a poor joint, ohms. */
  | { kind: 'service-neutral'; ohms: number | null }
  /** A leg of the service is lost; `own` is that of the circuit’s black. */
  | { kind: 'service-leg'; leg: 'own' | 'other' }
  /** The neutral of the feeder to a panel is lost, or a poor joint, ohms. */
  | { kind: 'feeder-neutral'; panel: string; ohms: number | null }
  /** Neutral and ground are not joined at the service. */
  | { kind: 'no-bond' }
  /** They are joined at a subpanel as well. */
  | { kind: 'second-bond'; panel: string };

/** Usual ohms: fifty feet of service conductor, and a transformer’s earth with its neighbors. */
const SERVICE = { black: 0.01, red: 0.01, neutral: 0.01, earth: 2 } as const;
/** A feeder’s length where none is known, inches. */
const FEEDER_LENGTH = 600;

/** One source at the panel: what lies before it is taken to be sound. @param half volts of one leg */
export function sourceBars(layout: Layout, half: number): Bars {
  const neutral = layout.node('panel.neutral');
  const ground = layout.node('panel.ground');
  layout.join(neutral, ground, BOND_OHMS);
  layout.join(ground, EARTH, ELECTRODE_OHMS);
  const bus = (conductor: 'black' | 'red', volts: number): number => {
    const leg = layout.node(`service.${conductor}`);
    const at = layout.node(`panel.bus.${conductor}`);
    layout.sources.push({ from: neutral, to: leg, volts, ohms: SOURCE_OHMS });
    layout.join(leg, at, JOINT_OHMS, { stop: -1, conductor, part: 'supply' });
    return at;
  };
  return { neutral, ground, bus: { black: bus('black', half), red: bus('red', -half) } };
}

/** The house up to the circuit’s panel. */
export function houseBars(layout: Layout, { service, panels }: House, half: number): Bars {
  const center = layout.node('utility.neutral');
  layout.join(center, EARTH, service.earth);
  const leg = (conductor: 'black' | 'red', volts: number): number => {
    const at = layout.node(`utility.${conductor}`);
    layout.sources.push({ from: center, to: at, volts, ohms: SOURCE_OHMS });
    return at;
  };
  let above: Bars = {
    neutral: center,
    ground: EARTH,
    bus: { black: leg('black', half), red: leg('red', -half) },
  };
  panels.forEach((panel, k) => {
    const last = k === panels.length - 1;
    const name = last ? 'panel' : `panel ${panel.name}`;
    const { feeder } = panel;
    const ohms = feeder ? { ...feeder, black: feeder.leg, red: feeder.leg } : { ...service, ground: null };
    const neutral = layout.node(`${name}.neutral`);
    const ground = layout.node(`${name}.ground`);
    layout.join(above.neutral, neutral, ohms.neutral);
    if (ohms.ground !== null) layout.join(above.ground, ground, ohms.ground);
    if (panel.bonded) layout.join(neutral, ground, BOND_OHMS);
    if (panel.electrode !== null) layout.join(ground, EARTH, panel.electrode);
    const bus = (conductor: 'black' | 'red'): number => {
      const at = layout.node(`${name}.bus.${conductor}`);
      layout.join(
        above.bus[conductor],
        at,
        ohms[conductor],
        last ? { stop: -1, conductor, part: 'supply' } : undefined,
      );
      return at;
    };
    const buses = { black: bus('black'), red: bus('red') };
    const { own, other, across } = panel.others;
    if (own > 0) layout.join(buses.black, neutral, half / own);
    if (other > 0) layout.join(buses.red, neutral, half / other);
    if (across > 0) layout.join(buses.black, buses.red, (2 * half) / across);
    above = { neutral, ground, bus: buses };
  });
  return above;
}

/** The house with what is wrong in it. @throws when it has no such panel */
export function withHouseFault(house: House, fault: HouseFault): House {
  const { service, panels } = house;
  const onPanel = (name: string, change: (panel: HousePanel) => HousePanel): House => {
    if (!panels.some((p) => p.name === name && p.feeder !== null))
      throw new Error(`“${name}” is no subpanel on the way to this circuit`);
    return { ...house, panels: panels.map((p) => (p.name === name ? change(p) : p)) };
  };
  switch (fault.kind) {
    case 'service-neutral':
      return { ...house, service: { ...service, neutral: fault.ohms ?? OPEN_OHMS } };
    case 'service-leg':
      return {
        ...house,
        service: { ...service, [fault.leg === 'own' ? 'black' : 'red']: OPEN_OHMS },
      };
    case 'feeder-neutral':
      return onPanel(fault.panel, (p) => ({
        ...p,
        feeder: { ...p.feeder!, neutral: fault.ohms ?? OPEN_OHMS },
      }));
    case 'no-bond':
      return { ...house, panels: panels.map((p) => (p.feeder === null ? { ...p, bonded: false } : p)) };
    case 'second-bond':
      return onPanel(fault.panel, (p) => ({ ...p, bonded: true }));
  }
}

/**
 * The house of a circuit, from its job.
 * @param loads whether the other circuits of each panel take what is planned for them, or nothing
 */
export function houseOf(view: View, circuit: Circuit, loads: 'planned' | 'off'): House {
  const { document } = view;
  const chain: Panel[] = [];
  for (
    let panel = document.panels[circuit.panelId];
    panel;
    panel = panel.feeder ? document.panels[panel.feeder.panelId] : undefined
  ) {
    if (chain.includes(panel)) break;
    chain.unshift(panel);
  }
  const [ownLeg = 'A'] = legsOf(circuit);
  return {
    service: SERVICE,
    panels: chain.map((panel): HousePanel => {
      const { feeder } = panel;
      return {
        name: panel.name,
        feeder: feeder && feederOhms(view, panel),
        bonded: panel.bonded,
        electrode: panel.electrode ? ELECTRODE_OHMS : null,
        others: loads === 'off' ? { own: 0, other: 0, across: 0 } : takenAt(view, panel, circuit, ownLeg),
      };
    }),
  };
}

function feederOhms({ document }: View, panel: Panel): HousePanel['feeder'] {
  const feeder = panel.feeder!;
  const from = document.panels[feeder.panelId];
  const { settings } = document.job;
  const length =
    feeder.measured ??
    (from
      ? lengthOf(plannedBetween(settings, panelPlace(document, from), panelPlace(document, panel), true))
      : FEEDER_LENGTH);
  const perThousand =
    ohmsPerThousandFeet(feeder.gauge, feeder.material, settings.conductorTemperature) ?? 0.5;
  const ohms = Math.max((perThousand * length) / 12 / 1000, JOINT_OHMS);
  return { leg: ohms, neutral: ohms, ground: feeder.ground ? ohms : null };
}

/** What the other circuits of a panel take by plan. */
function takenAt(view: View, panel: Panel, studied: Circuit, ownLeg: 'A' | 'B'): Taken {
  const taken: Taken = { own: 0, other: 0, across: 0 };
  for (const circuit of view.rows('circuits')) {
    if (circuit.panelId !== panel.id || circuit.id === studied.id) continue;
    const { hots, volts } = runOf(view, circuit);
    const legs = legsOf(circuit);
    if (volts > 150) {
      taken.across += hots[0];
      continue;
    }
    hots.forEach((amps, k) => {
      const leg = legs[k] ?? legs[0];
      taken[leg === ownLeg ? 'own' : 'other'] += amps;
    });
  }
  return taken;
}
