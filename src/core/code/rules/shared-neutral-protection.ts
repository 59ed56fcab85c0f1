import { always } from '#core/tables/editions.ts';
import { isMultiwire, type RunStop, runOf } from '#core/circuits/run.ts';
import { changeBreaker, changeCircuit, rule, type Verdict } from '../rule.ts';

/** Stops that a device feeds from its load side, further down the run too. */
function behind(stops: readonly RunStop[], at: number): RunStop[] {
  const fed = new Set([at]);
  return stops.filter((s, i) => {
    const on = fed.has(s.feeder) && (s.feeder !== at || s.stop.side === 'load');
    if (on) fed.add(i);
    return on;
  });
}

export const sharedNeutralProtection = rule({
  id: 'shared-neutral-protection',
  title: 'GFCI and AFCI on a shared neutral',
  scope: 'circuit',
  level: 'violation',
  sections: always('110.3(B), 210.4'),
  why: 'A device that watches one hot sees the other side’s current come back on the shared neutral and trips at once.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    if (!isMultiwire(run)) return [];
    const { protection, tie } = circuit.breaker;
    const found: Verdict[] = [];
    if (protection !== 'none' && tie !== 'common-trip') {
      found.push({
        level: 'violation',
        message: `single-pole ${protection === 'afci' ? 'AFCI' : 'GFCI'} breakers share a neutral: it takes one breaker with two poles`,
        fixes: [
          {
            label: 'Fit one two-pole breaker of that kind',
            command: changeBreaker(circuit, { tie: 'common-trip' }),
          },
        ],
      });
    }
    for (const [i, { box, stop }] of run.stops.entries()) {
      if (box.device.kind !== 'gfci' && box.device.kind !== 'outlet-afci') continue;
      const wrong = behind(run.stops, i).find((s) => s.stop.hot !== stop.hot);
      if (!wrong) continue;
      const direct = run.stops.filter((s) => s.feeder === i && s.stop.side === 'load').map((s) => s.box.id);
      found.push({
        level: 'violation',
        message: `${box.name} feeds ${wrong.box.name} on the other hot from its load side: split the neutral off, or feed on from its line side`,
        fixes:
          direct.length === 0
            ? []
            : [
                {
                  label: `Feed on from the line side of ${box.name}`,
                  command: changeCircuit(circuit, {
                    stops: circuit.stops.map((s) => (direct.includes(s.boxId) ? { ...s, side: 'line' } : s)),
                  }),
                },
              ],
      });
    }
    if (found.length > 0) return found;
    return protection === 'none'
      ? []
      : [{ level: 'satisfied', message: 'one breaker with two poles watches both hots and the neutral' }];
  },
});
