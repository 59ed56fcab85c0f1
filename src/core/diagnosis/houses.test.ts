/** Verdicts at every box of random houses, healthy and faulty: the truth is named, nothing deadly is unnamed. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { DEFAULT_SETTINGS, PLAIN_READING } from '#core/job/document.ts';
import { readAll } from '#core/effects/shown.ts';
import { HIGH_OHMS } from '#core/instruments/meter.ts';
import { withFaults, type Fault, type FaultKind } from '#core/network/faults.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import type { Probe } from '#core/network/predict.ts';
import { randomHouse } from '#core/network/testing.ts';
import { houseWiring, PERSON_OHMS, type Wiring } from '#core/network/wiring.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { settle } from '#core/protection/settle.ts';
import { tries } from '../../../tests/support/sample.ts';
import type { Condition } from './conditions.ts';
import { judge, type Readings, type Setting, type Verdict } from './verdict.ts';

/** What each kind of fault is called where it shows; one of them has to be named. */
const NAMES: Partial<Record<FaultKind, readonly Condition[]>> = {
  open: ['open-hot', 'open-neutral', 'open-ground', 'open-shared-neutral'],
  resistance: ['loose-hot', 'loose-neutral'],
  swap: ['hot-neutral-reversed', 'hot-ground-reversed', 'neutral-ground-reversed'],
  crossed: ['hot-neutral-reversed', 'hot-ground-reversed', 'neutral-ground-reversed'],
  'false-ground': ['false-ground'],
  'other-hot': ['two-hots', 'two-legs'],
  'other-neutral': ['borrowed-neutral'],
  // Behind a device of the other circuit, which opens, it is an open one.
  'borrowed-neutral': ['borrowed-neutral', 'open-neutral'],
  'hidden-junction': ['open-hot', 'open-neutral', 'loose-hot', 'loose-neutral', 'open-shared-neutral'],
  'cable-leak': ['leak'],
  tied: ['tied-circuits'],
  'service-neutral': ['open-service-neutral'],
  'service-leg': ['lost-leg', 'open-hot'],
  'feeder-neutral': ['open-feeder-neutral'],
  'lifted-neutral': ['open-neutral', 'open-shared-neutral'],
  'wrong-bar': ['wrong-bar'],
  'no-bond': ['no-main-bond'],
  'second-bond': ['second-bond'],
  short: ['energized-ground', 'no-main-bond', 'neutral-ground-joined', 'open-hot'],
};
const KINDS = Object.keys(NAMES) as FaultKind[];

function faultAt(kind: FaultKind, wiring: Wiring, random: () => number): Fault[] {
  const own = wiring.circuits[0]!;
  const stop = Math.floor(random() * own.stops);
  const other = wiring.circuits[1]!.first + Math.floor(random() * wiring.circuits[1]!.stops);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const hot = wiring.terminals[stop]!.hotIs;
  switch (kind) {
    case 'open':
      return [{ kind, stop, conductor: pick([hot, 'neutral', 'ground']), part: pick(['start', 'end']) }];
    case 'resistance':
      return [{ kind, stop, conductor: pick([hot, 'neutral']), part: 'end', ohms: 1 + 4 * random() }];
    case 'swap':
      return [
        {
          kind,
          stop,
          conductors: pick([
            [hot, 'neutral'],
            [hot, 'ground'],
            ['neutral', 'ground'],
          ] as const),
        },
      ];
    case 'crossed':
      return [{ kind, stop, conductors: ['neutral', 'ground'] }];
    case 'false-ground':
    case 'other-neutral':
      return [{ kind, stop }];
    case 'other-hot':
      return [{ kind, stop, leg: pick(['same', 'other']) }];
    case 'borrowed-neutral':
      return [{ kind, stop, other }];
    case 'hidden-junction':
      return [{ kind, stop, conductor: pick([hot, 'neutral']), ohms: random() < 0.5 ? null : 2 }];
    case 'cable-leak':
      return [{ kind, stop, conductors: [hot, 'ground'], ohms: 500 + 50000 * random() }];
    case 'tied':
      return [{ kind, stop, conductor: hot, other, otherConductor: 'black', ohms: 0.05 }];
    case 'service-neutral':
      return [{ kind, ohms: random() < 0.6 ? null : 0.5 + random() }];
    case 'service-leg':
      return [{ kind, leg: pick(['own', 'other']) }];
    case 'feeder-neutral':
      return [{ kind, panel: 'Shed', ohms: null }];
    case 'wrong-bar':
      return [{ kind, conductor: 'neutral' }];
    case 'second-bond':
      return [{ kind, panel: 'Shed' }];
    case 'short':
      return [{ kind: 'no-bond' }, { kind, stop: other, conductors: ['black', 'ground'], ohms: 0.01 }];
    default:
      return [{ kind } as Fault];
  }
}

