import { expose } from 'comlink';
import { Checker } from '../../core/code/checker.ts';
import type { Finding } from '../../core/code/rule.ts';
import type { Change } from '../../core/job/document.ts';
import type { JobDocument } from '../../core/job/schema.ts';

let checker: Checker | null = null;

/** Keeps its own copy of the job: given whole once, then fed changes. */
const findings = {
  load(document: JobDocument): Finding[] {
    checker = new Checker(document);
    return checker.findings();
  },
  apply(changes: Change[]): Finding[] {
    checker?.apply(changes);
    return checker?.findings() ?? [];
  },
};

export type FindingsWorker = typeof findings;
expose(findings);
