/**
 * Proof of dead: a set of observations that satisfies a rule over the box. Every splice group and loose end is read to one
 * reference that was shown good, hot to hot and hot to neutral, each as an act of its own; what shows that the breaker did
 * it is said; and it ends when power or a lock says so, or the day is over.
 *
 * A neutral is no reference: one that is open rises with what is read against it, and all pairs read nothing while each
 * conductor stands at 120 V.
 */
import { rows } from '../job/document.ts';
import type {
  Box,
  Circuit,
  Energizing,
  Instrument,
  JobDocument,
  Observation,
  OtherSource,
  Panel,
  Proof,
} from '../job/schema.ts';
import { circuitsIn, enclosureOf, hotNeutralPairs, hotPairs, pointsIn, type Point } from './points.ts';

/** Stray volts up to this are taken as dead. */
export const DEAD_VOLTS = 1;
/** Volts on a source that proves the tester, and from a live conductor to a reference that is one. */
export const LIVE_VOLTS = { least: 100, most: 140 } as const;
/** A clamp that shows this much shows a current, amperes: 5 W elsewhere are enough to raise a parted neutral. */
export const NO_AMPS = 0.01;

/** Node keys that do not name a conductor of the box. */
export const KNOWN_SOURCE = 'known-source';
export const LIVE = 'live';
export const REFERENCE = 'reference';
export const OTHER = 'other.';

/** What reads volts and loads what it reads, so that a ghost falls to nothing. */
const LOADS: readonly Instrument[] = ['two-pole tester', 'low-impedance meter'];
export const VOLTMETERS: readonly Instrument[] = [...LOADS, 'high-impedance meter'];

/** A proof before it is recorded. */
export type Draft = Omit<Proof, 'id' | 'at' | 'place' | 'observations'>;
/** What an observation says of its act; who, when and where are added when it is recorded. */
export type Seen = Pick<
  Observation,
  'node' | 'nodeName' | 'to' | 'toName' | 'quantity' | 'value' | 'instrument' | 'on' | 'off'
>;

/** One act or answer that a proof is made of. */
export interface Act {
  key: string;
  kind: 'answer' | 'source' | 'live' | 'lock' | 'face' | 'dead' | 'pair';
  words: string;
  /** Null where it is answered, not read. */
  reads: { node: string; nodeName: string; to: string; toName: string; live: boolean } | null;
  done: boolean;
  /** What is wrong with what was read or answered; null when nothing is, or nothing was yet. */
  problem: string | null;
  /** What is on record and may turn out not to be in the box. */
  mayBeAbsent: boolean;
}

const isBy = (list: readonly Instrument[], { instrument }: Seen): boolean => list.includes(instrument);
const isLive = (volts: number): boolean => volts >= LIVE_VOLTS.least && volts <= LIVE_VOLTS.most;
const range = `${LIVE_VOLTS.least} to ${LIVE_VOLTS.most} V`;

/** The conductor that a proof reads the others to, where it is one of the box. */
export const referencePoint = (points: readonly Point[], reference: Proof['reference']): Point | undefined =>
  reference === 'ground' ? points.find((p) => p.role === 'ground') : undefined;

const REFERENCE_WORDS: Record<Proof['reference'], string> = {
  ground: 'ground in this box',
  'metal-box': 'metal box',
  lead: 'lead from a proven ground',
  none: 'reference',
};

const SOURCE_WORDS: Record<OtherSource, string> = {
  generator: 'generator',
  inverter: 'inverter',
  battery: 'battery',
  'second-feed': 'second feed',
};
export const sourceNames = ({ otherSources }: JobDocument['job']): string =>
  otherSources.kinds.map((k) => SOURCE_WORDS[k]).join(', ');

/**
 * Whether the main makes what a panel feeds dead. Never with another source on record, and only where one main is known
 * to open it all and somebody asked for other sources.
 */
