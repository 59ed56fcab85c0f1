import { always } from '#core/tables/editions.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';
import { rule } from '../rule.ts';

export const panelRating = rule({
  id: 'panel-rating',
  title: 'Main breaker within the panel’s bus',
  scope: 'panel',
  needs: ['panel'],
  level: 'violation',
  sections: always('408.36'),
  why: 'The bus bars carry what the breaker ahead of them lets through.',
  check(panel) {
    // The breaker at either end of its feeder will do.
    if (panel.feeder === null && panel.mainRating > LARGEST_SERVICE) return [];
    const ahead = Math.min(panel.feeder?.rating ?? panel.mainRating, panel.mainRating);
    return [
      {
        level: ahead > panel.busRating ? 'violation' : 'satisfied',
        message: `${ahead} A ahead of a bus rated ${panel.busRating} A`,
        measured: { value: ahead, unit: 'A' },
        limit: { value: panel.busRating, unit: 'A' },
      },
    ];
  },
});
