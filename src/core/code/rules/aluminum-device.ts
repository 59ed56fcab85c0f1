import { onAluminum } from '#core/boxes/seen.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';

export const aluminumDevice = rule({
  id: 'aluminum-device',
  title: 'Device on aluminum conductors',
  scope: 'box',
  level: 'violation',
  sections: always('406.3(C), 404.14(C)'),
  why: 'Aluminum creeps out from under a screw that is made for copper; the joint heats until it burns.',
  check(box, view) {
    const isSwitch = box.device.kind === 'switch';
    if (box.status === 'remove' || (!isReceptacle(box) && !isSwitch) || box.device.rating > 20) return [];
    if (!onAluminum(view, box)) return [];
    const section = isSwitch ? '404.14(C)' : '406.3(C)';
    switch (box.seen.aluminumRated) {
      case 'yes':
        return [{ level: 'satisfied', section, message: `${box.name}: marked CO/ALR, for aluminum` }];
      case 'no':
        return [
          {
            level: 'violation',
            section,
            message: `${box.name} lands aluminum on a device not marked CO/ALR: change it, or splice copper tails with connectors listed for both`,
          },
        ];
      case 'unknown':
        return [
          {
            level: 'unknown',
            section,
            message: `${box.name} is on aluminum: whether its device is marked CO/ALR is not on record`,
          },
        ];
    }
  },
});
