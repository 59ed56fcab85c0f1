/**
 * Proof of dead: a set of observations that satisfies a rule over the box, by what is on record now. It ends when power or a
 * lock says so, or the day is over; the neutrals of a proved box have a gate of their own.
 */
import { isAfter, isSameDay } from '#core/units/time.ts';
import { circuitOf, rows, standingRows } from '#core/job/document.ts';
import { BEFORE_STAMPS } from '#core/job/migrations.ts';
import {
  headsOf,
  inOrder,
  order,
  rowsAbove,
  surelyBefore,
  type Order,
  type Recorded,
} from '#core/job/order.ts';
import type { Box, Circuit, Energizing, JobDocument, Observation, Proof } from '#core/job/schema.ts';
import { lockOutFor, proofGaps, seriesOf } from './acts.ts';
import { alterationSince, type BesideStart } from './alterations.ts';
import { circuitsInSpace, signsOfLife, type Sign } from './life.ts';
import { circuitsIn, enclosureOf, pointsIn } from './points.ts';

/** Observations that a proof is made of, in the order in which they went on record. */
export function seenFor(document: JobDocument, proof: Pick<Proof, 'observations'>): Observation[] {
  const seen = proof.observations.flatMap((id) => document.observations[id] ?? []);
  return seen.every((o) => o.stamp) ? seen.sort(inOrder) : seen;
}

/** What keeps a proof from showing that its box is dead, by what is on record now. */
export function gapsOf(
  document: JobDocument,
  proof: Proof,
  leftOut: Parameters<typeof proofGaps>[4] = [],
): string[] {
  const box = document.boxes[proof.boxId];
  if (!box) return ['Its box is no longer in the job'];
  const seen = seenFor(document, proof);
  const heads = headsOf(document);
  if (proof.had?.some(({ device, n }) => n > (heads.get(device) ?? 0)))
    return ['It says it had seen what nobody has written'];
  const foreign = seen.some(
    (o) =>
      o.boxId !== proof.boxId || !isSameDay(o.at, proof.at, document.job.zone) || isAfter(o.at, proof.at),
  );
  return foreign || seen.length < proof.observations.length
    ? ['Its observations are not of this box and this day']
    : proofGaps(document, box, proof, seen, leftOut);
}

/** How far the clocks of two devices may differ, milliseconds. */
const CLOCKS = 5 * 60 * 1000;

/** Circuits that a proof speaks of: those that were locked for it, and those that are in its box now. */
function circuitsFor(document: JobDocument, proof: Proof): ReadonlySet<string> {
  const box = document.boxes[proof.boxId];
  return new Set([...proof.lockedOut, ...(box ? circuitsIn(document, box).map((c) => c.id) : [])]);
}

/** What came before, and after, the first reading of a proof with the locks on, of those that count. */
function besideStart(document: JobDocument, proof: Proof): BesideStart {
  const start: Recorded =
    seriesOf(seenFor(document, proof), circuitsFor(document, proof)).find((o) => o.off.length > 0) ?? proof;
  const had = proof.had && new Map(proof.had.map((h) => [h.device, h.n]));
  const own = new Set(proof.observations);
  const came = (row: Recorded): Order => {
    const at = order(document, row, start);
    const { stamp } = row;
    // It went on record while the proof was made.
    const between = had !== null && stamp !== undefined && stamp.n > (had.get(stamp.device) ?? 0);
    return at === 'before' && between ? 'after' : at;
  };
  const before = surelyBefore(document, start);
  const floor = (device: string) =>
    Math.min(before(device), had === null ? Infinity : (had.get(device) ?? 0));
  return {
    came,
    since: (table) => rowsAbove(table, floor).filter((row) => !own.has(row.id) && came(row) !== 'before'),
  };
}

/** The outlets in the box of a proof. */
function outletsFor(document: JobDocument, { boxId }: Proof): ReadonlySet<string> {
  const box = document.boxes[boxId];
  return new Set(box ? enclosureOf(document, box).map((b) => b.id) : [boxId]);
}

/** What showed the box of a proof live, or a circuit that was locked for it, and did not surely come before it. */
function signOfLife(document: JobDocument, proof: Proof, beside: BesideStart): Sign | null {
  const boxes = outletsFor(document, proof);
  const circuits = circuitsFor(document, proof);
  for (const sign of signsOfLife(document, beside.since))
    if ((sign.boxId !== null && boxes.has(sign.boxId)) || sign.circuitIds.some((id) => circuits.has(id)))
      return sign;
  return null;
}

/** There are conductors in a box of which nobody knows the breaker. */
export const hasUnknown = (document: JobDocument, { boxId, others }: Proof): boolean => {
  const box = document.boxes[boxId];
  return (
    others === 'read' || (box !== undefined && pointsIn(document, box).some((p) => p.circuitId === null))
  );
};

