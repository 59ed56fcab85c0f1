import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';

export const shopLimit = rule({
  id: 'shop-limit',
  title: 'Receptacles per circuit, by shop habit',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'recommended',
  sections: always('shop habit'),
  why: 'The code sets no number in a dwelling; a shop limit keeps breakers from nuisance trips.',
  check(circuit, view) {
    const count = runOf(view, circuit).stops.filter(
      (s) => s.box.status !== 'remove' && isReceptacle(s.box),
    ).length;
    const { maxReceptacles } = view.document.job.settings;
    return count > maxReceptacles
      ? [
          {
            level: 'recommended',
            message: `${count} receptacle outlets; the shop’s habit is ${maxReceptacles} or fewer`,
          },
        ]
      : [];
  },
});
