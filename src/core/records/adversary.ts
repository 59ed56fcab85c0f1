/**
 * Two people with a phone each, in a house that is not as it is drawn, who do whatever comes to their mind; beside them a slow
 * reference that knows what is truly live. No gate may open, and no power be accepted, where a hand in an opened box would
 * touch something live, or the end of a parted neutral would rise.
 */
import { run, type Command } from '#core/job/commands.ts';
import { inverse, PLAIN_MEASUREMENT, PLAIN_READING, type Change } from '#core/job/document.ts';
import { InvalidError } from '#core/job/validate.ts';
import { headsOf, type Clock } from '#core/job/order.ts';
import { unite } from '#core/job/unite.ts';
import { chain, outlet, PANEL } from '#core/job/testing.ts';
import type { Box, Circuit, JobDocument, Observation } from '#core/job/schema.ts';
import { actsOf, OTHER, proofGaps, REFERENCE, rowsOf, type Act, type Draft, type Seen } from './acts.ts';
import { GATES } from './gates.ts';
import { shutNeutrals } from './neutrals.ts';
import { powerCommand, waitsFor, whyNotFlipped } from './open.ts';
import { whyPanelShut } from './panel.ts';
import { circuitsIn, pointsIn } from './points.ts';
import { validProof } from './proof.ts';
import { job } from './proofTesting.ts';
import { draftFor } from './testing.ts';
import { KNOWN_SOURCE, LIVE } from './thresholds.ts';

const PEOPLE = ['M. Alder', 'R. Osei'] as const;
const CIRCUITS = ['circuit-1', 'circuit-2', 'circuit-3'] as const;
const BOXES = ['box-r1', 'box-r2', 'box-f1', 'box-g1'] as const;
type Person = (typeof PEOPLE)[number];

interface Hands {
  box: string;
  by: Person;
  /** The answer with which they went in: who has it on record knows of them. */
  entry: string;
  parted: boolean;
  /** Out of it, ends capped, while it is measured. */
  clear: boolean;
}

/** What is so, whatever is on record. */
interface Truth {
  /** By space. */
  on: Map<number, boolean>;
  /** The row that put a breaker on; null where nobody put it on record. */
  cause: Map<number, string | null>;
  locks: Map<number, Set<Person>>;
  /** Space of the breaker that feeds the conductors of a circuit. */
  feeds: Map<string, number>;
  /** Circuits with conductors in a box. */
  inBox: Map<string, Set<string>>;
  /** Another circuit that returns by the neutral of one. */
  borrows: { neutral: string; by: string }[];
  loads: Map<string, boolean>;
  main: boolean;
  /** The row that put it on. */
  mainCause: string | null;
  hands: Hands[];
}

interface Copy {
  device: string;
  skew: number;
  document: JobDocument;
  undo: Change[][];
  draft: { draft: Draft; seen: (Seen & { at: string })[] } | null;
}

/** What each gate let through or held back. */
export interface Tally {
  opened: Record<string, number>;
  shut: Record<string, number>;
  /** By act: how often a gate was shut by it, opened by it. */
  moved: Record<string, Record<string, { shut: number; opened: number }>>;
  proofs: number;
}
export const newTally = (): Tally => ({ opened: {}, shut: {}, moved: {}, proofs: 0 });
const count = (of: Record<string, number>, key: string): void => void (of[key] = (of[key] ?? 0) + 1);

function house(): JobDocument {
  const existing = { status: 'existing' } as const;
  const [f1, g1] = [outlet('F1', 3, 20, existing), outlet('G1', 3, 60, existing)];
  const other = (id: string, space: number, box: Box): Circuit =>
    chain([box], { id, name: `Circuit ${space}`, space, status: 'existing' });
  const made = job({
    boxes: [existing, existing],
    others: [other('circuit-2', 3, f1), other('circuit-3', 5, g1)],
    panel: { known: 'yes' },
  });
  const { areaId } = made.boxes['box-r1']!;
  return {
    ...made,
    boxes: { ...made.boxes, [f1.id]: { ...f1, areaId }, [g1.id]: { ...g1, areaId } },
    calls: {
      'call-1': {
        ...{ id: 'call-1', procedure: 'hunt', words: '', opened: '2026-05-01T08:00:00Z', by: PEOPLE[0] },
        ...{ boxId: null, circuitId: null, fixtureId: null },
      },
    },
  };
}

