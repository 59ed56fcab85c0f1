import type { Things } from './address.svelte.ts';
import type { View } from '#core/view/view.ts';
import type { Area, Circuit, JobDocument } from '#core/job/schema.ts';

/** What is selected on a plan: a room, a fixture, or any number of outlets. */
export type Selection =
  | { kind: 'area'; id: string }
  | { kind: 'fixture'; id: string }
  | { kind: 'boxes'; ids: readonly string[] }
  | null;

/** The room that a selection is in. */
export function areaOf(document: JobDocument, selection: Selection): Area | undefined {
  if (selection?.kind === 'area') return document.areas[selection.id];
  const thing =
    selection?.kind === 'fixture' ? document.fixtures[selection.id] : document.boxes[selection?.ids[0] ?? ''];
  return thing && document.areas[thing.areaId];
}

export const selectedBoxes = (selection: Selection): readonly string[] =>
  selection?.kind === 'boxes' ? selection.ids : [];

/** Adds an outlet to a selection, or takes it out. */
export function toggled(selection: Selection, id: string): Selection {
  const ids = selectedBoxes(selection);
  const next = ids.includes(id) ? ids.filter((i) => i !== id) : [...ids, id];
  return next.length > 0 ? { kind: 'boxes', ids: next } : null;
}

/** A selection as it stands in an address: `area`, `fixture`, or `box` with outlets parted by commas. */
export function selectionIn(get: (name: string) => string | null): Selection {
  const [box, fixture, area] = [get('box'), get('fixture'), get('area')];
  if (box !== null) return { kind: 'boxes', ids: box.split(',') };
  if (fixture !== null) return { kind: 'fixture', id: fixture };
  return area === null ? null : { kind: 'area', id: area };
}

/** A selection for the address, with the level it is on; without any, the level that was shown. */
export function thingsOf(document: JobDocument, selection: Selection, shown: string): Things {
  const level = areaOf(document, selection)?.levelId ?? shown;
  if (selection === null) return { level };
  return selection.kind === 'boxes'
    ? { level, box: selection.ids.join(',') }
    : { level, [selection.kind]: selection.id };
}

/** The circuit chosen, or that of the outlet chosen. */
export const circuitAsked = (view: View, get: (name: string) => string | null): Circuit | null =>
  view.document.circuits[get('circuit') ?? ''] ?? view.circuitOf(get('box') ?? '');
