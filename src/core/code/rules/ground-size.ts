import { runOf } from '#core/circuits/run.ts';
import { loadOfCircuit, sizingInputOf } from '#core/circuits/circuitLoad.ts';
import { equipmentGround, sizeCircuit } from '#core/circuits/sizing.ts';
import { CIRCULAR_MILS, sizeName } from '#core/tables/conductors.ts';
import { always } from '#core/tables/editions.ts';
import { changeCircuit, rule } from '../rule.ts';

export const groundSize = rule({
  id: 'ground-size',
  title: 'Size of the equipment ground',
  scope: 'circuit',
  needs: ['conductors'],
  level: 'violation',
  sections: always('250.122'),
  why: 'In a fault the ground carries all of it until the breaker opens; too thin, it burns off first.',
  check(circuit, view) {
    const { ground, gauge, breaker, material, cable, status } = circuit;
    if (ground === null || status === 'remove' || cable === 'old two-wire') return [];
    const run = runOf(view, circuit);
    const { load } = loadOfCircuit(view.document, run);
    const asIs = sizeCircuit(sizingInputOf(view.document.job, run, load));
    const needed = asIs.ok ? asIs.value.leastGauge : gauge;
    const least = equipmentGround(breaker.rating, material, gauge, needed);
    const enough = CIRCULAR_MILS[ground] >= CIRCULAR_MILS[least] - 0.5;
    const enlarged =
      CIRCULAR_MILS[gauge] > CIRCULAR_MILS[needed]
        ? ` with its hots enlarged from ${sizeName(needed)} to ${sizeName(gauge)}`
        : '';
    return [
      enough
        ? { level: 'satisfied', message: `${sizeName(ground)} ground for ${breaker.rating} A${enlarged}` }
        : {
            level: 'violation',
            section: enlarged ? '250.122(A), (B)' : '250.122(A)',
            message: `${sizeName(ground)} ground; ${breaker.rating} A${enlarged} asks for ${sizeName(least)}`,
            fixes: [
              {
                label: `Run a ${sizeName(least)} ground`,
                command: changeCircuit(circuit, { ground: least }),
              },
            ],
          },
    ];
  },
});
