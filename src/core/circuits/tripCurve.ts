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

/** The edge of the band that is asked for. */
export type Edge = 'quick' | 'slow';

/** A breaker as a first-order thermal model with a magnet. */
export interface BreakerModel {
  /** Multiple of the rating that it holds for ever. */
  holds: number;
  /** Time constant of its bimetal, seconds. */
  tau: number;
  /** Multiple of the rating from which the magnet opens it, and the seconds that takes. */
  magnet: number;
  instant: number;
}

/** Longest time at 200 % of the rating, seconds. */
const slowAt200 = (rating: number): number => (rating <= 30 ? 120 : rating <= 50 ? 240 : 360);

const rise = (multiple: number, holds: number): number =>
  multiple <= holds ? Infinity : -Math.log1p(-((holds / multiple) ** 2));

/** @param rating amperes */
export function breakerModel(rating: number, edge: Edge): BreakerModel {
  const [holds, at200] = edge === 'quick' ? [1.05, 12] : [1.3, slowAt200(rating)];
  const tau = at200 / rise(2, holds);
  return edge === 'quick'
    ? { holds, tau, magnet: 5, instant: 0.01 }
    : { holds, tau, magnet: 10, instant: 0.03 };
}

/** Time to open at a current from cold, seconds. */
export function tripTime(rating: number, amps: number): TripTime {
  const m = amps / rating;
  const time = (edge: Edge): number => {
    const { holds, tau, magnet, instant } = breakerModel(rating, edge);
    return m >= magnet ? instant : Math.max(instant, tau * rise(m, holds));
  };
  return { least: time('quick'), most: time('slow') };
}

export interface CurveCurrent {
  name: string;
  amps: number;
  /** When it opened at this current, seconds, where somebody looked. */
  opened?: number;
}

/** A breaker with currents to be set against it. */
export interface TripPicture {
  rating: number;
  currents: readonly CurveCurrent[];
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
