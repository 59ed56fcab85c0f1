import { since } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
import { BOND_LAST } from './panel-bonding.ts';

export const outdoorDisconnect = rule({
  id: 'outdoor-disconnect',
  title: 'Emergency disconnect outdoors',
  scope: 'panel',
  level: 'violation',
  sections: { '2017': 'not in 2017', '2020': '230.85', '2023': '230.85' },
  why: 'Firefighters open a house to the power before they open it to water.',
  check(panel, view) {
    const { outdoorDisconnect: kind } = panel.service;
    if (panel.feeder !== null || panel.status === 'remove' || !since(view.edition, '2020')) return [];
    if (view.document.job.dwelling === 'multifamily') return [];
    const old = panel.status === 'existing';
    switch (kind) {
      case 'service-disconnect':
        return [
          {
            level: panel.bonded ? 'violation' : 'satisfied',
            section: panel.bonded ? '250.142(B)' : '230.85',
            message: panel.bonded
              ? `the service disconnect is outdoors, so ${panel.name} hangs on a feeder and its neutral has to float: ${BOND_LAST}`
              : `the service disconnect is outdoors, and the neutral floats in ${panel.name}`,
          },
        ];
      case 'emergency-only':
        return [
          {
            level: panel.bonded ? 'satisfied' : 'violation',
            section: panel.bonded ? '230.85' : '250.24(B)',
            message: panel.bonded
              ? `an emergency disconnect marked “not service equipment” is outdoors, on the supply side: the main bonding jumper stays in ${panel.name}, and the metal outdoors is bonded to the neutral as well`
              : `outdoors stands an emergency disconnect marked “not service equipment”: the main bonding jumper belongs in ${panel.name}, and the metal outdoors is bonded to the neutral as well`,
          },
        ];
      case 'none':
        return [
          {
            level: old ? 'note' : 'violation',
            message: old
              ? 'no emergency disconnect outdoors: it comes when the service is replaced'
              : 'no emergency disconnect outdoors, readily reached and marked',
          },
        ];
      case 'unknown':
        return old
          ? []
          : [{ level: 'unknown', message: 'whether a disconnect is outdoors is not on record' }];
    }
  },
});
