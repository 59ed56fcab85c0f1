/** Sets of sites as the bits of a number: up to 30 of them. */

export function setOf(sites: readonly number[]): number {
  let set = 0;
  for (const i of sites) set |= 1 << i;
  return set;
}

/** The lowest site of a set that is not empty. */
export const firstIn = (set: number): number => 31 - Math.clz32(set & -set);

/** Sites of a set, the lowest first. */
export function sitesIn(set: number): number[] {
  const sites: number[] = [];
  for (let left = set; left !== 0; left &= left - 1) sites.push(firstIn(left));
  return sites;
}
