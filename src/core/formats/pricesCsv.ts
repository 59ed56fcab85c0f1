/** The price book as CSV, out and in. Columns are documented in docs/formats.md. */
import type { Problem } from '#core/job/integrity.ts';
import { PRICE_ITEMS, type Job, type PriceItem } from '#core/job/schema.ts';
import type { PriceBook } from '#core/panel/prices.ts';
import { InvalidError } from '#core/job/validate.ts';
import { fromCsv, MOST_PROBLEMS, toCsv } from './csv.ts';

export const PRICE_COLUMNS = ['item', 'unit', 'dollars'] as const;

/** What a price is for. */
export const unitOf = (item: PriceItem): 'ft' | 'each' => (item.startsWith('cable') ? 'ft' : 'each');

export const pricesToCsv = (book: PriceBook): string =>
  toCsv(
    PRICE_COLUMNS,
    PRICE_ITEMS.map((item) => ({ item, unit: unitOf(item), dollars: (book[item] / 100).toFixed(2) })),
  );

const isItem = (text: string): text is PriceItem => (PRICE_ITEMS as readonly string[]).includes(text);

/**
 * Reads a price book. Items that are not in the file keep the price they have.
 * @throws InvalidError naming the line and column
 */
export function pricesFromCsv(text: string): Job['prices'] {
  const { rows, problems } = fromCsv(text, PRICE_COLUMNS, 'a price book CSV');
  const prices = new Map<PriceItem, number>();
  for (const { line, cells } of rows) {
    const say = (column: string, message: string): void => {
      problems.push({ path: `${line}.${column}`, message } satisfies Problem);
    };
    const item = cells.item?.trim() ?? '';
    const plain = (cells.dollars ?? '').trim().replace(/^\$/, '');
    const dollars = Number(plain);
    if (!isItem(item)) say('item', `expected one of ${PRICE_ITEMS.join(', ')}; found “${item.slice(0, 40)}”`);
    else if (prices.has(item)) say('item', `“${item}” is there twice; expected each item once`);
    else if (cells.unit?.trim() !== unitOf(item)) say('unit', `expected ${unitOf(item)}`);
    else if (plain === '' || !(dollars >= 0 && dollars <= 100000))
      say('dollars', `expected an amount from 0 to 100000, found “${plain.slice(0, 24)}”`);
    else prices.set(item, Math.round(dollars * 100));
  }
  if (problems.length > 0) throw new InvalidError(problems.slice(0, MOST_PROBLEMS));
  return [...prices].map(([item, cents]) => ({ item, cents }));
}
