import { always } from '#core/tables/editions.ts';
import { plural } from '#core/units/words.ts';
import { changePanel, rule } from '../rule.ts';

export const doubledLugs = rule({
  id: 'doubled-lugs',
  title: 'Two conductors under one terminal',
  scope: 'panel',
  level: 'violation',
  sections: always('110.14(A)'),
  why: 'A terminal made for one conductor clamps one of two; the other works loose and heats.',
  check(panel) {
    const { name, found } = panel;
    if (!found) return [];
    const { doubledLugs: count } = found;
    if (count === 0)
      return [{ level: 'satisfied', message: `${name}: no breaker with two conductors was found` }];
    return [
      {
        level: 'violation',
        message: `${name}: ${plural(count, 'breaker has', 'breakers have')} two conductors under one terminal: join them to a tail, unless the breaker is marked for two`,
        fixes: [
          {
            label: 'Record them as joined to tails',
            command: changePanel(panel, { found: { ...found, doubledLugs: 0 } }),
          },
        ],
      },
    ];
  },
});
