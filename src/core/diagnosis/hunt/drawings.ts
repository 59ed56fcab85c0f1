/** Other orders of a circuit: what good and bad outlets say that the drawn one cannot be, and what may be instead. */
import { buildRun, type Run } from '#core/circuits/run.ts';
import type { Evidence, Finding } from './evidence.ts';
import type { Ground } from './predictions.ts';

/** A circuit as it may be wired, with the position of each stop as drawn. */
export interface Drawing {
  ground: Ground;
  /** What is other than drawn, in words; empty as drawn. */
  differs: string;
  /** By stop as drawn. */
  stopOf: readonly number[];
  /** How likely it is before anything is seen. */
  share: number;
}

/** How often a drawing that somebody saw is wrong; and where nobody saw the order. */
const WRONG = { seen: 0.06, unseen: 0.6 } as const;
const MOST = 5;
/** Boxes that may have changed places, of those that are looked at. */
const SWAPS = 3;
/** Share of a drawn order that opened and counted boxes speak against. */
const REFUTED = 0.05;

/** The circuit with other feeders, by stop; −1 is the panel. */
function rewired({ document, run }: Ground, feeders: readonly number[]): Run {
  const order: number[] = [];
  const placed = new Set([-1]);
  while (order.length < feeders.length) {
    const next = feeders.findIndex((f, i) => placed.has(f) && !placed.has(i));
    if (next < 0) break;
    placed.add(next);
    order.push(next);
  }
  const stops = order.map((i) => {
    const { stop, feeder } = run.stops[i]!;
    const from = feeders[i]! < 0 ? null : run.stops[feeders[i]!]!.box.id;
    return feeders[i] === feeder ? stop : { ...stop, from, measured: null };
  });
  return buildRun(document, { ...run.circuit, stops });
}

const drawingOf = (ground: Ground, feeders: readonly number[], differs: string, share: number): Drawing => {
  const run = rewired(ground, feeders);
  const at = new Map(run.stops.map((s, i) => [s.box.id, i]));
  return {
    ground: { ...ground, run, guessed: differs !== '' },
    differs,
    stopOf: ground.run.stops.map((s) => at.get(s.box.id) ?? -1),
    share,
  };
};

/** Whether a finding says that an outlet is fed well, or badly; null where it says neither. */
function goodness(finding: Finding): { stop: number; good: boolean } | null {
  switch (finding.kind) {
    case 'volts': {
      const { hotNeutral } = finding.volts;
      if (hotNeutral === null) return null;
      return { stop: finding.stop, good: hotNeutral > 100 && hotNeutral < 132 };
    }
    case 'lamps':
      return { stop: finding.stop, good: finding.lamps[0] };
    case 'works':
      return { stop: finding.stop, good: finding.does === 'works' };
    default:
      return null;
  }
}