export class World {
  readonly truth: Truth;
  readonly copies: Copy[];
  readonly told: string[] = [];
  private readonly random: () => number;
  private readonly tally: Tally;
  private minute = 0;
  private ids = 0;

  /** @param random numbers below 1, of a seed */
  constructor(random: () => number, tally: Tally) {
    this.random = random;
    this.tally = tally;
    const document = house();
    const inBox = new Map<string, Set<string>>(
      BOXES.map((id) => [id, new Set(circuitsIn(document, document.boxes[id]!).map((c) => c.id))]),
    );
    // A conductor that nobody drew, and a neutral that another circuit borrows.
    if (this.chance(0.4)) inBox.get(this.pick(BOXES))!.add(this.pick(CIRCUITS));
    const borrows = this.chance(0.4) ? [{ neutral: this.pick(CIRCUITS), by: this.pick(CIRCUITS) }] : [];
    this.truth = {
      on: new Map([1, 3, 5, 7].map((s) => [s, true])),
      cause: new Map(),
      locks: new Map([1, 3, 5, 7].map((s) => [s, new Set()])),
      feeds: new Map(CIRCUITS.map((id) => [id, document.circuits[id]!.space])),
      inBox,
      borrows: borrows.filter((b) => b.neutral !== b.by),
      loads: new Map(CIRCUITS.map((id) => [id, this.chance(0.5)])),
      main: true,
      mainCause: null,
      hands: [],
    };
    this.copies = ['device-a', 'device-b'].map((device) => ({
      device,
      skew: this.chance(0.3) ? Math.round(600 * (this.random() - 0.5)) : 0,
      document,
      undo: [],
      draft: null,
    }));
  }

  private chance(p: number): boolean {
    return this.random() < p;
  }
  private pick<T>(of: readonly T[]): T {
    return of[Math.floor(this.random() * of.length)]!;
  }
  private id(prefix: string): string {
    return `${prefix}-${this.ids++}`;
  }

  // What is so.

  private powered(circuit: string): boolean {
    return this.truth.main && (this.truth.on.get(this.truth.feeds.get(circuit)!) ?? false);
  }
  private current(neutral: string): number {
    const flows = this.truth.borrows.some(
      (b) => b.neutral === neutral && this.powered(b.by) && this.truth.loads.get(b.by),
    );
    return flows ? 3.2 : 0;
  }
  /** What a hand in a box would touch; empty where nothing is live. */
  private liveIn(box: string, parted: boolean): string {
    const circuits = [...this.truth.inBox.get(box)!];
    const hot = circuits.find((c) => this.powered(c));
    if (hot) return `${hot} is live in ${box}`;
    const rises = parted && circuits.find((c) => this.current(c) > 0);
    return rises ? `the neutral of ${rises} rises in ${box}` : '';
  }
  private voltsAt(document: JobDocument, box: Box, node: string): number {
    if (node === KNOWN_SOURCE) return 120;
    if (node.startsWith('face.') || node === LIVE)
      return document.circuits[circuitsIn(document, box)[0]?.id ?? ''] &&
        circuitsIn(document, box).some((c) => c.stops.some((s) => s.boxId === box.id) && this.powered(c.id))
        ? 120
        : 0;
    if (node.startsWith(OTHER)) return this.powered(node.slice(OTHER.length)) ? 120 : 0;
    const point = pointsIn(document, box).find((p) => p.key === node);
    if (point?.role === 'hot' && point.circuitId) return this.powered(point.circuitId) ? 120 : 0;
    // Of a conductor that nobody knows, whatever is in the box beyond its circuits.
    if (point && point.circuitId === null)
      return this.hidden(document, box).some((c) => this.powered(c)) ? 120 : 0;
    return 0;
  }
  private hidden(document: JobDocument, box: Box): string[] {
    const known = new Set(circuitsIn(document, box).map((c) => c.id));
    return [...this.truth.inBox.get(box.id)!].filter((c) => !known.has(c));
  }

  // What is on record.

