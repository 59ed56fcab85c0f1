/**
 * The wiring of a box as a picture: cables at the left, splices in the middle, devices at the right, lines between them at
 * right angles. The layout is worked out from the graph alone, so that any wiring has one; no line crosses a label, since
 * labels stand inside the shapes and lines go around them.
 */
import ELK, { type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk.bundled.js';
import type { BoxWiring, Color, ConductorFunction } from '#core/job/schema.ts';
import { DEVICES } from './devices.ts';
import {
  BOX,
  cableWords,
  endsOf,
  functionName,
  membersOf,
  placeOf,
  tailEnds,
  terminalAt,
  type End,
} from './wiring.ts';

export interface Row {
  /** The end or the place that stands here. */
  id: string;
  kind: 'conductor' | 'terminal' | 'lead' | 'splice' | 'cap' | 'box' | 'unknown';
  label: string;
  x: number;
  y: number;
  width: number;
  height: number;
  color: Color | null;
  mark: Color | null;
  function: ConductorFunction | null;
  finish: string | null;
}

export interface Shape {
  id: string;
  kind: 'cable' | 'device' | 'splice' | 'cap' | 'box' | 'unknown';
  title: string;
  x: number;
  y: number;
  width: number;
  height: number;
  rows: Row[];
}

/** A conductor from one row to another. */
export interface Line {
  id: string;
  /** Ends that it is: a conductor or lead is one, a tail two. */
  ends: string[];
  from: string;
  to: string;
  color: Color;
  mark: Color | null;
  function: ConductorFunction;
  points: { x: number; y: number }[];
}

/** A tab between two screws of a device. */
interface Tab {
  yoke: string;
  side: 'hot' | 'neutral';
  kept: boolean;
  /** Rows that it joins. */
  from: string;
  to: string;
}

export interface Picture {
  width: number;
  height: number;
  shapes: Shape[];
  lines: Line[];
  tabs: Tab[];
}

const ROW = 28;
const TITLE = 24;
const WIDTH = { cable: 124, device: 136, splice: 66, cap: 46, box: 104, unknown: 96 } as const;
/** Widths of a letter of a label and of a title, at most. */
const LETTER = { label: 6.9, title: 7.6 } as const;
/** What stands beside a label in its row: the screw, or the end of the conductor. */
const BESIDE = 32;
/** Places for what nobody looked at, and for what is capped. */
const NOT_SEEN = 'not-looked-at';

const SHORT: Partial<Record<ConductorFunction, string>> = {
  switched: 'switched',
  'switched-b': 'switched 2',
  'hot-b': 'hot 2',
  unknown: '?',
};
const shortFunction = (fn: ConductorFunction): string => SHORT[fn] ?? functionName(fn);

interface Draft extends Omit<Shape, 'x' | 'y' | 'rows'> {
  rows: Omit<Row, 'x' | 'y' | 'width' | 'height'>[];
}

const row = (
  id: string,
  kind: Row['kind'],
  label: string,
  values: Partial<Row> = {},
): Draft['rows'][number] => ({
  id,
  kind,
  label,
  color: null,
  mark: null,
  function: null,
  finish: null,
  ...values,
});

function draftsOf(wiring: BoxWiring, nameOf: (box: string) => string): Draft[] {
  const ends = endsOf(wiring);
  const sized = (draft: Omit<Draft, 'width' | 'height'>): Draft => ({
    ...draft,
    width: Math.max(
      WIDTH[draft.kind],
      LETTER.title * draft.title.length + 14,
      ...draft.rows.map((r) => LETTER.label * r.label.length + (draft.title === '' ? 12 : BESIDE)),
    ),
    height: (draft.title === '' ? 0 : TITLE) + ROW * Math.max(1, draft.rows.length),
  });
  const capped = ends.filter((e) => placeOf(wiring, e.id) === null);
  const unseen = ends.filter((e) => placeOf(wiring, e.id) === undefined);
  return [
    ...wiring.cables.map((cable) =>
      sized({
        id: cable.id,
        kind: 'cable',
        title: cableTitle(cable, nameOf),
        rows: cable.conductors.map((c) =>
          row(`${cable.id}.${c.id}`, 'conductor', `${c.color} ${shortFunction(c.function)}`, {
            color: c.color,
            mark: c.mark,
            function: c.function,
          }),
        ),
      }),
    ),
    ...wiring.splices.map(({ id, connector }) =>
      sized({
        id,
        kind: 'splice',
        title: '',
        rows: [row(id, 'splice', connectorShort(connector, membersOf(wiring, id).length))],
      }),
    ),
    ...wiring.yokes.map((yoke) =>
      sized({
        id: yoke.id,
        kind: 'device',
        title: DEVICES[yoke.kind].name,
        rows: DEVICES[yoke.kind].terminals.map((t) =>
          row(terminalAt(yoke, t), t.held === 'lead' ? 'lead' : 'terminal', terminalShort(t.name), {
            finish: t.finish,
          }),
        ),
      }),
    ),
    ...capped.map((e) =>
      sized({ id: `cap:${e.id}`, kind: 'cap', title: '', rows: [row(`cap:${e.id}`, 'cap', 'cap')] }),
    ),
    ...unseen.map((e) =>
      sized({
        id: `${NOT_SEEN}:${e.id}`,
        kind: 'unknown',
        title: '',
        rows: [row(`${NOT_SEEN}:${e.id}`, 'unknown', 'not looked at')],
      }),
    ),
    ...(wiring.places.some((p) => p.at === BOX)
      ? [sized({ id: BOX, kind: 'box' as const, title: '', rows: [row(BOX, 'box', 'metal box')] })]
      : []),
  ];
}

const cableTitle = (cable: BoxWiring['cables'][number], nameOf: (box: string) => string): string => {
  if (cable.circuitId !== null) return cable.stands === 'ends' ? 'other circuit' : 'passes through';
  const words = cableWords(cable, nameOf)
    .replace(/^of the /, '')
    .replace(/^of (a )?/, '');
  return words === 'feed' ? 'feed' : words;
};
const connectorShort = (kind: BoxWiring['splices'][number]['connector'], count: number): string =>
  kind.includes('lever')
    ? `${kind.split('-')[0]}-way`
    : kind.includes('twist-on')
      ? `${kind.split(' ')[0]}`
      : `${count} joined`;
const terminalShort = (name: string): string => name.replace(/ screw\b/, '').replace(' lead', ' lead');

interface Wire {
  id: string;
  ends: string[];
  from: string;
  to: string;
  end: Pick<End, 'color' | 'mark' | 'function'>;
}

/** Every conductor that is drawn as a line, from what brings it to where it stands. */
function wiresOf(wiring: BoxWiring): Wire[] {
  const ends = endsOf(wiring);
  const target = (id: string): string => {
    const at = placeOf(wiring, id);
    return at === undefined ? `${NOT_SEEN}:${id}` : (at ?? `cap:${id}`);
  };
  const tails = wiring.tails.map((tail): Wire => {
    const [a, b] = tailEnds(tail);
    return { id: tail.id, ends: [a, b], from: target(a), to: target(b), end: { ...tail, mark: null } };
  });
  return [
    ...ends
      .filter((e) => e.kind === 'conductor')
      .map((e): Wire => ({ id: e.id, ends: [e.id], from: e.id, to: target(e.id), end: e })),
    ...tails,
    ...ends
      .filter((e) => e.kind === 'lead')
      .map((e): Wire => ({ id: e.id, ends: [e.id], from: target(e.id), to: e.id, end: e })),
  ];
}

/** Which shapes take lines on their left, and which rows are where. */
const LAST: readonly Shape['kind'][] = ['device'];
const FIRST: readonly Shape['kind'][] = ['cable'];

const LAYOUT = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '20',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '8',
  'elk.layered.spacing.edgeNodeBetweenLayers': '9',
  'elk.spacing.nodeNode': '16',
  'elk.spacing.edgeEdge': '8',
  'elk.spacing.edgeNode': '10',
  'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
  'elk.layered.considerModelOrder.strategy': 'PREFER_NODES',
  'elk.padding': '[top=6,left=6,bottom=6,right=6]',
  // The same wiring has the same picture every time.
  'elk.randomSeed': '1',
  'elk.separateConnectedComponents': 'false',
} as const;

