/** Sends what a busy day brings to a server, from a process of its own: checks, the worst legal jobs, nested and dribbled bodies. */
import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { generatedHouse } from '../demo/generate.ts';
import { serialize } from '#core/job/file.ts';

const [origin = '', kind = ''] = process.argv.slice(2);
const demo = readFileSync(new URL('../demo/tamarack-court.json', import.meta.url), 'utf8');
const counts: Record<string, number> = {};
const count = (key: string) => (counts[key] = (counts[key] ?? 0) + 1);

async function post(body: string, path = 'check', type = 'application/json'): Promise<void> {
  try {
    const answer = await fetch(`${origin}/api/${path}`, {
      method: 'POST',
      body,
      headers: { 'content-type': type },
    });
    await answer.text();
    count(String(answer.status));
  } catch {
    count('cut');
  }
}
/** So many at once, until all were sent. */
async function flood(total: number, atOnce: number, send: () => Promise<void>): Promise<void> {
  let left = total;
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (left-- > 0) await send();
    }),
  );
}

const setup = JSON.stringify({ job: JSON.parse(demo), circuit: 'circuit-studio', box: 'box-s2' });
const big = serialize(generatedHouse(3000));
const KINDS: Record<string, () => Promise<void>> = {
  '200 checks of the demo job, 20 at once': () => flood(200, 20, () => post(demo)),
  '20 of the largest jobs, 20 at once': () => flood(20, 20, () => post(big)),
  '50 bodies of 4 million brackets': () => flood(50, 10, () => post('['.repeat(4_000_000))),
  '20 meters with 100,000 questions': () =>
    flood(20, 10, () => post(`${setup}\n${'*OPC?\n'.repeat(100_000)}`, 'instrument', 'application/x-scpi')),
  '500 bodies that dribble in': async () => {
    const { port } = new URL(origin);
    const sockets = Array.from({ length: 500 }, () => {
      const socket = connect(Number(port), '127.0.0.1');
      socket.on('error', () => count('cut'));
      socket.write(
        'POST /api/check HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 50000\r\n\r\n{',
      );
      return socket;
    });
    for (let i = 0; i < 30; i++) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      for (const socket of sockets) if (!socket.destroyed) socket.write(' ');
    }
    count('held');
    for (const socket of sockets) socket.destroy();
  },
};
if (kind === '') process.stdout.write(JSON.stringify(Object.keys(KINDS)));
else {
  await KINDS[kind]!();
  process.stdout.write(JSON.stringify(counts));
}