export const mainKills = ({ job }: JobDocument, panel: Panel | undefined): boolean =>
  panel?.oneMain === 'yes' && job.otherSources.asked && job.otherSources.kinds.length === 0;

/** What stays live in a panel with its main off. */
export function panelCaution(document: JobDocument, panel: Panel | undefined): string {
  const lugs = 'With the main off its line lugs stay live.';
  if (mainKills(document, panel)) return lugs;
  const sources = sourceNames(document.job);
  if (sources) return `${lugs} So may its bus be: this house has another source (${sources}).`;
  return document.job.otherSources.asked
    ? `${lugs} Whether one main opens all that feeds this panel is not on record: take the bus as live until it is read dead.`
    : `${lugs} Whether another source feeds this house was not asked: take the bus as live until it is read dead.`;
}

/** The acts and answers that make a box dead, in the order of the work, each with how it stands. */
export function actsOf(document: JobDocument, box: Box, draft: Draft, seen: readonly Seen[]): Act[] {
  const points = pointsIn(document, box);
  const circuits = circuitsIn(document, box);
  const acts: Act[] = [];
  const { job } = document;
  const answer = (key: string, words: string, done: boolean, problem: string | null = null): void => {
    acts.push({ key, kind: 'answer', words, reads: null, done, problem, mayBeAbsent: false });
  };
  answer('by', 'Who proves it', draft.by.trim() !== '');
  answer(
    'sources',
    'Ask once for the house: generator, inverter, battery, a second feed?',
    job.otherSources.asked,
  );
  const landed = draft.basis !== 'not-landed';
  answer(
    'basis',
    landed ? 'What shows that the breaker did it' : `Home run not landed, seen by ${draft.seenBy || '…'}`,
    !draft.basis.startsWith('earlier') && (landed || draft.seenBy.trim() !== ''),
    landed ? null : 'expected who saw that the home run is not landed',
  );
  const whyNoReference = referenceProblem(draft, points);
  answer('reference', 'What every conductor is read to', whyNoReference === null, whyNoReference);
  acts.push(...readings(box, points, draft, seen, circuits, job.otherSources.kinds));
  return acts;
}

/** Why a draft has nothing yet to read conductors to; null when it has. */
function referenceProblem({ reference, referenceName }: Draft, points: readonly Point[]): string | null {
  if (reference === 'none')
    return `without a reference these stay unproved: ${points.map((p) => p.name).join(', ')}. Bring a lead from a proven ground`;
  if (reference === 'ground' && !referencePoint(points, reference))
    return 'no ground is on record in this box: bring a lead from a proven ground';
  return reference === 'lead' && referenceName.trim() === '' ? 'expected where the lead comes from' : null;
}

