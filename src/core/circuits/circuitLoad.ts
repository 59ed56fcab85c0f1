/** What a circuit of the job has to carry, and the sizing that follows from what is on record. */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import { motorAmps } from '#core/tables/motors.ts';
import { FIXTURES } from '#core/tables/fixtures.ts';
import { outOfScope } from '#core/tables/fixtures.ts';
import type { Circuit, Fixture, Job, JobDocument } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import type { Result } from '#core/units/result.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad, type PartLoad } from './demand/demand.ts';
import { fullLoad, outletsOf, type Run, type RunStop } from './run.ts';
import { sizeCircuit, type Conditions, type Sizing, type SizingInput } from './sizing.ts';

/** From this power up a furnace or air handler heats with elements, watts. */
const ELEMENTS = 2000;

/** Whether a furnace or air handler of this power heats electrically. */
export const heatsByElements = ({ kind }: Fixture, watts: number): boolean =>
  (kind === 'furnace' || kind === 'air-handler') && watts >= ELEMENTS;

/** A dryer at 120 V turns its drum over a gas flame. */
export const isGasDryer = ({ kind, nameplate }: Fixture): boolean =>
  kind === 'dryer' && nameplate !== null && nameplate.volts <= 150;

function kindOf(fixture: Fixture): BranchLoadKind {
  const { kind, connection, nameplate } = fixture;
  if (heatsByElements(fixture, nameplate?.watts ?? 0)) return 'space-heat';
  return FIXTURES[kind].branch ?? (connection === 'cord' ? 'cord' : 'appliance');
}

/** The load that a fixture's nameplate makes; null without one. */
export function loadOfFixture(fixture: Fixture): BranchLoad | null {
  const plate = fixture.nameplate;
  if (!plate || outOfScope(fixture)) return null;
  const kind = kindOf(fixture);
  const runsOn = plate.continuous && (kind === 'cord' || kind === 'appliance');
  const amps =
    plate.amps ??
    (plate.watts !== null
      ? plate.watts / plate.volts
      : plate.horsepower === null
        ? null
        : motorAmps(plate.horsepower, plate.volts));
  const takesHorsepower = kind === 'motor' || kind === 'cord' || kind === 'appliance';
  return {
    ...PLAIN_LOAD_VALUES,
    kind: runsOn ? 'general' : kind,
    volts: plate.volts,
    amps: runsOn ? null : plate.amps,
    watts: runsOn ? null : plate.watts,
    continuousAmps: runsOn ? (amps ?? 0) : 0,
    minimumAmpacity: plate.minimumAmpacity,
    maximumBreaker: plate.maximumBreaker,
    horsepower: takesHorsepower && !runsOn ? plate.horsepower : null,
  };
}

/** Fixtures that a circuit's outlets are there for. */
export function fixturesOn(document: JobDocument, run: Run): Fixture[] {
  const ids = run.stops.flatMap(({ box }) =>
    box.status === 'remove' ? [] : [box.serves, box.alsoServes].filter((id) => id !== null),
  );
  return [...new Set(ids)].flatMap((id) => document.fixtures[id] ?? []);
}

export interface CircuitLoad {
  load: BranchLoad;
  /** What it is made of, in words. */
  about: string;
}

/** Ovens and one cooktop of a circuit count as one range of their sum, Table 220.55 note 4. */
function cookingTogether(fixtures: readonly Fixture[]): CircuitLoad | null {
  if (fixtures.length < 2 || !fixtures.every((f) => FIXTURES[f.kind].cooking)) return null;
  const plates = fixtures.map((f) => f.nameplate);
  const watts = plates.reduce((sum, p) => sum + (p ? (p.watts ?? (p.amps ?? 0) * p.volts) : 0), 0);
  if (watts === 0 || plates.includes(null)) return null;
  return {
    load: { ...PLAIN_LOAD_VALUES, kind: 'range', volts: plates.find(Boolean)!.volts, watts },
    about: `${fixtures.map((f) => f.name).join(' and ')}, taken as one range`,
  };
}

/** Fixtures of a circuit whose nameplate is not on record, though they draw from it. */
export const withoutPlate = (document: JobDocument, run: Run): Fixture[] =>
  fixturesOn(document, run).filter((f) => f.connection !== 'none' && loadOfFixture(f) === null);

