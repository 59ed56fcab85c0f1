/**
 * Places what a whole house lacks. The rules themselves say what is missing; for each there is one way to
 * provide it. What is placed for one rule is there when the next is asked, so one receptacle may serve two.
 */
import { isTub } from '#core/tables/fixtures.ts';
import { since } from '#core/tables/editions.ts';
import { neighborsOf } from '#core/plan/joined.ts';
import { wallCoverage } from '#core/plan/coverage.ts';
import type { Rule, Subjects } from '#core/code/rule.ts';
import { APPLIANCE_REACH } from '#core/code/rules/appliance-receptacle.ts';
import { wallsBeside } from '#core/code/rules/bathroom-basin.ts';
import { BASIN_REACH } from '#core/plan/reach.ts';
import { deckExcused, HIGHEST_OUTDOORS } from '#core/code/rules/deck-receptacle.ts';
import { SERVICE_REACH } from '#core/code/rules/equipment-receptacle.ts';
import { FOYER_WALL } from '#core/code/rules/foyer-receptacles.ts';
import { RULES } from '#core/code/rules/index.ts';
import { fromGrade } from '#core/code/rules/outdoor-receptacles.ts';
import { aboveGrade, isOutside } from '#core/tables/areas.ts';
import type { Scope } from '#core/view/touched.ts';
import type { View } from '#core/view/view.ts';
import { rows } from '#core/job/document.ts';
import { outlineOf, placeInPlan, pointOnWall, type Point } from '#core/job/outline.ts';
import type { Area, Box, Fixture, Job, JobDocument } from '#core/job/schema.ts';
import { boxesOn, fromOuterEnd, islandNeeds, notServingIsland } from '#core/plan/counters.ts';
import { distance, footprint, nearestOnPolygon } from '#core/plan/footprint.ts';
import { sharesWall } from '#core/plan/joined.ts';
import { isReceptacle, wallAt } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import { alongCounters, alongWalls, type SpacePlan } from './alongSpaces.ts';
import { newBox, nextBoxName, type Placement } from './placement.ts';
import { bestSpot, spotsIn, type Spot } from './spots.ts';

interface Placed {
  box: Box;
  areaName: string;
  reason: string;
  alternative: string | null;
}

export interface HousePlan {
  placed: Placed[];
  /** What is still missing and why nothing was placed for it. */
  unplaced: string[];
}

/** Height of an outlet on an outside wall, inches above the surface there. */
const OUTDOOR_HEIGHT = 24;
/** Height of an outlet at a freezer, a washer, a bench in a garage, inches. */
const WORK_HEIGHT = 44;
/** Most that is placed for one subject of one rule. */
const MOST = 24;

const none = (why: string): SpacePlan => ({ placements: [], unplaced: [why] });

function at(
  area: Area,
  spot: Spot,
  height: number,
  reason: string,
  rest: Partial<Placement> = {},
): Placement {
  return {
    areaId: area.id,
    wallId: spot.wallId,
    offset: spot.offset,
    height,
    fromWall: 0,
    mount: 'wall',
    fixtureId: null,
    serves: null,
    purpose: 'general',
    device: {},
    reason: `wall ${spot.wallNumber} at ${formatLength(spot.offset)}: ${reason}`,
    alternative: null,
    ...rest,
  };
}

/** One spot with what the next best at least a foot away would cost. */
function single(
  area: Area,
  spots: readonly Spot[],
  cost: (spot: Spot) => number,
  height: number,
  reason: (spot: Spot) => string,
  rest: Partial<Placement> = {},
): SpacePlan {
  const best = bestSpot(spots, cost);
  if (!best)
    return none(
      `${area.name}: no place on its walls for ${rest.purpose ?? 'an outlet'} that the rule accepts`,
    );
  const next = bestSpot(
    spots.filter((s) => s.wallId !== best.wallId || Math.abs(s.offset - best.offset) >= 12),
    cost,
  );
  const alternative = next
    ? `or wall ${next.wallNumber} at ${formatLength(next.offset)}: ${reason(next)}`
    : 'no other place will do';
  return { placements: [{ ...at(area, best, height, reason(best), rest), alternative }], unplaced: [] };
}

const positionOf = (area: Area, box: Box): Point | null =>
  placeInPlan(area, box.wallId, box.offset, box.fromWall);

/** Keeps this far from corners where it can, inches. */
const FROM_CORNER = 12;

