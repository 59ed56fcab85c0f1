/** What Layout shows, and what a person does there with outlets. */
import type { EditionChange } from '#core/code/editionChanges.ts';
import { roomOf } from '#core/code/groups.ts';
import type { Finding, Fix } from '#core/code/rule.ts';
import type { Command } from '#core/job/commands.ts';
import { rows } from '#core/job/document.ts';
import { outlineOf, type Point } from '#core/job/outline.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { slide } from '#core/layout/arrangeBoxes.ts';
import { newBox, nextBoxName } from '#core/layout/placement.ts';
import type { HousePlan } from '#core/layout/placeMissing.ts';
import { address } from '$lib/address.svelte.ts';
import { tinykeys } from 'tinykeys';
import { applyFix, placeIn } from '$lib/fixes.ts';
import { isTyping, outsideFields } from '$lib/keys.ts';
import { levelAsked } from '$lib/levels.ts';
import type { PaletteItem } from '$lib/palette.ts';
import type { Marked } from '$lib/parts/plan/PlanDrawing.svelte';
import { areaOf, selectedBoxes, selectionIn, thingsOf, type Selection } from '$lib/selection.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

/** An arrow key that is held is stored after so much quiet, ms. */
const SETTLED = 500;

export class Laying {
  private readonly session: () => JobSession;
  /** What was placed last, with the reasons. */
  plan = $state.raw<HousePlan | null>(null);
  marked = $state.raw<Marked | null>(null);
  cords = $state.raw<Point[][]>([]);
  /** What another edition would say. */
  changes = $state.raw<readonly EditionChange[]>([]);
  placing = $state(false);
  onlyRoom = $state(false);

  constructor(session: () => JobSession) {
    this.session = session;
  }

  private readonly document = $derived.by(() => this.session().document);
  readonly selected = $derived.by(() => selectionIn(address.get));
  readonly tab = $derived.by(() => address.oneOf('tab', ['findings', 'editions']));
  readonly boxes = $derived.by(() =>
    selectedBoxes(this.selected).flatMap((id) => this.document.boxes[id] ?? []),
  );
  readonly box = $derived.by(() => (this.boxes.length === 1 ? this.boxes[0] : undefined));
  readonly area = $derived.by(() => areaOf(this.document, this.selected));
  readonly levelId = $derived.by(() => this.area?.levelId ?? levelAsked(this.document, address.get('level')));
  readonly onLevel = $derived.by(() => this.session().view.areasOn(this.levelId));
  readonly hasRooms = $derived.by(() => this.onLevel.some((a) => a.walls.length > 0));
  readonly tones = $derived.by(() => new Map(this.changes.map((c) => [c.about.id, c.kind])));
  readonly findings = $derived.by(() => {
    const { findings } = this.session();
    const { area } = this;
    return area && this.onlyRoom ? (findings?.filter((f) => this.isAbout(f, area.id)) ?? null) : findings;
  });

  /** Whether a finding is about a room, what stands in it, or a circuit that runs through it. */
  private isAbout(finding: Finding, areaId: string): boolean {
    const { document } = this;
    const { table, id } = finding.about;
    if (table !== 'circuits') return roomOf(document, finding) === areaId;
    return document.circuits[id]?.stops.some((s) => document.boxes[s.boxId]?.areaId === areaId) ?? false;
  }

  select = (next: Selection): void => {
    address.choose(thingsOf(this.document, next, this.levelId));
    this.marked = null;
    this.cords = [];
  };

  private async place(areas: readonly Area[]): Promise<void> {
    if (this.placing) return;
    this.placing = true;
    this.plan = await placeIn(this.session(), areas).finally(() => (this.placing = false));
  }
  /** In the chosen room, or on the level. */
  placeHere = (): Promise<void> => this.place(this.area ? [this.area] : this.onLevel);
  placeHouse = (): Promise<void> => {
    this.select(null);
    return this.place(rows(this.document.areas));
  };

  addOutlet = async (): Promise<void> => {
    const target = this.area ?? this.onLevel[0];
    const wall = target && outlineOf(target).walls[0];
    if (!target || !wall) return;
    const added = newBox(target, nextBoxName(this.document, target), {
      wallId: wall.id,
      offset: Math.round(wall.length / 2),
      height: this.document.job.settings.receptacleHeight,
      fromWall: 0,
    });
    if (await this.session().execute({ type: 'put', table: 'boxes', rows: [added] }))
      this.select({ kind: 'boxes', ids: [added.id] });
  };

