import { serviceConductor } from '#core/loads/dwelling.ts';
import { CIRCULAR_MILS, sizeName } from '#core/tables/conductors.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';
import { rule } from '../rule.ts';

export const serviceConductors = rule({
  id: 'service-conductor',
  title: 'Conductors of the service',
  scope: 'panel',
  needs: ['panel'],
  level: 'violation',
  sections: { '2017': '310.15(B)(7)', '2020': '310.12', '2023': '310.12' },
  why: 'The main breaker protects these conductors from overload and nothing else does.',
  check(panel) {
    const { gauge, material } = panel.service;
    if (panel.feeder !== null || gauge === null || panel.status === 'remove') return [];
    const { mainRating } = panel;
    if (mainRating > LARGEST_SERVICE || mainRating < 100)
      return [
        {
          level: 'unknown',
          message: `${mainRating} A: the 83 % of a dwelling’s service is for 100 to ${LARGEST_SERVICE} A; work it out by its full ampacity`,
        },
      ];
    const least = serviceConductor(mainRating, material);
    if (least === null) return [];
    const enough = CIRCULAR_MILS[gauge] >= CIRCULAR_MILS[least];
    return [
      enough
        ? { level: 'satisfied', message: `${sizeName(gauge)} ${material} for a ${mainRating} A main` }
        : {
            level: 'violation',
            message: `${sizeName(gauge)} ${material} on a ${mainRating} A main; ${sizeName(least)} or larger is asked for where it carries the whole dwelling`,
          },
    ];
  },
});
