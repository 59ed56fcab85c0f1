/** Fill of a raceway, Chapter 9 Table 1: the area of what is in it against a share of its own. */
import type { Gauge } from '#core/job/schema.ts';
import {
  INSIDE_DIAMETER,
  TRADE_SIZES,
  wireArea,
  wireDiameter,
  type RacewayKind,
  type TradeSize,
  type Wire,
} from '#core/tables/raceways.ts';
import { fail, ok, type Result } from '#core/units/result.ts';

export interface RacewayFillInput {
  kind: RacewayKind;
  /** Null finds the smallest that will do. */
  size: TradeSize | null;
  /** 24 in. or less between boxes: 60 %, and no adjustment. */
  nipple: boolean;
  /** Grounds count here, each as a conductor. */
  conductors: readonly { wire: Wire; gauge: Gauge; count: number }[];
  /** Cables, each as one conductor of its greater diameter, inches. */
  cables: readonly { diameter: number; count: number }[];
}

export interface RacewayFill {
  size: TradeSize;
  fits: boolean;
  /** Area of what is in it, and of what may be, square inches. */
  used: number;
  allowed: number;
  /** Share of the raceway that may be filled, and that is, percent. */
  limitPercent: number;
  percent: number;
  /** Three alike may wedge in bends: inside diameter over one conductor’s, where it lies between 2.8 and 3.2. */
  jamRatio: number | null;
  section: string;
}

const JAM = { from: 2.8, to: 3.2 };
const circle = (diameter: number) => (Math.PI * diameter ** 2) / 4;

/** Table 1: one conductor 53 %, two 31 %, more 40 %; a nipple 60 %. */
const limitOf = (count: number, nipple: boolean): number =>
  nipple ? 60 : count === 1 ? 53 : count === 2 ? 31 : 40;

interface Bundle {
  count: number;
  used: number;
  /** Diameter of three alike, where that is all there is but grounds. */
  alike: number | null;
}

function bundleOf({ conductors, cables }: RacewayFillInput): Result<Bundle> {
  let used = 0;
  let count = 0;
  for (const { wire, gauge, count: n } of conductors) {
    const area = wireArea(wire, gauge);
    if (area === null)
      return fail(`conductors: there is no ${gauge} ${wire} in the table, expected 14 to 4/0 AWG`);
    used += n * area;
    count += n;
  }
  for (const { diameter, count: n } of cables) {
    used += n * circle(diameter);
    count += n;
  }
  const three = conductors.filter((c) => c.count > 0);
  const [first] = three;
  const alike =
    first && three.length === 1 && first.count === 3 && cables.length === 0
      ? wireDiameter(first.wire, first.gauge)
      : null;
  return count === 0 ? fail('conductors: expected one at least') : ok({ count, used, alike });
}

function fillIn(input: RacewayFillInput, size: TradeSize, { count, used, alike }: Bundle): RacewayFill {
  const inside = INSIDE_DIAMETER[input.kind][size];
  const limitPercent = limitOf(count, input.nipple);
  const allowed = (circle(inside) * limitPercent) / 100;
  const ratio = alike === null ? null : inside / alike;
  const [first] = input.conductors;
  // All of one size: a last conductor that fits by 0.8 and more counts as fitting, Note 7.
  const oneSize = input.conductors.length === 1 && input.cables.length === 0 && first !== undefined;
  const most = oneSize ? allowed / wireArea(first.wire, first.gauge)! : 0;
  const rounded = most - Math.floor(most) >= 0.8 ? Math.ceil(most) : Math.floor(most);
  return {
    size,
    fits: oneSize && count > 2 ? count <= rounded : used <= allowed + 1e-9,
    used,
    allowed,
    limitPercent,
    percent: (used / circle(inside)) * 100,
    jamRatio: ratio !== null && ratio >= JAM.from && ratio <= JAM.to ? ratio : null,
    section: 'Chapter 9 Table 1',
  };
}

/** The fill of a raceway, or of the smallest trade size to 2 in. that takes it. */
export function racewayFill(input: RacewayFillInput): Result<RacewayFill> {
  const bundle = bundleOf(input);
  if (!bundle.ok) return bundle;
  if (input.size !== null) return ok(fillIn(input, input.size, bundle.value));
  const found = TRADE_SIZES.map((size) => fillIn(input, size, bundle.value)).find((f) => f.fits);
  return found ? ok(found) : fail(`no ${input.kind} to 2 in. takes them`);
}
