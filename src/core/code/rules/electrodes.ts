import { always } from '#core/tables/editions.ts';
import { rule, type Verdict } from '../rule.ts';

export const electrodes = rule({
  id: 'electrodes',
  title: 'Electrodes and bonding at the service',
  scope: 'panel',
  level: 'violation',
  sections: always('250.50, 250.53, 250.94, 250.104'),
  why: 'What is metal in the house must stay at the volts of the earth around it.',
  check(panel) {
    if (panel.feeder !== null || panel.status === 'remove') return [];
    const { electrodes: seen, rods, rodProved, waterBonded, gasBonded, intersystem } = panel.service;
    const level = panel.status === 'existing' ? 'recommended' : 'violation';
    const found: Verdict[] = [];
    if (seen !== null) {
      const other = seen.filter((e) => e !== 'water-pipe');
      if (seen.length === 0)
        found.push({ level: 'violation', section: '250.50', message: 'no grounding electrode was found' });
      else if (other.length === 0)
        found.push({
          level,
          section: '250.53(D)(2)',
          message: 'the water pipe is the only electrode: it needs another beside it',
        });
      if (seen.includes('rod') && other.length === 1 && rods < 2 && rodProved !== 'yes')
        found.push(
          rodProved === 'no'
            ? {
                level,
                section: '250.53(A)(2)',
                message: 'one rod, not of 25 Ω or less: drive a second one 6 ft or more from it',
              }
            : {
                level: 'unknown',
                section: '250.53(A)(2)',
                message: 'one rod, and nobody measured it: 25 Ω or less, or a second one',
              },
        );
    }
    if (waterBonded === 'no')
      found.push({ level, section: '250.104(A)', message: 'the metal water pipes are not bonded' });
    if (gasBonded === 'no')
      found.push({
        level,
        section: '250.104(B)',
        message:
          'the gas pipes are not bonded: the ground of the appliance’s circuit may serve, corrugated tubing by its maker',
      });
    if (intersystem === 'no' && panel.status !== 'existing')
      found.push({
        level: 'violation',
        section: '250.94(A)',
        message: 'no bar to bond telephone, television and data to',
      });
    if (found.length > 0 || seen === null) return found;
    return [
      {
        level: 'satisfied',
        message: `electrodes on record: ${seen.map((e) => e.replace('-', ' ')).join(', ')}${rods > 1 ? `, ${rods} rods` : ''}`,
      },
    ];
  },
});
