/** Where a person left off in a job, on this device. */
import { PHASES } from './phases.ts';

const keyOf = (jobId: string): string => `hekto-at-${jobId}`;

export const rememberPlace = (jobId: string, path: string): void => localStorage.setItem(keyOf(jobId), path);

/** The address to go on at, with the name of its phase. */
export function lastPlace(jobId: string, first = 'walk'): { path: string; phase: string } {
  const kept = localStorage.getItem(keyOf(jobId)) ?? '';
  const path = kept.startsWith(`/job/${jobId}/`) ? kept : `/job/${jobId}/${first}`;
  const phase = PHASES.find((p) => path.split(/[/?]/)[3] === p.path) ?? PHASES[0];
  return { path, phase: phase.name };
}
