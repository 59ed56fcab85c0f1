/**
 * When a thermal-magnetic breaker opens: a band between the quickest and the slowest that is usual. The bimetal is a
 * first-order thermal model, t = τ ln(m² / (m² − k²)) with m the multiple of the rating (as in IEC 60255-149), set
 * to what moulded-case breakers are calibrated for: they hold 100 %, open 135 % within an hour, and 200 % within two
 * minutes up to 30 A, four up to 50 A and six up to 100 A. The magnet opens at once between 5 and 10 times the rating.
 * A breaker's own curve goes before this one.
 */
import { ohmsPerThousandFeet } from '#core/tables/conductors.ts';
import { dropAt, fullLoad, type Run } from './run.ts';
import { equipmentGround } from './sizing.ts';

/** Seconds from the quickest to the slowest; Infinity where it holds. */
export interface TripTime {
  least: number;
  most: number;
}

/** Multiple of the rating at which the band begins at its quick and at its slow edge. */
const QUICK = { holds: 1.05, at200: 12, magnet: 5, instant: 0.01 };
const SLOW = { holds: 1.3, magnet: 10, instant: 0.03 };

/** Longest time at 200 % of the rating, seconds. */
const slowAt200 = (rating: number): number => (rating <= 30 ? 120 : rating <= 50 ? 240 : 360);

const rise = (multiple: number, holds: number): number =>
  multiple <= holds ? Infinity : -Math.log1p(-((holds / multiple) ** 2));

/** Time to open at a current, seconds. */
export function tripTime(rating: number, amps: number): TripTime {
  const m = amps / rating;
  const thermal = (holds: number, at200: number) => (at200 / rise(2, holds)) * rise(m, holds);
  return {
    least: m >= QUICK.magnet ? QUICK.instant : Math.max(QUICK.instant, thermal(QUICK.holds, QUICK.at200)),
    most: m >= SLOW.magnet ? SLOW.instant : Math.max(SLOW.instant, thermal(SLOW.holds, slowAt200(rating))),
  };
}

export interface CurveCurrent {
  name: string;
  amps: number;
}

/** Impedance ahead of the panel that a short is worked out with, ohms: a small dwelling's service. */
const SOURCE = 0.03;

/** Currents of a run to set against its breaker: planned, full load, and shorts at its far end. */
export function currentsOf(run: Run, conductorCelsius: number): CurveCurrent[] {
  const { circuit, end, volts } = run;
  const currents: CurveCurrent[] = [
    { name: 'planned load', amps: run.plannedAmps },
    { name: '80 % of the breaker', amps: fullLoad(circuit) },
  ];
  if (end) {
    currents.push({
      name: `short, hot to hot or neutral, at ${end.box.name}`,
      amps: volts / (SOURCE + dropAt(end, 1)),
    });
    if (circuit.cable !== 'old two-wire') {
      const gauge = equipmentGround(circuit.breaker.rating, circuit.material, circuit.gauge, circuit.gauge);
      const perInch = (ohmsPerThousandFeet(gauge, circuit.material, conductorCelsius) ?? 0) / 12000;
      const toGround = volts > 150 ? volts / 2 : volts;
      currents.push({
        name: `short, hot to ground, at ${end.box.name}`,
        amps: toGround / (SOURCE + end.pathOhms + perInch * end.distance),
      });
    }
  }
  return currents.filter((c) => c.amps > 0);
}
