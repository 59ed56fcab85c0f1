import { rows } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';

/** The level asked for, if the job has it; else the one to show first. */
export const levelAsked = (document: JobDocument, id: string | null): string =>
  id !== null && document.levels[id] ? id : firstLevel(document);

/** The level to show first: where the panel hangs, if there are rooms; else the first that has rooms. */
function firstLevel(document: JobDocument): string {
  const used = new Set(rows(document.areas).map((a) => a.levelId));
  const panels = rows(document.panels).map((p) => p.levelId);
  return panels.find((id) => used.has(id)) ?? [...used][0] ?? panels[0] ?? rows(document.levels)[0]?.id ?? '';
}
