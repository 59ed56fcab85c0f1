/**
 * The acts and answers that a proof of dead is made of: every splice group and loose end is read to one reference that was
 * shown good, hot to hot and hot to neutral, each as an act of its own, between two readings of a known live source.
 *
 * A neutral is no reference: one that is open rises with what is read against it, and all pairs read nothing while each
 * conductor stands at 120 V.
 */
import { isAfter, isSameDay } from '#core/units/time.ts';
import { BOX } from '#core/boxes/wiring.ts';
import { inOrder, isSurelyBefore } from '#core/job/order.ts';
import type {
  Box,
  Circuit,
  Instrument,
  JobDocument,
  Observation,
  OtherSource,
  Panel,
  Proof,
} from '#core/job/schema.ts';
import { signsOfLife } from './life.ts';
import { facesOf } from './faces.ts';
import { circuitsIn, enclosureOf, hotNeutralPairs, hotPairs, pointsIn, type Point } from './points.ts';
import { circuitOf, rows } from '#core/job/document.ts';
import { mainKills, SOURCE_WORDS } from './sources.ts';
import { DEAD_VOLTS, KNOWN_SOURCE, LIVE } from './thresholds.ts';

/** Volts on a source that proves the tester, and from a live conductor to a reference that is one. */
const LIVE_VOLTS = { least: 100, most: 140 } as const;

/** Answers that show which breaker feeds a box that was dead before. */
const SHOWS_FEED: ReadonlySet<Proof['feeds']> = new Set(['tone', 'went-dead', 'reset', 'all-off']);

/** Node keys that do not name a conductor of the box. */
export const REFERENCE = 'reference';
export const OTHER = 'other.';

/** What reads volts and loads what it reads, so that a ghost falls to nothing. */
const LOADS: readonly Instrument[] = ['two-pole tester', 'low-impedance meter'];
const VOLTMETERS: readonly Instrument[] = [...LOADS, 'high-impedance meter'];

/** A proof before it is recorded. */
export type Draft = Omit<Proof, 'id' | 'at' | 'place' | 'observations'>;
/** What an observation says of its act; who, when and where are added when it is recorded. */
export type Seen = Pick<
  Observation,
  'node' | 'nodeName' | 'to' | 'toName' | 'quantity' | 'value' | 'instrument' | 'on' | 'off'
> & { at?: string; link?: string };

/** One act or answer that a proof is made of. */
export interface Act {
  key: string;
  kind: 'answer' | 'source' | 'live' | 'lock' | 'face' | 'dead' | 'pair';
  words: string;
  /** The same among others at one place. */
  brief: string;
  /** Null where it is answered, not read. */
  reads: { node: string; nodeName: string; to: string; toName: string; live: boolean } | null;
  done: boolean;
  /** What is wrong with what was read or answered; null when nothing is, or nothing was yet. */
  problem: string | null;
  /** What is on record and may turn out not to be in the box. */
  mayBeAbsent: boolean;
  /** What the draft becomes when it is said to be done; null where that takes more than saying so. */
  sets: Partial<Draft> | null;
}

/** The draft of a box of which nothing was answered yet. */
export const blankDraft = (boxId: string, by: string): Draft => ({
  boxId,
  by,
  basis: 'live-before',
  seenBy: '',
  feeds: 'not-shown',
  lockedOut: [],
  mainOff: false,
  sourcesOff: [],
  reference: 'ground',
  referenceName: '',
  others: 'not-looked',
  had: null,
  reason: '',
});

/** A lead is shown good at any conductor: only what was live in the box itself says that its circuits were on. */
export const showsBoxLive = ({ basis, reference }: Pick<Draft, 'basis' | 'reference'>): boolean =>
  basis === 'live-before' || reference !== 'lead';

/** An act that is answered, not read. */
const answered = (
  key: string,
  words: string,
  done: boolean,
  { kind = 'answer', problem = null, sets = null }: Partial<Pick<Act, 'kind' | 'problem' | 'sets'>> = {},
): Act => ({ key, kind, words, brief: words, reads: null, done, problem, mayBeAbsent: false, sets });

const isBy = (list: readonly Instrument[], { instrument }: Seen): boolean => list.includes(instrument);
export const isLive = (volts: number): boolean => volts >= LIVE_VOLTS.least && volts <= LIVE_VOLTS.most;
const range = `${LIVE_VOLTS.least} to ${LIVE_VOLTS.most} V`;

