/** What Trim shows of one box, and what a person does there. */
import { recordOf, withJumper, withoutJumper, withSplice } from '#core/boxes/asFound.ts';
import type { Picture } from '#core/boxes/picture.ts';
import { actualWiring, isFollowed, plannedBoxes } from '#core/boxes/planned.ts';
import { differences, EMPTY_WIRING, isJumper, moved, sameWiring } from '#core/boxes/wiring.ts';
import { runOf } from '#core/circuits/run.ts';
import { energized } from '#core/effects/energized.ts';
import type { Command } from '#core/job/commands.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { BoxWiring, RecordedWiring } from '#core/job/schema.ts';
import { stepsIn, testsIn } from '#core/records/gates.ts';
import { circuitState } from '#core/records/proof.ts';
import { progressOf, ticksOf } from '#core/records/trim.ts';
import { address } from '$lib/address.svelte.ts';
import { Clock } from '$lib/clock.svelte.ts';
import { lastPerson, signed } from '$lib/readings.ts';
import { circuitAsked } from '$lib/selection.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';
import { pictureAside } from '$lib/workers/picture.ts';

export type TrimTab = 'steps' | 'picture' | 'done' | 'fill';

export class Trimming {
  private readonly session: () => JobSession;
  private readonly clock = new Clock();
  by = $state(lastPerson());
  /** Why the last thing asked for was not done. */
  said = $state('');
  /** The end that is looked at. */
  end = $state<string | null>(null);
  picture = $state.raw<Picture | null>(null);
  failed = $state('');

  constructor(session: () => JobSession) {
    this.session = session;
    $effect(() => {
      const { wiring, names } = this;
      if (!wiring) return;
      let stale = false;
      pictureAside(wiring, names).then(
        (picture) => {
          if (!stale) [this.picture, this.failed] = [picture, ''];
        },
        (error: Error) => {
          if (!stale) this.failed = error.message;
        },
      );
      return () => {
        stale = true;
      };
    });
  }

  private readonly document = $derived.by(() => this.session().document);
  private readonly view = $derived.by(() => this.session().view);
  readonly circuits = $derived.by(() => circuitsInOrder(this.document));
  readonly box = $derived.by(() => this.document.boxes[address.get('box') ?? ''] ?? null);
  readonly circuit = $derived.by(() =>
    this.box
      ? (this.view.circuitOf(this.box.id) ?? null)
      : (circuitAsked(this.view, address.get) ?? this.circuits[0] ?? null),
  );
  readonly run = $derived.by(() => this.circuit && runOf(this.view, this.circuit));
  readonly index = $derived.by(() => this.run?.stops.findIndex((s) => s.box.id === this.box?.id) ?? -1);
  readonly stop = $derived.by(() => this.run?.stops[this.index] ?? null);
  readonly names = $derived.by(() =>
    Object.fromEntries((this.run?.stops ?? []).map((s) => [s.box.id, s.box.name])),
  );
  nameOf = (id: string): string => this.names[id] ?? this.document.boxes[id]?.name ?? 'the next box';

  readonly planned = $derived.by(() =>
    this.run && this.index >= 0 ? (plannedBoxes(this.run)[this.index] ?? null) : null,
  );
  /** As recorded, or as planned. */
  readonly wiring = $derived.by((): BoxWiring | null => {
    if (!this.box) return null;
    return this.planned ? actualWiring(this.box, this.planned) : (this.box.wiring?.wiring ?? null);
  });
  readonly moved = $derived.by(
    () =>
      new Set(this.planned && this.wiring ? differences(this.planned, this.wiring).map((d) => d.end) : []),
  );
  /** Recorded cables are those of the plan, so that the network can follow them. */
  readonly followed = $derived.by(
    () => this.wiring !== null && this.planned !== null && isFollowed(this.planned, this.wiring),
  );
  readonly energized = $derived.by(() =>
    this.run && this.wiring && this.followed ? energized(this.run, this.index, this.wiring) : null,
  );