  private clockOf(copy: Copy): Clock {
    const now = Date.parse('2026-05-06T08:00:00Z') + 60_000 * (this.minute + copy.skew);
    return { device: copy.device, now: new Date(now).toISOString() };
  }
  /** @returns why it was refused, or null */
  private put(copy: Copy, command: Command): string | null {
    try {
      const { document, changes } = run(copy.document, command, GATES, this.clockOf(copy));
      copy.document = document;
      const edits = changes.filter((c) => c.table === 'boxes' || c.table === 'circuits');
      if (edits.length > 0) copy.undo.push(edits);
      this.told.push(
        `  taken: ${changes
          .map((c) => `${c.table} ${c.id}`)
          .slice(-2)
          .join(', ')}`,
      );
      return null;
    } catch (error) {
      if (!(error instanceof InvalidError)) throw error;
      return error.message;
    }
  }
  private row(copy: Copy, table: string, row: object): string | null {
    return this.put(copy, { type: 'put', table, rows: [row] } as never as Command);
  }
  private gate(name: string, refused: string | null): boolean {
    count(refused === null ? this.tally.opened : this.tally.shut, name);
    return refused === null;
  }
  private fail(what: string): never {
    throw new Error(`${what}\n${this.told.join('\n')}`);
  }

  /** A breaker comes on, if nobody’s lock is on it: what then becomes live under whose hands? @param known who is on record where it was accepted */
  private turnOn(space: number, copy: Copy | null, row: string | null): void {
    const { truth } = this;
    const before = truth.on.get(space);
    truth.on.set(space, true);
    if (!before) truth.cause.set(space, row);
    for (const h of truth.hands) {
      const live = h.clear ? '' : this.liveIn(h.box, h.parted);
      if (live === '') continue;
      if (copy && copy.document.entries[h.entry])
        this.fail(`power was accepted while ${h.by} has hands in: ${live}`);
      // The other phone knows nothing of it: the lock and the tag on the breaker do.
      truth.on.set(space, before ?? false);
    }
  }

