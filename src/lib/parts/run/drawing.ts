/** What the drawings of a run share: thickness and jacket of cable, marks of devices, stretches of protection. */
import { dropAt, fullLoad, isMultiwire, type Run, type RunStop } from '#core/circuits/run.ts';
import type { Gauge } from '#core/job/schema.ts';

/** What was found at a stop. */
export interface StopResult {
  grade: 'good' | 'worry' | 'bad' | 'no-power' | 'none';
  text: string;
  /** The main voltage read, with its unit. */
  volts: string;
}
export const SIGN: Record<StopResult['grade'], string> = {
  good: '✓',
  worry: '!',
  bad: '✕',
  'no-power': '–',
  none: '',
};

const THICKNESS: Partial<Record<Gauge, number>> = { '14': 4, '12': 6, '10': 8, '8': 10 };
const JACKET: Partial<Record<Gauge, string>> = {
  '14': 'var(--jacket-14)',
  '12': 'var(--jacket-12)',
  '10': 'var(--jacket-10)',
};
/** Thickness of a cable on the drawing, px. */
export const thicknessOf = (gauge: Gauge): number => THICKNESS[gauge] ?? 11;
export const jacketOf = (gauge: Gauge): string => JACKET[gauge] ?? 'var(--jacket-8)';

export type Mark =
  | 'receptacle'
  | 'gfci'
  | 'afci'
  | 'switch'
  | 'light'
  | 'alarm'
  | 'wired'
  | 'two-hundred-forty';
export function markOf({ box }: RunStop): Mark {
  switch (box.device.kind) {
    case 'gfci':
      return 'gfci';
    case 'outlet-afci':
      return 'afci';
    case 'switch':
      return 'switch';
    case 'light':
      return 'light';
    case 'smoke-alarm':
      return 'alarm';
    case 'hardwired':
      return 'wired';
    default:
      return box.device.volts === '125' ? 'receptacle' : 'two-hundred-forty';
  }
}

/** Short words for how a stop is wired, where it is not the plain way. */
export function tagsOf(run: Run, { stop, role, box }: RunStop): string[] {
  const hots = { black: 'black', red: 'red', both: 'black + red' } as const;
  return [
    ...(isMultiwire(run) ? [hots[stop.hot]] : []),
    ...(role === 'switch-loop' ? ['switch loop'] : role === 'switched' ? ['switched'] : []),
    ...(stop.side === 'line' ? ['from line side'] : []),
    ...(box.device.switched === 'half' ? ['half switched'] : []),
    ...(box.device.tabs === 'hot-broken'
      ? ['split']
      : box.device.tabs === 'both-broken'
        ? ['both split']
        : []),
    ...(stop.splice === 'feed-through' && run.stops.some((s) => run.stops[s.feeder]?.box === box)
      ? ['through device']
      : []),
  ];
}

/** Lane of each stop: the first box fed from another goes on in its lane, each further one opens a new lane. */
export function lanesOf(run: Run): number[] {
  const lanes: number[] = [];
  const fed = new Set<number>();
  let count = 0;
  for (const { feeder } of run.stops) {
    lanes.push(fed.has(feeder) ? ++count : (lanes[feeder] ?? 0));
    fed.add(feeder);
  }
  return lanes;
}

/** Pixels from one stop to the next: as many as there is room for. */
const GAPS = [84, 76, 68, 60, 52];
/** Shares of the true scale that are tried before stops move closer together. */
const SCALES = [1, 0.75, 0.55, 0.4, 0.25, 0.1];

export interface RunPlaces {
  /** Least pixels from one stop to the next. */
  gap: number;
  /** `stretched`: farther from the stop before it than the scale of the drawing says. */
  stops: { x: number; lane: number; stretched: boolean }[];
  width: number;
}

/**
 * Where the stops of a run stand: at true distance where it can be read; a stop that would stand on its neighbor is
 * pushed on, and marked as stretched, so that the picture never claims a length it does not show. A long run is drawn
 * to a smaller scale, then closer together, until all of it is seen.
 */
export function placesOf(
  run: Run,
  lanes: readonly number[],
  { available, left, right }: { available: number; left: number; right: number },
): RunPlaces {
  const longest = Math.max(...run.stops.map((s) => s.distance), 1);
  const place = (gap: number, share: number): RunPlaces => {
    const scale = (share * (available - left - right)) / longest;
    const ends = new Map<number, number>();
    const stops: RunPlaces['stops'] = [];
    for (const [i, s] of run.stops.entries()) {
      const lane = lanes[i]!;
      const truly = left + s.distance * scale;
      const least = Math.max((stops[s.feeder]?.x ?? left - gap / 2) + gap, ends.get(lane) ?? 0);
      const x = Math.max(truly, least);
      ends.set(lane, x + gap);
      stops.push({ x, lane, stretched: x > truly + 1 });
    }
    return { gap, stops, width: Math.max(left, ...stops.map((p) => p.x)) + right };
  };
  for (const gap of GAPS)
    for (const share of SCALES) {
      const placed = place(gap, share);
      if (placed.width <= available + 1) return placed;
    }
  return place(GAPS.at(-1)!, SCALES.at(-1)!);
}

/** Runs of neighboring stops of one lane that have a protection, as positions of the first and the last. */
export function stretchesOf(run: Run, lanes: readonly number[], kind: 'gfci' | 'afci'): [number, number][] {
  const open = new Map<number, [number, number]>();
  const closed: [number, number][] = [];
  for (const [i, s] of run.stops.entries()) {
    const lane = lanes[i]!;
    const at = open.get(lane);
    if (s[kind] === null) {
      if (at) closed.push(at);
      open.delete(lane);
    } else if (at) at[1] = i;
    else open.set(lane, [i, i]);
  }
  return [...closed, ...open.values()];
}

/**
 * A stop in words, for those who do not see the drawing.
 * @param seen what the drawing writes at the stop
 */
export function wordsFor(seen: string, stop: RunStop, result: StopResult | undefined): string {
  const parts = [
    seen,
    stop.area.name,
    ...(stop.gfci ? ['GFCI'] : []),
    ...(stop.afci ? ['AFCI'] : []),
    ...(result ? [result.text] : []),
  ];
  return parts.join(', ');
}

/** Drop at a stop with the full load of the breaker put there, percent. */
export const fullDrop = (run: Run, stop: RunStop): number =>
  (100 * dropAt(stop, fullLoad(run.circuit))) / run.volts;
