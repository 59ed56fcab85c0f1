import { outlineOf } from '../../job/outline.ts';
import type { Box, Fixture } from '../../job/schema.ts';
import { floorLineOf } from '../../plan/counters.ts';
import { changeBox, rule, sameSection } from '../rule.ts';
import type { View } from '../view.ts';

/** A fastened appliance that stands in front of an outlet. */
function behind(view: View, box: Box): Fixture | undefined {
  const area = view.document.areas[box.areaId];
  if (!area || box.mount !== 'wall') return undefined;
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === box.wallId);
  return view.fixturesIn(area).find((f) => {
    const line = wall && f.fastened && f.kind !== 'counter' ? floorLineOf(outline, f) : null;
    const at = wall ? wall.start + box.offset : NaN;
    return line !== null && at > line.from && at < line.to && box.height < f.height && f.fromWall < 6;
  });
}

export const gfciAccessible = rule({
  id: 'gfci-accessible',
  title: 'GFCI device within reach',
  scope: 'box',
  level: 'violation',
  sections: sameSection('210.8'),
  why: 'A device that trips behind the refrigerator is neither tested nor reset.',
  check(box, view) {
    if (box.status === 'remove' || box.device.kind !== 'gfci') return [];
    const hidden = behind(view, box);
    const why = hidden
      ? `behind the ${hidden.name}, which is fastened in place`
      : box.accessible
        ? null
        : 'out of reach';
    return why === null
      ? [{ level: 'satisfied', message: `${box.name}: the GFCI device is within reach` }]
      : [
          {
            level: 'violation',
            message: `${box.name}: the GFCI device is ${why}`,
            fixes: [
              {
                label: `Fit a plain receptacle at ${box.name}, with GFCI upstream`,
                command: changeBox(box, { device: { ...box.device, kind: 'duplex' } }),
              },
            ],
          },
        ];
  },
});
