import { always } from '#core/tables/editions.ts';
import { changePanel, rule } from '../rule.ts';

export const panelOpenings = rule({
  id: 'panel-openings',
  title: 'Unused openings closed',
  scope: 'panel',
  level: 'violation',
  sections: always('408.7, 110.12(A)'),
  why: 'A finger or a dropped screw goes through an open knockout straight to the bus.',
  check(panel) {
    if (!panel.found) return [];
    const { fillersMissing } = panel.found;
    return fillersMissing === 0
      ? [{ level: 'satisfied', message: 'every unused opening is closed' }]
      : [
          {
            level: 'violation',
            message: `${fillersMissing} ${fillersMissing === 1 ? 'opening stands' : 'openings stand'} open: install fillers`,
            fixes: [
              {
                label: 'Record the openings as closed',
                command: changePanel(panel, { found: { ...panel.found, fillersMissing: 0 } }),
              },
            ],
          },
        ];
  },
});