  private readonly doing: Readonly<Record<string, (copy: Copy, by: Person) => void>> = {
    begin: (copy, by) => {
      const box = copy.document.boxes[this.pick(BOXES)]!;
      const basis = this.pick(['live-before', 'live-before', 'live-before', 'same-lock-out'] as const);
      const lead = this.chance(0.4);
      const draft = draftFor(copy.document, box, {
        ...{ by, basis, lockedOut: [], others: 'not-looked' },
        ...(lead ? { reference: 'lead', referenceName: 'lead from the panel’s ground' } : {}),
      });
      copy.draft = { draft, seen: [] };
    },
    next: (copy) => this.actsOn(copy, 1, false),
    several: (copy) => this.actsOn(copy, 6, false),
    finish: (copy, by) => {
      if (copy.draft === null || this.chance(0.3)) this.doing.begin!(copy, by);
      this.actsOn(copy, 60, false);
      this.recordProof(copy);
    },
    'out of order': (copy) => this.actsOn(copy, 2, true),
    record: (copy) => this.recordProof(copy),
    'give up': (copy) => void (copy.draft = null),
    'hands in': (copy, by) => this.handsIn(copy, by, false),
    'part a neutral': (copy, by) => this.handsIn(copy, by, true),
    'clamp, all loaded': (copy, by) => this.clamp(copy, by, true),
    'clamp, idle': (copy, by) => this.clamp(copy, by, false),
    close: (copy, by) => this.leave(copy, by, 'closed'),
    'keep out': (copy, by) => this.leave(copy, by, 'clear'),
    'power, nothing closed': (copy, by) => this.power(copy, by, 'use', false),
    'power, own closed': (copy, by) => this.power(copy, by, 'use', true),
    'power to measure': (copy, by) => this.power(copy, by, 'measurement', this.chance(0.5)),
    'lock off': (copy, by) => this.power(copy, by, 'lock-removed', false),
    flip: (copy, by) => {
      const space = this.pick([1, 3, 5, 7]);
      const circuit = Object.values(copy.document.circuits).find((c) => c.space === space);
      const id = this.id('flip');
      const refused = this.row(copy, 'flips', {
        ...{ id, panelId: PANEL.id, at: this.clockOf(copy).now, by, means: 'eyes' },
        ...{
          off: [String(space)],
          outlets: [{ boxId: this.pick(BOXES), dead: this.chance(0.5) }],
          strikes: null,
        },
      });
      if (circuit) this.gate('flip', whyNotFlipped(copy.document, circuit));
      if (refused === null && this.truth.locks.get(space)!.size === 0) this.turnOn(space, copy, id);
    },
    reading: (copy, by) => this.reads(copy, by, 'as-found'),
    'as left': (copy, by) => this.reads(copy, by, 'as-left'),
    correct: (copy) => {
      const [last] = Object.values(copy.document.readings).slice(-1);
      if (last)
        this.row(copy, 'readings', {
          ...last,
          stamp: undefined,
          id: this.id('reading'),
          hotNeutral: 0,
          corrects: last.id,
        });
    },
    pen: (copy, by) => {
      const box = copy.document.boxes[this.pick(BOXES)]!;
      this.row(copy, 'measurements', {
        ...PLAIN_MEASUREMENT,
        ...this.common('measurement', copy, by, box.id),
        ...{ circuitId: circuitsIn(copy.document, box)[0]?.id ?? null, instrument: 'voltage pen' },
        ...{ node: 'face.top.hot', nodeName: 'hot slot', to: null, toName: '', value: null, note: '' },
        shows: this.voltsAt(copy.document, box, 'face.hot') > 0 ? 'sounds' : 'nothing',
      });
    },
    'device test': (copy, by) =>
      void this.row(copy, 'deviceTests', {
        ...this.common('test', copy, by, null),
        ...{ circuitId: this.pick(CIRCUITS), kind: 'gfci', tripped: this.chance(0.5), voltsAfterTest: 0 },
        ...{
          downstream: [],
          reset: true,
          voltsAfterReset: null,
          tester: null,
          indicator: 'none',
          installed: null,
        },
        note: '',
      }),
    'said live': (copy, by) => this.entry(copy, by, `seen ${this.pick(BOXES)} ${this.ids}`, ['works'], []),
    strike: (copy, by) => {
      const last = Object.values(copy.document.entries)
        .filter((e) => e.strikes === null)
        .at(-1);
      if (last)
        this.row(copy, 'entries', {
          ...last,
          ...{
            stamp: undefined,
            id: this.id('entry'),
            by,
            touches: [],
            figures: [],
            picks: [],
            strikes: last.id,
          },
        });
    },
    'call: hands in': (copy, by) => this.callHands(copy, by, false),
    'call: part': (copy, by) => this.callHands(copy, by, true),
    'call: panel off': (copy, by) => {
      const picks = this.truth.main && this.chance(0.7) ? ['lugs', 'not-fed'] : ['main', 'lugs', 'not-fed'];
      this.entry(copy, by, 'panel-off', picks, [{ in: 'panel', id: PANEL.id }]);
    },
    'call: bus dead': (copy, by) => {
      const dead = !this.truth.main;
      this.entry(
        copy,
        by,
        'panel-dead',
        [],
        [{ in: 'panel', id: PANEL.id }],
        [
          ...['before', 'after'].map((name) => ({ name, value: 120 })),
          ...['a-n', 'b-n', 'a-b', 'a-g', 'b-g', 'n-g'].map((name) => ({ name, value: dead ? 0 : 120 })),
        ],
      );
    },
    'call: in the panel': (copy, by) => {
      const { now } = this.clockOf(copy);
      const refused = this.entry(copy, by, `panel ${this.ids}`, [], [{ in: 'panel', id: PANEL.id }]);
      this.gate('panel', refused);
      const cause = this.truth.mainCause;
      if (refused === null && this.truth.main && (cause === null || this.hasHeard(copy, cause)))
        this.fail('hands in a panel with its main on');
      if (refused === null && whyPanelShut(copy.document, PANEL.id, now) === null) this.leavePanel(copy, by);
    },
    'main off': () => void (this.truth.main = false),
    'main on': (copy, by) => {
      // It moves with nothing on record but by who has no hand anywhere: as power on every circuit.
      for (const id of CIRCUITS) this.power(copy, by, 'use', false, id);
    },
    renumber: (copy) =>
      this.edit(copy, 'circuits', this.pick(CIRCUITS), { space: 7 + 2 * Math.floor(3 * this.random()) }),
    'pass through': (copy) =>
      this.edit(copy, 'boxes', this.pick(BOXES), { through: this.chance(0.5) ? ['circuit-2'] : [] }),
    recount: (copy) =>
      this.edit(copy, 'boxes', this.pick(BOXES), { cables: 1 + Math.floor(3 * this.random()) }),
    'order unknown': (copy) =>
      this.edit(copy, 'circuits', this.pick(CIRCUITS), { ordered: this.pick(['yes', 'unknown']) }),
    'off the circuit': (copy) =>
      void this.put(copy, {
        type: 'move-stop',
        boxId: this.pick(BOXES),
        circuitId: this.pick([...CIRCUITS, null]),
        after: null,
      }),
    undo: (copy) => {
      const last = copy.undo.pop();
      if (!last) return;
      const command: Command[] = inverse(last).flatMap(({ table, after }) =>
        after ? [{ type: 'put', table, rows: [after] } as never as Command] : [],
      );
      this.put(copy, { type: 'batch', label: 'Undo', commands: command });
      copy.undo.pop();
    },
    'bring in': (copy) => {
      const other = this.copies.find((c) => c !== copy)!;
      copy.document = unite(copy.document, other.document);
    },
    'bring in, both': () => {
      const [a, b] = this.copies as [Copy, Copy];
      [a.document, b.document] = [unite(a.document, b.document), unite(b.document, a.document)];
    },
    'owner turns one off': () => void this.truth.on.set(this.pick([1, 3, 5]), false),
    'owner turns one on': () => {
      const space = this.pick([1, 3, 5, 7]);
      if (this.truth.locks.get(space)!.size > 0) return;
      // What nobody drew is on a breaker that nobody could lock: that is told by the next reading, not by a gate.
      const hidden = this.truth.hands.some((h) =>
        [...this.truth.inBox.get(h.box)!].some((c) => this.truth.feeds.get(c) === space),
      );
      const borrowed = this.truth.borrows.some((b) => this.truth.feeds.get(b.by) === space);
      if (!hidden && !borrowed) this.turnOn(space, null, null);
    },
    'load on': () => {
      const circuit = this.pick(CIRCUITS);
      const parted = this.truth.hands.some((h) => h.parted);
      if (!parted) this.truth.loads.set(circuit, true);
    },
    'load off': () => void this.truth.loads.set(this.pick(CIRCUITS), false),
    'an hour': () => void (this.minute += 60),
    'a night': () => {
      this.minute += 14 * 60;
    },
    'clock set': (copy) => void (copy.skew = Math.round(2000 * (this.random() - 0.5))),
    'look ahead': (copy) => {
      for (const box of Object.values(copy.document.boxes))
        validProof(copy.document, box, this.clockOf(copy).now);
    },
  };
  /** Kinds of acts that are played. */
  readonly kinds = Object.keys(this.doing);

