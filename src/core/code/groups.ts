/** Findings for reading: those of one rule in one room together, with fixes that mend them all at once. */
import type { Command } from '#core/job/commands.ts';
import { byName } from '#core/job/names.ts';
import { rows } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { runGuarded } from '#core/records/gates.ts';
import { Checker } from './checker.ts';
import { byGravity, type Finding, type Fix } from './rule.ts';

/** A fix, or a kind of fix that each of a group has: for `mendAll`. */
export type GroupFix = Fix | { label: string; all: string };

export interface FindingGroup {
  /** Stable across re-checks. */
  key: string;
  /** Gravest first; all of one rule, level and room. */
  findings: readonly [Finding, ...Finding[]];
  /** The room they are in; null where they are in none. */
  room: string | null;
  fixes: GroupFix[];
}

/** From so many on they are one line. */
const LEAST = 3;

/** Id of the room that a finding is about, or of what stands in it; null for circuits, panels and the house. */
export function roomOf(document: JobDocument, { about: { table, id } }: Finding): string | null {
  if (table === 'areas') return id;
  if (table === 'boxes' || table === 'fixtures') return document[table][id]?.areaId ?? null;
  return null;
}

/** What a fix does, without the name of what it is done to: the same for each of a group. */
const kindOf = (label: string, name: string): string =>
  // Whole words only: S1 is not part of S12.
  label
    .replace(new RegExp(`(?<![\\w])${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\w])`, 'g'), '')
    .replace(/\s+/g, ' ')
    .replace(/ (at|on|of|for|in|to) ?$/, '')
    .trim();
const fixOf = ({ about, fixes }: Finding, kind: string): (Fix & { command: Command }) | null => {
  const fix = fixes.find((f) => kindOf(f.label, about.name) === kind);
  return fix && 'command' in fix ? fix : null;
};

function fixesFor(findings: readonly [Finding, ...Finding[]]): GroupFix[] {
  const [first] = findings;
  return first.fixes.flatMap((fix): GroupFix[] => {
    if ('placeIn' in fix) return [fix];
    const all = kindOf(fix.label, first.about.name);
    const label = `All ${findings.length}: ${all.charAt(0).toLowerCase()}${all.slice(1)}`;
    return findings.every((f) => fixOf(f, all)) ? [{ label, all }] : [];
  });
}

/**
 * Mends a group one by one, along each run from the panel on, and leaves out what an earlier fix has mended with it: one
 * ground-fault device protects the outlets that it feeds.
 */
export function mendAll(document: JobDocument, { findings }: FindingGroup, kind: string): Fix {
  const places = new Map(
    rows(document.circuits).flatMap((c) => c.stops.map((s, i) => [s.boxId, i] as const)),
  );
  const place = ({ about }: Finding) => places.get(about.id) ?? 0;
  const inOrder = [...findings].sort((a, b) => place(a) - place(b) || byName(a.about, b.about));
  const checker = new Checker(document);
  let now = document;
  const done: (Fix & { command: Command })[] = [];
  for (const { rule, level, about } of inOrder) {
    const open = checker
      .findings()
      .find((f) => f.rule === rule && f.level === level && f.about.id === about.id);
    const fix = open && fixOf(open, kind);
    if (!fix) continue;
    const { document: next, changes } = runGuarded(now, fix.command);
    checker.apply(changes);
    now = next;
    done.push(fix);
  }
  const [only] = done;
  if (only && done.length === 1) return only;
  const label = `${kind}, ${done.length} times`;
  return { label, command: { type: 'batch', label, commands: done.map((d) => d.command) } };
}

/**
 * @param findings in any order
 * @returns gravest first; a finding that is alone in its room with its rule is a group of one
 */
export function groupsOf(document: JobDocument, findings: readonly Finding[]): FindingGroup[] {
  const together = new Map<string, { room: string | null; list: Finding[] }>();
  for (const finding of [...findings].sort(byGravity)) {
    const id = roomOf(document, finding);
    const key = id === null ? finding.key : `${finding.level}/${finding.rule}/${id}`;
    const group = together.get(key);
    if (group) group.list.push(finding);
    else together.set(key, { room: document.areas[id ?? '']?.name ?? null, list: [finding] });
  }
  return [...together].flatMap(([key, { room, list }]): FindingGroup[] => {
    if (list.length < LEAST) return list.map((f) => ({ key: f.key, findings: [f], room, fixes: f.fixes }));
    const all = list.sort((a, b) => byName(a.about, b.about)) as [Finding, ...Finding[]];
    return [{ key, findings: all, room, fixes: fixesFor(all) }];
  });
}
