/**
 * Service and feeder load of one dwelling unit at 120/240 V, Article 220: the standard method (Part III), the
 * optional method (220.82), and an existing dwelling that gets more load (220.83). Every line says its section.
 */
import type { DwellingLoadKind } from '#core/tables/loadKinds.ts';
import { at, since, type PerEdition } from '#core/tables/editions.ts';
import { ampacity, GAUGES_BY_SIZE, STANDARD_BREAKERS, type Material } from '#core/tables/conductors.ts';
import { DWELLING_SHARE } from '#core/tables/circuits.ts';
import { rangeDemand } from '#core/tables/cooking.ts';
import type { Edition, Gauge } from '#core/job/schema.ts';
import { fail, ok, type Result } from '#core/units/result.ts';

/** One thing on a nameplate. A cooktop and its ovens on one circuit are one range of their sum. */
export interface LoadItem {
  name: string;
  kind: DwellingLoadKind;
  va: number;
  /** Voltage it works at; what works at 120 V loads the neutral. */
  volts: 120 | 240;
  /** Driven by a motor, which counts for the largest motor of 220.50. */
  motor: boolean;
  /** Electric space heat: heating units with a control of their own. */
  controls: number;
  /** Installed with this job, beside what the dwelling has. */
  added: boolean;
}

export interface Dwelling {
  edition: Edition;
  /** Outside dimensions, without garage, open porches and unfinished space that cannot be adapted, ft². */
  floorArea: number;
  smallApplianceCircuits: number;
  laundryCircuits: number;
  items: readonly LoadItem[];
  /** A one-family house has a service of 100 A at least, 230.79(C). */
  oneFamily: boolean;
  material: Material;
}

export const LOAD_METHODS = ['standard', 'optional', 'existing'] as const;
export type LoadMethod = (typeof LOAD_METHODS)[number];

/** Where each method stands in the code. */
export const LOAD_SECTION: Record<LoadMethod, string> = {
  standard: '220.40',
  optional: '220.82',
  existing: '220.83',
};

interface LoadLine {
  what: string;
  /** The formula with its numbers in. */
  working: string;
  va: number;
  section: string;
  /** What it is made of before the demand factor of the line. */
  parts?: LoadLine[];
}

export interface DwellingLoad {
  method: LoadMethod;
  /** What the total is made of, in the order of the arithmetic; their `va` add up to `va`. */
  lines: LoadLine[];
  va: number;
  /** At 240 V, with a fraction below one half dropped. */
  amps: number;
  /** Smallest standard rating that serves, and no less than the dwelling's own least, amperes. */
  rating: number;
  /** Service or main feeder conductor by the 83 % rule. */
  conductor: Gauge;
  /** Neutral load by 220.61; only the standard method gives one. */
  neutral: { lines: LoadLine[]; va: number; amps: number } | null;
}

/** Line voltage of the service. */
const LINE = 240;
const PER_SQUARE_FOOT = 3;
const PER_CIRCUIT = 1500;
/** Least load of a clothes dryer, 220.54. */
const LEAST_DRYER = 5000;
/** Least load of vehicle supply equipment from 2023, 220.57. */
const LEAST_VEHICLE = 7200;

const UNIT_LOAD: PerEdition<string> = { '2017': '220.12', '2020': '220.14(J)', '2023': '220.41' };
const LIGHTING_DEMAND: PerEdition<string> = {
  '2017': 'Table 220.42',
  '2020': 'Table 220.42',
  '2023': 'Table 220.45',
};

const plain = (value: number): string => Math.round(value).toLocaleString('en-US');
const line = (what: string, working: string, va: number, section: string): LoadLine => ({
  what,
  working: `${working} = ${plain(va)} VA`,
  va,
  section,
});
const sum = (items: readonly { va: number }[]): number => items.reduce((total, { va }) => total + va, 0);
const named = (items: readonly LoadItem[]): string =>
  items.map((i) => `${i.name} ${plain(i.va)}`).join(' + ');
const ofKind = (dwelling: Dwelling, ...kinds: DwellingLoadKind[]): LoadItem[] =>
  dwelling.items.filter((i) => kinds.includes(i.kind));

