/** Small documents for tests: one room, one panel, and what a test adds. */
import { NO_RULES, run as runBehind, type Command } from './commands.ts';
import {
  breakerOf,
  CEILING_HEIGHT,
  DEFAULT_SETTINGS,
  edgesOf,
  emptyDocument,
  NOT_ASKED,
  PLAIN_BOX,
  PLAIN_CIRCUIT,
  PLAIN_CONDITIONS,
  PLAIN_DEVICE,
  PLAIN_FIXTURE,
  PLAIN_LOAD,
  PLAIN_NAMEPLATE,
  PLAIN_PANEL,
  stopAt,
} from './document.ts';
import type {
  Amendment,
  Area,
  AreaKind,
  Box,
  Circuit,
  Conditions,
  Edition,
  Feeder,
  Fixture,
  FixtureKind,
  Job,
  JobDocument,
  Opening,
  Panel,
} from './schema.ts';

/** A command with no gate before it: what is tested is the command. */
export const run = (document: JobDocument, command: Command) => runBehind(document, command, NO_RULES);

const LEVEL = { id: 'level-1', name: 'Main level', elevation: 0 };
export const PANEL: Panel = {
  id: 'panel-1',
  levelId: 'level-1',
  name: 'Panel A',
  x: 0,
  y: 0,
  mainRating: 100,
  busRating: 100,
  spaces: 20,
  ...PLAIN_PANEL,
};

export const conditions = (values: Partial<Conditions>): Conditions => ({ ...PLAIN_CONDITIONS, ...values });

/** A room from wall lengths and right-hand turns; rectangular when only lengths are given. */
export function room(lengths: number[], turns = lengths.map(() => 90), values: Partial<Area> = {}): Area {
  return {
    id: 'area-1',
    levelId: LEVEL.id,
    name: 'Room',
    kind: 'bedroom',
    x: 0,
    y: 0,
    heading: 0,
    location: 'dry',
    ceilingHeight: CEILING_HEIGHT,
    conditions: PLAIN_CONDITIONS,
    walls: lengths.map((length, i) => ({ id: `wall-${i + 1}`, length, turn: turns[i]! })),
    ...values,
  };
}

export const opening = (
  wall: number,
  offset: number,
  width: number,
  values: Partial<Opening> = {},
): Opening => ({
  id: `opening-${wall}-${String(offset).replace('.', '-')}`,
  areaId: 'area-1',
  wallId: `wall-${wall}`,
  kind: 'door',
  offset,
  width,
  hinge: 'none',
  ...edgesOf(values.kind ?? 'door'),
  ...values,
});

export const fixture = (
  kind: FixtureKind,
  wall: number,
  offset: number,
  width: number,
  values: Partial<Fixture> = {},
): Fixture => ({
  id: `fixture-${kind}-${wall}-${String(offset).replace('.', '-')}`,
  areaId: 'area-1',
  name: kind,
  kind,
  wallId: `wall-${wall}`,
  offset,
  width,
  depth: 24,
  height: 36,
  ...PLAIN_FIXTURE,
  ...values,
});

/** A nameplate for what a fixture is marked with. */
export const plate = (volts: number, values: Partial<NonNullable<Fixture['nameplate']>>) => ({
  nameplate: { volts, ...PLAIN_NAMEPLATE, ...values },
});

/** 60 A on 6 AWG and four wires from the panel at the service. */
export const FEEDER: Feeder = {
  panelId: PANEL.id,
  space: 5,
  rating: 60,
  gauge: '6',
  material: 'copper',
  cable: 'NM-B',
  status: 'existing',
  ground: true,
  ambient: 30,
  bundled: 2,
  measured: 600,
};

export const receptacle = (values: Partial<Box['device']> = {}): Box['device'] => ({
  kind: 'duplex',
  rating: 20,
  tamperResistant: true,
  weatherResistant: false,
  ...PLAIN_DEVICE,
  ...values,
});

export const outlet = (name: string, wall: number, offset: number, values: Partial<Box> = {}): Box => ({
  id: `box-${name.toLowerCase()}`,
  name,
  areaId: 'area-1',
  wallId: `wall-${wall}`,
  offset,
  fromWall: 0,
  height: 16,
  status: 'new',
  grounding: 'grounded',
  waterDistance: null,
  device: receptacle(),
  ...PLAIN_BOX,
  note: '',
  ...values,
});

/** A chain on a 20 A breaker. */
export const chain = (boxes: Box[], values: Partial<Circuit> = {}): Circuit => ({
  id: 'circuit-1',
  panelId: PANEL.id,
  space: 1,
  name: 'Circuit 1',
  status: 'new',
  ...PLAIN_CIRCUIT,
  breaker: breakerOf(20, 'afci'),
  gauge: '12',
  stops: boxes.map((b, i) => stopAt(b.id, boxes[i - 1]?.id ?? null)),
  ...values,
});

const byId = <T extends { id: string }>(list: readonly T[]) => Object.fromEntries(list.map((e) => [e.id, e]));

export function house(
  parts: {
    area?: Area;
    kind?: AreaKind;
    areas?: Area[];
    openings?: Opening[];
    fixtures?: Fixture[];
    amendments?: Amendment[];
    job?: Partial<Job>;
    boxes?: Box[];
    circuits?: Circuit[];
    panels?: Panel[];
    edition?: Edition;
  } = {},
): JobDocument {
  const area = parts.area ?? room([144, 120, 144, 120], undefined, { kind: parts.kind ?? 'bedroom' });
  return {
    ...emptyDocument({
      id: 'job-1',
      name: 'Test house',
      address: '',
      entry: 'project',
      edition: parts.edition ?? '2020',
      dwelling: 'one-family',
      permitDate: null,
      zone: null,
      laundryElsewhere: false,
      load: PLAIN_LOAD,
      otherSources: NOT_ASKED,
      settings: DEFAULT_SETTINGS,
      prices: [],
      ...parts.job,
    }),
    levels: byId([LEVEL]),
    panels: byId(parts.panels ?? [PANEL]),
    areas: byId(parts.areas ?? [area]),
    openings: byId(parts.openings ?? []),
    fixtures: byId(parts.fixtures ?? []),
    amendments: byId(parts.amendments ?? []),
    boxes: byId(parts.boxes ?? []),
    circuits: byId(parts.circuits ?? []),
  };
}
