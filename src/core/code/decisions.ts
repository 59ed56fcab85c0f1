/**
 * GFCI, AFCI, tamper- and weather-resistance for one outlet under the job's edition: what is asked for,
 * whether the plan gives it, and the reason and section for both answers.
 */
import { applianceGfci, FIXTURES, isServiced, isTub, isCounter, isIsland } from '#core/tables/fixtures.ts';
import { at, since } from '#core/tables/editions.ts';
import { countsAtCounter } from '#core/plan/coverage.ts';
import { waterNear } from '#core/plan/reach.ts';
import { type ProtectionOrigin, type RunStop, runOf, stopOf } from '#core/circuits/run.ts';
import { NO_WATER_NEAR, servedBy } from '#core/job/document.ts';
import { outlineOf } from '#core/job/outline.ts';
import type { Area, AreaKind, Box, Circuit, Edition, Fixture } from '#core/job/schema.ts';
import { ABOVE_COUNTER, floorLineOf } from '#core/plan/counters.ts';
import { HIGHEST_COUNTED, isReceptacle } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import {
  atOrBelowGrade,
  CRAWL_LIGHT_SECTION,
  DAMP_SECTION,
  exposureOf,
  FOOD_SECTION,
  gfciEntry,
  isArcRoom,
  isOutside,
  labelOf,
  LAUNDRY_SECTION,
  NEAR_SINK_SECTION,
  NEAR_TUB_SECTION,
  OUTDOOR_HVAC_EXCEPTED_UNTIL,
  NEAR_WATER,
} from '#core/tables/areas.ts';
import { outOfScope } from '#core/tables/fixtures.ts';
import { isPlaced } from './facts.ts';
import { type View } from '#core/view/view.ts';

const TOPICS = ['gfci', 'afci', 'tamper-resistant', 'weather-resistant'] as const;
export type Topic = (typeof TOPICS)[number];

export interface Decision {
  topic: Topic;
  /**
   * `existing`: today's rule would ask for it, but does not reach back to work that is not altered. `not-known`: a fact that
   * decides is not on record. `not-judged`: out of scope here.
   */
  asked: 'required' | 'not-required' | 'existing' | 'not-known' | 'not-judged';
  /** What provides it in the plan, or null. */
  providedBy: string | null;
  /** A local amendment switched off what the code asks. */
  waived: boolean;
  reason: string;
  section: string;
}

/** With no counters on record, a kitchen receptacle between these heights is taken to serve one, inches. */
const COUNTER_HEIGHTS = { from: 36, to: 56 };

/** Outlets outdoors that are not receptacles. */
export const OUTDOOR_OUTLETS = '210.8(F)';

interface Ask {
  reason: string;
  section: string;
  /** What is missing decides: nothing is asked for, and nothing is excused. */
  notKnown?: true;
  /** The rule reaches what is served, though its outlet is left alone. */
  altered?: true;
}

/** A counter that stands below an outlet on its wall, or null. */
function counterBelow(view: View, box: Box, area: Area): Fixture | null {
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === box.wallId);
  if (!wall) return null;
  const at = wall.start + box.offset;
  return (
    view.fixturesIn(area).find((f) => {
      const line = isCounter(f) && f.status !== 'remove' ? floorLineOf(outline, f) : null;
      return line !== null && at >= line.from && at <= line.to && box.height >= f.height;
    }) ?? null
  );
}

/**
 * Whether a receptacle serves a counter, an island or a peninsula: by where it stands, whatever it counts for in their
 * spacing. High above one it may or may not: then it is asked.
 */
function servesCounter(view: View, box: Box, area: Area): boolean | 'ask' {
  if (box.fixtureId !== null || box.mount === 'face-up' || box.mount === 'counter-assembly') return true;
  if (!isPlaced(view, box)) return box.serves === null ? 'ask' : false;
  const high = (above: number): boolean | 'ask' =>
    above <= ABOVE_COUNTER ? true : box.serves === null ? 'ask' : false;
  const below = counterBelow(view, box, area);
  if (below) return high(box.height - below.height);
  if (countsAtCounter(view, box, area)) return true;
  const drawn = view.fixturesIn(area).some((f) => isCounter(f) || isIsland(f));
  if (drawn || box.height < COUNTER_HEIGHTS.from) return false;
  return box.height <= COUNTER_HEIGHTS.to ? true : box.serves === null ? 'ask' : false;
}

