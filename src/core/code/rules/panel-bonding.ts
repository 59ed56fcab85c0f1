import { always } from '#core/tables/editions.ts';
import type { Panel } from '#core/job/schema.ts';
import { changePanel, rule, type Fix, type Verdict } from '../rule.ts';

/** On three wires the bond is the only way home of every ground behind it. */
export const BOND_LAST =
  'on three wires first the fourth wire, or a metal raceway, and only then the bonding screw; until then it stays in';

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
      if (panel.service.outdoorDisconnect === 'service-disconnect') return [behindService(panel)];
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
    const { ground, status } = panel.feeder;
    if (!panel.bonded)
      return ground
        ? [
            {
              level: 'satisfied',
              section: '250.142(B), 408.40',
              message: 'neutrals and grounds are on bars apart, and the bonding screw is out',
            },
          ]
        : [
            {
              level: 'violation',
              section: '250.4(A)(5), 215.6',
              message:
                'three wires and the bond out: its grounds have no way home, and a fault trips nothing. A fourth wire or a metal raceway first',
            },
          ];
    if (panel.otherBuilding && !ground && status === 'existing')
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
        message: ground
          ? 'neutral and enclosure are joined again in a subpanel: part the bars, the bonding screw out'
          : `neutral and enclosure are joined again in a subpanel: ${BOND_LAST}`,
        fixes: ground ? fix('Take the bonding screw out', false) : [],
      },
    ];
  },
});

/** A panel whose service disconnect is outdoors: nobody wrote down what brings it a ground. */
const behindService = ({ bonded }: Panel): Verdict =>
  bonded
    ? {
        level: 'violation',
        section: '250.142(B)',
        message: `the service disconnect is outdoors, and neutral and enclosure are joined again here: ${BOND_LAST}`,
      }
    : {
        level: 'unknown',
        section: '250.142(B)',
        message:
          'the service disconnect is outdoors and the neutral floats here: whether a fourth wire or a metal raceway brings a ground is not on record',
      };
