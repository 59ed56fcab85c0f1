/** What a hunt asked for next, as it stands in the log: by ids of boxes, so that it outlives a run that is drawn anew. */
import type { Run } from '#core/circuits/run.ts';
import { placeKey } from '#core/diagnosis/hunt/causes.ts';
import { KINDS, type CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import type { Measure } from '#core/diagnosis/hunt/measures.ts';
import type { Next } from '#core/diagnosis/hunt/next.ts';
import { keyWith } from '#core/diagnosis/hunt/words.ts';

export type Order =
  | { do: 'measure'; measure: Measure }
  /** Key of the cause, by stops. */
  | { do: 'repair'; key: string }
  | { do: 'done' }
  | { do: 'stop'; why: 'none fits' | 'nothing left' };

const PANEL = 'panel';

function withStops(text: string, run: Run): string | null {
  const [at = '', ...rest] = text.split(' ');
  const kind = rest.at(-1) ?? '';
  if (!(kind in KINDS)) return null;
  if (at !== 'box' && at !== 'cable') return `${at} ${kind}`;
  const stop = run.stops.findIndex((s) => s.box.id === rest[0]);
  return stop < 0 ? null : `${placeKey({ at, stop })} ${kind}`;
}

export function orderText(next: Next, run: Run): string {
  switch (next.do) {
    case 'measure': {
      const { measure } = next.advice;
      const at = 'stop' in measure ? (measure.stop < 0 ? PANEL : run.stops[measure.stop]!.box.id) : '';
      const more = 'amps' in measure ? String(measure.amps) : 'pair' in measure ? measure.pair : '';
      return [measure.kind, at, more].filter(Boolean).join(' ');
    }
    case 'repair':
      return `repair ${keyWith(next.key, (stop) => run.stops[stop]!.box.id)}`;
    case 'done':
      return 'done';
    case 'stop':
      return `stop ${next.why}`;
  }
}

const KINDS_AT_BOX = ['state', 'volts', 'works', 'reference', 'device', 'ohms', 'open', 'part'] as const;
const KINDS_ANYWHERE = ['breaker', 'legs', 'appliance', 'elsewhere', 'amps'] as const;
const OHM_PAIRS = ['hotNeutral', 'hotGround', 'neutralGround'] as const;

/** @returns null where it speaks of what is not on the circuit any more */
export function orderOf(text: string, run: Run): Order | null {
  const [kind = '', ...rest] = text.split(' ');
  if (kind === 'repair') {
    const key = withStops(rest.join(' '), run);
    return key === null ? null : { do: 'repair', key };
  }
  if (kind === 'done') return { do: 'done' };
  if (kind === 'stop')
    return { do: 'stop', why: rest.join(' ') === 'none fits' ? 'none fits' : 'nothing left' };
  const anywhere = KINDS_ANYWHERE.find((k) => k === kind);
  if (anywhere) return { do: 'measure', measure: { kind: anywhere } };
  const here = KINDS_AT_BOX.find((k) => k === kind);
  const [id = '', more = ''] = rest;
  const stop =
    id === PANEL && (here === 'open' || here === 'state') ? -1 : run.stops.findIndex((s) => s.box.id === id);
  if (!here || (stop < 0 && id !== PANEL)) return null;
  if (here === 'volts')
    return { do: 'measure', measure: { kind: 'volts', stop, amps: more === '10' ? 10 : 0 } };
  if (here === 'ohms') {
    const pair = OHM_PAIRS.find((p) => p === more);
    return pair ? { do: 'measure', measure: { kind: 'ohms', stop, pair } } : null;
  }
  return { do: 'measure', measure: { kind: here, stop } };
}

/** A kind of cause that may be ticked as found. */
export const isKind = (text: string): text is CauseKind => text in KINDS;