/** The only outlet on its circuit. */
function alone(view: View, box: Box): boolean {
  const circuit = view.circuitOf(box.id);
  return circuit !== null && circuit.stops.length === 1;
}

/** Whether the plan shows every way from an outlet to water in its room: it stands on it, and so does every sink there. */
const waterIsDrawn = (view: View, box: Box, area: Area): boolean =>
  isPlaced(view, box) &&
  view.fixturesIn(area).every((f) => f.wallId !== null || !FIXTURES[f.kind].water || f.status === 'remove');

/** The nearest sink, tub or shower within 6 ft: measured on site where that is on record, else on the plan. */
function nearWater(view: View, box: Box, area: Area): Ask | null {
  const { edition } = view;
  const limit = view.limit('gfci', NEAR_WATER, 'more');
  if (box.waterDistance !== null) {
    if (box.waterDistance > limit) return null;
    return {
      reason: `${formatLength(box.waterDistance)} from a sink, tub or shower as measured; the limit is ${formatLength(limit)}`,
      section: at(NEAR_SINK_SECTION, edition),
    };
  }
  const [nearest] = waterNear(view, box);
  if (!nearest)
    return waterIsDrawn(view, box, area)
      ? null
      : {
          reason: `no plan: how far a sink, tub or shower is by cord is not on record; the limit is ${formatLength(limit)}`,
          section: at(NEAR_SINK_SECTION, edition),
          notKnown: true,
        };
  const { fixture, path } = nearest;
  return {
    reason: `${formatLength(path.distance)} by cord from the ${fixture.name}; the limit is ${formatLength(limit)}`,
    section: at(isTub(fixture) ? NEAR_TUB_SECTION : NEAR_SINK_SECTION, edition),
  };
}

/** What 210.8(A) asks of a receptacle by its place. */
function placeAsks(view: View, box: Box, area: Area): Ask | null {
  const { edition } = view;
  // The 2017 list is of 125 V, 15 and 20 A receptacles only.
  if (!since(edition, '2020') && (box.device.rating > 20 || box.device.volts !== '125')) return null;
  const level = view.document.levels[area.levelId];
  const where = labelOf(area);
  const outside = isOutside(area);
  if (outside && box.purpose === 'deicing' && !box.accessible && alone(view, box)) return null;
  const { which, section } = gfciEntry(area, level, edition);
  const supports = box.purpose === 'ceiling-support' && since(edition, '2020');
  const excepted =
    supports ||
    (box.purpose === 'alarm-system' && area.kind.startsWith('basement')) ||
    (box.purpose === 'ceiling-fan' && since(edition, '2023'));
  if (!excepted) {
    if (which === 'all') return { reason: `every receptacle in ${withArticle(where)} (${edition})`, section };
    const food = at(FOOD_SECTION, edition);
    // The provision on record is one with a sink, drawn or not.
    if (food && area.conditions.foodPreparation)
      return {
        reason: 'the area has a sink and permanent provision to prepare food or drink',
        section: food,
      };
    if (servesLaundry(view, box, area))
      return {
        reason: 'laundry area: its washer or dryer stands here',
        section: at(LAUNDRY_SECTION, edition),
      };
    const serves = which === 'counter' ? servesCounter(view, box, area) : false;
    if (serves === true)
      return { reason: `serves a kitchen counter: ${formatLength(box.height)} above the floor`, section };
    if (serves === 'ask')
      return (
        nearWater(view, box, area) ?? {
          reason: `${formatLength(box.height)} above the floor: whether it serves the counter is not on record. Say which appliance it is for, or that it is the counter’s`,
          section,
          notKnown: true,
        }
      );
  }
  const water = nearWater(view, box, area);
  if (water && !(supports && water.section === at(NEAR_SINK_SECTION, edition))) return water;
  const damp = at(DAMP_SECTION, edition);
  if (area.location !== 'dry' && damp && !outside)
    return { reason: `indoor ${area.location} location`, section: damp };
  return null;
}

/** Rooms that become a laundry by the washer in them. */
const LAUNDRY_ROOMS: readonly AreaKind[] = ['closet', 'utility'];

