/** What was seen and measured on a circuit, as JSON by the names of its boxes. Fields are documented in docs/cli.md. */
import * as yup from 'yup';
import {
  DEAD_PAIRS,
  DOES_BREAKER,
  DOES_DEVICE,
  ELSEWHERE,
  PAIRS,
  SIGNS_SEEN,
  WORKS,
  type Evidence,
  type Finding,
  type FindingKind,
} from '#core/diagnosis/hunt/evidence.ts';
import { KINDS, type CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import { causeOfKey } from '#core/diagnosis/hunt/words.ts';
import { InvalidError, problemsOf } from '#core/job/validate.ts';

const MOST = 200;
/** What a finding is at that no box has. */
const PANEL = 'panel';

const name = () => yup.string().strict().required().max(80);
const one = <T extends string>(of: readonly T[]) => yup.string().strict().required().oneOf(of);
const volts = () => yup.number().strict().min(0).max(600);
const amps = () => yup.number().strict().min(0).max(400);
const flag = () => yup.boolean().strict();
const at = { at: name() };
const KINDS_FOUND = Object.keys(KINDS) as CauseKind[];

const SHAPES: Record<FindingKind, yup.ObjectShape> = {
  volts: {
    ...at,
    ...Object.fromEntries(PAIRS.map((pair) => [pair, volts()])),
    reference: volts(),
    amps: yup.number().strict().min(0).max(50),
    free: volts(),
    meterOhms: yup.number().strict().min(1000).max(1e9),
  },
  lamps: { ...at, lamps: yup.array(flag().required()).strict().length(3).required() },
  works: { ...at, does: one(WORKS) },
  shock: at,
  breaker: {
    does: one(DOES_BREAKER),
    unplugged: flag(),
    minutes: yup.number().strict().min(0).max(1e5),
    amps: amps(),
  },
  device: { ...at, does: one(DOES_DEVICE) },
  ohms: {
    ...at,
    pair: one(DEAD_PAIRS),
    ohms: yup.number().strict().min(0).max(1e12).nullable().defined(),
  },
  insulation: {
    ...at,
    pair: one(DEAD_PAIRS),
    megohms: yup.number().strict().min(0).max(1e6).nullable().defined(),
  },
  state: { ...at, on: flag().required() },
  live: { ...at, live: flag().required() },
  counted: { ...at, cables: yup.number().strict().integer().min(1).max(12).required() },
  opened: { ...at, found: yup.array(one(KINDS_FOUND)).strict().max(12).required().min(0) },
  parted: { ...at, amiss: one(['before', 'beyond']), toward: yup.string().strict().max(80) },
  legs: {
    a: volts().required(),
    b: volts().required(),
    ab: volts(),
    ampsA: amps(),
    ampsB: amps(),
    loadedA: volts(),
    loadedB: volts(),
    loadAmps: amps(),
    pipe: amps(),
  },
  sign: { ...at, sign: one(SIGNS_SEEN) },
  elsewhere: { does: one(ELSEWHERE) },
  appliance: { fails: flag().required() },
  work: { at: yup.string().strict().max(80) },
  rain: {},
  tone: { from: name(), to: name(), conductor: one(['hot', 'neutral', 'ground']), heard: flag().required() },
  amps: { amps: amps().required() },
  cleared: { cause: name() },
};
const FINDING_KINDS = Object.keys(SHAPES) as FindingKind[];
/** Something that was mended, after all that stands before it in the list. */
const MENDED = 'mended';

const schema = yup
  .object({
    findings: yup
      .array(
        yup.lazy((value: { kind?: string } | null) => {
          const kind = value?.kind ?? '';
          const shape = kind === MENDED ? { cause: name() } : SHAPES[kind as FindingKind];
          return yup
            .object({ kind: one([...FINDING_KINDS, MENDED]), ...shape })
            .noUnknown(shape !== undefined)
            .strict()
            .required();
        }),
      )
      .strict()
      .max(MOST)
      .required()
      .min(0),
    qualified: flag(),
    without: yup.array(yup.string().strict().required().max(40)).strict().max(10),
  })
  .noUnknown()
  .strict()
  .required();

export interface FindingList {
  evidence: Evidence[];
  /** Keys of what was mended. */
  mended: string[];
  qualified: boolean;
  /** Tools that are not at hand. */
  without: string[];
}

/** What may be read beside both legs. */
const BESIDE_LEGS = ['ab', 'ampsA', 'ampsB', 'loadAmps', 'pipe'] as const;

type Row = Record<string, unknown> & { kind: FindingKind | typeof MENDED };

/**
 * @param boxes names in the order of the stops
 * @throws InvalidError that names the field
 */
export function findingListOf(value: unknown, path: string, boxes: readonly string[]): FindingList {
  const problems = problemsOf(schema, value, path);
  if (problems.length > 0) throw new InvalidError(problems);
  const {
    findings,
    qualified = true,
    without = [],
  } = value as {
    findings: Row[];
    qualified?: boolean;
    without?: string[];
  };
  const evidence: Evidence[] = [];
  const mended: string[] = [];
  findings.forEach((row, i) => {
    const field = `${path}.findings[${i}]`;
    const stopOf = (key: string): number => {
      const text = String(row[key]);
      if ((row.kind === 'opened' || row.kind === 'state') && text === PANEL) return -1;
      const stop = boxes.indexOf(text);
      if (stop < 0)
        throw new InvalidError([
          { path: `${field}.${key}`, message: `“${text}” is not one of ${boxes.join(', ')}` },
        ]);
      return stop;
    };
    if (row.kind === MENDED) {
      mended.push(causeKey(String(row.cause), boxes, `${field}.cause`));
      return;
    }
    if (row.kind === 'cleared') {
      const { place, kind: cause } = causeOfKey(causeKey(String(row.cause), boxes, `${field}.cause`));
      evidence.push({ id: String(i), after: mended.length, finding: { kind: 'cleared', place, cause } });
      return;
    }
    evidence.push({
      id: String(i),
      after: mended.length,
      finding: findingOf(row as Row & { kind: FindingKind }, stopOf),
    });
  });
  return { evidence, mended, qualified, without };
}

/** `box R3 open-neutral` as the key that stops have. */
function causeKey(text: string, boxes: readonly string[], path: string): string {
  const [place = '', ...rest] = text.split(' ');
  const kind = rest.pop() ?? '';
  const at = rest.join(' ');
  const stop = boxes.indexOf(at);
  const needs = place === 'box' || place === 'cable';
  if (
    !['box', 'cable', 'panel', 'service', 'plugged'].includes(place) ||
    !(kind in KINDS) ||
    (needs && stop < 0)
  )
    throw new InvalidError([
      { path, message: `expected a cause such as “box ${boxes[0] ?? 'R1'} open-neutral”, found “${text}”` },
    ]);
  return needs ? `${place} ${stop} ${kind}` : `${place} ${kind}`;
}

function findingOf(row: Row & { kind: FindingKind }, stopOf: (key: string) => number): Finding {
  const value = <T>(key: string, none: T): T => (row[key] === undefined ? none : (row[key] as T));
  switch (row.kind) {
    case 'volts':
      return {
        kind: 'volts',
        stop: stopOf('at'),
        volts: {
          hotNeutral: value('hotNeutral', null),
          hotGround: value('hotGround', null),
          neutralGround: value('neutralGround', null),
          hotHot: value('hotHot', null),
        },
        reference: value('reference', null),
        amps: value('amps', 0),
        free: value('free', null),
        meterOhms: value('meterOhms', 3000),
      };
    case 'breaker':
      return {
        kind: 'breaker',
        does: value('does', 'holds'),
        unplugged: value('unplugged', false),
        minutes: value('minutes', null),
        amps: value('amps', null),
      };
    case 'legs': {
      const [loadedA, loadedB] = [
        value<number | null>('loadedA', null),
        value<number | null>('loadedB', null),
      ];
      return {
        kind: 'legs',
        a: value('a', 0),
        b: value('b', 0),
        loaded: loadedA === null || loadedB === null ? null : [loadedA, loadedB],
        ...(BESIDE_LEGS.some((field) => row[field] !== undefined)
          ? {
              beside: {
                ab: value('ab', null),
                amps:
                  row.ampsA === undefined && row.ampsB === undefined
                    ? null
                    : { a: value('ampsA', 0), b: value('ampsB', 0) },
                loadAmps: value('loadAmps', null),
                pipe: value('pipe', null),
              },
            }
          : {}),
      };
    }
    case 'ohms':
      return {
        kind: 'ohms',
        stop: stopOf('at'),
        pair: value('pair', 'hotNeutral'),
        ohms: value<number | null>('ohms', null) ?? Infinity,
      };
    case 'insulation':
      return {
        kind: 'insulation',
        stop: stopOf('at'),
        pair: value('pair', 'hotNeutral'),
        megohms: value<number | null>('megohms', null) ?? Infinity,
      };
    case 'parted':
      return {
        kind: 'parted',
        stop: stopOf('at'),
        amiss: value('amiss', 'before'),
        toward: row.toward === undefined ? null : stopOf('toward'),
      };
    case 'work':
      return { kind: 'work', stop: row.at === undefined ? null : stopOf('at') };
    case 'tone':
      return {
        kind: 'tone',
        from: stopOf('from'),
        to: stopOf('to'),
        conductor: value('conductor', 'hot'),
        heard: value('heard', true),
      };
    default: {
      const { at: named, ...rest } = row;
      return (named === undefined ? rest : { ...rest, stop: stopOf('at') }) as Finding;
    }
  }
}
