/** One measurement while it is made: the instrument, where it is held, what it showed. */
import {
  practiceAnswer,
  practiceLook,
  soundLook,
  soundRange,
  type Practice,
} from '#core/diagnosis/practice.ts';
import type { Look, Showing } from '#core/instruments/look.ts';
import type { Run } from '#core/circuits/run.ts';
import type { LampLevel, Measurement, Measuring as Instrument, Temporary } from '#core/job/schema.ts';
import { newId } from '#core/job/document.ts';
import { isOff } from '#core/records/proof.ts';
import { boxesOf, placesFor, standingTemporaries, toClear, whyNotMeasured } from '#core/records/measuring.ts';
import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
import { round } from '#core/units/quantity.ts';
import type { JobSession } from './store/session.svelte.ts';

/** Where a transmitter is hooked up. */
export interface Sender {
  stop: number;
  node: string;
  to: string;
}

/** A range narrower than a meter tells apart is a figure, volts. */
const TELLS = 0.2;
const DARK: LampLevel[] = ['dark', 'dark', 'dark'];

export class Measuring {
  private readonly session: () => JobSession;
  private readonly at: () => { run: Run; stop: number; by: string };
  instrument = $state<Instrument | null>(null);
  private picked = $state<{ node: string | null; to: string | null }>({ node: null, to: null });
  load = $state(0);
  gain = $state(5);
  testVolts = $state(500);
  milliamps = $state(8);
  sentFrom = $state.raw<Sender | null>(null);
  cleared = $state.raw<readonly string[]>([]);
  shows = $state<Measurement['shows'] | null>(null);
  value = $state<number | null>(null);
  lamps = $state.raw<LampLevel[]>(DARK);
  seconds = $state<number | null>(null);
  note = $state('');
  /** Number of the hidden fault to practice on; null when a real circuit is measured. */
  hidden = $state<number | null>(null);
  /** What opened while the practice instrument was on. */
  opened = $state.raw<readonly string[]>([]);
  said = $state('');

  constructor(session: () => JobSession, at: () => { run: Run; stop: number; by: string }) {
    this.session = session;
    this.at = at;
  }

  private readonly document = $derived.by(() => this.session().document);
  readonly facts = $derived.by(() => (this.instrument ? INSTRUMENT_FACTS[this.instrument] : null));
  readonly places = $derived.by(() => {
    const { run, stop } = this.at();
    return this.instrument ? placesFor(this.document, run, stop, this.instrument) : [];
  });
  readonly node = $derived.by(
    () => this.places.find((p) => p.key === this.picked.node) ?? this.places[0] ?? null,
  );
  readonly to = $derived.by(() => {
    if (this.facts?.held !== 'pair') return null;
    const others = this.places.filter((p) => p !== this.node);
    return others.find((p) => p.key === this.picked.to) ?? others[0] ?? null;
  });
  readonly toClear = $derived.by(() =>
    this.facts?.asks.includes('clear') ? toClear(this.document, this.at().run.circuit) : [],
  );
  readonly temporaries = $derived.by(() =>
    standingTemporaries(this.document, boxesOf(this.at().run.circuit)),
  );
  readonly sender = $derived.by((): Sender => {
    const { stop } = this.at();
    return this.sentFrom ?? { stop, node: 'panel.hot', to: 'panel.ground' };
  });

  /** What the wiring on record would show there; null where that cannot be worked out. */
  readonly expected = $derived.by((): Showing | null => {
    const asked = this.asked();
    if (!asked) return null;
    try {
      return soundLook(this.practice(), asked);
    } catch {
      return null;
    }
  });

  /** The same as a range, where what is on elsewhere on the circuit matters. */
  readonly expectedRange = $derived.by(() => {
    const asked = this.asked();
    if (!asked || this.facts?.unit !== 'V' || this.load > 0) return null;
    const range = soundRange(this.practice(), { ...asked, inputOhms: this.facts.inputOhms });
    return range && range.most - range.least >= TELLS ? range : null;
  });

  /** Whether the figure is what sound wiring shows, as near as its instrument reads; null where nothing is to compare. */
  readonly agrees = $derived.by((): boolean | null => {
    const { value, expectedRange: range } = this;
    const sound = this.expected?.value ?? null;
    const unit = this.facts?.unit;
    if (this.shows !== 'value' || value === null || sound === null) return null;
    if (unit !== 'V' && unit !== 'Ω') return null;
    const [least, most] = range ? [range.least, range.most] : [sound, sound];
    const slack = unit === 'V' ? 1.5 + 0.03 * most : Math.max(0.2, 0.2 * most);
    return value >= least - slack && value <= most + slack;
  });

  private practice(): Omit<Practice, 'hidden'> {
    const { run } = this.at();
    const dead = isOff(this.document, run.circuit, new Date().toISOString()) || this.facts?.power === 'off';
    return { run, dead, temporaries: this.temporaries };
  }

  private asked(): Look | null {
    const { stop } = this.at();
    if (!this.instrument || !this.node || !this.facts) return null;
    const { asks } = this.facts;
    return {
      instrument: this.instrument,
      stop,
      node: this.node.key,
      to: this.to?.key ?? null,
      inputOhms: null,
      loadAmps: asks.includes('load') ? this.load : 0,
      gain: asks.includes('gain') ? this.gain : null,
      testVolts: asks.includes('volts') ? this.testVolts : null,
      testMilliamps: asks.includes('milliamps') ? this.milliamps : null,
      sender: asks.includes('sender') ? this.sender : null,
    };
  }

