/**
 * `npm run lock`: writes package-lock.json anew, with the optional packages of every platform and without
 * download addresses. npm leaves the former out when it is told to omit the latter.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';

const FILE = 'package-lock.json';
rmSync(FILE, { force: true });
execFileSync('npm', ['install', '--package-lock-only', '--omit-lockfile-registry-resolved=false'], { stdio: 'inherit' });
const lock = JSON.parse(readFileSync(FILE, 'utf8'));
for (const entry of Object.values(lock.packages)) delete entry.resolved;
writeFileSync(FILE, `${JSON.stringify(lock, null, 2)}\n`);