function readings(
  box: Box,
  points: readonly Point[],
  draft: Draft,
  seen: readonly Seen[],
  circuits: readonly Circuit[],
  kinds: readonly OtherSource[],
): Act[] {
  const acts: Act[] = [];
  const own = referencePoint(points, draft.reference);
  const to = draft.referenceName || own?.name || REFERENCE_WORDS[draft.reference];
  const ids = new Set(circuits.map((c) => c.id));
  const landed = draft.basis !== 'not-landed';
  // What a later reading at the same place replaced is not relied on, nor the tester it was made with.
  const relied = seen.map(
    (s, i) =>
      s.quantity === 'volts' &&
      s.node !== KNOWN_SOURCE &&
      s.node !== LIVE &&
      !seen.some((later, j) => j > i && later.node === s.node && later.to === s.to),
  );
  const testers = [...new Set(seen.filter((_, i) => relied[i]).map((s) => s.instrument))];

  /** Each tester on a known live source, before what it read or after it. */
  const source = (after: boolean): Act => {
    const within = (t: Instrument) => {
      const own = seen.map((s, i) => relied[i]! && s.instrument === t);
      const [first, last] = [own.indexOf(true), own.lastIndexOf(true)];
      return seen.filter(
        (s, i) =>
          s.node === KNOWN_SOURCE && s.instrument === t && (after ? i > last : first < 0 || i < first),
      );
    };
    const proved = (t: Instrument) => within(t).some((s) => isLive(s.value));
    const missing = testers.filter((t) => !proved(t));
    const sources = seen.filter((s) => s.node === KNOWN_SOURCE);
    const [first, final] = [relied.indexOf(true), relied.lastIndexOf(true)];
    const last = seen.findLast(
      (s, i) => s.node === KNOWN_SOURCE && (after ? final >= 0 && i > final : first < 0 || i < first),
    );
    const done = testers.length > 0 ? missing.length === 0 : !after && sources.some((s) => isLive(s.value));
    return {
      key: after ? 'source-after' : 'source-before',
      kind: 'source',
      words: `Tester on a known live source${after ? ' again' : ''}`,
      reads: { node: KNOWN_SOURCE, nodeName: 'known live source', to: KNOWN_SOURCE, toName: '', live: true },
      done,
      problem: done
        ? null
        : last && !isLive(last.value)
          ? `${last.value} V: expected ${range}; this tester proves nothing`
          : missing.length > 0 && sources.length > 0
            ? `not proved ${after ? 'after' : 'before'}: ${missing.join(', ')}`
            : null,
      mayBeAbsent: false,
    };
  };

  /** A live conductor to the reference: shows that it is one, and that this outlet was live. */
  const shown = seen.filter((s) => s.node === LIVE && s.to === REFERENCE);
  const good = shown.filter(
    (s) =>
      isLive(s.value) &&
      isBy(LOADS, s) &&
      (draft.reference === 'lead' || s.on.length > 0) &&
      (draft.basis !== 'live-before' || s.on.some((id) => ids.has(id))),
  );
  const lastShown = shown.at(-1);
  const live: Act = {
    key: 'live',
    kind: 'live',
    words:
      draft.basis === 'live-before'
        ? `Before it is switched off: black here to ${to}`
        : draft.reference === 'lead'
          ? `A known live conductor to the ${to}`
          : `A conductor that is live in this box to the ${to}`,
    reads: { node: LIVE, nodeName: 'a live conductor', to: REFERENCE, toName: to, live: true },
    done: good.length > 0,
    problem:
      lastShown && good.length === 0
        ? !isBy(LOADS, lastShown)
          ? 'read it with a two-pole tester or at low impedance: a ghost shows a reference that is none'
          : !isLive(lastShown.value)
            ? `${lastShown.value} V: expected ${range}. This is no good reference: bring a lead from a proven ground`
            : 'expected a conductor that was live in this box'
        : null,
    mayBeAbsent: false,
  };

  const lock = (key: string, words: string, done: boolean): Act => ({
    key,
    kind: 'lock',
    words,
    reads: null,
    done,
    problem: null,
    mayBeAbsent: false,
  });

  const reading = (
    kind: 'face' | 'dead' | 'pair',
    node: string,
    nodeName: string,
    other: string,
    otherName: string,
    mayBeAbsent = false,
  ): Act => {
    const last = seen.findLast((s) => s.node === node && (s.quantity === 'absent' || s.to === other));
    const absent = last?.quantity === 'absent' && mayBeAbsent;
    const problem = !last || absent ? null : deadProblem(last, ids, landed);
    return {
      key: `${node} ${other}`,
      kind,
      words: `${nodeName} to ${otherName}`,
      reads: { node, nodeName, to: other, toName: otherName, live: false },
      done: last !== undefined && problem === null,
      problem,
      mayBeAbsent,
    };
  };

  const absent = new Set(seen.filter((s) => s.quantity === 'absent').map((s) => s.node));
  const there = points.filter((p) => !absent.has(p.key));
  const hot = points.find((p) => p.role === 'hot');
  acts.push(source(false), live);
  for (const kind of kinds)
    acts.push(
      lock(
        `off ${kind}`,
        `The ${SOURCE_WORDS[kind]} off and locked as well`,
        draft.sourcesOff.includes(kind),
      ),
    );
  if (landed)
    for (const c of circuits)
      acts.push(
        lock(
          `lock ${c.id}`,
          `Breaker ${c.space} (${c.name}) off, locked or taped, note on the panel, people told`,
          draft.lockedOut.includes(c.id),
        ),
      );
  acts.push(...faceActs(box, reading));
  for (const p of points) if (p !== own) acts.push(reading('dead', p.key, p.name, REFERENCE, to, p !== hot));
  for (const [a, b] of [...hotPairs(there), ...hotNeutralPairs(there)])
    acts.push(reading('pair', a.key, a.name, b.key, b.name));
  const others = seen.filter((s) => s.node.startsWith(OTHER));
  for (const node of new Set(others.map((s) => s.node)))
    acts.push(reading('dead', node, others.find((s) => s.node === node)!.nodeName, REFERENCE, to));
  acts.push({
    key: 'others',
    kind: 'answer',
    words: 'Any other conductor in the box, behind the device or in the back?',
    reads: null,
    done: draft.others === 'none' || (draft.others === 'read' && others.length > 0),
    problem: draft.others === 'read' && others.length === 0 ? 'expected a reading of each' : null,
    mayBeAbsent: false,
  });
  acts.push(source(true));
  return acts;
}

