/** Every kind of box, as planned in each school: volts at every contact for every position of its switches. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { KINDS, runOfKind, SCHOOLS } from '#core/boxes/testing.ts';
import { LOW_OHMS, readVolts } from '#core/instruments/meter.ts';
import { wiringOf } from './wiring.ts';

const subsets = (list: readonly number[]): number[][] =>
  list.reduce<number[][]>((all, one) => [...all, ...all.map((s) => [...s, one])], [[]]);
/** Ghosts of floating conductors and what electronic switches let through are no volts on a meter that loads. */
const NOTHING = 3;
const is = (volts: number, wanted: number, what: string) =>
  assert.ok(Math.abs(volts - wanted) < NOTHING, `${what}: ${volts.toFixed(1)} V, expected ${wanted}`);

for (const kind of KINDS)
  test(`volts at every contact: ${kind.name}`, () => {
    for (const school of SCHOOLS) {
      const run = runOfKind(kind, school);
      const acting = run.stops.flatMap(({ box: b }, i) =>
        ['switch', 'gfci', 'outlet-afci'].includes(b.device.kind) ? [i] : [],
      );
      for (const open of subsets(acting)) {
        const thrown = new Set(open.map((i) => run.stops[i]!.box.name));
        const states = kind.faces(thrown);
        const wiring = wiringOf(run, { amps: new Map(), open: new Set(open) });
        const between = (a: number | null, b: number | null): number | null =>
          a === null || b === null ? null : readVolts(wiring, a, b, LOW_OHMS);
        run.stops.forEach(({ box: b }, i) => {
          const { faces, ground: slot } = wiring.terminals[i]!;
          for (const face of faces) {
            const state = states[`${b.name} ${face.name}`] ?? states[b.name] ?? 'live';
            const what = `${b.name} ${face.name}, ${school.joining}, thrown ${[...thrown].join(' ') || 'none'}`;
            const ground = face.ground ?? slot;
            const [hn, hg, hh] = [
              between(face.hot, face.neutral),
              between(face.hot, ground),
              between(face.hot, face.hotB),
            ];
            if (hn !== null) is(hn, state === 'dead' ? 0 : 120, `${what}: hot to neutral`);
            if (hh !== null) is(hh, state === 'dead' ? 0 : 240, `${what}: hot to hot`);
            is(hg!, state === 'dead' || state === 'bare' ? 0 : 120, `${what}: hot to ground`);
            if (state === 'three') assert.equal(ground, face.neutral, what);
            if (state === 'both' && face.neutral !== null)
              is(between(face.neutral, ground)!, 0, `${what}: neutral to ground`);
          }
        });
      }
    }
  });
