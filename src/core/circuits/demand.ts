/**
 * What a load asks of its branch circuit: the amperes that count for conductor and breaker, the smallest and the
 * largest breaker, and which allowances of 240.4 it has. One function for each kind of load.
 */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import { at, since, type PerEdition } from '#core/tables/editions.ts';
import { rangeDemand } from '#core/tables/cooking.ts';
import { motorAmps } from '#core/tables/motors.ts';
import { standardAtMost, standardBreaker } from '#core/tables/conductors.ts';
import type { Edition } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { fail, ok, type Result } from '#core/units/result.ts';

export interface BranchLoad {
  kind: BranchLoadKind;
  volts: number;
  /** Runs less than three hours at a time. */
  amps: number | null;
  watts: number | null;
  /** General load that runs three hours or more, beside `amps`. */
  continuousAmps: number;
  /** Minimum circuit ampacity as marked. */
  minimumAmpacity: number | null;
  /** Largest overcurrent device as marked. */
  maximumBreaker: number | null;
  horsepower: number | null;
  /** The circuit feeds more than one receptacle for cord-and-plug loads. */
  severalReceptacles: boolean;
  /** Of several loads on one circuit; `amps` is then what outlets in general are sized for, or null without any. */
  parts: readonly PartLoad[];
}

/** One of several loads on a circuit. */
export interface PartLoad {
  name: string;
  load: BranchLoad;
  /** Hots that it hangs on. */
  hot: 'black' | 'red' | 'both';
}

export interface Step {
  what: string;
  /** The formula with its numbers in. */
  working: string;
  section: string;
}

/** What the circuit of a load must do. Currents in amperes. */
export interface Demand {
  /** Current the load draws: what the corrected ampacity must carry, and what the drop is worked out with. */
  amps: number;
  /** Ampacity before correction and breaker must reach this. */
  counted: number;
  /** Ampacity after correction must reach this. */
  corrected: number;
  leastBreaker: number;
  /** Null where only the conductor limits it. */
  mostBreaker: number | null;
  /** The next standard size above the conductor is open to it, 240.4(B). */
  nextSizeUp: boolean;
  /** 240.4(G): neither the small-conductor caps nor the conductor limit its breaker. */
  ownProtection: boolean;
  /** The breaker usual for it where several will do. */
  usualBreaker: number | null;
  steps: Step[];
}

const volts = (load: BranchLoad) => `${load.volts} V`;
export const shown = (amps: number) => `${round(amps, 2)} A`;

/** Current from the nameplate: amperes as marked, or watts over volts. */
function plateAmps(load: BranchLoad): Result<{ amps: number; working: string }> {
  if (load.amps !== null && load.amps > 0)
    return ok({ amps: load.amps, working: `${shown(load.amps)} marked` });
  if (load.watts !== null && load.watts > 0) {
    const amps = load.watts / load.volts;
    return ok({ amps, working: `${load.watts.toLocaleString('en-US')} W ÷ ${volts(load)} = ${shown(amps)}` });
  }
  return fail('amps or watts: expected the current or power on the nameplate');
}

type Parts = Partial<Omit<Demand, 'amps' | 'counted'>> & { amps: number; counted: number };

/** The demand with what is not out of the ordinary filled in, or why no breaker will do. */
export function demand(parts: Parts): Result<Demand> {
  const least = standardBreaker(Math.max(parts.leastBreaker ?? 0, parts.counted, 1));
  if (least === null)
    return fail(`${round(parts.counted, 1)} A is above 200 A, the largest breaker worked with here`);
  const most = parts.mostBreaker ?? null;
  if (most !== null && most < least)
    return fail(`needs a ${least} A breaker, and at most ${most} A is allowed: the two do not meet`);
  return ok({
    corrected: parts.amps,
    nextSizeUp: true,
    ownProtection: false,
    usualBreaker: null,
    steps: [],
    ...parts,
    leastBreaker: least,
    mostBreaker: most,
  });
}