  private common(prefix: string, copy: Copy, by: Person, boxId: string | null) {
    return { id: this.id(prefix), at: this.clockOf(copy).now, by, place: '', boxId };
  }
  private reads(copy: Copy, by: Person, stage: 'as-found' | 'as-left'): void {
    const box = copy.document.boxes[this.pick(BOXES)]!;
    this.row(copy, 'readings', {
      ...PLAIN_READING,
      ...this.common('reading', copy, by, box.id),
      ...{ stage, instrument: 'meter', hotNeutral: this.voltsAt(copy.document, box, 'face.hot') },
    });
  }
  private entry(
    copy: Copy,
    by: Person,
    step: string,
    picks: string[],
    touches: { in: 'box' | 'panel' | 'neutral'; id: string }[],
    figures: { name: string; value: number }[] = [],
  ): string | null {
    return this.row(copy, 'entries', {
      ...{
        id: this.id('entry'),
        callId: 'call-1',
        step,
        title: '',
        said: '',
        at: this.clockOf(copy).now,
        by,
      },
      ...{ touches, picks, value: null, figures, note: '', strikes: null },
    });
  }
  private edit(copy: Copy, table: 'boxes' | 'circuits', id: string, values: object): void {
    const row = copy.document[table][id];
    if (row) this.row(copy, table, { ...row, ...values });
  }