/** A laundry is where its equipment is: the outlet of a washer or dryer, and those of the closet that it stands in. */
function servesLaundry(view: View, box: Box, area: Area): boolean {
  const fixture = servedBy(view.document, box);
  if (fixture && FIXTURES[fixture.kind].laundry) return true;
  return (
    LAUNDRY_ROOMS.includes(area.kind) &&
    view.fixturesIn(area).some((f) => f.kind === 'washer' && f.status !== 'remove')
  );
}

/** Floor heat in bathrooms and kitchens, 424.44. */
function floorHeatAsks(view: View, box: Box): Ask | null {
  const fixture = servedBy(view.document, box);
  if (fixture?.kind !== 'floor-heat') return null;
  const area = view.document.areas[fixture.areaId];
  if (area?.kind !== 'bathroom' && area?.kind !== 'kitchen') return null;
  return { reason: `electric floor heat in a ${labelOf(area)}`, section: '424.44' };
}

/** Equipment that is worked on in an attic or crawl space has its receptacle there, 210.63. */
const servicesEquipment = (view: View, box: Box, area: Area): boolean =>
  box.purpose === 'equipment-service' ||
  ((area.kind === 'attic' || area.kind === 'crawl-space') &&
    box.purpose === 'general' &&
    view.fixturesIn(area).some((f) => isServiced(f) && f.status !== 'remove'));

/** What is asked of an outlet for what it serves. */
function servedAsks(view: View, box: Box): Ask | null {
  const fixture = servedBy(view.document, box);
  const section = fixture ? applianceGfci(fixture, view.edition) : null;
  if (!fixture || section === null) return null;
  const rating = view.circuitOf(box.id)?.breaker.rating ?? 0;
  return rating > 60 ? null : { reason: `outlet for the ${fixture.name}`, section };
}

/** How 210.8(F) stands toward an outlet that is no receptacle: outdoors, and from 2023 in garages and outbuildings. */
function outdoorOutlet(view: View, box: Box, area: Area): { ask: Ask | null; excepted: string | null } {
  const none = { ask: null, excepted: null };
  const { edition } = view;
  if (!since(edition, '2020') || (view.circuitOf(box.id)?.breaker.rating ?? 0) > 50) return none;
  const outside = isOutside(area);
  const building =
    area.kind === 'accessory' ||
    area.kind === 'boathouse' ||
    (area.kind === 'garage' && atOrBelowGrade(area, view.document.levels[area.levelId]));
  if (!outside && !(building && since(edition, '2023'))) return none;
  const fixture = servedBy(view.document, box);
  const { permitDate } = view.document.job;
  const where = outside ? 'outdoors' : `in ${withArticle(labelOf(area))}`;
  const ask: Ask = { reason: `outlet for fixed equipment ${where}`, section: OUTDOOR_OUTLETS };
  // The 2023 edition reaches the old outlet of equipment that is replaced.
  if (since(edition, '2023') && (fixture?.status === 'new' || fixture?.status === 'replace'))
    ask.altered = true;
  if (!since(edition, '2023') || !fixture || !isServiced(fixture)) return { ask, excepted: null };
  const exception = `listed heating and cooling equipment is excepted until ${OUTDOOR_HVAC_EXCEPTED_UNTIL}, 210.8(F) exception 2`;
  if (permitDate !== null && permitDate < OUTDOOR_HVAC_EXCEPTED_UNTIL)
    return { ask: null, excepted: exception };
  if (permitDate === null) {
    ask.reason += `; ${exception}: the day of the permit is not on record`;
    ask.notKnown = true;
  } else ask.reason += `; the exception for heating and cooling ended ${OUTDOOR_HVAC_EXCEPTED_UNTIL}`;
  return { ask, excepted: null };
}

/** How far the nearest water is by cord, in words; empty where none is near. */
function farFromWater(view: View, box: Box): string {
  const limit = formatLength(view.limit('gfci', NEAR_WATER, 'more'));
  if (box.waterDistance === NO_WATER_NEAR)
    return `, no sink, tub or shower near: somebody looked; the limit is ${limit}`;
  if (box.waterDistance !== null)
    return `, ${formatLength(box.waterDistance)} from a sink, tub or shower as measured; the limit is ${limit}`;
  return `, no sink, tub or shower within ${limit} by cord`;
}

