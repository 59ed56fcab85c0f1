/** Every single fault that a circuit may plausibly have, by its own places. */
import type { Fault } from '#core/network/faults.ts';
import type { Conductor, Part, Wiring } from '#core/network/wiring.ts';

/** Ohms of a joint that heats, and of two conductors that touch. */
const POOR_OHMS = 1;
const TOUCH_OHMS = 0.05;

/** One of them for a seed: for a meter at a circuit of which nobody says what is wrong. */
export function hiddenFault(wiring: Wiring, seed: number): Fault {
  const faults = everyFault(wiring);
  // Any spread does: the seeds are small whole numbers.
  return faults[(Math.imul(seed, 2654435761) >>> 0) % faults.length]!;
}

/** Faults box by box; those of the panel come first. */
export function everyFault({ spots, terminals, panel }: Wiring): Fault[] {
  const faults: Fault[] = [];
  const has = (stop: number, conductor: Conductor, part: Part) =>
    spots.some((s) => s.stop === stop && s.conductor === conductor && s.part === part);
  for (const { stop, conductor, part } of spots)
    if (stop < 0 && part === 'supply') faults.push({ kind: 'open', stop, conductor, part });
  if (panel.breaker.red !== null) faults.push({ kind: 'same-leg' });
  terminals.forEach((_, stop) => {
    const here = spots.filter((s) => s.stop === stop);
    for (const { conductor, part } of here)
      // A tail that is open at its splice reads as one that is open at its screw.
      if (part !== 'load' && part !== 'cord' && part !== 'cable' && part !== 'tail')
        faults.push({ kind: 'open', stop, conductor, part });
    for (const { conductor, part } of here)
      if (part === 'end' || part === 'terminal')
        faults.push({ kind: 'resistance', stop, conductor, part, ohms: POOR_OHMS });
    const conductors = [...new Set(here.filter((s) => s.part === 'terminal').map((s) => s.conductor))];
    conductors.forEach((a, i) => {
      for (const b of conductors.slice(i + 1)) {
        faults.push({ kind: 'short', stop, conductors: [a, b], ohms: TOUCH_OHMS });
        faults.push({ kind: 'swap', stop, conductors: [a, b] });
      }
    });
    if (has(stop, 'neutral', 'terminal')) {
      faults.push({ kind: 'false-ground', stop });
      faults.push({ kind: 'other-hot', stop, leg: 'same' }, { kind: 'other-hot', stop, leg: 'other' });
      faults.push({ kind: 'other-neutral', stop });
      if (here.some((s) => s.part === 'contact' && s.conductor === 'neutral'))
        faults.push(
          { kind: 'reversed', stop, age: 'since-2006' },
          { kind: 'reversed', stop, age: 'before-2006' },
        );
    }
  });
  return faults;
}
