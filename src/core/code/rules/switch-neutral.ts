import { stopOf } from '#core/circuits/run.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { hasWallRule } from '#core/tables/areas.ts';
import { always } from '#core/tables/editions.ts';
import type { View } from '#core/view/view.ts';
import { rule } from '../rule.ts';

/** Where a lighting switch has a neutral with it, beside rooms that are lived in. */
const asksIn = (area: Area): boolean =>
  hasWallRule(area) || ['bathroom', 'hallway', 'stairs', 'foyer', 'laundry'].includes(area.kind);

/** Rooms lit by a switch in which 404.2(C) asks; a switch of receptacles alone is excused. */
const litRooms = (view: View, box: Box): Area[] =>
  box.controls.flatMap((id) => {
    const light = view.document.boxes[id];
    const area = light && view.document.areas[light.areaId];
    return light?.device.kind === 'light' && area && asksIn(area) ? [area] : [];
  });

export const switchNeutral = rule({
  id: 'switch-neutral',
  title: 'Neutral at a lighting switch',
  scope: 'box',
  level: 'violation',
  sections: always('404.2(C)'),
  why: 'An electronic switch without a neutral sends its current down the ground.',
  check(box, view) {
    if (box.device.kind !== 'switch' || box.status !== 'new' || box.device.automatic) return [];
    const on = stopOf(view, box);
    const [room] = litRooms(view, box);
    if (!on || !room || on.circuit.cable === 'raceway') return [];
    const about = `${box.name}, switch of ${room.name}`;
    const { switchNeutral: seen } = box.seen;
    if (seen === 'yes') return [{ level: 'satisfied', message: `${about}: a neutral is in the box` }];
    if (seen === 'no')
      return [
        {
          level: 'violation',
          message: `${about}: no neutral in the box; take three conductors and a ground to it, unless one of several switches there sees the whole room and has it`,
        },
      ];
    if (on.circuit.neutral && on.stop.role !== 'switch-loop')
      return [{ level: 'satisfied', message: `${about}: the cable that feeds it brings the neutral` }];
    return [
      {
        level: 'unknown',
        message: `${about} is a loop from the light: whether a neutral goes along is not on record`,
      },
    ];
  },
});