/** The hots of a circuit that an appliance hangs on. */
function hotsOf({ stop }: RunStop, volts: number): PartLoad['hot'] {
  if (volts > 150) return 'both';
  return stop.hot === 'both' ? 'both' : stop.hot;
}

/** What the circuit is to carry: the one appliance it is for, several together, or all that its breaker gives to outlets. */
export function loadOfCircuit(document: JobDocument, run: Run): CircuitLoad {
  const fixtures = fixturesOn(document, run);
  const outlets = outletsOf(run);
  const cooking = cookingTogether(fixtures);
  if (cooking && outlets.every(({ box }) => box.serves !== null)) return cooking;
  const parts = fixtures.flatMap((fixture): PartLoad[] => {
    const load = loadOfFixture(fixture);
    const stop = outlets.find(({ box }) => box.serves === fixture.id || box.alsoServes === fixture.id);
    return load && stop ? [{ name: fixture.name, load, hot: hotsOf(stop, load.volts) }] : [];
  });
  const served = new Set(fixtures.filter((f) => f.nameplate !== null).map((f) => f.id));
  const inGeneral = outlets.filter(({ box }) => box.serves === null || !served.has(box.serves));
  const [only] = parts;
  if (only && parts.length === 1 && inGeneral.length === 0) return { load: only.load, about: only.name };
  const amps = fullLoad(run.circuit);
  const receptacles = outlets.filter(({ box }) => isReceptacle(box)).length;
  if (only)
    return {
      load: {
        ...PLAIN_LOAD_VALUES,
        kind: 'several',
        volts: Math.max(...parts.map((p) => p.load.volts)),
        amps: inGeneral.length > 0 ? amps : null,
        severalReceptacles: receptacles > 1,
        parts,
      },
      about: `${parts.map((p) => p.name).join(', ')}${inGeneral.length > 0 ? ', beside other outlets' : ''}`,
    };
  const [first] = fixtures;
  return {
    load: {
      ...PLAIN_LOAD_VALUES,
      kind: 'general',
      volts: run.volts,
      amps,
      severalReceptacles: receptacles > 0,
    },
    about:
      first && fixtures.length === 1 && outlets.length === 1
        ? `80 % of the breaker: the ${first.name} has no nameplate on record`
        : '80 % of the breaker, for outlets in general',
  };
}

/** The conditions that conductors work under in a cable of the job. */
export const conditionsOf = (
  { settings }: Job,
  { material, cable, ambient, bundled }: Pick<Circuit, 'material' | 'cable' | 'ambient' | 'bundled'>,
): Conditions => ({
  material,
  method: cable,
  insulation: null,
  terminalRating: settings.terminalRating === 75 ? 75 : 60,
  ambientCelsius: ambient,
  currentCarrying: bundled,
});

/** The conditions and numbers of a circuit as `sizeCircuit` wants them. */
export function sizingInputOf(job: Job, run: Run, load: BranchLoad): SizingInput {
  const { circuit } = run;
  return {
    edition: job.edition,
    load,
    ...conditionsOf(job, circuit),
    feet: (run.end?.distance ?? 0) / 12,
    conductorCelsius: job.settings.conductorTemperature,
    breaker: circuit.breaker.rating,
    gauge: circuit.gauge,
  };
}

export interface CircuitSizing extends CircuitLoad {
  /** With the breaker and conductor that the circuit has. */
  asIs: Result<Sizing>;
  /** With those that the load would be given. */
  free: Result<Sizing>;
}

/** A circuit judged against its load, and what the load would be given. */
export function sizingOf(document: JobDocument, run: Run): CircuitSizing {
  const { load, about } = loadOfCircuit(document, run);
  const input = sizingInputOf(document.job, run, load);
  const general =
    (load.kind === 'general' && load.continuousAmps === 0) || (load.kind === 'several' && load.amps !== null);
  return {
    load,
    about,
    asIs: sizeCircuit(input),
    // What outlets in general may draw follows from the breaker, which therefore stays.
    free: sizeCircuit({ ...input, gauge: null, breaker: general ? input.breaker : null }),
  };
}
