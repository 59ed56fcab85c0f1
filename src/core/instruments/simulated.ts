/** A meter that is not there: it stands at an outlet of a circuit’s network, hidden faults and all, and speaks SCPI. */
import { actualBoxes } from '#core/boxes/planned.ts';
import type { Run } from '#core/circuits/run.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { wiringOf, type Wiring } from '#core/network/wiring.ts';
import { slotPairs } from './connect.ts';
import { atRest } from './look.ts';
import { clampConductor, HIGH_OHMS, LOW_OHMS, readOhms, readVolts } from './meter.ts';
import {
  channelsOf,
  formatNumber,
  matches,
  OVER_RANGE,
  parseMessage,
  parseNumber,
  type Unit,
} from './scpi.ts';

export const IDENTITY = 'HEKTO,SIMULATED METER,0,1.0';
/** Slots by channel: hot–neutral, hot–ground, neutral–ground, hot–hot. */
const CHANNELS = 4;
const MOST_ERRORS = 16;
/** Largest load it draws, amperes. */
const MOST_LOAD = 20;

/** Where the meter is plugged in. */
export interface Outlet {
  run: Run;
  stop: number;
  /** What is wrong with the circuit. */
  faults: readonly Fault[];
  /** The breaker is off. */
  dead: boolean;
}

/** What the meter remembers from message to message. */
export interface MeterState {
  function: 'volts' | 'amps' | 'ohms';
  lowImpedance: boolean;
  /** Amperes it draws between hot and neutral while it reads. */
  load: number;
  eventStatus: number;
  eventEnable: number;
  serviceEnable: number;
  errors: string[];
}
export const RESET: MeterState = {
  function: 'volts',
  lowImpedance: false,
  load: 0,
  eventStatus: 0,
  eventEnable: 0,
  serviceEnable: 0,
  errors: [],
};

const ERRORS = {
  syntax: '-102,"Syntax error"',
  parameterNotAllowed: '-108,"Parameter not allowed"',
  missingParameter: '-109,"Missing parameter"',
  undefinedHeader: '-113,"Undefined header"',
  dataType: '-104,"Data type error"',
  outOfRange: '-222,"Data out of range"',
  conflict: '-221,"Settings conflict"',
  overflow: '-350,"Queue overflow"',
} as const;
/** Bits of the event status register. */
const EVENTS = { complete: 1, execution: 16, command: 32, powerOn: 128 } as const;

class Refused extends Error {
  readonly error: string;
  constructor(error: string) {
    super(error);
    this.error = error;
  }
}

export class SimulatedMeter {
  private readonly outlet: Outlet;
  private state: MeterState;
  private solved: Wiring | null = null;

  constructor(outlet: Outlet, state: MeterState = { ...RESET, eventStatus: EVENTS.powerOn }) {
    this.outlet = outlet;
    this.state = { ...state, errors: [...state.errors] };
  }
  get remembers(): MeterState {
    return this.state;
  }

  /** Takes one program message. @returns what it answers, without the line’s end; null when it answers nothing */
  take(message: string): string | null {
    const units = parseMessage(message);
    if (!units) {
      this.refuse(ERRORS.syntax);
      return null;
    }
    const answers: string[] = [];
    for (const unit of units) {
      try {
        const answer = this.obey(unit);
        if (answer !== null) answers.push(answer);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.refuse(error.error);
      }
    }
    return answers.length === 0 ? null : answers.join(';');
  }

  private refuse(error: string): void {
    const { errors } = this.state;
    if (errors.length >= MOST_ERRORS) errors[MOST_ERRORS - 1] = ERRORS.overflow;
    else errors.push(error);
    this.state.eventStatus |= error.startsWith('-1') ? EVENTS.command : EVENTS.execution;
  }

  private obey({ header, query, parameters }: Unit): string | null {
    const [command] = COMMANDS.filter((c) => matches(header, c.pattern) && c.query === query);
    if (!command) throw new Refused(ERRORS.undefinedHeader);
    if (parameters.length > command.most) throw new Refused(ERRORS.parameterNotAllowed);
    if (parameters.length < command.least) throw new Refused(ERRORS.missingParameter);
    return command.run(this.state, parameters, this) ?? null;
  }

  reset(): void {
    const { errors, eventStatus, eventEnable, serviceEnable } = this.state;
    this.state = { ...RESET, errors, eventStatus, eventEnable, serviceEnable };
    this.solved = null;
  }
  changed(): void {
    this.solved = null;
  }

  private wiring(): Wiring {
    const { run, stop, faults, dead } = this.outlet;
    const amps = new Map(this.state.load > 0 ? [[stop, this.state.load]] : []);
    const wiring = wiringOf(run, { amps, open: new Set(), dead }, actualBoxes(run));
    // What its load or a fault would open has opened before it reads.
    return atRest(withFaults(wiring, faults)).wiring;
  }

