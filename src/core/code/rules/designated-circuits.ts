import { always } from '#core/tables/editions.ts';
import { dutiesOn } from '#core/panel/jobLoad.ts';
import { runOf } from '#core/circuits/run.ts';
import type { Duty } from '#core/panel/duty.ts';
import type { Command } from '#core/job/commands.ts';
import { changeBreaker, rule, type Verdict } from '../rule.ts';
import { isAltered, namesOf } from './names.ts';

const KIND: Partial<Record<Duty, { name: string; section: string }>> = {
  'small-appliance': { name: 'small-appliance circuit', section: '210.11(C)(1), 210.52(B)(2)' },
  laundry: { name: 'laundry circuit', section: '210.11(C)(2)' },
  bathroom: { name: 'bathroom circuit', section: '210.11(C)(3)' },
  garage: { name: 'garage circuit', section: '210.11(C)(4)' },
  heating: { name: 'circuit for the central heating', section: '422.12' },
};

export const designatedCircuits = rule({
  id: 'designated-circuits',
  title: 'What a designated circuit may feed',
  scope: 'circuit',
  level: 'violation',
  sections: always('210.11(C)'),
  why: 'Kitchens, laundries, bathrooms, garages and heating get circuits of their own because they use them up.',
  check(circuit, view) {
    const { duty, strangers } = dutiesOn(view, circuit);
    const kind = KIND[duty];
    if (!kind) return [];
    const { stops } = runOf(view, circuit);
    const { name, section } = kind;
    // An old mixed circuit stays as it is until what makes it a designated one is altered, or something is added to
    // one that fed nothing else.
    const proper = stops.filter((s) => s.box.status !== 'remove' && !strangers.includes(s));
    const added = strangers.length > 0 && strangers.every((s) => s.box.status === 'new');
    const level = circuit.status !== 'existing' || isAltered(proper) || added ? 'violation' : 'note';
    const old = level === 'note' ? '; existing and not altered' : '';
    const found: Verdict[] = [];
    if (strangers.length > 0) {
      const commands = strangers.map(({ box }): Command => ({
        type: 'move-stop',
        boxId: box.id,
        circuitId: null,
        after: null,
      }));
      const label = `Take ${namesOf(strangers)} off ${circuit.name}`;
      found.push({
        level,
        section,
        message: `a ${name} may not feed ${namesOf(strangers)}${old}`,
        fixes: [{ label, command: { type: 'batch', label, commands } }],
      });
    }
    const kitchens = new Set(proper.filter((s) => s.area.kind === 'kitchen').map((s) => s.area.name));
    if (duty === 'small-appliance' && kitchens.size > 1)
      found.push({
        level,
        section: '210.52(B)(3)',
        message: `one small-appliance circuit may not feed two kitchens: ${[...kitchens].join(' and ')}${old}`,
      });
    const { rating } = circuit.breaker;
    if (duty !== 'heating' && rating < 20) {
      const thin = circuit.gauge === '14';
      found.push({
        level,
        section,
        message: `a ${name} is of 20 A; this one is of ${rating} A${thin ? ', on 14 AWG that cannot have more' : ''}${old}`,
        measured: { value: rating, unit: 'A' },
        limit: { value: 20, unit: 'A' },
        fixes: thin ? [] : [{ label: 'Fit a 20 A breaker', command: changeBreaker(circuit, { rating: 20 }) }],
      });
    }
    return found.length > 0
      ? found
      : [{ level: 'satisfied', section, message: `a ${name} that feeds nothing else` }];
  },
});
