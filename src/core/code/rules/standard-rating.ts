import { isStandardRating } from '#core/tables/conductors.ts';
import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';

export const standardRating = rule({
  id: 'standard-rating',
  title: 'Standard rating of a breaker',
  scope: 'circuit',
  level: 'recommended',
  sections: always('240.6(A)'),
  why: 'A breaker of an unusual rating is hard to replace, and often was meant for something else.',
  check({ breaker, status }, view) {
    const { rating } = breaker;
    if (status === 'remove' || isStandardRating(rating, view.edition)) return [];
    return [
      {
        level: 'recommended',
        message: `${rating} A is not a standard rating${rating === 10 ? ` in ${view.edition}` : ''}: recorded as found, a standard one is advised`,
      },
    ];
  },
});