/**
 * A circuit whose power, or flip, since the first lock may have reached a box though it is not known to be in it: its panel feeds
 * the box, and there are conductors of unknown breakers in it, or the main was off for it.
 */
function reachedSince(
  document: JobDocument,
  proof: Proof,
  beside: BesideStart,
  own: ReadonlySet<string>,
): string | null {
  const panels = new Set([...own].flatMap((id) => document.circuits[id]?.panelId ?? []));
  const came = [
    ...beside
      .since(document.energizings)
      .flatMap((e) => (e.purpose === 'lock-removed' ? [] : (document.circuits[e.circuitId] ?? []))),
    ...beside
      .since(document.flips)
      .flatMap((f) => f.off.flatMap((space) => circuitsInSpace(document, f.panelId, space))),
  ].find((c) => proof.mainOff || panels.has(c.panelId));
  return came && (proof.mainOff || hasUnknown(document, proof)) ? came.name : null;
}

/** What speaks against a home run that is said not to be landed: hands in its panel since. */
function whyLanded(document: JobDocument, proof: Proof, beside: BesideStart): string | null {
  const circuit = circuitOf(document, proof.boxId);
  if (!circuit) return null;
  const opened = beside
    .since(document.entries)
    .some((e) => e.touches.some((t) => t.in === 'panel' && t.id === circuit.panelId));
  return opened
    ? `Hands were in ${document.panels[circuit.panelId]?.name ?? 'the panel'} since: look again whether the home run is landed`
    : null;
}

/**
 * Why a proof of a box no longer holds, or never did; null when it holds. Only a proof opens: whatever else is on record, or
 * comes to be, can only end one. What did not surely come before the first lock counts as after it.
 * @param now UTC time
 */
export function whyEnded(document: JobDocument, proof: Proof, now: string): string | null {
  if (proof.basis === 'earlier-proof' || proof.basis === 'earlier-override')
    return 'It was recorded in an earlier form, which a live second pole passes; prove it again';
  if (proof.stamp?.device === BEFORE_STAMPS)
    return 'It was recorded by an earlier build, which did not know what came first; prove it again';
  if (!isSameDay(proof.at, now, document.job.zone))
    return 'It is of another day: locks may have come off overnight';
  if (Date.parse(proof.at) > Date.parse(now) + CLOCKS) return 'Its time lies ahead of this clock';
  const beside = besideStart(document, proof);
  const ids = circuitsFor(document, proof);
  const since = beside
    .since(document.energizings)
    .filter((e) => ids.has(e.circuitId))
    .sort(inOrder)[0];
  if (since) {
    const name = document.circuits[since.circuitId]?.name ?? 'a circuit of this box';
    return since.purpose === 'lock-removed'
      ? `The lock came off ${name} since`
      : `Power came back on ${name} since`;
  }
  const reached = reachedSince(document, proof, beside, ids);
  if (reached !== null)
    return `Power came on ${reached} since, and may feed what is in this box and on no circuit that is known`;
  const sign = signOfLife(document, proof, beside);
  if (sign) return `Since the first lock something was live. ${sign.words}. Find it, then prove it again`;
  const landed = proof.basis === 'not-landed' ? whyLanded(document, proof, beside) : null;
  if (landed !== null) return landed;
  const altered = alterationSince(document, proof, beside, {
    job: new Set([document.job.id]),
    boxes: outletsFor(document, proof),
    circuits: ids,
    panels: new Set([...ids].flatMap((id) => document.circuits[id]?.panelId ?? [])),
  });
  if (altered) return `What is on record of ${altered} was changed since: prove it again`;
  // The face that was read may hang on the wall no more: another device takes its place under this proof.
  const [gap] = gapsOf(document, proof, ['face']);
  return gap ?? null;
}

/** Whether a proof holds. @param now UTC time */
export const holds = (document: JobDocument, proof: Proof, now: string): boolean =>
  whyEnded(document, proof, now) === null;

/** The proof that holds for a box now, its own or of an outlet in the same box. @param now UTC time */
export function validProof(document: JobDocument, box: Box, now: string): Proof | null {
  return proofsOf(document, box).find((p) => holds(document, p, now)) ?? null;
}

/** The proof of another box under whose lock-out this one may be proved now. */
export const standingLockOut = (
  document: JobDocument,
  box: Box,
  now = new Date().toISOString(),
): Proof | null => {
  const proof = lockOutFor(document, box);
  return proof && holds(document, proof, now) ? proof : null;
};

/** Proofs of a box, newest first. */
function proofsOf(document: JobDocument, box: Box): Proof[] {
  const boxes = new Set(enclosureOf(document, box).map((b) => b.id));
  return rows(document.proofs)
    .filter((p) => boxes.has(p.boxId))
    .sort((a, b) => inOrder(b, a));
}

