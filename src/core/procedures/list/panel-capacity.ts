import { dwellingLoad, type Dwelling, type LoadItem } from '#core/loads/dwelling.ts';
import type { DwellingLoadKind } from '#core/tables/loadKinds.ts';
import { itemAt, spareFor } from '#core/panel/spare.ts';
import { round } from '#core/units/quantity.ts';
import { panelOf } from '../parts/breaker.ts';
import { framed } from '../parts/frame.ts';
import {
  ask,
  look,
  measure,
  when,
  work,
  type Context,
  type Figure,
  type Line,
  type Procedure,
} from '../step.ts';

const LINE = 240;

/** What may be in the house, each with the kind that it counts as. */
const APPLIANCES: readonly {
  name: string;
  label: string;
  kind: DwellingLoadKind;
  motor: boolean;
  added?: true;
}[] = [
  { name: 'range', label: 'Range', kind: 'range', motor: false },
  { name: 'dryer', label: 'Dryer', kind: 'dryer', motor: false },
  { name: 'water-heater', label: 'Water heater', kind: 'appliance', motor: false },
  { name: 'dishwasher', label: 'Dishwasher', kind: 'appliance', motor: false },
  { name: 'disposal', label: 'Disposal', kind: 'appliance', motor: true },
  { name: 'cooling', label: 'Air conditioner', kind: 'cooling', motor: true },
  { name: 'heat', label: 'Electric heat', kind: 'space-heat', motor: false },
  { name: 'other', label: 'Pumps, tubs and others', kind: 'appliance', motor: false },
];
const NEW_KIND: Record<string, { kind: DwellingLoadKind; name: string }> = {
  charger: { kind: 'vehicle', name: 'EV charger' },
  'heat-pump': { kind: 'heat-pump', name: 'heat pump' },
  range: { kind: 'range', name: 'range' },
  'water-heater': { kind: 'appliance', name: 'water heater' },
  other: { kind: 'appliance', name: 'new load' },
};

/** The house as it was put down in the call. */
function dwellingOf({ log, view }: Context): Dwelling {
  const va = (name: string) => log.figure('appliances', name);
  const items = APPLIANCES.flatMap(({ name, label, kind, motor }): LoadItem[] => {
    const value = va(name);
    return value === null || value === 0
      ? []
      : [{ name: label.toLowerCase(), kind, va: value, volts: 240, motor, controls: 1, added: false }];
  });
  return {
    edition: view.edition,
    floorArea: log.figure('house', 'area') ?? 1500,
    smallApplianceCircuits: log.figure('house', 'kitchen') ?? 2,
    laundryCircuits: log.figure('house', 'laundry') ?? 1,
    items,
    oneFamily: true,
    material: 'copper',
  };
}

/** Whether the service takes what is to come, with its working. */
export function capacityOf(
  c: Context,
): { fits: boolean; amps: number; rating: number; lines: Line[]; spare: number | null } | null {
  const { log } = c;
  const rating = log.figure('service', 'main');
  const draw = log.figure('draw', 'amps');
  const what = NEW_KIND[log.pick('what') ?? ''];
  if (rating === null || draw === null || !what) return null;
  const managed = log.pick('managed') === 'yes' ? log.figure('managed-to', 'amps') : null;
  const added = managed ?? draw;
  if (log.picked('method', 'measured')) {
    const demand = log.figure('demand', 'amps');
    if (demand === null) return null;
    const total = 1.25 * demand + added;
    return {
      fits: total <= rating,
      amps: total,
      rating,
      spare: Math.max(0, rating - 1.25 * demand),
      lines: [
        {
          text: `1.25 × ${demand} A measured + ${added} A new = ${round(total, 1)} A, of ${rating} A`,
          section: '220.87',
        },
        { text: `Left for something new: ${round(Math.max(0, rating - 1.25 * demand), 1)} A.` },
      ],
    };
  }
  if (!log.has('appliances')) return null;
  const dwelling = dwellingOf(c);
  const load = dwellingLoad(
    { ...dwelling, items: [...dwelling.items, itemAt(what.name, what.kind, added)] },
    'existing',
  );
  if (!load.ok) return { fits: false, amps: 0, rating, spare: null, lines: [{ text: load.message }] };
  return {
    fits: load.value.amps <= rating,
    amps: load.value.amps,
    rating,
    spare: spareFor(dwelling, 'existing', rating, what.kind),
    lines: [
      ...load.value.lines.map((l) => ({ text: `${l.what}: ${l.working}`, section: l.section })),
      {
        text: `${Math.round(load.value.va).toLocaleString('en-US')} VA ÷ ${LINE} V = ${load.value.amps} A, of ${rating} A`,
        section: '220.83',
      },
    ],
  };
}

const va = (name: string, label: string): Figure => ({
  name,
  label,
  unit: 'VA',
  min: 0,
  max: 60000,
  optional: true,
});

