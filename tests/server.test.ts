import { check } from '../src/core/code/checker.ts';
import { parseFile } from '../src/core/job/file.ts';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { after, before, test } from 'node:test';
import Ajv from 'ajv/dist/2020.js';
import { startServer, type Server } from './support/server.ts';

const demo = readFileSync(new URL('../demo/tamarack-court.json', import.meta.url), 'utf8');
let server: Server;
before(async () => (server = await startServer()));
after(() => server.stop());

const post = (body: BodyInit, headers: Record<string, string> = { 'content-type': 'application/json' }) =>
  fetch(`${server.origin}/api/check`, { method: 'POST', body, headers });
const problems = async (response: Response) =>
  ((await response.json()) as { problems: { path: string; message: string }[] }).problems;

test('health says it is alive', async () => {
  assert.deepEqual(await (await fetch(`${server.origin}/api/health`)).json(), {
    status: 'ok',
    jobFileVersion: 5,
  });
});

test('the published schema accepts the demo job', async () => {
  const response = await fetch(`${server.origin}/api/schema`);
  assert.match(response.headers.get('content-type') ?? '', /schema\+json/);
  const validate = new Ajv({ strict: false }).compile((await response.json()) as object);
  assert.equal(validate(JSON.parse(demo)), true);
});

test('a job is checked', async () => {
  const response = await post(demo);
  assert.equal(response.status, 200);
  const { counts, clean, findings } = (await response.json()) as {
    counts: Record<string, number>;
    clean: boolean;
    findings: { section: string }[];
  };
  assert.equal(counts.violation, check(parseFile(demo)).filter((f) => f.level === 'violation').length);
  assert.equal(clean, false);
  assert.ok(findings.some((f) => f.section === '210.52(A)'));
});

test('bad bodies get a clear 4xx', async () => {
  const truncated = await post(demo.slice(0, 900));
  assert.equal(truncated.status, 422);
  assert.match((await problems(truncated))[0]!.message, /not complete JSON/);

  const wrongField = await post(demo.replace('"mainRating": 100', '"mainRating": -5'));
  assert.equal(wrongField.status, 422);
  assert.deepEqual((await problems(wrongField))[0], {
    path: 'panels[0].mainRating',
    message: 'expected 30 or more, found -5',
  });

  assert.equal((await post(demo, { 'content-type': 'application/xml' })).status, 415);
  assert.equal((await post('')).status, 422);
  assert.equal((await fetch(`${server.origin}/api/check`)).status, 405);
  assert.equal((await fetch(`${server.origin}/api/nothing`)).status, 404);
});

test('a body above the limit is refused, announced or streamed', async () => {
  const big = await post(' '.repeat(8 * 1024 * 1024 + 1));
  assert.equal(big.status, 413);
  assert.match((await problems(big))[0]!.message, /8 MB or less/);
  let sent = 0;
  const endless = new ReadableStream({
    pull(controller) {
      if (sent > 64 * 1024 * 1024) controller.close();
      else controller.enqueue(new Uint8Array(1024 * 1024));
      sent += 1024 * 1024;
    },
  });
  const streamed = await fetch(`${server.origin}/api/check`, {
    method: 'POST',
    body: endless,
    headers: { 'content-type': 'application/json' },
    duplex: 'half',
  } as RequestInit).catch(() => null);
  // The server may hang up before all is sent; it must not have read it all.
  if (streamed) assert.equal(streamed.status, 413);
  assert.ok(sent < 64 * 1024 * 1024);
  assert.equal((await fetch(`${server.origin}/api/health`)).status, 200);
});

test('pages carry a policy without unsafe scripts', async () => {
  const response = await fetch(server.origin);
  const policy = response.headers.get('content-security-policy') ?? '';
  const scripts = /script-src ([^;]+)/.exec(policy)?.[1] ?? '';
  assert.match(scripts, /'self'/);
  assert.doesNotMatch(scripts, /unsafe/);
  assert.match(policy, /object-src 'none'/);
});
