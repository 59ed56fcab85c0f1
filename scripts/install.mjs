/** Installs what is missing. Plain Node, so that it runs before anything is installed. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';

const run = (command, args) => execFileSync(command, args, { stdio: 'inherit' });
const has = (command) => {
  try {
    execFileSync('which', [command], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
};

/** Packages, when there are none or the lock file has changed since. */
export function installPackages() {
  const lock = readFileSync('package-lock.json', 'utf8');
  const stamp = 'node_modules/.hekto-lock';
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages …');
  // Not `npm ci`: it refuses a lock file that lists the optional packages of one platform only.
  run('npm', ['install', '--no-audit', '--no-fund']);
  mkdirSync('node_modules', { recursive: true });
  writeFileSync(stamp, readFileSync('package-lock.json', 'utf8'));
}

/** From Debian: Chromium and its driver for the browser tests, ngspice to hold the network against. */
export function installTools() {
  const tools = [
    { command: 'chromium', name: 'chromium' },
    { command: 'chromedriver', name: 'chromium-driver' },
    { command: 'ngspice', name: 'ngspice' },
  ];
  const missing = tools.filter(({ command }) => !has(command)).map(({ name }) => name);
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(', ')} …`);
  const sudo = process.getuid?.() === 0 || !has('sudo') ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    run(command, rest);
  };
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...missing);
}
