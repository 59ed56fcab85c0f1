/** The dwelling's load from what is on record: rooms, circuits and nameplates, all of them or those behind one panel. */
import { FIXTURES } from '#core/tables/fixtures.ts';
import { fixturesOn, heatsByElements, isGasDryer } from '#core/circuits/circuitLoad.ts';
import { runOf } from '#core/circuits/run.ts';
import { lookup } from '#core/view/lookup.ts';
import type { View } from '#core/view/view.ts';
import { isOutside } from '#core/tables/areas.ts';
import { motorAmps } from '#core/tables/motors.ts';
import { byName } from '#core/job/names.ts';
import { rowsById, servedBy } from '#core/job/document.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import type { Area, AreaKind, Circuit, Fixture, JobDocument, Panel } from '#core/job/schema.ts';
import type { Dwelling, LoadItem } from '#core/loads/dwelling.ts';
import { servesBasin } from '#core/plan/reach.ts';
import { dutiesOf, type Duties } from './duty.ts';

/** Not in the floor area of 220.12: garages, open porches, and space that is not finished or cannot be. */
const UNCOUNTED: readonly AreaKind[] = [
  'garage',
  'basement-unfinished',
  'crawl-space',
  'attic',
  'accessory',
  'boathouse',
];

/** Volt-amperes on a nameplate; null where it does not say. */
export function plateVa({ nameplate }: Fixture): number | null {
  if (!nameplate) return null;
  const { volts, watts, amps, minimumAmpacity, horsepower } = nameplate;
  if (watts !== null) return watts;
  const current = amps ?? minimumAmpacity ?? (horsepower === null ? null : motorAmps(horsepower, volts));
  return current === null ? null : current * volts;
}

/** Amperes by the nameplate at its own volts; null where it has none. */
export function plateAmps(fixture: Fixture): number | null {
  const va = plateVa(fixture);
  return va === null ? null : va / fixture.nameplate!.volts;
}

/** Twice the area of a polygon by the shoelace formula, halved. */
function insideArea(area: Area): number | null {
  const outline = outlineOf(area);
  if (!isClosed(outline)) return null;
  const twice = outline.walls.reduce((sum, { from }, i) => {
    const next = outline.walls[(i + 1) % outline.walls.length]!.from;
    return sum + from.x * next.y - next.x * from.y;
  }, 0);
  return Math.abs(twice) / 2;
}

/** Area of rooms with half a wall around each, ft². */
export function floorAreaOf(areas: readonly Area[], wallThickness: number): number {
  const square = areas
    .filter((a) => !isOutside(a) && !UNCOUNTED.includes(a.kind))
    .reduce((sum, a) => {
      const inside = insideArea(a);
      const around = a.walls.reduce((t, w) => t + w.length, 0);
      return inside === null ? sum : sum + inside + (around * wallThickness) / 2;
    }, 0);
  return Math.round(square / 144);
}

/** The panels fed from one, itself among them. */
function panelsBehind(document: JobDocument, panel: Panel): Panel[] {
  const behind = [panel];
  for (const at of behind)
    behind.push(
      ...rowsById(document.panels).filter((p) => p.feeder?.panelId === at.id && !behind.includes(p)),
    );
  return behind;
}

/** Circuits that stay, of a panel and of those fed from it. */
export function circuitsBehind(document: JobDocument, panel: Panel): Circuit[] {
  const behind = new Set(panelsBehind(document, panel).map((p) => p.id));
  return rowsById(document.circuits).filter((c) => c.status !== 'remove' && behind.has(c.panelId));
}

export interface JobLoad {
  dwelling: Dwelling;
  /** Whether the floor area was entered or worked out from the rooms. */
  areaFrom: 'entered' | 'rooms';
  /** Appliances that count and whose nameplate is not on record. */
  lacking: Fixture[];
  /** Fixtures behind the items, in their order. */
  fixtures: Fixture[];
}

