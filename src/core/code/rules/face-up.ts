import { changeBox, rule } from '../rule.ts';
import { byAge } from './reach.ts';

export const faceUp = rule({
  id: 'face-up',
  title: 'No receptacle face up in a counter or sill',
  scope: 'box',
  needs: ['plan'],
  level: 'violation',
  sections: { '2017': '406.5(E), (F)', '2020': '406.5(E), (F), (G)', '2023': '406.5(E), (F), (G)' },
  why: 'What is spilled on a counter runs into a face that looks up.',
  check(box) {
    if (box.status === 'remove') return [];
    if (box.mount === 'counter-assembly')
      return [{ level: 'satisfied', message: `${box.name} is in an assembly listed for counters` }];
    if (box.mount !== 'face-up') return [];
    return [
      byAge(box, {
        level: 'violation',
        message: `${box.name} faces up without an assembly listed for it`,
        fixes: [
          {
            label: `Install an assembly listed for counters at ${box.name}`,
            command: changeBox(box, { mount: 'counter-assembly' }),
          },
        ],
      }),
    ];
  },
});