  /** An honest person at the acts of a proof; what an act reads is so at that moment. */
  private actsOn(copy: Copy, most: number, anyOrder: boolean): void {
    const at = copy.draft;
    if (!at) return;
    const box = copy.document.boxes[at.draft.boxId];
    if (!box) return void (copy.draft = null);
    for (let k = 0; k < most; k++) {
      const open = actsOf(copy.document, box, at.draft, at.seen).filter((a) => !a.done);
      const act = anyOrder ? this.pick(open) : open[0];
      if (!act || !this.doAct(copy, at, box, act)) return;
    }
  }
  private doAct(copy: Copy, at: NonNullable<Copy['draft']>, box: Box, act: Act): boolean {
    const { draft } = at;
    if (act.reads === null) {
      if (act.kind === 'lock' && act.key.startsWith('lock ')) {
        const circuit = copy.document.circuits[act.key.slice(5)]!;
        this.truth.on.set(circuit.space, false);
        const locks = this.truth.locks.get(circuit.space) ?? new Set();
        this.truth.locks.set(circuit.space, locks.add(draft.by as Person));
      }
      if (act.key === 'cables')
        this.edit(copy, 'boxes', box.id, { cables: Math.max(1, this.truth.inBox.get(box.id)!.size) });
      else if (act.key === 'others') {
        const hidden = this.hidden(copy.document, box);
        at.draft = { ...draft, others: hidden.length > 0 ? 'read' : 'none' };
        for (const c of hidden)
          at.seen.push(this.seen(copy, box, draft, `${OTHER}${c}`, 'loose end', REFERENCE, ''));
      } else if (act.sets) at.draft = { ...draft, ...act.sets };
      else return false;
      return true;
    }
    const { node, nodeName, to, toName } = act.reads;
    at.seen.push(this.seen(copy, box, draft, node, nodeName, to, toName));
    // Who reads something live stops there, looks, and goes on.
    return act.kind === 'source' || act.kind === 'live' || at.seen.at(-1)!.value <= 1;
  }
  private seen(
    copy: Copy,
    box: Box,
    draft: Draft,
    node: string,
    nodeName: string,
    to: string,
    toName: string,
  ): Seen & { at: string } {
    const ids = circuitsIn(copy.document, box).map((c) => c.id);
    const off = ids.filter((id) => draft.lockedOut.includes(id));
    const live = node === LIVE;
    const volts =
      live && draft.reference === 'lead' && draft.basis !== 'live-before'
        ? 120
        : this.voltsAt(copy.document, box, node);
    const ghost = volts === 0 && this.chance(0.02);
    if (draft.had === null && off.length > 0)
      draft.had = [...headsOf(copy.document)].map(([device, n]) => ({ device, n }));
    return {
      ...{ node, nodeName, to, toName, quantity: 'volts' },
      value: ghost ? 38 : volts,
      instrument: ghost || this.chance(0.05) ? 'high-impedance meter' : 'two-pole tester',
      on: live && volts > 0 ? ids.filter((id) => this.powered(id)) : [],
      off,
      at: this.clockOf(copy).now,
    };
  }
  private recordProof(copy: Copy): void {
    const at = copy.draft;
    const box = at && copy.document.boxes[at.draft.boxId];
    if (!at || !box) return;
    const whole = proofGaps(copy.document, box, at.draft, at.seen).length === 0;
    const moment = { place: box.name, at: this.clockOf(copy).now };
    const { proof, observations } = rowsOf(at.draft, at.seen, moment, (prefix) => this.id(prefix));
    const refused = this.put(copy, {
      type: 'batch',
      label: 'Proof',
      commands: [
        { type: 'put', table: 'observations', rows: observations },
        { type: 'put', table: 'proofs', rows: [proof] },
      ],
    });
    if (this.gate('proof', refused)) {
      if (!whole) this.fail('a proof with a gap was taken');
      this.tally.proofs++;
      copy.draft = null;
    }
  }

