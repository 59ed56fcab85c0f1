import { isIsland } from '#core/tables/fixtures.ts';
import { at, since, type PerEdition } from '#core/tables/editions.ts';
import { boxesOn, fromOuterEnd, hasCounterRule, islandNeeds, notServingIsland } from '#core/plan/counters.ts';
import { formatLength } from '#core/units/length.ts';
import { round } from '#core/units/quantity.ts';
import type { Area, Box, Edition, Fixture } from '#core/job/schema.ts';
import { rule, type Verdict } from '../rule.ts';
import { placeFix } from './spacing.ts';

/** Farthest a peninsula's receptacle may be from its outer end from 2020 on, inches. */
const OUTER_END = 24;
const LOCATION: PerEdition<string> = {
  '2017': '210.52(C)(5)',
  '2020': '210.52(C)(3)',
  '2023': '210.52(C)(3)',
};

export const islandReceptacles = rule({
  id: 'island-receptacles',
  title: 'Receptacles at islands and peninsulas',
  scope: 'fixture',
  needs: ['plan'],
  level: 'violation',
  sections: { '2017': '210.52(C)(2), (3)', '2020': '210.52(C)(2)', '2023': '210.52(C)(2)' },
  why: 'A cord from the wall to an island is a trip line with a hot pan at its end.',
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (!isIsland(fixture) || !area || !hasCounterRule(area) || fixture.status === 'remove') return [];
    const boxes = boxesOn(view.boxesIn(area), fixture).filter((b) => b.status !== 'remove');
    const found = judge(fixture, area, boxes, view.edition);
    // What was built to an earlier edition stays as it is until it is altered.
    const old =
      fixture.status === 'existing' &&
      boxes.length > 0 &&
      boxes.every((b) => b.status === 'existing' && b.serves === null);
    return old
      ? found.map((v) =>
          v.level === 'violation'
            ? { ...v, level: 'note' as const, message: `${v.message}; as built, and not altered` }
            : v,
        )
      : found;
  },
});

function judge(fixture: Fixture, area: Area, boxes: readonly Box[], edition: Edition): Verdict[] {
  const refused = boxes.flatMap((box) => {
    const why = notServingIsland(box, fixture, edition);
    return why === null ? [] : [{ box, why }];
  });
  const counted = boxes.filter((b) => !refused.some((r) => r.box === b));
  const { required, surface, section } = islandNeeds(fixture, edition);
  const size = `${formatLength(fixture.width)} × ${formatLength(fixture.depth)}, ${round(surface, 1)} ft²`;
  const left = refused.map((r) => `${r.box.name} ${r.why}`).join('; ');
  const verdicts: Verdict[] = [];
  if (since(edition, '2023')) {
    // Optional, but what is fitted must not hang below the top, where a child or a hip catches the cord.
    if (refused.length > 0)
      verdicts.push({
        level: 'violation',
        section: at(LOCATION, edition),
        message: `${fixture.name}: ${left}`,
      });
    if (counted.length === 0 && !fixture.futureProvision) {
      verdicts.push({
        level: 'violation',
        section,
        message: `${fixture.name} (${size}) has no receptacle and no provision for one later`,
        fixes: [
          {
            label: `Record provision for a later receptacle at ${fixture.name}`,
            command: { type: 'put', table: 'fixtures', rows: [{ ...fixture, futureProvision: true }] },
          },
          placeFix(area),
        ],
      });
    }
    if (verdicts.length > 0) return verdicts;
    return [
      {
        level: 'satisfied',
        message:
          counted.length > 0
            ? `${fixture.name} (${size}): ${counted.map((b) => b.name).join(', ')} on or above the surface`
            : `${fixture.name} (${size}): none installed, provision for one later`,
      },
    ];
  }
  if (required === 0)
    return [{ level: 'satisfied', section, message: `${fixture.name} (${size}) is too small to need one` }];
  if (counted.length < required) {
    return [
      {
        level: 'violation',
        section,
        message: `${fixture.name} (${size}) has ${counted.length} of ${required} receptacles${left ? `: ${left}` : ''}`,
        measured: { value: surface, unit: 'ft²' },
        fixes: [placeFix(area)],
      },
    ];
  }
  const nearest = Math.min(...counted.map((b) => fromOuterEnd(b, fixture)));
  if (
    since(edition, '2020') &&
    !since(edition, '2023') &&
    fixture.kind === 'peninsula' &&
    nearest > OUTER_END
  ) {
    return [
      {
        level: 'violation',
        section,
        message: `no receptacle within 2' of the outer end of ${fixture.name}; the nearest is ${formatLength(nearest)} from it`,
        measured: { value: nearest, unit: 'in' },
        limit: { value: OUTER_END, unit: 'in' },
        fixes: [placeFix(area)],
      },
    ];
  }
  return [
    {
      level: 'satisfied',
      section,
      message: `${fixture.name} (${size}): ${counted.length} of ${required} receptacles`,
    },
  ];
}
