/** Small jobs with a proof of dead in them, for tests. */
import { chain, house, outlet, PANEL } from '#core/job/testing.ts';
import type { Box, Circuit, Energizing, Job, JobDocument, Panel } from '#core/job/schema.ts';
import { proofGaps, type Draft, type Seen } from './acts.ts';
import { pointsIn } from './points.ts';
import { DEAD, draftFor, recorded, walk, withProof, type Reader } from './testing.ts';

export const NOON = '2026-05-06T17:00:00Z';
export const LATER = '2026-05-06T17:30:00Z';
export const ASKED: Job['otherSources'] = { asked: true, kinds: [] };

export interface Setup {
  boxes?: Partial<Box>[];
  circuit?: Partial<Circuit>;
  others?: Circuit[];
  job?: Partial<Job>;
  panel?: Partial<Panel>;
}
/** A chain of outlets, the first of which is proved. */
export function job({
  boxes = [{}],
  circuit = {},
  others = [],
  job = {},
  panel = {},
}: Setup = {}): JobDocument {
  const outlets = boxes.map((values, i) => outlet(`R${i + 1}`, 1, 20 + 40 * i, values));
  return house({
    boxes: outlets,
    circuits: [chain(outlets, { status: 'existing', ...circuit }), ...others],
    panels: [{ ...PANEL, ...panel }],
    job: { otherSources: ASKED, ...job },
  });
}
export const R1 = (document: JobDocument): Box => document.boxes['box-r1']!;
export const names = (document: JobDocument) => pointsIn(document, R1(document)).map((p) => p.name);
export const gaps = (document: JobDocument, draft: Partial<Draft> = {}, read: Reader = DEAD) => {
  const box = R1(document);
  const full = draftFor(document, box, draft);
  return proofGaps(document, box, full, walk(document, box, full, read));
};
/** @throws where the box is not proved by what is read in it */
export const proved = (document: JobDocument, draft: Partial<Draft> = {}, extra: Seen[] = []) => {
  const box = R1(document);
  const full = draftFor(document, box, draft);
  const made = recorded(document, box, full, [...walk(document, box, full), ...extra], { at: NOON });
  if (made.gaps.length > 0) throw new Error(made.gaps.join('; '));
  return withProof(document, made);
};
export const power = (circuitId: string, at: string, purpose: Energizing['purpose'] = 'use'): Energizing => ({
  id: `energizing-${at.replace(/\D/g, '')}`,
  circuitId,
  at,
  by: 'M. Alder',
  purpose,
});
export const withPower = (document: JobDocument, ...list: Energizing[]): JobDocument => ({
  ...document,
  energizings: { ...document.energizings, ...Object.fromEntries(list.map((e) => [e.id, e])) },
});
