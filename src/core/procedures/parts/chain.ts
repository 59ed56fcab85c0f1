/** The first box of a chain: one box opened at a time, its cables apart, power on to look, off again. */
import type { Command } from '#core/job/commands.ts';
import { newId, rows, standingRows, stopAt, struckBy } from '#core/job/document.ts';
import type { Circuit, JobDocument, Parting } from '#core/job/schema.ts';
import { chainOf, treesLeft, type Chain, type Opened, type Tree } from '../chain.ts';
import type { Context, Signed, Step } from '../step.ts';
import { when } from '../step.ts';
import { changeBox, placed } from './place.ts';

/** Boxes opened on a circuit whose looks stand, oldest first. */
const partingsOf = (document: JobDocument, circuitId: string): Parting[] =>
  standingRows(document.partings).filter((p) => p.circuitId === circuitId);

/** Opened boxes taken back: they stay on record, struck. */
export const strikePartings = (partings: readonly Parting[], signed: Signed): Command[] =>
  partings.map((p) => ({
    type: 'put',
    table: 'partings',
    rows: [struckBy(p, 'parting', signed)],
  }));

/** Boxes of a circuit with what was opened and counted, as `chainOf` takes them. */
function looksOn(
  document: JobDocument,
  circuit: Circuit,
): readonly [boxes: string[], opened: Opened[], among: string[], whole: boolean] {
  const boxes = circuit.stops.map((s) => s.boxId).filter((id) => document.boxes[id]);
  const opened: Opened[] = partingsOf(document, circuit.id).map((p) => ({
    box: p.boxId,
    cables: p.cables,
    dead: p.dead.filter((id) => boxes.includes(id)),
  }));
  const counted = boxes.flatMap((id): Opened[] => {
    const cables = document.boxes[id]!.cables;
    return cables === null || opened.some((o) => o.box === id) ? [] : [{ box: id, cables, dead: null }];
  });
  const among = circuit.mayBeFirst.filter((id) => boxes.includes(id));
  return [boxes, [...opened, ...counted], among, circuit.complete === 'yes'];
}

/** Where the order of a circuit stands by what was opened and counted. */
export const chainOn = (document: JobDocument, circuit: Circuit): Chain =>
  chainOf(...looksOn(document, circuit));

/** Orders that what was opened and counted leaves; none where nothing was, or they are too many. */
export function treesOn(document: JobDocument, circuit: Circuit): Tree[] {
  const looks = looksOn(document, circuit);
  const [, opened] = looks;
  return opened.length === 0 ? [] : (treesLeft(...looks) ?? []);
}

/** A circuit with its stops in the order that was worked out. */
export function orderedCommand(circuit: Circuit, tree: Tree): Command {
  const stops: Circuit['stops'] = [];
  const put = (from: string | null): void => {
    for (const [box, feeder] of tree)
      if (feeder === from) {
        const before = circuit.stops.find((s) => s.boxId === box);
        stops.push(before ? { ...before, from } : stopAt(box, from));
        put(box);
      }
  };
  put(null);
  return { type: 'put', table: 'circuits', rows: [{ ...circuit, stops, ordered: 'yes' }] };
}

/** The first box put first; what hangs on it in an order that nobody saw. */
export function firstCommand(circuit: Circuit, first: string): Command {
  const own = circuit.stops.find((s) => s.boxId === first);
  const rest = circuit.stops.filter((s) => s.boxId !== first);
  return {
    type: 'put',
    table: 'circuits',
    rows: [
      {
        ...circuit,
        mayBeFirst: [first],
        stops: [
          { ...(own ?? stopAt(first, null)), from: null },
          ...rest.map((s, k) => ({ ...s, from: k === 0 ? first : rest[k - 1]!.boxId })),
        ],
      },
    ],
  };
}

/** Outlets named in words, put on the circuit in an order that nobody knows. */
function namedCommands(c: Context, circuit: Circuit, note: string, all: boolean): Command[] {
  const names = note
    .split(/[,;\n]/)
    .map((w) => w.trim())
    .filter(Boolean);
  const areaId = c.box?.areaId ?? rows(c.document.areas)[0]?.id ?? 'bedroom';
  let document = c.document;
  const commands: Command[] = [];
  const stops = [...circuit.stops];
  for (const name of names) {
    const made = placed({ ...c, document }, [areaId], name, 'duplex');
    document = { ...document, boxes: { ...document.boxes, [made.box.id]: made.box } };
    commands.push(...made.commands);
    stops.push(stopAt(made.box.id, stops.at(-1)?.boxId ?? null));
  }
  return [
    ...commands,
    { type: 'put', table: 'circuits', rows: [{ ...circuit, stops, complete: all ? 'yes' : 'unknown' }] },
  ];
}

