/**
 * What on record shows that something is live, or may be. A gate reads these beside a proof of dead: whatever came after it, or
 * may have, shuts the box. Taking a row back does not take back what it said of a conductor, so that rows that were struck or
 * corrected count as well.
 */
import { circuitOf, rows } from '#core/job/document.ts';
import type { Recorded } from '#core/job/order.ts';
import type {
  Circuit,
  DeviceTest,
  Entry,
  Flip,
  JobDocument,
  Measurement,
  Observation,
  Parting,
  Reading,
} from '#core/job/schema.ts';
import { figureOf } from './figures.ts';
import { INSTRUMENT_FACTS } from './instruments.ts';
import { DEAD_VOLTS, KNOWN_SOURCE, LIVE, NO_AMPS } from './thresholds.ts';

/** One row that says that something is live. */
export interface Sign {
  row: Recorded;
  /** As `R3: 119 V`. */
  words: string;
  /** The outlet at which it showed; null at the panel. */
  boxId: string | null;
  /** Circuits that it shows live, whatever box is looked at. */
  circuitIds: readonly string[];
}

const named = (document: JobDocument, boxId: string | null): string =>
  boxId === null ? 'At the panel' : (document.boxes[boxId]?.name ?? 'An outlet that is gone');
const shown = (volts: number | null): volts is number => volts !== null && volts > DEAD_VOLTS;

/** What is live at an outlet is live on its circuit. */
const ofOutlet = (document: JobDocument, boxId: string): string[] => {
  const circuit = circuitOf(document, boxId);
  return circuit ? [circuit.id] : [];
};

function ofReading(document: JobDocument, r: Reading): Sign | null {
  const volts = [r.hotNeutral, r.hotGround, r.neutralGround, r.hotHot, r.groundReference].filter(shown);
  const lit = r.lamps?.some(Boolean) ?? false;
  if (volts.length === 0 && !lit && r.loadAmps < NO_AMPS) return null;
  const what = volts.length > 0 ? `${Math.max(...volts)} V` : lit ? 'a lamp lit' : `${r.loadAmps} A`;
  return sign(document, r, r.boxId, what, ofOutlet(document, r.boxId));
}

const sign = (
  document: JobDocument,
  row: Recorded,
  boxId: string | null,
  what: string,
  circuitIds: readonly string[],
): Sign => ({ row, words: `${named(document, boxId)}: ${what}`, boxId, circuitIds });

/** The circuit whose conductor a key of an observation names; the outlet’s own at a face. */
function circuitsOfNode(document: JobDocument, o: Observation): string[] {
  const [first = '', second = ''] = o.node.split('.');
  if (document.circuits[first]) return [first];
  if (first !== 'face' || o.boxId === null) return [];
  // The face of another outlet in the same box is named by it.
  return ofOutlet(document, document.boxes[second] ? second : o.boxId);
}

function ofObservation(document: JobDocument, o: Observation): Sign | null {
  if (o.node === KNOWN_SOURCE || o.quantity === 'absent') return null;
  if (o.quantity === 'amps') {
    // What flows in a neutral may be another circuit’s: that has a gate of its own.
    const isHot = !o.node.includes('neutral') && !o.node.includes('ground');
    return isHot && o.value >= NO_AMPS
      ? sign(document, o, o.boxId, `${o.value} A`, circuitsOfNode(document, o))
      : null;
  }
  if (o.node === LIVE)
    return o.on.length > 0 ? sign(document, o, o.boxId, `${o.value} V, switched on`, o.on) : null;
  return o.value > DEAD_VOLTS
    ? sign(document, o, o.boxId, `${o.value} V at ${o.nodeName || o.node}`, circuitsOfNode(document, o))
    : null;
}

function ofMeasurement(document: JobDocument, m: Measurement): Sign | null {
  if (m.simulated) return null;
  const { unit, power } = INSTRUMENT_FACTS[m.instrument];
  const bus = m.node === 'panel.bus' || m.to === 'panel.bus';
  const what =
    m.shows === 'live' || m.shows === 'trips'
      ? `the ${m.instrument} ${m.shows === 'live' ? 'found it live' : 'tripped it'}`
      : m.shows === 'sounds'
        ? `the ${m.instrument} sounds`
        : (m.lamps?.some((l) => l !== 'dark') ?? false)
          ? 'a lamp lit'
          : unit === 'V' && shown(m.value)
            ? `${m.value} V`
            : unit === 'A' && (m.value ?? 0) >= NO_AMPS && !/neutral|white|ground|bare/.test(m.node)
              ? `${m.value} A`
              : (unit === '%' && m.shows === 'value') || (power === 'any' && m.loadAmps >= NO_AMPS)
                ? 'under load'
                : null;
  // A bus is live with this breaker off.
  if (what === null || bus) return null;
  return sign(document, m, m.boxId, what, m.circuitId === null ? [] : [m.circuitId]);
}