/** The middle of the longest wall first; then away from the outlets already there, and so from each other. */
function spread(view: View, area: Area, height: number, reason: string): SpacePlan {
  const { walls, perimeter } = outlineOf(area);
  const taken = view
    .boxesIn(area)
    .filter(isReceptacle)
    .flatMap((b) => positionOf(area, b) ?? []);
  const longest = walls.reduce((a, b) => (b.length > a.length ? b : a));
  const enough = perimeter / 2;
  const cost = (s: Spot) => {
    const wall = walls.find((w) => w.id === s.wallId)!;
    const cornered = Math.min(s.offset, wall.length - s.offset) < FROM_CORNER ? perimeter : 0;
    const alone = s.wallId === longest.id ? Math.abs(s.offset - wall.length / 2) : perimeter;
    const apart = enough - Math.min(enough, ...taken.map((p) => distance(p, s.point)));
    return cornered + (taken.length === 0 ? alone : apart);
  };
  return single(area, spotsIn(view, area, height), cost, height, () => reason);
}

const toFixture = (area: Area, fixture: Fixture): ((spot: Spot) => number) => {
  const target = footprint(area, fixture);
  return (s) => (target ? distance(s.point, nearestOnPolygon(s.point, target)) : Infinity);
};

function forAppliance(fixture: Fixture, view: View): SpacePlan {
  const area = view.document.areas[fixture.areaId]!;
  const big = fixture.nameplate !== null && fixture.nameplate.volts > 130;
  const height = Math.min(WORK_HEIGHT, Math.max(6, fixture.height - 6), fixture.height > 48 ? 48 : 96);
  const far = toFixture(area, fixture);
  const amps = fixture.nameplate?.amps ?? (fixture.nameplate?.watts ?? 0) / (fixture.nameplate?.volts ?? 120);
  return single(
    area,
    // Behind the appliance itself is the usual place.
    spotsIn(view, area, height, fixture),
    (s) => (far(s) <= APPLIANCE_REACH - 6 ? far(s) : Infinity),
    height,
    (s) => `${formatLength(far(s))} from the ${fixture.name}`,
    {
      serves: fixture.id,
      device: big
        ? {
            kind: 'single',
            volts: fixture.kind === 'kiln' ? '250' : '125/250',
            rating: amps > 30 ? 50 : amps > 20 ? 30 : 20,
            tamperResistant: amps <= 20,
          }
        : { kind: 'single', rating: 20 },
    },
  );
}

function forBasin(fixture: Fixture, view: View): SpacePlan {
  const area = view.document.areas[fixture.areaId]!;
  const far = toFixture(area, fixture);
  const height = view.document.job.settings.benchHeight;
  const tubs = view.fixturesIn(area).filter(isTub);
  // Clear of the zone of a tub or shower where that leaves a place.
  const inZone = (s: Spot) => tubs.some((t) => toFixture(area, t)(s) < 36);
  const reach = (f: Fixture) => {
    const distance = toFixture(area, f);
    const beside = wallsBeside(area, f);
    return (s: Spot) => beside.has(s.wallId) && distance(s) <= BASIN_REACH - 0.5;
  };
  const here = reach(fixture);
  // One between two sinks serves both.
  const others = view
    .fixturesIn(area)
    .filter((f) => f.kind === fixture.kind && f.id !== fixture.id && f.status !== 'remove');
  const reaches = others.map(reach);
  const served = (s: Spot) => others.filter((_, i) => reaches[i]!(s)).map((f) => f.name);
  return single(
    area,
    spotsIn(view, area, height),
    (s) => (here(s) ? Math.abs(far(s) - 8) + (inZone(s) ? 200 : 0) - 100 * served(s).length : Infinity),
    height,
    (s) =>
      `${formatLength(far(s))} from the edge of the ${fixture.name}${served(s).length > 0 ? `, and within 3' of ${served(s).join(', ')}` : ''}`,
  );
}

function forIsland(fixture: Fixture, view: View): SpacePlan {
  const { wallId } = fixture;
  if (wallId === null) return { placements: [], unplaced: [] };
  const area = view.document.areas[fixture.areaId]!;
  const { edition } = view;
  const counted = boxesOn(view.boxesIn(area), fixture).filter(
    (b) => notServingIsland(b, fixture, edition) === null,
  );
  const { required } = islandNeeds(fixture, edition);
  const outer = fixture.fromWall + fixture.depth;
  const needsEnd = fixture.kind === 'peninsula' && !counted.some((b) => fromOuterEnd(b, fixture) <= 24);
  // Spread along the length; a peninsula's first near its outer end.
  const along =
    fixture.offset - fixture.width / 2 + (fixture.width * (counted.length + 1)) / (Math.max(required, 1) + 1);
  const inTop = since(edition, '2023') || fixture.overhang > 6;
  return {
    placements: [
      {
        areaId: area.id,
        wallId,
        offset: Math.round(along),
        height: inTop ? fixture.height : fixture.height - 8,
        fromWall: needsEnd ? outer - 12 : Math.round(fixture.fromWall + fixture.depth / 2),
        mount: inTop ? 'counter-assembly' : 'cabinet-face',
        fixtureId: fixture.id,
        serves: null,
        purpose: 'general',
        device: {},
        reason: `${fixture.name}: ${inTop ? 'an assembly listed for counters in its top' : 'on its face, 8" below the top'}`,
        alternative: inTop
          ? 'on its face it would not count'
          : 'in its top: a dearer assembly, and no longer below the surface as later editions ask',
      },
    ],
    unplaced: [],
  };
}

