/** How much of its long walks a run takes: a sample in `npm test`, the whole of them in `npm test -- --whole`. */
const WHOLE = process.env.HEKTO_WHOLE === 'yes';

/** How often something is tried. */
export const tries = (sample: number, whole: number): number => (WHOLE ? whole : sample);

/**
 * One case in so many of a list, the first of each so many.
 * @param always cases that no sample leaves out
 */
export const oneIn = <T>(n: number, cases: readonly T[], always: (of: T) => boolean = () => false): T[] =>
  cases.filter((c, k) => WHOLE || k % n === 0 || always(c));
