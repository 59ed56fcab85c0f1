/** The inside of a box as nodes and branches: a node for every end and place, a branch for every joint and contact. */
import { DEVICES, type Bridge, type DeviceRecord } from '#core/boxes/devices.ts';
import { BOX, endsOf, FEED, tailEnds, terminalAt, type End } from '#core/boxes/wiring.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import { CONTACT_OHMS, JOINT_OHMS, type Layout } from './layout.ts';
import { OPEN_OHMS } from './network.ts';
import { CONDUCTOR_OF, spotKey, type Conductor, type Spot, type Use } from './places.ts';

/** A node for every end and every place of a box; terminals that a kept tab joins are one metal. */
export function boxNodes(
  layout: Layout,
  name: string,
  wiring: BoxWiring,
  tabsApart = false,
): Map<string, number> {
  const nodes = new Map<string, number>();
  const add = (id: string) => nodes.set(id, layout.node(`${name}.${id}`));
  for (const end of endsOf(wiring)) if (end.kind !== 'tail') add(end.id);
  // The two ends of a tail are a few inches of one conductor.
  for (const tail of wiring.tails) {
    const [a, b] = tailEnds(tail);
    add(a);
    nodes.set(b, nodes.get(a)!);
  }
  for (const { id } of wiring.splices) add(id);
  if (wiring.places.some((p) => p.at === BOX)) add(BOX);
  for (const yoke of wiring.yokes) {
    const { terminals, bridges } = DEVICES[yoke.kind];
    const kept = (by: Bridge['by']) =>
      !tabsApart && ((by === 'hot tab' && yoke.hotTab) || (by === 'neutral tab' && yoke.neutralTab));
    const sameAs = new Map(bridges.flatMap(({ from, to, by }) => (kept(by) ? [[to, from] as const] : [])));
    const inside = [...terminals.map((t) => t.id), ...bridges.flatMap((b) => [b.from, b.to])];
    for (const id of inside)
      if (!sameAs.has(id) && !nodes.has(terminalAt(yoke, { id }))) add(terminalAt(yoke, { id }));
    for (const [id, as] of sameAs)
      nodes.set(terminalAt(yoke, { id }), nodes.get(terminalAt(yoke, { id: as }))!);
  }
  return nodes;
}

/** Every end with the place where it stands. @returns the branch of each joint by its end */
export function joints(
  layout: Layout,
  wiring: BoxWiring,
  nodes: ReadonlyMap<string, number>,
  stop: number,
  onward: ReadonlyMap<string, number>,
): Map<string, number> {
  const made = new Map<string, number>();
  const join = (id: string, from: number, to: number, spot: Omit<Spot, 'branch'>): Spot => {
    const placed = layout.join(from, to, JOINT_OHMS, spot);
    made.set(id, placed.branch);
    return placed;
  };
  const ends = new Map(endsOf(wiring).map((end) => [end.id, end]));
  const terminals = new Set(
    wiring.yokes.flatMap((yoke) => DEVICES[yoke.kind].terminals.map((t) => terminalAt(yoke, t))),
  );
  for (const { end: id, at } of wiring.places) {
    const end = ends.get(id);
    const [from, to] = [nodes.get(id), at === null ? undefined : nodes.get(at)];
    if (!end || at === null || from === undefined || to === undefined) continue;
    const conductor = CONDUCTOR_OF[end.function];
    const onDevice = terminals.has(at);
    const next = end.cable && onward.get(end.cable.toward);
    if (next !== undefined && next !== null) join(id, to, from, { stop: next, conductor, part: 'start' });
    else if (end.cable?.toward === FEED) {
      const spot = join(id, from, to, { stop, conductor, part: onDevice ? 'terminal' : 'end' });
      if (onDevice) layout.aliases.push([spotKey({ stop, conductor, part: 'end' }), spot]);
    } else if (end.kind === 'lead') {
      const landed = conductor === 'other' ? conductorAt(wiring, at, ends) : conductor;
      join(id, to, from, { stop, conductor: landed, part: 'terminal' });
    } else if (end.kind === 'tail' && onDevice) join(id, from, to, { stop, conductor, part: 'terminal' });
    // What bonds the box carries nothing while all is well, and has no name of its own.
    else if (end.kind === 'tail' && at !== BOX && !id.endsWith('.b'))
      join(id, to, from, { stop, conductor, part: 'tail' });
    else made.set(id, layout.branch(from, to, JOINT_OHMS));
  }
  return made;
}

/** What the conductors that meet at a place are there for. */
function conductorAt(wiring: BoxWiring, place: string, ends: ReadonlyMap<string, End>): Conductor {
  for (const { end, at } of wiring.places) {
    const one = at === place ? ends.get(end) : undefined;
    if (one && one.kind !== 'lead' && CONDUCTOR_OF[one.function] !== 'other')
      return CONDUCTOR_OF[one.function];
  }
  return 'other';
}

/** The conductor that lands on a terminal, or that its lead is joined with. */
export function landedAt(wiring: BoxWiring, terminal: string, ends: ReadonlyMap<string, End>): Conductor {
  const splice = wiring.places.find((p) => p.end === terminal)?.at;
  return conductorAt(wiring, splice ?? terminal, ends);
}

/** Branches that a protecting device opens. */
export interface Contacts {
  /** Its contacts, which it senses; those of a switch are not among them. */
  contacts: Spot[];
  /** Ways to its own face, open while it has not reset. */
  faces: number[];
}

/** What a device joins: its contacts as they stand. */
export function bridges(
  layout: Layout,
  record: DeviceRecord,
  nodeOf: (id: string) => number,
  named: (id: string) => Conductor,
  stop: number,
  use: Use,
): Contacts {
  const at = stop - layout.first;
  const thrown = use.open.has(at);
  const found: Contacts = { contacts: [], faces: [] };
  for (const { from, to, by, leaks } of record.bridges) {
    const [a, b] = [nodeOf(from), nodeOf(to)];
    if (by === 'hot tab' || by === 'neutral tab') {
      // Laid apart, a kept tab is a branch that may be broken.
      if (a !== b && use.apart?.has(at))
        layout.join(a, b, JOINT_OHMS, {
          stop,
          conductor: by === 'hot tab' ? 'black' : 'neutral',
          part: 'tab',
        });
      continue;
    }
    if (by === 'face') {
      const joined = !thrown || use.old?.has(at);
      found.faces.push(layout.branch(a, b, joined ? JOINT_OHMS : OPEN_OHMS));
      continue;
    }
    const closed = by === 'contact' ? !thrown : by.includes(thrown ? 1 : 0);
    // Of two ways the common screw says nothing: each is named by where it goes.
    const conductor =
      record.positions.length > 0 && from !== 'line' && from !== 'line-b' ? named(to) : named(from);
    const spot = layout.join(a, b, closed ? CONTACT_OHMS : (leaks ?? OPEN_OHMS), {
      stop,
      conductor,
      part: 'contact',
    });
    if (by === 'contact') found.contacts.push(spot);
  }
  return found;
}