/** The slots of a receptacle are read before its cover comes off. */
function faceActs(
  { device }: Box,
  reading: (kind: 'face', node: string, name: string, to: string, toName: string) => Act,
): Act[] {
  if (['light', 'switch', 'smoke-alarm', 'hard-wired'].includes(device.kind)) return [];
  const acts: Act[] = [];
  const slot = (node: string, to: string) =>
    acts.push(reading('face', `face.${node}`, `At the face, ${node}`, `face.${to}`, to));
  if (device.volts === '250' || device.volts === '125/250') slot('hot', 'other hot');
  if (device.volts !== '250') slot('hot', 'neutral');
  if (device.kind !== 'two-slot') slot('hot', 'ground');
  return acts;
}

/** What keeps a reading from showing that something is dead. */
function deadProblem(seen: Seen, inBox: ReadonlySet<string>, landed: boolean): string | null {
  if (seen.quantity === 'absent') return 'expected a reading';
  if (seen.quantity !== 'volts') return 'expected volts';
  if (!isBy(VOLTMETERS, seen)) return `a ${seen.instrument} does not show that it is dead`;
  if (landed && seen.on.some((id) => inBox.has(id))) return 'read with a circuit of this box on';
  if (seen.value <= DEAD_VOLTS) return null;
  if (seen.instrument === 'high-impedance meter' && seen.value < LIVE_VOLTS.least)
    return `${seen.value} V is not dead; expected ${DEAD_VOLTS} V or less. It may be a ghost: read it again, to the same reference, with a two-pole tester or at low impedance`;
  return `${seen.value} V is not dead; expected ${DEAD_VOLTS} V or less${seen.value < 15 ? '. On a neutral: another circuit’s current flows in it' : ''}`;
}

/** What is still missing or wrong, in the order of the work; empty when the proof stands. */
export const proofGaps = (document: JobDocument, box: Box, draft: Draft, seen: readonly Seen[]): string[] =>
  actsOf(document, box, draft, seen)
    .filter((a) => !a.done)
    .map((a) => (a.problem === null ? a.words : `${a.words}: ${a.problem}`));

/** Observations that a proof is made of, in their order. */
export const seenFor = (document: JobDocument, proof: Pick<Proof, 'observations'>): Observation[] =>
  proof.observations.flatMap((id) => document.observations[id] ?? []);

