import { expose } from 'comlink';
import loadHighs from 'highs';
import wasm from 'highs/runtime?url';
import { check } from '#core/code/checker.ts';
import { countsOf, violationChanges, type ViolationChange } from '#core/code/summary.ts';
import { View } from '#core/view/view.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { houseProblem } from '#core/planner/houseProblem.ts';
import { planFigures, propose, type PlanFigures, type Proposal } from '#core/planner/proposal.ts';
import type { PlannerSettings } from '#core/planner/settings.ts';
import { HouseSearch, type Progress } from '#core/planner/solve.ts';

/** A plan as far as it has come: whole at any time. */
export interface Draft {
  progress: Progress;
  proposal: Proposal;
  figures: PlanFigures;
  /** Violations in the whole job, as it is and with this plan. */
  violations: { now: number; plan: number; changes: ViolationChange[] };
  finished: boolean;
}

/** Least time between two drafts sent, ms. */
const PACE = 250;

const planner = {
  /** Plans a job and tells of each better plan. Ended by ending the worker: what was told last stands. */
  async plan(
    document: JobDocument,
    settings: PlannerSettings,
    seed: number,
    tell: (draft: Draft) => unknown,
  ): Promise<void> {
    const view = new View(document);
    const house = houseProblem(view, settings);
    if (!house) throw new Error('the job has no panel yet');
    const search = new HouseSearch(house, seed, await loadHighs({ locateFile: () => wasm }));
    const before = check(document);
    let told = -Infinity;
    for (let going = true; going;) {
      going = search.step();
      if (going && performance.now() - told < PACE) continue;
      told = performance.now();
      const proposal = propose(view, house, search.plans, settings);
      const after = run(document, proposal.command).document;
      const figures = planFigures(view, after, proposal, settings);
      const findings = check(after);
      const violations = {
        now: countsOf(before).violation,
        plan: countsOf(findings).violation,
        changes: violationChanges(before, findings),
      };
      await tell({ progress: search.progress, proposal, figures, violations, finished: !going });
    }
  },
};

export type PlannerWorker = typeof planner;
expose(planner);
