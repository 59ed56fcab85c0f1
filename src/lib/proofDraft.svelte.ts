/** A proof of dead while it is made: kept on the device, so that a reload in the middle loses no act. */
import { newId } from '#core/job/document.ts';
import type { PutCommand } from '#core/job/commands.ts';
import type { Instrument } from '#core/job/schema.ts';
import {
  blankDraft,
  OTHER,
  REFERENCE,
  rowsOf,
  seriesOf,
  showsBoxLive,
  type Act,
  type Draft,
  type Seen,
} from '#core/records/acts.ts';

type Heads = NonNullable<Draft['had']>;
/** What was seen, when, and how far the record was then. */
type Timed = Seen & { at: string; had: Heads };
type Kept = { draft: Draft; seen: Timed[]; tester: Instrument; day: string };

const today = () => new Date().toDateString();

export class ProofDraft {
  readonly boxId: string;
  private readonly key: string;
  draft = $state.raw<Draft>() as Draft;
  seen = $state.raw<readonly Timed[]>([]);
  tester = $state<Instrument>('two-pole tester');
  /** Basis and reference were answered, not only filled in. */
  answered = $state(false);

  /** @param heads how far each device has written by now */
  constructor(
    jobId: string,
    boxId: string,
    by: string,
    private readonly heads: () => ReadonlyMap<string, number>,
  ) {
    this.boxId = boxId;
    this.key = `hekto-proof-${jobId}-${boxId}`;
    this.draft = blankDraft(boxId, by);
    const kept = this.kept();
    if (kept) {
      this.draft = { ...this.draft, ...kept.draft, boxId, by: by || kept.draft.by };
      this.seen = kept.seen;
      this.tester = kept.tester;
      this.answered = true;
    }
  }

  /** Yesterday’s acts are none of today’s proof. */
  private kept(): Kept | null {
    try {
      const kept = JSON.parse(localStorage.getItem(this.key) ?? 'null') as Kept | null;
      return kept && kept.day === today() && Array.isArray(kept.seen) && kept.seen.every((s) => s.had)
        ? kept
        : null;
    } catch {
      return null;
    }
  }

  private keep(): void {
    try {
      const { draft, seen, tester } = this;
      localStorage.setItem(this.key, JSON.stringify({ draft, seen: [...seen], tester, day: today() }));
    } catch {
      // Without storage the draft lasts as long as the page.
    }
  }

  set(values: Partial<Draft>): void {
    this.draft = { ...this.draft, ...values };
    this.keep();
  }

  /** Puts down what an act showed. @param circuitIds circuits taken to be in the box */
  see(act: Act, shown: Pick<Seen, 'value' | 'quantity' | 'link'>, circuitIds: readonly string[]): void {
    if (!act.reads) return;
    const { live, ...nodes } = act.reads;
    this.add({
      ...nodes,
      ...shown,
      on: act.kind === 'live' && showsBoxLive(this.draft) ? [...circuitIds] : [],
      off: live ? [] : [...circuitIds],
    });
    this.keep();
  }

  /** Another conductor, which is on no record. */
  addOther(name: string, value: number, circuitIds: readonly string[], toName: string): void {
    const count = this.seen.filter((s) => s.node.startsWith(OTHER)).length;
    this.add({
      node: `${OTHER}${count + 1}`,
      nodeName: name,
      to: REFERENCE,
      toName,
      quantity: 'volts',
      value,
      on: [],
      off: [...circuitIds],
    });
    this.set({ others: 'read' });
  }

  private add(seen: Omit<Timed, 'instrument' | 'at' | 'had'>): void {
    const had = [...this.heads()].map(([device, n]) => ({ device, n }));
    const at = new Date().toISOString();
    this.seen = [...this.seen, { ...seen, instrument: this.tester, at, had }];
  }

  /** Takes the last act back. */
  back(): void {
    this.seen = this.seen.slice(0, -1);
    this.keep();
  }

  /** Takes back everything. */
  startAgain(): void {
    this.seen = [];
    this.draft = blankDraft(this.boxId, this.draft.by);
    this.answered = false;
    localStorage.removeItem(this.key);
  }

  /** The proof and its observations as rows to put on record. */
  command(
    place: string,
    circuitIds: readonly string[],
  ): { type: 'batch'; label: string; commands: PutCommand[] } {
    const at = new Date().toISOString();
    const start = seriesOf(this.seen, new Set(circuitIds)).find((s) => s.off.length > 0);
    const draft = { ...this.draft, had: start?.had ?? null };
    const seen = this.seen.map(({ had: _, ...s }) => s);
    const { proof, observations } = rowsOf(draft, seen, { place, at }, newId);
    return {
      type: 'batch',
      label: 'Proof of dead',
      commands: [
        { type: 'put', table: 'observations', rows: observations },
        { type: 'put', table: 'proofs', rows: [proof] },
      ],
    };
  }
}
