/** Another box that the same work opens: the other switch, the next alarm, the near end of a cable. It has a proof of its own. */
import { rows } from '#core/job/document.ts';
import type { Box, DeviceKind } from '#core/job/schema.ts';
import { AREA_KINDS } from '#core/job/schema.ts';
import type { Context, Step } from '../step.ts';
import { placed, ROOMS, whereWords } from './place.ts';

/** The outlet that a room and words name, beside the one that the call is about. */
const namedSo = (c: Context, pick: string, note: string, device: DeviceKind): Box | null =>
  rows(c.document.boxes).find(
    (b) =>
      b.spot === note.trim().slice(0, 80) &&
      b.device.kind === device &&
      b.id !== c.box?.id &&
      (b.areaId === pick || c.document.areas[b.areaId]?.kind === pick),
  ) ?? null;

/** The box that an answer names: one on record, or the one put down with it. */
export function otherBox(c: Context, key: string, device: DeviceKind): Box | null {
  const entry = c.log.entry(key);
  const [pick = ''] = entry?.picks ?? [];
  return entry && (c.document.boxes[pick] ?? namedSo(c, pick, entry.note, device));
}

/** Where it is: an outlet on record, or a room and a few words. */
export const whereOther = (
  c: Context,
  key: string,
  title: string,
  why: string,
  device: DeviceKind,
): Step => ({
  kind: 'where',
  key,
  title,
  why,
  device,
  rooms: ROOMS,
  says: ({ picks: [pick = ''], note }) => whereWords(c, pick, note),
  refuses: ({ picks: [pick = ''], note }) => {
    if (pick === c.box?.id) return 'expected another one than this';
    if (pick in c.document.boxes) return null;
    const room = pick in c.document.areas || (AREA_KINDS as readonly string[]).includes(pick);
    if (!room) return 'expected a room';
    if (note.trim() === '') return 'expected a few words that find it again';
    const same = namedSo(c, pick, note, device);
    return same && `${same.name} is on record by these words: choose it, or say where this one is`;
  },
  effects: ({ picks: [pick = ''], note }) =>
    pick in c.document.boxes ? [] : placed(c, [pick], note, device).commands,
});
