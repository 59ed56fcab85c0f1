/**
 * The answers that single faults need: of each change’s own edges to each other. They are found group by group, the rest
 * of the network folded in, and not a column of the whole network for each edge.
 */
import { Fold, Mesh, type Group } from './fold.ts';
import type { Change } from './kernel.ts';
import { LocalSolver, oneEdge, type LocalBranch, type LocalEdge } from './local.ts';
import { EARTH, type Network } from './network.ts';
import type { Answers, Edge, Responses } from './responses.ts';
import { Factors, eliminationOf } from './solve.ts';

/** Edges that some change has in common with another, and what they are folded onto. */
interface EdgeGroup extends Group {
  edges: readonly number[];
}

export class EdgeGroups {
  /** By edge: its group, and its position there. */
  readonly groupOf: Int32Array;
  private readonly placeOf: Int32Array;
  /** Whole columns for the far nodes come from these as well. */
  readonly factors: Factors;
  private readonly network: Network;
  private readonly hertz: number;
  private readonly edges: readonly Edge[];
  private readonly far: readonly number[];
  private readonly groups: readonly EdgeGroup[];
  private readonly fold: Fold;

  /**
   * @param far nodes at which edges of many groups end: they are not folded onto
   */
  constructor(
    network: Network,
    hertz: number,
    edges: readonly Edge[],
    changes: readonly Change[],
    far: readonly number[],
  ) {
    [this.network, this.hertz, this.edges, this.far] = [network, hertz, edges, far];
    const leader = Int32Array.from(edges, (_, e) => e);
    const find = (e: number): number => {
      while (leader[e] !== e) e = leader[e] = leader[leader[e]!]!;
      return e;
    };
    for (const { edges: own } of changes) for (const e of own) leader[find(e)] = find(own[0]!);
    this.groupOf = new Int32Array(edges.length).fill(-1);
    this.placeOf = new Int32Array(edges.length).fill(-1);
    const groups: { nodes: number[]; branches: number[]; edges: number[] }[] = [];
    for (const { edges: own } of changes)
      for (const e of own) {
        if (this.placeOf[e]! >= 0) continue;
        const first = find(e);
        if (this.groupOf[first]! < 0)
          this.groupOf[first] = groups.push({ nodes: [], branches: [], edges: [] }) - 1;
        const group = groups[this.groupOf[first]!]!;
        this.groupOf[e] = this.groupOf[first]!;
        this.placeOf[e] = group.edges.push(e) - 1;
        const { from, to, branch } = edges[e]!;
        if (branch !== null) group.branches.push(branch);
        const away = this.farEnd(edges[e]!);
        for (const node of [from, to])
          if (node !== EARTH && node !== away && !group.nodes.includes(node)) group.nodes.push(node);
      }
    this.groups = groups;
    const structure = eliminationOf(
      network,
      groups.map((group) => group.nodes),
    );
    this.factors = new Factors(network, hertz, structure);
    this.fold = new Fold(network, hertz, groups, structure);
  }

  /** Where the edges of a change stand in their group. */
  places({ edges }: Change): number[] {
    return edges.map((e) => this.placeOf[e]!);
  }

  /**
   * @param columns whole columns, in which those of the far nodes begin at `farAt`
   * @returns by group
   */
  answers(columns: Responses, farAt: number): Answers[] {
    const { network, edges, fold } = this;
    const omega = 2 * Math.PI * this.hertz;
    const most = Math.max(2, ...this.groups.map((group) => group.nodes.length + 1));
    const mesh = new Mesh(most);
    const solver = new LocalSolver(most);
    const localBranch = (branch: number, place: (node: number) => number): LocalBranch => {
      const { from, to, conductance, capacitance } = network.branches[branch]!;
      return { from: place(from), to: place(to), conductance, susceptance: omega * capacitance };
    };
    return this.groups.map(({ nodes, branches, edges: own }, g) => {
      fold.onto(g, mesh);
      // A far end is taken for earth at first.
      const place = (node: number): number => {
        const at = nodes.indexOf(node);
        return at < 0 ? nodes.length : at;
      };
      if (own.length === 1 && nodes.length === 2)
        return oneEdge(mesh, branches.length > 0 ? localBranch(branches[0]!, place) : null);
      const answers = solver.answers(
        mesh,
        branches.map((branch) => localBranch(branch, place)),
        own.map((e): LocalEdge => {
          const { from, to, branch } = edges[e]!;
          return { from: place(from), to: place(to), own: branch === null ? -1 : branches.indexOf(branch) };
        }),
      );
      this.withFar(answers, nodes, own, columns, farAt);
      return answers;
    });
  }

  /** The far node at one end of an edge, or earth. */
  private farEnd({ from, to, branch }: Edge): number {
    const { far } = this;
    if (branch !== null || far.includes(from) === far.includes(to)) return EARTH;
    return far.includes(from) ? from : to;
  }

  /** Turns answers of edges that were cut short at earth to those of the edges as they are, to their far ends. */
  private withFar(
    answers: Answers,
    nodes: readonly number[],
    own: readonly number[],
    columns: Responses,
    farAt: number,
  ): void {
    const { edges, far, network } = this;
    const ends = own.map((e) => {
      const end = this.farEnd(edges[e]!);
      return nodes.includes(end) ? EARTH : end;
    });
    if (ends.every((node) => node === EARTH)) return;
    const { re, im, count } = answers;
    const columnOf = (i: number): number => farAt + far.indexOf(ends[i]!);
    const signOf = (i: number): number => (edges[own[i]!]!.from === ends[i] ? 1 : -1);
    for (let i = 0; i < count; i++) {
      for (let j = 0; j < count; j++) {
        const add = (edge: number, column: number, factor: number): void => {
          const at = columns.count * column + edge;
          re[i + count * j]! += factor * columns.re[at]!;
          im[i + count * j]! += factor * columns.im[at]!;
        };
        if (ends[j] !== EARTH) add(own[i]!, columnOf(j), signOf(j));
        if (ends[i] === EARTH) continue;
        // What an edge answers to the far node is what the far node answers to the edge, in volts.
        const { branch } = edges[own[j]!]!;
        add(own[j]!, columnOf(i), signOf(i) / (branch === null ? 1 : network.branches[branch]!.conductance));
        if (ends[j] !== EARTH) add(columnOf(i), columnOf(j), -signOf(i) * signOf(j));
      }
    }
  }
}
