/** The network of a circuit, or of several in a house, from the wiring of their boxes. */
import { plannedBoxes } from '#core/boxes/planned.ts';
import type { Run } from '#core/circuits/run.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import type { Leg } from '#core/panel/spaces.ts';
import {
  layCircuit,
  legVolts,
  type CircuitNodes,
  type Guard,
  type LaidLoad,
  type Leaving,
  type Study,
} from './circuit.ts';
import { Layout } from './layout.ts';
import type { Network } from './network.ts';
import { NOTHING_ON, spotKey, type Conductor, type Spot, type Terminals, type Use } from './places.ts';
import { layHouse, sourceBars, type House, type HousePart, type PanelBars } from './supply.ts';

export { JOINT_OHMS, PERSON_OHMS } from './layout.ts';
export { spotKey } from './places.ts';
export type { Conductor, FaceNodes, Part, Spot, Terminals, Use } from './places.ts';

/** Circuits of a house laid out whole: the stops of one follow those of the one before. */
export interface Wiring extends Network {
  spots: readonly Spot[];
  /** The spots by `spotKey`. */
  spotAt: ReadonlyMap<number, Spot>;
  /** By position in the stops. */
  terminals: readonly Terminals[];
  /** Where the first circuit leaves its panel. */
  panel: Leaving;
  /** Where each circuit leaves its panel, and the position of its first stop. */
  circuits: readonly { leaving: Leaving; first: number; stops: number }[];
  /** Nodes of the ends and places of each box, by stop and by their names in its wiring. */
  inBox: readonly ReadonlyMap<string, number>[];
  /** Branches of joints in each box, by the ends that they hold. */
  joints: readonly ReadonlyMap<string, number>[];
  /** Nodes where cables were laid in two pieces. */
  cuts: ReadonlyMap<number, ReadonlyMap<Conductor, number>>;
  /** What opens by itself, breakers first. */
  guards: readonly Guard[];
  loads: readonly LaidLoad[];
  /** Branches of the supply. */
  supply: ReadonlyMap<HousePart, number>;
  /** Bars of each panel by its name; none where a source stands at the circuit’s own panel. */
  bars: ReadonlyMap<string, PanelBars>;
}

/**
 * A circuit with a source at its panel.
 * @param boxes the wiring of each box by its position in the stops; as planned where it is not given
 */
export function wiringOf(
  run: Run,
  use: Use = NOTHING_ON,
  boxes: readonly BoxWiring[] = plannedBoxes(run),
): Wiring {
  const layout = new Layout();
  const supply = new Map<HousePart, number>();
  const bars = sourceBars(layout, supply, legVolts(run));
  return wired(layout, [layCircuit(layout, { run, boxes, use }, bars, 0, 'panel')], supply, new Map());
}

/** A circuit of a house: the panel that it leaves from, and the leg of its black. */
export interface HouseStudy extends Study {
  panel: string;
  leg: Leg;
}

/**
 * Circuits in their house, each with all its nodes; every other one is in what its panel presents.
 * @param hertz of what is to be solved: what others present holds at one frequency
 * @throws when the house has no such panel
 */
export function houseWiring(house: House, studies: readonly HouseStudy[], hertz: number): Wiring {
  const layout = new Layout();
  const [first] = studies;
  const { bars, supply } = layHouse(layout, house, first ? legVolts(first.run) : 120, hertz);
  const circuits = studies.map((study, index) => {
    const at = bars.get(study.panel);
    if (!at) throw new Error(`“${study.panel}” is no panel of this house`);
    const nodes = layCircuit(
      layout,
      study,
      {
        neutral: at.neutral,
        ground: at.ground,
        bus: { black: at[study.leg], red: at[study.leg === 'A' ? 'B' : 'A'] },
      },
      index,
      `panel ${study.panel} ${index}`,
    );
    // The leg that feeds a bus is known to the circuit as its supply.
    const own: readonly [Conductor, Leg][] = [
      ['black', study.leg],
      ['red', study.leg === 'A' ? 'B' : 'A'],
    ];
    for (const [conductor, leg] of own) {
      const branch = supply.get(`feeder ${leg}, ${study.panel}`) ?? supply.get(`service ${leg}`)!;
      layout.spots.push({ stop: -1 - index, conductor, part: 'supply', branch });
    }
    layout.first += study.run.stops.length;
    return nodes;
  });
  return wired(layout, circuits, supply, bars);
}

function wired(
  layout: Layout,
  circuits: readonly CircuitNodes[],
  supply: ReadonlyMap<HousePart, number>,
  bars: ReadonlyMap<string, PanelBars>,
): Wiring {
  const spotAt = new Map(layout.aliases);
  for (const spot of layout.spots) if (!spotAt.has(spotKey(spot))) spotAt.set(spotKey(spot), spot);
  let first = 0;
  const leaving = circuits.map(({ leaving: at, terminals }) => {
    const here = { leaving: at, first, stops: terminals.length };
    first += terminals.length;
    return here;
  });
  const guards = circuits.flatMap((c) => c.guards);
  return {
    nodes: layout.nodes,
    branches: layout.branches,
    sources: layout.sources,
    spots: layout.spots,
    spotAt,
    terminals: circuits.flatMap((c) => c.terminals),
    panel: circuits[0]!.leaving,
    circuits: leaving,
    inBox: circuits.flatMap((c) => c.inBox),
    joints: circuits.flatMap((c) => c.joints),
    cuts: new Map(circuits.flatMap((c) => [...c.cuts])),
    guards: [...guards.filter((g) => g.stop < 0), ...guards.filter((g) => g.stop >= 0)],
    loads: circuits.flatMap((c) => c.loads),
    supply,
    bars,
  };
}
