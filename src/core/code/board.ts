/** Findings by what they are about, and how a re-check alters them: a copy elsewhere is kept in step by these. */
import { LEVELS, type Finding, type Level } from './rule.ts';

/** Subjects whose findings differ, with what is found now; null where the subject is gone. */
export interface FindingsChange {
  /** Everything was checked anew: what is not named is gone. */
  whole: boolean;
  subjects: [subject: string, findings: readonly Finding[] | null][];
}

export class Board {
  private readonly bySubject = new Map<string, readonly Finding[]>();
  /** Subjects in order; null while new ones are not in their place. */
  private order: readonly string[] | null = null;

  of(subject: string): readonly Finding[] | undefined {
    return this.bySubject.get(subject);
  }

  apply({ whole, subjects }: FindingsChange): void {
    if (whole) {
      this.bySubject.clear();
      this.order = null;
    }
    for (const [subject, findings] of subjects) {
      if (this.bySubject.has(subject) !== (findings !== null)) this.order = null;
      if (findings) this.bySubject.set(subject, findings);
      else this.bySubject.delete(subject);
    }
  }

  whole(): FindingsChange {
    return { whole: true, subjects: [...this.bySubject] };
  }

  /** All findings, gravest first, then by subject: the same however the document came to be as it is. */
  findings(): Finding[] {
    this.order ??= [...this.bySubject.keys()].sort();
    const byLevel = new Map<Level, Finding[]>(LEVELS.map((level) => [level, []]));
    for (const subject of this.order)
      for (const f of this.bySubject.get(subject)!) byLevel.get(f.level)!.push(f);
    return [...byLevel.values()].flat();
  }
}
