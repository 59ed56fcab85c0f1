/** Findings for reading: those of one rule in one room together, with fixes that mend them all at once. */
import type { Command } from '#core/job/commands.ts';
import { byName } from '#core/job/names.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { byGravity, type Finding, type Fix } from './rule.ts';

export interface FindingGroup {
  /** Stable across re-checks. */
  key: string;
  /** Gravest first; all of one rule, level and room. */
  findings: readonly [Finding, ...Finding[]];
  /** The room they are in; null where they are in none. */
  room: string | null;
  /** What each of them alone may be mended by, for all at once. */
  fixes: Fix[];
}

/** From so many on they are one line. */
const LEAST = 3;

function roomOf(document: JobDocument, { about: { table, id } }: Finding): string | null {
  if (table === 'areas') return id;
  if (table === 'boxes' || table === 'fixtures') return document[table][id]?.areaId ?? null;
  return null;
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

/** One fix out of the same fix of each; null where they do not all have it. */
function together(findings: readonly Finding[], labelOf: (name: string) => string): Fix | null {
  const commands = new Map<string, Command>();
  for (const { about, fixes } of findings) {
    const own = fixes.find((f) => f.label === labelOf(about.name));
    if (!own || !('command' in own)) return null;
    commands.set(JSON.stringify(own.command), own.command);
  }
  const names = [...new Set(findings.map((f) => f.about.name))];
  const label = labelOf(listed(names));
  const list = [...commands.values()];
  return { label, command: list.length === 1 ? list[0]! : { type: 'batch', label, commands: list } };
}

function fixesFor(findings: readonly [Finding, ...Finding[]]): Fix[] {
  const [first] = findings;
  return first.fixes.flatMap((fix): Fix[] => {
    if ('placeIn' in fix) return [fix];
    const { name } = first.about;
    // Whole words only: S1 is not part of S12.
    const parts = fix.label.split(
      new RegExp(`(?<![\\w])${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\w])`),
    );
    const all = together(findings, (other) => parts.join(other));
    return all ? [all] : [];
  });
}

/**
 * @param findings in any order
 * @returns gravest first; a finding that is alone in its room with its rule is a group of one
 */
export function groupsOf(document: JobDocument, findings: readonly Finding[]): FindingGroup[] {
  const together = new Map<string, Finding[]>();
  for (const finding of [...findings].sort(byGravity)) {
    const room = roomOf(document, finding);
    const key = room === null ? finding.key : `${finding.level}/${finding.rule}/${room}`;
    together.set(key, [...(together.get(key) ?? []), finding]);
  }
  return [...together].flatMap(([key, list]): FindingGroup[] => {
    const group = (list: readonly Finding[], key: string): FindingGroup => {
      const all = [...list].sort((a, b) => byName(a.about, b.about)) as [Finding, ...Finding[]];
      const id = roomOf(document, all[0]);
      const room = id === null ? null : (document.areas[id]?.name ?? null);
      return { key, findings: all, room, fixes: all.length === 1 ? all[0].fixes : fixesFor(all) };
    };
    return list.length < LEAST ? list.map((f) => group([f], f.key)) : [group(list, key)];
  });
}