  private moves(list: readonly Box[], by: number): Command[] {
    return list.flatMap((b) => {
      const home = this.document.areas[b.areaId];
      const place = home && slide(home, b, by);
      return place ? [{ type: 'move-box', id: b.id, ...place }] : [];
    });
  }
  private preview(commands: Command[], settle: number | null = null): void {
    const [first] = commands;
    if (!first) return;
    const label = `Move ${commands.length} outlets`;
    this.session().preview(commands.length === 1 ? first : { type: 'batch', label, commands }, settle);
  }

  /** The dragged outlet goes where the pointer is; the others chosen go along by as much. */
  dragBox = (id: string, wallId: string, offset: number): void => {
    const dragged = this.document.boxes[id];
    if (!dragged) return;
    const others = this.boxes.filter((b) => b.id !== id && b.wallId === dragged.wallId);
    const by = dragged.wallId === wallId ? offset - dragged.offset : 0;
    this.preview([{ type: 'move-box', id, wallId, offset }, ...this.moves(by === 0 ? [] : others, by)]);
  };

  key = (event: KeyboardEvent, current: Box): void => {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const step = event.shiftKey ? 12 : 1;
    const list = this.boxes.some((b) => b.id === current.id) ? this.boxes : [current];
    if (event.key === 'ArrowRight' || event.key === 'ArrowUp') this.preview(this.moves(list, step), SETTLED);
    else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown')
      this.preview(this.moves(list, -step), SETTLED);
    else if (event.key === 'Delete' || event.key === 'Backspace') this.remove(list);
    else return;
    event.preventDefault();
  };
  remove(list: readonly Box[]): void {
    void this.session().execute({ type: 'remove', table: 'boxes', ids: list.map((b) => b.id) });
    this.select(null);
  }

  selectAll = (): void => {
    const home = this.area ? [this.area] : this.onLevel;
    const ids = home.flatMap((a) =>
      this.session()
        .view.boxesIn(a)
        .map((b) => b.id),
    );
    if (ids.length > 0) this.select({ kind: 'boxes', ids });
  };

  apply = async (fix: Fix): Promise<void> => {
    const done = await applyFix(this.session(), fix);
    this.plan = 'placeIn' in fix ? done : null;
  };

  showAbout({ table, id }: Finding['about'], spans: Finding['spans'] = undefined): void {
    if (table === 'boxes') this.select({ kind: 'boxes', ids: [id] });
    else if (table === 'areas') this.select({ kind: 'area', id });
    else if (table === 'fixtures') this.select({ kind: 'fixture', id });
    else if (table === 'circuits') {
      const ids = this.document.circuits[id]?.stops.map((s) => s.boxId) ?? [];
      this.select(ids.length > 0 ? { kind: 'boxes', ids } : null);
    } else this.select(null);
    this.marked = spans && table === 'areas' ? { areaId: id, spans } : null;
  }

  actions = (): PaletteItem[] => [
    {
      id: 'place',
      name: 'Place all that is missing',
      hint: 'P',
      words: 'receptacles outlets plugs spacing counters islands',
      run: this.placeHere,
    },
    {
      id: 'place-house',
      name: 'Place what the whole house lacks',
      hint: 'Shift P',
      words: 'receptacles outlets plugs everywhere all levels',
      run: this.placeHouse,
    },
    { id: 'add-outlet', name: 'Add an outlet', hint: 'A', words: 'receptacle plug', run: this.addOutlet },
    {
      id: 'select-all',
      name: 'Choose every outlet of the room',
      hint: 'Ctrl A',
      words: 'select all many',
      run: this.selectAll,
    },
    {
      id: 'compare-editions',
      name: 'Compare two editions',
      hint: 'Layout',
      words: 'nec code year difference changes',
      run: () => address.show({ tab: 'editions' }),
    },
  ];

  /** @returns what lets the keys go */
  listenForKeys(): () => void {
    return tinykeys(window, {
      p: outsideFields(this.placeHere),
      'Shift+P': outsideFields(this.placeHouse),
      a: outsideFields(this.addOutlet),
      '$mod+a': outsideFields(this.selectAll),
      Escape: (e) => {
        if (!isTyping(e)) this.select(null);
      },
    });
  }
}
