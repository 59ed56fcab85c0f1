import { since } from '#core/tables/editions.ts';
import { fixturesOn } from '#core/circuits/circuitLoad.ts';
import { outletsOf, runOf } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { plateAmps } from '#core/panel/jobLoad.ts';
import { round } from '#core/units/quantity.ts';
import { CORD_SHARE_SECTION } from '#core/tables/circuits.ts';
import { rule, type Verdict } from '../rule.ts';

/** Largest cord-and-plug load by the receptacle’s rating where two or more hang on the circuit, 210.21(B)(2), amperes. */
const BY_RECEPTACLE: Record<number, number> = { 15: 12, 20: 16, 30: 24 };

export const cordShare = rule({
  id: 'cord-share',
  title: 'One appliance with a cord on its circuit',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: CORD_SHARE_SECTION,
  why: 'What is plugged in beside other outlets may take four fifths of the circuit; a room cooler half of it.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    const { rating } = circuit.breaker;
    const outlets = outletsOf(run);
    return fixturesOn(view.document, run).flatMap((fixture): Verdict[] => {
      const stop = outlets.find(({ box }) => box.serves === fixture.id);
      const amps = plateAmps(fixture);
      if (!stop || amps === null || fixture.connection !== 'cord' || !isReceptacle(stop.box)) return [];
      const others = outlets.some(({ box }) => box.serves !== fixture.id);
      const { kind, rating: slot } = stop.box.device;
      const cooler = fixture.kind === 'room-cooler';
      const limits: [amps: number, section: string][] = [];
      if (cooler) limits.push(others ? [0.5 * rating, '440.62(C)'] : [0.8 * rating, '440.62(B)']);
      // What is fastened in place is bound as fixed equipment, by half; alone it may take all.
      if (!cooler && others && !fixture.fastened && rating <= 30)
        limits.push([0.8 * rating, since(view.edition, '2023') ? '210.23(B)(1)' : '210.23(A)(1)']);
      // A duplex is two receptacles, even alone.
      const byReceptacle = BY_RECEPTACLE[slot];
      if (byReceptacle !== undefined && (others || kind !== 'single') && rating <= 30)
        limits.push([byReceptacle, '210.21(B)(2)']);
      if (limits.length === 0) return [];
      const [limit, section] = limits.reduce((least, l) => (l[0] < least[0] ? l : least));
      return [
        {
          level: amps > limit + 1e-9 ? 'violation' : 'satisfied',
          section,
          message: `${fixture.name}: ${round(amps, 1)} A by cord ${others ? 'beside other outlets' : 'at a circuit of its own'} of ${rating} A; at most ${round(limit, 1)} A`,
          measured: { value: round(amps, 1), unit: 'A' },
          limit: { value: round(limit, 1), unit: 'A' },
        },
      ];
    });
  },
});
