import { always } from '#core/tables/editions.ts';
import { plateVa } from '#core/panel/jobLoad.ts';
import { round } from '#core/units/quantity.ts';
import { rule } from '../rule.ts';

/** Up to this load a thing with a cord works at 120 V, VA. */
const SMALL = 1440;

export const smallLoadOn240 = rule({
  id: 'small-load-on-240',
  title: 'Small load with a cord at 240 V',
  scope: 'fixture',
  level: 'violation',
  sections: always('210.6(A)(2)'),
  why: 'In a dwelling what is small and carried about is to work at 120 V, where a shock does less.',
  check(fixture) {
    const { nameplate, connection, status } = fixture;
    if (connection !== 'cord' || status === 'remove' || !nameplate || nameplate.volts <= 150) return [];
    const va = plateVa(fixture);
    if (va === null) return [];
    const quantities = {
      measured: { value: round(va, 0), unit: 'VA' },
      limit: { value: SMALL, unit: 'VA' },
    } as const;
    return va <= SMALL
      ? [
          {
            level: 'violation',
            message: `the ${fixture.name} takes ${round(va, 0).toLocaleString('en-US')} VA at ${nameplate.volts} V by a cord; up to 1,440 VA it must be for 120 V`,
            ...quantities,
          },
        ]
      : [
          {
            level: 'satisfied',
            message: `${round(va, 0).toLocaleString('en-US')} VA at ${nameplate.volts} V: above 1,440 VA`,
            ...quantities,
          },
        ];
  },
});