/** The conductor that a proof reads the others to, where it is one of the box. */
const referencePoint = (points: readonly Point[], reference: Proof['reference']): Point | undefined =>
  reference === 'ground' ? points.find((p) => p.role === 'ground') : undefined;

const REFERENCE_WORDS: Record<Proof['reference'], string> = {
  ground: 'ground in this box',
  'metal-box': 'metal box',
  lead: 'lead from a proven ground',
  none: 'reference',
};

/** The acts and answers that make a box dead, in the order of the work, each with how it stands. */
export function actsOf(document: JobDocument, box: Box, draft: Draft, seen: readonly Seen[]): Act[] {
  const points = pointsIn(document, box);
  const circuits = circuitsIn(document, box);
  const { otherSources } = document.job;
  const landed = draft.basis !== 'not-landed';
  const lockOut = draft.basis === 'same-lock-out' ? lockOutFor(document, box, seen) : null;
  const whyLanded = landed ? null : whyHomeRunLanded(document, box);
  const whyNoReference = referenceProblem(draft, points);
  return [
    answered('by', 'Who proves it', draft.by.trim() !== ''),
    answered(
      'sources',
      'Ask once for the house: generator, inverter, battery, a second feed?',
      otherSources.asked,
    ),
    answered(
      'basis',
      landed ? 'What shows that the breaker did it' : `Home run not landed, seen by ${draft.seenBy || '…'}`,
      !draft.basis.startsWith('earlier') && (landed || (draft.seenBy.trim() !== '' && whyLanded === null)),
      { problem: landed ? null : (whyLanded ?? 'expected who saw that the home run is not landed') },
    ),
    ...(draft.basis === 'dead-outlet' || draft.basis === 'tripped-device'
      ? [
          answered(
            'feeds',
            'It was dead before: what shows that this breaker feeds it?',
            SHOWS_FEED.has(draft.feeds) ||
              (draft.mainOff &&
                allMainsKill(
                  document,
                  circuits.map((c) => document.panels[c.panelId]),
                )),
          ),
        ]
      : []),
    answered('reference', 'What every conductor is read to', whyNoReference === null, {
      problem: whyNoReference,
    }),
    ...(draft.basis === 'same-lock-out'
      ? [
          answered('same-lock-out', 'The lock-out of the box before still stands', lockOut !== null, {
            problem:
              lockOut === null
                ? 'no other box is proved under a lock-out of the same circuits that still stands today'
                : null,
          }),
        ]
      : []),
    ...readings(document, box, points, draft, seen, circuits, otherSources.kinds),
  ];
}

/** The main of each of some panels opens all that it feeds. */
const allMainsKill = (document: JobDocument, panels: readonly (Panel | undefined)[]): boolean =>
  panels.length > 0 && panels.every((p) => mainKills(document, p));

/** Why the home run of a box is taken to be landed, whoever saw it otherwise: its circuit had power by what is on record. */
function whyHomeRunLanded(document: JobDocument, box: Box): string | null {
  const circuit = circuitOf(document, box.id);
  if (!circuit)
    return box.status === 'new'
      ? null
      : 'this box is old and on no circuit that is known: which home run is not landed? Take what feeds it off and lock it';
  const powered =
    rows(document.energizings).some((e) => e.circuitId === circuit.id && e.purpose !== 'lock-removed') ||
    [...signsOfLife(document, (table) => rows(table))].some((s) => s.circuitIds.includes(circuit.id));
  return powered
    ? `${circuit.name} had power by what is on record: its home run is landed. Lock its breaker`
    : null;
}

/**
 * The proof of another box under whose lock-out a box may be proved: every circuit of the box was locked for it, on the same
 * day, and no power came back since. @param seen its day is that of the last of them, where they say when
 */
export function lockOutFor(document: JobDocument, box: Box, seen: readonly Seen[] = []): Proof | null {
  const ids = circuitsIn(document, box).map((c) => c.id);
  const at = seen.findLast((s) => s.at !== undefined)?.at;
  const stands = rows(document.proofs).filter(
    (p) =>
      p.boxId !== box.id &&
      ids.length > 0 &&
      p.basis !== 'same-lock-out' &&
      p.basis !== 'not-landed' &&
      !p.basis.startsWith('earlier') &&
      ids.every((id) => p.lockedOut.includes(id)) &&
      // A clock can only keep it shut.
      (at === undefined || (isSameDay(p.at, at, document.job.zone) && !isAfter(p.at, at))) &&
      rows(document.energizings).every((e) => !ids.includes(e.circuitId) || isSurelyBefore(document, e, p)),
  );
  return stands.sort((a, b) => inOrder(b, a))[0] ?? null;
}

