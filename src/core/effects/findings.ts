/** What is said of a box: one sentence for all outlets and positions of the switches that it holds for. */

export interface Effect {
  /** `danger`: may kill or burn. `wrong`: does not work as meant, or is not protected. */
  level: 'danger' | 'wrong';
  text: string;
}

/** In which position of the switches something was found, out of how many. */
export interface When {
  when: string;
  of: number;
}
const ALWAYS: When = { when: '', of: 1 };

export interface Finding {
  level: Effect['level'];
  /** Faces by the outlet that they are of; an outlet as such has none. */
  outlets: Map<string, Set<string>>;
  whens: Set<string>;
  /** Positions of the switches in which it could be found. */
  of: number;
  say: (who: string, many: boolean, when: string) => string;
}

/** Collects what is said of several outlets, and of several positions of the switches, in one sentence. */
export class Findings {
  private readonly by = new Map<string, Finding>();

  add(
    kind: string,
    level: Effect['level'],
    [outlet, face]: readonly [outlet: string, face: string],
    say: Finding['say'],
    { when, of }: When = ALWAYS,
  ): void {
    const known = this.by.get(kind) ?? { level, outlets: new Map(), whens: new Set(), of, say };
    known.outlets.set(outlet, (known.outlets.get(outlet) ?? new Set()).add(face));
    known.whens.add(when);
    this.by.set(kind, known);
  }

  list(): Effect[] {
    return [...this.by.values()]
      .map(({ level, outlets, whens, of, say }) => {
        const names = [...outlets].map(([outlet, faces]) =>
          faces.size === 1 && !faces.has('') ? `${outlet} (${[...faces][0]})` : outlet,
        );
        const when =
          whens.size >= of ? '' : whens.size === 1 ? [...whens][0]! : ' in some positions of its switches';
        return { level, text: say(names.join(', '), names.length > 1, when) };
      })
      .sort((a, b) => Number(a.level === 'wrong') - Number(b.level === 'wrong'));
  }
}