const continuousStep = (amps: number, section: string): Step => ({
  what: 'Counted at 125 %',
  working: `1.25 × ${shown(amps)} = ${shown(1.25 * amps)}`,
  section,
});

/**
 * Largest breaker of a single appliance without a motor, 422.11(E): as marked; else 150 % and the next standard size
 * above 13.3 A, 20 A otherwise.
 */
function applianceMost(load: BranchLoad, amps: number): { most: number; step: Step } {
  const section = '422.11(E)';
  if (load.maximumBreaker !== null)
    return {
      most: load.maximumBreaker,
      step: { what: 'Largest breaker', working: `${shown(load.maximumBreaker)} marked`, section },
    };
  if (amps <= 13.3)
    return {
      most: 20,
      step: { what: 'Largest breaker', working: `${shown(amps)} is 13.3 A or less: 20 A`, section },
    };
  const most = standardBreaker(1.5 * amps) ?? 200;
  return {
    most,
    step: {
      what: 'Largest breaker',
      working: `1.5 × ${shown(amps)} = ${shown(1.5 * amps)}, next standard size ${most} A`,
      section,
    },
  };
}

function general(load: BranchLoad): Result<Demand> {
  const rest = load.amps ?? 0;
  const amps = rest + load.continuousAmps;
  if (amps <= 0) return fail('amps: expected a load above 0 A');
  const counted = 1.25 * load.continuousAmps + rest;
  return demand({
    amps,
    counted,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Load for conductor and breaker',
        working: `1.25 × ${load.continuousAmps} A + ${rest} A = ${round(counted, 2)} A`,
        section: '210.19(A)(1), 210.20(A)',
      },
    ],
  });
}

const CORD_SHARE: PerEdition<string> = {
  '2017': '210.21(B)(2), 210.23(A)(1)',
  '2020': '210.21(B)(2), 210.23(A)(1)',
  '2023': '210.21(B)(2), 210.23(B)(1)',
};

/** One thing with a cord: 80 % of a circuit with other outlets, 210.23(A)(1); all of one of its own. */
function cord(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps } = plate.value;
  const counted = load.severalReceptacles ? amps / 0.8 : amps;
  return demand({
    amps,
    counted,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Cord-and-plug load',
        working: load.severalReceptacles
          ? `${plate.value.working}; at most 80 % of the circuit: ${shown(amps)} ÷ 0.8 = ${shown(counted)}`
          : plate.value.working,
        section: load.severalReceptacles ? at(CORD_SHARE, edition) : '210.23',
      },
    ],
  });
}

/** A fixed appliance that is not on for three hours. */
function appliance(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  return demand({
    amps,
    counted: amps,
    mostBreaker: most,
    steps: [{ what: 'Nameplate', working, section: '422.10(A)' }, step],
  });
}

/** Storage water heaters of 120 gal or less, and kilns: on for three hours or more. */
function continuous(load: BranchLoad, section: string, usual: number | null): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const { most, step } = applianceMost(load, amps);
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: most,
    usualBreaker: usual,
    steps: [{ what: 'Nameplate', working, section: '422.10(A)' }, continuousStep(amps, section), step],
  });
}

const SPACE_HEAT: PerEdition<string> = { '2017': '424.3(B)', '2020': '424.4(B)', '2023': '424.4(B)' };
/** Largest load and breaker of one part of electric heating, 424.22(B), amperes. */
const HEAT_PART = { load: 48, breaker: 60 };

/** Fixed electric space heating: 125 %, and divided so that no breaker is above 60 A. */
function spaceHeat(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const section = at(SPACE_HEAT, edition);
  if (amps > HEAT_PART.load)
    return fail(
      `${shown(amps)} of heating elements: divide them into circuits of ${HEAT_PART.load} A or less, 424.22(B)`,
    );
  const most = load.maximumBreaker ?? HEAT_PART.breaker;
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: most,
    steps: [
      { what: 'Nameplate', working, section },
      continuousStep(amps, section),
      { what: 'Largest breaker', working: `${most} A for one part of the heating`, section: '424.22(B)' },
    ],
  });
}