/** A device opens by its button only with power on it. */
function ofDeviceTest(document: JobDocument, t: DeviceTest): Sign | null {
  const live = t.downstream.filter((d) => !d.dead);
  const power =
    t.tripped ||
    shown(t.voltsAfterTest) ||
    shown(t.voltsAfterReset) ||
    live.length > 0 ||
    (t.tester !== null && t.tester.seconds !== null);
  return power ? sign(document, t, t.boxId, 'its test found power', [t.circuitId]) : null;
}

const SPACE = /^(\d+)([ab]?)$/;
/** Whether a circuit’s breaker stands in a space as a flip names it. */
const isInSpace = ({ space, otherSpace, half }: Circuit, name: string): boolean => {
  const [, digits, part] = SPACE.exec(name.trim().toLowerCase()) ?? [];
  return [space, otherSpace].includes(Number(digits)) && (half === 'whole' || !part || half === part);
};

/** Circuits whose breaker stands in a space of a panel, as `7` or `12a`. */
export const circuitsInSpace = (document: JobDocument, panelId: string, name: string): Circuit[] =>
  rows(document.circuits).filter((c) => c.panelId === panelId && isInSpace(c, name));

/** A breaker that was flipped came on again; an outlet that was looked at was live before it, or after it. */
function ofFlip(document: JobDocument, f: Flip): Sign[] {
  const flipped = f.off.flatMap((space) => circuitsInSpace(document, f.panelId, space));
  return [
    ...f.outlets.map(({ boxId, dead }) =>
      sign(
        document,
        f,
        boxId,
        dead ? 'live before a flip' : 'still live after a flip',
        ofOutlet(document, boxId),
      ),
    ),
    ...(flipped.length > 0
      ? [
          sign(
            document,
            f,
            null,
            `breaker ${f.off.join(', ')} was flipped`,
            flipped.map((c) => c.id),
          ),
        ]
      : []),
  ];
}

const ofParting = (document: JobDocument, p: Parting): Sign | null =>
  p.strikes === null ? sign(document, p, p.boxId, 'power on with the box open', [p.circuitId]) : null;

/** What somebody says of an outlet in a hunt that only power can do. */
const LIVELY = new Set(['works', 'dim', 'bright', 'live-off', 'shock']);

function ofEntry(document: JobDocument, e: Entry): Sign | null {
  if (e.strikes !== null) return null;
  const [kind, boxId = ''] = e.step.split(' ');
  const call = document.calls[e.callId];
  const at = document.boxes[boxId] ? boxId : (call?.boxId ?? null);
  if ((kind === 'seen' || kind === 'state') && document.boxes[boxId]) {
    const does = e.picks.find((p) => LIVELY.has(p));
    return does === undefined ? null : sign(document, e, boxId, does, ofOutlet(document, boxId));
  }
  const names = e.figures.map((f) => f.name);
  const figure = e.figures.find((f) => figureOf(e.step, f.name, names) === 'circuit' && isLive(f));
  if (!figure) return null;
  const circuits = [...(at === null ? [] : ofOutlet(document, at)), call?.circuitId ?? []].flat();
  return sign(document, e, at, `${figure.value} ${isAmps(figure) ? 'A' : 'V'}`, circuits);
}

const isAmps = ({ name }: Entry['figures'][number]): boolean => name === 'amps' || name === 'neutral';
const isLive = (figure: Entry['figures'][number]): boolean =>
  isAmps(figure) ? figure.value >= NO_AMPS : figure.value > DEAD_VOLTS;

/** What shows something live. @param since rows of a table that are looked at */
export function* signsOfLife(
  document: JobDocument,
  since: <T extends Recorded>(table: Readonly<Record<string, T>>) => readonly T[],
): Generator<Sign> {
  const each = <T extends Recorded>(
    table: Readonly<Record<string, T>>,
    read: (document: JobDocument, row: T) => Sign | null,
  ): Sign[] => since(table).flatMap((row) => read(document, row) ?? []);
  yield* each(document.readings, ofReading);
  yield* each(document.observations, ofObservation);
  yield* each(document.measurements, ofMeasurement);
  yield* each(document.deviceTests, ofDeviceTest);
  yield* each(document.entries, ofEntry);
  yield* since(document.flips).flatMap((f) => (f.strikes === null ? ofFlip(document, f) : []));
  yield* each(document.partings, ofParting);
}
