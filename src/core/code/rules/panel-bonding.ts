import { always } from '#core/tables/editions.ts';
import { changePanel, rule, type Fix } from '../rule.ts';

export const panelBonding = rule({
  id: 'panel-bonding',
  title: 'Neutral and enclosure: joined once, at the service',
  scope: 'panel',
  needs: ['panel'],
  level: 'violation',
  sections: always('250.24(B), 250.142(B)'),
  why: 'Joined nowhere, a fault does not trip the breaker; joined twice, grounds and metal carry current all day.',
  check(panel) {
    const fix = (label: string, bonded: boolean): Fix[] => [
      { label, command: changePanel(panel, { bonded }) },
    ];
    if (panel.feeder === null) {
      return panel.bonded
        ? [
            {
              level: 'satisfied',
              section: '250.24(B)',
              message: 'neutral and enclosure are joined at the service',
            },
          ]
        : [
            {
              level: 'violation',
              section: '250.24(B)',
              message:
                'neutral and enclosure are not joined at the service: a ground fault would not trip a breaker',
              fixes: fix('Install the main bonding jumper', true),
            },
          ];
    }
    if (!panel.bonded)
      return [
        {
          level: 'satisfied',
          section: '250.142(B), 408.40',
          message: 'neutrals and grounds are on bars apart, and the bonding screw is out',
        },
      ];
    if (panel.otherBuilding && !panel.feeder.ground && panel.feeder.status === 'existing')
      return [
        {
          level: 'note',
          section: '250.32(B)(1)',
          message:
            'an old three-wire feeder to another building, its neutral joined to ground there: allowed only while it exists and no other metal path runs between them',
        },
      ];
    return [
      {
        level: 'violation',
        section: '250.142(B), 408.40',
        message:
          'neutral and enclosure are joined again in a subpanel: take the bonding screw out and part the bars',
        fixes: fix('Take the bonding screw out', false),
      },
    ];
  },
});
