import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';

export const onACircuit = rule({
  id: 'on-a-circuit',
  title: 'Outlet on a circuit',
  scope: 'box',
  level: 'unknown',
  sections: always('plan'),
  why: 'Protection, load and drop follow from the circuit; off a circuit they are unknown.',
  check(box, view) {
    if (box.status === 'remove' || view.circuitOf(box.id)) return [];
    return [
      {
        level: 'unknown',
        message: `${box.name} is on no circuit yet: protection, load and drop are unknown`,
      },
    ];
  },
});
