/** The conductors of each cable of a circuit by color, from the nets that it carries. */
import type { Run } from '#core/circuits/run.ts';
import { equipmentGround } from '#core/circuits/sizing.ts';
import type { Color, ConductorFunction, Gauge } from '#core/job/schema.ts';
import { cableOf, netsOf, type Net } from './nets.ts';
import type { CableConductor } from './wiring.ts';

/** Functions in the order in which they take the plain colors of a cable. */
const FIRST_COLORS: readonly ConductorFunction[] = [
  ...(['hot', 'hot-b', 'traveler-1', 'traveler-2', 'switched', 'switched-b', 'interconnect'] as const),
];
/** Who takes the white where no neutral does: what goes out to a switch, never what comes back from it, 200.7(C). */
const TAKES_WHITE: readonly ConductorFunction[] = [
  ...(['hot-b', 'hot', 'traveler-2', 'traveler-1', 'switched-b', 'interconnect', 'switched'] as const),
];
const CABLE_COLORS: readonly Color[] = ['black', 'red', 'blue', 'yellow', 'orange', 'brown', 'purple'];
/** Singles are bought in the color that their function asks for. */
const SINGLE_COLORS: Partial<Record<ConductorFunction, Color>> = {
  'hot-b': 'red',
  switched: 'red',
  'switched-b': 'blue',
  'traveler-1': 'yellow',
  'traveler-2': 'orange',
  interconnect: 'purple',
};

const before = (order: readonly ConductorFunction[]) => (a: Net, b: Net) =>
  order.indexOf(a.function) - order.indexOf(b.function) || a.key.localeCompare(b.key);

/** A conductor of a segment with the net that it is of. */
export interface Carried {
  net: Net;
  conductor: CableConductor;
}

/** The conductors of the cable that feeds a stop, in the order of its colors; the same at both of its ends. */
export function conductorsOf(run: Run, at: number): Carried[] {
  const nets = netsOf(run).carried[at]!;
  const stop = run.stops[at]!;
  const { circuit } = run;
  const { gauge } = stop.segment;
  const raceway = cableOf(run, stop) === 'raceway';
  const insulated = nets.filter((n) => n.function !== 'ground').sort(before(FIRST_COLORS));
  const neutral = insulated.find((n) => n.function === 'neutral');
  const white = neutral ?? (raceway ? undefined : [...insulated].sort(before(TAKES_WHITE))[0]);
  const used = new Map<Color, number>();
  const one = (n: Net, color: Color, size: Gauge, mark: Color | null): Carried => {
    const count = (used.get(color) ?? 0) + 1;
    used.set(color, count);
    const id = count === 1 ? color : `${color}-${count}`;
    return {
      net: n,
      conductor: { id, color, function: n.function, gauge: size, material: circuit.material, mark },
    };
  };
  // Alone in its cable a conductor is not worth a white: it stays black.
  const alone = insulated.length === 1 && white !== neutral;
  let plain = 0;
  const carried = insulated
    .filter((n) => n !== white || alone)
    .map((n) => {
      const color = raceway
        ? (SINGLE_COLORS[n.function] ?? 'black')
        : CABLE_COLORS[Math.min(plain++, CABLE_COLORS.length - 1)]!;
      return one(n, color, gauge, null);
    });
  if (white && !alone) carried.push(one(white, 'white', gauge, white === neutral ? null : markOf(white)));
  const ground = nets.find((n) => n.function === 'ground');
  if (ground) carried.push(one(ground, raceway ? 'green' : 'bare', groundGauge(run, gauge), null));
  return carried;
}

/** A white that serves as a hot is marked in a hot's color. */
const markOf = ({ function: fn }: Net): Color => (fn === 'hot' ? 'black' : 'red');

function groundGauge(run: Run, gauge: Gauge): Gauge {
  const { circuit } = run;
  if (circuit.ground !== null) return circuit.ground;
  return equipmentGround(circuit.breaker.rating, circuit.material, gauge, gauge);
}
