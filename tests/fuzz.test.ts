/** A tenth of `npm run fuzz`: broken files are read or refused, and never crash or hang a reader. */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { test } from 'node:test';

test('broken files of every format neither crash nor hang their reader', () => {
  const { status, stdout } = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/fuzz.ts', '0.1'], {
    encoding: 'utf8',
    timeout: 120000,
  });
  assert.equal(status, 0, stdout);
  assert.match(stdout, /job file: 1000 broken files; \d+ read, \d{3} refused, 0 crashes, 0 hangs/);
});
