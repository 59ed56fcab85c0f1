import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { sitesIn } from './bits.ts';
import { Clusters } from './clusters.ts';
import { randomFrom } from './random.ts';

interface Case {
  size: Int32Array;
  worth: Float64Array;
  way: Float64Array;
  edge: Float64Array;
  room: number;
}

function randomCase(n: number, seed: number, unit: number): Case {
  const random = randomFrom(seed);
  const whole = (most: number) => Math.floor(random() * most);
  const edge = new Float64Array(n * n);
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) edge[i * n + j] = edge[j * n + i] = whole(1000);
  return {
    size: Int32Array.from({ length: n }, () => unit * (1 + whole(3))),
    worth: Float64Array.from({ length: n }, () => whole(1500) - 300),
    way: Float64Array.from({ length: n }, () => whole(1000)),
    edge,
    room: unit * (1 + whole(6)) + whole(unit),
  };
}

/** Segments shortened to the widest gap on the best way between their ends (Floyd and Warshall with the larger of two). */
function shortened(one: Case): Case {
  const n = one.size.length;
  const all = Float64Array.from({ length: (n + 1) ** 2 }, (_, at) => {
    const [i, j] = [Math.floor(at / (n + 1)), at % (n + 1)];
    if (i === j) return 0;
    return i < n && j < n ? one.edge[i * n + j]! : one.way[Math.min(i, j)]!;
  });
  for (let k = 0; k <= n; k++)
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n; j++) {
        const by = Math.max(all[i * (n + 1) + k]!, all[k * (n + 1) + j]!);
        if (by < all[i * (n + 1) + j]!) all[i * (n + 1) + j] = by;
      }
  const edge = Float64Array.from({ length: n * n }, (_, at) => all[Math.floor(at / n) * (n + 1) + (at % n)]!);
  return { ...one, edge, way: Float64Array.from({ length: n }, (_, i) => all[i * (n + 1) + n]!) };
}

/** What sites bring beyond the cheapest segments that join them all to the tree. */
function brings({ worth, way, edge }: Case, sites: readonly number[]): number {
  const n = worth.length;
  const key = new Map(sites.map((i) => [i, way[i]!]));
  let sum = 0;
  while (key.size > 0) {
    const [i, by] = [...key].reduce((a, b) => (b[1] < a[1] ? b : a));
    key.delete(i);
    sum += worth[i]! - by;
    for (const [j, other] of key) key.set(j, Math.min(other, edge[i * n + j]!));
  }
  return sum;
}

/** The best of every set with each site, by trying them all. */
function bestWithEach(one: Case): number[] {
  const best = new Array<number>(one.size.length).fill(-Infinity);
  for (let set = 1; set < 1 << best.length; set++) {
    const sites = sitesIn(set);
    if (sites.reduce((load, i) => load + one.size[i]!, 0) > one.room) continue;
    const sum = brings(one, sites);
    for (const i of sites) best[i] = Math.max(best[i]!, sum);
  }
  return best;
}

const cases = fc.tuple(fc.integer({ min: 1, max: 8 }), fc.nat(1e6), fc.integer({ min: 1, max: 3 }));

/** What is said of each site of a case, none where all of them together bring too little. */
function weighed({ size, worth, way, edge, room }: Case, enough = -Infinity): number[] | null {
  const site = Int32Array.from(size.keys());
  const clusters = new Clusters(size, edge, room);
  const count = site.length;
  return clusters.weigh({ site, way, count }, worth, room, enough)
    ? [...clusters.most.slice(0, count)]
    : null;
}

test('no set with a site brings more than is said of the site', () => {
  fc.assert(
    fc.property(cases, ([n, seed, unit]) => {
      const one = randomCase(n, seed, unit);
      const said = weighed(one)!;
      bestWithEach(one).forEach((sum, i) => assert.ok(sum <= said[i]! + 1e-9, `${sum} for ${said[i]}`));
    }),
    { numRuns: 200 },
  );
});

test('where sites are as far apart as their clusters, the best set brings what is said', () => {
  fc.assert(
    fc.property(cases, ([n, seed, unit]) => {
      const one = shortened(randomCase(n, seed, unit));
      const best = bestWithEach(one);
      assert.deepEqual(weighed(one), best);
      const most = Math.max(0, ...best);
      assert.equal(weighed(one, most), null);
      assert.notEqual(weighed(one, most - 1), null);
    }),
    { numRuns: 200 },
  );
});

test('sites too large for the room bring nothing, and none of account are not weighed', () => {
  const one = { ...randomCase(3, 1, 1), size: Int32Array.of(4, 4, 9), room: 3 };
  assert.deepEqual(weighed(one), [-Infinity, -Infinity, -Infinity]);
  assert.equal(weighed(one, 0), null);
});
