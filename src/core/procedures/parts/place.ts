/** Which outlet it is: one on record, or a room by its kind and a few words. */
import type { Command } from '#core/job/commands.ts';
import { newId, NO_WATER_NEAR, NOTHING_FOUND, PLAIN_NAMEPLATE, rows } from '#core/job/document.ts';
import {
  AREA_KINDS,
  type Area,
  type AreaKind,
  type Box,
  type Call,
  type DeviceKind,
  type Fixture,
  type Sign,
} from '#core/job/schema.ts';
import { newBox, nextBoxName } from '#core/layout/placement.ts';
import { newFixture, newRoom } from '#core/plan/add.ts';
import { AREA_FACTS } from '#core/tables/areas.ts';
import type { FixtureKind } from '#core/job/schema.ts';
import type { Context, Option, Step } from '../step.ts';
import { when } from '../step.ts';

/** A call with more of what it is about on record. */
export const about = (
  c: Context,
  values: Partial<Pick<Call, 'boxId' | 'circuitId' | 'fixtureId'>>,
): Command => ({
  type: 'put',
  table: 'calls',
  rows: [{ ...c.call, ...values }],
});

/** The outlet as the answer leaves it. */
export const changeBox = (box: Box, values: Partial<Box>): Command => ({
  type: 'put',
  table: 'boxes',
  rows: [{ ...box, ...values }],
});

/** Work on an outlet that is there makes it a replacement. */
export const workedOn = ({ status }: Box): Box['status'] => (status === 'new' ? 'new' : 'replace');

/** Rooms that calls come from, the usual first. */
export const ROOMS: readonly AreaKind[] = [
  ...(['bedroom', 'kitchen', 'bathroom', 'living', 'family', 'dining', 'hallway', 'laundry'] as const),
  ...(['garage', 'outdoors', 'deck', 'basement-finished', 'basement-unfinished', 'den', 'utility'] as const),
  ...(['foyer', 'stairs', 'closet', 'attic', 'crawl-space', 'sunroom', 'recreation', 'pantry'] as const),
  ...(['accessory', 'boathouse'] as const),
];
const isRoom = (text: string): text is AreaKind => (AREA_KINDS as readonly string[]).includes(text);

/** What a kind of outlet begins as where nobody has looked at it. */
const DEVICE: Partial<Record<DeviceKind, Partial<Box>>> = {
  light: { mount: 'ceiling', height: 96 },
  'smoke-alarm': { mount: 'ceiling', height: 96 },
  switch: { height: 48 },
};

/** A room and an outlet as commands, from what was picked. */
export function placed(
  c: Context,
  picks: readonly string[],
  spot: string,
  device: DeviceKind,
  values: Partial<Box> = {},
): { commands: Command[]; box: Box } {
  const { document } = c;
  const [where = ''] = picks;
  const known = document.areas[where];
  const level = rows(document.levels)[0]!;
  let area: Area | undefined = known;
  const commands: Command[] = [];
  if (!area) {
    const kind: AreaKind = isRoom(where) ? where : 'bedroom';
    const same = rows(document.areas).filter((a) => a.kind === kind).length;
    area = {
      ...newRoom(c.view, level.id),
      id: newId('area'),
      name: `${AREA_FACTS[kind].label}${same > 0 ? ` ${same + 1}` : ''}`,
      kind,
      location: kind === 'outdoors' ? 'wet' : kind === 'deck' ? 'damp' : 'dry',
    };
    commands.push({ type: 'put', table: 'areas', rows: [area] });
  }
  const plain = newBox(area, nextBoxName(document, area), {
    wallId: null,
    offset: 0,
    fromWall: 0,
    height: document.job.settings.receptacleHeight,
  });
  const box: Box = {
    ...plain,
    ...DEVICE[device],
    status: 'existing',
    grounding: 'unknown',
    spot: spot.trim().slice(0, 80),
    device: {
      ...plain.device,
      kind: device,
      tamperResistant: false,
      weatherResistant: false,
      cover: 'indoor',
    },
    ...values,
  };
  commands.push({ type: 'put', table: 'boxes', rows: [box] });
  return { commands, box };
}

/** A place in words: an outlet on record, or a room and what was said of it. */
export function whereWords({ document }: Context, pick: string, note: string): string {
  const box = document.boxes[pick];
  if (box) return `${box.name}, ${document.areas[box.areaId]?.name ?? ''}`;
  const room = document.areas[pick]?.name ?? (isRoom(pick) ? AREA_FACTS[pick].label : pick);
  return [room, note.trim()].filter(Boolean).join(', ');
}

