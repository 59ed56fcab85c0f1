import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studioJob } from '../../../demo/studio.ts';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { run } from '#core/job/testing.ts';
import { check } from './checker.ts';
import { groupsOf, mendAll } from './groups.ts';

test('every finding is in one group, and a group is of one rule, level and room', () => {
  const document = tamarackJob();
  const findings = check(document);
  const groups = groupsOf(document, findings);
  assert.deepEqual(
    groups
      .flatMap((g) => g.findings)
      .map((f) => f.key)
      .sort(),
    findings.map((f) => f.key).sort(),
  );
  for (const { findings: list } of groups) {
    assert.equal(new Set(list.map((f) => `${f.rule} ${f.level}`)).size, 1);
    assert.notEqual(list.length, 2);
  }
  assert.equal(new Set(groups.map((g) => g.key)).size, groups.length);
});

test('three boxes with one fault are one line, and one fix mends them all', () => {
  const document = studioJob();
  const findings = check(document);
  const group = groupsOf(document, findings).find((g) => g.findings[0].rule === 'no-equipment-ground')!;
  assert.deepEqual(
    group.findings.map((f) => f.about.name),
    ['B1', 'B2', 'B3'],
  );
  assert.equal(group.room, 'West bedroom');
  const fix = group.fixes.find((f) => /GFCI/.test(f.label))!;
  assert.equal(fix.label, 'All 3: install a GFCI receptacle');
  assert.ok('all' in fix);
  const mend = mendAll(document, group, fix.all);
  // The first of the run protects the two that it feeds.
  assert.equal(mend.label, 'Install a GFCI receptacle at B1');
  assert.ok('command' in mend);
  const mended = check(run(document, mend.command).document);
  assert.equal(mended.filter((f) => f.rule === 'no-equipment-ground' && f.level === 'violation').length, 0);
});

test('what protects nothing else is done to each', () => {
  const document = studioJob();
  const group = groupsOf(document, check(document)).find(
    (g) => g.findings[0].rule === 'no-equipment-ground',
  )!;
  const fix = group.fixes.find((f) => /two-slot/.test(f.label))!;
  assert.ok('all' in fix);
  const mend = mendAll(document, group, fix.all);
  assert.equal(mend.label, 'Install a two-slot receptacle, 3 times');
  assert.ok('command' in mend);
  const after = run(document, mend.command).document;
  assert.deepEqual(
    ['box-b1', 'box-b2', 'box-b3'].map((id) => after.boxes[id]!.device.kind),
    ['two-slot', 'two-slot', 'two-slot'],
  );
});

test('stretches of one room’s walls are one line with one placement', () => {
  const document = studioJob();
  const groups = groupsOf(document, check(document));
  const walls = groups.find((g) => g.findings[0].rule === 'wall-spacing' && g.room === 'Studio')!;
  assert.ok(walls.findings.length >= 3);
  assert.deepEqual(
    walls.fixes.map((f) => f.label),
    ['Place what is missing in Studio'],
  );
});