/** General lighting and receptacles, and the required circuits, before any demand factor. */
function generalLines({ edition, floorArea, smallApplianceCircuits, laundryCircuits }: Dwelling): LoadLine[] {
  return [
    line(
      'General lighting and receptacles',
      `${PER_SQUARE_FOOT} VA × ${plain(floorArea)} ft²`,
      PER_SQUARE_FOOT * floorArea,
      at(UNIT_LOAD, edition),
    ),
    line(
      'Small-appliance circuits',
      `${smallApplianceCircuits} × ${plain(PER_CIRCUIT)} VA`,
      smallApplianceCircuits * PER_CIRCUIT,
      '220.52(A)',
    ),
    line(
      'Laundry circuits',
      `${laundryCircuits} × ${plain(PER_CIRCUIT)} VA`,
      laundryCircuits * PER_CIRCUIT,
      '220.52(B)',
    ),
  ];
}

/** Takes a load through steps of demand: the first so much in full, the next at a share of it, and so on. */
function demand(
  va: number,
  steps: readonly (readonly [upTo: number, share: number])[],
): { va: number; working: string } {
  let below = 0;
  let total = 0;
  const parts: string[] = [];
  for (const [upTo, share] of steps) {
    const part = Math.min(va, upTo) - below;
    if (part <= 0) break;
    total += part * share;
    parts.push(share === 1 ? plain(part) : `${Math.round(share * 100)} % × ${plain(part)}`);
    below = upTo;
  }
  return { va: total, working: parts.join(' + ') || '0' };
}

/** Lines added up and taken through a demand factor as one. */
const together = (
  what: string,
  parts: LoadLine[],
  { va, working }: { va: number; working: string },
  section: string,
): LoadLine => ({ ...line(`${what}: ${plain(sum(parts))} VA`, working, va, section), parts });

/** What vehicle supply equipment counts. */
function vehicleLine({ edition }: Dwelling, { name, va }: LoadItem): LoadLine {
  return since(edition, '2023')
    ? line(name, `larger of ${plain(LEAST_VEHICLE)} and ${plain(va)}`, Math.max(LEAST_VEHICLE, va), '220.57')
    : line(name, `continuous: 125 % × ${plain(va)}`, 1.25 * va, '625.41');
}

/** Heating and cooling are not on together: the larger counts, 220.60. */
function climate(dwelling: Dwelling): { heat: LoadItem[]; cool: LoadItem[] } {
  return {
    heat: ofKind(dwelling, 'heat-pump', 'supplementary-heat', 'space-heat', 'storage-heat'),
    cool: ofKind(dwelling, 'cooling', 'heat-pump'),
  };
}

/** Fastened appliances: four or more at 75 %, 220.53. From 2020 only those of 500 W and up are counted so. */
function applianceLines(edition: Edition, appliances: readonly LoadItem[]): LoadLine[] {
  const belongs = (i: LoadItem) => !since(edition, '2020') || i.va >= 500;
  const reduced = appliances.filter(belongs);
  const rest = appliances.filter((i) => !belongs(i));
  const lines: LoadLine[] = [];
  if (reduced.length >= 4)
    lines.push(
      line(
        `${reduced.length} fastened appliances`,
        `75 % × (${named(reduced)})`,
        0.75 * sum(reduced),
        '220.53',
      ),
    );
  else for (const i of reduced) lines.push(line(i.name, plain(i.va), i.va, '220.53'));
  for (const i of rest) lines.push(line(i.name, plain(i.va), i.va, '220.53'));
  return lines;
}

