/** Faults on record in all jobs of this device. */
import { byTime } from '#core/units/time.ts';
import { standingRows } from '#core/job/document.ts';
import type { Box, FaultRecord } from '#core/job/schema.ts';
import { db } from './db.ts';
import { listJobs } from './list.ts';

export interface LoggedFault {
  fault: FaultRecord;
  job: string;
  jobId: string;
  box: string;
}

/** Newest first. */
export async function allFaults(): Promise<LoggedFault[]> {
  const found: LoggedFault[] = [];
  for (const { id: jobId, name, setAside } of await listJobs()) {
    if (setAside) continue;
    const rows = await db.entities.where('jobId').equals(jobId).toArray();
    const faults = rows
      .filter((r) => r.table === 'faults')
      .map((r) => [r.id, r.value as FaultRecord] as const);
    if (faults.length === 0) continue;
    const boxes = new Map(rows.filter((r) => r.table === 'boxes').map((r) => [r.id, r.value as Box]));
    for (const fault of standingRows(Object.fromEntries(faults)))
      found.push({ fault, job: name, jobId, box: boxes.get(fault.boxId ?? '')?.name ?? '' });
  }
  return found.sort((a, b) => byTime(b.fault.at, a.fault.at));
}