  /** Reads channels in what function it is set to. */
  read(kind: MeterState['function'], channels: readonly number[]): string {
    const wiring = (this.solved ??= this.wiring());
    const { stop } = this.outlet;
    const terminals = wiring.terminals[stop]!;
    const { hot, red } = terminals;
    const pairs = [...slotPairs(terminals), red === null ? null : ([hot, red] as const)];
    return channels
      .map((channel) => {
        if (channel < 1 || channel > CHANNELS) throw new Refused(ERRORS.outOfRange);
        const pair = pairs[channel - 1]!;
        if (pair === null) throw new Refused(ERRORS.conflict);
        if (kind === 'amps') return clampConductor(wiring, stop, 'black');
        if (kind === 'volts')
          return readVolts(wiring, pair[0], pair[1], this.state.lowImpedance ? LOW_OHMS : HIGH_OHMS);
        const reading = readOhms(wiring, pair[0], pair[1]);
        if (reading.shows === 'live') throw new Refused(ERRORS.conflict);
        return reading.shows === 'over' ? OVER_RANGE : reading.ohms;
      })
      .map(formatNumber)
      .join(',');
  }
}

interface Command {
  pattern: string;
  query: boolean;
  least: number;
  most: number;
  run(state: MeterState, parameters: string[], meter: SimulatedMeter): string | void;
}

const query = (pattern: string, run: Command['run'], most = 0): Command => ({
  pattern,
  query: true,
  least: 0,
  most,
  run,
});
const order = (pattern: string, count: number, run: Command['run'], most = count): Command => ({
  pattern,
  query: false,
  least: count,
  most,
  run,
});

const channels = ([list]: string[]): number[] => {
  if (list === undefined) return [1];
  const found = channelsOf(list);
  if (!found || found.length === 0) throw new Refused(ERRORS.dataType);
  return found;
};
const byte = ([text]: string[]): number => {
  const value = parseNumber(text!);
  if (value === null) throw new Refused(ERRORS.dataType);
  if (value < 0 || value > 255) throw new Refused(ERRORS.outOfRange);
  return Math.round(value);
};
const statusByte = ({ errors, eventStatus, eventEnable, serviceEnable }: MeterState): number => {
  const byteOf = (errors.length > 0 ? 4 : 0) | (eventStatus & eventEnable ? 32 : 0);
  return byteOf | (byteOf & serviceEnable ? 64 : 0);
};

const FUNCTIONS = [
  ['VOLTage:AC', 'volts'],
  ['CURRent:AC', 'amps'],
  ['RESistance', 'ohms'],
] as const;

const COMMANDS: readonly Command[] = [
  query('*IDN', () => IDENTITY),
  query('*TST', () => '0'),
  query('*OPC', () => '1'),
  query('*ESR', (state) => {
    const value = state.eventStatus;
    state.eventStatus = 0;
    return String(value);
  }),
  query('*ESE', (state) => String(state.eventEnable)),
  query('*SRE', (state) => String(state.serviceEnable)),
  query('*STB', (state) => String(statusByte(state))),
  order('*RST', 0, (_state, _parameters, meter) => meter.reset()),
  order('*CLS', 0, (state) => {
    state.errors = [];
    state.eventStatus = 0;
  }),
  order('*OPC', 0, (state) => {
    state.eventStatus |= EVENTS.complete;
  }),
  order('*WAI', 0, () => {}),
  order('*ESE', 1, (state, parameters) => {
    state.eventEnable = byte(parameters);
  }),
  order('*SRE', 1, (state, parameters) => {
    state.serviceEnable = byte(parameters);
  }),
  query('SYSTem:ERRor[:NEXT]', (state) => state.errors.shift() ?? '0,"No error"'),
  query('SYSTem:VERSion', () => '1999.0'),
  ...FUNCTIONS.flatMap(([pattern, kind]) => [
    query(
      `MEASure[:SCALar]:${pattern}`,
      (state, parameters, meter) => {
        state.function = kind;
        return meter.read(kind, channels(parameters));
      },
      1,
    ),
    order(`CONFigure[:SCALar]:${pattern}`, 0, (state) => {
      state.function = kind;
    }),
  ]),
  query('CONFigure', ({ function: kind }) => {
    const [pattern] = FUNCTIONS.find((f) => f[1] === kind)!;
    return `"${pattern.replace(/[a-z]+/g, '')}"`;
  }),
  query('READ', (state, parameters, meter) => meter.read(state.function, channels(parameters)), 1),
  order('INPut:IMPedance', 1, (state, [text], meter) => {
    const value = parseNumber(text!);
    const word = text!.toUpperCase();
    const low = word === 'LOW' || word === 'MIN' || (value !== null && value === LOW_OHMS);
    const high = word === 'HIGH' || word === 'MAX' || (value !== null && value === HIGH_OHMS);
    if (!low && !high) throw new Refused(value === null ? ERRORS.dataType : ERRORS.outOfRange);
    state.lowImpedance = low;
    meter.changed();
  }),
  query('INPut:IMPedance', ({ lowImpedance }) => formatNumber(lowImpedance ? LOW_OHMS : HIGH_OHMS)),
  order('INPut:LOAD', 1, (state, [text], meter) => {
    const value = text!.toUpperCase() === 'OFF' ? 0 : parseNumber(text!);
    if (value === null) throw new Refused(ERRORS.dataType);
    if (value < 0 || value > MOST_LOAD) throw new Refused(ERRORS.outOfRange);
    state.load = value;
    meter.changed();
  }),
  query('INPut:LOAD', ({ load }) => formatNumber(load)),
];
