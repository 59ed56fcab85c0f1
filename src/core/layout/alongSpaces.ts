/** Places the fewest receptacles along wall spaces, 210.52(A), and counter spaces, 210.52(C). */
import { countersCovered, wallCoverage } from '#core/plan/coverage.ts';
import { openingsIn } from '#core/plan/joined.ts';
import { outlineOf, type Outline } from '#core/job/outline.ts';
import type { Area, Fixture, Opening, Settings } from '#core/job/schema.ts';
import type { View } from '#core/view/view.ts';
import { COUNTER_REACH, floorLineOf } from '#core/plan/counters.ts';
import { REACH, wallAt, type SpaceCoverage, type Span, type WallSpace } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import { fewest, type Line } from './fewest.ts';
import type { Placement } from './placement.ts';

/** A box cannot be mounted nearer to a corner or to the edge of an opening than this, inches. */
export const EDGE_CLEARANCE = 3;
/** From a stud's center to the center of a box nailed to its side: half a stud and half a box, inches. */
const STUD_TO_BOX = 1.875;
/** Distance from the wall at which a floor outlet is set in front of fixed glass, inches. */
const FLOOR_OUTLET_OUT = 6;
/** Distance from the wall of an assembly set into a counter, inches. */
const ASSEMBLY_OUT = 6;
/** How far off another place must be to be called another, inches. */
const ELSEWHERE = 12;

const PENALTY = { glass: 400, window: 200, bench: 120, swing: 60, stud: 1 } as const;

type ZoneKind = 'glass' | 'window' | 'bench' | 'swing' | 'railing' | 'blocked';
interface Zone extends Span {
  kind: ZoneKind;
}

export interface SpacePlan {
  placements: Placement[];
  /** What could not be covered, in words. */
  unplaced: string[];
}

/** Distance along the wall from a box to where it would be nailed to the nearest stud, inches. */
export function distanceToStud(offset: number, spacing: number): number {
  const past = offset % spacing;
  return Math.min(Math.abs(past - STUD_TO_BOX), Math.abs(spacing - past - STUD_TO_BOX));
}

/** Stretches of the floor line that are better left alone, or that no box can be mounted in. */
function zonesOf(
  outline: Outline,
  openings: readonly Opening[],
  fixtures: readonly Fixture[],
  height: number,
): Zone[] {
  const zones: Zone[] = [];
  for (const o of openings) {
    const wall = outline.walls.find((w) => w.id === o.wallId);
    if (!wall) continue;
    const from = wall.start + o.offset;
    const to = from + o.width;
    const atHeight = o.bottom < height + 3 && o.top > height - 3;
    if (o.kind === 'fixed-glass') zones.push({ from, to, kind: 'glass' });
    if (o.kind === 'window' && atHeight) zones.push({ from, to, kind: 'window' });
    if (o.kind === 'railing') zones.push({ from, to, kind: 'railing' });
    if (o.kind === 'blocked') zones.push({ from, to, kind: 'blocked' });
    // An open leaf lies against the wall beyond its hinges.
    if (o.kind === 'door' && o.hinge === 'start')
      zones.push({ from: from - o.width, to: from, kind: 'swing' });
    if (o.kind === 'door' && o.hinge === 'end') zones.push({ from: to, to: to + o.width, kind: 'swing' });
  }
  for (const f of fixtures) {
    const line = f.fromWall < 6 ? floorLineOf(outline, f) : null;
    if (!line) continue;
    if (f.kind === 'counter' && height < f.height) zones.push({ ...line, kind: 'bench' });
    else if (f.fastened && f.height > height && f.kind !== 'counter')
      zones.push({ ...line, kind: 'blocked' });
  }
  return zones;
}

function zoneAt(zones: readonly Zone[], outline: Outline, floorLine: number): Zone | undefined {
  const p = outline.perimeter;
  const inside = (z: Zone, at: number) => at > z.from && at < z.to;
  return zones.find((z) => inside(z, floorLine) || inside(z, floorLine - p) || inside(z, floorLine + p));
}

/** Where no box can go, as stretches of the space: around its ends, its corners and what is in the way. */
function forbiddenIn(outline: Outline, space: WallSpace, zones: readonly Zone[]): Span[] {
  const p = outline.perimeter;
  const spans: Span[] = [];
  const add = (from: number, to: number) => {
    for (const turn of [-p, 0, p]) {
      const s = { from: from - space.start + turn, to: to - space.start + turn };
      if (s.to > -EDGE_CLEARANCE && s.from < space.length + EDGE_CLEARANCE) spans.push(s);
    }
  };
  for (const wall of outline.walls) add(wall.start - EDGE_CLEARANCE, wall.start + EDGE_CLEARANCE);
  for (const z of zones) if (z.kind === 'blocked') add(z.from - EDGE_CLEARANCE, z.to + EDGE_CLEARANCE);
  if (!space.loop) {
    spans.push({ from: -EDGE_CLEARANCE, to: EDGE_CLEARANCE });
    spans.push({ from: space.length - EDGE_CLEARANCE, to: space.length + EDGE_CLEARANCE });
  }
  return spans;
}

interface Kind {
  noun: 'wall' | 'counter';
  reach: number;
  height: number;
}