/** Why a receptacle needs no GFCI: its volts and rating, or its place and its way to water. */
function noGfciAtReceptacle(view: View, box: Box, area: Area): Ask {
  const { edition } = view;
  const { rating, volts } = box.device;
  const section = '210.8(A)';
  if (!since(edition, '2020') && (rating > 20 || volts !== '125'))
    return {
      reason: `${volts} V, ${rating} A: the ${edition} list is of 125 V receptacles of 15 and 20 A`,
      section,
    };
  if (box.purpose === 'deicing' && isOutside(area))
    return { reason: 'for deicing, out of reach and alone on its circuit', section: '210.8(A)(3) Ex.' };
  const excepted: Partial<Record<Box['purpose'], string>> = {
    'ceiling-support': 'a weight-supporting ceiling receptacle',
    'alarm-system': 'for an alarm system alone',
    'ceiling-fan': 'a receptacle of a ceiling fan',
  };
  const purpose = excepted[box.purpose];
  return {
    reason: `${purpose === undefined ? '' : `${purpose}; `}${withArticle(labelOf(area))} is not in the list of ${edition}${farFromWater(view, box)}`,
    section,
  };
}

/** Why an outlet needs no GFCI. */
function noGfci(view: View, box: Box, area: Area): Ask {
  const fixture = servedBy(view.document, box);
  switch (box.device.kind) {
    case 'smoke-alarm':
      return { reason: 'a smoke alarm: no part of 210.8 names it', section: '210.8' };
    case 'light':
      return {
        reason: `a lighting outlet: only those in crawl spaces are asked for, and this is ${withArticle(labelOf(area))}`,
        section: at(CRAWL_LIGHT_SECTION, view.edition),
      };
    case 'switch':
      return {
        reason: fixture
          ? `the switch of the ${fixture.name}, which is no floor heat in a bathroom or kitchen`
          : 'a switch is no outlet',
        section: '210.8',
      };
    case 'hardwired': {
      const rating = view.circuitOf(box.id)?.breaker.rating ?? 0;
      const outside = isOutside(area);
      const what = fixture ? `the ${fixture.name} is wired in` : 'wired in, no receptacle';
      const large = outside && rating > 50 ? `, on ${rating} A: 210.8(F) ends at 50 A` : '';
      const early =
        outside && !since(view.edition, '2020')
          ? `; ${view.edition} has no rule for outdoor outlets without a plug`
          : '';
      return {
        reason: `${what}, and ${view.edition} asks for none there: ${withArticle(labelOf(area))}${large}${early}`,
        section: since(view.edition, '2020') ? '210.8(D), (F)' : '210.8(D)',
      };
    }
    default:
      return noGfciAtReceptacle(view, box, area);
  }
}

/** Why GFCI is asked for at an outlet, or null. */
function gfciAsked(view: View, box: Box, area: Area): Ask | null {
  const { edition } = view;
  switch (box.device.kind) {
    case 'smoke-alarm':
      return null;
    case 'switch':
      // The thermostat is the outlet of its floor heat.
      return floorHeatAsks(view, box);
    case 'light':
      return area.kind === 'crawl-space'
        ? { reason: 'lighting outlet in a crawl space', section: at(CRAWL_LIGHT_SECTION, edition) }
        : null;
    case 'hardwired':
      return floorHeatAsks(view, box) ?? servedAsks(view, box) ?? outdoorOutlet(view, box, area).ask;
    default:
      return (
        placeAsks(view, box, area) ??
        servedAsks(view, box) ??
        (servicesEquipment(view, box, area) && since(edition, '2020')
          ? { reason: 'serves equipment that is worked on', section: '210.8(E)' }
          : null) ??
        (box.purpose === 'vehicle' ? { reason: 'receptacle for EV charging', section: '625.54' } : null)
      );
  }
}

/** `a bedroom`, `an attic`; what is no count noun stays bare. */
const withArticle = (label: string): string =>
  /s$|^(outdoors|stairs)/.test(label) ? label : `${/^[aeiou]/.test(label) ? 'an' : 'a'} ${label}`;