/** Whether an observation shows power where a proof says there is none, beyond what a ghost does. */
const showsPower = (s: Seen, circuits: ReadonlySet<string>): boolean =>
  s.quantity === 'volts' &&
  s.node !== KNOWN_SOURCE &&
  (s.node === LIVE
    ? s.on.some((id) => circuits.has(id))
    : s.value > DEAD_VOLTS && (isBy(LOADS, s) || s.value >= LIVE_VOLTS.least));

/** Where the last series begins: what was read before something was found live counts no more. */
const seriesAt = (seen: readonly Seen[], circuits: ReadonlySet<string>): number =>
  seen.findLastIndex((s) => showsPower(s, circuits)) + 1;
export const seriesOf = <S extends Seen>(seen: readonly S[], circuits: ReadonlySet<string>): S[] =>
  seen.slice(seriesAt(seen, circuits));

/** Why a draft has nothing yet to read conductors to; null when it has. */
function referenceProblem({ reference, referenceName }: Draft, points: readonly Point[]): string | null {
  if (reference === 'none')
    return `without a reference these stay unproved: ${points.map((p) => p.name).join(', ')}. Bring a lead from a proven ground`;
  if (reference === 'ground' && !referencePoint(points, reference))
    return 'no ground is on record in this box: bring a lead from a proven ground';
  return reference === 'lead' && referenceName.trim() === '' ? 'expected where the lead comes from' : null;
}

/** The circuit before a name comes with a second one in the box, and is renamed. */
const isSameReference = (a: string, b: string): boolean => a.replace(/^.*: /, '') === b.replace(/^.*: /, '');

