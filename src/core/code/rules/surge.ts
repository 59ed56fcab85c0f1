import { since } from '#core/tables/editions.ts';
import { changePanel, rule, type Fix } from '../rule.ts';

export const surge = rule({
  id: 'surge',
  title: 'Surge protection of the service',
  scope: 'panel',
  level: 'violation',
  sections: { '2017': 'not in 2017', '2020': '230.67', '2023': '230.67, 215.18' },
  why: 'Electronics in breakers, chargers and appliances die of surges that nobody sees.',
  check(panel, view) {
    if (!since(view.edition, '2020') || panel.status === 'remove') return [];
    const service = panel.feeder === null;
    // From 2023 the panel at the end of a dwelling’s feeder is reached too.
    if (!service && (!since(view.edition, '2023') || panel.otherBuilding)) return [];
    const section = service ? '230.67' : '215.18';
    const fixes: Fix[] = [
      {
        label: `Record a surge protective device at ${panel.name}`,
        command: changePanel(panel, { service: { ...panel.service, surge: 'yes' } }),
      },
    ];
    switch (panel.service.surge) {
      case 'yes':
        return [
          { level: 'satisfied', section, message: `${panel.name}: a surge protective device is on record` },
        ];
      case 'no':
        return panel.status === 'existing'
          ? [
              {
                level: 'note',
                section,
                message: `${panel.name} has no surge protective device: it comes when the ${service ? 'service' : 'panel'} is replaced`,
              },
            ]
          : [
              {
                level: 'violation',
                section,
                message: `${panel.name} has no surge protective device of type 1 or 2`,
                fixes,
              },
            ];
      case 'unknown':
        return panel.status === 'existing'
          ? []
          : [
              {
                level: 'unknown',
                section,
                message: `${panel.name} is ${panel.status === 'new' ? 'new' : 'replaced'}: whether a surge protective device is installed is not on record`,
                fixes,
              },
            ];
    }
  },
});
