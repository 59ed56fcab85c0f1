import { changeBreaker, rule, sameSection, type Verdict } from '../rule.ts';
import { ampacity, smallConductorCap } from '../tables/conductors.ts';

export const smallConductor = rule({
  id: 'small-conductor',
  title: 'Breaker above its conductor',
  scope: 'circuit',
  level: 'violation',
  sections: sameSection('240.4(D)'),
  why: 'The breaker is what keeps the wire in the wall from overheating; above the wire’s limit it no longer does.',
  check(circuit, view) {
    const { rating } = circuit.breaker;
    const gauges = new Set([circuit.gauge, ...view.run(circuit).stops.map((s) => s.segment.gauge)]);
    return [...gauges].map((gauge): Verdict => {
      const cap = smallConductorCap(gauge, circuit.material);
      const limit = cap ?? ampacity(gauge, circuit.material, 60);
      const wire = `${gauge} AWG ${circuit.material}`;
      if (limit === null) {
        return {
          level: 'violation',
          message: `there is no ${wire} for branch circuits; the thinnest is 12 AWG`,
          section: '310.3',
        };
      }
      const quantities = {
        measured: { value: rating, unit: 'A' },
        limit: { value: limit, unit: 'A' },
      } as const;
      const section = cap === null ? '240.4, 334.80' : '240.4(D)';
      if (rating <= limit) {
        return {
          level: 'satisfied',
          message: `${rating} A breaker on ${wire}: at most ${limit} A`,
          section,
          ...quantities,
        };
      }
      const lower = ([50, 45, 40, 35, 30, 25, 20, 15] as const).find((r) => r <= limit);
      return {
        level: 'violation',
        section,
        message: `${rating} A breaker on ${wire}; at most ${limit} A`,
        ...quantities,
        fixes:
          lower === undefined
            ? []
            : [{ label: `Fit a ${lower} A breaker`, command: changeBreaker(circuit, { rating: lower }) }],
      };
    });
  },
});
