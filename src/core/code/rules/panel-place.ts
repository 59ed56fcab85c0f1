import type { Area, Panel } from '#core/job/schema.ts';
import { cornersOf, insidePolygon } from '#core/plan/footprint.ts';
import { always } from '#core/tables/editions.ts';
import { formatLength } from '#core/units/length.ts';
import type { View } from '#core/view/view.ts';
import { rule, type Verdict } from '../rule.ts';

/** Clear space in front of a panel, 110.26(A), inches. */
const DEPTH = 36;
const WIDTH = 30;
const HEIGHT = 78;
/** Highest center of a handle, 240.24(A), inches. */
const HANDLE = 79;

/** The room that a panel stands in on the plan; null where none is drawn there. */
function roomAt(view: View, panel: Panel): Area | null {
  const at = { x: panel.x, y: panel.y };
  return (
    view.areasOn(panel.levelId).find((a) => a.walls.length > 2 && insidePolygon(at, cornersOf(a))) ?? null
  );
}

function inRoom(panel: Panel, room: Area, level: Verdict['level']): Verdict[] {
  if (room.kind === 'bathroom')
    return [
      { level, section: '240.24(E)', message: `${panel.name} stands in ${room.name}: not in a bathroom` },
    ];
  if (room.kind === 'stairs')
    return [{ level, section: '240.24(F)', message: `${panel.name} stands over the steps of ${room.name}` }];
  if (room.kind === 'closet')
    return [
      {
        level: 'unknown',
        section: '240.24(D)',
        message: `${panel.name} stands in ${room.name}: in a closet for clothes it may not; what is kept there is not on record`,
      },
    ];
  return [];
}

export const panelPlace = rule({
  id: 'panel-place',
  title: 'Place and clear space of a panel',
  scope: 'panel',
  level: 'violation',
  sections: always('110.26, 240.24'),
  why: 'Whoever works at a panel needs room to stand, to step back, and to reach every handle.',
  check(panel, view) {
    if (panel.status === 'remove') return [];
    const room = roomAt(view, panel);
    const level = panel.status === 'existing' ? 'recommended' : 'violation';
    const found: Verdict[] = room ? inRoom(panel, room, level) : [];
    const { width, depth, height, highestHandle } = panel.clear;
    const least: [value: number | null, least: number, what: string][] = [
      [depth, DEPTH, 'deep in front of it'],
      [width, WIDTH, 'wide, or as wide as the panel'],
      [height, HEIGHT, 'high'],
    ];
    for (const [value, limit, what] of least)
      if (value !== null && value < limit)
        found.push({
          level,
          section: '110.26(A)',
          message: `${panel.name}: ${formatLength(value)} clear; ${formatLength(limit)} ${what} is asked for${what === 'high' ? '; an existing panel of 200 A or less may stay under a low ceiling' : ''}`,
          measured: { value, unit: 'in' },
          limit: { value: limit, unit: 'in' },
        });
    if (highestHandle !== null && highestHandle > HANDLE)
      found.push({
        level,
        section: '240.24(A)',
        message: `${panel.name}: its highest handle is ${formatLength(highestHandle)} up; ${formatLength(HANDLE)} is the most`,
        measured: { value: highestHandle, unit: 'in' },
        limit: { value: HANDLE, unit: 'in' },
      });
    if (panel.foreignAbove === 'yes')
      found.push({
        level,
        section: '110.26(E)(1)',
        message: `${panel.name}: pipes, ducts or other foreign equipment stand in its footprint`,
      });
    if (found.length > 0) return found;
    const looked = least.every(([value]) => value !== null) && panel.foreignAbove === 'no';
    return looked
      ? [{ level: 'satisfied', message: `${panel.name}: clear space as asked for` }]
      : [
          {
            level: 'note',
            section: '110.26(A)',
            message: `${panel.name}: its clear space was not measured: 36" deep, 30" wide, 6' 6" high, nothing foreign above`,
          },
        ];
  },
});
