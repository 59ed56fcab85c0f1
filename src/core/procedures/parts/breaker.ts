/** Which breaker feeds an outlet: read from the directory, or found by flips that stay on record. */
import type { Command } from '#core/job/commands.ts';
import { breakerOf, newId, PLAIN_CIRCUIT, rows, standingRows, stopAt, struckBy } from '#core/job/document.ts';
import type { Box, Circuit, Flip, JobDocument, Panel } from '#core/job/schema.ts';
import { MEANS_WORDS, type Means } from '../means.ts';
import { searchBreaker, type BreakerSearch, type Candidate } from '../breakerSearch.ts';
import type { Context, Signed, Step } from '../step.ts';
import { when } from '../step.ts';
import { about } from './place.ts';
import { beforeFlips } from './start.ts';

/** Breakers turned off one after the other, and the one at which the outlet fell silent. */
const SWEEP = /^((?:\d{1,2}[ab]? ?)+); (\d{1,2}[ab]?)$/;
const SPACE = /^([1-9]\d?)(a|b)?$/;
const RATINGS = [15, 20, 25, 30, 40, 50, 60] as const;

/** The panel that a call works at: the one at the service, or the first. */
export const panelOf = ({ panels }: JobDocument): Panel =>
  rows(panels).find((p) => p.feeder === null) ?? rows(panels)[0]!;

/** What flips of the panel showed of one outlet, for the search. */
const seenOf = (document: JobDocument, boxId: string): { off: readonly string[]; dead: boolean }[] =>
  standingRows(document.flips).flatMap(({ off, outlets }) =>
    outlets.flatMap((o) => (o.boxId === boxId ? [{ off, dead: o.dead }] : [])),
  );

/** Words that a directory line and a room have in common make its breaker so many times as likely. */
const NAMED = 6;
const words = (text: string): string[] => text.toLowerCase().match(/[a-z]{3,}/g) ?? [];

/** Breakers that may feed an outlet, with how likely each is by the directory and by what is known to feed other things. */
export function candidatesFor(document: JobDocument, panel: Panel, box: Box): Candidate[] {
  const room = new Set([
    ...words(document.areas[box.areaId]?.name ?? ''),
    ...words(document.areas[box.areaId]?.kind ?? ''),
  ]);
  const named = (label: string) => words(label).some((w) => room.has(w));
  const listed = panel.found?.breakers ?? [];
  const circuits = rows(document.circuits).filter((c) => c.panelId === panel.id && c.status !== 'remove');
  const found = new Map<string, Candidate>();
  const add = (space: string, label: string) =>
    found.set(space, { space, weight: (found.get(space)?.weight ?? 1) * (named(label) ? NAMED : 1) });
  if (listed.length > 0) for (const b of listed) add(String(b.space), b.label);
  else for (let n = 1; n <= panel.spaces; n++) add(String(n), '');
  for (const circuit of circuits) {
    const { space, half, name } = circuit;
    if (half !== 'whole') found.delete(String(space));
    add(`${space}${half === 'whole' ? '' : half}`, name);
    // The second pole moves with the first.
    if (circuit.breaker.poles === 2) found.delete(String(circuit.otherSpace ?? space + 2));
  }
  return [...found.values()];
}

export const searchFor = (document: JobDocument, panel: Panel, box: Box): BreakerSearch =>
  searchBreaker(candidatesFor(document, panel, box), seenOf(document, box.id));

/** An outlet put on the breaker of a space: on the circuit that is on record there, or a new one of which no more is known. */
function feedCommands(c: Context, box: Box, space: string, rating: number, poles: 1 | 2): Command[] {
  const { document } = c;
  const panel = panelOf(document);
  const [, digits = '1', half] = SPACE.exec(space) ?? [];
  const at = Number(digits);
  const known = rows(document.circuits).find(
    (k) => k.panelId === panel.id && k.space === at && (k.half === 'whole' || k.half === (half ?? 'whole')),
  );
  const grow: Command[] =
    at > panel.spaces ? [{ type: 'put', table: 'panels', rows: [{ ...panel, spaces: at + (at % 2) }] }] : [];
  if (known)
    return [
      ...(known.stops.some((s) => s.boxId === box.id)
        ? []
        : [
            {
              type: 'move-stop' as const,
              boxId: box.id,
              circuitId: known.id,
              after: known.stops.at(-1)?.boxId ?? null,
            },
            // Where the new one hangs among the others nobody has seen.
            ...(known.stops.length > 0
              ? [
                  {
                    type: 'edit' as const,
                    table: 'circuits' as const,
                    id: known.id,
                    edits: [{ path: ['ordered'], value: 'unknown' }],
                  },
                ]
              : []),
          ]),
      about(c, { boxId: box.id, circuitId: known.id }),
    ];
  const circuit: Circuit = {
    ...PLAIN_CIRCUIT,
    id: newId('circuit'),
    panelId: panel.id,
    space: at,
    half: half === 'a' || half === 'b' ? half : 'whole',
    name: `Breaker ${space}`,
    status: 'existing',
    breaker: breakerOf(rating, 'none', poles),
    gauge: rating <= 15 ? '14' : rating <= 20 ? '12' : rating <= 30 ? '10' : rating <= 40 ? '8' : '6',
    seen: 'unknown',
    complete: 'unknown',
    ordered: 'unknown',
    neutral: box.device.volts !== '250',
    stops: [stopAt(box.id, null)],
  };
  return [
    ...grow,
    { type: 'put', table: 'circuits', rows: [circuit] },
    about(c, { boxId: box.id, circuitId: circuit.id }),
  ];
}

