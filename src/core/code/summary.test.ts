import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Finding, Level } from './rule.ts';
import { countsOf, violationChanges } from './summary.ts';

const finding = (title: string, level: Level): Finding => ({
  key: title,
  rule: title,
  title,
  section: '',
  level,
  message: '',
  why: '',
  about: { table: 'job', id: 'job', name: 'job' },
  fixes: [],
  amendment: null,
});

test('what a change mends comes first, what it brings last, what stays is left out', () => {
  const before = [
    finding('Arc-fault', 'violation'),
    finding('Arc-fault', 'violation'),
    finding('Reach', 'violation'),
    finding('Fill', 'violation'),
    finding('Fill', 'recommended'),
  ];
  const after = [
    finding('Fill', 'violation'),
    finding('Drop', 'violation'),
    finding('Reach', 'recommended'),
    finding('Arc-fault', 'satisfied'),
  ];
  assert.deepEqual(violationChanges(before, after), [
    { title: 'Arc-fault', by: -2 },
    { title: 'Reach', by: -1 },
    { title: 'Drop', by: 1 },
  ]);
});

test('findings are counted by level', () => {
  assert.deepEqual(countsOf([finding('a', 'note'), finding('b', 'note'), finding('c', 'unknown')]), {
    violation: 0,
    unknown: 1,
    recommended: 0,
    note: 2,
    satisfied: 0,
  });
});
