/** What has to be off, and who is called, before anything else: by what was measured or told, and by what is likely. */
import type { AreaKind } from '#core/job/schema.ts';
import type { Run } from '#core/circuits/run.ts';
import { frameVolts, isHeld } from '#core/diagnosis/beyond.ts';
import { judgeLegs } from '#core/diagnosis/legs.ts';
import { LOW_OHMS } from '#core/instruments/meter.ts';
import { round } from '#core/units/quantity.ts';
import type { Evidence, Finding } from './evidence.ts';
import { NOMINAL } from './fields.ts';
import type { Diagnosis } from './hunt.ts';
import { KINDS, type Danger } from './kinds.ts';

export interface Warning {
  danger: Exclude<Danger, 'none'>;
  /** How likely it is; 1 of what was measured or told. */
  share: number;
  text: string;
}

/** From this share on a danger is said first. */
const LIKELY = 0.25;
/** Volts of a ground slot to a proven ground from which on touch is dangerous: dry, and with wet hands or bare feet. */
const TOUCH = { dry: 30, wet: 15 } as const;
/** Water nearer than this to an outlet is within reach of whoever touches what is plugged in, inches. */
const IN_REACH = 72;
const WET_ROOMS: ReadonlySet<AreaKind> = new Set<AreaKind>([
  'bathroom',
  'laundry',
  'outdoors',
  'deck',
  'boathouse',
  'crawl-space',
]);
/** A leg never stands so high over its neutral while that is whole, as a share of nominal. */
const TOO_HIGH = 1.1;
/** A tester’s lamp lights from about here, volts. */
const LIT = 55;

/** What has to be off first comes first. */
const ORDER: readonly Danger[] = ['overvoltage', 'shock', 'fire'];

const OVER =
  'Main off now, and what is plugged in unplugged: a lost neutral puts up to 240 V on one half of the house. Where it is the service’s, call the utility.';
const SHOCK =
  'Metal that is plugged in here may be live: breaker off while nobody measures, and nobody touches it. Who felt a shock sees a doctor.';
const FIRE =
  'It may be heating where nobody sees it: breaker off between measurements. Smoke or a hot wall: out of the house, and the fire department.';

const isWet = (run: Run, stop: number): boolean => {
  const at = run.stops[stop];
  if (!at) return false;
  const { waterDistance } = at.box;
  return (
    WET_ROOMS.has(at.area.kind) ||
    at.area.location !== 'dry' ||
    (waterDistance !== null && waterDistance <= IN_REACH)
  );
};

const nameOf = (run: Run, stop: number): string => run.stops[stop]?.box.name ?? 'the outlet';

/** What one finding says by itself, whatever explains it; null where it is no danger. */
function warningOf(finding: Finding, run: Run): Omit<Warning, 'share'> | null {
  const shock = (text: string) => ({ danger: 'shock', text }) as const;
  const over = (text: string) => ({ danger: 'overvoltage', text }) as const;
  switch (finding.kind) {
    case 'volts':
      return voltsWarning(finding, run);
    case 'lamps': {
      const lit = frameVolts(
        {
          hotNeutral: null,
          hotGround: null,
          neutralGround: null,
          groundReference: null,
          lamps: [...finding.lamps],
        },
        { nominal: NOMINAL, drop: 0 },
        LIT,
      );
      return lit === null
        ? null
        : shock(
            `Neutral to ground lights a lamp at ${nameOf(run, finding.stop)}: one of the two is live, and frames may be. Breaker off; nobody touches what is plugged in.`,
          );
    }
    case 'legs': {
      const { a, b, loaded, beside = {} } = finding;
      const { danger, title } = judgeLegs({
        a,
        b,
        ab: beside.ab ?? null,
        amps: beside.amps ?? null,
        loaded: loaded && { a: loaded[0], b: loaded[1], amps: beside.loadAmps ?? null },
        pipe: beside.pipe ?? null,
      });
      return danger ? over(`${title}. Legs ${a} V and ${b} V: unplug what is plugged in.`) : null;
    }
    case 'works':
      return finding.does === 'bright' ? over(`Too bright at ${nameOf(run, finding.stop)}. ${OVER}`) : null;
    case 'elsewhere':
      return finding.does === 'some dim, some bright' ? over(`Some dim, some bright. ${OVER}`) : null;
    case 'shock':
      return shock(`A shock at ${nameOf(run, finding.stop)}. ${SHOCK}`);
    case 'live':
      return finding.live
        ? shock(
            `${nameOf(run, finding.stop)} is live with its breaker off: something else feeds it. Nobody opens it; main off before a hand goes in.`,
          )
        : null;
    case 'sign':
      if (finding.sign === 'buzz') return null;
      return {
        danger: 'fire',
        text:
          finding.sign === 'smoke'
            ? `Smoke at ${nameOf(run, finding.stop)}: main off, out of the house, call the fire department. Nothing is measured first.`
            : `${SIGN_WORDS[finding.sign]} at ${nameOf(run, finding.stop)}. ${FIRE}`,
      };
    default:
      return null;
  }
}
const SIGN_WORDS = { heat: 'Warm', scorch: 'Scorched', smell: 'A smell' } as const;

