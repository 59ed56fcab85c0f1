/** Generated houses for scale: rectangular rooms on a grid, outlets along their walls, circuits of ten. */
import { DEFAULT_SETTINGS, emptyDocument } from '../src/core/job/document.ts';
import type { Area, Box, Circuit, JobDocument, Opening } from '../src/core/job/schema.ts';

/** A house with about the given number of outlets, the same for the same number. */
export function generatedHouse(outlets: number): JobDocument {
  const areas: Record<string, Area> = {};
  const openings: Record<string, Opening> = {};
  const boxes: Record<string, Box> = {};
  const circuits: Record<string, Circuit> = {};
  const kinds = ['bedroom', 'living', 'kitchen', 'basement-finished', 'den', 'laundry'] as const;
  const perRoom = 6;
  const rooms = Math.ceil(outlets / perRoom);
  const columns = Math.ceil(Math.sqrt(rooms));
  let count = 0;
  for (let r = 0; r < rooms; r++) {
    const id = `area-r${r}`;
    const width = 150 + (r % 5) * 14;
    const depth = 130 + (r % 7) * 11;
    const lengths = [width, depth, width, depth];
    areas[id] = {
      id,
      levelId: 'level-1',
      name: `Room ${r + 1}`,
      kind: kinds[r % kinds.length]!,
      x: (r % columns) * 230,
      y: Math.floor(r / columns) * 220,
      heading: 0,
      location: 'dry',
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
    };
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
        },
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
      breaker: { rating: 20, protection: 'afci' },
      gauge: '12',
      material: 'copper',
      cable: 'NM-B',
      stops: members.map((boxId, i) => ({
        boxId,
        from: i === 0 ? null : members[i - 1]!,
        measured: null,
        gauge: null,
      })),
    };
  }
  const panelCount = Math.max(1, Math.ceil(Object.keys(circuits).length / 40));
  return {
    ...emptyDocument({
      id: 'job-generated',
      name: `Generated house, ${outlets} outlets`,
      address: '',
      edition: '2020',
      dwelling: 'one-family',
      settings: DEFAULT_SETTINGS,
    }),
    levels: { 'level-1': { id: 'level-1', name: 'Main level', elevation: 0 } },
    areas,
    openings,
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
          spaces: 40,
        },
      ]),
    ),
    boxes,
    circuits,
  };
}
