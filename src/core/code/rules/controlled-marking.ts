import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeDevice, rule } from '../rule.ts';

export const controlledMarking = rule({
  id: 'controlled-marking',
  title: 'Mark on automatically controlled contacts',
  scope: 'box',
  level: 'violation',
  sections: { '2017': '406.3(E)', '2020': '406.3(E)', '2023': '406.3(F)' },
  why: 'Whoever plugs in a freezer or a medical device must see that the contacts switch themselves off.',
  check(box) {
    if (box.status === 'remove' || !isReceptacle(box) || box.device.switched === 'none') return [];
    const which = box.device.switched === 'half' ? 'one half' : 'both halves';
    if (!box.device.automatic) {
      return [
        {
          level: 'satisfied',
          message: `${box.name}: a plain wall switch controls ${which}; no mark needed${box.device.markedControlled ? ', and marked all the same' : ''}`,
        },
      ];
    }
    return box.device.markedControlled
      ? [{ level: 'satisfied', message: `${box.name}: ${which} controlled automatically, and marked` }]
      : [
          {
            level: 'violation',
            message: `${box.name}: ${which} controlled automatically, without the symbol and the word on the face`,
            fixes: [
              {
                label: `Mark ${box.name} as controlled`,
                command: changeDevice(box, { markedControlled: true }),
              },
            ],
          },
        ];
  },
});
