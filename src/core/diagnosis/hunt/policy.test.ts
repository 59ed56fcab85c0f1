/**
 * The advice against the best there is: on small circuits every measure that may follow every answer is tried out, three deep,
 * and then looking where it most likely is; what the advice costs is held against that.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Finding } from './evidence.ts';
import { Hunt } from './hunt.ts';
import { measureKey, USUAL_SITUATION } from './measures.ts';
import { openMeasures, weigh } from './next.ts';
import { chainGround } from './testing.ts';
import { choose, endsOf, split, sumOf, type Option, type Weighed } from './toGo.ts';

/** How deep all is tried, and how deep the advice is followed before looking. */
const DEEP = 3;
const FOLLOWED = 8;

interface Game {
  options: readonly (Option & { key: string })[];
  weighed: readonly Weighed[];
  minutes: readonly number[];
}

/** Looking for one cause after the other, those first that have the largest share for their minutes. */
function looking(p: ArrayLike<number>, { weighed, minutes }: Game): number {
  const sums = new Float64Array(minutes.length);
  weighed.forEach(({ group }, i) => (sums[group]! += p[i]!));
  const order = minutes.map((_, g) => g).sort((a, b) => sums[b]! / minutes[b]! - sums[a]! / minutes[a]!);
  let left = sumOf(sums);
  let spent = 0;
  for (const g of order) {
    spent += left * minutes[g]!;
    left -= sums[g]!;
  }
  return spent;
}

/** Fewest minutes to the end, by share: whatever is measured next, and next after that. */
function best(p: Float64Array, game: Game, asked: ReadonlySet<string>, deep: number): number {
  let least = looking(p, game);
  if (deep === 0) return least;
  const share = sumOf(p);
  for (const { key, cost, table } of game.options) {
    if (asked.has(key)) continue;
    let spent = share * cost;
    if (spent >= least) continue;
    const next = new Set([...asked, key]);
    for (const q of split(table, p).values()) {
      spent += best(q, game, next, deep - 1);
      if (spent >= least) break;
    }
    least = Math.min(least, spent);
  }
  return least;
}

/** What the advice costs in the same game. */
function advised(p: Float64Array, game: Game, asked: ReadonlySet<string>, left: number): number {
  const open = game.options.filter((o) => !asked.has(o.key));
  const { best: chosen, looks } = choose(open, p, game.weighed, game.minutes);
  if (chosen === null || looks || left === 0) return looking(p, game);
  const next = new Set([...asked, chosen.key]);
  let spent = sumOf(p) * chosen.cost;
  for (const q of split(chosen.table, p).values()) spent += advised(q, game, next, left - 1);
  return spent;
}

const works = (stop: number, does: 'dead' | 'dim'): Finding => ({ kind: 'works', stop, does });
const CASES: readonly { boxes: number; said: readonly Finding[] }[] = [
  { boxes: 2, said: [works(1, 'dead')] },
  { boxes: 2, said: [works(1, 'dim')] },
  { boxes: 3, said: [works(2, 'dead')] },
  { boxes: 3, said: [works(1, 'dead')] },
  { boxes: 3, said: [works(2, 'dim')] },
  {
    boxes: 3,

    said: [{ kind: 'breaker', does: 'trips at once', unplugged: true, minutes: null, amps: null }],
  },
];

const ASKED = /^(?:volts|open|breaker|elsewhere|appliance|ohms \d+ {2}hotNeutral)/;

for (const { boxes, said } of CASES)
  test(`${boxes} boxes, ${JSON.stringify(said[0])}: within 15 % of the best`, () => {
    const ground = chainGround(boxes, 15, -1);
    const hunt = new Hunt(ground);
    const evidence = said.map((finding, k) => ({ id: `said ${k}`, after: 0, finding }));
    const weighed = weigh(hunt, hunt.diagnose(evidence)).slice(0, 60);
    const options = openMeasures(hunt, weighed, evidence, [], USUAL_SITUATION)
      .map((o) => ({ ...o, key: measureKey(o.measure) }))
      .filter((o) => ASKED.test(o.key));
    const game = { options, weighed, minutes: endsOf(weighed, ground.run, USUAL_SITUATION) };
    const p = Float64Array.from(weighed, (w) => w.share);
    const least = best(p, game, new Set(), DEEP);
    const cost = advised(p, game, new Set(), FOLLOWED);
    assert.ok(cost <= 1.15 * least, `${cost} minutes by the advice, ${least} at best`);
  });
