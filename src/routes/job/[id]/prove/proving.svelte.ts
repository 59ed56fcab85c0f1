/** What Prove shows of one circuit and one box, and what a person does there. */
import { runOf } from '#core/circuits/run.ts';
import type { AtStop } from '#core/diagnosis/besides.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { Energizing, Reading } from '#core/job/schema.ts';
import { devicesOn } from '#core/records/deviceTests.ts';
import { stepsIn } from '#core/records/gates.ts';
import { circuitState, readingsOf } from '#core/records/proof.ts';
import { sequenceOf, type Task } from '#core/records/sequence.ts';
import { address } from '$lib/address.svelte.ts';
import { Clock } from '$lib/clock.svelte.ts';
import type { StopResult } from '$lib/parts/run/drawing.ts';
import { lastPerson, signed, today } from '$lib/readings.ts';
import { circuitAsked } from '$lib/selection.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

export type ProveTab = 'read' | 'measure' | 'dead' | 'work' | 'device';

const voltsOf = (r: Reading): string => {
  const volts = r.hotHot ?? r.hotNeutral ?? r.hotGround;
  return volts === null ? '' : `${volts} V`;
};

export class Proving {
  private readonly session: () => JobSession;
  private readonly clock = new Clock();
  by = $state(lastPerson());
  stage = $state<Reading['stage']>('as-found');
  half = $state<Reading['half']>('both');
  /** Why the last thing asked for was not done. */

  constructor(session: () => JobSession) {
    this.session = session;
  }

  private readonly document = $derived.by(() => this.session().document);
  private readonly view = $derived.by(() => this.session().view);
  readonly circuits = $derived.by(() => circuitsInOrder(this.document));
  readonly circuit = $derived.by(() => circuitAsked(this.view, address.get) ?? this.circuits[0] ?? null);
  readonly run = $derived.by(() => this.circuit && runOf(this.view, this.circuit));
  readonly index = $derived.by(() =>
    Math.max(0, this.run?.stops.findIndex((s) => s.box.id === address.get('box')) ?? 0),
  );
  readonly stop = $derived.by(() => this.run?.stops[this.index] ?? null);
  /** The breaker’s own device, where that is tested and no box. */
  readonly breakerDevice = $derived.by(() => address.oneOf('breaker', ['', 'gfci', 'afci']));

  private readonly now = $derived.by(() => this.clock.now(this.document));
  readonly power = $derived.by(() =>
    this.circuit ? circuitState(this.document, this.circuit, this.now) : 'unproved',
  );
  readonly opened = $derived.by(() =>
    this.run && this.stop ? stepsIn(this.document, this.run, this.stop, this.now) : null,
  );
  readonly proof = $derived.by(() => (this.opened?.open ? this.opened.proof : null));

  /** Readings of each box that are not struck. */
  readonly standing = $derived.by(() =>
    (this.run?.stops ?? []).map(({ box }) =>
      readingsOf(this.document, box.id)
        .filter((r) => r.past === null)
        .map((r) => r.reading),
    ),
  );
  private readonly judged = $derived.by((): AtStop[][] =>
    this.standing.map((list) => list.map((reading) => ({ reading, verdict: judgeIn(this.view, reading) }))),
  );
  readonly recorded = $derived.by(() =>
    this.judged.flatMap((list, i) => list.map((one) => ({ name: this.run!.stops[i]!.box.name, ...one }))),
  );
  readonly newest = $derived.by(() => this.judged.map((list) => list.at(-1) ?? null));
  /** The newest reading of each box, hung under its stop. */
  readonly results = $derived.by((): Record<string, StopResult> =>
    Object.fromEntries(
      this.newest.flatMap((n, i) => {
        if (!n) return [];
        const { grade, headline } = n.verdict;
        return [[this.run!.stops[i]!.box.id, { grade, text: headline, volts: voltsOf(n.reading) }]];
      }),
    ),
  );

  readonly tasks = $derived.by(() => (this.run ? sequenceOf(this.document, this.run) : []));
  readonly next = $derived.by(() => this.tasks.find((t) => !t.done) ?? null);
  readonly device = $derived.by(() => {
    const devices = this.run ? devicesOn(this.document, this.run, today()) : [];
    const kind = this.breakerDevice;
    const { stop } = this;
    return (
      devices.find((d) => (kind ? d.box === null && d.kind === kind : stop && d.box?.id === stop.box.id)) ??
      null
    );
  });
  readonly tabs = $derived.by((): { id: ProveTab; name: string }[] => [
    { id: 'read', name: 'Readings' },
    ...(this.device ? [{ id: 'device' as const, name: `${this.device.kind.toUpperCase()} test` }] : []),
    { id: 'measure', name: 'Measure' },
    { id: 'dead', name: 'Prove dead' },
    { id: 'work', name: 'In the box' },
  ]);
  readonly tab = $derived.by(() => this.tabs.find((t) => t.id === address.get('tab'))?.id ?? 'read');

  sign = (name: string): string | null => {
    this.by = signed(name);
    return this.by === '' ? 'expected a name' : null;
  };

  /** A box of the circuit by its place on the run, or the device in its breaker. */
  choose(at: number, tab: ProveTab = this.tab, breaker: 'gfci' | 'afci' | null = null): void {
    const box = this.run?.stops[at]?.box.id;
    address.choose({ circuit: this.circuit!.id, ...(box && { box }) }, { tab, breaker });
  }
  chooseBox = (id: string): void => this.choose(this.run!.stops.findIndex((s) => s.box.id === id));
  chooseCircuit = (id: string): void => {
    address.choose({ circuit: id }, { breaker: null });
  };
  show = (tab: ProveTab): void => address.show({ tab });
  go = (step: number): void => {
    const count = this.run?.stops.length ?? 0;
    if (count > 0) this.choose((this.index + step + count) % count);
  };

  /** Puts a task of the sequence before the hands. */
  take = (task: Task): void => {
    if (task.kind === 'power') {
      this.show('dead');
      return;
    }
    const at = Math.max(0, task.stop);
    if (task.kind === 'device') return this.choose(at, 'device', task.stop < 0 ? task.device : null);
    this.choose(at, 'read');
    this.stage = 'as-left';
    this.half = task.kind === 'read' ? task.half : 'both';
  };
  nameOf = (task: Task): string => {
    if (task.stop < 0) return task.kind === 'power' ? task.title : `${task.title}, breaker`;
    const title = task.title.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase());
    return `${this.run!.stops[task.stop]!.box.name}: ${title}`;
  };
  /** After a step is logged the next one is put forward, while the sequence is being walked. */
  logged = (): void => {
    if (this.stage === 'as-left' && this.next && this.next.kind !== 'power') this.take(this.next);
  };
  /** Power is back, to use the circuit or to measure at an open box. */
  energized = (purpose: Energizing['purpose']): void => {
    this.stage = purpose === 'use' ? 'as-left' : 'as-found';
    this.show('read');
  };
}