/** Lays out the wiring of a box. @param nameOf another box by its id */
export async function pictureOf(wiring: BoxWiring, nameOf: (box: string) => string): Promise<Picture> {
  const drafts = draftsOf(wiring, nameOf);
  const wires = wiresOf(wiring);
  const owner = new Map(drafts.flatMap((d) => d.rows.map((r) => [r.id, d] as const)));
  const drawn = wires.filter((w) => owner.has(w.from) && owner.has(w.to));
  const ports = new Map<string, { id: string; side: 'EAST' | 'WEST'; y: number }[]>();
  const portOf = (rowId: string, wire: string, side: 'EAST' | 'WEST'): string => {
    const draft = owner.get(rowId)!;
    const id = `${wire}@${rowId}`;
    const y = (draft.title === '' ? 0 : TITLE) + ROW * (draft.rows.findIndex((r) => r.id === rowId) + 0.5);
    ports.set(draft.id, [...(ports.get(draft.id) ?? []), { id, side, y }]);
    return id;
  };
  const edges = drawn.map(({ id, from, to }): ElkExtendedEdge => {
    const fromSide = owner.get(from)!.kind === 'device' ? 'WEST' : 'EAST';
    const toSide = owner.get(to)!.kind === 'cable' ? 'EAST' : 'WEST';
    return { id, sources: [portOf(from, `${id}>`, fromSide)], targets: [portOf(to, `${id}<`, toSide)] };
  });
  const children = drafts.map((d): ElkNode => {
    const own = ports.get(d.id) ?? [];
    // A splice is as tall as what meets at one of its sides; its lines may come in any order.
    const fixed = d.kind === 'cable' || d.kind === 'device';
    const most = Math.max(...(['EAST', 'WEST'] as const).map((s) => own.filter((p) => p.side === s).length));
    return {
      id: d.id,
      width: d.width,
      height: fixed ? d.height : Math.max(d.height, 14 * most + 8),
      ports: spread(own, fixed).map(({ id, side, y }) => ({
        id,
        width: 1,
        height: 1,
        ...(fixed ? { x: side === 'EAST' ? d.width : -1, y } : {}),
        layoutOptions: { 'elk.port.side': side },
      })),
      layoutOptions: {
        'elk.portConstraints': fixed ? 'FIXED_POS' : 'FIXED_SIDE',
        ...(FIRST.includes(d.kind) ? { 'elk.layered.layering.layerConstraint': 'FIRST' } : {}),
        ...(LAST.includes(d.kind) ? { 'elk.layered.layering.layerConstraint': 'LAST' } : {}),
      },
    };
  });
  const elk = new ELK();
  const laid: ElkNode = await elk.layout({ id: 'box', layoutOptions: LAYOUT, children, edges });
  const at = new Map((laid.children ?? []).map((c) => [c.id, c]));
  const shapes = drafts.map(({ rows, ...d }): Shape => {
    const { x = 0, y = 0, height = d.height } = at.get(d.id)!;
    const top = d.title === '' ? 0 : TITLE;
    return {
      ...d,
      x,
      y,
      height,
      rows: rows.map((r, k) => ({
        ...r,
        x,
        y: y + top + ROW * k,
        width: d.width,
        height: d.title === '' ? height : ROW,
      })),
    };
  });
  const routes = new Map(
    (laid.edges ?? []).map((e) => [e.id, (e as ElkExtendedEdge).sections?.[0]] as const),
  );
  const lines = drawn.map(({ id, ends, from, to, end }): Line => {
    const section = routes.get(id);
    const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
    return {
      id,
      ends,
      from,
      to,
      color: end.color,
      mark: end.mark,
      function: end.function,
      points: points.map(({ x, y }) => ({ x, y })),
    };
  });
  return { width: laid.width ?? 0, height: laid.height ?? 0, shapes, lines, tabs: tabsOf(wiring) };
}

/** Several lines at one row stand a little apart from each other. */
function spread<P extends { side: string; y: number }>(own: readonly P[], fixed: boolean): P[] {
  if (!fixed) return [...own];
  return own.map((port) => {
    const same = own.filter((p) => p.side === port.side && p.y === port.y);
    return { ...port, y: port.y + 8 * (same.indexOf(port) - (same.length - 1) / 2) };
  });
}

const tabsOf = (wiring: BoxWiring): Tab[] =>
  wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].bridges.flatMap(({ from, to, by }): Tab[] => {
      if (by !== 'hot tab' && by !== 'neutral tab') return [];
      const side = by === 'hot tab' ? 'hot' : 'neutral';
      return [
        {
          yoke: yoke.id,
          side,
          kept: side === 'hot' ? yoke.hotTab : yoke.neutralTab,
          from: terminalAt(yoke, { id: from }),
          to: terminalAt(yoke, { id: to }),
        },
      ];
    }),
  );
