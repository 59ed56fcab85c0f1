import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { rule, type Verdict } from '../rule.ts';

export const extensionGround = rule({
  id: 'extension-ground',
  title: 'Extending wiring without a ground',
  scope: 'circuit',
  needs: ['order'],
  level: 'violation',
  sections: always('250.130(C)'),
  why: 'A new outlet needs a ground, and an old two-wire box has none to give; the neutral is never one.',
  check(circuit, view) {
    const { stops } = runOf(view, circuit);
    return stops.flatMap(({ box, feeder }): Verdict[] => {
      const from = stops[feeder];
      if (box.status !== 'new' || (from?.box.status ?? 'existing') === 'new') return [];
      const old = from ? from.box.grounding : circuit.cable === 'old two-wire' ? 'none' : 'grounded';
      const where = from?.box.name ?? 'the old two-wire cable';
      if (old === 'grounded')
        return from ? [{ level: 'satisfied', message: `${box.name} takes its ground from ${where}` }] : [];
      if (old === 'unknown')
        return [
          { level: 'unknown', message: `whether ${where} has a ground to give ${box.name} is not on record` },
        ];
      return box.grounding === 'grounded'
        ? [
            {
              level: 'note',
              message: `${box.name} is fed from ${where}, which has no ground: run one to it from the panel, the electrode system or a grounded circuit`,
            },
          ]
        : [
            {
              level: 'violation',
              message: `${box.name} would be fed from ${where}, which has no ground: bring one first`,
            },
          ];
    });
  },
});