/** The receptacles that a room's wall spaces, or its counter spaces, lack. */
function alongSpaces(
  view: View,
  area: Area,
  spaces: readonly SpaceCoverage[],
  kind: Kind,
  alternatives: boolean,
): SpacePlan {
  const { settings } = view.document.job;
  const outline = outlineOf(area);
  const fixtures = view.fixturesIn(area);
  const zones = zonesOf(outline, openingsIn(view, area), fixtures, kind.height);
  const plan: SpacePlan = { placements: [], unplaced: [] };
  for (const { space, required, counted, uncovered } of spaces) {
    if (!required || uncovered.length === 0) continue;
    const line: Line = {
      length: space.length,
      loop: space.loop,
      reach: kind.reach,
      existing: counted.map((c) => c.at),
      forbidden: forbiddenIn(outline, space, zones),
      penalty(at) {
        const { offset } = wallAt(outline, space.start + at);
        const zone = zoneAt(zones, outline, space.start + at)?.kind;
        const wrong = zone === undefined || zone === 'blocked' || zone === 'railing' ? 0 : PENALTY[zone];
        return wrong + PENALTY.stud * distanceToStud(offset, settings.studSpacing);
      },
    };
    const best = fewest(line);
    if (!best) {
      plan.unplaced.push(
        `${area.name}: ${formatLength(space.length)} of ${kind.noun} cannot be covered; what blocks it leaves no place for a box within reach`,
      );
      continue;
    }
    for (const at of best.path) {
      const placement = mounted(area, outline, space, at, zones, settings, kind);
      plan.placements.push({
        ...placement,
        alternative: alternatives ? elsewhere(line, best.path, at, outline, space, settings) : null,
      });
    }
  }
  return plan;
}

/** What it would cost not to use a place: more outlets, or a worse spot for as many. */
function elsewhere(
  line: Line,
  path: readonly number[],
  at: number,
  outline: Outline,
  space: WallSpace,
  settings: Settings,
): string {
  const without = fewest({
    ...line,
    forbidden: [...line.forbidden, { from: at - ELSEWHERE, to: at + ELSEWHERE }],
  });
  if (!without) return 'no other place covers this stretch';
  const more = without.path.length - path.length;
  if (more > 0) return `anywhere else takes ${more} more ${more === 1 ? 'outlet' : 'outlets'}`;
  const other = without.path.reduce((a, b) => (Math.abs(b - at) < Math.abs(a - at) ? b : a));
  const { wall, offset } = wallAt(outline, space.start + other);
  const stud = distanceToStud(offset, settings.studSpacing);
  return `or wall ${outline.walls.indexOf(wall) + 1} at ${formatLength(offset)}, as many outlets, ${stud < 0.5 ? 'on a stud too' : `${formatLength(stud)} from a stud`}`;
}

function mounted(
  area: Area,
  outline: Outline,
  space: WallSpace,
  at: number,
  zones: readonly Zone[],
  settings: Settings,
  kind: Kind,
): Placement {
  const { wall, offset } = wallAt(outline, space.start + at);
  const zone = zoneAt(zones, outline, space.start + at);
  const stud = distanceToStud(offset, settings.studSpacing);
  const nail =
    stud < 0.5
      ? 'on the side of a stud'
      : `${formatLength(stud)} from a stud at ${settings.studSpacing}" centers`;
  const where = `wall ${outline.walls.indexOf(wall) + 1} at ${formatLength(offset)}`;
  const base: Placement = {
    areaId: area.id,
    wallId: wall.id,
    offset,
    height: kind.height,
    fromWall: 0,
    mount: 'wall',
    fixtureId: null,
    serves: null,
    purpose: 'general',
    device: {},
    reason: `${where}: ${nail}${kind.noun === 'counter' ? ', above the counter' : ''}`,
    alternative: null,
  };
  const floor = { height: 0, fromWall: FLOOR_OUTLET_OUT, mount: 'floor' as const };
  switch (zone?.kind) {
    case 'glass':
    case 'window':
      return kind.noun === 'counter'
        ? {
            ...base,
            height: 36,
            fromWall: ASSEMBLY_OUT,
            mount: 'counter-assembly',
            reason: `${where}: an assembly listed for counters, as there is glass behind`,
          }
        : { ...base, ...floor, reason: `${where}: floor outlet, as the wall is glass` };
    case 'railing':
      return { ...base, ...floor, reason: `${where}: floor outlet by the railing` };
    case 'bench':
      return {
        ...base,
        height: settings.benchHeight,
        reason: `${where}: above the counter that stands there`,
      };
    case 'swing':
      return { ...base, reason: `${base.reason}; behind an open door, no better place covers the wall` };
    default:
      return base;
  }
}

/** What is missing along the walls of a room. Empty when its outline does not close. */
export const alongWalls = (view: View, area: Area, alternatives = false): SpacePlan =>
  alongSpaces(
    view,
    area,
    wallCoverage(view, area) ?? [],
    {
      noun: 'wall',
      reach: view.limit('wall-spacing', REACH),
      height: view.document.job.settings.receptacleHeight,
    },
    alternatives,
  );

/** What is missing along the counters of a kitchen or the like. */
export const alongCounters = (view: View, area: Area, alternatives = false): SpacePlan =>
  alongSpaces(
    view,
    area,
    countersCovered(view, area) ?? [],
    {
      noun: 'counter',
      reach: view.limit('counter-spacing', COUNTER_REACH),
      height: view.document.job.settings.benchHeight,
    },
    alternatives,
  );