const isNewWork = (box: Box) => box.status === 'new' || box.status === 'replace';

/** The rule in the catalogue that an answer belongs to: amendments are made to rules. */
const ruleOf = (topic: Topic, section: string): string =>
  section === OUTDOOR_OUTLETS ? 'outdoor-outlets' : topic;

interface Answer {
  ask: Ask | null;
  /** What provides it in the plan. */
  provided(): string | null;
  /** Section that brings today's rule to a replacement. */
  replacement: string;
  /** Why today's rule does not reach this work. */
  leftAlone?: string;
  /** What is said when nothing is asked for. */
  none(): Ask;
}

/** Applies the reach of today's rule: new work, replacements by 406.4(D), existing work left alone, amendments. */
function decide(
  topic: Topic,
  view: View,
  box: Box,
  { ask, provided, replacement, leftAlone, none }: Answer,
): Decision {
  const providedBy = provided();
  if (!ask) return { topic, asked: 'not-required', providedBy, waived: false, ...none() };
  const off = view.amendmentsOf(ruleOf(topic, ask.section)).find((a) => a.action === 'off');
  if (off) {
    const reason = `${ask.reason}; switched off here by ${off.reference}`;
    return { topic, asked: 'not-required', providedBy, waived: true, reason, section: ask.section };
  }
  if (ask.notKnown)
    return { topic, asked: 'not-known', providedBy, waived: false, reason: ask.reason, section: ask.section };
  if (leftAlone !== undefined || (!isNewWork(box) && !ask.altered)) {
    const when = isReceptacle(box)
      ? 'existing and not altered, so it is asked for when the receptacle is replaced'
      : 'existing and not altered';
    const reason = `${ask.reason}; ${leftAlone ?? when}`;
    const section = isReceptacle(box) ? `${ask.section}, ${replacement}` : ask.section;
    return { topic, asked: 'existing', providedBy, waived: false, reason, section };
  }
  const section =
    box.status === 'replace' && isReceptacle(box) ? `${replacement}, ${ask.section}` : ask.section;
  return { topic, asked: 'required', providedBy, waived: false, reason: ask.reason, section };
}

export const describeOrigin = (origin: ProtectionOrigin | null, box: Box): string | null => {
  if (!origin) return null;
  if (origin.at === 'breaker') return 'breaker';
  const device = origin.kind === 'gfci' ? 'GFCI' : 'outlet-type AFCI';
  return origin.boxId === box.id ? `its own ${device} device` : `${device} receptacle at ${origin.name}`;
};

function gfci(view: View, box: Box, area: Area): Answer {
  return {
    ask: gfciAsked(view, box, area),
    provided() {
      const own = box.device.kind === 'gfci' ? 'its own GFCI device' : null;
      return describeOrigin(stopOf(view, box)?.stop.gfci ?? null, box) ?? own;
    },
    replacement: '406.4(D)(3)',
    none: () => {
      const excepted = box.device.kind === 'hardwired' ? outdoorOutlet(view, box, area).excepted : null;
      if (excepted) return { reason: excepted, section: OUTDOOR_OUTLETS };
      return noGfci(view, box, area);
    },
  };
}

/** Whether something works at 120 V on its circuit: what hangs on both hots, or has no neutral, does not. */
function at120({ breaker, neutral }: Circuit, { box, stop }: RunStop): boolean {
  if (isReceptacle(box)) return box.device.volts === '125';
  if (breaker.poles === 1) return true;
  return neutral && box.device.kind !== 'hardwired' && stop.hot !== 'both';
}

/** Whether an outlet brings its circuit under 210.12: by its room, or by the laundry there. */
const asksForArc = (view: View, box: Box, area: Area): boolean =>
  isArcRoom(area) || servesLaundry(view, box, area);

/** The room that brings a circuit under 210.12, or null. */
export function afciRoom(view: View, circuit: Circuit): { box: Box; area: Area } | null {
  const { rating } = circuit.breaker;
  if (rating > 20 || (rating === 10 && !since(view.edition, '2023'))) return null;
  for (const stop of runOf(view, circuit).stops) {
    const { box, area } = stop;
    if (box.status === 'remove' || !at120(circuit, stop)) continue;
    if (asksForArc(view, box, area)) return { box, area };
  }
  return null;
}

