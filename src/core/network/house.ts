/** The house of a job: every panel from the service on, and what its circuits take. */
import { actualBoxes } from '#core/boxes/planned.ts';
import { lengthOf, panelPlace, plannedBetween, runOf } from '#core/circuits/run.ts';
import { rows } from '#core/job/document.ts';
import type { Circuit, Panel } from '#core/job/schema.ts';
import { legsOf, type Leg } from '#core/panel/spaces.ts';
import { ohmsPerThousandFeet } from '#core/tables/conductors.ts';
import type { View } from '#core/view/view.ts';
import { ELECTRODE_OHMS, JOINT_OHMS } from './layout.ts';
import { MAINS_HERTZ } from './network.ts';
import type { Use } from './places.ts';
import { presentedBy, type Presented } from './present.ts';
import type { House, HousePanel, Taken } from './supply.ts';
import type { HouseStudy } from './wiring.ts';

/** Usual ohms: fifty feet of service conductor, and a transformer’s earth with its neighbors. */
const SERVICE: House['service'] = { A: 0.01, B: 0.01, neutral: 0.01, earth: 2 };
/** A feeder’s length where none is known, inches. */
const FEEDER_LENGTH = 600;
const NOTHING: Taken = { A: 0, B: 0, across: 0 };

/** Circuits that are not looked at: with what is planned for them, or with their breakers off. */
export type OthersTake = 'planned' | 'off';

/** The leg of a circuit’s black hot. */
const ownLeg = (circuit: Circuit): Leg => legsOf(circuit)[0] ?? 'A';

/** A circuit of the job as it is studied in its house, with the wiring that is on record. */
export const studyOf = (view: View, circuit: Circuit, use: Use): HouseStudy => {
  const run = runOf(view, circuit);
  return {
    run,
    boxes: actualBoxes(run),
    use,
    panel: panelName(view, circuit.panelId),
    leg: ownLeg(circuit),
  };
};

/** Panels are told apart by name; two of one name by their ids as well. */
function panelName({ document }: View, id: string): string {
  const panel = document.panels[id];
  if (!panel) return id;
  const alike = rows(document.panels).filter((p) => p.name === panel.name);
  return alike.length > 1 ? `${panel.name} (${panel.id})` : panel.name;
}

/** The use of a circuit under its planning loads. */
const asPlanned = (run: HouseStudy['run']): Use => ({
  amps: new Map(run.stops.flatMap((s, i) => (s.ownAmps > 0 ? [[i, s.ownAmps] as const] : []))),
  open: new Set(),
});

/** Folds by run: a house is studied circuit by circuit. */
const folds = new WeakMap<HouseStudy['run'], Map<number, Presented>>();

function folded(view: View, circuit: Circuit, hertz: number): Presented {
  const run = runOf(view, circuit);
  const known = folds.get(run) ?? new Map<number, Presented>();
  folds.set(run, known);
  const found =
    known.get(hertz) ?? presentedBy(studyOf(view, circuit, asPlanned(run)), ownLeg(circuit), hertz);
  known.set(hertz, found);
  return found;
}

/**
 * The house around circuits that are laid out whole; all others are folded into what they present at the bars.
 * @param studied circuits that keep their nodes
 */
export function houseOf(
  view: View,
  studied: readonly Circuit[],
  others: OthersTake,
  hertz = MAINS_HERTZ,
): House {
  const { document } = view;
  const ids = new Set(studied.map((c) => c.id));
  const presented = (panel: Panel): Presented[] =>
    others === 'off'
      ? []
      : rows(document.circuits)
          .filter((c) => c.panelId === panel.id && !ids.has(c.id) && c.status !== 'remove')
          .map((c) => folded(view, c, hertz));
  return {
    service: SERVICE,
    panels: inOrder(rows(document.panels)).map(({ panel, from }): HousePanel => ({
      name: panelName(view, panel.id),
      from: from && panelName(view, from.id),
      feeder: from && feederOhms(view, panel),
      bonded: panel.bonded,
      electrode: panel.electrode ? ELECTRODE_OHMS : null,
      others: NOTHING,
      presented: presented(panel),
    })),
  };
}

/** Every panel after the one that feeds it; one whose feeder leads nowhere or round in a ring stands at the service. */
function inOrder(panels: readonly Panel[]): { panel: Panel; from: Panel | null }[] {
  const placed: { panel: Panel; from: Panel | null }[] = [];
  const pending = [...panels];
  const feederOf = (panel: Panel) =>
    panels.find((p) => p.id === panel.feeder?.panelId && p !== panel) ?? null;
  while (pending.length > 0) {
    const ready = pending.findIndex((p) => {
      const from = feederOf(p);
      return from === null || placed.some((other) => other.panel === from);
    });
    const [panel] = pending.splice(Math.max(ready, 0), 1);
    placed.push({ panel: panel!, from: ready < 0 ? null : feederOf(panel!) });
  }
  return placed;
}

function feederOhms({ document }: View, panel: Panel): HousePanel['feeder'] {
  const feeder = panel.feeder!;
  const from = document.panels[feeder.panelId];
  const { settings } = document.job;
  const length =
    feeder.measured ??
    (from
      ? lengthOf(plannedBetween(settings, panelPlace(document, from), panelPlace(document, panel), true))
      : FEEDER_LENGTH);
  const perThousand =
    ohmsPerThousandFeet(feeder.gauge, feeder.material, settings.conductorTemperature) ?? 0.5;
  const ohms = Math.max((perThousand * length) / 12 / 1000, JOINT_OHMS);
  return { leg: ohms, neutral: ohms, ground: feeder.ground ? ohms : null };
}
