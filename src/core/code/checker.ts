/** The rule engine: checks a whole job once, then only what a change touches. It knows no rule by name. */
import { applyChanges, type Change } from '../job/document.ts';
import type { JobDocument, TableName } from '../job/schema.ts';
import { LEVELS, type Finding, type Fix, type Level, type Rule, type Subjects } from './rule.ts';
import { RULES } from './rules/index.ts';
import { View, type Scope } from './view.ts';

const TABLE_OF = { area: 'areas', box: 'boxes', circuit: 'circuits' } as const satisfies Record<
  Scope,
  TableName
>;
const SCOPES = Object.keys(TABLE_OF) as Scope[];

const NO_FIXES: Fix[] = [];

export class Checker {
  readonly view: View;
  private readonly bySubject = new Map<string, Finding[]>();

  constructor(document: JobDocument) {
    this.view = new View(document);
    this.checkAll();
  }

  /** All findings, gravest first. */
  findings(): Finding[] {
    const byLevel = new Map<Level, Finding[]>(LEVELS.map((level) => [level, []]));
    for (const found of this.bySubject.values()) for (const f of found) byLevel.get(f.level)!.push(f);
    return [...byLevel.values()].flat();
  }

  /** Makes changes and checks again what they touch. */
  apply(changes: readonly Change[]): void {
    const stale = this.view.apply(applyChanges(this.view.document, changes), changes);
    if (stale === 'all') {
      this.checkAll();
      return;
    }
    for (const scope of SCOPES) for (const id of stale[scope]) this.checkSubject(scope, id);
  }

  private checkAll() {
    this.bySubject.clear();
    for (const scope of SCOPES) {
      for (const id in this.view.document[TABLE_OF[scope]]) this.checkSubject(scope, id);
    }
  }

  private checkSubject<S extends Scope>(scope: S, id: string) {
    const table = TABLE_OF[scope];
    const subject = this.view.document[table][id] as Subjects[S] | undefined;
    const key = `${table}/${id}`;
    if (!subject) {
      this.bySubject.delete(key);
      return;
    }
    const about = { table, id, name: subject.name };
    const found: Finding[] = [];
    for (const rule of RULES[scope] as readonly Rule<S>[]) {
      for (const verdict of rule.check(subject, this.view)) {
        // One fixed shape for every finding: thousands are made in a full check.
        found.push({
          key: `${rule.id}/${id}/${found.length}`,
          rule: rule.id,
          title: rule.title,
          section: verdict.section ?? rule.sections[this.view.edition],
          level: verdict.level,
          message: verdict.message,
          measured: verdict.measured,
          limit: verdict.limit,
          spans: verdict.spans,
          about,
          why: rule.why,
          fixes: verdict.fixes ?? NO_FIXES,
        });
      }
    }
    this.bySubject.set(key, found);
  }
}

/** Findings of a document, checked from nothing. */
export const check = (document: JobDocument): Finding[] => new Checker(document).findings();
