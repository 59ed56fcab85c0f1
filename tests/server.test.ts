import { check } from '#core/code/checker.ts';
import { parseFile } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { IncomingMessage } from 'node:http';
import { get } from 'node:https';
import { fileURLToPath } from 'node:url';
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
    jobFileVersion: VERSION,
  });
});

test('phones are served over TLS with the shop’s certificate', async () => {
  const file = (name: string) => fileURLToPath(new URL(`./files/${name}`, import.meta.url));
  const child = spawn(process.execPath, ['server.mjs'], {
    stdio: ['ignore', 'pipe', 'ignore'],
    env: {
      ...process.env,
      PORT: '0',
      ORIGIN: 'https://localhost',
      TLS_CERT: file('tls-cert.pem'),
      TLS_KEY: file('tls-key.pem'),
    },
  });
  try {
    const [said] = (await once(child.stdout, 'data')) as [Buffer];
    const port = /https:\/\/127\.0\.0\.1:(\d+)/.exec(String(said))![1]!;
    const ca = readFileSync(file('tls-cert.pem'));
    const answer = await new Promise<IncomingMessage>((resolve, reject) =>
      get({ host: '127.0.0.1', port, path: '/api/health', servername: 'localhost', ca }, resolve).on(
        'error',
        reject,
      ),
    );
    assert.equal(answer.statusCode, 200);
    assert.match(String(answer.headers['permissions-policy']), /microphone=\(self\)/);
    answer.destroy();
  } finally {
    child.kill();
  }
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

/** A setup for the simulated meter at an outlet of the demo house. */
const setup = (values: Record<string, unknown> = {}) =>
  JSON.stringify({ job: JSON.parse(demo), circuit: 'circuit-studio', box: 'box-s2', ...values });
const speak = (body: string) =>
  fetch(`${server.origin}/api/instrument`, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/x-scpi' },
  });

test('the simulated meter answers line by line', async () => {
  const response = await speak(`${setup()}\n*IDN?\nMEAS:VOLT:AC? (@1:3)\nBAD?\nSYST:ERR?\n`);
  assert.equal(response.status, 200);
  const [who, volts, error] = (await response.text()).trim().split('\n');
  assert.equal(who, 'HEKTO,SIMULATED METER,0,1.0');
  const [hn, hg, ng] = volts!.split(',').map(Number);
  assert.ok(Math.abs(hn! - 120) < 0.1 && Math.abs(hg! - 120) < 0.1 && ng! < 0.1, volts);
  assert.equal(error, '-113,"Undefined header"');
});

test('the meter stands in faulty wiring, said or hidden', async () => {
  const faults = [{ kind: 'swap', at: 'S2', conductors: ['black', 'neutral'] }];
  const volts = async (values: Record<string, unknown>) =>
    (await (await speak(`${setup(values)}\nMEAS:VOLT:AC? (@1:3)`)).text()).trim().split(',').map(Number);
  const [hn, hg, ng] = await volts({ faults });
  assert.ok(hn! > 119 && hg! < 1 && ng! > 119);
  const found = await Promise.all([1, 2, 3, 4, 5, 6, 7, 8].map((hidden) => volts({ hidden })));
  assert.ok(new Set(found.map((v) => v.map(Math.round).join())).size > 1, 'hidden faults all read alike');
  assert.deepEqual(await volts({ hidden: 3 }), await volts({ hidden: 3 }));
});

test('answers come while questions are still being sent', async () => {
  const { request } = await import('node:http');
  const { port } = new URL(server.origin);
  const lines: string[] = [];
  await new Promise<void>((resolve, reject) => {
    const headers = { 'content-type': 'application/x-scpi' };
    const call = request({ port, path: '/api/instrument', method: 'POST', headers }, (response) => {
      response.setEncoding('utf8').on('data', (text: string) => {
        lines.push(...text.trim().split('\n'));
        // The second question is asked once the first is answered.
        if (lines.length === 1) call.end('*OPC?\n');
      });
      response.on('end', resolve);
    });
    call.on('error', reject);
    call.write(`${setup()}\n*IDN?\n`);
  });
  assert.deepEqual(lines, ['HEKTO,SIMULATED METER,0,1.0', '1']);
});

test('what the meter remembers is handed back and taken again', async () => {
  const first = await (await speak(`${setup({ state: null })}\nINP:LOAD 10\nBAD\n`)).text();
  const state = JSON.parse(first.trim().replace(/^#/, '')) as { load: number; errors: string[] };
  assert.deepEqual([state.load, state.errors.length], [10, 1]);
  const second = await (await speak(`${setup({ state })}\nINP:LOAD?;:SYST:ERR?\n`)).text();
  assert.match(second, /^\+1\.00000E\+01;-113/);
});

const BAD_SETUPS: [string, string, number, RegExp][] = [
  ['no body', '', 400, /setup as the first line/],
  ['no JSON', '{"job":', 400, /not complete JSON/],
  ['an unknown field', setup({ color: 1 }), 422, /setup/],
  ['a circuit that is not there', setup({ circuit: 'circuit-none' }), 422, /setup\.circuit/],
  ['an outlet of another circuit', setup({ box: 'box-b1' }), 422, /setup\.box/],
  ['a fault that cannot be', setup({ faults: [{ kind: 'reversed', at: 'S3' }] }), 422, /setup\.faults\[0\]/],
  ['a job that is none', JSON.stringify({ job: {}, circuit: 'circuit-a', box: 'box-a' }), 422, /schema/],
  ['a memory that cannot be', setup({ state: { load: 900 } }), 422, /setup\.state/],
];
for (const [what, body, status, message] of BAD_SETUPS) {
  test(`the meter refuses ${what}`, async () => {
    const response = await speak(body);
    assert.equal(response.status, status);
    assert.match(JSON.stringify(await response.json()), message);
  });
}

test('a line of the meter that never ends is cut', async () => {
  await assert.rejects(async () => (await speak(`${setup()}\n*IDN?\n${'x'.repeat(5000)}`)).text());
});

test('the meter is spoken to by POST alone', async () => {
  assert.equal((await fetch(`${server.origin}/api/instrument`)).status, 405);
});
