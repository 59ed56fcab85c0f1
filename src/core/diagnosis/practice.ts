/** A circuit to practice on: as it is on record, with a fault that nobody says, and with what was tied or parted. */
import { actualBoxes } from '#core/boxes/planned.ts';
import type { Run } from '#core/circuits/run.ts';
import { look, nodeAt, type Look, type Showing } from '#core/instruments/look.ts';
import type { Temporary } from '#core/job/schema.ts';
import { faultName } from '#core/network/faultWords.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import type { Load } from '#core/network/places.ts';
import { rangeOf, type Range } from '#core/network/ranges.ts';
import { resistor } from '#core/network/read.ts';
import { wiringOf, type Wiring } from '#core/network/wiring.ts';
import { hiddenFault } from './hypotheses.ts';

/** Ohms of a tie with its two clips. */
const TIE_OHMS = 0.02;

export interface Practice {
  run: Run;
  /** The breaker is off. */
  dead: boolean;
  /** Number that stands for a fault; 0 for none. */
  hidden: number;
  temporaries: readonly Temporary[];
}

/** The network of a practice circuit. */
function practiceWiring({ run, dead, hidden, temporaries }: Practice, loads: readonly Load[] = []): Wiring {
  const sound = wiringOf(run, { amps: new Map(), loads, open: new Set(), dead }, actualBoxes(run));
  const faulty = hidden === 0 ? sound : withFaults(sound, [hiddenFault(sound, hidden)]);
  const stopOf = (t: Temporary) => run.stops.findIndex((s) => s.box.id === t.boxId);
  const here = temporaries.filter((t) => stopOf(t) >= 0);
  const apart = here
    .filter((t) => t.kind === 'separated')
    .flatMap((t) => t.ends.map((end): Fault => ({ kind: 'landing', stop: stopOf(t), end, place: null })));
  const parted = withFaults(
    faulty,
    apart.filter((f) => f.kind === 'landing' && faulty.inBox[f.stop]!.has(f.end)),
  );
  const ties = here
    .filter((t) => t.kind === 'tie')
    .flatMap((t) => {
      const nodes = t.ends.flatMap((end) => parted.inBox[stopOf(t)]!.get(end) ?? []);
      return nodes.slice(1).map((node) => resistor(nodes[0]!, node, TIE_OHMS));
    });
  return { ...parted, branches: [...parted.branches, ...ties] };
}

/** The hidden fault in the words of the trade. */
export function practiceAnswer({ run, dead, hidden }: Omit<Practice, 'temporaries'>): string {
  if (hidden === 0) return 'Nothing is wrong';
  const sound = wiringOf(run, { amps: new Map(), open: new Set(), dead }, actualBoxes(run));
  return faultName(hiddenFault(sound, hidden), {
    box: (stop) => run.stops[stop]?.box.name ?? '',
    circuit: () => run.circuit.name,
  });
}

/** What an instrument shows there. @throws when the box has no such place */
export const practiceLook = (practice: Practice, asked: Look): Showing =>
  look(practiceWiring(practice), asked);

/**
 * What a meter may show between two places of sound wiring, by what of the planned load is on elsewhere on the circuit; null
 * where it is dead, or has no such places.
 */
export function soundRange({ run, dead, temporaries }: Omit<Practice, 'hidden'>, asked: Look): Range | null {
  if (dead || asked.to === null || asked.inputOhms === null) return null;
  const loads = run.stops.flatMap(({ ownAmps }, stop): Load[] =>
    stop === asked.stop || ownAmps === 0 ? [] : [{ stop, amps: ownAmps }],
  );
  const wiring = practiceWiring({ run, dead, hidden: 0, temporaries }, loads);
  const [a, b] = [nodeAt(wiring, asked.stop, asked.node), nodeAt(wiring, asked.stop, asked.to)];
  if (a === null || b === null) return null;
  return rangeOf(
    wiring,
    { a, b, ohms: asked.inputOhms },
    wiring.loads.map((l) => l.branch),
  );
}

/** What it would show if the wiring were sound, as it is on record. @throws as `practiceLook` */
export const soundLook = (practice: Omit<Practice, 'hidden'>, asked: Look): Showing =>
  practiceLook({ ...practice, hidden: 0 }, asked);
