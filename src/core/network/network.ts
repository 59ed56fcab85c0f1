/**
 * AC networks in the phasor domain: nodes joined by admittances and fed by sources, solved by nodal analysis (Ho, Ruehli
 * and Brennan, IEEE Trans. Circuits and Systems 1975). Sources stand in Norton form, so that the matrix is symmetric.
 * All currents return through earth, the reference.
 */

/** A complex number: a phasor in volts or amperes, RMS, or an admittance in siemens. */
export interface Complex {
  re: number;
  im: number;
}

/** Frequency of the house’s power. */
export const MAINS_HERTZ = 60;

/** The reference node. */
export const EARTH = -1;

/** What joins two nodes: a resistor, or a capacitor. */
export interface Branch {
  from: number;
  to: number;
  /** Siemens. */
  conductance: number;
  /** Farads. */
  capacitance: number;
}

/** A voltage behind a resistance. */
export interface Source {
  from: number;
  to: number;
  /** Volts of `to` above `from`, RMS, in phase with the first leg. */
  volts: number;
  ohms: number;
}

export interface Network {
  /** Names of the nodes, by number. */
  nodes: readonly string[];
  branches: readonly Branch[];
  sources: readonly Source[];
}

/** Ohms above which a branch counts as open: the leak through a broken conductor's air. */
export const OPEN_OHMS = 1e14;

/** Voltages of the nodes against earth. */
export class Voltages {
  /** Real and imaginary parts by turns. */
  private readonly parts: Float64Array;

  constructor(parts: Float64Array) {
    this.parts = parts;
  }
  at(node: number): Complex {
    return node === EARTH ? { re: 0, im: 0 } : { re: this.parts[2 * node]!, im: this.parts[2 * node + 1]! };
  }
  /** What a meter shows between two nodes, volts. */
  between(a: number, b: number): number {
    const [x, y] = [this.at(a), this.at(b)];
    return Math.hypot(x.re - y.re, x.im - y.im);
  }
}
