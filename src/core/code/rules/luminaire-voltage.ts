import { runOf } from '#core/circuits/run.ts';
import { always } from '#core/tables/editions.ts';
import { rule, type Verdict } from '../rule.ts';

export const luminaireVoltage = rule({
  id: 'luminaire-voltage',
  title: 'Luminaires at 120 V',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: always('210.6(A)(1)'),
  why: 'Lamps are changed by hand: in a dwelling they work at no more than 120 V.',
  check(circuit, view) {
    if (circuit.breaker.poles === 1) return [];
    return runOf(view, circuit).stops.flatMap(({ box, stop }): Verdict[] => {
      if (box.device.kind !== 'light' || box.status === 'remove') return [];
      return circuit.neutral && stop.hot !== 'both'
        ? [{ level: 'satisfied', message: `${box.name} is on one hot and the neutral, 120 V` }]
        : [
            {
              level: box.status === 'existing' ? 'note' : 'violation',
              message: `${box.name} is a light between two hots, 240 V; 120 V is the most in a dwelling`,
            },
          ];
    });
  },
});
