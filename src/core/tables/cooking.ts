/** Demand of household cooking appliances, Table 220.55. */
import { fail, ok, type Result } from '#core/units/result.ts';

const sum = (items: readonly { va: number }[]): number => items.reduce((total, { va }) => total + va, 0);

/** Table 220.55 column C, kW, for one to five ranges of up to 12 kW. */
const RANGE_DEMAND = [8, 11, 14, 17, 20] as const;
/** Columns A and B of Table 220.55: shares of the nameplate for one to five under 3.5 kW, and from there to 8.75 kW. */
const SMALL_RANGE_SHARE = [0.8, 0.75, 0.7, 0.66, 0.62] as const;
const MIDDLE_RANGE_SHARE = [0.8, 0.65, 0.55, 0.5, 0.45] as const;

/** Demand of household cooking appliances, Table 220.55 with its notes. */
export function rangeDemand(ranges: readonly { va: number }[]): Result<{ va: number; working: string }> {
  if (ranges.length === 0) return ok({ va: 0, working: 'none' });
  if (ranges.length > RANGE_DEMAND.length)
    return fail(`${ranges.length} ranges: worked here for up to ${RANGE_DEMAND.length}`);
  const kilowatts = ranges.map((r) => r.va / 1000);
  const over = kilowatts.find((kw) => kw > 27);
  if (over !== undefined) return fail(`a range of ${over} kW: the table ends at 27 kW`);
  const all = sum(ranges);
  // Note 1 and 2: above 12 kW, 5 % more for each kW or major fraction of one; unequal ones by their average.
  const average = kilowatts.reduce((t, kw) => t + Math.max(12, kw), 0) / ranges.length;
  const steps = Math.floor(average - 12 + 0.5);
  const base = RANGE_DEMAND[ranges.length - 1]!;
  const byColumn = base * 1000 * (1 + 0.05 * steps);
  const working = steps > 0 ? `${base} kW × (1 + ${steps} × 5 %)` : `${base} kW for ${ranges.length}`;
  // Note 3: where none is above 8.75 kW the shares of columns A and B may be used instead.
  if (kilowatts.every((kw) => kw <= 8.75)) {
    const small = ranges.filter((r) => r.va < 3500);
    const middle = ranges.filter((r) => r.va >= 3500);
    const byShare =
      sum(small) * (SMALL_RANGE_SHARE[small.length - 1] ?? 0) +
      sum(middle) * (MIDDLE_RANGE_SHARE[middle.length - 1] ?? 0);
    if (byShare < byColumn)
      return ok({
        va: byShare,
        working: `${Math.round((100 * byShare) / all)} % × ${Math.round(all).toLocaleString('en-US')}`,
      });
  }
  return ok({ va: byColumn, working });
}
