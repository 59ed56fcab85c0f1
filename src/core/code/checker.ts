/** The rule engine: checks a whole job once, then only what a change touches. It knows no rule by name. */
import { at } from '#core/tables/editions.ts';
import { applyChanges, type Change } from '#core/job/document.ts';
import type { Amendment, JobDocument, TableName } from '#core/job/schema.ts';
import { Board, type FindingsChange } from './board.ts';
import { isKnown, NEEDS, type Need } from './facts.ts';
import type { Finding, Fix, Rule, Subjects, Verdict } from './rule.ts';
import { RULES } from './rules/index.ts';
import type { Scope } from '#core/view/touched.ts';
import { View } from '#core/view/view.ts';

const TABLE_OF = {
  house: 'job',
  area: 'areas',
  fixture: 'fixtures',
  box: 'boxes',
  circuit: 'circuits',
  panel: 'panels',
} as const satisfies Record<Scope, TableName | 'job'>;
const SCOPES = Object.keys(TABLE_OF) as Scope[];

/** By which the findings of all subjects are ordered: house, rooms, fixtures, boxes, circuits, panels, each by id. */
const subjectOf = (scope: Scope, id: string): string => `${SCOPES.indexOf(scope)}/${id}`;

const NO_FIXES: Fix[] = [];

/** Findings are plain data. */
const same = (now: readonly Finding[] | null, before: readonly Finding[] | undefined): boolean =>
  JSON.stringify(now ?? []) === JSON.stringify(before ?? []);

export class Checker {
  readonly view: View;
  private readonly board = new Board();

  constructor(document: JobDocument) {
    this.view = new View(document);
    this.checkAll();
  }

  /** All findings, gravest first. */
  findings(): Finding[] {
    return this.board.findings();
  }

  /** Makes changes, checks again what they touch, and gives what that altered. */
  apply(changes: readonly Change[]): FindingsChange {
    const { job, subjects } = this.view.apply(applyChanges(this.view.document, changes), changes);
    if (job) return this.checkAll();
    const change: FindingsChange = { whole: false, subjects: [] };
    for (const scope of SCOPES) {
      for (const id of subjects[scope]) {
        const subject = subjectOf(scope, id);
        const findings = this.judge(scope, id);
        if (!same(findings, this.board.of(subject))) change.subjects.push([subject, findings]);
      }
    }
    this.board.apply(change);
    return change;
  }

  /** Everything found, for a copy that is to start from nothing. */
  whole(): FindingsChange {
    return this.board.whole();
  }

  private checkAll(): FindingsChange {
    const change: FindingsChange = { whole: true, subjects: [] };
    const { document } = this.view;
    for (const scope of SCOPES) {
      const table = TABLE_OF[scope];
      const ids = table === 'job' ? [document.job.id] : Object.keys(document[table]);
      for (const id of ids) change.subjects.push([subjectOf(scope, id), this.judge(scope, id)]);
    }
    this.board.apply(change);
    return change;
  }

  /** What the rules say of one subject; null when it is gone. */
  private judge<S extends Scope>(scope: S, id: string): Finding[] | null {
    const table = TABLE_OF[scope];
    const { document } = this.view;
    const row = table === 'job' ? document.job : document[table as TableName][id];
    const subject = row as Subjects[S] | undefined;
    if (!subject) return null;
    let about: Finding['about'] | null = null;
    const found: Finding[] = [];
    for (const rule of RULES[scope] as readonly Rule<S>[]) {
      const verdicts = withinFacts(rule, subject, this.view);
      if (verdicts.length === 0) continue;
      const amendments = this.view.amendmentsOf(rule.id);
      for (const verdict of verdicts) {
        // One fixed shape for every finding: thousands are made in a full check.
        const finding: Finding = {
          key: `${rule.id}/${id}/${found.length}`,
          rule: rule.id,
          title: rule.title,
          section: verdict.section ?? at(rule.sections, this.view.edition),
          level: verdict.level,
          message: verdict.message,
          measured: verdict.measured,
          limit: verdict.limit,
          spans: verdict.spans,
          about: (about ??= { table, id, name: subject.name }),
          why: rule.why,
          fixes: verdict.fixes ?? NO_FIXES,
          amendment: null,
        };
        found.push(amendments.length === 0 ? finding : amended(finding, amendments));
      }
    }
    return found;
  }
}

/** What a rule says of a subject, as far as the facts go that it needs. */
function withinFacts<S extends Scope>(rule: Rule<S>, subject: Subjects[S], view: View): Verdict[] {
  const verdicts = rule.check(subject, view);
  const { needs = [], clears = [], blames = [] } = rule;
  if (verdicts.length === 0 || needs.length + clears.length + blames.length === 0) return verdicts;
  const missing = (list: readonly Need[]) => list.find((need) => !isKnown(view, need, rule.scope, subject));
  const [any, clear, blame] = [missing(needs), missing(clears), missing(blames)];
  let said = false;
  return verdicts.flatMap((verdict): Verdict[] => {
    const { level } = verdict;
    const lacks =
      level === 'note' || level === 'unknown' ? undefined : (any ?? (level === 'satisfied' ? clear : blame));
    if (lacks === undefined) return [verdict];
    if (said) return [];
    said = true;
    return [{ level: 'unknown', message: `not judged: ${NEEDS[lacks]}` }];
  });
}

/** A finding under the local amendments to its rule: what is switched off locally is only noted. */
function amended(finding: Finding, amendments: readonly Amendment[]): Finding {
  const said = amendments.map((a) => (a.note ? `${a.reference}: ${a.note}` : a.reference)).join('; ');
  const amendment = `local amendment ${said}`;
  const off = amendments.some((a) => a.action === 'off');
  if (!off || finding.level === 'satisfied') return { ...finding, amendment };
  return {
    ...finding,
    amendment,
    level: 'note',
    message: finding.level === 'note' ? finding.message : `${finding.message}; not asked for here`,
    fixes: NO_FIXES,
  };
}

/** Findings of a document, checked from nothing. */
export const check = (document: JobDocument): Finding[] => new Checker(document).findings();
