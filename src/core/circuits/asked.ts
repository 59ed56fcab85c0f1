/**
 * What the loads of a circuit ask of it: each by its kind, bound by what is marked on it, and all of them together.
 */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import { at, type PerEdition } from '#core/tables/editions.ts';
import { standardAtMost } from '#core/tables/conductors.ts';
import type { Edition } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import {
  betweenMarks,
  demand,
  shown,
  type BranchLoad,
  type Demand,
  type PartLoad,
  type Step,
} from './demand/demand.ts';
import { demandByKind } from './demand/byKind.ts';

/** What a circuit is asked for, or which number is missing or which limits do not meet. */
export const demandOf = (load: BranchLoad, edition: Edition): Result<Demand> =>
  load.kind === 'several' ? together(load, edition) : one(load, edition);

/** Kinds whose breaker their own markings set, 240.4(G). */
const MARKED_BREAKER: readonly BranchLoadKind[] = ['cooling', 'motor'];

/** Kinds that say how much of them is continuous, beside outlets in general. */
const SAY_CONTINUOUS: readonly BranchLoadKind[] = ['general', 'cord', 'appliance'];
/** Kinds of which the horsepower is enough. */
const SAY_HORSEPOWER: readonly BranchLoadKind[] = ['motor', 'cord', 'appliance'];
/** Kinds that may stand beside receptacles on a circuit. */
const SAY_SEVERAL: readonly BranchLoadKind[] = ['general', 'cord', 'appliance', 'room-cooler'];

/** A load as its kind takes it: what a kind has no use for is refused by its field, never passed over. */
function settled(load: BranchLoad): Result<BranchLoad> {
  const { kind, continuousAmps, horsepower, blowerAmps, severalReceptacles } = load;
  const plain = load.amps === null && load.watts === null;
  if (continuousAmps > 0 && !SAY_CONTINUOUS.includes(kind))
    return fail(`continuousAmps: expected 0 for ${kind}, which counts its own share; give amps or watts`);
  if (horsepower !== null && !SAY_HORSEPOWER.includes(kind))
    return fail(`horsepower: expected none for ${kind}; give amps or watts`);
  if (blowerAmps !== null && kind !== 'space-heat')
    return fail(`blowerAmps: expected none for ${kind}; it stands beside electric space heat`);
  if (severalReceptacles && !SAY_SEVERAL.includes(kind))
    return fail(`severalReceptacles: expected no for ${kind}, which has a circuit for itself`);
  if (kind === 'general' || kind === 'motor') return ok(load);
  if (continuousAmps > 0)
    return plain
      ? ok({ ...load, kind: 'general' })
      : fail(
          'continuousAmps: expected it, or amps or watts, not both; what runs three hours counts at 125 %',
        );
  // A motor-driven appliance of which only the horsepower is known is a motor.
  return horsepower !== null && plain ? ok({ ...load, kind: 'motor' }) : ok(load);
}

/** A load by its kind, with the marks of its nameplate: they bind whatever is marked with them, 110.3(B). */
function one(given: BranchLoad, edition: Edition): Result<Demand> {
  const known = settled(given);
  if (!known.ok) return known;
  const load = known.value;
  const { minimumAmpacity: least, maximumBreaker: most } = load;
  if (least === null && most === null) return demandByKind(load, edition);
  const current = load.amps ?? load.watts ?? load.horsepower;
  if (current === null && least !== null && load.kind !== 'general') return byMarks(load, least);
  // Cooling with both marks needs nothing else; its kind knows.
  if (load.kind === 'cooling' && least !== null && most !== null) return demandByKind(load, edition);
  const kind = demandByKind({ ...load, minimumAmpacity: null, maximumBreaker: null }, edition);
  if (!kind.ok) return kind;
  const asked = kind.value;
  const steps: Step[] = [...asked.steps];
  if (least !== null)
    steps.push({
      what: 'Marked minimum ampacity',
      working: `conductor at least ${shown(least)}${least < asked.counted ? `; ${shown(asked.counted)} is more` : ''}`,
      section: '110.3(B)',
    });
  const limit = most === null ? null : standardAtMost(most);
  if (most !== null && limit === null)
    return fail(`${shown(most)} is marked as the largest breaker, and none is that small`);
  if (limit !== null)
    steps.push({
      what: 'Marked largest breaker',
      working: `${shown(most!)} marked: at most ${limit} A`,
      section: MARKED_BREAKER.includes(load.kind) ? '110.3(B), 440.22' : '110.3(B), 422.11(A)',
    });
  const { mostBreaker, usualBreaker } = asked;
  return demand({
    ...asked,
    counted: Math.max(asked.counted, least ?? 0),
    corrected: Math.max(asked.corrected, least ?? 0),
    // The mark goes before the share of the current that a kind without one may have.
    mostBreaker: limit ?? mostBreaker,
    usualBreaker: usualBreaker !== null && limit !== null ? Math.min(usualBreaker, limit) : usualBreaker,
    steps,
  });
}

