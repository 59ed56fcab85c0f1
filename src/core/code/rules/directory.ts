import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { directoryFault, purposeOf } from '#core/panel/purpose.ts';
import { changeCircuit, rule, type Verdict } from '../rule.ts';

export const directory = rule({
  id: 'directory',
  title: 'Panel directory',
  scope: 'panel',
  blames: ['all outlets'],
  level: 'violation',
  sections: always('408.4(A)'),
  why: 'Whoever must cut the power in a hurry reads the directory once: each line says what it feeds and no other does.',
  check(panel, view) {
    const circuits = view.circuitsIn(panel).filter((c) => c.status !== 'remove');
    if (circuits.length === 0) return [];
    const taken = new Set(circuits.map((c) => c.name.toLowerCase()));
    const stays = (id: string) => (view.document.boxes[id]?.status ?? 'remove') !== 'remove';
    const found = circuits.flatMap((c): Verdict[] => {
      const message = directoryFault(c, circuits, stays);
      if (message === null) return [];
      const purpose = purposeOf(view.document, runOf(view, c).stops);
      const tries = [purpose, ...Array.from({ length: 40 }, (_, i) => `${purpose.slice(0, 76)} ${i + 2}`)];
      const name = tries.find(
        (t) => !taken.has(t.toLowerCase()) && directoryFault({ ...c, name: t }, circuits, stays) === null,
      );
      return [
        {
          level: 'violation',
          message: `space ${c.space}: ${message}`,
          fixes:
            name === undefined ? [] : [{ label: `Name it “${name}”`, command: changeCircuit(c, { name }) }],
        },
      ];
    });
    return found.length > 0
      ? found
      : [{ level: 'satisfied', message: `${circuits.length} circuits, each named for what it feeds` }];
  },
});
