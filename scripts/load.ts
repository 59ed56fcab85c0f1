/** `npm run load`: how fast health answers while the server has much to do. Build first. */
import { execFileSync } from 'node:child_process';
import { startServer } from '../tests/support/server.ts';
import { healthUnder, loads } from './healthUnderLoad.ts';

const server = await startServer();
const memory = () =>
  Number(execFileSync('ps', ['-o', 'rss=', '-p', String(server.pid)], { encoding: 'utf8' })) / 1024;
let worst = 0;
console.log('| load | health, median | health, 99 of 100 within | answers | memory |\n|---|---|---|---|---|');
try {
  for (const load of loads()) {
    const { median, most, statuses } = await healthUnder(server.origin, load);
    const said = Object.entries(statuses)
      .map(([status, n]) => `${n} × ${status}`)
      .join(', ');
    worst = Math.max(worst, most);
    console.log(
      `| ${load} | ${median.toFixed(1)} ms | ${most.toFixed(1)} ms | ${said} | ${memory().toFixed(0)} MB |`,
    );
  }
} finally {
  await server.stop();
}
console.log(`\nhealth: 99 of 100 within ${worst.toFixed(0)} ms at worst; 50 ms promised`);
