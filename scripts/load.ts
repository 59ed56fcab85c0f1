/** `npm run load`: how fast health answers while the server has much to do. Build first. */
import { execFile, execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { startServer } from '../tests/support/server.ts';

const client = fileURLToPath(new URL('./loadClient.ts', import.meta.url));
const args = (...rest: string[]) => ['--import', 'tsx', client, ...rest];
const kinds = JSON.parse(execFileSync(process.execPath, args(), { encoding: 'utf8' })) as string[];
const server = await startServer();
const memory = () =>
  Number(execFileSync('ps', ['-o', 'rss=', '-p', String(server.pid)], { encoding: 'utf8' })) / 1024;
let worst = 0;
console.log('| load | health, median | health, 99 of 100 within | answers | memory |\n|---|---|---|---|---|');
try {
  for (const kind of kinds) {
    let going = true;
    const counts = new Promise<string>((resolve, reject) =>
      execFile(process.execPath, args(server.origin, kind), { maxBuffer: 1e8 }, (error, out) =>
        error ? reject(error) : resolve(out),
      ),
    ).finally(() => (going = false));
    const times: number[] = [];
    while (going) {
      const begun = performance.now();
      const answer = await fetch(`${server.origin}/api/health`);
      await answer.text();
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    const said = Object.entries(JSON.parse(await counts) as Record<string, number>)
      .map(([status, n]) => `${n} × ${status}`)
      .join(', ');
    times.sort((a, b) => a - b);
    const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0;
    worst = Math.max(worst, at(0.99));
    console.log(
      `| ${kind} | ${at(0.5).toFixed(1)} ms | ${at(0.99).toFixed(1)} ms | ${said} | ${memory().toFixed(0)} MB |`,
    );
  }
} finally {
  await server.stop();
}
console.log(`\nhealth: 99 of 100 within ${worst.toFixed(0)} ms at worst; 50 ms promised`);
