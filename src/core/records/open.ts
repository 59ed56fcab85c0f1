/**
 * Who holds what open: from the proof that let hands in until each person says that they closed it. Power waits for all of
 * them, and a lock for the one whose it is.
 */
import { isBefore } from '#core/units/time.ts';
import type { Command, Guard } from '#core/job/commands.ts';
import { added, newId, rows, standingRows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { nameKey } from '#core/job/names.ts';
import { isSurelyBefore, type Recorded } from '#core/job/order.ts';
import type { Call, Circuit, Closing, Energizing, Entry, Flip, JobDocument } from '#core/job/schema.ts';
import { circuitsInSpace } from './life.ts';
import { isShownApart } from './neutrals.ts';
import { circuitsIn, enclosureOf } from './points.ts';
import { hasUnknown } from './proof.ts';

/** A box or panel that somebody holds open. */
export interface Held {
  of: Closing['of'];
  name: string;
  by: string;
  /** UTC time since when. */
  since: string;
  /** `clear`: its ends are apart and capped, and their hands are out of it. */
  left: 'open' | 'clear';
}

/** Somebody’s hands in something, by a row of the record. */
interface Hands {
  row: Recorded & { by: string };
  of: Closing['of'];
}

/** Outlets whose boxes a circuit is in, by what is on record or was locked for. */
function boxesWith(document: JobDocument, circuit: Circuit): ReadonlySet<string> {
  const found = new Set<string>();
  const near = new Set(circuit.stops.map((s) => s.boxId));
  for (const box of rows(document.boxes)) if (box.through.includes(circuit.id)) near.add(box.id);
  for (const id of near) {
    const box = document.boxes[id];
    if (box) for (const { id: other } of enclosureOf(document, box)) found.add(other);
  }
  for (const { boxId, lockedOut } of rows(document.proofs))
    if (lockedOut.includes(circuit.id)) found.add(boxId);
  return found;
}

/**
 * Boxes that power on a circuit may reach though it is not known to be in them: the main is off for them, there are conductors in
 * them of which nobody knows the breaker, or a neutral was parted in them that the circuit is not shown to leave alone.
 */
function boxesBeside(document: JobDocument, circuit: Circuit, known: ReadonlySet<string>): string[] {
  const uses = rows(document.energizings).filter((e) => e.purpose === 'use');
  const partedIn = new Set([
    ...rows(document.ticks).flatMap((t) => (t.done && t.step.includes('neutral') ? [t.boxId] : [])),
    ...rows(document.entries).flatMap((e) => e.touches.flatMap((t) => (t.in === 'neutral' ? [t.id] : []))),
  ]);
  return rows(document.proofs).flatMap((proof): string[] => {
    const box = document.boxes[proof.boxId];
    if (!box || known.has(box.id) || proof.basis.startsWith('earlier')) return [];
    const over = uses.some(
      (e) => proof.lockedOut.includes(e.circuitId) && isSurelyBefore(document, proof, e),
    );
    if (over) return [];
    if (proof.mainOff) return [box.id];
    const own = circuitsIn(document, box);
    const lockedOut = proof.lockedOut.flatMap((id) => document.circuits[id] ?? []);
    if (![...own, ...lockedOut].some((c) => c.panelId === circuit.panelId)) return [];
    const unknown = hasUnknown(document, proof);
    const parted = circuit.neutral && partedIn.has(box.id) && !isShownApart(document, box, proof, circuit);
    return unknown || parted ? [box.id] : [];
  });
}

/** A panel and those that feed it. */
function panelsAbove(document: JobDocument, panelId: string): ReadonlySet<string> {
  const found = new Set<string>();
  for (let id: string | null = panelId; id !== null && !found.has(id);) {
    found.add(id);
    const feeder: JobDocument['panels'][string]['feeder'] = document.panels[id]?.feeder ?? null;
    id = feeder?.panelId ?? null;
  }
  return found;
}

/** Whose hands went into what, on a circuit. */
function handsOn(document: JobDocument, circuit: Circuit): Hands[] {
  const near = boxesWith(document, circuit);
  const boxes = new Set([...near, ...boxesBeside(document, circuit, near)]);
  const panels = panelsAbove(document, circuit.panelId);
  const proofs = rows(document.proofs).filter((p) => boxes.has(p.boxId) && !p.basis.startsWith('earlier'));
  const proved = new Set(proofs.map((p) => p.boxId));
  const inBox = <T extends Hands['row'] & { boxId: string }>(list: readonly T[]): Hands[] =>
    list.flatMap((row) => (boxes.has(row.boxId) ? [{ row, of: { in: 'box', id: row.boxId } }] : []));
  return [
    ...inBox(proofs),
    ...(proved.size > 0
      ? [...inBox(rows(document.ticks).filter((t) => t.done)), ...inBox(rows(document.temporaries))]
      : []),
    ...rows(document.entries).flatMap((row) =>
      row.strikes === null
        ? row.touches.flatMap(({ in: what, id }) =>
            what !== 'neutral' && (what === 'box' ? boxes : panels).has(id)
              ? [{ row, of: { in: what, id } }]
              : [],
          )
        : [],
    ),
  ];
}

/** A box or panel as rows speak of it. */
interface Thing {
  name: string;
  /** Outlets in one box with it; a panel alone. */
  same: readonly string[];
  /** Power for use on any of its circuits: it was closed by then. */
  used: readonly Energizing[];
}

/** @param uses power for use, on any circuit */
function thingAt(
  document: JobDocument,
  circuit: Circuit,
  of: Closing['of'],
  uses: readonly Energizing[],
): Thing {
  const box = of.in === 'box' ? document.boxes[of.id] : undefined;
  if (!box)
    return {
      name: of.in === 'box' ? 'a box' : (document.panels[of.id]?.name ?? 'a panel'),
      same: [of.id],
      used: uses.filter((e) => document.circuits[e.circuitId]?.panelId === of.id),
    };
  const ids = new Set([circuit.id, ...circuitsIn(document, box).map((c) => c.id)]);
  return {
    name: box.name,
    same: enclosureOf(document, box).map((b) => b.id),
    used: uses.filter((e) => ids.has(e.circuitId)),
  };
}

/**
 * What is held open on a circuit, each once for each person. What was put back into use since, was closed by then; a tick or an
 * answer counts from the proof on that let those hands in.
 * @param but energizings that are left out: those that wait for this
 */
export function heldOpen(document: JobDocument, circuit: Circuit, but: readonly Energizing[] = []): Held[] {
  const left = new Set(but.map((e) => e.id));
  const uses = rows(document.energizings).filter((e) => e.purpose === 'use' && !left.has(e.id));
  const closings = rows(document.closings);
  const after = (rowsOf: readonly Recorded[], row: Recorded): boolean =>
    rowsOf.some((r) => isSurelyBefore(document, row, r));
  const found = new Map<string, Held>();
  const things = new Map<string, Thing>();
  // Many rows are of one box: what is in it, and beside it, is looked up once.
  const thingOf = (of: Closing['of']): Thing => {
    const key = `${of.in} ${of.id}`;
    const made = things.get(key) ?? thingAt(document, circuit, of, uses);
    things.set(key, made);
    return made;
  };
  const proofs = rows(document.proofs);
  for (const { row, of } of handsOn(document, circuit)) {
    const { same, used, name } = thingOf(of);
    if (after(used, row)) continue;
    // Tests are ticked with the power on, under no proof that still stands.
    const isTick = 'step' in row && 'done' in row;
    if (
      isTick &&
      !proofs.some((p) => same.includes(p.boxId) && !after(used, p) && !isSurelyBefore(document, row, p))
    )
      continue;
    const own = closings.filter(
      (c) =>
        c.of.in === of.in &&
        same.includes(c.of.id) &&
        nameKey(c.by) === nameKey(row.by) &&
        isSurelyBefore(document, row, c),
    );
    if (own.some((c) => c.left === 'closed')) continue;
    const key = `${of.in} ${same.toSorted().join()} ${nameKey(row.by)}`;
    const now: Held = { of, name, by: row.by, since: row.at, left: own.length > 0 ? 'clear' : 'open' };
    const known = found.get(key);
    if (!known || known.left === 'clear') found.set(key, now);
  }
  return [...found.values()];
}

const heldWords = ({ name, by }: Held, purpose: Energizing['purpose']): string =>
  purpose === 'measurement'
    ? `${by} holds ${name} open: ${by} says first that hands are out of it and its ends are capped, or that it is closed`
    : `${by} holds ${name} open: ${by} says first that it is closed`;

/** What keeps power, or the end of a lock, from being put on record. */
export function waitsFor(
  document: JobDocument,
  circuit: Circuit,
  { purpose, by }: Pick<Energizing, 'purpose' | 'by'>,
  but: readonly Energizing[] = [],
): Held[] {
  return heldOpen(document, circuit, but).filter((h) =>
    purpose === 'use' ? true : purpose === 'measurement' ? h.left === 'open' : nameKey(h.by) !== nameKey(by),
  );
}

/** How what is held open is left before power: closed for use; clear of hands, to be measured. */
export const leftFor = (purpose: Energizing['purpose']): Closing['left'] =>
  purpose === 'measurement' ? 'clear' : 'closed';

/**
 * Power back, or the lock off, on record; whoever is named first says what they hold open is closed, or clear of hands where it is
 * to be measured.
 * @param closing what is closed with it
 */
export function powerCommand(
  document: JobDocument,
  circuit: Circuit,
  purpose: Energizing['purpose'],
  { by, at }: Pick<Energizing, 'by' | 'at'>,
  closing: readonly Held[] = [],
): Command {
  const row: Energizing = { id: newId('energizing'), circuitId: circuit.id, at, by, purpose };
  const commands: Command[] = [
    ...closing.map((h) => closingCommand(document, h.of, leftFor(purpose), { by: h.by, at })),
    { type: 'put', table: 'energizings', rows: [row] },
  ];
  return commands.length === 1
    ? commands[0]!
    : { type: 'batch', label: `Power on ${circuit.name}`.slice(0, 80), commands };
}

/** Power comes back, and a lock comes off, only once each who holds something open there says that it is closed. */
export const heldGuard: Guard = (_before, after, changes) => {
  const coming = added<Energizing>(changes, 'energizings');
  return coming.flatMap((energizing): Problem[] => {
    const circuit = after.circuits[energizing.circuitId];
    return circuit
      ? waitsFor(after, circuit, energizing, coming).map((held) => ({
          path: `energizings[${energizing.id}]`,
          message: heldWords(held, energizing.purpose),
        }))
      : [];
  });
};

/** The lock of a circuit is on by what is on record: nothing says that it came off. */
export const isLocked = (document: JobDocument, circuit: Circuit): boolean =>
  rows(document.proofs).some(
    (p) =>
      p.lockedOut.includes(circuit.id) &&
      !p.basis.startsWith('earlier') &&
      !rows(document.energizings).some((e) => e.circuitId === circuit.id && isSurelyBefore(document, p, e)),
  );

/** Why a breaker is not to be flipped; null where nothing keeps it. */
export function whyNotFlipped(document: JobDocument, circuit: Circuit): string | null {
  const [held] = heldOpen(document, circuit);
  if (held) return `${circuit.name} is off for ${held.by}, who holds ${held.name} open`;
  return isLocked(document, circuit)
    ? `${circuit.name} is locked off: put on record first that its lock is off`
    : null;
}

/** A search flips nothing that is locked. */
export const flipGuard: Guard = (before, _after, changes) =>
  added<Flip>(changes, 'flips').flatMap(({ id, panelId, off, strikes }): Problem[] =>
    strikes === null
      ? off.flatMap((space) =>
          circuitsInSpace(before, panelId, space).flatMap((circuit) => {
            const why = whyNotFlipped(before, circuit);
            return why === null ? [] : [{ path: `flips[${id}].off`, message: `${space}: ${why}` }];
          }),
        )
      : [],
  );

/** Circuits that a call took hands to: of its boxes, and of the one that it is about. */
export function circuitsOfCall(document: JobDocument, call: Call): Circuit[] {
  const touched = standingRows(document.entries).flatMap((e) =>
    e.callId === call.id ? e.touches.flatMap((t) => (t.in === 'box' ? [t.id] : [])) : [],
  );
  const boxes = [...new Set(touched)].flatMap((id) => document.boxes[id] ?? []);
  const about = document.circuits[call.circuitId ?? ''];
  return [...new Set([...boxes.flatMap((box) => circuitsIn(document, box)), ...(about ? [about] : [])])];
}

/** What those who answered a call still hold open on its circuits. */
export function heldInCall(document: JobDocument, call: Call): Held[] {
  const people = new Set(
    rows(document.entries).flatMap((e) => (e.callId === call.id ? [nameKey(e.by)] : [])),
  );
  const held = circuitsOfCall(document, call).flatMap((circuit) => heldOpen(document, circuit));
  const own = held.filter((h) => people.has(nameKey(h.by)) && !isBefore(h.since, call.opened));
  return own.filter((h, k) => own.findIndex((o) => o.of.id === h.of.id && o.by === h.by) === k);
}

/** A call is not over while what it opened is open. */
export const callEndGuard: Guard = (before, _after, changes) =>
  added<Entry>(changes, 'entries').flatMap(({ id, callId, step, strikes }): Problem[] => {
    const call = step === 'record' && strikes === null ? before.calls[callId] : undefined;
    return call
      ? heldInCall(before, call).map((h) => ({
          path: `entries[${id}]`,
          message: `${h.by} holds ${h.name} open: it is closed before the call ends`,
        }))
      : [];
  });

/** Somebody closes what they hold open, or keeps out of it. @param at UTC time */
export const closingCommand = (
  document: JobDocument,
  of: Closing['of'],
  left: Closing['left'],
  { by, at }: Pick<Closing, 'by' | 'at'>,
): Command => ({
  type: 'put',
  table: 'closings',
  rows: [
    {
      id: newId('closing'),
      of: { ...of },
      place: (of.in === 'box' ? document.boxes[of.id]?.name : document.panels[of.id]?.name) ?? '',
      at,
      by,
      left,
    },
  ],
});
