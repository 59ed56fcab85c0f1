/** Plans turned back into circuits: names, breakers, panel spaces, one command, and what it all comes to. */
import { buildRun } from '#core/circuits/run.ts';
import { conditionsOf, loadOfFixture } from '#core/circuits/circuitLoad.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad } from '#core/circuits/demand/demand.ts';
import { sizeCircuit } from '#core/circuits/sizing.ts';
import { outOfReach } from '#core/code/outOfReach.ts';
import type { View } from '#core/view/view.ts';
import type { Command } from '#core/job/commands.ts';
import { breakerOf, newId, PLAIN_CIRCUIT, rows, servedBy, stopAt } from '#core/job/document.ts';
import type { Area, Box, Circuit, Gauge, JobDocument, Panel } from '#core/job/schema.ts';
import { legAmps, legsTogether } from '#core/panel/balance.ts';
import { freeSpace, spacesIn, spacesOf } from '#core/panel/spaces.ts';
import { breakerPrice, cablePrice, conductorsIn } from '#core/panel/prices.ts';
import { purposeOf } from '#core/panel/purpose.ts';
import { isReceptacle, isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { HouseProblem, Part, Site } from './houseProblem.ts';
import { NEEDS_AFCI, NEEDS_GFCI, type Plan, type PricedCircuit } from './search/problem.ts';
import { protectionWith, type PlannerSettings } from './settings.ts';
import { askedOf, wayFrom, type Trunk } from './trunks.ts';

/** Room that a name leaves for a number. */
const LONGEST_NAME = 76;

/** A circuit before it has a place in the panel. */
interface Drafted {
  name: string;
  boxIds: string[];
  stops: Circuit['stops'];
  breaker: Circuit['breaker'];
  neutral: boolean;
  gauge: Gauge;
  /** A receptacle to become a GFCI so that all after it are protected. */
  gfciAt: Box | null;
}

/** A load of which only the receptacle is known: what it may draw. */
const byReceptacle = ({ device }: Box): BranchLoad => ({
  ...PLAIN_LOAD_VALUES,
  kind: 'general',
  volts: device.volts === '125' ? 120 : 240,
  amps: device.rating,
});

/** The breaker and conductor of an individual circuit: by its appliance's nameplate, or by its receptacle. */
function individual(view: View, { box }: Site): Pick<Circuit, 'gauge' | 'breaker' | 'neutral'> {
  const { document } = view;
  const fixture = servedBy(document, box);
  const load = (fixture && loadOfFixture(fixture)) ?? byReceptacle(box);
  const { settings } = document.job;
  const sized = sizeCircuit({
    edition: view.edition,
    load,
    ...conditionsOf(document.job, PLAIN_CIRCUIT),
    feet: 0,
    conductorCelsius: settings.conductorTemperature,
    // 210.21(B)(1): a single receptacle is rated for its circuit; one of 15 A on 20 A is changed for one of 20 A.
    breaker: isReceptacle(box) ? Math.max(20, box.device.rating) : null,
    gauge: null,
  });
  const rating = sized.ok ? sized.value.breaker : isReceptacle(box) ? Math.max(20, box.device.rating) : 20;
  const poles = load.volts > 150 ? 2 : 1;
  return {
    gauge: sized.ok ? sized.value.gauge : '6',
    breaker: breakerOf(rating as Circuit['breaker']['rating'], 'none', poles),
    neutral: poles === 1 || (isReceptacle(box) && box.device.volts === '125/250'),
  };
}

/** Places of sites in a circuit from one on, each branch to its end before the next. */
function orderFrom(circuit: PricedCircuit, start: number): number[] {
  const fed = [...circuit.feeders.keys()].filter((next) => circuit.feeders[next] === start);
  return [start, ...fed.flatMap((next) => orderFrom(circuit, next))];
}

/** A site's stops: its own box, then what hangs from it. */
const stopsOf = ({ box, hung }: Site, from: string | null): Circuit['stops'] => [
  stopAt(box.id, from),
  ...hung.map((b, i) => stopAt(b.id, i === 0 ? box.id : hung[i - 1]!.id)),
];

const outletsOf = ({ document }: View, sites: readonly Site[]): { box: Box; area: Area }[] =>
  sites.flatMap(({ box, area, hung }) =>
    [box, ...hung].map((b) => ({ box: b, area: document.areas[b.areaId] ?? area })),
  );

const needsOf = ({ pricer }: Part, sites: readonly number[]): number =>
  sites.reduce((all, i) => all | pricer.problem.needs[i]!, 0);

/** Whether a first box may be given a GFCI receptacle for all after it: one that can be tested and reset. */
const takesGfci = (view: View, box: Box, { gfciAt }: PlannerSettings): boolean =>
  gfciAt === 'first-box' &&
  isSmallReceptacle(box) &&
  box.device.kind !== 'gfci' &&
  outOfReach(view, box) === null;

function draft(view: View, part: Part, priced: PricedCircuit, settings: PlannerSettings): Drafted {
  const { sort, sites } = part;
  const members = priced.sites.map((i) => sites[i]!);
  const order = orderFrom(priced, priced.feeders.indexOf(-1));
  const stops = order.flatMap((at) => {
    const from = priced.feeders[at]!;
    return stopsOf(members[at]!, from < 0 ? null : members[from]!.box.id);
  });
  const needs = needsOf(part, priced.sites);
  const first = members[order[0]!]!.box;
  const gfci = (needs & NEEDS_GFCI) > 0 && !priced.guarded;
  const atFirstBox = gfci && takesGfci(view, first, settings);
  const own = sort === 'individual' ? individual(view, members[0]!) : null;
  const plain = own?.breaker ?? breakerOf(priced.option.rating as 15 | 20);
  // AFCI is asked for on 120 V circuits of 15 and 20 A alone.
  const afci = (needs & NEEDS_AFCI) > 0 && plain.poles === 1 && plain.rating <= 20;
  const atBreaker = (afci ? NEEDS_AFCI : 0) | (gfci && !atFirstBox ? NEEDS_GFCI : 0);
  return {
    name: purposeOf(view.document, outletsOf(view, members)),
    boxIds: stops.map((s) => s.boxId),
    stops,
    breaker: { ...plain, protection: protectionWith(atBreaker) },
    neutral: own?.neutral ?? true,
    gauge: own?.gauge ?? (priced.option.gauge as Gauge),
    gfciAt: atFirstBox ? first : null,
  };
}

/** An existing circuit with what joins it. */
export interface Extended {
  circuit: Circuit;
  /** Outlets that join it, and boxes of it that they are fed from. */
  added: string[];
  from: string[];
  /** Receptacles to become GFCIs. */
  gfcisAt: Box[];
}

/** The existing circuit with its added outlets, or with none of those it had been given. */
function extend(
  view: View,
  trunk: Trunk,
  taken: { part: Part; priced: PricedCircuit } | null,
  settings: PlannerSettings,
): Extended {
  const { document } = view;
  const { circuit } = trunk;
  const { stops } = trunk.run.circuit;
  if (!taken || taken.priced.sites.length === 1)
    return { circuit: { ...circuit, stops }, added: [], from: [], gfcisAt: [] };
  const { part, priced } = taken;
  const members = priced.sites.map((i) => part.sites[i]);
  const root = priced.feeders.indexOf(-1);
  let starts = trunk.starts;
  let atBreaker = askedOf(trunk, 0);
  const added: Circuit['stops'] = [];
  const from: string[] = [];
  const gfcisAt: Box[] = [];
  for (const [at, feeder] of priced.feeders.entries()) {
    if (feeder !== root) continue;
    const first = members[at]!;
    const { start } = wayFrom({ ...trunk, starts }, document, settings, first);
    from.push(start.stop.box.id);
    // Each box gives no more cables than it has room for.
    starts = starts
      .map((s) => (s.stop === start.stop ? { ...s, spare: s.spare - 1 } : s))
      .filter((s) => s.spare > 0);
    const branch = orderFrom(priced, at);
    for (const next of branch) {
      const by = priced.feeders[next]!;
      added.push(...stopsOf(members[next]!, by === root ? start.stop.box.id : members[by]!.box.id));
    }
    const needs = needsOf(
      part,
      branch.map((k) => priced.sites[k]!),
    );
    const atFirstBox = (needs & NEEDS_GFCI) > 0 && takesGfci(view, first.box, settings);
    if (atFirstBox) gfcisAt.push(first.box);
    atBreaker |= atFirstBox ? needs & ~NEEDS_GFCI : needs;
  }
  const joined = outletsOf(
    view,
    members.flatMap((m) => m ?? []),
  );
  return {
    circuit: {
      ...circuit,
      name: nameWith(document, trunk, joined),
      breaker: { ...circuit.breaker, protection: protectionWith(atBreaker, circuit.breaker.protection) },
      stops: [...stops, ...added],
    },
    added: added.map((s) => s.boxId),
    from: [...new Set(from)],
    gfcisAt,
  };
}

/** The line of a directory for a circuit that more outlets join: by its purpose where it was, else with the rooms it lacks. */
function nameWith(
  document: JobDocument,
  { circuit, run }: Trunk,
  joined: readonly { box: Box; area: Area }[],
): string {
  const all = circuit.stops.flatMap(({ boxId }) => {
    const box = document.boxes[boxId];
    const area = box && document.areas[box.areaId];
    return box && area ? [{ box, area }] : [];
  });
  if ([run.stops, all].some((outlets) => purposeOf(document, outlets) === circuit.name))
    return purposeOf(document, [...run.stops, ...joined]);
  const lacking = [...new Set(joined.map(({ area }) => area.name))].filter(
    (name) => !circuit.name.toLowerCase().includes(name.toLowerCase()),
  );
  const name = [circuit.name, ...lacking].join(', ');
  return name.length <= LONGEST_NAME ? name : circuit.name;
}

/**
 * Gives circuits their spaces: two poles first, while there is room for them, then the heaviest load on the leg
 * that carries less. Those that find no space are left out.
 */
function placeIn(document: JobDocument, panel: Panel, fresh: readonly Circuit[]): Map<Circuit, Circuit> {
  const spaces = spacesIn(document, panel);
  const runOf = (circuit: Circuit) => buildRun(document, circuit);
  const legs = legsTogether(
    rows(document.circuits)
      .filter((c) => c.panelId === panel.id)
      .map(runOf),
  );
  const weight = new Map(fresh.map((c) => [c, runOf(c).plannedAmps]));
  const order = [...fresh].sort(
    (a, b) => b.breaker.poles - a.breaker.poles || weight.get(b)! - weight.get(a)!,
  );
  const placed = new Map<Circuit, Circuit>();
  for (const circuit of order) {
    const lighter = legs.A <= legs.B ? 'A' : 'B';
    const preferred = spaces.filter((s) => circuit.breaker.poles === 2 || s.leg === lighter);
    const space =
      freeSpace(spaces, circuit.breaker.poles, preferred) ?? freeSpace(spaces, circuit.breaker.poles);
    if (space === null) continue;
    const there = { ...circuit, space };
    placed.set(circuit, there);
    for (const at of spacesOf(there)) spaces[at - 1]!.occupants.push({ circuit: there });
    const amps = legAmps(runOf(there));
    legs.A += amps.A;
    legs.B += amps.B;
  }
  return placed;
}

export interface Proposal {
  /** Puts the plan in place of the open circuits, as one step. */
  command: Command;
  /** New circuits. */
  circuits: Circuit[];
  /** Existing circuits that outlets join. */
  extended: Extended[];
  /** Circuits for which the panel has no space left: left out, with their outlets on no circuit. */
  withoutSpace: string[];
}

/** Turns plans, one for each part, into one command. Circuits keep the identity of those they take most from. */
export function propose(
  view: View,
  house: HouseProblem,
  plans: readonly Plan[],
  settings: PlannerSettings,
): Proposal {
  const { panel, parts, kept, open, trunks } = house;
  const { document } = view;
  const joined = new Map<Trunk, { part: Part; priced: PricedCircuit }>();
  const drafted = parts.flatMap((part, i) =>
    plans[i]!.circuits.flatMap((priced) => {
      const { trunk } = priced.option;
      if (trunk === undefined) return [draft(view, part, priced, settings)];
      joined.set(part.trunks[trunk - part.sites.length]!, { part, priced });
      return [];
    }),
  );
  const old = trunks.map((t) => extend(view, t, joined.get(t) ?? null, settings));
  const staying = [...kept, ...old.map((e) => e.circuit)];
  const unused = new Set(open);
  const names = new Set(staying.map((c) => c.name));
  const free = (name: string): string => {
    for (let n = 1; ; n++) {
      const tried = n === 1 ? name : `${name} ${n}`;
      if (!names.has(tried)) {
        names.add(tried);
        return tried;
      }
    }
  };
  const fresh = drafted.map((d): Circuit => {
    const shared = (c: Circuit) => c.stops.filter((s) => d.boxIds.includes(s.boxId)).length;
    const heir = [...unused].sort((a, b) => shared(b) - shared(a))[0];
    const before = heir && shared(heir) > 0 ? heir : undefined;
    if (before) unused.delete(before);
    return {
      id: before?.id ?? newId('circuit'),
      panelId: panel.id,
      space: 1,
      name: free(d.name.slice(0, LONGEST_NAME)),
      status: 'new',
      ...PLAIN_CIRCUIT,
      breaker: d.breaker,
      neutral: d.neutral,
      gauge: d.gauge,
      stops: d.stops,
    };
  });
  const placed = placeIn(
    { ...document, circuits: Object.fromEntries(staying.map((c) => [c.id, c])) },
    panel,
    fresh,
  );
  const circuits = fresh.flatMap((c) => placed.get(c) ?? []);
  const withoutSpace = fresh.filter((c) => !placed.has(c)).map((c) => c.name);
  const gfcis = [
    ...drafted.flatMap((d, i) => (d.gfciAt && placed.has(fresh[i]!) ? [d.gfciAt] : [])),
    ...old.flatMap((e) => e.gfcisAt),
  ].map((box) => ({ ...box, device: { ...box.device, kind: 'gfci' as const } }));
  const extended = old.filter((e) => e.added.length > 0);
  const commands: Command[] = [
    ...(open.length > 0
      ? [{ type: 'remove' as const, table: 'circuits' as const, ids: open.map((c) => c.id) }]
      : []),
    {
      type: 'put',
      table: 'circuits',
      rows: [
        ...old.map((e) => e.circuit).filter((c) => !sameStops(c, document.circuits[c.id]!)),
        ...circuits,
      ],
    },
    ...(gfcis.length > 0 ? [{ type: 'put' as const, table: 'boxes' as const, rows: gfcis }] : []),
  ];
  return {
    command: { type: 'batch', label: labelOf(circuits.length, extended.length), commands },
    circuits,
    extended,
    withoutSpace,
  };
}

const labelOf = (planned: number, extended: number): string =>
  planned === 0 && extended > 0
    ? `Extend ${extended} ${extended === 1 ? 'circuit' : 'circuits'}`
    : `Plan ${planned} ${planned === 1 ? 'circuit' : 'circuits'}${extended > 0 ? `, extend ${extended}` : ''}`;

const sameStops = (a: Circuit, b: Circuit): boolean =>
  a.breaker.protection === b.breaker.protection &&
  a.stops.length === b.stops.length &&
  a.stops.every(({ boxId, from }, i) => b.stops[i]!.boxId === boxId && b.stops[i]!.from === from);

export interface PlanFigures {
  /** New circuits, and existing ones that outlets join. */
  circuits: number;
  extended: number;
  /** All cable as installed, inches; of existing circuits what is added. */
  cable: number;
  cents: number;
  /** Worst drop under the planning load, percent. */
  drop: number;
}

/**
 * What a set of circuits comes to, whoever drew them: cable, breakers and GFCI receptacles at the shop's prices. Of an
 * existing circuit what is added counts, and a breaker that is not the one it had.
 */
function figuresOf(
  before: JobDocument,
  document: JobDocument,
  circuits: readonly Circuit[],
  { prices }: PlannerSettings,
): PlanFigures {
  const figures: PlanFigures = { circuits: 0, extended: 0, cable: 0, cents: 0, drop: 0 };
  for (const circuit of circuits) {
    const existing = circuit.status === 'existing';
    const run = buildRun(document, circuit);
    const counted = run.stops.filter((s) => !existing || s.box.status === 'new');
    if (counted.length === 0 && existing) continue;
    figures[existing ? 'extended' : 'circuits']++;
    const had = existing ? before.circuits[circuit.id]?.breaker.protection : undefined;
    if (had !== circuit.breaker.protection) figures.cents += breakerPrice(prices, circuit.breaker);
    const conductors = conductorsIn(circuit);
    for (const { segment, box } of counted) {
      figures.cable += segment.length;
      figures.cents += (cablePrice(prices, segment.gauge, conductors) * segment.length) / 12;
      if (box.device.kind === 'gfci' && box.status !== 'existing') figures.cents += prices['gfci-receptacle'];
    }
    for (const s of run.stops) figures.drop = Math.max(figures.drop, (100 * s.plannedDrop) / run.volts);
  }
  return figures;
}

/**
 * What a plan comes to.
 * @param after the job with it in place
 */
export const planFigures = (
  { document }: View,
  after: JobDocument,
  { circuits, extended }: Proposal,
  settings: PlannerSettings,
): PlanFigures => figuresOf(document, after, [...circuits, ...extended.map((e) => e.circuit)], settings);

/** What stands now in the place of a plan. */
export const figuresNow = (
  { document }: View,
  { open, trunks }: HouseProblem,
  settings: PlannerSettings,
): PlanFigures => figuresOf(document, document, [...open, ...trunks.map((t) => t.circuit)], settings);