  choose = (instrument: Instrument | null): void => {
    this.instrument = instrument;
    this.blank();
  };
  hold = (node: string, to: string | null = null): void => {
    this.picked = { node, to };
    this.blank();
  };
  put = (
    values: Partial<Pick<Measuring, 'load' | 'gain' | 'testVolts' | 'milliamps' | 'sentFrom'>>,
  ): null => {
    Object.assign(this, values);
    this.blank();
    return null;
  };
  clear = (key: string, is: boolean): void => {
    this.cleared = is ? [...this.cleared, key] : this.cleared.filter((k) => k !== key);
  };
  show = (shows: Measurement['shows'], value: number | null = null): null => {
    this.shows = shows;
    this.value = value;
    this.said = '';
    return null;
  };
  light = (index: number): void => {
    const order: LampLevel[] = ['dark', 'dim', 'lit'];
    this.lamps = this.lamps.map((l, i) => (i === index ? order[(order.indexOf(l) + 1) % 3]! : l));
    this.show('lamps');
  };
  private blank(): void {
    this.shows = null;
    this.value = null;
    this.lamps = DARK;
    this.seconds = null;
    this.note = '';
    this.opened = [];
    this.said = '';
  }

  /** Reads the practice circuit with what is set. */
  read = (): void => {
    const asked = this.asked();
    if (!asked || this.hidden === null) return;
    try {
      const showing = practiceLook({ ...this.practice(), hidden: this.hidden }, asked);
      const { run } = this.at();
      this.show(showing.shows, showing.value === null ? null : tidy(showing.value));
      if (showing.lamps) this.lamps = showing.lamps;
      this.seconds = showing.seconds === null ? null : round(showing.seconds, 2);
      this.opened = showing.opened.map(({ stop, why }) => {
        const what = stop === null ? 'A joint' : stop < 0 ? 'The breaker' : (run.stops[stop]?.box.name ?? '');
        return `${what} opened: ${why}`;
      });
    } catch (problem) {
      this.said = problem instanceof Error ? problem.message : String(problem);
    }
  };

  /** What the practice circuit hides, once it is asked for. */
  answer = $state('');
  reveal = (): void => {
    const { run } = this.at();
    this.answer = this.hidden === null ? '' : practiceAnswer({ run, dead: false, hidden: this.hidden });
  };

  /** The row that would be logged; null while nothing was read. */
  private row(): Measurement | null {
    const { run, stop, by } = this.at();
    const here = run.stops[stop];
    const asked = this.asked();
    if (!here || !asked || !this.node || !this.facts || this.shows === null) return null;
    const { box, area } = here;
    const senderBox = run.stops[this.sender.stop]?.box.name ?? '';
    return {
      id: newId('measurement'),
      boxId: box.id,
      circuitId: run.circuit.id,
      place: `${box.name}, ${area.name}`,
      at: new Date().toISOString(),
      by,
      instrument: asked.instrument,
      node: this.node.key,
      nodeName: this.node.name,
      to: this.to?.key ?? null,
      toName: this.to?.name ?? '',
      stands: this.node.kind !== 'end' ? 'unknown' : this.isApart(this.node.key) ? 'separated' : 'joined',
      inputOhms: this.facts.inputOhms,
      loadAmps: asked.loadAmps,
      gain: asked.gain,
      testVolts: asked.testVolts,
      testMilliamps: asked.testMilliamps,
      shows: this.shows,
      value: this.shows === 'value' ? this.value : null,
      lamps: this.shows === 'lamps' ? [...this.lamps] : null,
      seconds: this.shows === 'trips' ? this.seconds : null,
      cleared: [...this.cleared],
      temporaries: this.temporaries.map((t) => t.id),
      sender: asked.sender ? `${senderBox}: ${asked.sender.node} to ${asked.sender.to}` : '',
      simulated: this.hidden !== null,
      note: this.note,
      corrects: null,
    };
  }

  private isApart(end: string): boolean {
    return (
      (this.node?.separated ?? false) ||
      this.temporaries.some((t) => t.kind === 'separated' && t.ends.includes(end))
    );
  }

  /** Why it may not be logged as it is; empty when it may, or nothing was read. */
  readonly refused = $derived.by(() => {
    const row = this.row();
    return row ? (whyNotMeasured(this.document, row) ?? '') : '';
  });

  log = async (): Promise<void> => {
    const row = this.row();
    if (!row) {
      this.said = 'Nothing read yet';
      return;
    }
    if (row.by.trim() === '') {
      this.said = 'Who measures: expected a name';
      return;
    }
    this.said = (await this.session().attempt({ type: 'put', table: 'measurements', rows: [row] })) ?? '';
    if (this.said === '') this.blank();
  };

  /** Puts a tie or separation on record, or that it was undone. */
  mark = async (
    values: Pick<Temporary, 'kind' | 'ends' | 'names' | 'undoes' | 'boxId' | 'place'>,
  ): Promise<string> => {
    const { by } = this.at();
    if (by.trim() === '') return 'Who does it: expected a name';
    const row: Temporary = { ...values, id: newId('temporary'), at: new Date().toISOString(), by };
    return (await this.session().attempt({ type: 'put', table: 'temporaries', rows: [row] })) ?? '';
  };
}

/** A figure as a display has it. */
const tidy = (value: number): number =>
  value >= 100 ? round(value, 1) : value >= 1 ? round(value, 2) : round(value, 3);
