import assert from 'node:assert/strict';
import { test } from 'node:test';
import { randomFrom } from '#core/planner/search/random.ts';
import { Fold, Mesh, type Group } from './fold.ts';
import { LocalSolver, oneEdge, type LocalEdge } from './local.ts';
import { EARTH, MAINS_HERTZ, type Branch, type Network } from './network.ts';
import { Responses } from './responses.ts';
import { eliminationOf, Factors } from './solve.ts';
import { randomRun, randomUse } from './testing.ts';
import { wiringOf } from './wiring.ts';

const OMEGA = 2 * Math.PI * MAINS_HERTZ;

/** Groups of branches that no two share, with all of their ends and now and then a node from elsewhere. */
function randomGroups(network: Network, random: () => number): Group[] {
  const pick = () => Math.floor(random() * network.branches.length);
  const used = new Set<number>();
  return Array.from({ length: 8 }, () => {
    const branches = [...new Set(Array.from({ length: 1 + Math.floor(random() * 4) }, pick))].filter(
      (b) => !used.has(b),
    );
    branches.forEach((b) => used.add(b));
    const ends = branches.flatMap((b) => [network.branches[b]!.from, network.branches[b]!.to]);
    const more = random() < 0.5 ? [Math.floor(random() * network.nodes.length)] : [];
    return { nodes: [...new Set([...ends, ...more])].filter((node) => node !== EARTH), branches };
  }).filter(({ nodes }) => nodes.length > 0);
}

const circuits = Array.from({ length: 20 }, (_, k) => {
  const random = randomFrom(k + 40);
  const run = randomRun(3 + Math.floor(random() * 18), k + 40);
  const wiring = wiringOf(run, randomUse(run, k + 40));
  const groups = randomGroups(wiring, random);
  const structure = eliminationOf(
    wiring,
    groups.map((g) => g.nodes),
  );
  return { wiring, groups, random, fold: new Fold(wiring, MAINS_HERTZ, groups, structure) };
});

/** Volts at each node of a network for an ampere from one to another. */
function volts(network: Network, from: number, to: number): Float64Array {
  const currents = new Float64Array(2 * network.nodes.length);
  if (from !== EARTH) currents[2 * from]! += 1;
  if (to !== EARTH) currents[2 * to]! -= 1;
  new Factors(network, MAINS_HERTZ).solve(currents);
  return currents;
}

test('a network folded onto a few nodes answers there as the whole does', () => {
  for (const { wiring, groups, fold, random } of circuits) {
    groups.forEach(({ nodes, branches }, g) => {
      const mesh = new Mesh(nodes.length + 1);
      fold.onto(g, mesh);
      const place = (node: number) => nodes.indexOf(node);
      const small: Branch[] = branches.map((b) => {
        const { from, to, conductance, capacitance } = wiring.branches[b]!;
        return { from: place(from), to: place(to), conductance, capacitance };
      });
      for (let a = 0; a < nodes.length; a++)
        for (let b = a + 1; b <= nodes.length; b++)
          small.push({
            from: a,
            to: b < nodes.length ? b : EARTH,
            conductance: mesh.re[a * mesh.width + b]!,
            capacitance: mesh.im[a * mesh.width + b]! / OMEGA,
          });
      const folded: Network = { nodes: nodes.map(String), branches: small, sources: [] };
      const from = nodes[Math.floor(random() * nodes.length)]!;
      const whole = volts(wiring, from, EARTH);
      const found = volts(folded, place(from), EARTH);
      nodes.forEach((node, i) => {
        const [re, im] = [whole[2 * node]!, whole[2 * node + 1]!];
        const off = Math.hypot(found[2 * i]! - re, found[2 * i + 1]! - im);
        assert.ok(off <= 1e-9 * Math.hypot(re, im), `${wiring.nodes[node]}: ${found[2 * i]} V for ${re} V`);
      });
    });
  }
});

test('edges of a group answer to each other as in the whole network, gaps to nine digits', () => {
  for (const { wiring, groups, fold } of circuits) {
    groups.forEach(({ nodes, branches }, g) => {
      const mesh = new Mesh(nodes.length + 1);
      fold.onto(g, mesh);
      const place = (node: number) => (node === EARTH ? nodes.length : nodes.indexOf(node));
      const ends = branches.map((b) => ({ ...wiring.branches[b]!, branch: b as number | null }));
      const across = nodes.slice(1).map((node) => ({ from: nodes[0]!, to: node, branch: null }));
      const edges = [...ends, ...across];
      const local = edges.map(({ from, to, branch }): LocalEdge => ({
        from: place(from),
        to: place(to),
        own: branch === null ? -1 : branches.indexOf(branch),
      }));
      const own = ends.map(({ from, to, conductance, capacitance }) => ({
        from: place(from),
        to: place(to),
        conductance,
        susceptance: OMEGA * capacitance,
      }));
      const found = new LocalSolver(nodes.length + 1).answers(mesh, own, local);
      const whole = new Responses(wiring, MAINS_HERTZ, edges);
      edges.forEach(({ branch }, k) => {
        const where = `${wiring.nodes[edges[k]!.from]} to ${wiring.nodes[edges[k]!.to] ?? 'earth'}`;
        // Where there is no branch to part, or one that carries hardly anything, the gap is all there is.
        if (branch !== null) {
          const gap = Math.hypot(whole.gapRe[k]!, whole.gapIm[k]!);
          const off = Math.hypot(found.gapRe[k]! - whole.gapRe[k]!, found.gapIm[k]! - whole.gapIm[k]!);
          assert.ok(off <= 1e-9 * gap, `gap of ${where}: ${found.gapRe[k]} for ${whole.gapRe[k]}`);
        }
        for (let l = 0; l < edges.length; l++) {
          const at = k + edges.length * l;
          const size = Math.hypot(whole.re[at]!, whole.im[at]!);
          const own = Math.hypot(whole.re[l + edges.length * l]!, whole.im[l + edges.length * l]!);
          const off = Math.hypot(found.re[at]! - whole.re[at]!, found.im[at]! - whole.im[at]!);
          assert.ok(
            off <= 1e-9 * Math.max(size, own) + 1e-11,
            `${where}: ${found.re[at]} for ${whole.re[at]}`,
          );
        }
      });
    });
  }
});

test('the only edge between two nodes answers as any does', () => {
  const random = randomFrom(9);
  for (let round = 0; round < 200; round++) {
    const some = () => 10 ** (6 * random() - 6);
    const filled = () => {
      const mesh = new Mesh(3);
      mesh.clear(3);
      for (const [i, j, re, im] of rest) mesh.join(i!, j!, re!, im!);
      return mesh;
    };
    const rest = [
      [0, 1, some(), some()],
      [0, 2, some(), some()],
      [1, 2, some(), some()],
    ];
    const own = { from: 0, to: 1, conductance: some(), susceptance: some() };
    const solver = new LocalSolver(3);
    for (const branch of [0, -1]) {
      const edge: LocalEdge = { from: 0, to: 1, own: branch };
      const branches = branch < 0 ? [] : [own];
      const short = oneEdge(filled(), branch < 0 ? null : own);
      const long = solver.answers(filled(), branches, [edge]);
      for (const part of ['re', 'im', 'gapRe', 'gapIm'] as const)
        assert.ok(
          Math.abs(short[part][0]! - long[part][0]!) <= 1e-12 * (1 + Math.abs(long[part][0]!)),
          `${part}: ${short[part][0]} for ${long[part][0]}`,
        );
    }
  }
});
