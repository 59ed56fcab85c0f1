/**
 * Circuits that are not looked at, folded into what they present at the bars of their panel: each node is eliminated, and
 * its star of admittances becomes a mesh between its neighbors (Rosen, Journal IEE 1924; Kron 1939), until the bars and
 * earth are left. Nothing is lost: the rest of the house cannot tell the fold from the circuit.
 */
import { layCircuit, type Study } from './circuit.ts';
import { Layout } from './layout.ts';
import { EARTH, type Branch } from './network.ts';
import type { Leg } from '#core/panel/spaces.ts';
import type { PanelBars } from './supply.ts';

/** Bars in the order of the rows of a fold; earth comes after them. */
const BARS = ['neutral', 'ground', 'A', 'B'] as const;

/** Admittances between the bars of a panel and earth, at one frequency. */
export interface Presented {
  hertz: number;
  between: readonly { a: number; b: number; re: number; im: number }[];
}

/** @param leg of its black hot */
export function presentedBy(study: Study, leg: Leg, hertz: number): Presented {
  const layout = new Layout();
  const [neutral, ground, A, B] = BARS.map((name) => layout.node(name)) as [number, number, number, number];
  const bus = leg === 'A' ? { black: A, red: B } : { black: B, red: A };
  layCircuit(layout, study, { neutral, ground, bus }, 0, 'folded');
  // What the bars leak themselves is theirs.
  const branches = layout.branches.slice(BARS.length);
  return { hertz, between: foldedOnto(layout.nodes.length, branches, BARS.length, hertz) };
}

/** Puts a fold between the bars of a panel. @throws when it was made for another frequency */
export function layPresented(
  layout: Layout,
  { hertz, between }: Presented,
  bars: PanelBars,
  at: number,
): void {
  if (hertz !== at) throw new Error(`Folded at ${hertz} Hz and solved at ${at} Hz`);
  const nodeOf = (row: number): number => (row < BARS.length ? bars[BARS[row]!] : EARTH);
  for (const { a, b, re, im } of between)
    layout.branches.push({
      from: nodeOf(a),
      to: nodeOf(b),
      conductance: re,
      capacitance: hertz === 0 ? 0 : im / (2 * Math.PI * hertz),
    });
}

/**
 * Admittances that are left between the first nodes and earth when all others are eliminated, fewest neighbors first.
 * @param kept how many of the first nodes stay; earth is row `kept` of the answer
 */
function foldedOnto(
  nodes: number,
  branches: readonly Branch[],
  kept: number,
  hertz: number,
): Presented['between'] {
  type Star = Map<number, { re: number; im: number }>;
  const stars: Star[] = Array.from({ length: nodes }, () => new Map());
  const earth = nodes;
  stars.push(new Map());
  const add = (a: number, b: number, re: number, im: number): void => {
    if (a === b) return;
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      const there = stars[x]!.get(y);
      if (there) {
        there.re += re;
        there.im += im;
      } else stars[x]!.set(y, { re, im });
    }
  };
  const omega = 2 * Math.PI * hertz;
  const at = (node: number): number => (node === EARTH ? earth : node);
  for (const { from, to, conductance, capacitance } of branches)
    add(at(from), at(to), conductance, omega * capacitance);
  const left = new Set(Array.from({ length: nodes - kept }, (_, k) => k + kept));
  while (left.size > 0) {
    let node = -1;
    for (const k of left) if (node < 0 || stars[k]!.size < stars[node]!.size) node = k;
    left.delete(node);
    const star = [...stars[node]!];
    const sum = star.reduce((s, [, y]) => ({ re: s.re + y.re, im: s.im + y.im }), { re: 0, im: 0 });
    const square = sum.re ** 2 + sum.im ** 2;
    star.forEach(([a, y], i) => {
      stars[a]!.delete(node);
      // y·z / sum for each two of the star.
      const [sr, si] = [(y.re * sum.re + y.im * sum.im) / square, (y.im * sum.re - y.re * sum.im) / square];
      for (const [b, z] of star.slice(i + 1)) add(a, b, sr * z.re - si * z.im, sr * z.im + si * z.re);
    });
    stars[node]!.clear();
  }
  const rows = [...Array.from({ length: kept }, (_, k) => k), earth];
  return rows.flatMap((a, i) =>
    rows.slice(i + 1).flatMap((b, k) => {
      const y = stars[a]!.get(b);
      return y ? [{ a: i, b: i + 1 + k, ...y }] : [];
    }),
  );
}
