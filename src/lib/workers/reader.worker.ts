/** Reads files that somebody brings, apart from the page: what takes too long is ended with its worker. */
import { expose } from 'comlink';
import { readDxf, type DxfDrawing } from '#core/formats/dxf.ts';
import { parseFile } from '#core/job/file.ts';
import type { Problem } from '#core/job/integrity.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';

export type Outcome<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** Refusals go over as data: an error would arrive without its problems. */
function outcome<T>(read: () => T): Outcome<T> {
  try {
    return { ok: true, value: read() };
  } catch (error) {
    if (error instanceof InvalidError) return { ok: false, problems: error.problems };
    throw error;
  }
}

const reader = {
  job: (text: string): Outcome<JobDocument> => outcome(() => parseFile(text)),
  dxf: (text: string): Outcome<DxfDrawing> => outcome(() => readDxf(text)),
};
export type Reader = typeof reader;
expose(reader);