/** Why no proof holds for a box. */
export function whyUnproved(document: JobDocument, box: Box, now: string): string {
  const [newest] = proofsOf(document, box);
  return (newest && whyEnded(document, newest, now)) ?? 'No proof of dead for this box is on record';
}

/** What was last put on record of a circuit’s power before a moment, or null. */
export const lastPower = (document: JobDocument, circuitId: string, at?: string): Energizing | null =>
  rows(document.energizings)
    .filter((e) => e.circuitId === circuitId && (at === undefined || !isAfter(e.at, at)))
    .sort(inOrder)
    .at(-1) ?? null;

/**
 * `unproved`: nothing on record that holds. `dead`: a proof holds somewhere on the circuit. `energized`: power came back
 * after every proof. `measuring`: it came back to measure at an open box, and nothing was proved dead since.
 */
export type CircuitState = 'unproved' | 'dead' | 'energized' | 'measuring';

/** Whether a proof is of a circuit: its breaker was opened for it, or its home run is in the box and not landed. */
const isOf = (document: JobDocument, { boxId, basis, lockedOut }: Proof, circuit: Circuit): boolean => {
  const box = basis === 'not-landed' ? document.boxes[boxId] : undefined;
  return lockedOut.includes(circuit.id) || (box !== undefined && circuitsIn(document, box).includes(circuit));
};

const proofsOn = (document: JobDocument, circuit: Circuit, at: string): Proof[] =>
  rows(document.proofs).filter((p) => !isAfter(p.at, at) && isOf(document, p, circuit));

const newestProof = (document: JobDocument, circuit: Circuit, at: string): Proof | null =>
  proofsOn(document, circuit, at).sort(inOrder).at(-1) ?? null;

/** The end of time, for what holds by all that is on record. */
const EVER = '9999-12-31T23:59:59Z';

/** What was last put on record of a circuit’s power, where no proof surely came after it. */
function powerSinceProof(document: JobDocument, circuit: Circuit, at: string): Energizing | null {
  const power = lastPower(document, circuit.id, at);
  const proof = newestProof(document, circuit, at);
  return power && (proof === null || order(document, power, proof) !== 'before') ? power : null;
}

/** Whether the last that is on record of a circuit is power put back for use. */
export const isEnergized = (document: JobDocument, circuit: Circuit, at = EVER): boolean =>
  powerSinceProof(document, circuit, at)?.purpose === 'use';

/** Whether a circuit’s breaker was said to be off at a moment: opened for a proof, and not on since. @param at UTC time */
export function isSaidOff(document: JobDocument, circuit: Circuit, at: string): boolean {
  const power = powerSinceProof(document, circuit, at);
  return power ? power.purpose === 'lock-removed' : newestProof(document, circuit, at) !== null;
}

/** Whether a circuit is off by all that is on record: its breaker said to be, and nothing of it found live since. */
export function isOff(document: JobDocument, circuit: Circuit, at: string): boolean {
  const proof = newestProof(document, circuit, at);
  return (
    isSaidOff(document, circuit, at) &&
    (proof === null || signOfLife(document, proof, besideStart(document, proof)) === null)
  );
}

/** How a circuit stands at a moment, by what is on record until then. @param at UTC time */
export function circuitState(document: JobDocument, circuit: Circuit, at: string): CircuitState {
  const power = powerSinceProof(document, circuit, at);
  if (power?.purpose === 'use') return 'energized';
  if (power?.purpose === 'measurement') return 'measuring';
  return proofsOn(document, circuit, at).some((p) => holds(document, p, at)) ? 'dead' : 'unproved';
}

/** Readings of a box, oldest first, each with whether a later one replaced it. */
export function readingsOf(
  document: JobDocument,
  boxId: string,
): { reading: JobDocument['readings'][string]; past: Past | null }[] {
  const past = pastReadings(document);
  return rows(document.readings)
    .filter((r) => r.boxId === boxId)
    .sort(inOrder)
    .map((reading) => ({ reading, past: past.get(reading.id) ?? null }));
}

/** Why a reading no longer holds. */
export type Past = 'corrected' | 'mended since' | 'taken back';

/**
 * Readings that a later one corrects, whose fault was mended since, or whose answer was taken back, by their ids. They stay on
 * record, struck through.
 */
export function pastReadings(document: JobDocument): ReadonlyMap<string, Past> {
  const struck = new Set(rows(document.entries).flatMap((e) => e.strikes ?? []));
  return new Map<string, Past>([
    ...standingRows(document.faults).flatMap(({ voids }) => voids.map((id) => [id, 'mended since'] as const)),
    ...rows(document.readings).flatMap(({ corrects }) =>
      corrects === null ? [] : [[corrects, 'corrected'] as const],
    ),
    ...rows(document.readings).flatMap(({ id, from }) =>
      from !== null && struck.has(from) ? [[id, 'taken back'] as const] : [],
    ),
  ]);
}
