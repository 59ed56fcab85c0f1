/** What another edition would say of the same plan. */
import type { Edition, JobDocument } from '#core/job/schema.ts';
import { check } from './checker.ts';
import { LEVELS, type Finding, type Level } from './rule.ts';

/** `asked`: only the second edition asks. `dropped`: only the first. `worse`, `better`: both, judged otherwise. */
export type ChangeKind = 'asked' | 'dropped' | 'worse' | 'better';

export interface EditionChange {
  key: string;
  kind: ChangeKind;
  title: string;
  about: Finding['about'];
  /** The gravest finding under each edition; null where it says nothing. */
  from: Finding | null;
  to: Finding | null;
}

/** The gravest finding of each rule about each thing. */
function gravest(document: JobDocument, edition: Edition): Map<string, Finding> {
  const found = new Map<string, Finding>();
  for (const f of check({ ...document, job: { ...document.job, edition } })) {
    const key = `${f.rule}/${f.about.id}`;
    // Findings come gravest first.
    if (!found.has(key)) found.set(key, f);
  }
  return found;
}

const weight = (level: Level) => LEVELS.indexOf(level);

function kindOf(from: Finding | undefined, to: Finding | undefined): ChangeKind | null {
  if (!from && !to) return null;
  if (!from) return 'asked';
  if (!to) return 'dropped';
  const by = weight(to.level) - weight(from.level);
  return by === 0 ? null : by < 0 ? 'worse' : 'better';
}

const ORDER: readonly ChangeKind[] = ['worse', 'asked', 'better', 'dropped'];

/** What changes on this plan from one edition to another, what gets worse first. */
export function compareEditions(document: JobDocument, from: Edition, to: Edition): EditionChange[] {
  const before = gravest(document, from);
  const after = gravest(document, to);
  const changes: EditionChange[] = [];
  for (const key of new Set([...before.keys(), ...after.keys()])) {
    const a = before.get(key);
    const b = after.get(key);
    const kind = kindOf(a, b);
    const one = b ?? a;
    if (kind && one)
      changes.push({ key, kind, title: one.title, about: one.about, from: a ?? null, to: b ?? null });
  }
  return changes.sort(
    (a, b) =>
      ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) ||
      weight((a.to ?? a.from)!.level) - weight((b.to ?? b.from)!.level) ||
      a.title.localeCompare(b.title) ||
      a.about.name.localeCompare(b.about.name, 'en', { numeric: true }),
  );
}