  /** Mostly one that is proved. */
  private boxFor(copy: Copy): Box {
    const { now } = this.clockOf(copy);
    const boxes = BOXES.map((id) => copy.document.boxes[id]!);
    const open = boxes.filter((b) => validProof(copy.document, b, now) !== null);
    return open.length > 0 && this.chance(0.8) ? this.pick(open) : this.pick(boxes);
  }

  /** A hand goes in where the gate lets it. */
  private handsIn(copy: Copy, by: Person, part: boolean): void {
    const box = this.boxFor(copy);
    const proof = validProof(copy.document, box, this.clockOf(copy).now);
    this.gate('hands', proof ? null : 'shut');
    if (!proof) return;
    const shut = part ? shutNeutrals(copy.document, box, proof) : [];
    if (part) this.gate('neutral', shut.length > 0 ? 'shut' : null);
    if (shut.length > 0) return;
    this.goIn(copy, by, box, part);
  }
  private callHands(copy: Copy, by: Person, part: boolean): void {
    const box = this.boxFor(copy);
    const proof = validProof(copy.document, box, this.clockOf(copy).now);
    const refused = this.entry(
      copy,
      by,
      `work ${this.ids}`,
      [],
      [{ in: 'box', id: box.id }, ...(part ? [{ in: 'neutral' as const, id: box.id }] : [])],
    );
    this.gate(part ? 'neutral' : 'hands', refused);
    if (refused === null) {
      if (!proof) this.fail(`hands in ${box.name} on record without a proof`);
      this.touch(copy, box, by, part);
    }
  }
  private goIn(copy: Copy, by: Person, box: Box, part: boolean): void {
    const circuit = circuitsIn(copy.document, box)[0];
    if (!circuit) return;
    // On record as an answer, so that other phones hear of it.
    const refused = this.entry(
      copy,
      by,
      `in ${this.ids}`,
      [],
      [{ in: 'box', id: box.id }, ...(part ? [{ in: 'neutral' as const, id: box.id }] : [])],
    );
    if (refused !== null) this.fail(`the gate of ${box.name} was open, and its record refused: ${refused}`);
    this.touch(copy, box, by, part);
  }
  private touch(copy: Copy, box: Box, by: Person, parted: boolean): void {
    const live = this.liveIn(box.id, parted);
    // What another phone put on unheard no gate can know; nor that what nobody drew, and was read dead, came on since.
    const hidden = new Set(this.hidden(copy.document, box));
    const unheard = [...this.truth.inBox.get(box.id)!].some((c) => {
      const cause = this.truth.cause.get(this.truth.feeds.get(c)!) ?? null;
      return this.powered(c) && (cause === null ? hidden.has(c) : !this.hasHeard(copy, cause));
    });
    if (live !== '' && unheard) return;
    if (live !== '') this.fail(`the gate of ${box.name} is open to ${by} while ${live}`);
    const entry = Object.keys(copy.document.entries).at(-1)!;
    this.truth.hands.push({ box: box.id, by, entry, parted, clear: false });
  }

  private hasHeard({ document }: Copy, row: string): boolean {
    return document.energizings[row] !== undefined || document.flips[row] !== undefined;
  }

  private clamp(copy: Copy, by: Person, loaded: boolean): void {
    const box = this.boxFor(copy);
    const proof = validProof(copy.document, box, this.clockOf(copy).now);
    if (!proof) return;
    if (loaded && this.truth.hands.some((h) => h.parted)) return;
    if (loaded) for (const id of CIRCUITS) this.truth.loads.set(id, true);
    const on = loaded ? CIRCUITS.filter((id) => this.powered(id)) : [];
    for (const point of pointsIn(copy.document, box)) {
      if (point.role !== 'neutral') continue;
      const row: Partial<Observation> = {
        ...this.common('observation', copy, by, proof.boxId),
        ...{ node: point.key, nodeName: point.name, to: null, toName: '', quantity: 'amps', link: '' },
        ...{ value: this.current(point.circuitId ?? ''), instrument: 'clamp meter', on, off: [] },
      };
      this.row(copy, 'observations', row);
    }
  }

