import { stopOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import { plateAmps } from '#core/panel/jobLoad.ts';
import { always } from '#core/tables/editions.ts';
import { FIXTURES } from '#core/tables/fixtures.ts';
import { round } from '#core/units/quantity.ts';
import { rule } from '../rule.ts';

/** Share of its rating that a switch may have of motors, 404.14(A)(3). */
const MOTOR_SHARE = 0.8;

export const switchRating = rule({
  id: 'switch-rating',
  title: 'Switch against what it controls',
  scope: 'box',
  level: 'violation',
  sections: always('404.14'),
  why: 'Contacts that carry more than they are made for weld shut or burn.',
  check(box, view) {
    if (box.device.kind !== 'switch' || box.status === 'remove') return [];
    const loads = box.controls.flatMap((id) => {
      const at = view.document.boxes[id];
      const fixture = at && servedBy(view.document, at);
      return fixture && at.status !== 'remove' ? [{ fixture, amps: plateAmps(fixture) }] : [];
    });
    if (loads.length === 0) return [];
    const lacking = loads.filter((l) => l.amps === null).map((l) => l.fixture.name);
    if (lacking.length > 0)
      return [
        {
          level: 'unknown',
          message: `${box.name} controls ${lacking.join(', ')}, of which no nameplate is on record`,
        },
      ];
    const of = (motor: boolean) =>
      loads.filter((l) => FIXTURES[l.fixture.kind].motor === motor).reduce((sum, l) => sum + l.amps!, 0);
    const amps = of(false) + of(true) / MOTOR_SHARE;
    const { rating } = box.device;
    const names = loads.map((l) => l.fixture.name).join(', ');
    const quantities = {
      measured: { value: round(amps, 1), unit: 'A' },
      limit: { value: rating, unit: 'A' },
    } as const;
    const counted = of(true) > 0 ? `, motors at 80 % of the switch` : '';
    const volts = Math.max(...loads.map((l) => l.fixture.nameplate!.volts));
    const high = volts > 150 && box.device.volts === '125';
    if (amps > rating + 1e-9 || high)
      return [
        {
          level: 'violation',
          message: high
            ? `${box.name} is for 120 V and switches ${names} at ${volts} V`
            : `${box.name}, ${rating} A, switches ${round(amps, 1)} A: ${names}${counted}`,
          ...quantities,
        },
      ];
    const poles = stopOf(view, box)?.circuit.breaker.poles ?? 1;
    return [
      {
        level: 'satisfied',
        message: `${box.name}, ${rating} A, switches ${round(amps, 1)} A${poles === 2 ? ' at 240 V' : ''}: ${names}${counted}`,
        ...quantities,
      },
    ];
  },
});
