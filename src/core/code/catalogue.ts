/** The rule catalogue as Markdown, generated from the rules' own meta. */
import { at } from '#core/tables/editions.ts';
import { EDITIONS } from '#core/job/schema.ts';
import { needsOf } from './facts.ts';
import { ALL_RULES } from './rules/index.ts';

const SUBJECT = {
  house: 'house',
  area: 'room',
  fixture: 'fixture',
  box: 'outlet',
  circuit: 'circuit',
  panel: 'panel',
} as const;

export function catalogue(): string {
  const head = [
    '# Rule catalogue',
    '',
    'Generated from the rules by `npm run docs`; do not edit. Sections are those of the adopted text, which',
    'Hekto does not print. *Violation*: the code asks for it. *Recommended*: advice or shop habit. *Unknown*:',
    'cannot be judged on what is recorded. Where what a rule has to have on record is not, it says *not judged*.',
    '',
    `| rule | about a | level | ${EDITIONS.join(' | ')} | why | what has to be on record |`,
    `|---|---|---|${EDITIONS.map(() => '---|').join('')}---|---|`,
  ];
  const body = ALL_RULES.map(
    (r) =>
      `| **${r.title}** (\`${r.id}\`) | ${SUBJECT[r.scope]} | ${r.level} | ${EDITIONS.map((e) => at(r.sections, e)).join(' | ')} | ${r.why} | ${needsOf(r)} |`,
  );
  return `${[...head, ...body].join('\n')}\n`;
}
