/** The server with much to do: health goes on answering, too much is refused with when to come again, nothing dies. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { after, before, test } from 'node:test';
import { generatedHouse } from '../demo/generate.ts';
import { serialize } from '#core/job/file.ts';
import { startServer, type Server } from './support/server.ts';

const demo = readFileSync(new URL('../demo/tamarack-court.json', import.meta.url), 'utf8');
let server: Server;
before(async () => (server = await startServer()));
after(() => server.stop());

const post = (body: string, path = 'check', type = 'application/json') =>
  fetch(`${server.origin}/api/${path}`, { method: 'POST', body, headers: { 'content-type': type } });

/** How many times health answers while something goes on; how fast is measured by `npm run load`. */
async function healthDuring(work: Promise<unknown>): Promise<number> {
  let going = true;
  void work.finally(() => (going = false));
  let answers = 0;
  while (going) {
    assert.equal((await fetch(`${server.origin}/api/health`)).status, 200);
    if (going) answers++;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  return answers;
}

test('two hundred checks and the largest jobs at once: each is answered or told to come again', async () => {
  const big = serialize(generatedHouse(1500));
  const all = Promise.all([
    ...Array.from({ length: 6 }, () => post(big)),
    ...Array.from({ length: 200 }, () => post(demo)),
  ]);
  const answers = await healthDuring(all);
  const statuses = (await all).map((r) => r.status);
  assert.ok(
    statuses.every((s) => [200, 413, 422, 503].includes(s)),
    statuses.join(),
  );
  assert.ok(statuses.includes(200));
  const busy = (await all).find((r) => r.status === 503);
  assert.ok(busy && Number(busy.headers.get('retry-after')) > 0, 'a full queue says when to come again');
  assert.ok(answers > 3, `health answered ${answers} times meanwhile`);
  assert.equal((await post(demo)).status, 200, 'it works on afterwards');
});

test('brackets without end are refused before they are parsed, and a meter asked without end is cut', async () => {
  const nested = await post('['.repeat(4_000_000));
  assert.equal(nested.status, 422);
  assert.match(JSON.stringify(await nested.json()), /nested deeper/);
  const setup = JSON.stringify({ job: JSON.parse(demo), circuit: 'circuit-studio', box: 'box-s2' });
  const questions = post(`${setup}\n${'*OPC?\n'.repeat(100_000)}`, 'instrument', 'application/x-scpi')
    .then((r) => r.text())
    .catch(() => 'cut');
  const answers = await healthDuring(questions);
  assert.equal(await questions, 'cut');
  assert.ok(answers > 0, 'health answered meanwhile');
});

test('a body that dribbles in keeps nobody waiting', async () => {
  const { port } = new URL(server.origin);
  const sockets = Array.from({ length: 50 }, () => {
    const socket = connect(Number(port), '127.0.0.1');
    socket.on('error', () => {});
    socket.write(
      'POST /api/check HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 5000\r\n\r\n{',
    );
    return socket;
  });
  assert.equal((await post(demo)).status, 200);
  for (const socket of sockets) socket.destroy();
  assert.equal((await fetch(`${server.origin}/api/health`)).status, 200);
});

test('every answer carries its headers, assets too; wrong types get JSON; answers are not kept', async () => {
  const page = await fetch(server.origin);
  const script = /src="([^"]+\.js)"|href="([^"]+\.js)"/.exec(await page.text());
  const asset = await fetch(server.origin + (script?.[1] ?? script?.[2] ?? '/icon.svg'));
  const health = await fetch(`${server.origin}/api/health`);
  const missing = await fetch(`${server.origin}/api/nothing`);
  for (const answer of [page, asset, health, missing]) {
    assert.equal(answer.headers.get('x-content-type-options'), 'nosniff', answer.url);
    assert.equal(answer.headers.get('referrer-policy'), 'no-referrer', answer.url);
    assert.equal(answer.headers.get('x-frame-options'), 'DENY', answer.url);
  }
  assert.equal(health.headers.get('cache-control'), 'no-store');
  for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x']) {
    const answer = await post('a=1', 'check', type);
    assert.equal(answer.status, 415, type);
    assert.match(JSON.stringify(await answer.json()), /expected application\/json/);
  }
});

test('it listens on the loopback address alone', async () => {
  assert.match(new URL(server.origin).hostname, /localhost/);
  const { networkInterfaces } = await import('node:os');
  const outside = Object.values(networkInterfaces())
    .flat()
    .find((i) => i && !i.internal && i.family === 'IPv4');
  if (!outside) return;
  await assert.rejects(fetch(`http://${outside.address}:${new URL(server.origin).port}/api/health`));
});
