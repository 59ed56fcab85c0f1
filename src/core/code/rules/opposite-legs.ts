import { always } from '#core/tables/editions.ts';
import { legsOf, spacesOf } from '#core/panel/spaces.ts';
import { changeCircuit, rule } from '../rule.ts';

export const oppositeLegs = rule({
  id: 'opposite-legs',
  title: 'Two poles on opposite legs',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: always('210.4, 200.4'),
  why: 'On one leg the two hots make no 240 V, and a shared neutral carries the sum of both sides instead of the difference.',
  check(circuit) {
    if (circuit.breaker.poles === 1) return [];
    const spaces = spacesOf(circuit).join(' and ');
    const [black, red] = legsOf(circuit);
    if (black !== red)
      return [{ level: 'satisfied', message: `spaces ${spaces} are on opposite legs of the bus` }];
    return [
      {
        level: 'violation',
        message: `spaces ${spaces} are both on leg ${black}: no 240 V between the hots, and a shared neutral would carry the sum of both`,
        fixes: [
          {
            label: `Put the second pole in space ${circuit.space + 2}, below the first`,
            command: changeCircuit(circuit, { otherSpace: null }),
          },
        ],
      },
    ];
  },
});