/** What a circuit is by what it feeds, and what on it does not belong there. */
export const dutiesOn = lookup(
  ({ subjects }) => subjects.circuit,
  (view, circuit: Circuit): Duties => {
    const { document } = view;
    const stops = runOf(view, circuit).stops.filter(({ box }) => box.status !== 'remove');
    return dutiesOf(
      stops,
      ({ box }) => servedBy(document, box),
      view.edition,
      ({ box, area }) => servesBasin(view, box, area),
    );
  },
);

function itemOf(fixture: Fixture, va: number, all: readonly Fixture[]): LoadItem {
  const elements = heatsByElements(fixture, va);
  const heat = all.some((f) => f.kind === 'heat-pump') ? 'supplementary-heat' : 'space-heat';
  const plain = isGasDryer(fixture) ? 'appliance' : FIXTURES[fixture.kind].dwelling;
  return {
    name: fixture.name,
    kind: elements ? heat : plain,
    va,
    volts: (fixture.nameplate?.volts ?? 240) > 150 ? 240 : 120,
    motor: FIXTURES[fixture.kind].motor && !elements,
    controls: 1,
    added: fixture.status === 'new',
  };
}

/**
 * The load of a job: of the whole dwelling for its only service panel, of what is fed from it for any other.
 * Appliances count that are fastened, wired in, or on a circuit of their own.
 */
function jobLoad(view: View, panel: Panel): JobLoad {
  const { document } = view;
  const { job } = document;
  const services = view.rows('panels').filter((p) => p.feeder === null);
  const whole = panel.feeder === null && services.length === 1;
  const circuits = circuitsBehind(document, panel);
  const runs = circuits.map((c) => runOf(view, c));
  const duties = circuits.map((c) => dutiesOn(view, c));
  const count = (duty: Duties['duty']) => duties.filter((d) => d.duty === duty).length;
  const rooms = whole ? view.rows('areas') : [...new Set(runs.flatMap((r) => r.stops.map((s) => s.area)))];
  const own = new Set(
    runs.flatMap((r, i) => (duties[i]!.duty === 'individual' ? fixturesOn(document, r) : [])),
  );
  const onThese = new Set(runs.flatMap((r) => fixturesOn(document, r)));
  const counted = view.rows('fixtures').filter((f) => {
    if (f.status === 'remove' || f.connection === 'none') return false;
    if (!whole && !onThese.has(f)) return false;
    return f.connection === 'hardwired' || f.fastened || own.has(f) || FIXTURES[f.kind].heavy;
  });
  counted.sort(byName);
  const items: LoadItem[] = [];
  const fixtures: Fixture[] = [];
  const lacking: Fixture[] = [];
  for (const fixture of counted) {
    // A dryer counts 5,000 VA at least, whatever its nameplate says.
    const va = plateVa(fixture) ?? (fixture.kind === 'dryer' && !isGasDryer(fixture) ? 0 : null);
    if (va === null) {
      if (FIXTURES[fixture.kind].heavy) lacking.push(fixture);
      continue;
    }
    items.push(itemOf(fixture, va, counted));
    fixtures.push(fixture);
  }
  const kitchens = rooms.some((a) => a.kind === 'kitchen');
  const laundries = !job.laundryElsewhere && (whole || count('laundry') > 0);
  return {
    dwelling: {
      edition: job.edition,
      floorArea: (whole ? job.load.floorArea : null) ?? floorAreaOf(rooms, job.settings.wallThickness),
      smallApplianceCircuits: Math.max(whole || kitchens ? 2 : 0, count('small-appliance')),
      laundryCircuits: Math.max(laundries ? 1 : 0, count('laundry')),
      items,
      oneFamily: whole && job.dwelling === 'one-family',
      material: 'copper',
    },
    areaFrom: whole && job.load.floorArea !== null ? 'entered' : 'rooms',
    lacking,
    fixtures,
  };
}

/** The load of the dwelling, or of what a panel feeds. */
export const loadOf = lookup(({ subjects }) => subjects.panel, jobLoad);