const COOKING_LEAST: PerEdition<string> = {
  '2017': '210.19(A)(3)',
  '2020': '210.19(A)(3)',
  '2023': '210.19(C)',
};

/** A range by its demand, 40 A at least from 8.75 kW up. */
function range(load: BranchLoad, edition: Edition): Result<Demand> {
  const watts = load.watts ?? (load.amps ?? 0) * load.volts;
  if (watts <= 0) return fail('amps or watts: expected the current or power on the nameplate');
  const cooking = rangeDemand([{ va: watts }]);
  if (!cooking.ok) return cooking;
  const amps = cooking.value.va / load.volts;
  const large = watts >= 8750;
  return demand({
    amps,
    counted: amps,
    leastBreaker: large ? 40 : 0,
    mostBreaker: load.maximumBreaker,
    nextSizeUp: false,
    steps: [
      {
        what: 'Demand of one range',
        working: `${round(watts / 1000, 2)} kW: ${cooking.value.working} = ${round(cooking.value.va, 0)} W; ÷ ${volts(load)} = ${shown(amps)}`,
        section: 'Table 220.55',
      },
      ...(large
        ? [{ what: 'Least circuit', working: '8.75 kW or more: 40 A', section: at(COOKING_LEAST, edition) }]
        : []),
    ],
  });
}

/** One wall oven or one counter-mounted cooking unit: its nameplate. */
function ovenOrCooktop(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  return demand({
    amps,
    counted: amps,
    mostBreaker: load.maximumBreaker,
    nextSizeUp: false,
    steps: [{ what: 'Nameplate of one cooking unit', working, section: 'Table 220.55 note 4' }],
  });
}

const LEAST_DRYER = 5000;

function dryer(load: BranchLoad): Result<Demand> {
  const watts = Math.max(LEAST_DRYER, load.watts ?? (load.amps ?? 0) * load.volts);
  const amps = watts / load.volts;
  return demand({
    amps,
    counted: amps,
    mostBreaker: load.maximumBreaker,
    // Dryer receptacles are made for 30 A.
    usualBreaker: 30,
    steps: [
      {
        what: 'Dryer',
        working: `larger of 5,000 VA and the nameplate: ${watts.toLocaleString('en-US')} VA ÷ ${volts(load)} = ${shown(amps)}`,
        section: '220.54',
      },
    ],
  });
}

/** Air conditioning and heat pumps: by their marked limits, or 125 % and 175 % of the marked current. */
function cooling(load: BranchLoad): Result<Demand> {
  const { minimumAmpacity, maximumBreaker } = load;
  if (minimumAmpacity !== null && maximumBreaker !== null) {
    const most = standardAtMost(maximumBreaker);
    return demand({
      amps: load.amps ?? minimumAmpacity,
      counted: minimumAmpacity,
      corrected: minimumAmpacity,
      mostBreaker: most,
      usualBreaker: most,
      ownProtection: true,
      steps: [
        {
          what: 'Marked limits',
          working: `conductor at least ${shown(minimumAmpacity)}, breaker at most ${shown(maximumBreaker)}`,
          section: '440.4(B), 440.22, 440.32',
        },
      ],
    });
  }
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const most = Math.max(15, standardAtMost(1.75 * amps) ?? 15);
  return demand({
    amps,
    counted: 1.25 * amps,
    corrected: 1.25 * amps,
    leastBreaker: 15,
    mostBreaker: Math.max(most, standardBreaker(1.25 * amps) ?? most),
    usualBreaker: most,
    ownProtection: true,
    steps: [
      { what: 'Nameplate', working, section: '440.6' },
      continuousStep(amps, '440.32'),
      {
        what: 'Largest breaker',
        working: `1.75 × ${shown(amps)} = ${shown(1.75 * amps)}: ${most} A; to 225 % only where it will not start`,
        section: '440.22(A)',
      },
    ],
  });
}

