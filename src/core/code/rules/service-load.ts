import { always } from '#core/tables/editions.ts';
import { loadOf } from '#core/panel/jobLoad.ts';
import { dwellingLoad, LOAD_SECTION } from '#core/loads/dwelling.ts';
import { round } from '#core/units/quantity.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';
import { rule } from '../rule.ts';

export const serviceLoad = rule({
  id: 'service-load',
  title: 'Service against the dwelling’s load',
  scope: 'panel',
  needs: ['plan', 'all outlets', 'panel'],
  level: 'violation',
  sections: always('230.42, 230.79'),
  why: 'A service that is too small trips when everyone is home on the coldest evening.',
  check(panel, view) {
    if (panel.feeder !== null || view.circuitsIn(panel).length === 0) return [];
    if (panel.mainRating > LARGEST_SERVICE) return [];
    const { dwelling, lacking } = loadOf(view, panel);
    const { method } = view.document.job.load;
    const load = dwellingLoad(dwelling, method);
    if (!load.ok) return [{ level: 'unknown', message: load.message }];
    const { amps } = load.value;
    const quantities = {
      measured: { value: round(amps, 1), unit: 'A' },
      limit: { value: panel.mainRating, unit: 'A' },
    } as const;
    const section = `${LOAD_SECTION[method]}, 230.42`;
    // What is worked out for an old dwelling to which nothing is added is no write-up.
    const added =
      panel.status !== 'existing' ||
      dwelling.items.some((i) => i.added) ||
      view.circuitsIn(panel).some((c) => c.status === 'new');
    if (amps > panel.mainRating + 1e-9)
      return [
        {
          level: added ? 'violation' : 'recommended',
          section,
          message: `${round(amps, 1)} A by the ${method} method; the main breaker is of ${panel.mainRating} A${added ? '' : ', with nothing added: advice before anything is'}`,
          ...quantities,
        },
      ];
    if (dwelling.oneFamily && panel.mainRating < 100)
      return [
        {
          level: panel.status === 'existing' ? 'note' : 'violation',
          section: '230.79(C)',
          message: `a one-family dwelling has a service of 100 A or more; this one is of ${panel.mainRating} A${panel.status === 'existing' ? ', and carries its load: it may stay until it is replaced' : ''}`,
          measured: { value: panel.mainRating, unit: 'A' },
          limit: { value: 100, unit: 'A' },
        },
      ];
    if (lacking.length > 0)
      return [
        {
          level: 'unknown',
          section,
          message: `${round(amps, 1)} A without ${lacking.map((f) => f.name).join(', ')}, whose nameplate is not on record`,
        },
      ];
    return [
      {
        level: 'satisfied',
        section,
        message: `${round(amps, 1)} A by the ${method} method on a ${panel.mainRating} A main`,
        ...quantities,
      },
    ];
  },
});
