import type { Area, Box } from '#core/job/schema.ts';
import { formatLength } from '#core/units/length.ts';
import { rule, type Verdict } from '../rule.ts';
import { aboveGrade, isOutside } from '#core/tables/areas.ts';
import type { View } from '#core/view/view.ts';
import { isGeneral } from './counted.ts';
import { HIGHEST_OUTDOORS } from './deck-receptacle.ts';
import { placeFix } from './spacing.ts';

/** Receptacles of outdoor areas that count from grade. */
export function fromGrade(
  view: View,
  areas: readonly Area[],
  highest: number,
): { box: Box; height: number }[] {
  return areas.flatMap((area) =>
    view
      .boxesIn(area)
      .filter((b) => isGeneral(b) && b.accessible && b.purpose !== 'deicing')
      .map((box) => ({ box, height: box.height + aboveGrade(area, view.document.levels[area.levelId]) }))
      .filter(({ height }) => height <= highest),
  );
}

export const outdoorReceptacles = rule({
  id: 'outdoor-receptacles',
  title: 'Receptacles at the front and back of the house',
  scope: 'house',
  blames: ['plan'],
  level: 'violation',
  sections: { '2017': '210.52(E)(1)', '2020': '210.52(E)(1)', '2023': '210.52(E)(1)' },
  why: 'Mowers, pumps and lights are plugged in outdoors every season; a cord from inside defeats the GFCI and the door.',
  limit: { value: HIGHEST_OUTDOORS, unit: 'in', tighter: 'less', of: 'height above grade' },
  check(job, view) {
    const areas = view.rows('areas').filter(isOutside);
    const highest = view.limit('outdoor-receptacles', HIGHEST_OUTDOORS);
    const asked = (where: string, places: Area[], section: string): Verdict => {
      const found = fromGrade(view, places, highest);
      const first = found[0];
      if (first) {
        return {
          level: 'satisfied',
          section,
          message: `${where}: ${found.map((f) => f.box.name).join(', ')}, ${formatLength(first.height)} above grade`,
          measured: { value: first.height, unit: 'in' },
          limit: { value: highest, unit: 'in' },
        };
      }
      return {
        level: 'violation',
        section,
        message: `${where}: no receptacle reached from grade and ${formatLength(highest)} or less above it`,
        limit: { value: highest, unit: 'in' },
        fixes: places[0] ? [placeFix(places[0])] : [],
      };
    };
    if (areas.length === 0) {
      return view.rows('areas').length === 0
        ? []
        : [{ level: 'note', message: 'no outdoor area on record: receptacles outdoors are not judged' }];
    }
    if (job.dwelling === 'multifamily') {
      const own = areas.filter((a) => a.conditions.ownEntrance);
      return own.length === 0
        ? [
            {
              level: 'satisfied',
              section: '210.52(E)(2)',
              message: 'no own entrance at grade on record; the unit needs none outdoors',
            },
          ]
        : [asked('At the unit’s own entrance', own, '210.52(E)(2)')];
    }
    return (['front', 'back'] as const).map((side) =>
      asked(
        side === 'front' ? 'Front of the house' : 'Back of the house',
        areas.filter((a) => a.conditions.faces === side),
        '210.52(E)(1)',
      ),
    );
  },
});