/** Spots on the house's own outside wall come first. */
function houseSide(view: View, area: Area): (spot: Spot) => number {
  const outline = outlineOf(area);
  const shared = new Set(
    outline.walls
      .filter((w) =>
        neighborsOf(view, area)
          .filter((n) => !isOutside(n))
          .some((n) => outlineOf(n).walls.some((other) => sharesWall(w, other))),
      )
      .map((w) => w.id),
  );
  return (s) => {
    const wall = outline.walls.find((w) => w.id === s.wallId)!;
    return (shared.has(s.wallId) ? 0 : 1000) + Math.abs(s.offset - wall.length / 2) / 10;
  };
}

function forOutdoors(job: Job, view: View): SpacePlan {
  const areas = rows(view.document.areas).filter(isOutside);
  const sides =
    job.dwelling === 'multifamily'
      ? [areas.filter((a) => a.conditions.ownEntrance)]
      : (['front', 'back'] as const).map((side) => areas.filter((a) => a.conditions.faces === side));
  for (const places of sides) {
    if (places.length === 0 || fromGrade(view, places, HIGHEST_OUTDOORS).length > 0) continue;
    // A porch or deck low enough is reached from grade and needs one itself: one receptacle serves both.
    const low = places.find(
      (a) =>
        a.kind === 'deck' &&
        deckExcused(a, view) === null &&
        OUTDOOR_HEIGHT + aboveGrade(a, view.document.levels[a.levelId]) <= HIGHEST_OUTDOORS,
    );
    const area = low ?? places.find((a) => a.kind === 'outdoors') ?? places[0]!;
    const surface = Math.max(0, -aboveGrade(area, view.document.levels[area.levelId]));
    return single(
      area,
      spotsIn(view, area, OUTDOOR_HEIGHT),
      houseSide(view, area),
      OUTDOOR_HEIGHT + surface,
      () => (low ? `serves ${area.name} and the outside of the house from grade` : 'reached from grade'),
    );
  }
  return none('outdoors: no area on record on that side of the house');
}

const forDeck = (area: Area, view: View): SpacePlan =>
  single(
    area,
    spotsIn(view, area, OUTDOOR_HEIGHT),
    houseSide(view, area),
    OUTDOOR_HEIGHT,
    () => 'reached from the walking surface',
  );

function forFoyer(area: Area, view: View): SpacePlan {
  const outline = outlineOf(area);
  const bare = (wallCoverage(view, area) ?? []).find(
    (s) => s.space.length >= FOYER_WALL - 1e-6 && s.counted.length === 0,
  );
  if (!bare) return none(`${area.name}: no wall space without a receptacle`);
  const { wall, offset } = wallAt(outline, bare.space.start + bare.space.length / 2);
  const middle = pointOnWall(outline, wall, offset);
  const height = view.document.job.settings.receptacleHeight;
  return single(
    area,
    spotsIn(view, area, height),
    (s) => (distance(s.point, middle) < bare.space.length / 2 ? distance(s.point, middle) : Infinity),
    height,
    () => `in a wall space of ${formatLength(bare.space.length)}`,
  );
}

function forEquipment(fixture: Fixture, view: View): SpacePlan {
  const area = view.document.areas[fixture.areaId]!;
  const far = toFixture(area, fixture);
  const height = isOutside(area) ? OUTDOOR_HEIGHT : WORK_HEIGHT;
  return single(
    area,
    spotsIn(view, area, height),
    // Near, but not so near that the equipment is in the way.
    (s) => (far(s) <= SERVICE_REACH ? Math.abs(far(s) - 36) : Infinity),
    height,
    (s) => `${formatLength(far(s))} from the ${fixture.name}, to service it`,
    { purpose: 'equipment-service' },
  );
}

function forTelevision(fixture: Fixture, view: View): SpacePlan {
  const area = view.document.areas[fixture.areaId]!;
  const height = view.document.job.settings.receptacleHeight;
  return single(
    area,
    spotsIn(view, area, height),
    (s) =>
      s.wallId === fixture.wallId && Math.abs(s.offset - fixture.offset) <= fixture.width / 2 + 12
        ? Math.abs(s.offset - fixture.offset)
        : Infinity,
    height,
    () => `at the ${fixture.name}`,
  );
}

