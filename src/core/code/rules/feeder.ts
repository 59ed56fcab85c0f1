import { always } from '#core/tables/editions.ts';
import { feederLoad, sizeFeeder } from '#core/panel/feeder.ts';
import { isMade, sizeName } from '#core/tables/conductors.ts';
import { round } from '#core/units/quantity.ts';
import { changePanel, rule, type Verdict } from '../rule.ts';

export const feederRule = rule({
  id: 'feeder',
  title: 'Feeder of a subpanel',
  scope: 'panel',
  clears: ['all outlets'],
  needs: ['panel'],
  level: 'violation',
  sections: always('215.2, 215.3, 250.32'),
  why: 'The feeder carries all that the subpanel feeds, and brings it the ground that trips its breakers.',
  check(panel, view) {
    const { feeder } = panel;
    if (!feeder) return [];
    const { document } = view;
    const { amps } = feederLoad(view, panel);
    const sized = sizeFeeder(document, panel, feeder, amps);
    if (!sized) return [];
    const found: Verdict[] = [];
    if (amps > feeder.rating + 1e-9)
      found.push({
        level: 'violation',
        section: '215.3',
        message: `${round(amps, 1)} A of load on a ${feeder.rating} A feeder`,
        measured: { value: round(amps, 1), unit: 'A' },
        limit: { value: feeder.rating, unit: 'A' },
      });
    const { leastGauge, largestBreaker: most } = sized;
    if (most === null || feeder.rating > most)
      found.push({
        level: 'violation',
        section: '215.2(A), 240.4',
        message:
          most === null
            ? `${feeder.rating} A on ${sizeName(feeder.gauge)} ${feeder.material}: ${isMade(feeder.gauge, feeder.cable) ? 'it carries too little here for any breaker' : `${feeder.cable} is not made of that size`}`
            : `${feeder.rating} A on ${sizeName(feeder.gauge)} ${feeder.material}; at most ${most} A`,
        measured: { value: feeder.rating, unit: 'A' },
        limit: { value: most ?? 0, unit: 'A' },
        fixes:
          leastGauge === null
            ? []
            : [
                {
                  label: `Run ${sizeName(leastGauge)}`,
                  command: changePanel(panel, { feeder: { ...feeder, gauge: leastGauge } }),
                },
              ],
      });
    if (!feeder.ground) {
      // Only what was there before a ground was asked for may stay; a new one has four wires.
      const old = panel.otherBuilding && panel.bonded && feeder.status === 'existing';
      found.push({
        level: old ? 'note' : 'violation',
        section: panel.otherBuilding ? '250.32(B)' : '215.6',
        message: old
          ? 'three wires, from before a ground was asked for between buildings'
          : 'three wires: a ground must run with the feeder, four in all',
        fixes: old
          ? []
          : [
              {
                label: 'Run a ground with the feeder',
                command: changePanel(panel, { feeder: { ...feeder, ground: true } }),
              },
            ],
      });
    }
    if (panel.otherBuilding && !panel.electrode)
      found.push({
        level: 'violation',
        section: '250.32(A)',
        message: 'another building with more than one circuit needs a grounding electrode of its own',
        fixes: [{ label: 'Connect a grounding electrode', command: changePanel(panel, { electrode: true }) }],
      });
    const limit = document.job.settings.dropLimitPercent;
    if (sized.drop.percent > limit)
      found.push({
        level: 'recommended',
        section: '215.2(A) note',
        message: `${round(sized.drop.percent, 1)} % drop under its load; ${limit} % is advised`,
        measured: { value: round(sized.drop.percent, 1), unit: '%' },
        limit: { value: limit, unit: '%' },
      });
    return found.length > 0
      ? found
      : [
          {
            level: 'satisfied',
            message: `${round(amps, 1)} A on ${feeder.rating} A and ${sizeName(feeder.gauge)}, four wires, ground ${sizeName(sized.ground)}`,
          },
        ];
  },
});
