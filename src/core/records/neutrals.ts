/**
 * The neutrals of a proved box. One that another circuit uses reads nothing while it is joined, and has 120 V on it once it is
 * parted: so each circuit that may share it is off, or runs a load while the clamp shows none here, until power on any of them.
 */
import type { Guard } from '#core/job/commands.ts';
import { added, rows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { inOrder, isSurelyBefore, rowsSince } from '#core/job/order.ts';
import type { Box, Circuit, Entry, JobDocument, Observation, Panel, Proof } from '#core/job/schema.ts';
import { circuitsInSpace } from './life.ts';
import { circuitsIn, pointsIn, type Point } from './points.ts';
import { isOff, validProof } from './proof.ts';
import { mainKills } from './sources.ts';
import { NO_AMPS } from './thresholds.ts';

export interface ShutNeutral {
  point: Point;
  why: string;
}

/** Currents that were read in a proved box, those since its proof among them. */
const clampsOf = (document: JobDocument, proof: Proof): Observation[] =>
  rows(document.observations).filter(
    (o) =>
      o.quantity === 'amps' &&
      o.boxId === proof.boxId &&
      (proof.observations.includes(o.id) || !isSurelyBefore(document, o, proof)),
  );

/** Panels that feed the circuits of a box. */
export const panelsOf = (document: JobDocument, box: Box): Panel[] => {
  const ids = new Set(circuitsIn(document, box).map((c) => c.panelId));
  return [...ids].flatMap((id) => document.panels[id] ?? []);
};

/** Circuits that may use a neutral of a box besides its own: those of its panels that are there and have one. */
export function mayShare(document: JobDocument, box: Box): Circuit[] {
  const own = new Set(circuitsIn(document, box).map((c) => c.id));
  const panels = new Set(panelsOf(document, box).map((p) => p.id));
  const used = new Set(rows(document.energizings).map((e) => e.circuitId));
  return rows(document.circuits).filter(
    (c) => !own.has(c.id) && panels.has(c.panelId) && c.neutral && (c.status !== 'new' || used.has(c.id)),
  );
}

/** What a clamp that shows nothing leaves open: circuits, and what a panel may feed besides, that ran no load meanwhile. */
function idleAt(document: JobDocument, box: Box, clamp: Observation): string[] {
  const on = new Set(clamp.on);
  return [
    ...mayShare(document, box)
      .filter((c) => !on.has(c.id) && !on.has(c.panelId) && !isOff(document, c, clamp.at))
      .map((c) => c.name),
    ...panelsOf(document, box)
      .filter((p) => p.known !== 'yes' && !on.has(p.id))
      .map((p) => `whatever else ${p.name} feeds`),
  ];
}

/** Whether power moved on a circuit that may share, since a clamp showed nothing. */
function movedSince(document: JobDocument, box: Box, clamp: Observation): string | null {
  const others = new Map(mayShare(document, box).map((c) => [c.id, c]));
  const power = rowsSince(document, document.energizings, clamp).find(
    (e) => others.has(e.circuitId) && e.purpose !== 'lock-removed',
  );
  if (power) return others.get(power.circuitId)!.name;
  for (const flip of rowsSince(document, document.flips, clamp))
    for (const space of flip.off)
      for (const circuit of circuitsInSpace(document, flip.panelId, space))
        if (others.has(circuit.id)) return circuit.name;
  return null;
}

/** Nobody else’s work is anywhere on the circuits of a box: none can use their neutrals. */
function isAllOurs(document: JobDocument, box: Box, { basis, lockedOut }: Proof): boolean {
  const circuits = circuitsIn(document, box);
  const isNew = (c: Circuit) =>
    c.status === 'new' && c.stops.every((s) => document.boxes[s.boxId]?.status === 'new');
  return (
    circuits.length > 0 &&
    circuits.every(
      (c) =>
        isNew(c) &&
        (lockedOut.includes(c.id) || basis === 'not-landed') &&
        c.stops.every((s) => {
          const at = document.boxes[s.boxId];
          return !at || circuitsIn(document, at).every(isNew);
        }),
    )
  );
}

const listed = (names: readonly string[]): string =>
  names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');

/** Why a neutral of a proved box may not be parted yet; null when it may. */
export function whyNotParted(document: JobDocument, proof: Proof, neutral: Point): string | null {
  const box = document.boxes[proof.boxId];
  if (!box) return 'Its box is no longer in the job';
  const clamps = clampsOf(document, proof).filter((o) => o.node === neutral.key);
  const flows = clamps.filter((o) => o.value >= NO_AMPS);
  const none = clamps
    .filter((o) => o.value < NO_AMPS && flows.every((f) => isSurelyBefore(document, f, o)))
    .sort(inOrder)
    .at(-1);
  const flowing = flows.sort(inOrder).at(-1);
  if (!none && flowing)
    return `${flowing.value} A flows in it: another circuit uses it. Find that circuit and open it before this is parted`;
  if (proof.mainOff && panelsOf(document, box).every((p) => mainKills(document, p))) return null;
  if (isAllOurs(document, box, proof)) return null;
  if (!none)
    return 'Clamp it: 0.00 A, with a load on each circuit that may share it, shows that none uses it. Or lock the main off, where one main opens all and no other source is in the house';
  const moved = movedSince(document, box, none);
  if (moved !== null) return `Power came on ${moved} since it was clamped: clamp it again`;
  const idle = idleAt(document, box, none);
  return idle.length === 0
    ? null
    : `0.00 A shows nothing of what ran no load: ${listed(idle)}. Put a load on each, or its breaker off, and clamp it again`;
}

/** Whether a clamp around each neutral of a proved box showed nothing while a circuit ran a load: it does not use them. */
export function isShownApart(document: JobDocument, box: Box, proof: Proof, circuit: Circuit): boolean {
  const none = clampsOf(document, proof).filter(
    (o) => o.value < NO_AMPS && (o.on.includes(circuit.id) || o.on.includes(circuit.panelId)),
  );
  return (
    isAllOurs(document, box, proof) ||
    pointsIn(document, box).every((p) => p.role !== 'neutral' || none.some((o) => o.node === p.key))
  );
}

/** Neutrals of a box that may not be parted yet, and why. */
export const shutNeutrals = (document: JobDocument, box: Box, proof: Proof): ShutNeutral[] =>
  pointsIn(document, box).flatMap((point) => {
    const why = point.role === 'neutral' ? whyNotParted(document, proof, point) : null;
    return why === null ? [] : [{ point, why }];
  });

/** Which of them holds the work back, and why, in words; null where none does. */
export const neutralWords = ([first]: readonly ShutNeutral[]): string | null =>
  first ? `${first.point.name}: ${first.why}` : null;

/** Why no neutral of a box may be parted now; null when all may. @param now UTC time */
export function whyNeutralsShut(document: JobDocument, box: Box, now: string): string | null {
  const proof = validProof(document, box, now);
  return proof && neutralWords(shutNeutrals(document, box, proof));
}

/** An answer that parts a neutral stands on its gate; the proof of the box is asked for besides. */
export const neutralGuard: Guard = (before, _after, changes, now) =>
  added<Entry>(changes, 'entries').flatMap(({ id, touches, strikes, at }): Problem[] =>
    touches.flatMap((t): Problem[] => {
      const box = t.in === 'neutral' && strikes === null ? before.boxes[t.id] : undefined;
      const why = box ? whyNeutralsShut(before, box, now ?? at) : null;
      return why === null ? [] : [{ path: `entries[${id}]`, message: why }];
    }),
  );
