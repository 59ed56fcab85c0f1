import { always } from '#core/tables/editions.ts';
import { dutiesOn } from '#core/panel/jobLoad.ts';
import { runOf } from '#core/circuits/run.ts';
import type { Duty } from '#core/panel/duty.ts';
import type { Command } from '#core/job/commands.ts';
import type { Circuit } from '#core/job/schema.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { View } from '#core/view/view.ts';
import { changeBreaker, rule, type Verdict } from '../rule.ts';
import { isAltered, namesOf } from './names.ts';

const KIND: Partial<Record<Duty, { name: string; section: string }>> = {
  'small-appliance': { name: 'small-appliance circuit', section: '210.11(C)(1), 210.52(B)(2)' },
  laundry: { name: 'laundry circuit', section: '210.11(C)(2)' },
  bathroom: { name: 'bathroom circuit', section: '210.11(C)(3)' },
  garage: { name: 'garage circuit', section: '210.11(C)(4)' },
  heating: { name: 'circuit for the central heating', section: '422.12' },
};

/**
 * One garage circuit is bound to feed nothing else; further ones are free. Another that feeds nothing else, is of 20 A and carries a receptacle for each bay: then this
 * one is not bound. Null where this one is bound, or needs no excuse.
 */
function furtherThan(view: View, circuit: Circuit, strangers: number): Circuit | null {
  if (strangers === 0 && circuit.breaker.rating >= 20) return null;
  const bays = Math.max(
    1,
    ...view.rows('areas').flatMap((a) => (a.kind === 'garage' ? [a.conditions.bays] : [])),
  );
  const bound = view.rows('circuits').find((other) => {
    if (other.id === circuit.id || other.status === 'remove' || other.breaker.rating < 20) return false;
    const duties = dutiesOn(view, other);
    const receptacles = runOf(view, other).stops.filter(
      (s) => s.area.kind === 'garage' && isSmallReceptacle(s.box) && s.box.status !== 'remove',
    );
    return duties.duty === 'garage' && duties.strangers.length === 0 && receptacles.length >= bays;
  });
  return bound ?? null;
}

export const designatedCircuits = rule({
  id: 'designated-circuits',
  title: 'What a designated circuit may feed',
  scope: 'circuit',
  clears: ['all outlets', 'conductors'],
  level: 'violation',
  sections: always('210.11(C)'),
  why: 'Kitchens, laundries, bathrooms, garages and heating get circuits of their own because they use them up.',
  check(circuit, view) {
    const { duty, strangers } = dutiesOn(view, circuit);
    const kind = KIND[duty];
    if (!kind) return [];
    const { stops } = runOf(view, circuit);
    const { name, section } = kind;
    const first = duty === 'garage' ? furtherThan(view, circuit, strangers.length) : null;
    if (first)
      return [
        {
          level: 'satisfied',
          section,
          message: `a further ${name}: ${first.name} is the one that may feed nothing else`,
        },
      ];
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
        fixes: thin
          ? []
          : [{ label: 'Install a 20 A breaker', command: changeBreaker(circuit, { rating: 20 }) }],
      });
    }
    return found.length > 0
      ? found
      : [{ level: 'satisfied', section, message: `a ${name} that feeds nothing else` }];
  },
});
