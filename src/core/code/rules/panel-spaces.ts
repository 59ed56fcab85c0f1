import { always } from '#core/tables/editions.ts';
import type { Circuit } from '#core/job/schema.ts';
import { freeSpace, idOf, isClash, nameOf, spacesIn, spacesOf } from '#core/panel/spaces.ts';
import { changeCircuit, changePanel, rule, type Fix, type Verdict } from '../rule.ts';

export const panelSpaces = rule({
  id: 'panel-spaces',
  title: 'Breakers in the spaces of the panel',
  scope: 'panel',
  needs: ['panel'],
  level: 'violation',
  sections: always('110.3(B), 408.54'),
  why: 'A panel is tested for one breaker in each space, and for tandems only where its label says so.',
  check(panel, view) {
    const circuits = view.circuitsIn(panel).filter((c) => c.status !== 'remove');
    if (circuits.length === 0) return [];
    const spaces = spacesIn(view.document, panel);
    const found: Verdict[] = [];
    const moveTo = (circuit: Circuit): Fix[] => {
      const space = freeSpace(spaces, circuit.breaker.poles);
      const label = `Move ${circuit.name} to space ${space}`;
      const values = { space: space ?? 0, otherSpace: null, half: 'whole' } as const;
      return space === null ? [] : [{ label, command: changeCircuit(circuit, values) }];
    };
    for (const c of circuits) {
      const outside = spacesOf(c).find((at) => at > panel.spaces);
      if (outside !== undefined)
        found.push({
          level: 'violation',
          message: `${c.name} in space ${c.space} would need space ${outside}; the panel has ${panel.spaces}`,
          fixes: moveTo(c),
        });
    }
    for (const space of spaces) {
      if (isClash(space)) {
        const names = [...new Set(space.occupants.map(nameOf))];
        const movable = space.occupants.flatMap((o) => ('circuit' in o ? [o.circuit] : [])).at(-1);
        found.push({
          level: 'violation',
          message: `space ${space.space} is taken by ${names.join(' and by ')}`,
          fixes: movable ? moveTo(movable) : [],
        });
      } else if (
        space.occupants.some((o) => 'circuit' in o && o.circuit.half !== 'whole') &&
        !panel.tandemSpaces.includes(space.space)
      ) {
        const [first] = space.occupants.map(nameOf);
        found.push({
          level: 'violation',
          message: `a tandem in space ${space.space} (${first}): the panel’s label does not allow one there`,
          fixes: [
            {
              label: `The label allows a tandem in space ${space.space}`,
              command: changePanel(panel, { tandemSpaces: [...panel.tandemSpaces, space.space] }),
            },
          ],
        });
      }
    }
    if (found.length > 0) return found;
    const used = new Set(spaces.flatMap((s) => s.occupants.map(idOf))).size;
    return [{ level: 'satisfied', message: `${used} breakers, each in spaces of its own` }];
  },
});
