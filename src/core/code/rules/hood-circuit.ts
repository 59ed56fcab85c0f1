import { fixturesOn } from '#core/circuits/circuitLoad.ts';
import { outletsOf, runOf } from '#core/circuits/run.ts';
import { always, since } from '#core/tables/editions.ts';
import { rule, type Verdict } from '../rule.ts';

export const hoodCircuit = rule({
  id: 'hood-circuit',
  title: 'Circuit of a hood with a cord',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: always('422.16(B)(4)'),
  why: 'A hood gives way to one with a microwave oven, which takes most of a circuit.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    const outlets = outletsOf(run);
    return fixturesOn(view.document, run).flatMap((fixture): Verdict[] => {
      const over =
        fixture.kind === 'hood' || (fixture.kind === 'hood-microwave' && since(view.edition, '2020'));
      if (!over || fixture.connection !== 'cord' || fixture.status === 'remove') return [];
      const others = outlets.filter(({ box }) => box.serves !== fixture.id);
      if (others.length === 0)
        return [{ level: 'satisfied', message: `the ${fixture.name} has a circuit of its own` }];
      const altered =
        fixture.status !== 'existing' ||
        outlets.some(({ box }) => box.serves === fixture.id && box.status === 'new');
      return [
        {
          level: altered ? 'violation' : 'note',
          message: `the ${fixture.name} is plugged in, and its circuit feeds ${others.map((s) => s.box.name).join(', ')} too: it has a circuit of its own${altered ? '' : ' when this is altered'}`,
        },
      ];
    });
  },
});