/** `7`, `12a`: a space in the words of an answer. @returns why it is none, or null */
const spaceProblem = (text: string): string | null =>
  SPACE.test(text.trim().toLowerCase())
    ? null
    : 'Space: expected its number, as 7, or 12a for half of a tandem';

/** The space and the rating of a breaker, as somebody reads them. */
export const askBreaker = (c: Context, box: Box, key: string, poles: 1 | 2 = 1): Step => ({
  kind: 'breaker',
  key,
  title: 'Which breaker feeds it?',
  text: 'Read the directory, then the number on the handle. The proof of dead will show whether it is so.',
  why: 'Directories are often wrong: what the label says is a guess until the outlet was seen dead with it off.',
  box,
  says: ({ picks: [pick], value, note }) =>
    pick === 'find'
      ? 'Nobody knows: to be found'
      : `Space ${note.trim()}, ${value} A${pick === '2' || poles === 2 ? ', two poles' : ''}`,
  refuses: ({ picks: [pick = ''], value, note }) =>
    pick === 'find' && key === 'breaker'
      ? null
      : (spaceProblem(note) ?? (value === null ? 'expected the amperes on its handle' : null)),
  effects: ({ picks: [pick], value, note }) =>
    pick === 'find' ? [] : feedCommands(c, box, note.trim().toLowerCase(), value!, pick === '2' ? 2 : poles),
});

/** The breaker read from the directory or found, rating and poles from its handle; nothing where it is on record. */
export function breakerFor(c: Context, box: Box, poles: 1 | 2 = 1): readonly (Step | false | null)[] {
  const known = c.view.circuitOf(box.id);
  const finding = c.log.picked('breaker', 'find');
  if (known && !finding) return [];
  return [
    { ...askBreaker(c, box, 'breaker', poles), met: known !== null && !finding },
    ...when(finding, ...findBreaker(c, box, poles)),
  ];
}

const MEANS: readonly Means[] = ['eyes', 'helper', 'sound', 'two-phones', 'tone'];

