import type { Fixture } from '#core/job/schema.ts';
import { always } from '#core/tables/editions.ts';
import { FIXTURES } from '#core/tables/fixtures.ts';
import { heatsByElements } from '#core/circuits/circuitLoad.ts';
import { plateVa } from '#core/panel/jobLoad.ts';
import { rule } from '../rule.ts';

/** Up to this load an appliance needs no disconnect beside its breaker, 422.31(A), VA. */
const SMALL = 300;

interface Asked {
  section: string;
  /** A breaker that locks open in place serves as well. */
  lockServes: boolean;
  /** What it must be, in words. */
  words: string;
}

/** Which disconnect the code asks for at what is wired in; null where none beside the breaker. */
function asked(fixture: Fixture): Asked | null {
  const { kind, connection } = fixture;
  if (connection !== 'hardwired') return null;
  if (kind === 'outdoor-unit' || kind === 'heat-pump')
    return { section: '440.14', lockServes: false, words: 'in sight of it and readily reached' };
  const facts = FIXTURES[kind];
  if (facts.outOfScope) return null;
  const orLock = 'in sight of it, or its breaker locks open';
  const va = plateVa(fixture);
  if (facts.branch === 'space-heat' || heatsByElements(fixture, va ?? 0))
    return { section: '424.19', lockServes: true, words: `${orLock}, or a switch on it with a marked off` };
  if (kind === 'vehicle-charger') {
    const amps = fixture.nameplate?.amps ?? 0;
    return amps > 60 ? { section: '625.43', lockServes: true, words: orLock } : null;
  }
  // A furnace that burns gas or oil, and an air handler without elements, are motors with a control.
  if (kind === 'motor' || kind === 'furnace' || kind === 'air-handler')
    return { section: '430.102', lockServes: true, words: orLock };
  if (facts.connection === 'none' || (va !== null && va <= SMALL)) return null;
  return { section: '422.31(B)', lockServes: true, words: orLock };
}

export const equipmentDisconnect = rule({
  id: 'equipment-disconnect',
  title: 'Disconnect of fixed equipment',
  scope: 'fixture',
  level: 'violation',
  sections: always('422.31, 424.19, 430.102, 440.14'),
  why: 'Whoever works on it must be able to see, or to lock, what keeps it dead.',
  check(fixture) {
    if (fixture.status === 'remove') return [];
    const want = asked(fixture);
    if (!want) return [];
    const { section, lockServes, words } = want;
    const name = `the ${fixture.name}`;
    const good = fixture.disconnect === 'in-sight' || (fixture.disconnect === 'lockable' && lockServes);
    if (good)
      return [
        {
          level: 'satisfied',
          section,
          message: `${name}: ${fixture.disconnect === 'in-sight' ? 'its disconnect is in sight' : 'its breaker locks open'}`,
        },
      ];
    if (fixture.disconnect === 'unknown')
      return [
        {
          level: 'note',
          section,
          message: `${name} needs a disconnect ${words}: nobody has looked yet`,
        },
      ];
    return [
      {
        level: fixture.status === 'existing' ? 'recommended' : 'violation',
        section,
        message:
          fixture.disconnect === 'lockable'
            ? `${name}: a breaker that locks is not enough, its disconnect must be ${words}`
            : `${name} has no disconnect ${words}`,
      },
    ];
  },
});
