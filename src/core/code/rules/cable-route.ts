import { isMultiwire, runOf } from '#core/circuits/run.ts';
import type { Circuit } from '#core/job/schema.ts';
import { leastCover } from '#core/tables/burial.ts';
import { always } from '#core/tables/editions.ts';
import { formatLength } from '#core/units/length.ts';
import type { View } from '#core/view/view.ts';
import { changeCircuit, rule, type Verdict } from '../rule.ts';

const INDOOR_ONLY: readonly Circuit['cable'][] = ['NM-B', 'old NM', 'old two-wire'];

function buried(circuit: Circuit, view: View): Verdict[] {
  const { cable, breaker, cover } = circuit;
  const run = runOf(view, circuit);
  const small =
    breaker.poles === 1 &&
    !isMultiwire(run) &&
    breaker.rating <= 20 &&
    (breaker.protection === 'gfci' || breaker.protection === 'dual');
  const { inches, working } = leastCover({
    place: 'open',
    what: cable === 'raceway' ? 'raceway' : 'cable',
    smallProtected: small,
    lowVoltage: false,
    edition: view.edition,
  });
  if (cover === null)
    return [
      {
        level: 'unknown',
        section: '300.5(A)',
        message: `buried: its cover was not measured; ${formatLength(inches)} is asked for, ${working}, where nothing else is over it`,
      },
    ];
  const quantities = {
    measured: { value: cover, unit: 'in' },
    limit: { value: inches, unit: 'in' },
  } as const;
  return [
    cover < inches
      ? {
          level: 'violation',
          section: '300.5(A)',
          message: `buried ${formatLength(cover)} deep; ${formatLength(inches)} is asked for, ${working}. Under a driveway, a slab or concrete other depths hold`,
          ...quantities,
        }
      : {
          level: 'satisfied',
          section: '300.5(A)',
          message: `buried ${formatLength(cover)} deep: ${formatLength(inches)} or more, ${working}`,
          ...quantities,
        },
  ];
}

export const cableRoute = rule({
  id: 'cable-route',
  title: 'Cable for where it runs',
  scope: 'circuit',
  clears: ['conductors'],
  level: 'violation',
  sections: always('334.12(B), 300.5, 340.10'),
  why: 'Paper and fillers in indoor cable soak up water and rot; a shovel finds what is buried shallow.',
  check(circuit, view) {
    const { cable, route, status } = circuit;
    if (status === 'remove' || route === 'unknown') return [];
    if (INDOOR_ONLY.includes(cable) && route !== 'dry')
      return [
        {
          level: 'violation',
          section: '334.12(B)(4)',
          message: `${cable} in a ${route === 'buried' ? 'buried, so wet,' : route} place: it is for dry ones only, in a raceway outdoors too`,
          fixes: [{ label: 'Run UF-B instead', command: changeCircuit(circuit, { cable: 'UF-B' }) }],
        },
      ];
    if (cable === 'SE' && route === 'buried')
      return [
        {
          level: 'violation',
          section: '338.12(A)(2)',
          message: 'SE cable underground: bury UF-B, or USE conductors in raceway',
        },
      ];
    if (cable === 'MC' && route !== 'dry')
      return [
        {
          level: 'unknown',
          section: '330.10(A)(11)',
          message: `MC cable in a ${route} place: only with a jacket listed for it, which is not on record`,
        },
      ];
    if (route === 'buried') return buried(circuit, view);
    return [{ level: 'satisfied', message: `${cable} in a ${route} place` }];
  },
});
