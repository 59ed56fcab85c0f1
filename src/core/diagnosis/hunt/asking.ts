/** What the trade asks for, whatever tells more: before a repair, after one, and first of all; and what was answered already. */
import type { Run } from '#core/circuits/run.ts';
import type { Evidence } from './evidence.ts';
import { placeKey } from './causes.ts';
import type { CauseKind } from './kinds.ts';
import { measureKey } from './measures.ts';
import { causeOfKey } from './words.ts';

/**
 * Whether somebody looked where a cause would be mended and it was not that, and nothing new was seen since: the same card
 * does not come back.
 */
export function isDenied(key: string, evidence: readonly Evidence[], repairs: number): boolean {
  const last = evidence.at(-1);
  if (!last || last.after < repairs) return false;
  // Several looks in a row are one: none of them is news to the others.
  const looks = (e: Evidence) =>
    e.finding.kind === 'cleared' ||
    (e.finding.kind === 'opened' && e.finding.found.length === 0) ||
    (e.finding.kind === 'state' && e.finding.on);
  const { place, kind } = causeOfKey(key);
  for (const e of evidence.toReversed()) {
    if (e.after < repairs || !looks(e)) return false;
    const { finding } = e;
    if (finding.kind === 'cleared' && finding.cause === kind && placeKey(finding.place) === placeKey(place))
      return true;
    const stop = place.at === 'panel' ? -1 : place.at === 'box' ? place.stop : null;
    if (finding.kind === 'opened' && finding.stop === stop && !isTurnedOff(key)) return true;
    if (finding.kind === 'state' && finding.stop === stop && isTurnedOff(key)) return true;
  }
  return false;
}

/** Kinds that open a breaker when it is closed onto them, or burn. */
const SHORTS: ReadonlySet<CauseKind> = new Set(['short', 'ground-fault']);
export const isShort = (key: string): boolean => SHORTS.has(causeOfKey(key).kind);

/** Measures that would show a second fault: every outlet of the circuit, read under a load. */
export const retests = (run: Run): ReadonlySet<string> =>
  new Set(run.stops.map((_, stop) => measureKey({ kind: 'volts', stop, amps: 10 })));

/** What is mended with the breaker off: it is closed once, with everything unplugged, before anything else is read. */
export const closesAgain = (mended: readonly string[], evidence: readonly Evidence[]): ReadonlySet<string> =>
  new Set(
    /^(?:box|cable|panel) /.test(mended.at(-1) ?? '') &&
      !evidence.some((e) => e.after >= mended.length && e.finding.kind === 'breaker')
      ? [measureKey({ kind: 'breaker' })]
      : [],
  );

/**
 * What the trade asks first, whatever tells more: the amperes of a breaker that lets go after minutes, before anything is
 * opened; the ground slot against a proven ground where somebody felt a shock, since a live frame may read correct; and a
 * look into a box that was hot or scorched, which is opened in any case.
 */
export const tradeAsks = (evidence: readonly Evidence[], repairs: number): ReadonlySet<string> =>
  new Set(
    evidence
      .filter((e) => e.after >= repairs)
      .flatMap(({ finding }) => {
        if (finding.kind === 'breaker' && finding.does === 'trips later') return ['amps'];
        if (finding.kind === 'sign' && (finding.sign === 'heat' || finding.sign === 'scorch'))
          return [measureKey({ kind: 'open', stop: finding.stop })];
        return finding.kind === 'shock' ? [`reference ${finding.stop}`] : [];
      }),
  );

/** Keys of what the last look into each box found and nobody has mended yet. */
export function seenUnmended(evidence: readonly Evidence[], mended: readonly string[]): string[] {
  const last = new Map<number, { after: number; found: readonly CauseKind[] }>();
  for (const { finding, after } of evidence)
    if (finding.kind === 'opened') last.set(finding.stop, { after, found: finding.found });
  return [...last].flatMap(([stop, { after, found }]) => {
    // Reversed and falsely grounded is mended as one.
    const kinds = found.includes('false-ground-reversed') ? ['false-ground-reversed'] : found;
    const keys = kinds.map((kind) => (stop < 0 ? `panel ${kind}` : `box ${stop} ${kind}`));
    return keys.filter((key) => !mended.slice(after).includes(key));
  });
}

/** What nobody sees by looking where it is mended; a box is opened to be mended anyway. */
export const mustAsk = (key: string): boolean => ['cable', 'service', 'plugged'].includes(key.split(' ')[0]!);

/** Mended by a hand on a handle: nothing is opened for it. */
export const isTurnedOff = (key: string): boolean => /(?:breaker-off|tripped|switched-off)$/.test(key);

/** Measures that show a cause where it is, before anybody mends it. */
export function confirms(key: string, run: Run, evidence: readonly Evidence[]): ReadonlySet<string> {
  const [at, where] = key.split(' ');
  switch (at) {
    case 'box':
      return new Set(isTurnedOff(key) ? [`state ${where}`, `device ${where}`] : [`open ${where}`]);
    case 'panel':
      return new Set(isTurnedOff(key) ? ['state -1'] : ['open -1']);
    case 'cable':
      return new Set([
        `open ${where}`,
        `open ${run.stops[Number(where)]!.feeder}`,
        'elsewhere',
        // From the panel on a home run reads as what is before the panel does.
        ...(run.stops[Number(where)]!.feeder < 0 ? ['legs'] : []),
      ]);
    case 'service':
      return new Set(['elsewhere', 'legs']);
    case 'plugged':
      return new Set([
        where === 'overload' ? 'amps' : 'appliance',
        // A breaker that went is closed once with all unplugged before a load is blamed.
        ...(evidence.some((e) => e.finding.kind === 'breaker' && e.finding.does !== 'holds')
          ? ['breaker']
          : []),
        // Before something is blamed that gave a shock, its outlet is: the slots, and their ground.
        ...evidence.flatMap(({ finding }) =>
          finding.kind === 'shock' ? [`volts ${finding.stop} 0`, `reference ${finding.stop}`] : [],
        ),
      ]);
    default:
      return new Set();
  }
}

/** The measure that a finding answers already. */
export function repeats(finding: Evidence['finding']): string {
  switch (finding.kind) {
    case 'volts':
      if (finding.reference !== null) return measureKey({ kind: 'reference', stop: finding.stop });
      return measureKey({ kind: 'volts', stop: finding.stop, amps: finding.amps > 0 ? 10 : 0 });
    case 'ohms':
      return measureKey({ kind: 'ohms', stop: finding.stop, pair: finding.pair });
    case 'opened':
      return measureKey({ kind: 'open', stop: finding.stop });
    case 'parted':
      return measureKey({ kind: 'part', stop: finding.stop });
    case 'breaker':
      return finding.unplugged ? 'breaker' : '';
    case 'device':
      return finding.does.startsWith('its button') ? '' : `device ${finding.stop}`;
    case 'cleared':
      return '';
    case 'state':
    case 'works':
      return `${finding.kind} ${finding.stop}`;
    case 'legs':
    case 'appliance':
    case 'elsewhere':
    case 'amps':
      return finding.kind;
    default:
      return '';
  }
}
