/**
 * Generated houses for scale: rectangular rooms on a grid, outlets along their walls, circuits of ten. Large ones
 * have storys of ten units of eight rooms, kitchens with counters and sinks, bathrooms with basins and tubs.
 */
import {
  breakerOf,
  CEILING_HEIGHT,
  DEFAULT_SETTINGS,
  edgesOf,
  emptyDocument,
  PLAIN_BOX,
  PLAIN_CIRCUIT,
  PLAIN_CONDITIONS,
  PLAIN_DEVICE,
  PLAIN_FIXTURE,
  NOT_ASKED,
  PLAIN_LOAD,
  PLAIN_PANEL,
  stopAt,
} from '#core/job/document.ts';
import type { Area, Box, Circuit, Fixture, FixtureKind, JobDocument, Opening } from '#core/job/schema.ts';

/** Ten units of eight rooms, and what they share. */
const ROOMS_ON_LEVEL = 84;
const levelOf = (room: number) => `level-${Math.floor(room / ROOMS_ON_LEVEL) + 1}`;

/** A house with the given number of outlets, the same for the same number. */
export function generatedHouse(outlets: number): JobDocument {
  const areas: Record<string, Area> = {};
  const openings: Record<string, Opening> = {};
  const fixtures: Record<string, Fixture> = {};
  const boxes: Record<string, Box> = {};
  const circuits: Record<string, Circuit> = {};
  const kinds = ['bedroom', 'living', 'kitchen', 'bathroom', 'den', 'laundry'] as const;
  const perRoom = 6;
  const rooms = Math.ceil(outlets / perRoom);
  const onLevel = Math.min(rooms, ROOMS_ON_LEVEL);
  const columns = Math.ceil(Math.sqrt(onLevel));
  let count = 0;
  for (let r = 0; r < rooms; r++) {
    const id = `area-r${r}`;
    const width = 150 + (r % 5) * 14;
    const depth = 130 + (r % 7) * 11;
    const lengths = [width, depth, width, depth];
    areas[id] = {
      id,
      levelId: levelOf(r),
      name: `Room ${r + 1}`,
      kind: kinds[r % kinds.length]!,
      x: ((r % onLevel) % columns) * 230,
      y: Math.floor((r % onLevel) / columns) * 220,
      heading: 0,
      location: 'dry',
      ceilingHeight: CEILING_HEIGHT,
      conditions: PLAIN_CONDITIONS,
      walls: lengths.map((length, i) => ({ id: `wall-r${r}-${i}`, length, turn: 90 })),
    };
    openings[`opening-r${r}`] = {
      id: `opening-r${r}`,
      areaId: id,
      wallId: `wall-r${r}-2`,
      kind: 'door',
      offset: 20,
      width: 32,
      hinge: 'start',
      ...edgesOf('door'),
    };
    const kind = areas[id].kind;
    const add = (what: FixtureKind, wall: number, offset: number, size: [number, number, number]) => {
      fixtures[`fixture-r${r}-${what}`] = {
        ...PLAIN_FIXTURE,
        id: `fixture-r${r}-${what}`,
        areaId: id,
        name: what,
        kind: what,
        wallId: `wall-r${r}-${wall}`,
        offset,
        width: size[0],
        depth: size[1],
        height: size[2],
        fastened: true,
      };
    };
    if (kind === 'kitchen') {
      add('counter', 0, width / 2, [width, 24, 36]);
      add('sink', 0, 70, [30, 20, 36]);
      add('island', 2, 70, [48, 27, 36]);
    }
    if (kind === 'bathroom') {
      add('basin', 0, 40, [22, 18, 33]);
      add('tub', 3, 40, [60, 30, 20]);
    }
    for (let b = 0; b < perRoom && count < outlets; b++, count++) {
      const wall = b % 4;
      const boxId = `box-n${count}`;
      boxes[boxId] = {
        id: boxId,
        name: `R${count + 1}`,
        areaId: id,
        wallId: `wall-r${r}-${wall}`,
        offset: Math.min(lengths[wall]! - 6, 34 + (b >= 4 ? 72 : 32)),
        fromWall: 0,
        height: 16,
        status: 'new',
        grounding: 'grounded',
        waterDistance: count % 17 === 0 ? 40 : null,
        device: {
          kind: count % 10 === 0 ? 'gfci' : 'duplex',
          rating: 20,
          tamperResistant: true,
          weatherResistant: false,
          ...PLAIN_DEVICE,
        },
        ...PLAIN_BOX,
        note: '',
      };
    }
  }
  const ids = Object.keys(boxes);
  for (let c = 0; c * 10 < ids.length; c++) {
    const members = ids.slice(c * 10, c * 10 + 10);
    const id = `circuit-n${c}`;
    circuits[id] = {
      id,
      panelId: `panel-${Math.floor(c / 40)}`,
      space: (c % 40) + 1,
      name: `General ${c + 1}`,
      status: 'new',
      ...PLAIN_CIRCUIT,
      breaker: breakerOf(20, 'afci'),
      gauge: '12',
      stops: members.map((boxId, i) => stopAt(boxId, i === 0 ? null : members[i - 1]!)),
    };
  }
  const panelCount = Math.max(1, Math.ceil(Object.keys(circuits).length / 40));
  return {
    ...emptyDocument({
      id: 'job-generated',
      name: `Generated house, ${outlets} outlets`,
      address: '',
      entry: 'project',
      edition: '2020',
      dwelling: 'one-family',
      permitDate: null,
      zone: null,
      laundryElsewhere: false,
      load: PLAIN_LOAD,
      otherSources: NOT_ASKED,
      settings: DEFAULT_SETTINGS,
      prices: [],
    }),
    levels: Object.fromEntries(
      [...new Set(Array.from({ length: rooms }, (_, r) => levelOf(r)))].map((id, i) => [
        id,
        { id, name: i === 0 ? 'Main level' : `Level ${i + 1}`, elevation: i * 114 },
      ]),
    ),
    areas,
    openings,
    fixtures,
    panels: Object.fromEntries(
      Array.from({ length: panelCount }, (_, i) => [
        `panel-${i}`,
        {
          id: `panel-${i}`,
          levelId: 'level-1',
          name: `Panel ${i + 1}`,
          x: 0,
          y: 0,
          mainRating: 200,
          busRating: 200,
          spaces: 40,
          ...PLAIN_PANEL,
        },
      ]),
    ),
    boxes,
    circuits,
  };
}
