/**
 * Which breaker feeds an outlet, by turning some off and looking: every flip leaves those that agree with all of them. The
 * next group is one side of the Huffman tree over how likely each is (Huffman, Proc. IRE 1952), which finds the breaker in
 * the fewest flips on average; where all are alike that halves the panel.
 */

/** A breaker that may feed the outlet. */
export interface Candidate {
  /** Its space, with the half of a tandem: `7`, `12a`. */
  space: string;
  /** How likely it is beside the others: by what the directory says, say. Above 0. */
  weight: number;
  /** It stays on: something hangs on it that must not go dark. */
  staysOn?: boolean;
}

/** What one look showed: breakers that were off then, by their spaces, and whether the outlet was dead. */
export interface Flip {
  off: readonly string[];
  dead: boolean;
}

export interface BreakerSearch {
  /** Spaces that agree with every flip. */
  possible: readonly string[];
  /** The one that is left, once the outlet was seen dead with it off; else null. */
  certain: string | null;
  /** None is left: a flip was read wrong, or more than one breaker or another panel feeds the outlet. */
  contradicted: boolean;
  /** Breakers to turn off for the next look; null when there is nothing more to learn by it. */
  next: readonly string[] | null;
  /** Most looks that are still to come. */
  atMost: number;
}

interface Branch {
  weight: number;
  leaves: readonly Candidate[];
  /** Looks below here, at most. */
  depth: number;
  sides: readonly [Branch, Branch] | null;
}

function huffman(candidates: readonly Candidate[]): Branch {
  const branches = candidates.map((c): Branch => ({ weight: c.weight, leaves: [c], depth: 0, sides: null }));
  while (branches.length > 1) {
    // Of equal weights the shallow ones go together, so that no path is longer than it has to be.
    branches.sort((a, b) => a.weight - b.weight || a.depth - b.depth);
    const [a, b] = branches.splice(0, 2) as [Branch, Branch];
    branches.push({
      weight: a.weight + b.weight,
      leaves: [...a.leaves, ...b.leaves],
      depth: 1 + Math.max(a.depth, b.depth),
      sides: [a, b],
    });
  }
  return branches[0]!;
}

const bySpace = (a: string, b: string): number => parseInt(a) - parseInt(b) || a.localeCompare(b);
const spaces = (list: readonly Candidate[]): string[] => list.map((c) => c.space).sort(bySpace);

/** Where the search stands after some flips. @throws when there is no breaker to look for */
export function searchBreaker(candidates: readonly Candidate[], flips: readonly Flip[]): BreakerSearch {
  if (candidates.length === 0) throw new Error('There is no breaker on record to look for');
  const left = candidates.filter(({ space }) => flips.every(({ off, dead }) => off.includes(space) === dead));
  const done = { possible: spaces(left), certain: null, contradicted: false, next: null, atMost: 0 };
  const [only] = left;
  if (!only) return { ...done, contradicted: true };
  if (left.length === 1) {
    if (flips.some(({ off, dead }) => dead && off.includes(only.space)))
      return { ...done, certain: only.space };
    // Nothing else is left, but nobody saw the outlet dead: it may hang on another panel.
    return only.staysOn ? done : { ...done, next: [only.space], atMost: 1 };
  }
  const tree = huffman(left);
  const sides = tree.sides!.map((s) => s.leaves).sort((a, b) => a.length - b.length);
  const free = sides.find((side) => side.every((c) => !c.staysOn)) ?? left.filter((c) => !c.staysOn);
  if (free.length === 0) return done;
  return { ...done, next: spaces(free), atMost: tree.depth + 1 };
}
