/** What Walk shows, and what a person does there with levels, rooms and what stands in them. */
import { rows } from '#core/job/document.ts';
import { byName } from '#core/job/names.ts';
import type { Point } from '#core/job/outline.ts';
import type { Area } from '#core/job/schema.ts';
import { newLevel, newRoom } from '#core/plan/add.ts';
import { copyRoom, moveWall, snapRoom } from '#core/plan/arrange.ts';
import { address } from '$lib/address.svelte.ts';
import { levelAsked } from '$lib/levels.ts';
import type { PaletteItem } from '$lib/palette.ts';
import { areaOf, selectionIn, thingsOf, type Selection } from '$lib/selection.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

const VIEWS = ['rooms', 'house', 'files'] as const;
const PARTS = ['walls', 'openings', 'fixtures', 'outlets', 'wall-view'] as const;
export type Part = (typeof PARTS)[number];

export class Walking {
  showBelow = $state(false);
  /** Where a dragged room started. */
  private from: Area | null = null;

  constructor(private readonly session: () => JobSession) {}

  private readonly document = $derived.by(() => this.session().document);
  private readonly asked = $derived.by(() => selectionIn(address.get));
  readonly view = $derived.by(() => address.oneOf('view', VIEWS));
  readonly fixtureId = $derived.by(() => (this.asked?.kind === 'fixture' ? this.asked.id : null));
  readonly boxId = $derived.by(() => (this.asked?.kind === 'boxes' ? (this.asked.ids[0] ?? null) : null));
  private readonly chosen = $derived.by(() => areaOf(this.document, this.asked));
  /** What has been chosen in a room is shown in the part that it belongs to. */
  readonly part: Part = $derived.by(() => {
    const first = this.fixtureId !== null ? 'fixtures' : this.boxId !== null ? 'outlets' : 'walls';
    return address.oneOf<Part>('part', [first, ...PARTS]);
  });
  readonly levelId = $derived.by(
    () => this.chosen?.levelId ?? levelAsked(this.document, address.get('level')),
  );
  readonly onLevel = $derived.by(() => [...this.session().view.areasOn(this.levelId)].sort(byName));
  readonly hasWalls = $derived.by(() => this.onLevel.some((a) => a.walls.length > 0));
  readonly area = $derived.by(() => this.chosen ?? this.onLevel[0] ?? null);
  /** The level below shows through, so that walls are stacked on walls. */
  readonly below = $derived.by(
    () =>
      rows(this.document.levels)
        .filter((l) => l.elevation < (this.document.levels[this.levelId]?.elevation ?? 0))
        .sort((a, b) => b.elevation - a.elevation)[0]?.id ?? null,
  );
  readonly selected = $derived.by((): Selection => {
    if (this.part === 'fixtures' && this.fixtureId !== null) return { kind: 'fixture', id: this.fixtureId };
    if (this.part === 'outlets' && this.boxId !== null) return { kind: 'boxes', ids: [this.boxId] };
    return this.area ? { kind: 'area', id: this.area.id } : null;
  });

  choose = (next: Selection, shown: string | null = this.part): void =>
    address.choose(thingsOf(this.document, next, this.levelId), { view: null, part: shown });
  chooseRoom = (id: string, shown: string | null = this.part): void =>
    this.choose({ kind: 'area', id }, shown);
  chooseLevel = (level: string): void => address.choose({ level });
  select = (next: Selection): void => {
    if (next?.kind === 'area') {
      if (next.id !== this.area?.id || this.view !== 'rooms') this.chooseRoom(next.id);
    } else if (next) this.choose(next, next.kind === 'fixture' ? 'fixtures' : 'outlets');
  };

  addRoom = async (): Promise<void> => {
    const session = this.session();
    const room = newRoom(session.view, this.levelId);
    if (await session.execute({ type: 'put', table: 'areas', rows: [room] }))
      this.chooseRoom(room.id, 'walls');
  };

  addLevel = async (): Promise<void> => {
    const level = newLevel(this.document);
    if (await this.session().execute({ type: 'put', table: 'levels', rows: [level] }))
      this.chooseLevel(level.id);
  };

  copy = async (source: Area, mirror: boolean): Promise<void> => {
    const made = copyRoom(this.document, source.id, {
      name: `${source.name} ${mirror ? 'mirrored' : 'copy'}`.slice(0, 80),
      mirror,
    });
    if (await this.session().execute(made.command)) this.chooseRoom(made.area.id);
  };

  private preview(label: string, next: Area): void {
    this.session().preview({
      type: 'batch',
      label,
      commands: [{ type: 'put', table: 'areas', rows: [next] }],
    });
  }

  private startOf(id: string): Area | null {
    if (this.from?.id !== id) this.from = this.document.areas[id] ?? null;
    return this.from;
  }

  dragRoom = (id: string, by: Point): void => {
    const from = this.startOf(id);
    if (!from) return;
    const moved = { ...from, x: from.x + by.x, y: from.y + by.y };
    const others = this.onLevel.filter((a) => a.id !== id && a.walls.length > 2);
    const at = snapRoom(moved, others, this.document.job.settings.wallThickness);
    this.preview(`Move ${from.name}`, { ...moved, ...at });
  };

  dragWall = (id: string, wallId: string, by: number): void => {
    const from = this.startOf(id);
    const pushed = from && moveWall(from, wallId, Math.round(by));
    if (from && pushed?.ok) this.preview(`Push a wall of ${from.name}`, pushed.value);
  };

  dragFixture = (id: string, wallId: string, offset: number): void => {
    const fixture = this.document.fixtures[id];
    if (!fixture) return;
    this.session().preview({
      type: 'batch',
      label: `Move ${fixture.name}`,
      commands: [{ type: 'put', table: 'fixtures', rows: [{ ...fixture, wallId, offset }] }],
    });
  };

  drop = (): void => {
    this.from = null;
    void this.session().release();
  };

  actions = (): PaletteItem[] => [
    { id: 'add-room', name: 'Add a room', hint: 'Walk', words: 'area survey', run: this.addRoom },
    {
      id: 'walk-house',
      name: 'House, panel and local amendments',
      hint: 'Walk',
      words: 'settings permit dwelling fuses breakers ordinance',
      run: () => address.show({ view: 'house' }),
    },
    {
      id: 'walk-files',
      name: 'Plans and outlets from files',
      hint: 'Walk',
      words: 'dxf cad csv import export spreadsheet',
      run: () => address.show({ view: 'files' }),
    },
  ];
}