  private readonly now = $derived.by(() => this.clock.now(this.document));
  readonly power = $derived.by(() =>
    this.circuit ? circuitState(this.document, this.circuit, this.now) : 'unproved',
  );
  readonly opened = $derived.by(() =>
    this.run && this.stop ? stepsIn(this.document, this.run, this.stop, this.now) : null,
  );
  readonly tests = $derived.by(() => (this.run && this.stop ? testsIn(this.run, this.stop) : []));
  readonly ticks = $derived.by(() => ticksOf(this.document, this.box?.id ?? ''));
  readonly progress = $derived.by(() =>
    (this.run?.stops ?? []).map((stop) => progressOf(this.document, this.run!, stop)),
  );
  readonly tab = $derived.by((): TrimTab => address.oneOf('tab', ['steps', 'picture', 'done', 'fill']));

  sign = (name: string): string | null => {
    this.by = signed(name);
    return this.by === '' ? 'expected a name' : null;
  };
  chooseCircuit = (id: string): void => address.choose({ circuit: id }, { tab: null });
  chooseBox = (id: string): void => {
    this.end = null;
    this.said = '';
    address.choose({ circuit: this.circuit!.id, box: id }, {});
  };
  show = (tab: TrimTab): void => address.show({ tab: tab === 'steps' ? null : tab });
  go = (step: number): void => {
    const stops = this.run?.stops ?? [];
    if (stops.length === 0) return;
    this.chooseBox(stops[(Math.max(0, this.index) + step + stops.length) % stops.length]!.box.id);
  };
  look = (end: string | null): void => {
    this.end = end;
  };

  /** How a change is recorded: as done once hands may be inside, else as it was found. */
  stage = $derived.by(
    (): RecordedWiring['stage'] => this.box?.wiring?.stage ?? (this.opened?.open ? 'as-done' : 'as-found'),
  );

  private async record(wiring: BoxWiring, stage = this.stage): Promise<void> {
    const { box, planned } = this;
    if (!box) return;
    // What was done as planned is on record as done; what was found so needs no record.
    const plain = stage === 'as-found' && planned !== null && sameWiring(planned, wiring);
    const now = new Date().toISOString();
    const row = { ...box, wiring: plain ? null : recordOf(wiring, stage, now, this.by) };
    const put: Command = { type: 'put', table: 'boxes', rows: [row] };
    const from = box.wiring === null && planned !== null ? recordOf(planned, stage, now, this.by) : null;
    this.said = (await this.session().attempt(from && row.wiring ? this.begun(from, put) : put)) ?? '';
  }
  /** A record that begins with the plan: of two people who begin at once, each keeps the ends that they moved. */
  private begun = (first: RecordedWiring, put: Command): Command => ({
    type: 'batch',
    label: `Edit ${this.box!.name}`,
    commands: [{ type: 'edit', table: 'boxes', id: this.box!.id, edits: [{ path: ['wiring'], first }] }, put],
  });
  place = (end: string, at: string | null): void => {
    this.end = end;
    void this.record(moved(this.wiring ?? EMPTY_WIRING, end, at));
  };
  toggleTab = (yoke: string, side: 'hot' | 'neutral'): void => {
    const wiring = this.wiring!;
    const flip = side === 'hot' ? 'hotTab' : 'neutralTab';
    void this.record({
      ...wiring,
      yokes: wiring.yokes.map((y) => (y.id === yoke ? { ...y, [flip]: !y[flip] } : y)),
    });
  };
  addSplice = (): void => void this.record(withSplice(this.wiring!));
  /** A conductor more between two places; its ends are then put where they are. */
  addJumper = (): void => void this.record(withJumper(this.wiring!, null, null));
  readonly jumpers = $derived.by(() => (this.wiring?.tails ?? []).map((t) => t.id).filter(isJumper));
  takeJumper = (id: string): void => void this.record(withoutJumper(this.wiring!, id));
  setStage = (stage: RecordedWiring['stage']): void => {
    if (this.wiring) void this.record(this.wiring, stage);
  };
  /** Back to the plan: what was recorded is mended. */
  mend = (): void => {
    this.end = null;
    if (this.planned) void this.record(this.planned);
  };
}
