import { footprint, distance, nearestOnPolygon } from '#core/plan/footprint.ts';
import { placeInPlan } from '#core/job/outline.ts';
import type { Area, Box, Fixture } from '#core/job/schema.ts';
import { always } from '#core/tables/editions.ts';
import { isTub } from '#core/tables/fixtures.ts';
import { formatLength } from '#core/units/length.ts';
import type { View } from '#core/view/view.ts';
import { rule, type Verdict } from '../rule.ts';
import { byAge } from './reach.ts';

type Luminaire = Box['seen']['luminaire'];
/** Around a tub or shower and above its rim or threshold, 410.10(D), inches. */
const AROUND = 36;
const ABOVE = 96;
/** What must not hang or turn there. */
const BARRED_AT_TUB: readonly Luminaire[] = ['hanging', 'track', 'fan'];
/** Lamps that are open, or hang, have no place in a clothes closet, 410.16(B). */
const BARRED_IN_CLOSET: readonly Luminaire[] = ['surface-open', 'recessed-open', 'hanging', 'track'];

const WORDS: Record<Luminaire, string> = {
  unknown: 'a luminaire',
  'surface-enclosed': 'an enclosed surface luminaire',
  'surface-open': 'a surface luminaire with an open lamp',
  'recessed-enclosed': 'an enclosed recessed luminaire',
  'recessed-open': 'a recessed luminaire with an open lamp',
  hanging: 'a hanging luminaire',
  track: 'a track',
  fan: 'a paddle fan',
};

function tubNear(view: View, box: Box, area: Area): { fixture: Fixture; off: number } | null {
  const at = placeInPlan(area, box.wallId, box.offset, box.fromWall);
  for (const fixture of view.fixturesIn(area)) {
    if (!isTub(fixture) || fixture.status === 'remove') continue;
    const target = footprint(area, fixture);
    const off = at && target ? distance(at, nearestOnPolygon(at, target)) : null;
    if (off !== null && off < AROUND - 1e-6 && box.height < fixture.height + ABOVE) return { fixture, off };
  }
  return null;
}

function inCloset(box: Box, area: Area): Verdict[] {
  const { luminaire } = box.seen;
  const section = '410.16';
  if (luminaire === 'unknown')
    return box.status === 'existing'
      ? []
      : [
          {
            level: 'unknown',
            section,
            message: `${box.name} in ${area.name}: which kind of luminaire it is is not on record; in a clothes closet lamps must be enclosed`,
          },
        ];
  if (BARRED_IN_CLOSET.includes(luminaire))
    return [
      byAge(box, {
        level: 'violation',
        section: '410.16(B)',
        message: `${box.name} in ${area.name} is ${WORDS[luminaire]}: in a clothes closet lamps must be enclosed`,
      }),
    ];
  const clear = luminaire === 'recessed-enclosed' ? '6"' : '12" (6" where it is fluorescent)';
  return [
    {
      level: 'note',
      section: '410.16(C)',
      message: `${box.name} in ${area.name} is ${WORDS[luminaire]}: it keeps ${clear} from the storage space, to be measured on site`,
    },
  ];
}

export const luminairePlace = rule({
  id: 'luminaire-place',
  title: 'Luminaires in closets and over tubs',
  scope: 'box',
  needs: ['plan'],
  level: 'violation',
  sections: always('410.16, 410.10(D)'),
  why: 'A bare lamp sets clothes on fire; what hangs over a tub is in reach of wet hands.',
  check(box, view) {
    const area = view.document.areas[box.areaId];
    if (!area || box.status === 'remove' || box.device.kind !== 'light') return [];
    if (area.kind === 'closet') return inCloset(box, area);
    const near = tubNear(view, box, area);
    if (!near) return [];
    const { fixture, off } = near;
    const quantities = {
      measured: { value: off, unit: 'in' },
      limit: { value: AROUND, unit: 'in' },
    } as const;
    const { luminaire } = box.seen;
    const where = `${formatLength(off)} from the ${fixture.name}, less than 3' off and 8' above it`;
    if (BARRED_AT_TUB.includes(luminaire))
      return [
        byAge(box, {
          level: 'violation',
          section: '410.10(D)',
          message: `${box.name} is ${WORDS[luminaire]} ${where}`,
          ...quantities,
        }),
      ];
    if (luminaire === 'unknown')
      return [
        {
          level: box.status === 'existing' ? 'note' : 'unknown',
          section: '410.10(D)',
          message: `${box.name} is ${where}: which kind of luminaire it is is not on record; none may hang, run on a track or turn there`,
          ...quantities,
        },
      ];
    return [
      {
        level: 'satisfied',
        section: '410.10(D)',
        message: `${box.name} is ${WORDS[luminaire]}, ${formatLength(off)} from the ${fixture.name}`,
        ...quantities,
      },
    ];
  },
});