/** Flips until one breaker is left, each kept for the directory. */
export function findBreaker(c: Context, box: Box, poles: 1 | 2 = 1): readonly (Step | false | null)[] {
  const { document, log } = c;
  const panel = panelOf(document);
  const means = log.pick('means') as Means | null;
  const search = searchFor(document, panel, box);
  const seen = seenOf(document, box.id);
  const off = tone(c, search) ?? search.next ?? [];
  const done = c.view.circuitOf(box.id) !== null && search.certain !== null;
  return [
    ...beforeFlips(c),
    {
      kind: 'measure',
      key: 'panel-spaces',
      title: 'How many spaces has the panel?',
      text: 'Count both columns, the empty ones too.',
      why: 'Halving works on the whole panel: six looks find one breaker of forty.',
      met: panel.known === 'yes' || panel.found !== null,
      figures: [{ name: 'spaces', label: 'Spaces', unit: '', min: 2, max: 84 }],
      effects: ({ figures: [f] }) => [
        {
          type: 'put',
          table: 'panels',
          rows: [
            {
              ...panel,
              spaces: Math.max(
                Math.round(f?.value ?? panel.spaces),
                ...rows(document.circuits).map((k) => (k.panelId === panel.id ? k.space : 0)),
              ),
            },
          ],
        },
      ],
    },
    {
      kind: 'ask',
      key: 'means',
      title: 'How will you know that it went dead?',
      why: 'Each way leaves the same evidence: what was off, and whether it was dead.',
      options: MEANS.map((value) => ({
        value,
        name: MEANS_WORDS[value].name,
        hint: MEANS_WORDS[value].hint,
      })),
    },
    ...when(means === 'two-phones', {
      kind: 'phones',
      key: 'phones',
      title: 'Two phones',
      why: 'The one at the outlet notes when the sound stops; this one stamps each flip. They are matched by time.',
      watch: box,
      refuses: ({ picks, note }) =>
        picks.includes('by-hand') || (picks.includes('matched') && SWEEP.test(note))
          ? null
          : 'expected the breakers that were flipped and the one that agrees',
      effects: ({ picks, note }, signed) => {
        const [, swept = '', dead = ''] = SWEEP.exec(note) ?? [];
        return picks.includes('matched')
          ? swept
              .split(' ')
              .map((space) => flipCommand(panel.id, box, [space], space === dead, 'two-phones', signed))
          : [];
      },
    }),
    ...when(means === 'tone', {
      kind: 'measure',
      key: 'tone',
      title: 'Which breaker answers loudest?',
      text: 'Transmitter at the outlet, receiver at the panel cover closed. Turn the gain down until one alone still answers.',
      why: 'Neighbors answer too while the gain is too high; the flip after it decides.',
      figures: [
        { name: 'space', label: 'Space', unit: '', min: 1, max: 84 },
        { name: 'gain', label: 'Gain', unit: '', min: 1, max: 20, optional: true },
      ],
    }),
    ...when(search.contradicted, {
      kind: 'ask',
      key: `contradicted ${seen.length}`,
      title: 'No breaker fits all the flips',
      text: 'One look was read wrong, or it hangs on another panel, behind a GFCI or a switch, or on two breakers.',
      why: 'A contradiction is evidence too: it is not explained away.',
      options: [
        { value: 'again', name: 'Start the flips again' },
        { value: 'elsewhere', name: 'Look for a second panel, GFCI or switch first' },
      ],
      effects: ({ picks }, signed) =>
        picks.includes('again')
          ? strikeFlips(
              standingRows(document.flips).filter((f) => f.outlets.some((o) => o.boxId === box.id)),
              signed,
            )
          : [],
    }),
    ...when(!search.contradicted && search.certain === null && search.next !== null, {
      kind: 'flip',
      key: `flip ${seen.length + 1}`,
      title: search.possible.length === 1 ? 'Make sure' : 'Turn these off',
      why: 'Each look leaves as few breakers as it can: by what the directory says, or half of them.',
      caution: 'One at a time, stand to the side. A breaker that will not go back on stays off.',
      off,
      says: ({ picks }) => `${off.join(', ')} off: ${picks.includes('dead') ? 'it went dead' : 'still on'}`,
      watch: box,
      left: search.possible.length,
      atMost: search.atMost,
      effects: ({ picks }, signed) => [
        flipCommand(panel.id, box, off, picks.includes('dead'), means, signed),
      ],
    }),
    ...when(search.certain !== null && !done, {
      kind: 'ask',
      key: 'handle',
      title: `Breaker ${search.certain ?? ''} it is. What is on its handle?`,
      why: 'The rating decides conductors and devices; two poles mean two hots.',
      options: [
        ...RATINGS.map((r) => ({ value: `${r}-1`, name: `${r} A` })),
        ...RATINGS.filter((r) => r >= 15).map((r) => ({ value: `${r}-2`, name: `${r} A, two poles` })),
      ].filter((o) => poles === 1 || o.value.endsWith('-2')),
      effects: ({ picks: [pick = ''] }) => {
        const [rating, n] = pick.split('-');
        return feedCommands(c, box, search.certain!, Number(rating), n === '2' ? 2 : 1);
      },
    }),
  ];
}

/** The one that answered to the tone is turned off first. */
function tone(c: Context, search: BreakerSearch): readonly string[] | null {
  const space = c.log.figure('tone', 'space');
  if (space === null) return null;
  const found = search.possible.filter((s) => parseInt(s) === space);
  return found.length > 0 ? found : null;
}

/** Flips taken back: they stay on record, struck. */
export const strikeFlips = (flips: readonly Flip[], signed: Signed): Command[] =>
  flips.map((f) => ({
    type: 'put',
    table: 'flips',
    rows: [struckBy(f, 'flip', signed)],
  }));

/** A flip as it goes on record. */
const flipCommand = (
  panelId: string,
  box: Box,
  off: readonly string[],
  dead: boolean,
  means: Means | null,
  { by, at }: Signed,
): Command => ({
  type: 'put',
  table: 'flips',
  rows: [
    {
      id: newId('flip'),
      panelId,
      at,
      by,
      means: means ?? 'eyes',
      off: [...off],
      outlets: [{ boxId: box.id, dead }],
      strikes: null,
    },
  ],
});
