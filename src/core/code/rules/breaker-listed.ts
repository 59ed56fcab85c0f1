import { always } from '#core/tables/editions.ts';
import { changeBreaker, rule } from '../rule.ts';

export const breakerListed = rule({
  id: 'breaker-listed',
  title: 'Breaker listed for its panel',
  scope: 'circuit',
  level: 'violation',
  sections: always('110.3(B), 110.9'),
  why: 'A breaker that only happens to fit may make poor contact with the bus and has not been tested to open a fault there.',
  check(circuit) {
    const { listed } = circuit.breaker;
    if (listed === 'yes') return [{ level: 'satisfied', message: 'the panel’s label names this breaker' }];
    if (listed === 'no')
      return [
        {
          level: 'violation',
          message:
            'the breaker is not one that the panel’s label names: install one that is, of the rating the conductor allows',
          fixes: [
            {
              label: 'Install a breaker that the label names',
              command: changeBreaker(circuit, { listed: 'yes' }),
            },
          ],
        },
      ];
    return circuit.status === 'replace'
      ? [
          {
            level: 'unknown',
            message:
              'whether the replacement breaker is listed for this panel is not on record; read the label on the door',
          },
        ]
      : [];
  },
});