/** Which outlet, where the call does not know it yet. @param what in the title, as “outlet” */
export function which(c: Context, device: DeviceKind, what: string, values: Partial<Box> = {}): Step {
  return {
    kind: 'where',
    key: 'where',
    title: `Which ${what}?`,
    why: 'The room decides what protection is asked for; the words find it again.',
    device,
    rooms: ROOMS,
    met: c.box !== null,
    says: ({ picks: [pick = ''], note }) => whereWords(c, pick, note),
    refuses: ({ picks: [pick = ''] }) =>
      pick in c.document.boxes || pick in c.document.areas || isRoom(pick) ? null : 'expected a room',
    effects: ({ picks, note }) => {
      const chosen = c.document.boxes[picks[0] ?? ''];
      if (chosen) return [about(c, { boxId: chosen.id })];
      const { commands, box } = placed(c, picks, note, device, values);
      return [...commands, about(c, { boxId: box.id })];
    },
  };
}

const signOptions: readonly (Option & { sign?: Sign })[] = [
  { value: 'two-slot', name: 'Two slots, no ground hole' },
  { value: 'worn', name: 'Plug falls out or is loose', sign: 'worn contacts' },
  { value: 'heat', name: 'Heat marks', sign: 'heat marks' },
  { value: 'cracked', name: 'Cracked', sign: 'cracked' },
  { value: 'painted', name: 'Painted over', sign: 'painted' },
  { value: 'loose', name: 'Loose in the wall', sign: 'loose' },
  { value: 'counter', name: 'It serves a kitchen counter' },
  { value: 'water', name: 'Sink, tub or shower within 6 ft by cord' },
];

/** What eyes and a plug tell before anything is off. */
export function signs(c: Context): readonly (Step | false | null)[] {
  const { box } = c;
  const area = box && c.document.areas[box.areaId];
  if (!box || !area) return [];
  const counter =
    c.view.fixturesIn(area).find((f) => f.kind === 'counter') ??
    fixtureIn(c, area, 'counter', { status: 'existing' });
  return [
    {
      kind: 'look',
      key: 'signs',
      title: 'What do you see and feel?',
      text: 'Plug something in and pull it out: both halves should hold it.',
      why: 'Worn grip and heat marks condemn a device that reads well.',
      pictures: box,
      options: signOptions.filter((o) => o.value !== 'counter' || area.kind === 'kitchen'),
      exits: [{ value: 'none', name: 'That is all of it' }],
      effects: ({ picks }) => {
        const found = signOptions.flatMap((o) => (o.sign && picks.includes(o.value) ? [o.sign] : []));
        const before = box.found ?? NOTHING_FOUND;
        const old = picks.includes('two-slot');
        return [
          ...(picks.includes('counter')
            ? [{ type: 'put' as const, table: 'fixtures' as const, rows: [counter] }]
            : []),
          changeBox(box, {
            found: { ...before, signs: found },
            device: {
              ...box.device,
              kind: old ? 'two-slot' : box.device.kind === 'two-slot' ? 'duplex' : box.device.kind,
            },
            ...(picks.includes('water') ? {} : { waterDistance: box.waterDistance ?? NO_WATER_NEAR }),
            ...(picks.includes('counter') ? { fixtureId: counter.id } : {}),
          }),
        ];
      },
    },
    ...when(c.log.picked('signs', 'water'), {
      kind: 'measure',
      key: 'water',
      title: 'How far is the water?',
      text: 'The shortest way of a cord to the edge of the sink, tub or shower.',
      why: 'From 6 ft on this place alone does not ask for GFCI.',
      figures: [{ name: 'feet', label: 'Distance', unit: 'ft', min: 0, max: 50 }],
      effects: ({ figures }) => [changeBox(box, { waterDistance: 12 * (figures[0]?.value ?? 0) })],
    }),
  ];
}

/** Something in a room of which the place is not known. */
function fixtureIn(c: Context, area: Area, kind: FixtureKind, values: Partial<Fixture>): Fixture {
  return { ...newFixture(c.view, area, kind, '', 0), wallId: null, ...values };
}

/** An appliance in the room of the outlet, for what is decided by what it serves. */
export function servedCommands(
  c: Context,
  box: Box,
  kind: FixtureKind,
  nameplate: { volts: number; watts: number | null; amps: number | null },
): Command[] {
  const area = c.document.areas[box.areaId]!;
  const known = c.document.fixtures[box.serves ?? ''];
  const fixture: Fixture = {
    ...(known ?? fixtureIn(c, area, kind, { status: 'existing' })),
    nameplate: { ...PLAIN_NAMEPLATE, ...nameplate },
  };
  const { id } = fixture;
  return [
    { type: 'put', table: 'fixtures', rows: [fixture] },
    changeBox(box, { serves: id }),
    about(c, { fixtureId: id, boxId: box.id }),
  ];
}
