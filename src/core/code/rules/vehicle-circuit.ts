import { at, always } from '#core/tables/editions.ts';
import { outletsOf, runOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import type { Command } from '#core/job/commands.ts';
import { plateAmps } from '#core/panel/jobLoad.ts';
import { rule, type Verdict } from '../rule.ts';
import { VEHICLE_SHARED } from '#core/tables/circuits.ts';
import { namesOf } from './names.ts';

export const vehicleCircuit = rule({
  id: 'vehicle-circuit',
  title: 'EV charging on a circuit of its own',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: always('625.40'),
  why: 'A car draws its whole current for hours: nothing else fits beside it.',
  check(circuit, view) {
    const outlets = outletsOf(runOf(view, circuit));
    const shared = at(VEHICLE_SHARED, view.edition);
    return outlets.flatMap((stop): Verdict[] => {
      const fixture = servedBy(view.document, stop.box);
      if (fixture?.kind !== 'vehicle-charger' && stop.box.purpose !== 'vehicle') return [];
      const amps = fixture ? plateAmps(fixture) : null;
      const volts = fixture?.nameplate?.volts ?? (stop.box.device.volts === '125' ? 120 : 240);
      const others = outlets.filter(
        (s) => s !== stop && (fixture === undefined || s.box.serves !== fixture.id),
      );
      const name = fixture?.name ?? stop.box.name;
      if (others.length === 0)
        return [{ level: 'satisfied', message: `${name} has ${circuit.name} to itself` }];
      if (shared && amps !== null && amps <= shared.amps && volts <= shared.volts)
        return [
          {
            level: 'satisfied',
            message: `${name}: ${amps} A at ${volts} V may share a circuit; at most ${shared.amps} A at ${shared.volts} V`,
          },
        ];
      const commands = others.map(({ box }): Command => ({
        type: 'move-stop',
        boxId: box.id,
        circuitId: null,
        after: null,
      }));
      const label = `Take ${namesOf(others)} off ${circuit.name}`;
      return [
        {
          level: 'violation',
          message: `${name} shares ${circuit.name} with ${namesOf(others)}; a vehicle’s outlet needs a circuit of its own`,
          fixes: [{ label, command: { type: 'batch', label, commands } }],
        },
      ];
    });
  },
});
