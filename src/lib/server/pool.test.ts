import assert from 'node:assert/strict';
import { after, test } from 'node:test';
import { BusyError, Pool, TooLongError } from './pool.ts';

/** A thread that answers, sleeps, spins or dies as it is told. */
const code = `
  import { parentPort } from 'node:worker_threads';
  parentPort.on('message', (text) => {
    if (text === 'spin') for (;;);
    if (text === 'die') process.exit(3);
    if (text === 'throw') throw new Error('broken');
    setTimeout(() => parentPort.postMessage({ status: 200, body: text }), text === 'slow' ? 80 : 0);
  });`;
const url = new URL(`data:text/javascript,${encodeURIComponent(code)}`);
const pools: Pool[] = [];
const pool = (threads: number, waiting: number, limit = 5000) => {
  const made = new Pool(url, { threads, waiting, limit });
  pools.push(made);
  return made;
};
after(() => Promise.all(pools.map((p) => p.close())));

test('work is answered in its order, and threads are used again', async () => {
  const p = pool(2, 10);
  const answers = await Promise.all(['slow', 'a', 'b', 'c', 'd'].map((t) => p.run(t)));
  assert.deepEqual(
    answers.map((a) => a.body),
    ['slow', 'a', 'b', 'c', 'd'],
  );
});

test('more than may wait is refused at once, with when to come again', async () => {
  const p = pool(1, 1);
  const [first, second] = [p.run('slow'), p.run('slow')];
  await assert.rejects(p.run('a'), (error) => error instanceof BusyError && error.retryAfter === 5);
  await Promise.all([first, second]);
  assert.equal((await p.run('a')).body, 'a');
});

test('what takes too long is ended, what breaks is said, and the next is served', async () => {
  const p = pool(1, 5, 1500);
  const spun = assert.rejects(p.run('spin'), TooLongError);
  const broken = assert.rejects(p.run('throw'), /broken/);
  const died = assert.rejects(p.run('die'), /thread ended/);
  const next = p.run('a');
  await spun;
  await broken;
  await died;
  assert.equal((await next).body, 'a');
});
