import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeDevice, rule, type Verdict } from '../rule.ts';

/** Receptacle ratings allowed on a circuit with two or more receptacles, 210.21(B)(3). */
const ALLOWED: Record<number, readonly number[]> = {
  15: [15],
  20: [15, 20],
  30: [30],
  40: [50],
  50: [50],
};

export const receptacleRating = rule({
  id: 'receptacle-rating',
  title: 'Receptacle rating on its circuit',
  scope: 'circuit',
  needs: ['all outlets'],
  level: 'violation',
  sections: always('210.21(B)'),
  why: 'A receptacle rated below what the breaker lets through can overheat without the breaker ever tripping.',
  check(circuit, view) {
    const { rating } = circuit.breaker;
    const boxes = runOf(view, circuit)
      .stops.map((s) => s.box)
      .filter((b) => b.status !== 'remove' && isReceptacle(b));
    if (boxes.length === 0) return [];
    const [first] = boxes;
    const others = runOf(view, circuit).stops.filter((s) => s.box.status !== 'remove').length;
    if (others === 1 && first?.device.kind === 'single') {
      return first.device.rating >= rating
        ? [
            {
              level: 'satisfied',
              message: `single ${first.device.rating} A receptacle alone on ${rating} A`,
              section: '210.21(B)(1)',
            },
          ]
        : [
            {
              level: 'violation',
              section: '210.21(B)(1)',
              message: `${first.name} is a single ${first.device.rating} A receptacle alone on a ${rating} A circuit; it must be rated ${rating} A or more`,
              measured: { value: first.device.rating, unit: 'A' },
              limit: { value: rating, unit: 'A' },
            },
          ];
    }
    const allowed = ALLOWED[rating] ?? [];
    const bad = boxes.filter((b) => !allowed.includes(b.device.rating));
    if (bad.length === 0) {
      return [
        {
          level: 'satisfied',
          section: '210.21(B)(3)',
          message: `${boxes.length} receptacle outlets on ${rating} A, all rated ${allowed.join(' or ')} A`,
        },
      ];
    }
    return bad.map((box): Verdict => {
      const fits = allowed.find((a): a is 15 | 20 | 30 | 50 => [15, 20, 30, 50].includes(a));
      return {
        level: 'violation',
        section: rating === 10 ? '210.23(A)' : '210.21(B)(3)',
        message:
          allowed.length === 0
            ? `${box.name}: no receptacle belongs on a ${rating} A circuit with others`
            : `${box.name} is rated ${box.device.rating} A on a ${rating} A circuit; allowed: ${allowed.join(' or ')} A`,
        measured: { value: box.device.rating, unit: 'A' },
        limit: { value: rating, unit: 'A' },
        fixes:
          fits === undefined
            ? []
            : [
                {
                  label: `Install a ${fits} A receptacle at ${box.name}`,
                  command: changeDevice(box, { rating: fits }),
                },
              ],
      };
    });
  },
});