function standard(dwelling: Dwelling): Result<Pick<DwellingLoad, 'lines' | 'neutral'>> {
  const { edition } = dwelling;
  const general = generalLines(dwelling);
  const lighting = demand(sum(general), [
    [3000, 1],
    [120000, 0.35],
    [Infinity, 0.25],
  ]);
  const first = together(
    'General lighting, receptacles and required circuits',
    general,
    lighting,
    at(LIGHTING_DEMAND, edition),
  );
  const appliances = ofKind(dwelling, 'appliance');
  const fastened = applianceLines(edition, appliances);
  const dryers = ofKind(dwelling, 'dryer').map((d) =>
    line(d.name, `larger of ${plain(LEAST_DRYER)} and ${plain(d.va)}`, Math.max(LEAST_DRYER, d.va), '220.54'),
  );
  const ranges = ofKind(dwelling, 'range');
  const cooking = rangeDemand(ranges);
  if (!cooking.ok) return cooking;
  const ranged =
    ranges.length === 0
      ? []
      : [line(ranges.map((r) => r.name).join(', '), cooking.value.working, cooking.value.va, 'Table 220.55')];
  const vehicles = ofKind(dwelling, 'vehicle').map((v) => vehicleLine(dwelling, v));
  const { heat, cool } = climate(dwelling);
  const largestMotor = (choice: readonly LoadItem[]): LoadItem | undefined =>
    [...appliances, ...choice].filter((i) => i.motor).sort((x, y) => y.va - x.va)[0];
  // The two are compared with the quarter that a motor among them brings, 220.60.
  const withMotor = (choice: readonly LoadItem[]) => sum(choice) + 0.25 * (largestMotor(choice)?.va ?? 0);
  const heating = withMotor(heat) >= withMotor(cool);
  const chosen = heating ? heat : cool;
  const climateLines =
    chosen.length === 0
      ? []
      : [
          line(
            `${heating ? 'Heating' : 'Cooling'}, the larger of the two`,
            named(chosen),
            sum(chosen),
            heating ? '220.51, 220.60' : '220.50, 220.60',
          ),
        ];
  const largest = largestMotor(chosen);
  const motorLines = largest
    ? [
        line(
          `Largest motor: ${largest.name}`,
          `25 % × ${plain(largest.va)}`,
          0.25 * largest.va,
          '220.50, 430.24',
        ),
      ]
    : [];
  const lines = [first, ...fastened, ...dryers, ...ranged, ...vehicles, ...climateLines, ...motorLines];

  const seventy = (l: LoadLine): LoadLine => line(l.what, `70 % × ${plain(l.va)}`, 0.7 * l.va, '220.61(B)');
  const small = appliances.filter((i) => i.volts === 120);
  const smallMotor = small.filter((i) => i.motor).sort((x, y) => y.va - x.va)[0];
  const reducedTogether = appliances.filter((i) => !since(edition, '2020') || i.va >= 500).length >= 4;
  const unbalanced = [
    first,
    ...small.map((i) => {
      const share = reducedTogether && (!since(edition, '2020') || i.va >= 500) ? 0.75 : 1;
      return line(i.name, share === 1 ? plain(i.va) : `75 % × ${plain(i.va)}`, share * i.va, '220.61(A)');
    }),
    ...dryers.map(seventy),
    ...ranged.map(seventy),
    ...(smallMotor
      ? [
          line(
            `Largest motor on the neutral: ${smallMotor.name}`,
            `25 % × ${plain(smallMotor.va)}`,
            0.25 * smallMotor.va,
            '220.50',
          ),
        ]
      : []),
  ];
  const amps = sum(unbalanced) / LINE;
  // What is above 200 A counts at 70 %, 220.61(B)(2).
  const reduced = amps > 200 ? 200 + 0.7 * (amps - 200) : amps;
  return ok({
    lines,
    neutral: { lines: unbalanced, va: sum(unbalanced), amps: dropFraction(reduced) },
  });
}

/** Nameplates of 220.82(B)(3) and 220.83: everything fastened but heating and cooling. */
const everythingElse = (dwelling: Dwelling): LoadLine[] => [
  ...ofKind(dwelling, 'appliance', 'range', 'dryer').map((i) =>
    line(i.name, `nameplate ${plain(i.va)}`, i.va, 'nameplate'),
  ),
  ...ofKind(dwelling, 'vehicle').map((v) =>
    since(dwelling.edition, '2023')
      ? vehicleLine(dwelling, v)
      : line(v.name, `nameplate ${plain(v.va)}`, v.va, 'nameplate'),
  ),
];

/** Share at which electric space heat counts in 220.82(C), by the number of its controls. */
const heatShare = (items: readonly LoadItem[]): number =>
  items.reduce((n, i) => n + i.controls, 0) >= 4 ? 0.4 : 0.65;

