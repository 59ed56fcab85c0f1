/** The feeder of a subpanel: breaker against load and conductor, four wires, ground, drop. */
import { DWELLING_SECTION, DWELLING_SHARE } from '#core/tables/circuits.ts';
import { at } from '#core/tables/editions.ts';
import type { View } from '#core/view/view.ts';
import { conditionsOf } from '#core/circuits/circuitLoad.ts';
import { lengthOf, panelPlace, plannedBetween, runOf } from '#core/circuits/run.ts';
import {
  equipmentGround,
  largestBreaker,
  twoWireDrop,
  usableAmpacity,
  whereItRuns,
} from '#core/circuits/sizing.ts';
import { dwellingLoad } from '#core/loads/dwelling.ts';
import { legsTogether } from './balance.ts';
import { circuitsBehind, loadOf } from './jobLoad.ts';
import {
  GAUGES_BY_SIZE,
  ohmsPerThousandFeet,
  sizeName,
  smallConductorCap,
  standardAtMost,
} from '#core/tables/conductors.ts';
import type { Feeder, Gauge, JobDocument, Panel } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import type { Step } from '#core/circuits/demand/demand.ts';

export interface FeederSizing {
  /** Installed length, inches, and where it comes from. */
  length: number;
  source: 'measured' | 'plan';
  usableAmps: number | null;
  /** Largest breaker the conductor may have; null where there is no such conductor. */
  largestBreaker: number | null;
  /** Thinnest conductor for the breaker it has. */
  leastGauge: Gauge | null;
  ground: Gauge;
  /** With both legs loaded alike, volts of 240. */
  drop: { volts: number; percent: number };
  steps: Step[];
}

/**
 * Load of a subpanel, amperes at 240 V: by the standard method for what it feeds of the dwelling, and no less than
 * the planning load on its fuller leg, which counts outbuildings too.
 */
export function feederLoad(view: View, panel: Panel): { amps: number; from: string } {
  const { document } = view;
  const legs = legsTogether(circuitsBehind(document, panel).map((c) => runOf(view, c)));
  const planned = Math.max(legs.A, legs.B);
  const load = dwellingLoad(loadOf(view, panel).dwelling, 'standard');
  return load.ok && load.value.amps > planned
    ? { amps: load.value.amps, from: 'by the standard method' }
    : { amps: planned, from: 'planning load on the fuller leg' };
}

/** Whether all that the dwelling has hangs behind a feeder of 100 to 400 A from its service. */
function carriesDwelling(document: JobDocument, panel: Panel, { panelId, rating }: Feeder): boolean {
  const from = document.panels[panelId];
  if (!from || from.feeder !== null || rating < 100 || rating > 400) return false;
  const services = Object.values(document.panels).filter((p) => p.feeder === null);
  const behind = circuitsBehind(document, panel).length;
  return services.length === 1 && behind > 0 && behind === circuitsBehind(document, from).length;
}

/**
 * @param amps load of the feeder, amperes at 240 V
 */
export function sizeFeeder(
  document: JobDocument,
  panel: Panel,
  feeder: Feeder,
  amps: number,
): FeederSizing | null {
  const from = document.panels[feeder.panelId];
  if (!from) return null;
  const { settings } = document.job;
  const planned = plannedBetween(settings, panelPlace(document, from), panelPlace(document, panel), true);
  const length = feeder.measured ?? lengthOf(planned);
  const conditions = conditionsOf(document.job, feeder);
  const whole = carriesDwelling(document, panel, feeder);
  /** A feeder that carries the whole dwelling may be 83 % of its rating, as a service may. */
  const allowed = (gauge: Gauge, usable: number): number | null => {
    const plain = largestBreaker(gauge, feeder.material, usable, true);
    return whole ? Math.max(plain ?? 0, standardAtMost(usable / DWELLING_SHARE) ?? 0) : plain;
  };
  const largestFor = (gauge: Gauge): number | null => {
    const u = usableAmpacity(gauge, conditions, feeder.rating);
    return u && u.usable >= amps - 1e-9 ? allowed(gauge, u.usable) : null;
  };
  const leastGauge = GAUGES_BY_SIZE.find((g) => (largestFor(g) ?? 0) >= feeder.rating) ?? null;
  const u = usableAmpacity(feeder.gauge, conditions, feeder.rating);
  const largest = u && allowed(feeder.gauge, u.usable);
  const ground = equipmentGround(feeder.rating, feeder.material, feeder.gauge, leastGauge ?? feeder.gauge);
  const ohms = ohmsPerThousandFeet(feeder.gauge, feeder.material, settings.conductorTemperature);
  const feet = length / 12;
  const volts = ohms === null ? 0 : twoWireDrop(ohms, feet, amps);
  const service = 2 * settings.voltage;
  const percent = (volts / service) * 100;
  const steps: Step[] = [
    {
      what: 'Load',
      working: `${round(amps, 1)} A at ${service} V ≤ ${feeder.rating} A breaker`,
      section: '215.2(A), 215.3',
    },
    {
      what: 'Conductor',
      working: u
        ? `${sizeName(feeder.gauge)} ${feeder.material}, ${u.column} °C column: ${u.base} A`
        : `there is no ${sizeName(feeder.gauge)} ${feeder.material} in the table, or not at ${feeder.ambient} °C`,
      section: '110.14(C)',
    },
    ...(u
      ? [
          whereItRuns(u, document.job.edition),
          {
            what: 'Breaker on that conductor',
            working: whole
              ? `it carries the whole dwelling: ${round(u.usable, 1)} A ÷ ${DWELLING_SHARE}: at most ${largest ?? 0} A`
              : `at most ${largest ?? 0} A`,
            section: whole
              ? at(DWELLING_SECTION, document.job.edition)
              : smallConductorCap(feeder.gauge, feeder.material) === null
                ? '240.4(B)'
                : '240.4(D)',
          },
        ]
      : []),
    {
      what: 'Equipment ground',
      working: `${sizeName(ground)} for ${feeder.rating} A`,
      section: '250.122',
    },
    {
      what: 'Voltage drop',
      working: `2 × ${round(ohms ?? 0, 3)} Ω ÷ 1,000 ft × ${round(feet, 1)} ft × ${round(amps, 1)} A = ${round(volts, 2)} V = ${round(percent, 2)} % of ${service} V`,
      section: '215.2(A) note (advice)',
    },
  ];
  return {
    length,
    source: feeder.measured === null ? 'plan' : 'measured',
    usableAmps: u?.usable ?? null,
    largestBreaker: largest,
    leastGauge,
    ground,
    drop: { volts, percent },
    steps,
  };
}