function readings(
  document: JobDocument,
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
  // A home run that is not landed frees its own circuit, and no other one in the box.
  const free = draft.basis === 'not-landed' ? (circuitOf(document, box.id)?.id ?? null) : null;
  const locked = circuits.filter((c) => c.id !== free);
  const toLock = new Set(locked.map((c) => c.id));
  const begins = seriesAt(seen, ids);
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
      brief: 'known live source',
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
      sets: null,
    };
  };

  /** A live conductor to the reference: shows that it is one, and that this outlet was live. */
  const shown = seen.filter((s) => s.node === LIVE && s.to === REFERENCE);
  const good = shown.filter(
    (s) =>
      isLive(s.value) &&
      isBy(LOADS, s) &&
      isSameReference(s.toName, to) &&
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
    brief: 'a live conductor',
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
    sets: null,
  };

  const reading = (
    kind: 'face' | 'dead' | 'pair',
    node: string,
    nodeName: string,
    other: string,
    otherName: string,
    mayBeAbsent = false,
    brief = nodeName,
  ): Act => {
    const at = seen.findLastIndex((s) => s.node === node && (s.quantity === 'absent' || s.to === other));
    const last = seen[at];
    const absent = last?.quantity === 'absent' && mayBeAbsent;
    const problem =
      !last || absent
        ? null
        : (deadProblem(last, toLock) ??
          (other === REFERENCE && !isSameReference(last.toName, to)
            ? `read to ${last.toName || 'another reference'}: read it again to the ${to}`
            : null));
    return {
      key: `${node} ${other}`,
      kind,
      words: `${nodeName} to ${otherName}`,
      brief: `${brief} to ${otherName}`,
      reads: { node, nodeName, to: other, toName: otherName, live: false },
      done: last !== undefined && problem === null,
      problem,
      mayBeAbsent,
      sets: null,
    };
  };

  /** What was read before something was found live is read again, once that is dead itself. */
  const anew = (act: Act): Act => {
    const { reads, done } = act;
    if (!done || reads === null || reads.live) return act;
    const at = seen.findLastIndex(
      (s) => s.node === reads.node && (s.quantity === 'absent' || s.to === reads.to),
    );
    return at < begins
      ? { ...act, done: false, problem: 'something was found live after it: read it again' }
      : act;
  };
  const found = seen[begins - 1];
  const isFound = ({ done, reads }: Act): boolean =>
    !done && reads?.node === found?.node && reads?.to === found?.to;

  const absent = new Set(seen.filter((s) => s.quantity === 'absent').map((s) => s.node));
  const there = points.filter((p) => !absent.has(p.key));
  const hot = points.find((p) => p.role === 'hot');
  // The lead was shown good at the box before; what is read here is this box’s own.
  acts.push(source(false), ...(draft.basis === 'same-lock-out' && draft.reference === 'lead' ? [] : [live]));
  for (const kind of kinds)
    acts.push(
      answered(
        `off ${kind}`,
        `The ${SOURCE_WORDS[kind]} off and locked as well`,
        draft.sourcesOff.includes(kind),
        { kind: 'lock', sets: { sourcesOff: [...draft.sourcesOff, kind] } },
      ),
    );
  for (const c of locked)
    acts.push(
      answered(
        `lock ${c.id}`,
        `${breakerName(c)} off, locked or taped, note on the panel, people told`,
        draft.lockedOut.includes(c.id),
        { kind: 'lock', sets: { lockedOut: [...draft.lockedOut, c.id] } },
      ),
    );
  if (circuits.length === 0 && draft.basis !== 'not-landed') acts.push(allOff(document, draft));
  acts.push(...enclosureOf(document, box).flatMap((b) => faceActs(b, b.id === box.id ? null : b, reading)));
  const metal = reading('dead', BOX, 'Plate screw, yoke or metal box', REFERENCE, to, true);
  // What a lead reaches before the cover is off is read before it.
  if (draft.reference === 'lead') acts.push(metal);
  if (cablesDecide(box, circuits))
    acts.push(
      answered(
        'cables',
        'Cover off, device drawn forward by its yoke, nothing touched: how many cables come in?',
        box.cables !== null,
      ),
    );
  if (draft.reference === 'ground') acts.push(metal);
  for (const p of points) if (p !== own) acts.push(reading('dead', p.key, p.name, REFERENCE, to, p !== hot));
  for (const [a, b] of [...hotPairs(there), ...hotNeutralPairs(there)])
    acts.push(reading('pair', a.key, a.name, b.key, b.name));
  const others = seen.filter((s) => s.node.startsWith(OTHER));
  // A box in which nothing is on record has conductors all the same, but for one that is not roughed in yet.
  const mustBeThere = points.length === 0 && box.status !== 'new';
  const isRead = draft.others === 'read' && others.length > 0;
  const unread =
    draft.others === 'read'
      ? 'expected a reading of each'
      : draft.others === 'none' && mustBeThere
        ? 'no conductor of this box is on record: expected a reading of each that is in it'
        : null;
  for (const node of new Set(others.map((s) => s.node)))
    acts.push(reading('dead', node, others.find((s) => s.node === node)!.nodeName, REFERENCE, to));
  acts.push(
    answered(
      'others',
      'Any other conductor in the box, behind the device or in the back?',
      isRead || (draft.others === 'none' && !mustBeThere),
      { problem: others.length > 0 ? null : unread },
    ),
    source(true),
  );
  return acts.some(isFound) ? acts : acts.map(anew);
}

/** A box on no circuit: whatever may feed it is off, by every breaker on record or by the mains. */
function allOff(document: JobDocument, { mainOff, lockedOut }: Draft): Act {
  const panels = rows(document.panels);
  const circuits = rows(document.circuits);
  const kills = allMainsKill(document, panels);
  const each = circuits.length > 0 && circuits.every((c) => lockedOut.includes(c.id));
  return answered(
    'lock main',
    `On no circuit that is known, so any breaker may feed it: the main${panels.length > 1 ? ' of each panel' : ''} off and locked, note on it, people told`,
    (mainOff && kills) || each,
    {
      kind: 'lock',
      problem:
        mainOff && !kills && !each
          ? 'one main that opens all of it, and no other source, are not on record: find its breaker first, or lock every one'
          : null,
      sets: { mainOff: true },
    },
  );
}

const breakerName = ({ space, half, name }: Circuit): string => {
  const plain = `Breaker ${space}${half === 'whole' ? '' : half}`;
  return name === plain ? plain : `${plain} (${name})`;
};

/** Where nobody knows what a box feeds, the cables in it say what there is to read. */
const cablesDecide = (box: Box, circuits: readonly Circuit[]): boolean =>
  box.status !== 'new' && box.wiring === null && circuits.some((c) => c.ordered !== 'yes');

/**
 * The slots of a receptacle, each half of it, are read before its cover comes off.
 * @param beside the outlet where it is another one of the same box
 */