/** What keeps a proof from showing that its box is dead, by what is on record now. */
export function gapsOf(document: JobDocument, proof: Proof): string[] {
  const box = document.boxes[proof.boxId];
  if (!box) return ['Its box is no longer in the job'];
  const seen = seenFor(document, proof);
  const foreign = seen.some(
    (o) => o.boxId !== proof.boxId || dayOf(o.at) !== dayOf(proof.at) || o.at > proof.at,
  );
  return foreign || seen.length < proof.observations.length
    ? ['Its observations are not of this box and this day']
    : proofGaps(document, box, proof, seen);
}

/** The day of a moment where the device is. */
const dayOf = (at: string): string => new Date(at).toDateString();
/** How far the clocks of two devices may differ, milliseconds. */
const CLOCKS = 5 * 60 * 1000;

/** Why a proof of a box no longer holds, or never did; null when it holds. @param now UTC time */
export function whyEnded(document: JobDocument, proof: Proof, now: string): string | null {
  if (proof.basis === 'earlier-proof' || proof.basis === 'earlier-override')
    return 'It was recorded in an earlier form, which a live second pole passes; prove it again';
  const box = document.boxes[proof.boxId];
  const ids = new Set([...proof.lockedOut, ...(box ? circuitsIn(document, box).map((c) => c.id) : [])]);
  const firstOff = seenFor(document, proof).find((o) => o.off.length > 0)?.at ?? proof.at;
  const after = rows(document.energizings)
    .filter((e) => ids.has(e.circuitId) && e.at >= firstOff)
    .sort((a, b) => a.at.localeCompare(b.at))[0];
  if (after) {
    const name = document.circuits[after.circuitId]?.name ?? 'a circuit of this box';
    return after.purpose === 'lock-removed'
      ? `The lock came off ${name} since`
      : `Power came back on ${name} since`;
  }
  if (dayOf(proof.at) !== dayOf(now)) return 'It is of another day: locks may have come off overnight';
  if (Date.parse(proof.at) > Date.parse(now) + CLOCKS) return 'Its time lies ahead of this clock';
  const [gap] = gapsOf(document, proof);
  return gap ?? null;
}

/** The proof that holds for a box now, its own or of an outlet in the same box. @param now UTC time */
export function validProof(document: JobDocument, box: Box, now: string): Proof | null {
  return proofsOf(document, box).find((p) => whyEnded(document, p, now) === null) ?? null;
}

/** Proofs of a box, newest first. */
export function proofsOf(document: JobDocument, box: Box): Proof[] {
  const boxes = new Set(enclosureOf(document, box).map((b) => b.id));
  return rows(document.proofs)
    .filter((p) => boxes.has(p.boxId))
    .sort((a, b) => b.at.localeCompare(a.at));
}

/** Why no proof holds for a box. */
export function whyUnproved(document: JobDocument, box: Box, now: string): string {
  const [newest] = proofsOf(document, box);
  return (newest && whyEnded(document, newest, now)) ?? 'No proof of dead for this box is on record';
}

/** Currents that were read in a proved box, those since its proof among them; oldest first. */
const clampsOf = (document: JobDocument, proof: Proof): Observation[] =>
  rows(document.observations)
    .filter(
      (o) =>
        o.quantity === 'amps' &&
        o.boxId === proof.boxId &&
        (proof.observations.includes(o.id) || o.at >= proof.at),
    )
    .sort((a, b) => a.at.localeCompare(b.at));

/**
 * Why a neutral of a proved box may not be parted yet; null when it may. A neutral that another circuit uses reads nothing
 * and has 120 V on it once it is parted.
 */
export function whyNotParted(document: JobDocument, proof: Proof, neutral: Point): string | null {
  if (proof.basis === 'not-landed') return null;
  const clamp = clampsOf(document, proof).findLast((o) => o.node === neutral.key);
  if (clamp && clamp.value < NO_AMPS) return null;
  if (clamp)
    return `${clamp.value} A flows in it: another circuit uses it. Find that circuit and open it before this is parted`;
  const box = document.boxes[proof.boxId];
  const circuits = box ? circuitsIn(document, box) : [];
  const panels = new Set(circuits.map((c) => c.panelId));
  if (proof.mainOff && [...panels].every((id) => mainKills(document, document.panels[id]))) return null;
  const ours = circuits.every(
    (c) => c.status === 'new' && c.stops.every((s) => document.boxes[s.boxId]?.status === 'new'),
  );
  if (ours && circuits.length > 0 && circuits.every((c) => proof.lockedOut.includes(c.id))) return null;
  return 'Clamp it: 0.00 A shows that no other circuit uses it. Or lock the main off, where one main opens all and no other source is in the house';
}