/** Why a circuit, or an outlet on none, is not under 210.12. */
function noArc(view: View, area: Area, on: { circuit: Circuit; stop: RunStop } | null): Ask {
  const section = afciSection(view.edition);
  const where = `${withArticle(labelOf(area))} is not in the list of ${view.edition}`;
  if (!on) return { reason: where, section };
  const { breaker } = on.circuit;
  if (breaker.rating > 20)
    return { reason: `on ${breaker.rating} A: only circuits of 20 A and less are asked for`, section };
  if (breaker.rating === 10 && !since(view.edition, '2023'))
    return { reason: `on 10 A: ${view.edition} asks for circuits of 15 and 20 A`, section };
  if (!at120(on.circuit, on.stop))
    return { reason: 'works at 240 V: only 120 V circuits are asked for', section };
  return { reason: `nothing at 120 V on the circuit stands in a listed room; ${where}`, section };
}

/** A room that brings a circuit under 210.12, in words: one that is not listed does so by the laundry in it. */
export const suppliedRoom = (area: Area): string =>
  `${area.name} (${isArcRoom(area) ? labelOf(area) : 'laundry area'})`;

export const afciSection = (edition: Edition): string => (since(edition, '2023') ? '210.12(B)' : '210.12(A)');

/**
 * Where an outlet gets its AFCI from, if from a means that is allowed there. An outlet-type device serves a
 * replacement where it is or upstream, and new outlets on an old circuit from the circuit's first outlet.
 */
export function afciMeans(circuit: Circuit, stop: RunStop): ProtectionOrigin | null {
  const { afci } = stop;
  if (!afci || afci.at === 'breaker') return afci;
  if (circuit.status !== 'existing') return null;
  if (stop.box.status === 'new') return afci.first ? afci : null;
  return afci;
}

/** Whether a circuit is of those that a listed room on it brings under 210.12. */
const couldAskForArc = (view: View, { circuit, stop }: { circuit: Circuit; stop: RunStop }): boolean =>
  circuit.breaker.rating <= 20 &&
  (circuit.breaker.rating !== 10 || since(view.edition, '2023')) &&
  at120(circuit, stop);

function afci(view: View, box: Box, area: Area): Answer {
  const on = stopOf(view, box);
  const room = on ? afciRoom(view, on.circuit) : asksForArc(view, box, area) ? { box, area } : null;
  const known = !on || on.circuit.complete === 'yes' || !couldAskForArc(view, on);
  const unknown: Ask | null = known
    ? null
    : {
        reason:
          'nothing on record on the circuit stands in a listed room, and not all that it feeds is on record',
        section: afciSection(view.edition),
        notKnown: true,
      };
  const ask =
    room === null
      ? unknown
      : { reason: `the circuit supplies ${suppliedRoom(room.area)}`, section: afciSection(view.edition) };
  return {
    ask,
    provided: () => describeOrigin(on ? afciMeans(on.circuit, on.stop) : null, box),
    replacement: '406.4(D)(4)',
    // A luminaire or switch that is replaced leaves the wiring as it is: 406.4(D)(4) is of receptacles.
    ...(box.status === 'replace' && !isReceptacle(box)
      ? { leftAlone: 'replaced without altered wiring, so AFCI comes with the next change of the circuit' }
      : {}),
    none: () => noArc(view, area, on),
  };
}

/** Why a receptacle need not be tamper-resistant, or null when it must be. */
function tamperExcepted(view: View, box: Box): string | null {
  const { kind, rating } = box.device;
  if (!isReceptacle(box)) return 'not a receptacle';
  if (rating > 20) return `a ${rating} A receptacle: only those of 15 and 20 A are asked for`;
  if (kind === 'two-slot') return 'a nongrounding replacement receptacle';
  if (box.height > HIGHEST_COUNTED) return 'more than 5 ft 6 in. above the floor';
  if (box.mount === 'in-luminaire') return 'part of a luminaire or appliance';
  const fixture = servedBy(view.document, box);
  const stays = (f: Fixture | undefined): f is Fixture =>
    f !== undefined && f.connection === 'cord' && !FIXTURES[f.kind].easilyMoved;
  if (kind === 'single' && stays(fixture))
    return `a single receptacle in the space of the ${fixture.name}, which is not easily moved`;
  const second = view.document.fixtures[box.alsoServes ?? ''];
  if (kind === 'duplex' && stays(fixture) && stays(second))
    return `a duplex in the spaces of the ${fixture.name} and the ${second.name}, which are not easily moved`;
  return null;
}