function forEveryWall(area: Area, view: View): SpacePlan {
  const rule = RULES.area.find((r) => r.id === 'every-wall')!;
  const bare = rule.check(area, view)[0]?.spans?.[0];
  const wall = bare && outlineOf(area).walls.find((w) => w.id === bare.wallId);
  if (!wall) return none(`${area.name}: every wall has a receptacle`);
  const height = view.document.job.settings.receptacleHeight;
  return single(
    area,
    spotsIn(view, area, height),
    (s) => (s.wallId === wall.id ? Math.abs(s.offset - wall.length / 2) : Infinity),
    height,
    () => 'shop habit: one on every wall',
  );
}

type Provide<S extends Scope> = (subject: Subjects[S], view: View, alternatives: boolean) => SpacePlan;
interface Step<S extends Scope> {
  scope: S;
  rule: string;
  provide: Provide<S>;
}
const step = <S extends Scope>(scope: S, rule: string, provide: Provide<S>): Step<S> => ({
  scope,
  rule,
  provide,
});
const work = (view: View, area: Area, reason: string) => spread(view, area, WORK_HEIGHT, reason);

/** In this order: the particular before the general, so that what an appliance needs counts for its room. */
const STEPS = [
  step('fixture', 'appliance-receptacle', forAppliance),
  step('fixture', 'bathroom-basin', forBasin),
  step('area', 'counter-spacing', (area, view, alternatives) => alongCounters(view, area, alternatives)),
  step('fixture', 'island-receptacles', forIsland),
  step('house', 'outdoor-receptacles', forOutdoors),
  step('area', 'deck-receptacle', forDeck),
  step('area', 'wall-spacing', (area, view, alternatives) => alongWalls(view, area, alternatives)),
  step('area', 'foyer-receptacles', forFoyer),
  step('area', 'laundry-receptacle', (a, v) => work(v, a, 'for the laundry')),
  step('area', 'garage-receptacles', (a, v) => work(v, a, 'for a vehicle bay')),
  step('area', 'outbuilding-receptacle', (a, v) => work(v, a, 'the building has power')),
  step('area', 'basement-receptacle', (a, v) => work(v, a, 'besides those for equipment')),
  step('area', 'hallway-receptacle', (a, v) =>
    spread(v, a, v.document.job.settings.receptacleHeight, "a hall of 10' or more"),
  ),
  step('fixture', 'equipment-receptacle', forEquipment),
  step('fixture', 'at-television', forTelevision),
  step('area', 'every-wall', forEveryWall),
] as const;

const isOpen = (level: string) => level === 'violation' || level === 'recommended';

/** The subjects of a step in the rooms asked for. */
function subjectsOf(scope: Scope, view: View, areas: readonly Area[]): (Job | Area | Fixture)[] {
  if (scope === 'house') return areas.some(isOutside) ? [view.document.job] : [];
  return scope === 'area' ? [...areas] : areas.flatMap((a) => view.fixturesIn(a));
}

const withBoxes = (document: JobDocument, boxes: readonly Box[]): JobDocument => ({
  ...document,
  boxes: { ...document.boxes, ...Object.fromEntries(boxes.map((b) => [b.id, b])) },
});

/**
 * Places what the rules find missing in the given rooms.
 * @param start a view that is used up by this: make one for it
 * @param alternatives whether to work out what another place would cost
 */
export function placeMissing(start: View, areas: readonly Area[], alternatives = true): HousePlan {
  let view = start;
  const plan: HousePlan = { placed: [], unplaced: [] };
  for (const { scope, rule: id, provide } of STEPS) {
    const rule = (RULES[scope] as readonly Rule[]).find((r) => r.id === id)!;
    if (view.amendmentsOf(id).some((a) => a.action === 'off')) continue;
    for (const subject of subjectsOf(scope, view, areas)) {
      for (let tries = 0; tries < MOST; tries++) {
        if (!rule.check(subject, view).some((v) => isOpen(v.level))) break;
        const { placements, unplaced } = (provide as Provide<Scope>)(subject, view, alternatives);
        for (const why of unplaced) if (!plan.unplaced.includes(why)) plan.unplaced.push(why);
        if (placements.length === 0) break;
        for (const placement of placements) {
          const area = view.document.areas[placement.areaId]!;
          const box = newBox(area, nextBoxName(view.document, area), placement);
          plan.placed.push({
            box,
            areaName: area.name,
            reason: placement.reason,
            alternative: placement.alternative,
          });
          view = view.follow(withBoxes(view.document, [box]));
        }
      }
    }
  }
  return plan;
}