/** A cord-connected room cooler: 80 % of a circuit of its own, half of one with other outlets. */
function roomCooler(load: BranchLoad): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  const share = load.severalReceptacles ? 0.5 : 0.8;
  return demand({
    amps,
    counted: amps / share,
    nextSizeUp: !load.severalReceptacles,
    steps: [
      {
        what: 'Room air conditioner',
        working: `${working}; at most ${100 * share} % of the circuit: ${shown(amps / share)}`,
        section: load.severalReceptacles ? '440.62(C)' : '440.62(B)',
      },
    ],
  });
}

function vehicle(load: BranchLoad, edition: Edition): Result<Demand> {
  const plate = plateAmps(load);
  if (!plate.ok) return plate;
  const { amps, working } = plate.value;
  return demand({
    amps,
    counted: 1.25 * amps,
    mostBreaker: load.maximumBreaker,
    steps: [
      { what: 'Charging current', working, section: !since(edition, '2020') ? '625.41' : '625.42' },
      continuousStep(amps, !since(edition, '2020') ? '625.41' : '625.41, 625.42'),
    ],
  });
}

/** A motor: 125 % for its conductor; its breaker may be up to 250 % so that it starts. */
function motor(load: BranchLoad): Result<Demand> {
  let amps: number;
  let step: Step;
  if (load.horsepower !== null && load.horsepower > 0) {
    const listed = motorAmps(load.horsepower, load.volts);
    if (listed === null) return fail(`horsepower: ${load.horsepower} is not in Table 430.248, from ⅙ to 10`);
    amps = listed;
    step = {
      what: 'Full-load current',
      working: `${round(load.horsepower, 2)} hp at ${volts(load)}: ${shown(amps)}`,
      section: '430.6(A), Table 430.248',
    };
  } else {
    const plate = plateAmps(load);
    if (!plate.ok) return plate;
    amps = plate.value.amps;
    step = { what: 'Nameplate', working: plate.value.working, section: '430.6(A)' };
  }
  const most = standardBreaker(2.5 * amps) ?? 200;
  return demand({
    amps,
    counted: 1.25 * amps,
    corrected: 1.25 * amps,
    mostBreaker: most,
    ownProtection: true,
    steps: [
      step,
      continuousStep(amps, '430.22'),
      {
        what: 'Largest breaker',
        working: `2.5 × ${shown(amps)} = ${shown(2.5 * amps)}, next standard size ${most} A`,
        section: '430.52',
      },
    ],
  });
}

/** A load about which nothing more is known. */
export const PLAIN_LOAD_VALUES: Omit<BranchLoad, 'kind' | 'volts'> = {
  amps: null,
  watts: null,
  continuousAmps: 0,
  minimumAmpacity: null,
  maximumBreaker: null,
  horsepower: null,
  severalReceptacles: false,
  parts: [],
};

/** What a load of one kind asks of its circuit by its current, or which number is missing or which limits do not meet. */
export function demandByKind(load: BranchLoad, edition: Edition): Result<Demand> {
  switch (load.kind) {
    case 'general':
    case 'several':
      return general(load);
    case 'cord':
      return cord(load, edition);
    case 'appliance':
      return appliance(load);
    case 'water-heater':
      // Trade habit for 4,500 W: 30 A on 10 AWG.
      return continuous(load, '422.13', 30);
    case 'kiln':
      return continuous(load, '210.19(A)(1), 210.20(A)', null);
    case 'space-heat':
      return spaceHeat(load, edition);
    case 'range':
      return range(load, edition);
    case 'oven-or-cooktop':
      return ovenOrCooktop(load);
    case 'dryer':
      return dryer(load);
    case 'cooling':
      return cooling(load);
    case 'room-cooler':
      return roomCooler(load);
    case 'vehicle':
      return vehicle(load, edition);
    case 'motor':
      return motor(load);
  }
}
