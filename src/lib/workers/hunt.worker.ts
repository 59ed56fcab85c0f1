import { expose } from 'comlink';
import type { CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { contextOf } from '#core/procedures/engine.ts';
import { Adviser, type Advised } from '#core/procedures/hunting/advise.ts';
import { View } from '#core/view/view.ts';

const adviser = new Adviser();

/** Keeps what it worked out for a circuit between two questions. */
const hunt = {
  /** @param found faults found before, by kind, in all jobs; @returns null where there is no circuit to hunt on */
  advise(document: JobDocument, callId: string, now: string, found: [CauseKind, number][]): Advised | null {
    const call = document.calls[callId];
    if (!call) return null;
    const context = contextOf(new View(document), call, now);
    return context.circuit && adviser.advise(context, context.circuit, new Map(found));
  },
};

export type HuntWorker = typeof hunt;
expose(hunt);
