import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { loadOfCircuit, sizingInputOf, withoutPlate } from '#core/circuits/circuitLoad.ts';
import { sizeCircuit } from '#core/circuits/sizing.ts';
import { sizeName, STANDARD_BREAKERS } from '#core/tables/conductors.ts';
import { changeBreaker, changeCircuit, rule, type Fix } from '../rule.ts';

export const circuitLoad = rule({
  id: 'circuit-load',
  title: 'Breaker and conductor for the appliance',
  scope: 'circuit',
  needs: ['conductors'],
  clears: ['all outlets'],
  level: 'violation',
  sections: always('210.19(A), 210.20(A)'),
  why: 'Too little trips or overheats under the load it is there for; too much leaves the appliance unprotected.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    const { load, about } = loadOfCircuit(view.document, run);
    if (load.kind === 'general' && load.continuousAmps === 0) return [];
    const { gauge, breaker } = circuit;
    const input = sizingInputOf(view.document.job, run, load);
    const asIs = sizeCircuit(input);
    const missing = load.kind === 'several' ? withoutPlate(view.document, run) : [];
    if (asIs.ok) {
      const [first] = asIs.value.steps;
      if (missing.length > 0)
        return [
          {
            level: 'unknown',
            message: `${about}: ${first!.working}, without ${missing.map((f) => f.name).join(', ')}, of which no nameplate is on record: the sum is not judged`,
            section: first!.section,
          },
        ];
      return [
        {
          level: 'satisfied',
          message: `${about}: ${breaker.rating} A on ${sizeName(gauge)}; ${first!.working}`,
          section: first!.section,
        },
      ];
    }
    const fixes: Fix[] = [];
    // A larger breaker is no way out where outlets hang on it: something has to go elsewhere.
    const free =
      load.severalReceptacles || (load.kind === 'several' && load.amps !== null)
        ? sizeCircuit({ ...input, gauge: null })
        : sizeCircuit({ ...input, gauge: null, breaker: null });
    const right = free.ok ? STANDARD_BREAKERS.find((r) => r === free.value.breaker) : undefined;
    if (free.ok && right !== undefined) {
      const { breaker: rating, gauge: thick } = free.value;
      fixes.push(
        thick === gauge
          ? { label: `Install a ${rating} A breaker`, command: changeBreaker(circuit, { rating: right }) }
          : {
              label: `Install a ${rating} A breaker on ${sizeName(thick)}`,
              command: changeCircuit(circuit, {
                gauge: thick,
                breaker: { ...breaker, rating: right },
                stops: circuit.stops.map((s) => ({ ...s, gauge: null })),
              }),
            },
      );
    }
    return [{ level: 'violation', message: `${about}: ${asIs.message}`, fixes }];
  },
});
