import assert from 'node:assert/strict';
import { test } from 'node:test';
import { room } from '#core/job/testing.ts';
import { boundsOfAll, clustersOf } from './clusters.ts';

const at = (id: string, x: number, y: number, side = 120) => ({
  ...room([side, side, side, side], [90, 90, 90, 90], { x, y }),
  id,
});

test('rooms that stand together are one group, through each other too; a shed far off is another', () => {
  const house = [at('a', 0, 0), at('b', 125, 0), at('c', 250, 0)];
  const shed = at('shed', 600, 300, 60);
  const clusters = clustersOf([shed, ...house]);
  assert.deepEqual(
    clusters.map((c) => c.map((r) => r.id).sort()),
    [['a', 'b', 'c'], ['shed']],
  );
  assert.deepEqual(boundsOfAll(clusters[0]!), { left: 0, top: 0, right: 370, bottom: 120 });
  assert.equal(clustersOf([]).length, 0);
});
