/**
 * A panel that hands go into: other sources asked for, its main or feeder off and locked with what else feeds it, its bus read
 * dead, each leg to the neutral, the other leg and the enclosure, and since then nothing that says otherwise.
 */
import { isSameDay } from '#core/units/time.ts';
import type { Guard } from '#core/job/commands.ts';
import { added, rows, standingRows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { inOrder, isSurelyBefore, rowsSince, type Recorded } from '#core/job/order.ts';
import type { Entry, JobDocument, Panel } from '#core/job/schema.ts';
import { isLive } from './acts.ts';
import { signsOfLife } from './life.ts';
import { SOURCE_WORDS } from './sources.ts';
import { DEAD_VOLTS } from './thresholds.ts';

/** Steps of a call: what feeds the panel off and locked, its bus read dead, and the main on again. */
export const PANEL_OFF = 'panel-off';
export const PANEL_DEAD = 'panel-dead';
export const MAIN_ON = 'main-on';
/** Whether a step is one that a panel is proved dead by: it touches the panel, and stands behind no proof of it. */
export const provesPanel = (step: string): boolean => step === PANEL_OFF || step === PANEL_DEAD;

/** Ticks of `PANEL_OFF` that say whether something else ends in the panel that may be live: one of them is made. */
const FED = 'fed';
const NOT_FED = 'not-fed';

/** Pairs of a bus that are read, each as a figure: legs, neutral, enclosure. */
const BUS_PAIRS = ['a-n', 'b-n', 'a-b', 'a-g', 'b-g', 'n-g'] as const;
/** Lugs that feed on, or a breaker that is fed backwards, to neutral and enclosure. */
const FED_PAIRS = ['f-n', 'f-g'] as const;

/** What is ticked before a bus is read, by value and words; each of them but the last two is made, and one of those. */
export function panelTicks({ panels, job }: JobDocument, panel: Panel): (readonly [string, string])[] {
  const parent = panel.feeder && panels[panel.feeder.panelId];
  return [
    ...(panel.feeder === null
      ? ([
          ['main', 'Branch breakers off, then the main: locked or taped, a tag on it'],
          ['lugs', 'Line lugs and what leads to them stay live: named to all here, their barrier on'],
        ] as const)
      : ([
          [
            'feeder',
            `Its feeder breaker in ${parent?.name ?? 'the panel before it'} off and locked, a tag on it`,
          ],
        ] as const)),
    ...job.otherSources.kinds.map(
      (k) => [`off ${k}`, `The ${SOURCE_WORDS[k]} off and locked as well`] as const,
    ),
    [NOT_FED, 'Looked: no lugs that feed on, no breaker that is fed backwards'],
    [FED, 'There are such: they are read as well'],
  ];
}

/** What is not ticked of what has to be, or null. */
export function whyNotOff(document: JobDocument, panel: Panel, picks: readonly string[]): string | null {
  const ticks = panelTicks(document, panel);
  const missing = ticks.find(([value]) => value !== FED && value !== NOT_FED && !picks.includes(value));
  if (missing) return `Expected ticked once it is so: ${missing[1]}`;
  return picks.includes(FED) === picks.includes(NOT_FED)
    ? 'Expected one of the two: whether lugs feed on or a breaker is fed backwards'
    : null;
}

/** What keeps figures from showing that a bus is dead, or null. @param fed something else that may be live ends in the panel */
export function whyNotDead(figures: Entry['figures'], fed: boolean): string | null {
  const of = (name: string) => figures.find((f) => f.name === name)?.value;
  for (const name of ['before', 'after']) {
    const proved = of(name);
    if (proved === undefined || !isLive(proved))
      return `Tester ${name}: expected 100 to 140 V on a known live source; else it proves nothing`;
  }
  return [...BUS_PAIRS, ...(fed ? FED_PAIRS : [])].some((p) => (of(p) ?? Infinity) > DEAD_VOLTS)
    ? `Not dead: expected ${DEAD_VOLTS} V or less on every pair of the bus. Stop here`
    : null;
}

const isOf = (entry: Entry, panelId: string): boolean =>
  entry.touches.some((t) => t.in === 'panel' && t.id === panelId);

/** The newest answer of a step at a panel that was not taken back. */
const newestOf = (document: JobDocument, step: string, panelId: string): Entry | undefined =>
  standingRows(document.entries)
    .filter((e) => e.step === step && isOf(e, panelId))
    .sort(inOrder)
    .at(-1);

/** Whether something that may be live with the main off is on record as ending in a panel. */
export const isFedOn = (document: JobDocument, panelId: string): boolean =>
  newestOf(document, PANEL_OFF, panelId)?.picks.includes(FED) ?? false;

/** Why what feeds a panel does not stand as off and locked. */
function whyFed(document: JobDocument, panel: Panel, off: Entry, now: string): string | null {
  const missing = whyNotOff(document, panel, off.picks);
  if (missing !== null) return missing;
  if (!isSameDay(off.at, now, document.job.zone)) return `${panel.name} was locked on another day`;
  const closed =
    rowsSince(document, document.closings, off).some((c) => c.of.in === 'panel' && c.of.id === panel.id) ||
    rows(document.entries).some((e) => e.step === MAIN_ON && !isSurelyBefore(document, e, off));
  if (closed) return `The cover of ${panel.name} went on since it was locked: lock it again`;
  return [document.energizings, document.flips].some(
    (table) => rowsSince<Recorded>(document, table, off).length > 0,
  )
    ? `Power came back since ${panel.name} was locked: lock it again`
    : null;
}

/** What keeps hands out of a panel, and the step that comes next; null where its bus is on record as dead. */
export interface PanelGap {
  next: 'sources' | typeof PANEL_OFF | typeof PANEL_DEAD;
  why: string;
}

/** @param now UTC time */
export function panelGap(document: JobDocument, panelId: string, now: string): PanelGap | null {
  const panel = document.panels[panelId];
  if (!panel) return { next: PANEL_DEAD, why: 'This panel is not on record' };
  const { name } = panel;
  if (!document.job.otherSources.asked)
    return { next: 'sources', why: `Whether another source feeds ${name} was not asked` };
  const off = newestOf(document, PANEL_OFF, panelId);
  if (!off) return { next: PANEL_OFF, why: `What feeds ${name} is not on record as off and locked` };
  const fed = whyFed(document, panel, off, now);
  if (fed !== null) return { next: PANEL_OFF, why: fed };
  const gap = (why: string): PanelGap => ({ next: PANEL_DEAD, why });
  const proof = newestOf(document, PANEL_DEAD, panelId);
  if (!proof || !isSurelyBefore(document, off, proof))
    return gap(`The bus of ${name} is not on record as read dead`);
  const wrong = whyNotDead(proof.figures, off.picks.includes(FED));
  if (wrong !== null) return gap(wrong);
  const sign = signsOfLife(document, (table) => rowsSince(document, table, proof)).next();
  return sign.done === true
    ? null
    : gap(`Something was live since the bus of ${name} was read dead. ${sign.value.words}`);
}

/** Why hands stay out of a panel; null where its bus is on record as dead. @param now UTC time */
export const whyPanelShut = (document: JobDocument, panelId: string, now: string): string | null =>
  panelGap(document, panelId, now)?.why ?? null;

/** An answer that took hands into a panel stands on its bus read dead until then. */
export const panelGuard: Guard = (before, _after, changes, now) =>
  added<Entry>(changes, 'entries').flatMap(({ id, step, touches, strikes, at }): Problem[] =>
    provesPanel(step) || strikes !== null
      ? []
      : touches.flatMap((t): Problem[] => {
          const why = t.in === 'panel' ? whyPanelShut(before, t.id, now ?? at) : null;
          return why === null ? [] : [{ path: `entries[${id}]`, message: why }];
        }),
  );
