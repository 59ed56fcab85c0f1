/** What Runs shows, and what a person does there with circuits and their stops. */
import { tick } from 'svelte';
import { runOf } from '#core/circuits/run.ts';
import { circuitsInOrder, rows } from '#core/job/document.ts';
import type { Circuit } from '#core/job/schema.ts';
import { appendAllToCircuit, appendToCircuit, newCircuit, putOnCircuit } from '#core/panel/add.ts';
import { address } from '$lib/address.svelte.ts';
import type { PaletteItem } from '$lib/palette.ts';
import { circuitAsked } from '$lib/selection.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

const stopNamed = (name: string | undefined, within: ParentNode = window.document) =>
  within.querySelector<SVGGElement>(`[data-stop="${CSS.escape(name ?? '')}"]`);

export class Running {
  constructor(private readonly session: () => JobSession) {}

  private readonly document = $derived.by(() => this.session().document);
  readonly circuits = $derived.by(() => circuitsInOrder(this.document));
  readonly boxId = $derived.by(() => address.get('box'));
  readonly shows = $derived.by(() => address.get('open'));
  readonly hasPanel = $derived.by(() => rows(this.document.panels).length > 0);
  readonly circuit = $derived.by(
    () => circuitAsked(this.session().view, address.get) ?? this.circuits[0] ?? null,
  );
  readonly run = $derived.by(() => this.circuit && runOf(this.session().view, this.circuit));
  readonly stop = $derived.by(() => this.run?.stops.find((s) => s.box.id === this.boxId) ?? null);
  /** Outlets that no circuit feeds yet. */
  readonly loose = $derived.by(() =>
    rows(this.document.boxes).filter((b) => b.status !== 'remove' && !this.session().view.circuitOf(b.id)),
  );
  readonly findings = $derived.by(
    () =>
      this.session().findings?.filter(
        (f) => f.about.id === this.circuit?.id || this.run?.stops.some((s) => s.box.id === f.about.id),
      ) ?? null,
  );

  choose = (id: string, box?: string): void => address.choose({ circuit: id, ...(box && { box }) });
  showOnly = (open: string | null): void => address.show({ open });

  addCircuit = async (): Promise<void> => {
    const session = this.session();
    const panel =
      (this.circuit && this.document.panels[this.circuit.panelId]) ?? rows(this.document.panels)[0];
    if (!panel) return;
    const added = newCircuit(this.document, panel);
    if (!added.ok) session.problems = [{ path: 'space', message: added.message }];
    else if (await session.execute({ type: 'put', table: 'circuits', rows: [added.value] }))
      this.choose(added.value.id);
  };

  private moveTo(id: string, circuitId: string | null, after: string | null, branch = false) {
    return this.session().execute(putOnCircuit(this.document, id, circuitId, after, branch));
  }
  append = (id: string, to: Circuit) => this.session().execute(appendToCircuit(this.document, id, to));
  appendAll = (to: Circuit) =>
    this.session().execute(
      appendAllToCircuit(
        this.document,
        this.loose.map((b) => b.id),
        to,
      ),
    );
  takeOff = (id: string) => this.moveTo(id, null, null);

  /** Alt with arrows moves a stop along its run and between runs, with Shift from feeder to feeder. */
  key = async (event: KeyboardEvent, id: string): Promise<void> => {
    const home = this.session().view.circuitOf(id);
    if (!event.altKey || !home) return;
    const i = home.stops.findIndex((s) => s.boxId === id);
    const c = this.circuits.indexOf(home);
    event.preventDefault();
    const feed = (from: string | null | undefined) =>
      from && this.session().execute({ type: 'feed-stop', boxId: id, from });
    const { from } = home.stops[i]!;
    const [above, below] = [this.circuits[c - 1], this.circuits[c + 1]];
    if (event.shiftKey && event.key === 'ArrowLeft')
      await feed(home.stops.find((s) => s.boxId === from)?.from);
    else if (event.shiftKey && event.key === 'ArrowRight')
      await feed(home.stops.slice(0, i).findLast((s) => s.from === from && s.boxId !== id)?.boxId);
    else if (event.key === 'ArrowLeft' && i > 0)
      await this.moveTo(id, home.id, home.stops[i - 2]?.boxId ?? null);
    else if (event.key === 'ArrowRight' && i < home.stops.length - 1)
      await this.moveTo(id, home.id, home.stops[i + 1]!.boxId);
    else if (event.key === 'ArrowUp' && above) await this.append(id, above);
    else if (event.key === 'ArrowDown' && below) await this.append(id, below);
    else return;
    // The stop keeps the focus wherever it went.
    await tick();
    stopNamed(this.document.boxes[id]?.name)?.focus();
  };

  /**
   * A stop let go over a run: on a box it becomes a branch of that box, elsewhere it goes after the last stop to the
   * left of that point.
   */
  drop = (id: string, x: number, y: number): void => {
    const target = window.document
      .elementsFromPoint(x, y)
      .map((e) => e.closest<HTMLElement>('[data-circuit]'))
      .find(Boolean);
    const to = target && this.document.circuits[target.dataset.circuit ?? ''];
    if (!target || !to) return;
    let after: string | null = null;
    for (const s of to.stops) {
      if (s.boxId === id) continue;
      const at = stopNamed(this.document.boxes[s.boxId]?.name, target)
        ?.querySelector('.body')
        ?.getBoundingClientRect();
      if (!at) continue;
      const [cx, cy] = [at.left + at.width / 2, at.top + at.height / 2];
      if (Math.abs(cx - x) <= at.width / 2 && Math.abs(cy - y) <= at.height / 2)
        return void this.moveTo(id, to.id, s.boxId, true);
      if (cx < x) after = s.boxId;
    }
    void this.moveTo(id, to.id, after);
  };

  actions = (): PaletteItem[] => [
    {
      id: 'plan-circuits',
      name: 'Plan circuits',
      hint: 'Runs',
      words: 'planner group breakers cable optimize homeruns',
      run: () => this.showOnly('planner'),
    },
    { id: 'add-circuit', name: 'Add a circuit', hint: 'Runs', words: 'new breaker', run: this.addCircuit },
    ...this.actionsOfStop(),
  ];

  private actionsOfStop(): PaletteItem[] {
    const { stop, run, circuit } = this;
    if (!stop || !run || !circuit) return [];
    return [
      ...run.stops
        .filter((s) => s.box.id !== stop.box.id && stop.feeder >= 0)
        .map((s) => ({
          id: `feed-${s.box.id}`,
          name: `Feed ${stop.box.name} from ${s.box.name}`,
          hint: 'Runs',
          words: 'branch tree splice',
          run: () => this.session().execute({ type: 'feed-stop', boxId: stop.box.id, from: s.box.id }),
        })),
      ...this.circuits
        .filter((c) => c.id !== circuit.id)
        .map((c) => ({
          id: `to-${c.id}`,
          name: `Move ${stop.box.name} to ${c.name}`,
          hint: 'Runs',
          words: 'circuit',
          run: () => this.append(stop.box.id, c),
        })),
      {
        id: 'off-circuit',
        name: `Take ${stop.box.name} off its circuit`,
        hint: 'Runs',
        words: 'remove loose',
        run: () => this.takeOff(stop.box.id),
      },
    ];
  }
}
