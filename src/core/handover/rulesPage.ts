/** The page of rules: what is judged, what is looked at, and what is not judged here. */
import { catalogue } from '#core/code/catalogue.ts';
import { LISTS } from './lists.ts';
import { LOOK_ITEMS, NOT_JUDGED } from './looks.ts';

export function rulesPage(): string {
  const nameOf = (id: string) => LISTS.find((l) => l.id === id)!.name;
  const looks = LOOK_ITEMS.map(
    (i) =>
      `| ${i.what} | ${i.section} | ${i.stage} | ${i.lists?.map(nameOf).join(', ') ?? 'all but panels'} |`,
  );
  return [
    catalogue(),
    '## Looked at',
    '',
    'No arithmetic tells these: somebody looks, and what was seen goes on record with name and time.',
    '',
    '| item | section | stage | lists |',
    '|---|---|---|---|',
    ...looks,
    '',
    '## Not judged here',
    '',
    '| what | where it stands |',
    '|---|---|',
    ...NOT_JUDGED.map((n) => `| ${n.what} | ${n.section} |`),
    '',
  ].join('\n');
}
