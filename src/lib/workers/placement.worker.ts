import { expose } from 'comlink';
import { View } from '#core/view/view.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { placeMissing, type HousePlan } from '#core/layout/placeMissing.ts';

const placement = {
  /** @param alternatives whether to work out what another place would cost */
  place(document: JobDocument, areaIds: readonly string[], alternatives: boolean): HousePlan {
    const areas = areaIds.flatMap((id) => document.areas[id] ?? []);
    return placeMissing(new View(document), areas, alternatives);
  },
};

export type PlacementWorker = typeof placement;
expose(placement);
