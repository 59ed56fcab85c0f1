/**
 * A box's wiring as a graph: ends of conductors, of tails and of leads, each at one place. A place is a splice, a terminal
 * of a device, or the metal of the box; an end at none is capped, and one without an entry was not looked at.
 */
import type { BoxWiring, Color, ConductorFunction, Gauge } from '#core/job/schema.ts';
import { DEVICES, type Terminal } from './devices.ts';

export type Cable = BoxWiring['cables'][number];
export type CableConductor = Cable['conductors'][number];
export type Yoke = BoxWiring['yokes'][number];
export type Tail = BoxWiring['tails'][number];

/** The place of what is joined to the metal of the box. */
export const BOX = 'box';
export const FEED = 'feed';

export const EMPTY_WIRING: BoxWiring = { cables: [], yokes: [], splices: [], tails: [], places: [] };

export interface End {
  id: string;
  kind: 'conductor' | 'tail' | 'lead';
  color: Color;
  function: ConductorFunction;
  mark: Color | null;
  gauge: Gauge | null;
  cable: Cable | null;
}

export const endOf = (cable: Pick<Cable, 'id'>, conductor: Pick<CableConductor, 'id'>): string =>
  `${cable.id}.${conductor.id}`;
export const terminalAt = (yoke: Pick<Yoke, 'id'>, terminal: Pick<Terminal, 'id'>): string =>
  `${yoke.id}.${terminal.id}`;
/** The two ends of a tail: at the splice, and where it goes. */
export const tailEnds = ({ id }: Pick<Tail, 'id'>): [string, string] => [`${id}.a`, `${id}.b`];

/** What a lead is there for, by its color. */
const LEAD_FUNCTIONS: Partial<Record<Color, ConductorFunction>> = { white: 'neutral', green: 'ground' };

/** Every end of a box: conductors of cables that do not pass unbroken, both ends of tails, leads of devices. */
export const endsOf = (wiring: BoxWiring): End[] => [
  ...wiring.cables
    .filter((cable) => cable.stands === 'ends')
    .flatMap((cable) =>
      cable.conductors.map((c): End => ({
        id: endOf(cable, c),
        kind: 'conductor',
        color: c.color,
        function: c.function,
        mark: c.mark,
        gauge: c.gauge,
        cable,
      })),
    ),
  ...wiring.tails.flatMap((tail) =>
    tailEnds(tail).map((id): End => ({
      id,
      kind: 'tail',
      color: tail.color,
      function: tail.function,
      mark: null,
      gauge: null,
      cable: null,
    })),
  ),
  ...wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].terminals
      .filter((t) => t.held === 'lead')
      .map((t): End => ({
        id: terminalAt(yoke, t),
        kind: 'lead',
        color: t.finish as Color,
        function: LEAD_FUNCTIONS[t.finish as Color] ?? 'unknown',
        mark: null,
        gauge: null,
        cable: null,
      })),
  ),
];

export interface Place {
  id: string;
  kind: 'splice' | 'terminal' | 'box';
  name: string;
  /** Conductors that it takes. */
  takes: number;
  terminal: Terminal | null;
}

/** Splices take as many as their connector does; that is judged, not enforced. */
const MOST_IN_SPLICE = 24;

/** Every place of a box that an end may be moved to. */
export const placesOf = (wiring: BoxWiring): Place[] => [
  ...wiring.splices.map(({ id }): Place => ({
    id,
    kind: 'splice',
    name: spliceName(id),
    takes: MOST_IN_SPLICE,
    terminal: null,
  })),
  ...wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].terminals
      .filter((t) => t.held !== 'lead')
      .map((t): Place => ({
        id: terminalAt(yoke, t),
        kind: 'terminal',
        name: t.name,
        takes: t.takes,
        terminal: t,
      })),
  ),
  { id: BOX, kind: 'box', name: 'ground screw of the box', takes: 1, terminal: null },
];

/** A splice in words, by its id. */
export const spliceName = (id: string): string =>
  `${id.replace(/^splice-/, '').replaceAll(/[-~]/g, ' ')} splice`;

/** Where an end stands; null is capped, undefined was not looked at. */
export const placeOf = ({ places }: BoxWiring, end: string): string | null | undefined =>
  places.find((p) => p.end === end)?.at;

/** Ends that meet at a place. */
export const membersOf = ({ places }: BoxWiring, place: string): string[] =>
  places.filter((p) => p.at === place).map((p) => p.end);

