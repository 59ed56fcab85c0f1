/** What the command palette can find, with the trade's other words for the same thing. */
import MiniSearch from 'minisearch';

export interface PaletteItem {
  id: string;
  name: string;
  /** Where it leads or what kind of thing it is. */
  hint: string;
  /** Other words people use. */
  words?: string;
  run: () => unknown;
}

const SYNONYMS: Record<string, string> = {
  plug: 'receptacle outlet',
  socket: 'receptacle outlet',
  arc: 'afci',
  ground: 'gfci grounding',
  wire: 'cable conductor gauge',
  panel: 'breaker',
  breaker: 'circuit',
  dark: 'attic light',
  pdf: 'print',
  save: 'export',
  test: 'prove reading',
};

/** Items that match, best first; all of them, in order, for an empty text. */
export function search(items: readonly PaletteItem[], text: string): PaletteItem[] {
  const plain = text.trim().toLowerCase();
  if (plain === '') return items.slice(0, 12);
  const index = new MiniSearch<PaletteItem>({
    fields: ['name', 'words', 'hint'],
    searchOptions: { prefix: true, fuzzy: 0.2, boost: { name: 3, words: 2 } },
  });
  index.addAll(items);
  const wider = plain
    .split(/\s+/)
    .map((word) => `${word} ${SYNONYMS[word] ?? ''}`)
    .join(' ');
  const byId = new Map(items.map((i) => [i.id, i]));
  return index
    .search(wider)
    .slice(0, 12)
    .map((hit) => byId.get(hit.id as string)!);
}
