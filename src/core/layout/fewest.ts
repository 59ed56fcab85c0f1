/**
 * The fewest new stops on a line, or around a circle, that leave no point farther than a reach from a stop,
 * together with stops that are already there; among those, the ones with the least penalty.
 *
 * A shortest path over candidate positions, each step at most twice the reach. Candidates are the inches from
 * both ends and where greedy walks would set stops from every anchor, so the number is the least for any
 * position, not only for whole inches. O(n · w) for n candidates, w of them within twice the reach.
 */
import type { Span } from '#core/plan/wallSpaces.ts';

export interface Line {
  /** Inches. */
  length: number;
  /** Its end meets its start. */
  loop: boolean;
  reach: number;
  /** Positions of stops already there. */
  existing: readonly number[];
  /** Stretches inside which no new stop can be set; their edges are free. */
  forbidden: readonly Span[];
  /** What is wrong with a new stop there, 0 for nothing. */
  penalty(at: number): number;
}

export interface Cover {
  /** Positions of new stops. */
  path: number[];
  penalty: number;
}

interface Stop {
  at: number;
  /** 0 for a stop already there, 1 for a new one. */
  count: 0 | 1;
  penalty: number;
}

interface Solution extends Cover {
  count: number;
}

const TINY = 1e-9;
/** What uneven gaps cost. */
const UNEVEN = 12;
/** How many starting places around a circle are worked through in full. */
const STARTS_TRIED = 8;

const isFree = (line: Line, at: number): boolean =>
  (line.loop || (at >= -TINY && at <= line.length + TINY)) &&
  !line.forbidden.some((f) => at > f.from + TINY && at < f.to - TINY);

/** Nearest free positions at or before, and at or after. */
function snap(line: Line, at: number): number[] {
  const { length, loop } = line;
  if (isFree(line, at)) return [at];
  const wrap = (p: number) => (loop ? ((p % length) + length) % length : p);
  const walk = (side: 'from' | 'to') => {
    let p = at;
    for (let steps = 0; steps < line.forbidden.length + 1; steps++) {
      const inside = line.forbidden.find((f) => p > f.from + TINY && p < f.to - TINY);
      if (!inside) break;
      p = inside[side];
    }
    return p;
  };
  return [walk('from'), walk('to')].filter((p) => isFree(line, p)).map(wrap);
}

const stopAt = (line: Line, at: number): Stop => ({ at, count: 1, penalty: line.penalty(at) });

const better = (a: { count: number; penalty: number }, b: { count: number; penalty: number }) =>
  a.count < b.count || (a.count === b.count && a.penalty < b.penalty - TINY);

/** The least cover, or null when no set of free positions covers the line. */
export function fewest(line: Line): Cover | null {
  if (line.length <= 0) return { path: [], penalty: 0 };
  const copies = line.loop ? [-line.length, 0, line.length] : [0];
  const whole: Line = {
    ...line,
    forbidden: copies.flatMap((c) => line.forbidden.map((f) => ({ from: f.from + c, to: f.to + c }))),
  };
  return line.loop ? coverCircle(whole) : coverLine(whole);
}

function coverLine(line: Line): Solution | null {
  const { length, existing } = line;
  const given = existing.map((at): Stop => ({ at, count: 0, penalty: 0 }));
  return shortestPath(line, stopsAlong(line, given, [0, length]), null);
}

function coverCircle(line: Line): Solution | null {
  const { length } = line;
  const given = line.existing.map((at): Stop => ({ at, count: 0, penalty: 0 }));
  const around = (first: Stop): Solution | null => {
    // Cut the circle at `first`: from it, around, and back to it.
    const shift = (at: number) => (at - first.at + length) % length;
    const cut: Line = {
      ...line,
      loop: false,
      forbidden: line.forbidden.map((f) => ({ from: f.from - first.at, to: f.to - first.at })),
      penalty: (at) => line.penalty((at + first.at) % length),
    };
    const rest = given.filter((g) => g !== first).map((g) => ({ ...g, at: shift(g.at) }));
    const found = shortestPath(cut, stopsAlong(cut, rest, [-line.reach, length + line.reach]), length);
    if (!found) return null;
    const path = found.path.map((at) => (at + first.at) % length);
    return {
      path: first.count === 1 ? [first.at, ...path] : path,
      count: found.count + first.count,
      penalty: found.penalty + first.penalty,
    };
  };
  const firsts = given[0] ? [given[0]] : circleStarts(line);
  return firsts.map(around).reduce((best, s) => (s && (!best || better(s, best)) ? s : best), null);
}

/**
 * Where to begin on a circle with nothing there yet. Any least set can be turned until one of its stops meets
 * the edge of a forbidden stretch, so those edges and the first window of inches hold a start of a least set; a
 * greedy walk from each tells its number, and the best-placed starts of that number are kept.
 */
