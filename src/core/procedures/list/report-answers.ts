import { framed } from '../parts/frame.ts';
import { ask, when, type Context, type Procedure } from '../step.ts';

/** Items of an inspection report, one a line, as they were pasted. */
const itemsOf = ({ log }: Context): string[] =>
  log
    .note('items')
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

const ANSWERS: Record<string, string> = {
  mended: 'found so, mended',
  allowed: 'found so, allowed as it is',
  'not-so': 'not found so',
  quoted: 'found so, offered',
  other: 'not electrical work',
  unseen: 'could not be looked at',
};

export const reportAnswers: Procedure = {
  id: 'report-answers',
  title: 'Answer an inspection report',
  use: 'An inspector or a buyer wrote a list; each item gets its finding and what was done.',
  steps: (c) =>
    framed(
      c,
      () => {
        const items = itemsOf(c);
        return [
          ask(
            'items',
            'The report, an item a line',
            'Each is answered by itself: what was found, what was done, by which section.',
            [['given', 'These are the items']],
            {
              noteLabel: 'Paste the items, or open a CSV',
              noteRows: 8,
              refuses: ({ note }) => (note.trim() === '' ? 'expected at least one item, one a line' : null),
            },
          ),
          ...items.map((item, k) =>
            ask(
              `item ${k + 1}`,
              item.slice(0, 200),
              `Item ${k + 1} of ${items.length}.`,
              Object.entries(ANSWERS).map(
                ([value, name]) => [value, name[0]!.toUpperCase() + name.slice(1)] as const,
              ),
              { noteLabel: 'What was found and done; section, reading', noteRows: 3, pictures: true },
            ),
          ),
          ...when(
            items.length > 0,
            ask('sheet', 'All items answered', 'It goes on the sheet in the order of the report.', [
              ['done', 'Put it on record'],
            ]),
          ),
        ];
      },
      () =>
        itemsOf(c).map((item, k) => ({
          text: `${k + 1}. ${item}: ${ANSWERS[c.log.pick(`item ${k + 1}`) ?? ''] ?? 'not answered'}`,
          because: c.log.note(`item ${k + 1}`),
        })),
    ),
};
