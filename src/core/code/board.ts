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

  of(subject: string): readonly Finding[] | undefined {
    return this.bySubject.get(subject);
  }

  apply({ whole, subjects }: FindingsChange): void {
    if (whole) this.bySubject.clear();
    for (const [subject, findings] of subjects) {
      if (findings) this.bySubject.set(subject, findings);
      else this.bySubject.delete(subject);
    }
  }

  whole(): FindingsChange {
    return { whole: true, subjects: [...this.bySubject] };
  }

  /** All findings, gravest first. */
  findings(): Finding[] {
    const byLevel = new Map<Level, Finding[]>(LEVELS.map((level) => [level, []]));
    for (const found of this.bySubject.values()) for (const f of found) byLevel.get(f.level)!.push(f);
    return [...byLevel.values()].flat();
  }
}