/** Something of which only its marks are known: they hold what its current would ask for. */
function byMarks(load: BranchLoad, least: number): Result<Demand> {
  const own = MARKED_BREAKER.includes(load.kind);
  if (own && load.maximumBreaker === null)
    return fail('amps, or the largest breaker marked: expected one of them beside the minimum ampacity');
  const most = load.maximumBreaker === null ? null : standardAtMost(load.maximumBreaker);
  return demand({
    leastIs: own ? betweenMarks(least, load.maximumBreaker) : undefined,
    amps: least,
    counted: least,
    corrected: least,
    mostBreaker: most,
    usualBreaker: own ? most : null,
    ownProtection: own,
    steps: [
      {
        what: 'Marked limits',
        working: `conductor at least ${shown(least)}${most === null ? '' : `, breaker at most ${shown(load.maximumBreaker!)}`}`,
        section: own ? '440.4(B), 440.22, 440.32' : '110.3(B)',
      },
    ],
  });
}

/** Largest breaker where a circuit feeds two or more outlets for electric space heating, amperes. */
const HEATERS_MOST = 30;
const HEATERS_SECTION: PerEdition<string> = {
  '2017': '424.3(A)',
  '2020': '424.4(A)',
  '2023': '424.4(A)',
};
/** Kinds with a motor, of which the largest counts a quarter more, 430.24. */
const WITH_MOTOR: readonly BranchLoadKind[] = ['motor', 'cooling', 'room-cooler'];

interface Counted {
  part: PartLoad;
  demand: Demand;
  /** Toward conductor and breaker beside others, without the quarter of the largest motor, amperes. */
  counted: number;
  /** Quarter that the largest motor adds, amperes. */
  quarter: number;
}

function countedOf(part: PartLoad, asked: Demand): Counted {
  const { load } = part;
  const marked = load.minimumAmpacity !== null && load.amps === null && load.watts === null;
  if (WITH_MOTOR.includes(load.kind) && !marked)
    return { part, demand: asked, counted: asked.amps, quarter: asked.amps / 4 };
  // What a share of the circuit asks for is judged apart: here only its current counts.
  const counted = load.kind === 'cord' ? asked.amps : asked.counted;
  return { part, demand: asked, counted, quarter: 0 };
}

/** Several loads on one circuit: their sum on the fuller hot, each at its own volts. */
function together(load: BranchLoad, edition: Edition): Result<Demand> {
  const counted: Counted[] = [];
  for (const part of load.parts) {
    const asked = demandOf(part.load, edition);
    if (!asked.ok) return fail(`${part.name}: ${asked.message}`);
    counted.push(countedOf(part, asked.value));
  }
  const sumOn = (hot: 'black' | 'red') => {
    const on = counted.filter((c) => c.part.hot === hot || c.part.hot === 'both');
    const sum = (of: (c: Counted) => number) => on.reduce((total, c) => total + of(c), 0);
    return {
      amps: sum((c) => c.demand.amps),
      counted: sum((c) => c.counted) + Math.max(0, ...on.map((c) => c.quarter)),
    };
  };
  const [black, red] = [sumOn('black'), sumOn('red')];
  const fuller = black.counted >= red.counted ? black : red;
  const inGeneral = load.amps ?? 0;
  const marks = load.parts.flatMap(({ load: l }) =>
    l.maximumBreaker === null ? [] : (standardAtMost(l.maximumBreaker) ?? []),
  );
  const heaters = load.parts.filter((p) => p.load.kind === 'space-heat').length;
  const limits = [...marks, ...(heaters > 1 ? [HEATERS_MOST] : [])];
  const only = counted.length === 1 && load.amps === null ? counted[0]!.demand.mostBreaker : null;
  const most = limits.length > 0 ? Math.min(...limits) : only;
  const words = counted.map(({ part, counted: c }) => `${part.name} ${round(c, 2)} A`).join(' + ');
  return demand({
    amps: Math.max(fuller.amps, inGeneral),
    counted: Math.max(fuller.counted, inGeneral),
    leastBreaker: Math.max(
      0,
      ...counted.filter((c) => c.part.load.kind === 'range').map((c) => c.demand.leastBreaker),
    ),
    mostBreaker: most,
    nextSizeUp: !load.severalReceptacles && counted.every((c) => c.demand.nextSizeUp),
    steps: [
      {
        what: 'Loads together',
        working: `${words}${counted.some((c) => c.part.hot !== 'both') && red.counted > 0 ? ', on the fuller hot' : ''} = ${round(fuller.counted, 2)} A; what is continuous at 125 %${counted.some((c) => c.quarter > 0) ? ', a quarter more for the largest motor' : ''}`,
        section: '210.19(A)(1), 210.20(A), 220.18',
      },
      ...(heaters > 1
        ? [
            {
              what: 'Largest breaker',
              working: `${heaters} outlets for electric heating: at most ${HEATERS_MOST} A`,
              section: at(HEATERS_SECTION, edition),
            },
          ]
        : []),
    ],
  });
}