/** As drawn, and what else it may be by what was seen. */
export function drawingsOf(ground: Ground, evidence: readonly Evidence[]): Drawing[] {
  const { run } = ground;
  const seen = run.circuit.ordered === 'yes';
  const feeders =
    seen || run.stops.some((s) => s.feeder >= 0)
      ? run.stops.map((s) => s.feeder)
      : run.stops.map((_, i) => i - 1);
  const wrong = seen ? WRONG.seen : WRONG.unseen;
  const good = new Set<number>();
  const bad = new Set<number>();
  for (const { finding } of evidence) {
    const told = goodness(finding);
    if (told) (told.good ? good : bad).add(told.stop);
  }
  const others: { feeders: number[]; differs: string }[] = [];
  const add = (list: number[], differs: string) => {
    const key = list.join();
    if (key !== feeders.join() && others.every((o) => o.feeders.join() !== key))
      others.push({ feeders: list, differs });
  };
  const nameOf = (stop: number) => (stop < 0 ? 'the panel' : run.stops[stop]!.box.name);
  const above = (stop: number): number[] => {
    const list: number[] = [];
    for (let at = feeders[stop]!; at >= 0; at = feeders[at]!) list.push(at);
    return list;
  };
  // Good outlets drawn after a bad one: all of them are fed before it.
  const misplaced = [...good].filter((g) => above(g).some((a) => bad.has(a)));
  if (misplaced.length > 0) {
    const moved = [...feeders];
    const names: string[] = [];
    for (const g of misplaced) {
      const path = above(g);
      const first = path.filter((a) => bad.has(a)).at(-1)!;
      // What hung on it stays on the run, unless it is good too.
      const stays = path.find((p) => !misplaced.includes(p)) ?? -1;
      moved.forEach((_, i) => {
        if (feeders[i] === g && !good.has(i)) moved[i] = stays;
      });
      let to = feeders[first]!;
      while (to >= 0 && bad.has(to)) to = feeders[to]!;
      moved[g] = to;
      names.push(nameOf(g));
    }
    add(
      moved,
      `${names.join(', ')} ${names.length > 1 ? 'are' : 'is'} fed before ${nameOf(
        above(misplaced[0]!)
          .filter((a) => bad.has(a))
          .at(-1)!,
      )}`,
    );
    // Or each bad one before them hangs on a branch of its own.
    const leaves = [...new Set(misplaced.flatMap((g) => above(g).filter((a) => bad.has(a))))];
    const branched = [...feeders];
    for (const leaf of leaves)
      branched.forEach((f, i) => {
        if (f === leaf && !bad.has(i)) branched[i] = branched[leaf]!;
      });
    add(
      branched,
      `${leaves.map(nameOf).join(', ')} ${leaves.length > 1 ? 'hang' : 'hangs'} on a branch of ${leaves.length > 1 ? 'their' : 'its'} own`,
    );
  }
  // Bad ones before which nothing bad stands, more than one: they may be fed one by the other.
  const heads = [...bad].filter((b) => !above(b).some((a) => bad.has(a)));
  if (heads.length > 1)
    for (const head of heads.slice(0, 2)) {
      const moved = [...feeders];
      for (const other of heads) if (other !== head && !above(head).includes(other)) moved[other] = head;
      add(
        moved,
        `${heads
          .filter((h) => h !== head)
          .map(nameOf)
          .join(', ')} ${heads.length > 2 ? 'are' : 'is'} fed from ${nameOf(head)}`,
      );
    }
  // A cable whose two ends were opened and found tight: rather than in the wall it is in a box that changed places with one of them.
  const tight = new Set(
    evidence.flatMap(({ finding }) =>
      finding.kind === 'opened' && finding.found.length === 0 ? [finding.stop] : [],
    ),
  );
  const swaps = [...tight].flatMap((stop) => {
    const feeder = stop < 0 ? undefined : feeders[stop];
    if (feeder === undefined || (feeder >= 0 && !tight.has(feeder))) return [];
    const fed = feeders.flatMap((f, i) => (f === stop ? [[stop, i] as const] : []));
    if (feeder < 0) return fed;
    const above = feeders[feeder]!;
    return [...fed, [feeder, stop] as const, ...(above < 0 ? [] : [[above, feeder] as const])];
  });
  for (const [before, after] of swaps.slice(0, SWAPS))
    add(
      feeders.map((f, i) =>
        i === after ? feeders[before]! : i === before ? after : f === after ? before : f,
      ),
      `${nameOf(after)} is fed before ${nameOf(before)}`,
    );
  // Of a circuit that nobody drew: what opened and counted boxes leave, those first that good and bad outlets leave as well.
  const { orders = [] } = ground;
  const against = (of: readonly number[]) => [...good].filter((g) => bad.has(of[g]!)).length;
  for (const of of [...orders].sort((x, y) => against(x) - against(y)))
    add([...of], `${pathWords(of, nameOf)}, as the opened boxes have it`);
  const list = others.filter(({ feeders: f }) => isTree(f)).slice(0, MOST);
  const fits = orders.length === 0 || orders.some((of) => of.join() === feeders.join());
  const drawn = drawingOf(ground, feeders, '', list.length === 0 ? 1 : fits ? 1 - wrong : REFUTED);
  return [
    drawn,
    ...list.map((o) => drawingOf(ground, o.feeders, o.differs, (1 - drawn.share) / list.length)),
  ];
}

/** Which box feeds which, in words. */
const pathWords = (feeders: readonly number[], nameOf: (stop: number) => string): string =>
  feeders.map((f, i) => `${nameOf(i)} from ${nameOf(f)}`).join(', ');

function isTree(feeders: readonly number[]): boolean {
  return feeders.every((_, start) => {
    const met = new Set<number>();
    for (let at = start; at >= 0; at = feeders[at]!) {
      if (met.has(at)) return false;
      met.add(at);
    }
    return true;
  });
}
