import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeDevice, rule } from '../rule.ts';
import { exposureOf } from '#core/tables/areas.ts';
import { byAge } from './reach.ts';

export const weatherCover = rule({
  id: 'weather-cover',
  title: 'Cover for damp and wet places',
  scope: 'box',
  level: 'violation',
  sections: { '2017': '406.9(A), (B)', '2020': '406.9(A), (B)', '2023': '406.9(A), (B)' },
  why: 'Rain drives into an open face, and most of it while something is plugged in.',
  check(box, view) {
    const area = view.document.areas[box.areaId];
    if (!area || box.status === 'remove' || !isReceptacle(box)) return [];
    const exposed = exposureOf(area);
    if (exposed === 'dry') return [];
    // A small one always; a larger one where something stays plugged in, 406.9(B)(2)(a).
    const stays = box.serves !== null || box.purpose === 'vehicle';
    const wet = exposed === 'wet' && (box.device.rating <= 20 || stays);
    const { cover } = box.device;
    const good = cover === 'in-use' || (!wet && cover === 'weatherproof');
    const section =
      wet && box.device.rating <= 20 ? '406.9(B)(1)' : exposed === 'wet' ? '406.9(B)(2)' : '406.9(A)';
    if (good)
      return [
        {
          level: 'satisfied',
          section,
          message: `${box.name}: ${exposed} location, cover weatherproof ${cover === 'in-use' ? 'while in use' : 'when nothing is plugged in'}`,
        },
      ];
    const needed = wet ? 'in-use' : 'weatherproof';
    return [
      byAge(box, {
        level: 'violation',
        section,
        message: `${box.name}: ${exposed} location needs a cover weatherproof ${wet ? `while in use${box.device.rating <= 20 ? ', its hood marked extra duty' : ': something stays plugged in'}` : 'when nothing is plugged in'}`,
        fixes: [
          {
            label: wet
              ? `Install an in-use cover at ${box.name}`
              : `Install a weatherproof cover at ${box.name}`,
            command: changeDevice(box, { cover: needed }),
          },
        ],
      }),
    ];
  },
});
