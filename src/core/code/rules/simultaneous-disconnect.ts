import { always } from '#core/tables/editions.ts';
import { isMultiwire, runOf } from '#core/circuits/run.ts';
import { changeBreaker, rule } from '../rule.ts';

export const simultaneousDisconnect = rule({
  id: 'simultaneous-disconnect',
  title: 'Both hots open together',
  scope: 'circuit',
  level: 'violation',
  sections: always('210.4(B)'),
  why: 'With one hot off and the other on, a box that looks dead is not, and the shared neutral still carries current.',
  check(circuit, view) {
    const { tie, poles } = circuit.breaker;
    if (poles === 1) return [];
    const run = runOf(view, circuit);
    const shared = isMultiwire(run);
    const fixes = [
      { label: 'Install a common-trip breaker', command: changeBreaker(circuit, { tie: 'common-trip' }) },
    ];
    if (tie === 'none') {
      return [
        {
          level: 'violation',
          section: shared ? '210.4(B)' : '240.15(B)(2)',
          message: 'its two poles have neither a handle tie nor a common trip',
          fixes,
        },
      ];
    }
    // A circuit for one appliance alone is excepted, 210.4(C).
    const between = run.stops.filter(({ box }) => box.status !== 'remove' && box.device.volts !== '125');
    if (tie === 'handle-tie' && shared && between.length > 0 && run.stops.length > 1) {
      return [
        {
          level: 'violation',
          section: '210.4(C)',
          message: `${between[0]!.box.name} takes both hots beside 120 V outlets: a handle tie will not do, the poles must trip together`,
          fixes,
        },
      ];
    }
    return [
      {
        level: 'satisfied',
        section: shared ? '210.4(B)' : '240.15(B)',
        message: tie === 'common-trip' ? 'both poles trip together' : 'the handles are tied',
      },
    ];
  },
});
