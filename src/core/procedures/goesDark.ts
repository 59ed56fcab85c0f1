/** What loses power with a circuit, from all that is on record; shown before any breaker is turned off. */
import { runOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import type { Circuit, FixtureKind } from '#core/job/schema.ts';
import { isOutlet } from '#core/plan/wallSpaces.ts';
import type { View } from '#core/view/view.ts';

export interface GoesDark {
  circuit: Circuit;
  /** Outlets by name and room. */
  outlets: { name: string; room: string }[];
  /** What hangs on them by name. */
  appliances: string[];
  /** What somebody has to look after while it is off, and why. */
  watch: { name: string; why: string }[];
  /** Every outlet of it is on record; else more may go dark. */
  whole: boolean;
}

const WATCH: Partial<Record<FixtureKind, string>> = {
  refrigerator: 'food thaws: a few hours, doors shut',
  'sump-pump': 'water rises while it is off',
  furnace: 'no heat while it is off',
  boiler: 'no heat while it is off',
  'heat-pump': 'no heat or cooling while it is off',
};

/** What goes dark with each of some circuits. */
export function goesDark(view: View, circuits: readonly Circuit[]): GoesDark[] {
  return circuits.map((circuit) => {
    const stops = runOf(view, circuit).stops.filter(({ box }) => box.status !== 'remove');
    const served = stops.flatMap(({ box }) => servedBy(view.document, box) ?? []);
    const alarms = stops.filter(({ box }) => box.device.kind === 'smoke-alarm');
    return {
      circuit,
      outlets: stops
        .filter(({ box }) => isOutlet(box))
        .map(({ box, area }) => ({ name: box.name, room: area.name })),
      appliances: [...new Set(served.map((f) => f.name))],
      watch: [
        ...served.flatMap((f) => {
          const why = WATCH[f.kind];
          return why === undefined ? [] : [{ name: f.name, why }];
        }),
        ...(alarms.length > 0
          ? [{ name: 'smoke alarms', why: 'on their batteries while it is off, if these are good' }]
          : []),
      ],
      whole: circuit.complete === 'yes',
    };
  });
}
