/** `npm run demo`: installs what is missing, builds, serves, and prints one address. */
import { spawn, execFileSync } from 'node:child_process';
import { createServer } from 'node:net';
import { installPackages } from './install.mjs';

const free = (port) =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

installPackages();
console.log('Building …');
execFileSync('npm', ['run', '--silent', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] });

let port = Number(process.env.PORT ?? 4173);
while (!(await free(port))) port++;
const origin = `http://localhost:${port}`;
const server = spawn('node', ['server.mjs'], {
  stdio: ['ignore', 'inherit', 'inherit'],
  env: { ...process.env, PORT: String(port), ORIGIN: origin },
});
server.once('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => server.kill(signal));

for (let tries = 0; tries < 100; tries++) {
  try {
    if ((await fetch(`${origin}/api/health`)).ok) break;
  } catch {
    // Not up yet.
  }
  await new Promise((resolve) => setTimeout(resolve, 100));
}
console.log(`\nHekto with its demo job: ${origin}/demo\n`);
