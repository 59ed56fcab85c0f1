/** Proofs of dead made act by act, as a person makes them: for tests and for the demo. */
import type { Box, Instrument, JobDocument, Observation, Proof } from '#core/job/schema.ts';
import { panelsOf } from './neutrals.ts';
import { circuitsIn, pointsIn } from './points.ts';
import {
  actsOf,
  blankDraft,
  proofGaps,
  rowsOf,
  showsBoxLive,
  type Act,
  type Draft,
  type Seen,
} from './acts.ts';

interface Read {
  value: number;
  instrument?: Instrument;
  quantity?: Seen['quantity'];
}
/** What an instrument shows at an act; null when that act cannot be made. */
export type Reader = (act: Act & { reads: NonNullable<Act['reads']> }) => Read | null;

/** A tester in a box that is dead. */
export const DEAD: Reader = ({ reads }) => ({ value: reads.live ? 120 : 0 });

export const draftFor = (document: JobDocument, box: Box, values: Partial<Draft> = {}): Draft => ({
  ...blankDraft(box.id, 'M. Alder'),
  lockedOut: circuitsIn(document, box).map((c) => c.id),
  sourcesOff: document.job.otherSources.kinds,
  others: 'none',
  feeds: 'went-dead',
  ...values,
});

/** Walks through the acts of a proof once, in their order. */
export function walk(document: JobDocument, box: Box, draft: Draft, read: Reader = DEAD): Seen[] {
  const ids = circuitsIn(document, box).map((c) => c.id);
  const seen: Seen[] = [];
  const tried = new Set<string>();
  for (;;) {
    const act = actsOf(document, box, draft, seen).find(
      (a): a is Act & { reads: NonNullable<Act['reads']> } =>
        a.reads !== null && !a.done && !tried.has(a.key),
    );
    if (!act) return seen;
    tried.add(act.key);
    const shown = read(act);
    if (!shown) continue;
    const { node, nodeName, to, toName, live } = act.reads;
    seen.push({
      node,
      nodeName,
      to,
      toName,
      quantity: shown.quantity ?? 'volts',
      value: shown.value,
      instrument: shown.instrument ?? 'two-pole tester',
      on: act.kind === 'live' && showsBoxLive(draft) ? ids : [],
      off: live ? [] : ids,
    });
  }
}

/** A clamp around every neutral of a box, with a load on all else of its panels. */
export const clamped = (document: JobDocument, box: Box, amps = 0): Seen[] =>
  pointsIn(document, box)
    .filter((p) => p.role === 'neutral')
    .map((p) => ({
      node: p.key,
      nodeName: p.name,
      to: null,
      toName: '',
      quantity: 'amps',
      value: amps,
      instrument: 'clamp meter',
      on: panelsOf(document, box).map((p) => p.id),
      off: [],
    }));

/** A proof with its observations as rows, whether it has gaps or not. */
export function recorded(
  document: JobDocument,
  box: Box,
  draft: Draft,
  seen: readonly Seen[],
  { id = 'proof-1', at = new Date().toISOString() } = {},
): { proof: Proof; observations: Observation[]; gaps: string[] } {
  const place = `${box.name}, ${document.areas[box.areaId]?.name ?? ''}`;
  let count = 0;
  const timed = seen.map((s) => ({ ...s, at }));
  const idOf = (prefix: string) => (prefix === 'proof' ? id : `observation-${id}-${++count}`);
  return {
    ...rowsOf(draft, timed, { place, at }, idOf),
    gaps: proofGaps(document, box, draft, seen),
  };
}

/** The document with such a proof on record. */
export function withProof(document: JobDocument, made: ReturnType<typeof recorded>): JobDocument {
  const observations = Object.fromEntries(made.observations.map((o) => [o.id, o]));
  return {
    ...document,
    observations: { ...document.observations, ...observations },
    proofs: { ...document.proofs, [made.proof.id]: made.proof },
  };
}

/** A job in which a box was proved dead a moment ago. */
export function provedToday(document: JobDocument, boxId: string): JobDocument {
  const box = document.boxes[boxId]!;
  const draft = draftFor(document, box);
  const at = new Date(Date.now() - 1000).toISOString();
  return withProof(
    document,
    recorded(document, box, draft, walk(document, box, draft), { id: 'proof-today', at }),
  );
}
