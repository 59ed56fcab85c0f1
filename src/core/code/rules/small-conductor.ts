import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { conditionsOf, loadOfCircuit } from '#core/circuits/circuitLoad.ts';
import { demandOf } from '#core/circuits/asked.ts';
import { largestBreaker, usableAmpacity } from '#core/circuits/sizing.ts';
import { sizeName, STANDARD_BREAKERS } from '#core/tables/conductors.ts';
import { fahrenheit, round } from '#core/units/quantity.ts';
import { changeBreaker, rule, type Verdict } from '../rule.ts';
import { ampacity, smallConductorCap } from '#core/tables/conductors.ts';

export const smallConductor = rule({
  id: 'small-conductor',
  title: 'Breaker above its conductor',
  scope: 'circuit',
  needs: ['conductors'],
  level: 'violation',
  sections: always('240.4(D)'),
  why: 'The breaker is what keeps the wire in the wall from overheating; above the wire’s limit it no longer does.',
  check(circuit, view) {
    const { rating } = circuit.breaker;
    const run = runOf(view, circuit);
    const { load } = loadOfCircuit(view.document, run);
    const demand = load.kind === 'general' ? null : demandOf(load, view.edition);
    // Motors and cooling have protection of their own, 240.4(G): the appliance's rule judges them.
    if (demand?.ok && demand.value.ownProtection) return [];
    const nextSizeUp = demand === null ? !load.severalReceptacles : demand.ok && demand.value.nextSizeUp;
    const conditions = conditionsOf(view.document.job, circuit);
    const gauges = new Set([circuit.gauge, ...run.stops.map((s) => s.segment.gauge)]);
    return [...gauges].map((gauge): Verdict => {
      const wire = `${sizeName(gauge)} ${circuit.material}`;
      if (ampacity(gauge, circuit.material, 60) === null) {
        return {
          level: 'violation',
          message: `there is no ${wire} for branch circuits; the thinnest is 12 AWG`,
          section: '310.3',
        };
      }
      const u = usableAmpacity(gauge, conditions, rating);
      const cap = smallConductorCap(gauge, circuit.material);
      const most = (u && largestBreaker(gauge, circuit.material, u.usable, nextSizeUp)) ?? 0;
      const capped = cap !== null && most === cap;
      // By the conductor itself where the next standard size is not open to it.
      const limit = capped || nextSizeUp || !u ? most : Math.max(most, Math.min(u.usable, cap ?? Infinity));
      const hot =
        u && u.usable < u.base
          ? ` at ${round(fahrenheit(circuit.ambient), 0)} °F (${circuit.ambient} °C) with ${circuit.bundled} conductors bundled (${round(u.usable, 1)} A)`
          : '';
      const quantities = {
        measured: { value: rating, unit: 'A' },
        limit: { value: limit, unit: 'A' },
      } as const;
      const section = capped ? '240.4(D)' : hot ? '240.4, 310.15' : '240.4, 110.14(C)';
      if (rating <= most) {
        return {
          level: 'satisfied',
          message: `${rating} A breaker on ${wire}${hot}: at most ${round(limit, 1)} A`,
          section,
          ...quantities,
        };
      }
      const lower = STANDARD_BREAKERS.filter((r) => r <= most && r >= 15).at(-1);
      return {
        level: 'violation',
        section,
        message: `${rating} A breaker on ${wire}${hot}; at most ${round(limit, 1)} A`,
        ...quantities,
        fixes:
          lower === undefined
            ? []
            : [{ label: `Install a ${lower} A breaker`, command: changeBreaker(circuit, { rating: lower }) }],
      };
    });
  },
});
