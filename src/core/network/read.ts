/** Voltages and currents read from a network, with what is laid on it for the purpose. */
import { EARTH, MAINS_HERTZ, type Branch, type Complex, type Network, type Voltages } from './network.ts';
import { Factors } from './solve.ts';

/** A resistance between two nodes. */
export const resistor = (from: number, to: number, ohms: number): Branch => ({
  from,
  to,
  conductance: 1 / ohms,
  capacitance: 0,
});
export const capacitor = (from: number, to: number, farads: number): Branch => ({
  from,
  to,
  conductance: 0,
  capacitance: farads,
});

/** Voltages with instruments connected. */
export const solved = (network: Network, added: readonly Branch[] = [], hertz = MAINS_HERTZ): Voltages =>
  new Factors({ ...network, branches: [...network.branches, ...added] }, hertz).voltages();

/** Current through a branch of the network, from its first node to its second, amperes. */
export function currentIn({ branches }: Network, voltages: Voltages, branch: number, hertz: number): Complex {
  const { from, to, conductance, capacitance } = branches[branch]!;
  const [a, b] = [voltages.at(from), voltages.at(to)];
  const [re, im] = [a.re - b.re, a.im - b.im];
  const susceptance = 2 * Math.PI * hertz * capacitance;
  return { re: re * conductance - im * susceptance, im: re * susceptance + im * conductance };
}

export const sum = (list: readonly Complex[]): Complex =>
  list.reduce((total, { re, im }) => ({ re: total.re + re, im: total.im + im }), { re: 0, im: 0 });
export const magnitude = ({ re, im }: Complex): number => Math.hypot(re, im);

/** Impedance between two nodes, ohms: the voltage that one ampere makes. @param factors of the network with nothing feeding it */
export function impedanceBetween(factors: Factors, nodes: number, a: number, b: number): Complex {
  const currents = new Float64Array(2 * nodes);
  if (a !== EARTH) currents[2 * a]! += 1;
  if (b !== EARTH) currents[2 * b]! -= 1;
  factors.solve(currents);
  const at = (node: number): Complex =>
    node === EARTH ? { re: 0, im: 0 } : { re: currents[2 * node]!, im: currents[2 * node + 1]! };
  return { re: at(a).re - at(b).re, im: at(a).im - at(b).im };
}

/** The network with nothing feeding it, for instruments that bring their own source. */
export const unfed = <T extends Network>(network: T): T => ({
  ...network,
  sources: network.sources.map((s) => ({ ...s, volts: 0 })),
});
