/** What lies before and beyond on a circuit. */
import type { Run } from '#core/circuits/run.ts';
import type { Cause, CausePlace } from './causes.ts';

export class Topology {
  /** By stop: it and everything fed through it. */
  private readonly below: readonly ReadonlySet<number>[];
  private readonly run: Run;

  constructor(run: Run) {
    this.run = run;
    const below = run.stops.map((_, i) => new Set([i]));
    for (let i = run.stops.length - 1; i >= 0; i--) {
      const { feeder } = run.stops[i]!;
      if (feeder >= 0) for (const s of below[i]!) below[feeder]!.add(s);
    }
    this.below = below;
  }

  /** Boxes that are fed from one. */
  goesOn(stop: number): number[] {
    return this.run.stops.flatMap(({ feeder }, i) => (feeder === stop ? [i] : []));
  }

  feeds(stop: number, other: number): boolean {
    return this.below[stop]?.has(other) ?? false;
  }

  /** Whether a place lies past a box: in the cables that go on from it, or in what they reach. */
  isBeyond(place: CausePlace, stop: number): boolean {
    return 'stop' in place && place.stop !== stop && this.feeds(stop, place.stop);
  }

  /** Stops that lose what is parted by a cause on the way to them. */
  cutOff({ place, faults }: Cause, stop: number): boolean {
    const [fault] = faults;
    if (place.at === 'panel' || place.at === 'service') return true;
    if (!fault || !('stop' in fault)) return false;
    // What lands on a device alone takes no other box with it.
    if ('part' in fault && fault.part === 'tail') return fault.stop === stop;
    return this.feeds(fault.stop, stop);
  }

  /** A place and the ones beside it on the run. */
  isNear(place: CausePlace, stop: number): boolean {
    if (!('stop' in place)) return false;
    if (place.at === 'box') return place.stop === stop;
    return place.stop === stop || this.run.stops[place.stop]?.feeder === stop;
  }
}
