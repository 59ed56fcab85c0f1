/** A panel that hands go into: its bus was read dead, each leg to the neutral, the other leg and the enclosure, and since then nothing says otherwise. */
import { isSameDay } from '#core/units/time.ts';
import type { Guard } from '#core/job/commands.ts';
import { added, rows, standingRows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { inOrder, isSurelyBefore, rowsSince, type Recorded } from '#core/job/order.ts';
import type { Entry, JobDocument } from '#core/job/schema.ts';
import { isLive } from './acts.ts';
import { signsOfLife } from './life.ts';
import { DEAD_VOLTS } from './thresholds.ts';

/** Steps of a call: the bus read dead, and the main on again. */
export const PANEL_DEAD = 'panel-dead';
export const MAIN_ON = 'main-on';

/** Pairs of a bus that are read, each as a figure: legs, neutral, enclosure. */
const BUS_PAIRS = ['a-n', 'b-n', 'a-b', 'a-g', 'b-g'] as const;

/** What keeps figures from showing that a bus is dead, or null. */
export function whyNotDead(figures: Entry['figures']): string | null {
  const of = (name: string) => figures.find((f) => f.name === name)?.value;
  for (const name of ['before', 'after']) {
    const proved = of(name);
    if (proved === undefined || !isLive(proved))
      return `Tester ${name}: expected 100 to 140 V on a known live source; else it proves nothing`;
  }
  return BUS_PAIRS.some((p) => (of(p) ?? Infinity) > DEAD_VOLTS)
    ? `Not dead: expected ${DEAD_VOLTS} V or less on every pair of the bus. Stop here`
    : null;
}

const isOf = (entry: Entry, panelId: string): boolean =>
  entry.touches.some((t) => t.in === 'panel' && t.id === panelId);

/** Why hands stay out of a panel; null where its bus is on record as dead. @param now UTC time */
export function whyPanelShut(document: JobDocument, panelId: string, now: string): string | null {
  const name = document.panels[panelId]?.name ?? 'the panel';
  const proof = standingRows(document.entries)
    .filter((e) => e.step === PANEL_DEAD && isOf(e, panelId))
    .sort(inOrder)
    .at(-1);
  if (!proof) return `The bus of ${name} is not on record as read dead`;
  const wrong = whyNotDead(proof.figures);
  if (wrong !== null) return wrong;
  if (!isSameDay(proof.at, now, document.job.zone)) return `The bus of ${name} was read dead on another day`;
  const since = <T extends Recorded>(table: Readonly<Record<string, T>>): T[] =>
    rowsSince(document, table, proof);
  const closed =
    since(document.closings).some((c) => c.of.in === 'panel' && c.of.id === panelId) ||
    rows(document.entries).some((e) => e.step === MAIN_ON && !isSurelyBefore(document, e, proof));
  if (closed) return `The cover of ${name} went on since its bus was read dead: read it again`;
  if (since(document.energizings).length > 0 || since(document.flips).length > 0)
    return `Power came back since the bus of ${name} was read dead: read it again`;
  const sign = signsOfLife(document, since).next();
  return sign.done === true
    ? null
    : `Something was live since the bus of ${name} was read dead. ${sign.value.words}`;
}

/** An answer that took hands into a panel stands on its bus read dead until then. */
export const panelGuard: Guard = (before, _after, changes, now) =>
  added<Entry>(changes, 'entries').flatMap(({ id, step, touches, strikes, at }): Problem[] =>
    step === PANEL_DEAD || strikes !== null
      ? []
      : touches.flatMap((t): Problem[] => {
          const why = t.in === 'panel' ? whyPanelShut(before, t.id, now ?? at) : null;
          return why === null ? [] : [{ path: `entries[${id}]`, message: why }];
        }),
  );
