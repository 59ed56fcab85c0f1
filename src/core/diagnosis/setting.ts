/** Where a reading is taken: the run and stop of an outlet. */
import { buildRun, type Run, runOf } from '#core/circuits/run.ts';
import type { View } from '#core/view/view.ts';
import { breakerOf, PLAIN_CIRCUIT, stopAt } from '#core/job/document.ts';
import type { Box, Circuit, Reading, Settings } from '#core/job/schema.ts';
import { isSaidOff } from '#core/records/proof.ts';
import { takesBothHots } from '#core/records/faces.ts';
import { judge, unjudged, type Setting, type Verdict } from './verdict.ts';

/** Cable to an outlet of which no circuit is on record, inches. */
const NEAR = 12;

/** Runs of outlets that are on no circuit: as if they hung on the panel by a foot of cable. */
const alone = new WeakMap<Settings, WeakMap<Box, Run>>();

function runAlone(view: View, box: Box): Run {
  const { settings } = view.document.job;
  const known = alone.get(settings) ?? new WeakMap<Box, Run>();
  alone.set(settings, known);
  let run = known.get(box);
  if (!run) {
    const twoHots = takesBothHots(box);
    const circuit: Circuit = {
      ...PLAIN_CIRCUIT,
      id: 'circuit-none',
      panelId: 'panel-none',
      space: 1,
      name: 'No circuit',
      status: 'existing',
      breaker: { ...breakerOf(20), poles: twoHots ? 2 : 1 },
      gauge: '12',
      neutral: box.device.volts !== '250',
      stops: [{ ...stopAt(box.id, null), measured: NEAR }],
    };
    run = buildRun(view.document, circuit);
    known.set(box, run);
  }
  return run;
}

/** @param at UTC time of the reading; without it the breaker is not taken to be off */
export function settingOf(view: View, box: Box, at?: string): Setting {
  const { settings } = view.document.job;
  const circuit = view.circuitOf(box.id);
  const run = circuit ? runOf(view, circuit) : runAlone(view, box);
  const stop = run.stops.findIndex((s) => s.box.id === box.id);
  const off = circuit !== null && at !== undefined && isSaidOff(view.document, circuit, at);
  const panel = circuit ? view.document.panels[circuit.panelId] : undefined;
  const behindFeeder = panel !== undefined && panel.feeder !== null;
  const switched = box.device.switched !== 'none' || view.switchesOf(box).length > 0;
  return { run, stop, grounding: box.grounding, settings, off, behindFeeder, switched };
}

/** Judges a reading against the plan of the job it belongs to. */
export function judgeIn(view: View, reading: Reading): Verdict {
  const box = view.document.boxes[reading.boxId];
  return box ? judge(reading, settingOf(view, box, reading.at)) : UNKNOWN_PLACE;
}

/** A reading of an outlet that is no longer in the job. */
const UNKNOWN_PLACE = unjudged('Its outlet is no longer in the job', {
  hotNeutral: null,
  hotGround: null,
  neutralGround: null,
  hotHot: null,
});
