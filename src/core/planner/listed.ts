/**
 * All sets of few sites that one circuit could take, priced once and looked through: where drop rules out most sets, that
 * takes less than a search that has to meet them to see it.
 */
import { firstIn, setOf, sitesIn } from './bits.ts';
import { OUT_OF_DROP, TINY, type Pricer } from './problem.ts';
import type { SetSource, Values, Visit } from './sets.ts';

/**
 * Visits sets by their load, and by the drop that any tree of theirs has at least: all of the current over the nearest
 * site's home run.
 * @param visit is told the sites, in room that is used again; stops where it says so
 */
function walk({ problem, largest, trunk }: Pricer, visit: (sites: readonly number[]) => boolean): void {
  const { ids, home, amps, size, options, maxDrop } = problem;
  // A trunk is fed over its own way, whatever joins it.
  const order = [...ids.keys()].sort((a, b) => +(trunk[b]! >= 0) - +(trunk[a]! >= 0) || home[a]! - home[b]!);
  const least = Math.min(...options.map((o) => o.ohmsPerInch));
  const sites: number[] = [];
  let going = true;
  const grow = (from: number, load: number, current: number): void => {
    for (let at = from; at < order.length && going; at++) {
      const i = order[at]!;
      const [units, all] = [load + size[i]!, current + amps[i]!];
      if (units > largest) continue;
      sites.push(i);
      const drop = 2 * least * home[sites[0]!]! * all;
      // A trunk by itself stays as it is.
      if (drop <= maxDrop + TINY || (sites.length === 1 && trunk[i]! >= 0)) {
        going = visit(sites);
        if (going) grow(at + 1, units, all);
      }
      sites.pop();
    }
  };
  grow(0, 0, 0);
}

/** Whether there are so few sets that listing them is worth it. */
export function isListable(pricer: Pricer, most: number): boolean {
  let count = 0;
  walk(pricer, () => ++count <= most);
  return count <= most;
}

export class ListedSets implements SetSource {
  private readonly pricer: Pricer;
  /** Sites as bits, and the price or what it is at least, cents. */
  private readonly sets: number[] = [];
  private readonly cents: number[] = [];

  constructor(pricer: Pricer) {
    this.pricer = pricer;
    walk(pricer, (sites) => {
      const cents = this.priceOf(sites) ?? pricer.floorCents(sites);
      if (cents >= OUT_OF_DROP) return true;
      this.sets.push(setOf(sites));
      this.cents.push(cents);
      return true;
    });
  }

  private priceOf(sites: readonly number[]): number | null {
    const plain = this.pricer.plainCents(sites);
    if (plain !== null) return plain;
    const { cents, exact } = this.pricer.branchedCents(sites);
    return exact ? cents : null;
  }

  below({ site, kind }: Values, limit: number, _most: number, visit: Visit): boolean {
    const { pricer, sets, cents } = this;
    const most = Math.max(...kind);
    for (let k = 0; k < sets.length; k++) {
      let rest = cents[k]!;
      for (let left = sets[k]!; left !== 0; left &= left - 1) rest -= site[firstIn(left)]!;
      if (rest - most >= limit) continue;
      const sites = sitesIn(sets[k]!);
      const reduced = rest - kind[pricer.kind(sites)]!;
      if (reduced < limit) limit = visit(sites, reduced);
    }
    return true;
  }

  /** Listed sets have no steps to spend and no boxes that are too full. */
  spend(): void {}
  penalize(): void {}
}
