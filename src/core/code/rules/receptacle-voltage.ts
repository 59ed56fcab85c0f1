import { always } from '#core/tables/editions.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeCircuit, rule, type Verdict } from '../rule.ts';

export const receptacleVoltage = rule({
  id: 'receptacle-voltage',
  title: 'Receptacle for the voltage of its circuit',
  scope: 'box',
  level: 'violation',
  sections: always('406.4(F)'),
  why: 'The slots promise a voltage: what is plugged in gets the one that is there.',
  check(box, view) {
    if (box.status === 'remove' || !isReceptacle(box)) return [];
    const circuit = view.circuitOf(box.id);
    if (!circuit) return [];
    const { volts } = box.device;
    const two = circuit.breaker.poles === 2;
    const wrong = (message: string, fixes: Verdict['fixes'] = []): Verdict[] => [
      { level: 'violation', message: `${box.name} ${message}`, fixes },
    ];
    if (volts === '125' && two && !circuit.neutral)
      return wrong('is a 125 V receptacle on two hots without a neutral: it would give 240 V');
    if (volts !== '125' && !two)
      return wrong(`is a ${volts} V receptacle on a breaker with one pole: it would give 120 V at most`);
    if (volts === '125/250' && !circuit.neutral)
      return wrong('is a 125/250 V receptacle and its circuit has no neutral', [
        { label: 'Run a neutral with the hots', command: changeCircuit(circuit, { neutral: true }) },
      ]);
    return volts === '125'
      ? []
      : [
          {
            level: 'satisfied',
            message: `${volts} V receptacle on two hots${circuit.neutral ? ' and a neutral' : ''}`,
          },
        ];
  },
});
