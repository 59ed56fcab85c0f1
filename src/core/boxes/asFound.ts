/** Putting down what an opened box has: cables, their conductors, splices. Ends of what is taken away go with it. */
import type { BoxWiring, RecordedWiring } from '#core/job/schema.ts';
import { endsOf, EMPTY_WIRING, tailEnds, type Cable, type CableConductor, type Tail } from './wiring.ts';

/** A conductor as it is seen, before it has a name in its cable. */
export type SeenConductor = Pick<CableConductor, 'color' | 'function'>;

/** The usual builds of cable, as their conductors are seen. */
export const CABLE_BUILDS: readonly { name: string; conductors: readonly SeenConductor[] }[] = [
  {
    name: 'Two-wire',
    conductors: [
      { color: 'black', function: 'unknown' },
      { color: 'white', function: 'neutral' },
    ],
  },
  {
    name: 'Two-wire and ground',
    conductors: [
      { color: 'black', function: 'unknown' },
      { color: 'white', function: 'neutral' },
      { color: 'bare', function: 'ground' },
    ],
  },
  {
    name: 'Three-wire and ground',
    conductors: [
      { color: 'black', function: 'unknown' },
      { color: 'red', function: 'unknown' },
      { color: 'white', function: 'neutral' },
      { color: 'bare', function: 'ground' },
    ],
  },
  {
    name: 'Old armored, two-wire',
    conductors: [
      { color: 'cloth', function: 'unknown' },
      { color: 'white', function: 'neutral' },
      { color: 'armor', function: 'ground' },
    ],
  },
];

/** The wiring without places of ends that it no longer has. */
function pruned(wiring: BoxWiring): BoxWiring {
  const ends = new Set(endsOf(wiring).map((e) => e.id));
  return { ...wiring, places: wiring.places.filter((p) => ends.has(p.end)) };
}

/** The first numbered names that nothing has yet. */
function freeIds(prefix: string, taken: readonly { id: string }[], count: number): string[] {
  const used = new Set(taken.map((t) => t.id));
  const free: string[] = [];
  for (let n = 1; free.length < count; n++) if (!used.has(`${prefix}-${n}`)) free.push(`${prefix}-${n}`);
  return free;
}

const emptySplice = (id: string): BoxWiring['splices'][number] => ({ id, connector: 'unknown' });

/** One more or one less cable. */
export function withCables(wiring: BoxWiring, count: number): BoxWiring {
  const { cables } = wiring;
  const more = freeIds('cable', cables, count - cables.length).map((id): Cable => ({
    id,
    toward: 'unknown',
    circuitId: null,
    raceway: false,
    stands: 'ends',
    conductors: [],
  }));
  return pruned({ ...wiring, cables: [...cables.slice(0, count), ...more] });
}

/** A cable's conductors as they are seen; each is named by its color, and keeps its place while it is there. */
export function withConductors(
  wiring: BoxWiring,
  cableId: string,
  seen: readonly SeenConductor[],
): BoxWiring {
  const used = new Map<string, number>();
  const conductors = seen.map(({ color, function: fn }): CableConductor => {
    const count = (used.get(color) ?? 0) + 1;
    used.set(color, count);
    const id = count === 1 ? color : `${color}-${count}`;
    const before = wiring.cables.find((c) => c.id === cableId)?.conductors.find((c) => c.id === id);
    return { gauge: null, material: 'copper', mark: null, ...before, id, color, function: fn };
  });
  return pruned({
    ...wiring,
    cables: wiring.cables.map((c) => (c.id === cableId ? { ...c, conductors } : c)),
  });
}

/** Says where a cable goes: `feed`, the id of a box, `onward` or `unknown`. */
export const withToward = (wiring: BoxWiring, cableId: string, toward: string): BoxWiring => ({
  ...wiring,
  cables: wiring.cables.map((c) => (c.id === cableId ? { ...c, toward } : c)),
});

/** So many splices; those that go leave their ends not looked at. */
export function withSplices(wiring: BoxWiring, count: number): BoxWiring {
  const kept = wiring.splices.slice(0, count);
  const more = freeIds('splice', kept, count - kept.length).map(emptySplice);
  const gone = new Set(wiring.splices.slice(count).map((s) => s.id));
  return {
    ...wiring,
    splices: [...kept, ...more],
    places: wiring.places.filter((p) => p.at === null || !gone.has(p.at)),
  };
}

/** A short conductor more between two places, as somebody put it there; null is an end that hangs loose. */
export function withJumper(wiring: BoxWiring, from: string | null, to: string | null): BoxWiring {
  const [id] = freeIds('jumper', wiring.tails, 1);
  const tail: Tail = { id: id!, color: 'bare', function: 'unknown' };
  const [a, b] = tailEnds(tail);
  return {
    ...wiring,
    tails: [...wiring.tails, tail],
    places: [...wiring.places, { end: a, at: from }, { end: b, at: to }],
  };
}

/** The wiring without a jumper that was put in. */
export const withoutJumper = (wiring: BoxWiring, id: string): BoxWiring =>
  pruned({ ...wiring, tails: wiring.tails.filter((t) => t.id !== id) });

/** A splice more, with nothing in it. */
export function withSplice(wiring: BoxWiring): BoxWiring {
  const more = freeIds('splice-extra', wiring.splices, 1).map(emptySplice);
  return { ...wiring, splices: [...wiring.splices, ...more] };
}

/** A wiring on record; null where nothing is left to record. @param at UTC time */
export function recordOf(
  wiring: BoxWiring,
  stage: RecordedWiring['stage'],
  at: string,
  by: string,
): RecordedWiring | null {
  const nothing = JSON.stringify(wiring) === JSON.stringify(EMPTY_WIRING);
  return nothing ? null : { stage, at, by, wiring };
}

/** Ends that nobody has said the place of. */
export const notLookedAt = (wiring: BoxWiring): string[] =>
  endsOf(wiring)
    .map((e) => e.id)
    .filter((id) => !wiring.places.some((p) => p.end === id));