export const panelCapacity: Procedure = {
  id: 'panel-capacity',
  title: 'Can my panel take it?',
  use: 'A charger, a heat pump or a range is to go on the service that is there.',
  steps: (c) =>
    framed(
      c,
      () => {
        const { log, document } = c;
        const panel = panelOf(document);
        const found = capacityOf(c);
        const fuses = log.picked('kind', 'fuses');
        const split = log.picked('kind', 'split');
        return [
          ask('what', 'What is to be added?', 'Each counts its own way in the load.', [
            ['charger', 'EV charger'],
            ['heat-pump', 'Heat pump or cooling'],
            ['range', 'Range or oven'],
            ['water-heater', 'Water heater'],
            ['other', 'Something else'],
          ]),
          measure('draw', 'What does it draw?', 'At 240 V, as marked; a charger as it is set.', [
            { name: 'amps', label: 'At 240 V', unit: 'A', min: 1, max: 200 },
          ]),
          ask(
            'kind',
            'What kind of panel?',
            'Some have no single main, and some cannot be trusted to trip.',
            [
              ['breakers', 'Breakers, one main'],
              ['split', 'Split bus: up to six mains'],
              ['fuses', 'Fuses'],
            ],
          ),
          measure(
            'service',
            'The service',
            'The smallest of main, conductors and meter base counts.',
            [
              {
                name: 'main',
                label: fuses ? 'Main fuses' : 'Main, or what feeds the bus',
                unit: 'A',
                min: 30,
                max: 400,
              },
              { name: 'bus', label: 'Bus, by its label', unit: 'A', min: 30, max: 400, optional: true },
              { name: 'free', label: 'Free spaces', unit: '', min: 0, max: 84 },
              { name: 'spaces', label: 'Spaces in all', unit: '', min: 2, max: 84, optional: true },
            ],
            {
              effects: ({ figures }) => {
                const of = (n: string) => figures.find((f) => f.name === n)?.value ?? null;
                return [
                  {
                    type: 'put',
                    table: 'panels',
                    rows: [
                      {
                        ...panel,
                        mainRating: of('main') ?? panel.mainRating,
                        busRating: of('bus') ?? panel.busRating,
                        spaces: of('spaces') ?? panel.spaces,
                        known: of('bus') !== null && of('spaces') !== null ? 'yes' : panel.known,
                      },
                    ],
                  },
                ];
              },
            },
          ),
          ask(
            'method',
            'How is the load known?',
            'What was measured beats what is added up from nameplates, where it was measured long enough.',
            [
              ['plates', 'From nameplates', '220.83'],
              ['measured', 'From a year of measured demand, or 30 days recorded', '220.87'],
            ],
          ),
          ...when(
            log.picked('method', 'measured'),
            measure(
              'demand',
              'Highest demand',
              'A year of the utility’s intervals; or 30 days recorded at its heaviest season, heat or cooling running.',
              [{ name: 'amps', label: 'Highest quarter hour, at 240 V', unit: 'A', min: 1, max: 400 }],
              {
                text: 'kW ÷ 0.24 is amperes at 240 V.',
                refuses: () => null,
              },
            ),
            look(
              'measured',
              'Is it a fair measure?',
              'A short look in a mild month says nothing.',
              [
                ['short', 'Less than 30 days'],
                ['season', 'Heat and cooling were off'],
                ['solar', 'Solar or battery behind the meter'],
              ],
              [['looked', 'Asked']],
              {
                refuses: ({ picks }) =>
                  picks.some((p) => p === 'short' || p === 'solar')
                    ? 'expected a year, or 30 days recorded, without a source behind the meter: else from nameplates, 220.87'
                    : null,
              },
            ),
          ),
          ...when(
            log.picked('method', 'plates'),
            measure('house', 'The house', 'Outside dimensions, without garage and porch.', [
              { name: 'area', label: 'Floor area', unit: 'ft²', min: 100, max: 20000 },
              {
                name: 'kitchen',
                label: 'Kitchen counter circuits',
                unit: '',
                min: 2,
                max: 10,
                optional: true,
              },
              { name: 'laundry', label: 'Laundry circuits', unit: '', min: 0, max: 4, optional: true },
            ]),
            measure(
              'appliances',
              'What is there, by nameplate',
              'Volts × amperes where no watts are marked.',
              APPLIANCES.map((a) => va(a.name, a.label)),
            ),
          ),
          ...when(
            found !== null,
            ask(
              'managed',
              found?.fits
                ? `It fits: ${round(found.amps, 1)} of ${found.rating} A`
                : `Too much: ${round(found?.amps ?? 0, 1)} of ${found?.rating ?? ''} A`,
              'The answer is a load calculation, with its working; the inspector has the last word.',
              [
                ['no', found?.fits ? 'That is the answer' : 'A larger service'],
                ['yes', 'With load management: it draws less', 'listed to hold it to a set figure'],
              ],
              { working: found?.lines ?? [] },
            ),
            ...when(
              log.picked('managed', 'yes'),
              measure(
                'managed-to',
                'Held to how much?',
                'The set figure counts, 625.42, 750.30; its setting is not for the user.',
                [
                  {
                    name: 'amps',
                    label: 'At 240 V',
                    unit: 'A',
                    min: 1,
                    max: 200,
                    ...(typeof found?.spare === 'number'
                      ? { expects: `up to ${round(found.spare, 1)}` }
                      : {}),
                  },
                ],
              ),
            ),
            work('space', 'Where does it go?', 'Capacity without a space is no answer.', [
              [
                (log.figure('service', 'free') ?? 0) >= 2
                  ? `${log.figure('service', 'free')} free spaces: two, one below the other, for a two-pole breaker.`
                  : 'No two free spaces: tandems where the label allows them, a subpanel, or a larger panel.',
              ],
              ...(fuses
                ? ([
                    ['Fuses: a subpanel of breakers beside it, or a new panel; insurers often ask for that.'],
                  ] as const)
                : []),
              ...(split
                ? ([
                    [
                      'Split bus: no single main. The new load must not go on the lighting main; the bus rating of its half counts.',
                      '',
                      '230.71',
                    ],
                  ] as const)
                : []),
            ]),
          ),
        ];
      },
      () => {
        const found = capacityOf(c);
        if (!found) return [];
        return [
          {
            text: found.fits
              ? `It fits: ${round(found.amps, 1)} A of ${found.rating} A.`
              : `It does not fit: ${round(found.amps, 1)} A on ${found.rating} A.`,
          },
          ...found.lines,
        ];
      },
    ),
};