function optional(dwelling: Dwelling): Result<Pick<DwellingLoad, 'lines' | 'neutral'>> {
  const general = [...generalLines(dwelling), ...everythingElse(dwelling)];
  const total = demand(sum(general), [
    [10000, 1],
    [Infinity, 0.4],
  ]);
  const cooling = ofKind(dwelling, 'cooling');
  const pumps = ofKind(dwelling, 'heat-pump');
  const extra = ofKind(dwelling, 'supplementary-heat');
  const space = ofKind(dwelling, 'space-heat');
  const storage = ofKind(dwelling, 'storage-heat');
  const share = heatShare(space);
  const choices: LoadLine[] = [
    line('Air conditioning', `100 % × (${named(cooling)})`, sum(cooling), '220.82(C)(1)'),
    line(
      'Heat pump with supplementary heat',
      `100 % × (${named(pumps)})${extra.length > 0 ? ` + 65 % × (${named(extra)})` : ''}`,
      sum(pumps) + 0.65 * sum(extra),
      extra.length > 0 ? '220.82(C)(3)' : '220.82(C)(2)',
    ),
    line(
      `Electric space heat, ${share === 0.4 ? 'four or more controls' : 'fewer than four controls'}`,
      `${share * 100} % × (${named(space)})`,
      share * sum(space),
      share === 0.4 ? '220.82(C)(5)' : '220.82(C)(4)',
    ),
    line('Thermal storage', `100 % × (${named(storage)})`, sum(storage), '220.82(C)(6)'),
  ];
  const largest = choices.reduce((a, b) => (b.va > a.va ? b : a));
  return ok({
    lines: [
      together('All but heating and cooling', general, total, '220.82(B)'),
      ...(largest.va > 0 ? [largest] : []),
    ],
    neutral: null,
  });
}

function existing(dwelling: Dwelling): Result<Pick<DwellingLoad, 'lines' | 'neutral'>> {
  const { heat, cool } = climate(dwelling);
  const added = [...new Set([...heat, ...cool])].some((i) => i.added);
  const heating = sum(heat) >= sum(cool);
  const larger = heating ? heat : cool;
  const space = larger.filter((i) => i.kind === 'space-heat');
  const many = space.reduce((n, i) => n + i.controls, 0) >= 4;
  // The table of (B) names fewer than four separately controlled units; more of them stay with the other load.
  const full = added ? larger.filter((i) => i.kind !== 'space-heat' || !many) : [];
  const rest = larger.filter((i) => !full.includes(i));
  const general = [
    ...generalLines(dwelling),
    ...everythingElse(dwelling),
    ...rest.map((i) => line(i.name, `nameplate ${plain(i.va)}`, i.va, 'nameplate')),
  ];
  const total = demand(sum(general), [
    [8000, 1],
    [Infinity, 0.4],
  ]);
  return ok({
    lines: [
      together(
        full.length > 0 ? 'All but the heating or cooling that counts in full' : 'All loads',
        general,
        total,
        added ? '220.83(B)' : '220.83(A)',
      ),
      ...(full.length > 0
        ? [
            line(
              heating ? 'Heating, the larger of the two' : 'Cooling, the larger of the two',
              `100 % × (${named(full)})`,
              sum(full),
              '220.83(B)',
            ),
          ]
        : []),
    ],
    neutral: null,
  });
}

const METHODS = { standard, optional, existing } as const;

/** 220.5(B): a fraction of an ampere below one half may be dropped. */
const dropFraction = (amps: number): number => {
  const whole = Math.floor(amps + 1e-9);
  return amps - whole < 0.5 - 1e-9 ? whole : Math.round(amps * 100) / 100;
};

/** The conductor of a dwelling's service or main feeder: 83 % of the rating in the 75 °C column, 310.12. */
export const serviceConductor = (rating: number, material: Material): Gauge | null =>
  GAUGES_BY_SIZE.find((g) => (ampacity(g, material, 75) ?? 0) >= DWELLING_SHARE * rating - 1e-9) ?? null;

/**
 * Works out a dwelling's load.
 * @returns the load, or which figure cannot be worked with
 */
export function dwellingLoad(dwelling: Dwelling, method: LoadMethod): Result<DwellingLoad> {
  const worked = METHODS[method](dwelling);
  if (!worked.ok) return worked;
  const { lines, neutral } = worked.value;
  const va = sum(lines);
  const amps = dropFraction(va / LINE);
  const least = method === 'optional' || dwelling.oneFamily ? 100 : 60;
  const rating = STANDARD_BREAKERS.find((r) => r >= Math.max(amps, least) - 1e-9);
  if (rating === undefined)
    return fail(`${plain(amps)} A is above 400 A, the largest rating worked with here`);
  const conductor = serviceConductor(rating, dwelling.material);
  if (conductor === null) return fail(`no conductor of the table serves ${rating} A`);
  return ok({ method, lines, va, amps, rating, conductor, neutral });
}
