/** Faults on record as CSV. Columns are documented in docs/formats.md. */
import type { FaultRecord } from '#core/job/schema.ts';
import { neutralise, toCsv } from './csv.ts';

const COLUMNS = [
  ...(['id', 'job', 'box', 'place', 'cause', 'time_utc', 'by', 'found', 'evidence', 'fix', 'parts'] as const),
  ...(['retest', 'minutes', 'age_years', 'make_up', 'before', 'after', 'voids'] as const),
] as const;

/** Parts the entries of a list. */
const BETWEEN = ' | ';

export function faultsToCsv(faults: readonly { fault: FaultRecord; job: string; box: string }[]): string {
  const cell = (value: string | number | null) => (value === null ? '' : neutralise(String(value)));
  return toCsv(
    COLUMNS,
    faults.map(({ fault: f, job, box }) => ({
      id: f.id,
      job: cell(job),
      box: cell(box),
      place: f.place,
      cause: cell(f.cause),
      time_utc: f.at,
      by: cell(f.by),
      found: cell(f.found),
      evidence: cell(f.evidence.replaceAll('\n', BETWEEN)),
      fix: cell(f.fix),
      parts: cell(f.parts),
      retest: f.retest,
      minutes: cell(f.minutes),
      age_years: cell(f.age),
      make_up: cell(f.makeUp),
      before: f.before.join(BETWEEN),
      after: f.after.join(BETWEEN),
      voids: f.voids.join(BETWEEN),
    })),
  );
}
