/** Proof of dead: what makes one complete, and when it is void. */
import { rows } from '../job/document.ts';
import { PAIR_WORDS, READ_PAIRS, type ReadPair } from './conditions.ts';
import type { Circuit, Energizing, JobDocument, Override, Proof, Reading } from '../job/schema.ts';

/** Stray volts up to this are taken as dead. */
export const DEAD_VOLTS = 1;
/** Least volts on a source that proves the tester. */
export const LIVE_VOLTS = 100;

type Draft = Omit<Proof, 'id' | 'at' | 'circuitId' | 'boxId' | 'place'>;

/** Pairs of conductors that a circuit has, each to be read dead. */
export const deadPairs = ({ breaker, neutral }: Pick<Circuit, 'breaker' | 'neutral'>): ReadPair[] =>
  READ_PAIRS.filter(
    (pair) =>
      (pair !== 'hotHot' || breaker.poles === 2) &&
      (neutral || (pair !== 'hotNeutral' && pair !== 'neutralGround')),
  );

/**
 * What is still missing or wrong, in the order of the work; empty when the proof stands.
 * @param pairs that must be read
 */
export function proofGaps(
  draft: Draft,
  pairs: readonly ReadPair[] = ['hotNeutral', 'hotGround', 'neutralGround'],
): string[] {
  const gaps: string[] = [];
  const live = (volts: number | null, what: string) => {
    if (volts === null || volts < LIVE_VOLTS) gaps.push(`${what}: expected ${LIVE_VOLTS} V or more`);
  };
  if (draft.by.trim() === '') gaps.push('Who proves it: expected a name');
  live(draft.liveBefore, 'Live at this outlet before the breaker was opened');
  if (!draft.lockedOut) gaps.push('Breaker off, locked or taped, note on the panel');
  live(draft.knownLiveBefore, 'Tester on a known live source, before');
  for (const [place, words] of [
    ['face', 'at the face'],
    ['screws', 'at the screws and every conductor'],
  ] as const) {
    for (const pair of pairs) {
      const name = PAIR_WORDS[pair].toLowerCase();
      const volts = draft[place][pair];
      if (volts === null) gaps.push(`${name} ${words}: expected a reading`);
      else if (volts > DEAD_VOLTS) {
        gaps.push(
          `${name} ${words}: ${volts} V is not dead; expected ${DEAD_VOLTS} V or less. Tens of volts on an open conductor may be a ghost: read again at low impedance`,
        );
      }
    }
  }
  live(draft.knownLiveAfter, 'Tester on the known live source again, after');
  return gaps;
}

/** The proof that holds for a box now: the newest one there since the circuit was last energized. */
export const validProof = (document: JobDocument, circuitId: string, boxId: string): Proof | null =>
  newestSincePower(document, rows(document.proofs), circuitId, boxId);

/** An override that opens a box now: its reason holds until power comes back, as a proof would. */
export const validOverride = (document: JobDocument, circuitId: string, boxId: string): Override | null =>
  newestSincePower(document, rows(document.overrides), circuitId, boxId);

function newestSincePower<T extends Proof | Override>(
  document: JobDocument,
  list: readonly T[],
  circuitId: string,
  boxId: string,
): T | null {
  const energized = lastEnergized(document, circuitId)?.at ?? null;
  return (
    list
      .filter(
        (r) => r.circuitId === circuitId && r.boxId === boxId && (energized === null || r.at > energized),
      )
      .sort((a, b) => b.at.localeCompare(a.at))[0] ?? null
  );
}

/** When power last came back and what for, or null. */
export function lastEnergized(document: JobDocument, circuitId: string): Energizing | null {
  return rows(document.energizings)
    .filter((e) => e.circuitId === circuitId)
    .reduce<Energizing | null>((last, e) => (last === null || e.at > last.at ? e : last), null);
}

/**
 * `unproved`: nothing on record. `dead`: a proof holds somewhere on the circuit. `energized`: power came back
 * after every proof. `measuring`: it came back to measure at an open box, and nothing was proved dead since.
 */
export type CircuitState = 'unproved' | 'dead' | 'energized' | 'measuring';

export function circuitState(document: JobDocument, circuit: Circuit): CircuitState {
  const energized = lastEnergized(document, circuit.id);
  const proofs = rows(document.proofs).filter((p) => p.circuitId === circuit.id);
  if (proofs.some((p) => energized === null || p.at > energized.at)) return 'dead';
  if (energized === null) return 'unproved';
  return energized.purpose === 'measurement' ? 'measuring' : 'energized';
}

/** Readings of a box, oldest first, each with whether a later one replaced it. */
export function readingsOf(document: JobDocument, boxId: string): { reading: Reading; struck: boolean }[] {
  const struck = struckReadings(document);
  return rows(document.readings)
    .filter((r) => r.boxId === boxId)
    .sort((a, b) => a.at.localeCompare(b.at))
    .map((reading) => ({ reading, struck: struck.has(reading.id) }));
}

/** Ids of readings that a later one corrects. They stay on record, struck through. */
export const struckReadings = (document: JobDocument): Set<string> =>
  new Set(rows(document.readings).flatMap((r) => r.corrects ?? []));