function circleStarts(line: Line): Stop[] {
  const { length, reach, forbidden } = line;
  const edges = forbidden
    .flatMap((f) => [f.from, f.to])
    .filter((p) => p >= 0 && p < length && isFree(line, p));
  const window = Array.from({ length: Math.ceil(Math.min(2 * reach, length)) }, (_, i) => i).filter((p) =>
    isFree(line, p),
  );
  const rated = [...new Set([...window, ...edges])].map((at) => ({
    stop: stopAt(line, at),
    count: greedyAround(line, at),
  }));
  const least = Math.min(...rated.map((r) => r.count));
  return rated
    .filter((r) => r.count === least)
    .sort((a, b) => a.stop.penalty - b.stop.penalty)
    .slice(0, STARTS_TRIED)
    .map((r) => r.stop);
}

/** Stops a greedy walk around a circle sets from one start: each as far on as the reach allows. */
function greedyAround(line: Line, start: number): number {
  let count = 1;
  let at = start;
  while (start + line.length - at > 2 * line.reach + TINY) {
    const next = farthestFree(line, at + 2 * line.reach);
    if (!(next > at + TINY)) return Infinity;
    at = next;
    count++;
  }
  return count;
}

/** The last free position at or before `at`, around the circle too. */
function farthestFree(line: Line, at: number): number {
  let p = at;
  const turns = line.loop ? Math.floor(at / line.length) * line.length : 0;
  for (let steps = 0; steps <= line.forbidden.length; steps++) {
    const inside = line.forbidden.find((f) => p - turns > f.from + TINY && p - turns < f.to - TINY);
    if (!inside) return p;
    p = inside.from + turns;
  }
  return -Infinity;
}

/** Candidates: every inch from both ends, and greedy walks from each anchor and from each stop there. */
function stopsAlong(line: Line, given: readonly Stop[], anchors: readonly number[]): Stop[] {
  const { length, reach } = line;
  const at = new Set<number>();
  const add = (p: number) => {
    for (const free of snap(line, p)) if (free >= -TINY && free <= length + TINY) at.add(free);
  };
  for (let i = 0; i <= length; i++) {
    if (isFree(line, i)) at.add(i);
    if (isFree(line, length - i)) at.add(length - i);
  }
  for (const { from, to } of line.forbidden) for (const p of [from, to]) if (isFree(line, p)) add(p);
  for (const anchor of [...anchors, ...given.flatMap((g) => [g.at - reach, g.at + reach])]) {
    for (const sign of [1, -1]) {
      let p = anchor + sign * reach;
      for (let steps = 0; p >= -TINY && p <= length + TINY && steps < 200; steps++) {
        const near = snap(line, p);
        for (const free of near) at.add(free);
        // On from the last free place a greedy walk would take.
        const next = sign === 1 ? Math.min(p, ...near) : Math.max(p, ...near);
        p = next + sign * 2 * reach;
      }
    }
  }
  const added = [...at].filter((p) => p >= -TINY && p <= length + TINY).map((p) => stopAt(line, p));
  return [...added, ...given].sort((a, b) => a.at - b.at || a.count - b.count);
}

/**
 * The first stop within reach of the start, each next within twice the reach, the last within reach of the end.
 * @param circle where to come back to: the path then starts at a stop at 0
 */
function shortestPath(line: Line, stops: readonly Stop[], circle: number | null): Solution | null {
  const { length, reach } = line;
  const step = 2 * reach;
  const gap = (inches: number) => UNEVEN * (inches / step) ** 2;
  if (circle !== null && circle <= step) return { path: [], count: 0, penalty: gap(circle) };
  const cost: ({ count: number; penalty: number; back: number } | null)[] = [];
  let window = 0;
  for (const [i, stop] of stops.entries()) {
    let best: (typeof cost)[number] = null;
    const first = circle === null ? stop.at <= reach + TINY : stop.at <= step + TINY;
    if (first) {
      const before = circle === null ? 2 * stop.at : stop.at;
      best = { count: stop.count, penalty: stop.penalty + gap(before), back: -1 };
    }
    while (stop.at - stops[window]!.at > step + TINY) window++;
    for (let j = window; j < i; j++) {
      const before = cost[j];
      if (!before) continue;
      const here = {
        count: before.count + stop.count,
        penalty: before.penalty + stop.penalty + gap(stop.at - stops[j]!.at),
        back: j,
      };
      if (!best || better(here, best)) best = here;
    }
    cost.push(best);
  }
  let end: Solution | null = null;
  let endAt = -1;
  for (const [i, stop] of stops.entries()) {
    const here = cost[i];
    const left = (circle ?? length) - stop.at;
    if (!here || left > (circle === null ? reach : step) + TINY) continue;
    const total = {
      count: here.count,
      penalty: here.penalty + gap(circle === null ? 2 * left : left),
    };
    if (!end || better(total, end)) {
      end = { ...total, path: [] };
      endAt = i;
    }
  }
  if (!end) return null;
  for (let i = endAt; i >= 0; i = cost[i]!.back) if (stops[i]!.count === 1) end.path.unshift(stops[i]!.at);
  return end;
}