/** Whether a neutral of a cable is joined to the metal of the box or to a ground terminal, over whatever tails. */
export function neutralOnGround(wiring: BoxWiring): boolean {
  const joined = new Map<string, Set<string>>();
  const join = (a: string, b: string) => {
    const both = new Set([...(joined.get(a) ?? [a]), ...(joined.get(b) ?? [b])]);
    for (const place of both) joined.set(place, both);
  };
  const at = (end: string): string => placeOf(wiring, end) ?? end;
  for (const tail of wiring.tails) {
    const [a, b] = tailEnds(tail);
    join(at(a), at(b));
  }
  const isGround = (place: string): boolean => place === BOX || place.endsWith('.green');
  return endsOf(wiring).some(({ id, kind, function: is }) => {
    if (kind !== 'conductor' || is !== 'neutral') return false;
    const place = at(id);
    return [...(joined.get(place) ?? [place])].some(isGround);
  });
}

/** The wiring with an end at another place; null caps it. */
export const moved = (wiring: BoxWiring, end: string, at: string | null): BoxWiring => ({
  ...wiring,
  places: wiring.places.some((p) => p.end === end)
    ? wiring.places.map((p) => (p.end === end ? { end, at } : p))
    : [...wiring.places, { end, at }],
});

/** One end that stands elsewhere than it was meant to. */
export interface Moved {
  end: string;
  from: string | null | undefined;
  to: string | null | undefined;
}

/** What two wirings of one box do not agree in, end by end. */
export function differences(planned: BoxWiring, recorded: BoxWiring): Moved[] {
  const ends = new Set([...planned.places, ...recorded.places].map((p) => p.end));
  return [...ends].flatMap((end) => {
    const [from, to] = [placeOf(planned, end), placeOf(recorded, end)];
    return from === to ? [] : [{ end, from, to }];
  });
}

/** Whether two wirings are one: the same parts, and every end at the same place. */
export const sameWiring = (a: BoxWiring, b: BoxWiring): boolean =>
  differences(a, b).length === 0 && inOrder(a) === inOrder(b);

/** The parts of a box, whatever order they were put down in. */
const inOrder = ({ cables, yokes, splices, tails }: BoxWiring): string =>
  JSON.stringify([sorted(cables), sorted(yokes), sorted(splices), sorted(tails)]);

const sorted = <T extends { id: string }>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => a.id.localeCompare(b.id));

/** What a terminal of a yoke is, by its place. */
function terminalOf(wiring: BoxWiring, place: string): { yoke: Yoke; terminal: Terminal } | null {
  for (const yoke of wiring.yokes)
    for (const terminal of DEVICES[yoke.kind].terminals)
      if (terminalAt(yoke, terminal) === place) return { yoke, terminal };
  return null;
}

const FUNCTION_NAMES: Readonly<Record<ConductorFunction, string>> = {
  hot: 'hot',
  'hot-b': 'second hot',
  switched: 'switched hot',
  'switched-b': 'second switched hot',
  'traveler-1': 'traveler 1',
  'traveler-2': 'traveler 2',
  interconnect: 'interconnect',
  neutral: 'neutral',
  ground: 'ground',
  spare: 'spare',
  unknown: 'not known',
};
/** What a conductor is there for, in words. */
export const functionName = (fn: ConductorFunction): string => FUNCTION_NAMES[fn];

/** A tail that is in no plan: somebody put it there. */
export const isJumper = (end: string): boolean => end.startsWith('jumper-');

/** Ends that a hand takes: a tail is one thing, taken where it goes; of a jumper both ends are. */
export const handsOf = (wiring: BoxWiring): End[] =>
  endsOf(wiring).filter((e) => e.kind !== 'tail' || e.id.endsWith('.b') || isJumper(e.id));

/** What an end is called beside the others of its box: its looks, and where it goes. @param nameOf a box by its id */
export function endName(wiring: BoxWiring, id: string, nameOf: (box: string) => string): string {
  const end = endsOf(wiring).find((e) => e.id === id);
  if (!end) return id;
  if (end.kind === 'lead') return terminalOf(wiring, id)!.terminal.name;
  if (end.kind === 'tail')
    return isJumper(end.id) ? `jumper, ${id.endsWith('.a') ? 'one' : 'other'} end` : `${end.color} tail`;
  const looks = end.mark === null ? end.color : `${end.color}, marked ${end.mark},`;
  return `${looks} ${cableWords(end.cable!, nameOf)}`;
}

/** Where a cable goes, after the name of what is of it. */
export function cableWords({ id, toward, circuitId }: Cable, nameOf: (box: string) => string): string {
  if (circuitId !== null)
    return `of another circuit’s cable ${id.endsWith('-out') ? 'that goes on' : 'that comes in'}`;
  if (toward === FEED) return 'of the feed';
  if (toward === 'onward')
    return id.startsWith('onward-') ? `of cable ${Number(id.slice(7)) + 1}` : 'of a cable that goes on';
  return toward === 'unknown' ? `of ${id.replace('-', ' ')}` : `to ${nameOf(toward)}`;
}