/** Steps until the first box is certain. */
export function chainSteps(c: Context): readonly (Step | false | null)[] {
  const { document, circuit } = c;
  if (!circuit) return [];
  const chain = chainOn(document, circuit);
  const opened = partingsOf(document, circuit.id);
  const box = chain.next === null ? null : document.boxes[chain.next]!;
  const nameOf = (id: string) => document.boxes[id]?.name ?? id;
  const others = circuit.stops.filter((s) => s.boxId !== box?.id);
  const n = opened.length + 1;
  const counted = box?.cables ?? null;
  return [
    ...when(circuit.stops.length < 2 || !c.log.has('chain-boxes'), {
      kind: 'ask',
      key: 'chain-boxes',
      title: 'What else goes dead with this breaker?',
      text: 'Name each in a line: “by the door”, “hall”. They are the boxes of the chain, as far as known.',
      why: 'A chain is found among its boxes; one that nobody named may be the first.',
      options: [
        { value: 'all', name: 'These are all of them' },
        { value: 'some', name: 'There may be more' },
      ],
      noteLabel: 'Other outlets, parted by commas',
      effects: ({ picks, note }) => namedCommands(c, circuit, note, picks.includes('all')),
    }),
    ...opened.map(({ boxId }, k): Step | false => {
      const was = document.boxes[boxId];
      return (
        was !== undefined && {
          kind: 'do',
          key: `rejoin ${k + 1}`,
          title: `Close ${was.name} again`,
          why: 'Left apart it would make the next box look like the first.',
          inside: was,
          keepsNeutrals: true,
          leaves: 'closed',
          lines: [{ text: 'Splices made again as in the picture, every conductor tugged, box closed.' }],
          done: 'Closed again',
        }
      );
    }),
    ...when(box !== null && c.log.has('chain-boxes'), {
      kind: 'measure',
      key: `count ${n}`,
      title: `Open ${box?.name ?? ''}: count its cables`,
      text: `${chain.mayBeFirst.length} may be the first${chain.left === null ? '' : `, ${chain.left} orders are left`}. This box tells most.`,
      why: 'One cable is an end; two pass; three or more branch.',
      inside: box,
      met: counted !== null,
      figures: [{ name: 'cables', label: 'Cables', unit: '', min: 1, max: 12 }],
      effects: ({ figures: [f] }) => (box ? [changeBox(box, { cables: Math.round(f?.value ?? 1) })] : []),
    }),
    ...when(box !== null && counted !== null, {
      kind: 'do',
      key: `apart ${n}`,
      title: 'Conductors apart',
      why: 'With its cables apart only what comes before this box stays live.',
      caution:
        'Clamp the neutral before it is parted: one that carries another circuit is live once it is open.',
      inside: box,
      leaves: 'clear',
      lines: [
        { text: 'Picture. Splices open, every conductor apart from the others.' },
        { text: 'Each end capped, spread, clear of the box. Nothing loose.' },
      ],
      done: 'Apart and capped',
    }),
    ...when(box !== null && c.log.has(`apart ${n}`), {
      kind: 'look',
      key: `parting ${n}`,
      title: 'Power on: what is dead now?',
      text: 'Tick what is dead. Nobody touches the open box.',
      why: 'What hangs on this box is dead; what comes before it works.',
      caution: 'Probes only at the open box. Off and proved dead again before a hand goes in.',
      liveOpen: circuit,
      options: others.map((s) => ({ value: s.boxId, name: nameOf(s.boxId) })),
      exits: [{ value: 'looked', name: 'All looked at' }],
      effects: ({ picks }, { by, at }) =>
        box
          ? [
              {
                type: 'put',
                table: 'partings',
                rows: [
                  {
                    id: newId('parting'),
                    circuitId: circuit.id,
                    boxId: box.id,
                    at,
                    by,
                    cables: counted ?? 1,
                    feed: null,
                    dead: others.map((s) => s.boxId).filter((id) => picks.includes(id)),
                    live: others.map((s) => s.boxId).filter((id) => !picks.includes(id)),
                    strikes: null,
                  },
                ],
              },
            ]
          : [],
    }),
    ...when(chain.contradicted, {
      kind: 'ask',
      key: `chain-contradicted ${n}`,
      title: 'No order fits what was seen',
      text: 'A hidden box, a second feed, or something looked at wrongly.',
      why: 'A contradiction is evidence: it is written down, not smoothed over.',
      options: [
        { value: 'again', name: 'Forget the openings, start again' },
        { value: 'end', name: 'Leave it open, on record' },
      ],
      effects: ({ picks }, signed) => (picks.includes('again') ? strikePartings(opened, signed) : []),
    }),
    ...when(chain.first !== null && circuit.stops.length > 1 && c.log.has('chain-boxes'), {
      kind: 'ask',
      key: 'chain-first',
      title: `${nameOf(chain.first ?? '')} is the first box`,
      text:
        chain.order === null
          ? 'What comes after it hangs on it, in an order that nobody needs for protection.'
          : `Order: ${[...chain.order].map(([b, f]) => `${nameOf(b)} from ${f === null ? 'the panel' : nameOf(f)}`).join(', ')}.`,
      why: 'One order of those that fit is left for the first place: no other box can be it.',
      options: [{ value: 'take', name: 'Put it on record' }],
      effects: () => [
        chain.order !== null && circuit.ordered !== 'yes'
          ? orderedCommand(circuit, chain.order)
          : firstCommand(circuit, chain.first!),
      ],
    }),
  ];
}
