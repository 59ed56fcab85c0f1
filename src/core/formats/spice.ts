/**
 * A network as a SPICE netlist with an AC analysis at one frequency. Plain elements only: R, C and V with a resistor in
 * series, so that any SPICE reads it.
 */
import { EARTH, type Network } from '#core/network/network.ts';

/** Name of a node in the netlist; earth is node 0. */
export const spiceNode = (node: number): string => (node === EARTH ? '0' : `n${node}`);

/** @param hertz of the analysis */
export function spiceNetlist({ nodes, branches, sources }: Network, hertz: number, title: string): string {
  const number = (value: number) => value.toExponential(16);
  // A line break in a name would end the comment it stands in.
  const plain = (text: string) => text.replace(/[^\x20-\x7e]/g, '?');
  return [
    `* ${plain(title)}`,
    ...nodes.map((name, k) => `* ${spiceNode(k)} = ${plain(name)}`),
    ...branches.flatMap(({ from, to, conductance, capacitance }, k) => {
      const ends = `${spiceNode(from)} ${spiceNode(to)}`;
      return [
        ...(conductance !== 0 ? [`R${k} ${ends} ${number(1 / conductance)}`] : []),
        ...(capacitance !== 0 ? [`C${k} ${ends} ${number(capacitance)}`] : []),
      ];
    }),
    ...sources.flatMap(({ from, to, volts, ohms }, k) => [
      `V${k} s${k} ${spiceNode(from)} DC 0 AC ${number(Math.abs(volts))} ${volts < 0 ? 180 : 0}`,
      `RS${k} s${k} ${spiceNode(to)} ${number(ohms)}`,
    ]),
    `.ac lin 1 ${hertz} ${hertz}`,
    '.end',
    '',
  ].join('\n');
}
