import { expose } from 'comlink';
import type { FindingsChange } from '#core/code/board.ts';
import { Checker } from '#core/code/checker.ts';
import type { Change } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';

let checker: Checker | null = null;

/** Keeps its own copy of the job: given whole once, then fed changes. Answers with what they alter. */
const findings = {
  load(document: JobDocument): FindingsChange {
    checker = new Checker(document);
    return checker.whole();
  },
  apply(changes: Change[]): FindingsChange {
    if (!checker) throw new Error('no job to change');
    return checker.apply(changes);
  },
};

export type FindingsWorker = typeof findings;
expose(findings);