interface Read {
  readings: Readings;
  body: number;
}
/** What a meter of 10 MΩ and a body of 1 kΩ find at each box of the first circuit, as loaded there. */
function readAt(wiring: Wiring, amps: ReadonlyMap<number, number>): Read[] {
  const stops = wiring.terminals.slice(0, wiring.circuits[0]!.stops);
  const probes = stops.flatMap(({ hot, neutral, ground }): Probe[] => [
    { a: hot, b: neutral, ohms: HIGH_OHMS },
    { a: hot, b: ground, ohms: HIGH_OHMS },
    { a: neutral, b: ground, ohms: HIGH_OHMS },
    { a: ground, b: EARTH, ohms: PERSON_OHMS },
  ]);
  const volts = readAll(wiring, probes);
  const shown = (at: number) => Math.round(10 * volts[at]!) / 10;
  return stops.map((_, k) => ({
    readings: {
      ...PLAIN_READING,
      hotNeutral: shown(4 * k),
      hotGround: shown(4 * k + 1),
      neutralGround: shown(4 * k + 2),
      loadAmps: amps.get(k) ?? 0,
    },
    body: volts[4 * k + 3]! / PERSON_OHMS,
  }));
}
const LEFT_ON = { seconds: 60, edge: 'slow' } as const;
/** Volts that a lamp lights from. */
const LIGHTS = DEFAULT_SETTINGS.tester.lights;
const PAIRS = ['hotNeutral', 'hotGround', 'neutralGround'] as const;

const MOST_AMPS = 12;

/** A healthy house whose first circuit hangs at the service or the subpanel, whatever is on in it; the seed or one near it. */
function houseFor(seed: number) {
  for (let tried = seed; ; tried += 10000) {
    const { house, studies } = randomHouse(3 + (tried % 4), tried);
    const inShed = tried % 2 === 0;
    // A feeder of four wires, as it has to be where the panel is not bonded.
    const sound = {
      ...house,
      panels: house.panels.map((p) => (p.feeder ? { ...p, feeder: { ...p.feeder, ground: 0.1 } } : p)),
    };
    const placed = studies.map((study, k) => {
      const total = [...study.use.amps.values()].reduce((sum, a) => sum + a, 0);
      const share = Math.min(1, MOST_AMPS / total);
      const amps = new Map([...study.use.amps].map(([stop, a]) => [stop, a * share]));
      return {
        ...study,
        use: { ...study.use, amps },
        panel: k > 0 ? study.panel : inShed ? 'Shed' : 'Service',
      };
    });
    const wiring = houseWiring(sound, placed, MAINS_HERTZ);
    // A GFCI receptacle before a shared neutral opens: such a plan is no healthy house.
    if (settle(wiring, LEFT_ON).openings.length > 0) continue;
    return { random: randomFrom(tried), wiring, run: placed[0]!.run, amps: placed[0]!.use.amps, inShed };
  }
}
const settingAt = (run: Setting['run'], stop: number, inShed: boolean): Setting => ({
  run,
  stop,
  grounding: 'grounded',
  settings: DEFAULT_SETTINGS,
  behindFeeder: inShed,
});
const asLeft = (wiring: Wiring): Wiring => settle(wiring, LEFT_ON).wiring;

