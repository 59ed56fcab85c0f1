import { outletsOf, runOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import { plateAmps } from '#core/panel/jobLoad.ts';
import { round } from '#core/units/quantity.ts';
import { FIXED_SHARE_SECTION } from '#core/tables/circuits.ts';
import { rule } from '../rule.ts';

export const fixedEquipmentShare = rule({
  id: 'fixed-equipment-share',
  title: 'Fixed equipment on a shared circuit',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: FIXED_SHARE_SECTION,
  why: 'What is fastened in place runs when it likes: it may take half a shared circuit, so that the rest has something left.',
  check(circuit, view) {
    const { rating } = circuit.breaker;
    if (rating > 20) return [];
    const { document } = view;
    const outlets = outletsOf(runOf(view, circuit));
    const fixed = outlets.flatMap(({ box }) => {
      const fixture = servedBy(document, box);
      const held = fixture && (fixture.connection === 'hardwired' || fixture.fastened);
      const amps = held ? plateAmps(fixture) : null;
      return fixture && amps !== null ? [{ box, fixture, amps }] : [];
    });
    const shared = outlets.some(({ box }) => !fixed.some((f) => f.box === box));
    if (fixed.length === 0 || !shared) return [];
    const once = fixed.filter((f, i) => fixed.findIndex((g) => g.fixture === f.fixture) === i);
    const amps = once.reduce((sum, f) => sum + f.amps, 0);
    const limit = rating / 2;
    const names = [...new Set(fixed.map((f) => f.fixture.name))].join(', ');
    return [
      {
        level: amps > limit + 1e-9 ? 'violation' : 'satisfied',
        message: `${names}: ${round(amps, 1)} A of a ${rating} A circuit with other outlets; at most ${limit} A`,
        measured: { value: round(amps, 1), unit: 'A' },
        limit: { value: limit, unit: 'A' },
      },
    ];
  },
});