  private leave(copy: Copy, by: Person, left: 'closed' | 'clear'): void {
    const own = this.truth.hands.filter((h) => h.by === by);
    const box = own.length > 0 && this.chance(0.7) ? this.pick(own).box : this.pick(BOXES);
    const refused = this.row(copy, 'closings', {
      ...{
        id: this.id('closing'),
        of: { in: 'box', id: box },
        place: '',
        at: this.clockOf(copy).now,
        by,
        left,
      },
    });
    if (refused === null) this.out(by, box, left);
  }
  private out(by: Person, box: string, left: 'closed' | 'clear'): void {
    const { truth } = this;
    if (left === 'closed') truth.hands = truth.hands.filter((h) => h.by !== by || h.box !== box);
    else for (const h of truth.hands) if (h.by === by && h.box === box) h.clear = true;
  }
  private leavePanel(copy: Copy, by: Person): void {
    this.row(copy, 'closings', {
      ...{
        id: this.id('closing'),
        of: { in: 'panel', id: PANEL.id },
        place: '',
        at: this.clockOf(copy).now,
        by,
      },
      left: 'closed',
    });
  }

  private power(
    copy: Copy,
    by: Person,
    purpose: 'use' | 'measurement' | 'lock-removed',
    closing: boolean,
    id: string = this.pick(CIRCUITS),
  ): void {
    const circuit = copy.document.circuits[id];
    if (!circuit) return;
    const signed = { by, at: this.clockOf(copy).now };
    const waits = waitsFor(copy.document, circuit, { purpose, by });
    const own = closing ? waits.filter((h) => h.by === by) : [];
    const refused = this.put(copy, powerCommand(copy.document, circuit, purpose, signed, own));
    if (!this.gate(`power: ${purpose}`, refused)) return;
    for (const h of own) this.out(by, h.of.id, purpose === 'measurement' ? 'clear' : 'closed');
    const space = circuit.space;
    if (purpose === 'lock-removed') return void this.truth.locks.get(space)?.delete(by);
    // A lock and a tag of which this phone knows nothing hang there all the same.
    const foreign = [...(this.truth.locks.get(space) ?? [])].some(
      (who) => !Object.values(copy.document.proofs).some((p) => p.by === who && p.lockedOut.includes(id)),
    );
    if (foreign) return;
    this.truth.locks.set(space, new Set());
    const row = Object.keys(copy.document.energizings).at(-1)!;
    if (!this.truth.main) this.truth.mainCause = row;
    this.truth.main = true;
    this.turnOn(space, copy, row);
  }

  /** One act more. @returns its kind */
  step(): string {
    this.minute += 1;
    const kind = this.chance(0.35)
      ? this.pick(['finish', 'finish', 'begin', 'several', 'hands in', 'clamp, all loaded', 'part a neutral'])
      : this.pick(this.kinds);
    const copy = this.pick(this.copies);
    const by = this.chance(0.85) ? PEOPLE[this.copies.indexOf(copy)]! : this.pick(PEOPLE);
    const before = this.gates(copy);
    this.told.push(`${this.minute} ${copy.device} ${by}: ${kind}`);
    this.doing[kind]!(copy, by);
    const after = this.gates(copy);
    for (const [gate, open] of Object.entries(after))
      if (open !== before[gate]) {
        const row = ((this.tally.moved[kind] ??= {})[gate] ??= { shut: 0, opened: 0 });
        if (open) row.opened++;
        else row.shut++;
      }
    return kind;
  }

  /** How the gates of one phone stand, at the first box and the first circuit. */
  private gates(copy: Copy): Record<string, boolean> {
    const { document } = copy;
    const { now } = this.clockOf(copy);
    const box = document.boxes['box-r1']!;
    const circuit = document.circuits['circuit-1']!;
    const proof = validProof(document, box, now);
    return {
      hands: proof !== null,
      neutral: proof !== null && shutNeutrals(document, box, proof).length === 0,
      power: waitsFor(document, circuit, { purpose: 'use', by: '' }).length === 0,
      flip: whyNotFlipped(document, circuit) === null,
      panel: whyPanelShut(document, PANEL.id, now) === null,
    };
  }
}

/** Plays one sequence. @throws where a gate let somebody touch what is live */
export function play(random: () => number, steps: number, tally: Tally): void {
  const world = new World(random, tally);
  for (let k = 0; k < steps; k++) world.step();
}
