/**
 * Box fill, 314.16(B): what counts, line by line, against the room that the box has. Cubic inches.
 */
import {
  CONDUCTOR_VOLUME,
  FILL_GAUGES,
  USUAL_BOXES,
  type FillGauge,
  type UsualBox,
} from '#core/tables/boxes.ts';
import { since } from '#core/tables/editions.ts';
import type { STANDS, Edition } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { plural } from '#core/units/words.ts';

interface Conductors {
  gauge: FillGauge;
  count: number;
  /** It ends or is spliced here, goes through unbroken, or goes through with twice the free length or more coiled. */
  stands: (typeof STANDS)[number];
}
interface Grounds {
  gauge: FillGauge;
  count: number;
}
interface Yoke {
  /** Largest conductor connected to it. */
  gauge: FillGauge;
  /** Gangs that the device is wide: a range receptacle takes two. */
  gangs: number;
}

/** What is in a box. Tails, jumpers and the leads of devices stay in it and count for nothing. */
export interface BoxContents {
  /** Insulated conductors that enter. */
  conductors: readonly Conductors[];
  /** Equipment grounds that enter. */
  grounds: readonly Grounds[];
  /** Grounds of isolated-ground receptacles, a set of their own. */
  isolatedGrounds: readonly Grounds[];
  /** Cable clamps inside the box; connectors outside count for nothing. */
  clamps: boolean;
  /** Kinds of support fittings inside: studs, hickeys. */
  fittings: number;
  yokes: readonly Yoke[];
  /** Largest conductor on an assembly of terminal blocks; null without one. */
  terminals: FillGauge | null;
}

export const EMPTY_BOX: BoxContents = {
  conductors: [],
  grounds: [],
  isolatedGrounds: [],
  clamps: false,
  fittings: 0,
  yokes: [],
  terminals: null,
};

interface FillLine {
  what: string;
  working: string;
  volume: number;
  section: string;
}

export interface Fill {
  lines: FillLine[];
  /** All of them together. */
  volume: number;
}

/** Grounds up to this number count as one conductor from 2020 on, each further one a quarter. */
const GROUNDS_AS_ONE = 4;

const largest = (gauges: readonly FillGauge[]): FillGauge | null =>
  gauges.reduce<FillGauge | null>(
    (most, g) => (most === null || FILL_GAUGES.indexOf(g) > FILL_GAUGES.indexOf(most) ? g : most),
    null,
  );
const line = (what: string, working: string, volume: number, section: string): FillLine => ({
  what,
  working: `${working} = ${round(volume, 2)} in³`,
  volume,
  section,
});

const WORDS: Record<Conductors['stands'], string> = {
  ends: 'that end or are spliced',
  passes: 'that pass through',
  loops: 'that loop through, twice each',
};

/** Those of one size that stand alike are one line. */
function alike(conductors: readonly Conductors[]): Conductors[] {
  const by = new Map<string, Conductors>();
  for (const c of conductors) {
    const key = `${c.gauge} ${c.stands}`;
    by.set(key, { ...c, count: c.count + (by.get(key)?.count ?? 0) });
  }
  return [...by.values()];
}

const conductorLines = (conductors: readonly Conductors[]): FillLine[] =>
  alike(conductors)
    .filter((c) => c.count > 0)
    .map(({ gauge, count, stands }) => {
      const times = stands === 'loops' ? 2 * count : count;
      const each = CONDUCTOR_VOLUME[gauge];
      return line(
        `${plural(count, 'conductor')} of ${gauge} AWG ${WORDS[stands]}`,
        `${times} × ${each}`,
        times * each,
        '314.16(B)(1)',
      );
    });

/** Grounds: 2017 one conductor for all, an isolated set one more; from 2020 a quarter more for each above four. */
function groundLines({ grounds, isolatedGrounds }: BoxContents, edition: Edition): FillLine[] {
  const count = (list: readonly Grounds[]) => list.reduce((n, g) => n + g.count, 0);
  const gaugeOf = (list: readonly Grounds[]) => largest(list.filter((g) => g.count > 0).map((g) => g.gauge));
  const section = '314.16(B)(5)';
  if (!since(edition, '2020')) {
    const set = (list: readonly Grounds[], name: string) => {
      const gauge = gaugeOf(list);
      return gauge === null
        ? []
        : [
            line(
              plural(count(list), name),
              `1 × ${CONDUCTOR_VOLUME[gauge]}`,
              CONDUCTOR_VOLUME[gauge],
              section,
            ),
          ];
    };
    return [...set(grounds, 'equipment ground'), ...set(isolatedGrounds, 'isolated ground')];
  }
  const all = [...grounds, ...isolatedGrounds];
  const gauge = gaugeOf(all);
  if (gauge === null) return [];
  const n = count(all);
  const more = Math.max(0, n - GROUNDS_AS_ONE);
  const each = CONDUCTOR_VOLUME[gauge];
  return [
    line(
      plural(n, 'equipment ground'),
      more > 0 ? `${each} × (1 + ${more} ÷ 4)` : `1 × ${each}`,
      each * (1 + more / GROUNDS_AS_ONE),
      section,
    ),
  ];
}

/** What a box holds, line by line. */
export function fillOf(contents: BoxContents, edition: Edition): Fill {
  const { conductors, grounds, isolatedGrounds, clamps, fittings, yokes, terminals } = contents;
  // What is one of the largest in the box looks at everything that enters.
  const entering = largest(
    [...conductors, ...grounds, ...isolatedGrounds].filter((c) => c.count > 0).map((c) => c.gauge),
  );
  const oneOf = entering === null ? 0 : CONDUCTOR_VOLUME[entering];
  const lines = [
    ...conductorLines(conductors),
    ...(clamps && entering !== null
      ? [line('Clamps inside', `1 × ${oneOf}, the largest (${entering} AWG)`, oneOf, '314.16(B)(2)')]
      : []),
    ...(fittings > 0 && entering !== null
      ? [
          line(
            plural(fittings, 'kind of support fitting', 'kinds of support fittings'),
            `${fittings} × ${oneOf}`,
            fittings * oneOf,
            '314.16(B)(3)',
          ),
        ]
      : []),
    ...yokes.map(({ gauge, gangs }) => {
      const volume = 2 * gangs * CONDUCTOR_VOLUME[gauge];
      return line(
        gangs > 1 ? `Device ${gangs} gangs wide on ${gauge} AWG` : `Device on ${gauge} AWG`,
        `${2 * gangs} × ${CONDUCTOR_VOLUME[gauge]}`,
        volume,
        '314.16(B)(4)',
      );
    }),
    ...groundLines(contents, edition),
    ...(terminals !== null
      ? [
          line(
            'Terminal blocks',
            `1 × ${CONDUCTOR_VOLUME[terminals]}`,
            CONDUCTOR_VOLUME[terminals],
            '314.16(B)(6)',
          ),
        ]
      : []),
  ];
  return { lines, volume: lines.reduce((sum, l) => sum + l.volume, 0) };
}

/** Whether a fill goes into a box: exactly full passes. */
export const fits = ({ volume }: Fill, room: number): boolean => volume <= room + 1e-9;

/** The smallest usual box of a material that takes it, with gangs enough; null where none does. */
export const smallestBox = (fill: Fill, material: UsualBox['material'], gangs = 1): UsualBox | null =>
  USUAL_BOXES.filter((b) => b.material === material && b.gangs >= gangs && fits(fill, b.volume)).sort(
    (a, b) => a.volume - b.volume,
  )[0] ?? null;