/** Whether a fault of the circuit lies on the way to a box, so that it may show there. */
function isOnTheWay(faults: readonly Fault[], run: Setting['run'], stop: number): boolean {
  const [fault] = faults;
  if (!fault || !('stop' in fault) || fault.stop >= run.stops.length) return true;
  if (AT_DEVICE.includes(fault.kind)) return fault.stop === stop;
  for (let at = stop; at >= 0; at = run.stops[at]!.feeder) if (at === fault.stop) return true;
  return false;
}
/** Faults that show at the device where they are, and beyond only where it feeds through. */
const AT_DEVICE: readonly FaultKind[] = ['swap', 'false-ground', 'other-hot', 'borrowed-neutral'];
const names = (v: Verdict) => [...v.fits.map((f) => f.condition), ...v.silent];

test('healthy houses are never bad, whatever is on in them', () => {
  for (let seed = 1; seed <= tries(20, 60); seed++) {
    const { wiring, run, amps, inShed } = houseFor(seed);
    const left = asLeft(wiring);
    for (const [stop, { readings }] of readAt(left, amps).entries()) {
      const verdict = judge(readings, settingAt(run, stop, inShed));
      const said = JSON.stringify({ seed, stop, readings, headline: verdict.headline });
      assert.notEqual(verdict.grade, 'bad', said);
      assert.ok(names(verdict).includes('correct') || verdict.grade === 'no-power', said);
    }
  }
});

test('at every box of 120 faulty houses the truth is among what is named, and nothing deadly is unnamed', () => {
  const missed: string[] = [];
  let deadly = 0;
  let shown = 0;
  for (let seed = 1; seed <= tries(2 * KINDS.length, 120); seed++) {
    const { random, wiring, run, amps, inShed } = houseFor(1000 + seed);
    const kind = KINDS[seed % KINDS.length]!;
    let faults: Fault[];
    let faulty: Wiring;
    try {
      faults = faultAt(kind, wiring, random);
      faulty = asLeft(withFaults(wiring, faults));
    } catch {
      continue;
    }
    const healthy = readAt(wiring, amps);
    for (const [stop, is] of readAt(faulty, amps).entries()) {
      const was = healthy[stop]!;
      const verdict = judge(is.readings, settingAt(run, stop, inShed));
      const said = JSON.stringify({
        seed,
        stop,
        faults,
        readings: is.readings,
        headline: verdict.headline,
        fits: verdict.fits.map((f) => f.condition),
        silent: verdict.silent,
      });
      const apart = PAIRS.some((p) => Math.abs(is.readings[p]! - was.readings[p]!) > 1.5);
      const dark = PAIRS.every((p) => is.readings[p]! < 5);
      const truth: readonly Condition[] = isOnTheWay(faults, run, stop)
        ? NAMES[kind]!
        : [...NAMES[kind]!, 'correct'];
      const named = names(verdict);
      if (apart) shown++;
      if (apart && !dark && !truth.some((c) => named.includes(c))) missed.push(`unnamed ${said}`);
      if (dark && verdict.grade !== 'no-power' && verdict.grade !== 'bad') missed.push(`dark ${said}`);
      if (
        !apart &&
        !['correct' as const, ...truth].some((c) => named.includes(c)) &&
        verdict.grade !== 'no-power'
      )
        missed.push(`not correct ${said}`);
      if (is.body >= 0.005) {
        deadly++;
        const warned =
          verdict.grade === 'bad' ||
          verdict.silentDanger.length > 0 ||
          truth.some((c) => named.includes(c)) ||
          verdict.remarks.some((r) => r.level === 'danger');
        if (!warned) missed.push(`deadly ${said}`);
        const dangerous = (v: Verdict) => v.remarks.some((r) => r.level === 'danger');
        if (!named.includes('correct') && !dangerous(verdict)) missed.push(`no danger said ${said}`);
        const { hotNeutral, hotGround, neutralGround } = is.readings;
        const lamps = [hotNeutral!, hotGround!, neutralGround!].map((v) => v >= LIGHTS);
        const alone = judge({ ...PLAIN_READING, lamps }, settingAt(run, stop, inShed));
        if (lamps[2] && !dangerous(alone)) missed.push(`lamps alone: no danger said ${lamps} ${said}`);
      }
    }
  }
  assert.ok(shown > tries(50, 150) && deadly > tries(16, 50), `${shown} shown, ${deadly} deadly`);
  assert.deepEqual(missed, []);
});