/** Neutrals of a box that may not be parted yet, and why. */
export const shutNeutrals = (
  document: JobDocument,
  box: Box,
  proof: Proof,
): { point: Point; why: string }[] =>
  pointsIn(document, box).flatMap((point) => {
    const why = point.role === 'neutral' ? whyNotParted(document, proof, point) : null;
    return why === null ? [] : [{ point, why }];
  });

/** What was last put on record of a circuit's power before a moment, or null. */
export function lastPower(document: JobDocument, circuitId: string, at?: string): Energizing | null {
  return rows(document.energizings)
    .filter((e) => e.circuitId === circuitId && (at === undefined || e.at <= at))
    .reduce<Energizing | null>((last, e) => (last === null || e.at > last.at ? e : last), null);
}

/**
 * `unproved`: nothing on record that holds. `dead`: a proof holds somewhere on the circuit. `energized`: power came back
 * after every proof. `measuring`: it came back to measure at an open box, and nothing was proved dead since.
 */
export type CircuitState = 'unproved' | 'dead' | 'energized' | 'measuring';

/** Whether a proof is of a circuit: its breaker was opened for it, or its home run is in the box and not landed. */
const isOf = (document: JobDocument, { boxId, basis, lockedOut }: Proof, circuit: Circuit): boolean => {
  const box = basis === 'not-landed' ? document.boxes[boxId] : undefined;
  return lockedOut.includes(circuit.id) || (box !== undefined && circuitsIn(document, box).includes(circuit));
};

const newestProof = (document: JobDocument, circuit: Circuit, at: string): string =>
  rows(document.proofs)
    .filter((p) => p.at <= at && isOf(document, p, circuit))
    .reduce((last, p) => (p.at > last ? p.at : last), '');

/** The end of time, for what holds by all that is on record. */
const EVER = '9999-12-31T23:59:59Z';

/** Whether the last that is on record of a circuit is power put back for use. */
export function isEnergized(document: JobDocument, circuit: Circuit, at = EVER): boolean {
  const power = lastPower(document, circuit.id, at);
  return power?.purpose === 'use' && power.at >= newestProof(document, circuit, at);
}

/** How a circuit stands at a moment, by what is on record until then. @param at UTC time */
export function circuitState(document: JobDocument, circuit: Circuit, at: string): CircuitState {
  if (isEnergized(document, circuit, at)) return 'energized';
  const power = lastPower(document, circuit.id, at);
  if (power?.purpose === 'measurement' && power.at >= newestProof(document, circuit, at)) return 'measuring';
  const proofs = rows(document.proofs).filter((p) => p.at <= at && isOf(document, p, circuit));
  return proofs.some((p) => whyEnded(document, p, at) === null) ? 'dead' : 'unproved';
}

/** Readings of a box, oldest first, each with whether a later one replaced it. */
export function readingsOf(
  document: JobDocument,
  boxId: string,
): { reading: JobDocument['readings'][string]; struck: boolean }[] {
  const struck = struckReadings(document);
  return rows(document.readings)
    .filter((r) => r.boxId === boxId)
    .sort((a, b) => a.at.localeCompare(b.at))
    .map((reading) => ({ reading, struck: struck.has(reading.id) }));
}

/** Ids of readings that a later one corrects. They stay on record, struck through. */
export const struckReadings = (document: JobDocument): Set<string> =>
  new Set(rows(document.readings).flatMap((r) => r.corrects ?? []));
