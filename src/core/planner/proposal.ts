/** Plans turned back into circuits: names, breakers, panel spaces, one command, and what it all comes to. */
import { buildRun } from '../circuits/run.ts';
import { conditionsOf, loadOfFixture } from '../circuits/circuitLoad.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad } from '../circuits/demand.ts';
import { sizeCircuit } from '../circuits/sizing.ts';
import type { View } from '../code/view.ts';
import type { Command } from '../job/commands.ts';
import { breakerOf, newId, PLAIN_CIRCUIT, rows, servedBy, stopAt } from '../job/document.ts';
import type { Box, Circuit, Gauge, JobDocument, Panel } from '../job/schema.ts';
import { legAmps, legsTogether } from '../panel/balance.ts';
import { freeSpace, spacesIn, spacesOf } from '../panel/spaces.ts';
import { breakerPrice, cablePrice, conductorsIn } from '../panel/prices.ts';
import { purposeOf } from '../panel/purpose.ts';
import { isReceptacle, isSmallReceptacle } from '../plan/wallSpaces.ts';
import type { HouseProblem, Part, PlannerSettings, Site } from './house.ts';
import { NEEDS_AFCI, NEEDS_GFCI, type Plan, type PricedCircuit } from './problem.ts';

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

function draft(
  view: View,
  { sort, sites, pricer }: Part,
  priced: PricedCircuit,
  settings: PlannerSettings,
): Drafted {
  const members = priced.sites.map((i) => sites[i]!);
  const order: number[] = [];
  const add = (at: number): void => {
    order.push(at);
    for (const [next, from] of priced.feeders.entries()) if (from === at) add(next);
  };
  add(priced.feeders.indexOf(-1));
  const stops = order.flatMap((at) => {
    const { box, hung } = members[at]!;
    const from = priced.feeders[at]!;
    return [
      stopAt(box.id, from < 0 ? null : members[from]!.box.id),
      ...hung.map((b, i) => stopAt(b.id, i === 0 ? box.id : hung[i - 1]!.id)),
    ];
  });
  const needs = priced.sites.reduce((all, i) => all | pricer.problem.needs[i]!, 0);
  const first = members[order[0]!]!.box;
  const atFirstBox =
    settings.gfciAt === 'first-box' && isSmallReceptacle(first) && first.device.kind !== 'gfci';
  const gfci = (needs & NEEDS_GFCI) > 0 && !priced.guarded;
  const afci = (needs & NEEDS_AFCI) > 0;
  const own = sort === 'individual' ? individual(view, members[0]!) : null;
  const plain = own?.breaker ?? breakerOf(priced.option.rating as 15 | 20);
  const byBreaker = gfci && !atFirstBox;
  // AFCI is asked for on 120 V circuits of 15 and 20 A alone.
  const arc = afci && plain.poles === 1 && plain.rating <= 20;
  return {
    name: purposeOf(
      view.document,
      members.flatMap(({ box, area, hung }) =>
        [box, ...hung].map((b) => ({ box: b, area: view.document.areas[b.areaId] ?? area })),
      ),
    ),
    boxIds: stops.map((s) => s.boxId),
    stops,
    breaker: { ...plain, protection: byBreaker ? (arc ? 'dual' : 'gfci') : arc ? 'afci' : 'none' },
    neutral: own?.neutral ?? true,
    gauge: own?.gauge ?? (priced.option.gauge as Gauge),
    gfciAt: gfci && atFirstBox ? first : null,
  };
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
  circuits: Circuit[];
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
  const { panel, parts, kept, open } = house;
  const { document } = view;
  const drafted = parts.flatMap((part, i) => plans[i]!.circuits.map((c) => draft(view, part, c, settings)));
  const unused = new Set(open);
  const names = new Set(kept.map((c) => c.name));
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
      name: free(d.name.slice(0, 76)),
      status: 'new',
      ...PLAIN_CIRCUIT,
      breaker: d.breaker,
      neutral: d.neutral,
      gauge: d.gauge,
      stops: d.stops,
    };
  });
  const placed = placeIn(
    { ...document, circuits: Object.fromEntries(kept.map((c) => [c.id, c])) },
    panel,
    fresh,
  );
  const circuits = fresh.flatMap((c) => placed.get(c) ?? []);
  const withoutSpace = fresh.filter((c) => !placed.has(c)).map((c) => c.name);
  const gfcis = drafted.flatMap((d, i) =>
    d.gfciAt && placed.has(fresh[i]!)
      ? [{ ...d.gfciAt, device: { ...d.gfciAt.device, kind: 'gfci' as const } }]
      : [],
  );
  const commands: Command[] = [
    ...(open.length > 0
      ? [{ type: 'remove' as const, table: 'circuits' as const, ids: open.map((c) => c.id) }]
      : []),
    { type: 'put', table: 'circuits', rows: circuits },
    ...(gfcis.length > 0 ? [{ type: 'put' as const, table: 'boxes' as const, rows: gfcis }] : []),
  ];
  return {
    command: { type: 'batch', label: `Plan ${circuits.length} circuits`, commands },
    circuits,
    withoutSpace,
  };
}

export interface PlanFigures {
  circuits: number;
  /** All cable as installed, inches. */
  cable: number;
  cents: number;
  /** Worst drop under the planning load, percent. */
  drop: number;
}

/** What a set of circuits comes to, whoever drew them: cable, breakers and devices at the shop's prices. */
export function figuresOf(
  view: View,
  circuits: readonly Circuit[],
  { prices }: PlannerSettings,
): PlanFigures {
  let cable = 0;
  let cents = 0;
  let drop = 0;
  for (const circuit of circuits) {
    const run = buildRun(view.document, circuit);
    cable += run.installed;
    cents += breakerPrice(prices, circuit.breaker);
    const conductors = conductorsIn(circuit);
    for (const s of run.stops) {
      cents += (cablePrice(prices, s.segment.gauge, conductors) * s.segment.length) / 12;
      drop = Math.max(drop, (100 * s.plannedDrop) / run.volts);
    }
  }
  return { circuits: circuits.length, cable, cents, drop };
}
