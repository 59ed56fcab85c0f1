/** What is selected on a plan: a room, a fixture, or any number of outlets. */
export type Selection =
  | { kind: 'area'; id: string }
  | { kind: 'fixture'; id: string }
  | { kind: 'boxes'; ids: readonly string[] }
  | null;

export const selectedBoxes = (selection: Selection): readonly string[] =>
  selection?.kind === 'boxes' ? selection.ids : [];

/** Adds an outlet to a selection, or takes it out. */
export function toggled(selection: Selection, id: string): Selection {
  const ids = selectedBoxes(selection);
  const next = ids.includes(id) ? ids.filter((i) => i !== id) : [...ids, id];
  return next.length > 0 ? { kind: 'boxes', ids: next } : null;
}