function faceActs(
  outlet: Box,
  beside: Box | null,
  reading: (
    kind: 'face',
    node: string,
    name: string,
    to: string,
    toName: string,
    mayBeAbsent: boolean,
    brief: string,
  ) => Act,
): Act[] {
  const { device } = outlet;
  if (['light', 'switch', 'smoke-alarm', 'hardwired', 'junction'].includes(device.kind)) return [];
  return facesOf(outlet).flatMap((half) => {
    const acts: Act[] = [];
    const key = `face.${beside ? `${beside.id}.` : ''}${half === 'bottom' ? 'bottom.' : ''}`;
    const place = `At the face${beside ? ` of ${beside.name}` : ''}`;
    const slot = (node: string, to: string) => {
      const name = half === 'both' ? node : `${half} ${node}`;
      const brief = beside ? `${beside.name}, ${name}` : name;
      acts.push(reading('face', key + node, `${place}, ${name}`, key + to, to, false, brief));
    };
    if (device.volts === '250' || device.volts === '125/250') slot('hot', 'other hot');
    if (device.volts !== '250') slot('hot', 'neutral');
    if (device.kind !== 'two-slot') {
      slot('hot', 'ground');
      // A neutral that is open beyond has the hot on it, by what is plugged in.
      if (device.volts !== '250') slot('neutral', 'ground');
    }
    return acts;
  });
}

/** What keeps a reading from showing that something is dead. */
function deadProblem(seen: Seen, inBox: ReadonlySet<string>): string | null {
  if (seen.quantity === 'absent') return 'expected a reading';
  if (seen.quantity !== 'volts') return 'expected volts';
  if (!isBy(VOLTMETERS, seen)) return `a ${seen.instrument} does not show that it is dead`;
  if (seen.on.some((id) => inBox.has(id))) return 'read with a circuit of this box on';
  if (seen.value <= DEAD_VOLTS) return null;
  if (seen.instrument === 'high-impedance meter' && seen.value < LIVE_VOLTS.least)
    return `${seen.value} V is not dead; expected ${DEAD_VOLTS} V or less. It may be a ghost: read it again, to the same reference, with a two-pole tester or at low impedance`;
  return `${seen.value} V is not dead; expected ${DEAD_VOLTS} V or less${seen.value < 15 ? '. On a neutral: another circuit’s current flows in it' : ''}`;
}

/** So many touches share a card: what one hand goes through without looking up; at a face they lie side by side. */
const TOGETHER = { face: 7, dead: 5 } as const;

/** Acts that are made in one go with one that is open: the slots of a face and its metal, or conductors side by side. */
export function togetherWith(acts: readonly Act[], first: Act): Act[] {
  const sortOf = ({ kind }: Act) => (kind === 'pair' ? 'dead' : kind);
  const sort = sortOf(first);
  if (first.reads === null || first.reads.live || (sort !== 'face' && sort !== 'dead')) return [first];
  const open = acts.slice(acts.indexOf(first)).filter((a) => !a.done);
  const isOfIt = (a: Act) => a.reads !== null && (sortOf(a) === sort || a.reads.node === BOX);
  const end = open.findIndex((a) => !isOfIt(a));
  return open.slice(0, end < 0 ? TOGETHER[sort] : Math.min(end, TOGETHER[sort]));
}

/** A draft and what was seen as the rows that go on record. @param at UTC time of the proof */
export function rowsOf(
  draft: Draft,
  seen: readonly (Seen & Pick<Observation, 'at'>)[],
  { place, at }: Pick<Proof, 'place' | 'at'>,
  newId: (prefix: 'proof' | 'observation') => string,
): { proof: Proof; observations: Observation[] } {
  const { boxId, by } = draft;
  const observations = seen.map(({ at: seenAt, ...s }): Observation => ({
    ...s,
    link: s.link ?? '',
    id: newId('observation'),
    boxId,
    place,
    at: seenAt,
    by,
  }));
  const proof = { ...draft, id: newId('proof'), place, at, observations: observations.map((o) => o.id) };
  return { proof, observations };
}

/**
 * What is still missing or wrong, in the order of the work; empty when the proof stands.
 * @param leftOut kinds of acts that are not asked for
 */
export const proofGaps = (
  document: JobDocument,
  box: Box,
  draft: Draft,
  seen: readonly Seen[],
  leftOut: readonly Act['kind'][] = [],
): string[] =>
  actsOf(document, box, draft, seen)
    .filter((a) => !a.done && !leftOut.includes(a.kind))
    .map((a) => (a.problem === null ? a.words : `${a.words}: ${a.problem}`));
