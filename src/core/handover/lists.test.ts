import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { Checker } from '#core/code/checker.ts';
import { ALL_RULES } from '#core/code/rules/index.ts';
import { listItems, LISTS } from './lists.ts';

const job = tamarackJob();
const checker = new Checker(job);
const items = (id: string) =>
  listItems(
    checker.view,
    checker.findings(),
    LISTS.find((l) => l.id === id)!,
  );
const lines = (id: string) =>
  items(id).map((i) => `${i.finding.level} ${i.finding.rule} ${i.finding.about.name}`);

test('the outdoor punch list of the demo house', () => {
  const found = lines('outdoors');
  for (const line of [
    'violation outdoor-receptacles 14 Tamarack Court',
    'satisfied outdoor-receptacles 14 Tamarack Court',
    'violation weather-cover P2',
    'satisfied deck-receptacle Deck',
    'satisfied gfci X1',
    'satisfied equipment-receptacle heat pump',
    'note outdoor-outlets P1',
  ])
    assert.ok(found.includes(line), `${line} not in\n${found.join('\n')}`);
  assert.ok(!found.some((l) => / (K1|S1|G1)$/.test(l)), 'indoor outlets are on the list');
});

test('a list is ordered by gravity and holds nothing of other rooms', () => {
  for (const { id } of LISTS) {
    const levels = items(id).map((i) => i.finding.level);
    const order = ['violation', 'unknown', 'recommended', 'note', 'satisfied'];
    assert.deepEqual(
      levels,
      [...levels].sort((a, b) => order.indexOf(a) - order.indexOf(b)),
    );
    assert.ok(levels.length > 0, id);
  }
  assert.ok(items('kitchen').every((i) => /Kitchen|Dining/.test(i.where)));
});

test('every rule a list names is in the catalogue', () => {
  const ids = new Set(ALL_RULES.map((r) => r.id));
  for (const { rules } of LISTS) for (const id of rules) assert.ok(ids.has(id), id);
});

test('pictures stand with what they are of', () => {
  const picture = {
    id: 'picture-1',
    about: { table: 'boxes' as const, id: 'box-p2' },
    at: '2026-05-04T14:30:00Z',
    caption: 'cover',
    width: 800,
    height: 600,
  };
  const { view } = new Checker({ ...job, pictures: { 'picture-1': picture } });
  const list = listItems(view, checker.findings(), LISTS[0]!);
  assert.ok(list.some((i) => i.finding.about.name === 'P2' && i.pictures[0] === picture));
  assert.ok(list.every((i) => i.finding.about.name === 'P2' || i.pictures.length === 0));
});