function tamperResistant(view: View, box: Box): Answer {
  const excepted = tamperExcepted(view, box);
  return {
    ask: excepted === null ? { reason: '15 or 20 A receptacle in a dwelling', section: '406.12(1)' } : null,
    provided: () => (box.device.tamperResistant ? 'the receptacle' : null),
    replacement: '406.4(D)(5)',
    none: () => ({ reason: excepted ?? '', section: '406.12' }),
  };
}

function weatherResistant(_view: View, box: Box, area: Area): Answer {
  const exposed = exposureOf(area);
  const small = isReceptacle(box) && box.device.rating <= 20;
  const ask =
    exposed === 'dry' || !small
      ? null
      : {
          reason: `${exposed} location${exposed === 'wet' ? ', with a cover weatherproof while in use' : ''}`,
          section: exposed === 'wet' ? '406.9(B)(1)' : '406.9(A)',
        };
  return {
    ask,
    provided: () => (box.device.weatherResistant ? 'the receptacle' : null),
    replacement: '406.4(D)(6)',
    none: () => ({
      reason:
        exposed === 'dry'
          ? `a dry location: ${labelOf(area)}`
          : isReceptacle(box)
            ? `a ${box.device.rating} A receptacle: only those of 15 and 20 A are asked for`
            : 'not a receptacle',
      section: '406.9',
    }),
  };
}

const ANSWERS: Record<Topic, (view: View, box: Box, area: Area) => Answer> = {
  gfci,
  afci,
  'tamper-resistant': tamperResistant,
  'weather-resistant': weatherResistant,
};

/** Where nothing takes current nothing is asked for. */
const NO_OUTLET: Answer = {
  ask: null,
  provided: () => null,
  replacement: '',
  none: () => ({ reason: 'a junction box: no outlet', section: '100' }),
};
const answerOn = (topic: Topic, view: View, box: Box, area: Area): Answer =>
  box.device.kind === 'junction' ? NO_OUTLET : ANSWERS[topic](view, box, area);

/** The answer for an outlet of what is out of scope here. */
function notJudged(topic: Topic, view: View, box: Box): Decision | null {
  const fixture = servedBy(view.document, box);
  const scope = outOfScope(fixture);
  return (
    scope && {
      topic,
      asked: 'not-judged',
      providedBy: null,
      waived: false,
      reason: `outlet of the ${fixture!.name}, which is not judged here`,
      section: scope.article,
    }
  );
}

/** One decision; null when the outlet's room is gone. */
export function decisionOn(topic: Topic, view: View, box: Box): Decision | null {
  const area = view.document.areas[box.areaId];
  if (!area) return null;
  return notJudged(topic, view, box) ?? decide(topic, view, box, answerOn(topic, view, box, area));
}

/** As `decisionOn`, but null as well where nothing is asked for: most outlets in a large check. */
export function decisionIfAsked(topic: Topic, view: View, box: Box): Decision | null {
  const area = view.document.areas[box.areaId];
  const apart = area && notJudged(topic, view, box);
  if (apart) return apart;
  const answer = area && answerOn(topic, view, box, area);
  return answer?.ask ? decide(topic, view, box, answer) : null;
}

/** All four decisions for an outlet; empty when its room is gone. */
export const decisionsFor = (view: View, box: Box): Decision[] =>
  TOPICS.flatMap((topic) => decisionOn(topic, view, box) ?? []);

/** Stickers an outlet needs for want of an equipment ground, 406.4(D)(2). */
export function labelsFor(view: View, box: Box): string[] {
  if (!isReceptacle(box) || box.grounding !== 'none' || box.status === 'remove') return [];
  if (box.device.kind === 'two-slot') return [];
  if (box.device.kind === 'gfci') return ['No Equipment Ground'];
  return decisionOn('gfci', view, box)?.providedBy ? ['GFCI Protected', 'No Equipment Ground'] : [];
}
