import { always } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { rule } from '../rule.ts';
import { namesOf } from './names.ts';

export const whiteAsHot = rule({
  id: 'white-as-hot',
  title: 'White conductor used as a hot',
  scope: 'circuit',
  clears: ['conductors'],
  level: 'violation',
  sections: always('200.7(C)'),
  why: 'The next one to open the box takes a white wire for a neutral; a permanent mark at every end says it is not.',
  check(circuit, view) {
    // A raceway is pulled with colors to suit, and its white may not be marked over.
    if (circuit.cable === 'raceway') return [];
    const two = circuit.breaker.poles === 2 && !circuit.neutral;
    const stops = runOf(view, circuit).stops.filter(
      (s) => s.box.status !== 'remove' && (two || s.role === 'switch-loop'),
    );
    if (stops.length === 0) return [];
    const bare = stops.filter((s) => s.stop.whiteMarked === 'no');
    if (bare.length > 0)
      return [
        {
          level: 'violation',
          message: `the white is a hot and not marked at ${namesOf(bare)}: tape or paint it at every end, not white, gray or green`,
        },
      ];
    const open = stops.filter((s) => s.stop.whiteMarked === 'unknown');
    if (open.length === 0)
      return [{ level: 'satisfied', message: 'the white that serves as a hot is marked at every end' }];
    return circuit.status === 'existing'
      ? [
          {
            level: 'unknown',
            message: `whether the white hot is marked at ${namesOf(open)} is not on record`,
          },
        ]
      : [{ level: 'note', message: `mark the white as a hot at both ends of the cable to ${namesOf(open)}` }];
  },
});