function voltsWarning(
  { stop, volts, reference, meterOhms }: Finding & { kind: 'volts' },
  run: Run,
): Omit<Warning, 'share'> | null {
  const at = nameOf(run, stop);
  const touch = isWet(run, stop) ? TOUCH.wet : TOUCH.dry;
  if (reference !== null && reference >= touch)
    return {
      danger: 'shock',
      text: `${reference} V from the ground slot of ${at} to a proven ground: every frame plugged in there is live, ${round(reference, 0)} mA through whoever touches it. Breaker off, or the main where it stays.`,
    };
  const { hotNeutral, hotGround, neutralGround } = volts;
  const high = (v: number | null) => v !== null && v > TOO_HIGH * NOMINAL && run.volts < 150;
  if (high(hotNeutral) && !high(hotGround))
    return { danger: 'overvoltage', text: `${hotNeutral} V from hot to neutral at ${at}. ${OVER}` };
  if (high(hotNeutral) && high(hotGround))
    return {
      danger: 'overvoltage',
      text: `${hotNeutral} V from hot to neutral and ${hotGround} V to ground at ${at}. ${OVER}`,
    };
  // On a meter of high impedance a ground that hangs loose shows the same; what a light load leaves is none of it.
  const frames = frameVolts(
    { hotNeutral, hotGround, neutralGround, groundReference: null, lamps: null },
    { nominal: NOMINAL, drop: 0 },
    LIT,
  );
  const real = meterOhms <= 2 * LOW_OHMS || isHeld(volts) || high(hotGround);
  return frames !== null && frames >= touch && real && run.volts < 150
    ? {
        danger: 'shock',
        text: `The ground of ${at} stands ${round(frames, 0)} V off its place: metal plugged in there may be live, ${round(frames, 0)} mA through whoever touches it. Breaker off; nobody touches it.`,
      }
    : null;
}

/** Whether a later finding shows that what an earlier one warned of is gone. */
function clears(later: Finding, earlier: Finding): boolean {
  const there = 'stop' in later && 'stop' in earlier && later.stop === earlier.stop;
  switch (earlier.kind) {
    case 'legs':
    case 'elsewhere':
      return later.kind === earlier.kind;
    case 'volts':
    case 'shock':
      // Frames are shown by a proven ground, volts by volts.
      if (earlier.kind === 'shock' || earlier.reference !== null)
        return there && later.kind === 'volts' && later.reference !== null;
      return there && later.kind === 'volts' && later.volts.hotNeutral !== null;
    case 'sign':
      // Heat is gone where a load stays on without it.
      return there && later.kind === 'volts' && later.amps > 0;
    default:
      return there && later.kind === earlier.kind;
  }
}

/** Dangers that were measured or told, at once and until struck, or read anew after a repair and gone. */
export function seenDangers(evidence: readonly Evidence[], run: Run): Warning[] {
  const list: Warning[] = [];
  evidence.forEach(({ finding, after }, i) => {
    const warning = warningOf(finding, run);
    if (!warning || list.some((w) => w.text === warning.text)) return;
    const gone = evidence
      .slice(i + 1)
      .some((e) => e.after > after && clears(e.finding, finding) && warningOf(e.finding, run) === null);
    if (!gone) list.push({ ...warning, share: 1 });
  });
  return list;
}

/** Dangers that were seen, then those that are likely; worst first. */
export function warningsOf(
  { suspects }: Pick<Diagnosis, 'suspects'>,
  evidence: readonly Evidence[],
  run: Run,
): Warning[] {
  const shares = new Map<Danger, number>();
  for (const { kind, second, share } of suspects) {
    const dangers = new Set([kind, ...(second ? [second.kind] : [])].map((k) => KINDS[k].danger));
    for (const d of dangers) shares.set(d, (shares.get(d) ?? 0) + share);
  }
  const list = seenDangers(evidence, run);
  const seen = new Set(list.map((w) => w.danger));
  const likely = (danger: Warning['danger'], least: number, text: string) => {
    const share = shares.get(danger) ?? 0;
    if (share >= least && !seen.has(danger)) list.push({ danger, share, text });
  };
  likely('overvoltage', LIKELY, OVER);
  likely('shock', LIKELY, SHOCK);
  likely('fire', 2 * LIKELY, FIRE);
  return list.sort((x, y) => ORDER.indexOf(x.danger) - ORDER.indexOf(y.danger));
}
