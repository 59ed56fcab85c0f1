import { at } from '#core/tables/editions.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { CIRCUIT_CASES, one } from '../../../../tests/cases/circuitRules.ts';
import { WIRING_CASES } from '../../../../tests/cases/wiringRules.ts';
import { PROTECTION_CASES } from '../../../../tests/cases/protectionRules.ts';
import { INSPECTION_CASES } from '../../../../tests/cases/inspections.ts';
import { LAYOUT_CASES, situation } from '../../../../tests/cases/layoutRules.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { house, outlet, run } from '#core/job/testing.ts';
import { check } from '../checker.ts';
import { centerLine } from './hallway-receptacle.ts';
import { ALL_RULES } from './index.ts';

const CASES = [...CIRCUIT_CASES, ...LAYOUT_CASES, ...WIRING_CASES, ...PROTECTION_CASES, ...INSPECTION_CASES];

for (const { rule, what, document, answers, words } of CASES) {
  for (const [e, edition] of EDITIONS.entries()) {
    const answer = answers[e]!;
    test(`${rule}, ${edition}: ${what} → ${answer ?? 'silent'}`, () => {
      const found = check(document(edition)).filter((f) => f.rule === rule);
      assert.equal(found[0]?.level ?? null, answer, found.map((f) => f.message).join('; '));
      if (words && answer === answers[1]) assert.match(`${found[0]!.message} ${found[0]!.section}`, words);
    });
  }
}

test('every rule is answered both ways in every edition it belongs to', () => {
  const lacking: string[] = [];
  for (const { id, level, sections } of ALL_RULES) {
    for (const [e, edition] of EDITIONS.entries()) {
      if (at(sections, edition).startsWith('not in')) continue;
      const answers = CASES.filter((c) => c.rule === id).map((c) => c.answers[e]);
      if (!answers.includes(level)) lacking.push(`${id}, ${edition}: never ${level}`);
      // What is not ours to judge is never said to be in order.
      if (id === 'alarms') continue;
      // Advice and doubts that do not arise are silence; what the code asks for is said to be in order.
      if (!answers.includes('satisfied') && (level === 'violation' || !answers.includes(null)))
        lacking.push(`${id}, ${edition}: never in order`);
    }
  }
  assert.deepEqual(lacking, []);
});

test('every fix that is a command mends what it is offered for', () => {
  let tried = 0;
  for (const { rule, what, document: make } of CASES) {
    const document = make('2020');
    for (const finding of check(document)) {
      for (const fix of finding.fixes) {
        if (!('command' in fix)) continue;
        tried++;
        const after = check(run(document, fix.command).document);
        assert.ok(
          !after.some(
            (f) => f.key === finding.key && f.level === 'violation' && f.message === finding.message,
          ),
          `${rule}, ${what}: ${fix.label}`,
        );
      }
    }
  }
  assert.ok(tried > 100, `${tried} fixes tried`);
});

test('sections follow the edition', () => {
  const section = (edition: Edition, parts: Parameters<typeof house>[0], id: string) =>
    check(house({ ...parts, edition })).find((f) => f.rule === id)!.section;
  assert.equal(section('2020', one({ waterDistance: 10 }), 'gfci'), '210.8(A)(7)');
  assert.equal(section('2023', one({ waterDistance: 10 }), 'gfci'), '210.8(A)(8)');
  assert.equal(section('2023', { ...one(), kind: 'laundry' }, 'gfci'), '210.8(A)(11)');
  assert.equal(section('2023', one(), 'afci'), '210.12(B)');
  assert.equal(section('2017', one(), 'afci'), '210.12(A)');
  assert.equal(
    section('2020', { ...one({ status: 'replace' }), kind: 'bathroom' }, 'gfci'),
    '406.4(D)(3), 210.8(A)(1)',
  );
});

test('a hallway’s center line is its length, around a corner too', () => {
  assert.equal(Math.round(centerLine(2 * (120 + 40), 120 * 40)), 120);
  // An L with outer legs of 160 and 100 in., 40 in. wide: 160 + 100 − 40.
  assert.equal(Math.round(centerLine(2 * (160 + 100), 40 * (160 + 100 - 40))), 220);
});

test('local amendments switch a rule off, tighten its limit or add a note, and say so', () => {
  const boxes = [outlet('A', 1, 72), outlet('B', 3, 72), outlet('C', 2, 60), outlet('D', 4, 60)];
  const base = situation({ boxes }, '2020');
  const amendment = {
    id: 'amendment-1',
    rule: 'wall-spacing',
    action: 'off' as const,
    limit: null,
    reference: 'Larkmoor 8-12',
    note: '',
  };
  const under = (values: Partial<typeof amendment> | { action: 'tighten'; limit: number }, doc = base) =>
    check({ ...doc, amendments: { 'amendment-1': { ...amendment, ...values } as never } }).filter(
      (f) => f.rule === 'wall-spacing',
    );
  assert.equal(check(base).find((f) => f.rule === 'wall-spacing')!.level, 'satisfied');
  const tighter = under({ action: 'tighten', limit: 40 });
  assert.equal(tighter[0]!.level, 'violation');
  assert.match(tighter[0]!.amendment!, /Larkmoor 8-12/);
  const off = under({ action: 'off' }, situation({}, '2020'));
  assert.equal(off[0]!.level, 'note');
  assert.match(off[0]!.message, /not asked for here/);
  assert.match(under({ note: 'ask the inspector' })[0]!.amendment!, /ask the inspector/);
  // A looser limit than the code's own changes nothing.
  assert.equal(under({ action: 'tighten', limit: 100 })[0]!.level, 'satisfied');
});
