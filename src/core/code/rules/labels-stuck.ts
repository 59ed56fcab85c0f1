import { always } from '#core/tables/editions.ts';
import { labelsFor } from '../decisions.ts';
import { changeBox, rule } from '../rule.ts';

export const labelsStuck = rule({
  id: 'labels-stuck',
  title: 'Labels where no ground is',
  scope: 'box',
  level: 'violation',
  sections: always('406.4(D)(2)'),
  why: 'Three slots promise a ground; the label is what tells the next person that there is none.',
  check(box, view) {
    const labels = labelsFor(view, box).map((l) => `“${l}”`);
    if (labels.length === 0) return [];
    const words = labels.join(' and ');
    if (box.seen.labels === 'yes') return [{ level: 'satisfied', message: `${box.name}: ${words} on it` }];
    const fixes = [
      {
        label: `Labels are on ${box.name}`,
        command: changeBox(box, { seen: { ...box.seen, labels: 'yes' } }),
      },
    ];
    return [
      box.seen.labels === 'no'
        ? { level: 'violation', message: `${box.name} lacks its labels: ${words}`, fixes }
        : { level: 'note', message: `${box.name} needs ${words}: nobody has looked yet`, fixes },
    ];
  },
});
