/** Files and stores as the builds of their versions wrote them: read-only, each with the sum of its bytes. */
import assert from 'node:assert/strict';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';

const SUMS: Readonly<Record<string, string>> = {
  'version-9-file': '18f73efc50476830',
  'version-9-store': 'e97160c935a87dee',
  'version-10-file': '4454a827e4179534',
  'version-10-store': '85969b286812e33b',
  'version-11-file': '130e2b5b3d588b8a',
  'version-11-store': '3249b00b3d75b6d5',
  'version-12-file': '652dfa57f83defbc',
  'version-12-store': 'bba57d5e7d697447',
  'version-13-file': '6dc77c442319a41a',
  'version-13-store': 'd0b42078be887870',
  'version-14-file': '9bd7a29a5bd485b0',
  'version-14-large': '73c9db74a73ee975',
  'version-14-store': 'ffc0d7cfdd27b75f',
  'version-15-file': 'c28850919391a294',
  'version-15-store': '2cdc831a675aab44',
};
export const FROZEN_VERSIONS = [9, 10, 11, 12, 13, 14, 15] as const;

/** Text of a frozen file or store. @throws where a byte of it was changed */
export function frozen(name: string): string {
  const bytes = readFileSync(new URL(`../frozen/${name}.json.gz`, import.meta.url));
  const sum = createHash('sha256').update(bytes).digest('hex').slice(0, 16);
  assert.equal(
    sum,
    SUMS[name],
    `tests/frozen/${name}.json.gz is read-only: a new version has files of its own`,
  );
  return gunzipSync(bytes).toString();
}

export type Lists = Record<string, { id: string }[]>;
/** The tables of a file. */
export const tablesOf = (file: Record<string, unknown>): Lists =>
  Object.fromEntries(Object.entries(file).filter(([, list]) => Array.isArray(list))) as Lists;
