/** Files in and out of the browser. */
import { MAX_FILE_BYTES, serialize } from '#core/job/file.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { asideFile } from './store/list.ts';
import { readApart } from './workers/reader.ts';

export function download(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** A file name from a job's name: letters, digits and dashes. */
export const fileName = (job: JobDocument['job'], end: string): string =>
  `${
    job.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'job'
  }${end}`;

export const downloadJob = (document: JobDocument): void =>
  download(fileName(document.job, '.json'), 'application/json', serialize(document));

/** A job that could not be brought up to date, as the file that its version would have made. */
export const downloadAside = async (jobId: string): Promise<void> =>
  download(`${jobId}.json`, 'application/json', await asideFile(jobId));

/** Reads a picked file's text; its size is looked at before anything is read. @throws InvalidError */
export async function readText(file: File): Promise<string> {
  if (file.size > MAX_FILE_BYTES) {
    const size = Math.round(file.size / 1024 / 1024);
    throw new InvalidError([
      { path: 'file', message: `is ${size} MB; expected ${MAX_FILE_BYTES / 1024 / 1024} MB or less` },
    ]);
  }
  return file.text();
}

/**
 * Reads a job file, apart from the page.
 * @param stop ends it
 * @throws InvalidError
 * @public loaded once a file is picked
 */
export const readJob = async (file: File, stop?: AbortSignal): Promise<JobDocument> =>
  readApart('job', await readText(file), stop);
