/** Splices, capped ends, marks, tabs and landings: every end of a box is put where it belongs. */
import { isMultiwire } from '#core/circuits/run.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import { connectorRange } from '../connectors.ts';
import { DEVICES } from '../devices.ts';
import { BOX, endName, membersOf, terminalAt } from '../wiring.ts';
import type { Site, WorkStep } from './site.ts';

const PLURALS: Readonly<Record<ConductorFunction, string>> = {
  hot: 'hots (black)',
  'hot-b': 'second hots (red)',
  switched: 'switched hots',
  'switched-b': 'second switched hots',
  'traveler-1': 'first travelers',
  'traveler-2': 'second travelers',
  interconnect: 'interconnects',
  neutral: 'whites',
  ground: 'grounds',
  spare: 'spares',
  unknown: 'conductors',
};
/** Grounds are joined first, then neutrals, then what is live. */
const JOINED_FIRST: readonly ConductorFunction[] = ['ground', 'neutral', 'interconnect'];
const rankOf = (fn: ConductorFunction): number => {
  const at = JOINED_FIRST.indexOf(fn);
  return at < 0 ? JOINED_FIRST.length : at;
};

export function splices({ run, wiring, ends, nameOf, onward, stop }: Site): WorkStep[] {
  const multiwire = isMultiwire(run);
  const byId = new Map(ends.map((e) => [e.id, e]));
  return wiring.splices
    .map(({ id, connector }) => {
      const members = membersOf(wiring, id).map((m) => byId.get(m)!);
      const fn = members.find((m) => m.kind === 'conductor')?.function ?? 'unknown';
      return { id, connector, members, fn };
    })
    .sort((a, b) => rankOf(a.fn) - rankOf(b.fn))
    .map(({ id, connector, members, fn }): WorkStep => {
      const cables = members.filter((m) => m.kind === 'conductor');
      const leads = members.filter((m) => m.kind === 'lead').map((m) => endName(wiring, m.id, nameOf));
      const tails = members.filter((m) => m.kind === 'tail');
      const toBox = tails.filter((t) => wiring.places.some((p) => p.end === otherEnd(t.id) && p.at === BOX));
      const toDevice = tails.length - toBox.length;
      const where = cables.map((m) => endName(wiring, m.id, nameOf).replace(/^\S+(, marked \S+,)? /, ''));
      const ground = fn === 'ground';
      const load = id.startsWith('splice-load-');
      const parts = [
        toDevice > 0
          ? `${toDevice > 1 ? `${toDevice} tails` : 'a tail'} for the ${load ? 'LOAD terminal' : ground ? (GROUND_PLACE[stop.box.device.kind] ?? 'green screw') : 'device'}`
          : '',
        toBox.length > 0
          ? stop.school.bond === 'clip'
            ? 'one to the box, under its clip'
            : 'one to the screw of the metal box'
          : '',
        leads.length > 0 ? `the ${leads.join(' and the ')}` : '',
      ].filter(Boolean);
      const stands =
        ground && onward.length > 0 && wiring.yokes.length > 0
          ? '; the splice must stand without the device'
          : '';
      return {
        key: `splice ${id}`,
        text: `Join ${ground ? 'all grounds' : `the ${PLURALS[fn]}`} ${listed(where)}${parts.length > 0 ? `, with ${listed(parts)}` : ''}: ${connectorWords(connector)}${stands}.`,
        because: ground
          ? 'Taking a device out must not break the ground for what follows, 250.148.'
          : fn === 'neutral' && multiwire
            ? 'The neutral of a multiwire circuit never depends on a device, 300.13(B): parted, it puts 240 V across both sides.'
            : leads.length > 0
              ? 'Stranded leads go in a little ahead of solid ones; the connector is listed for both together.'
              : 'A device that fails then does not cut the run. Tug each conductor.',
        ...(fn === 'neutral' ? { partsNeutral: true } : {}),
        lands: members.map((m) => m.id),
      };
    });
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

const connectorWords = (kind: BoxWiring['splices'][number]['connector']): string => {
  const range = connectorRange(kind);
  return kind === 'none' || kind === 'unknown'
    ? 'a listed connector'
    : `${kind} connector${range ? ` (${range})` : ''}`.replace('connector connector', 'connector');
};
const otherEnd = (id: string): string => (id.endsWith('.a') ? id.replace(/a$/, 'b') : id.replace(/b$/, 'a'));

/** What the ground of a device is landed on. */
const GROUND_PLACE: Partial<Record<string, string>> = {
  light: 'fixture’s bracket',
  switch: 'switch’s green screw',
  hardwired: 'equipment’s green screw',
};

export function capped({ wiring, ends, nameOf, run }: Site): WorkStep[] {
  const loose = ends.filter((e) => wiring.places.some((p) => p.end === e.id && p.at === null));
  return loose.map((e): WorkStep => {
    const other = isMultiwire(run) && (e.function === 'hot' || e.function === 'hot-b');
    return {
      key: `cap ${e.id}`,
      text: `Cap the ${endName(wiring, e.id, nameOf)}: not used here.`,
      because: other
        ? 'It is live from the other pole when the circuit is on.'
        : e.function === 'neutral'
          ? 'A neutral for what may need one later, 404.2(C); it is a live circuit’s return all the same.'
          : 'A bare end that finds something live makes it so.',
      lands: [e.id],
    };
  });
}

export function marks({ ends, wiring, nameOf }: Site): WorkStep[] {
  const marked = ends.filter((e) => e.mark !== null);
  return marked.length === 0
    ? []
    : [
        {
          key: 'mark',
          text: `Mark the white as a hot with tape or paint, here and at the other end: ${marked.map((e) => endName(wiring, e.id, nameOf)).join('; ')}.`,
          because: marked.some((e) => e.function === 'hot')
            ? 'The white may be the supply of a switch, never the switched return, 200.7(C).'
            : 'A white that is no neutral says so wherever it is seen, 200.7(C).',
        },
      ];
}

export function tabs({ wiring, stop }: Site): WorkStep[] {
  return wiring.yokes.flatMap(({ hotTab, neutralTab }): WorkStep[] => {
    if (hotTab && neutralTab) return [];
    const half = stop.box.device.switched === 'half';
    return [
      {
        key: 'tabs',
        text: !neutralTab
          ? 'Break off both tabs, brass side and silver side: two circuits with neutrals of their own.'
          : half
            ? 'Break off the tab between the brass screws; leave the tab on the silver side.'
            : 'Break off the brass tab only; the silver tab stays.',
        because: half
          ? 'With the brass tab on, the switch does nothing, and both hots are joined through the device.'
          : 'Both hots on one yoke need breakers that open together, 210.7.',
      },
    ];
  });
}

/** Landings on the device, by what they are of, in the order of the school. */
export function landings({ wiring, ends, nameOf, stop }: Site): WorkStep[] {
  const byId = new Map(ends.map((e) => [e.id, e]));
  const places = wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].terminals
      .filter((t) => t.held !== 'lead')
      .map((t) => ({ terminal: t, members: membersOf(wiring, terminalAt(yoke, t)) })),
  );
  const onBox = membersOf(wiring, BOX);
  const group = (wanted: (fn: ConductorFunction) => boolean) =>
    places.flatMap(({ terminal, members }) =>
      members.filter((m) => wanted(byId.get(m)!.function)).map((m) => ({ terminal, end: byId.get(m)! })),
    );
  const step = (key: string, landed: ReturnType<typeof group>, extra: readonly string[] = []): WorkStep[] => {
    if (landed.length + extra.length === 0) return [];
    const words = [
      ...landed.map(
        ({ terminal, end }) =>
          `${capital(end.kind === 'tail' ? `${end.color} tail` : endName(wiring, end.id, nameOf))} to the ${terminal.name}`,
      ),
      ...extra.map((id) => `${capital(endName(wiring, id, nameOf))} to the metal of the box`),
    ];
    const plain =
      stop.box.device.kind === 'two-slot' && key === 'land neutral'
        ? ' (the wider slot); it has no ground screw'
        : '';
    return [
      {
        key,
        text: `${words.join('; ')}${plain}. Tighten to the torque marked on the device; tighten unused screws.`,
        because: ORDER[stop.school.landing],
        ...(key === 'land neutral' ? { partsNeutral: true } : {}),
        lands: [...landed.map((l) => l.end.id), ...extra],
      },
    ];
  };
  const ground = step(
    'land ground',
    group((fn) => fn === 'ground'),
    onBox,
  );
  const neutral = step(
    'land neutral',
    group((fn) => fn === 'neutral'),
  );
  // Of a switch what it switches comes before what feeds it.
  const isSwitch = stop.box.device.kind === 'switch';
  const hots = group((fn) => fn !== 'ground' && fn !== 'neutral').sort((a, b) =>
    isSwitch ? Number(a.end.function.startsWith('hot')) - Number(b.end.function.startsWith('hot')) : 0,
  );
  const hot = step('land hot', hots);
  return stop.school.landing === 'ground-neutral-hot'
    ? [...ground, ...neutral, ...hot]
    : [...hot, ...neutral, ...ground];
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const ORDER = {
  'ground-neutral-hot':
    'Ground, neutral, hot on; the reverse off. Loose screws are where opens and heat begin.',
  'hot-neutral-ground':
    'Hot, neutral, ground on, as this shop does it on dead conductors; off, the ground comes last. Loose screws are where opens and heat begin.',
} as const;
