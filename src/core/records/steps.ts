/** What the hands do inside a box, from the circuit's own topology. Shown only behind a valid proof of dead. */
import type { Run, RunStop } from '../circuits/run.ts';

export interface WorkStep {
  text: string;
  /** Why, or what to watch for. */
  because: string;
}

/** Cables that enter the box of a stop: the feed and one for each box it feeds. */
export const cablesAt = (run: Run, stop: RunStop): number =>
  1 + run.stops.filter((s) => run.stops[s.feeder] === stop).length;

/** The steps for one receptacle box, in order: the ground is landed first and taken off last. */
export function stepsFor(run: Run, stop: RunStop): WorkStep[] {
  const { box } = stop;
  const onward = run.stops.filter((s) => run.stops[s.feeder] === stop).map((s) => s.box.name);
  const cables = cablesAt(run, stop);
  const two = run.circuit.cable === 'old two-wire';
  const steps: WorkStep[] = [
    {
      text: `Count the cables: the plan has ${cables}${onward.length > 0 ? `, the feed and on to ${onward.join(', ')}` : ', the feed alone'}.`,
      because:
        'Another number means the plan or the box is not what it seems; a box may hold a second circuit.',
    },
    {
      text: 'Take a picture before anything is moved.',
      because: 'Copy what is right; do not copy what is wrong.',
    },
  ];
  if (box.grounding === 'unknown') {
    steps.push({
      text: 'Look for an equipment ground and record what is there.',
      because: 'Hot to box must be measured before a box is called ungrounded.',
    });
  }
  if (box.grounding === 'none' || two) {
    steps.push({
      text: 'Look at the ground screw: nothing may join it to the neutral.',
      because:
        'A jumper there reads correct and puts 120 V on every plugged-in frame when the neutral opens.',
    });
  } else {
    steps.push({
      text: `Join all grounds and take one tail to the green screw${onward.length > 0 ? '; the splice must stand without the device' : ''}.`,
      because: 'Taking a device out must not break the ground for what follows.',
    });
  }
  if (box.device.kind === 'gfci') {
    steps.push({
      text: `Land the feed on LINE${onward.length > 0 ? ` and the cable to ${onward.join(', ')} on LOAD` : '; leave the tape on LOAD'}. Read the back: positions differ by make.`,
      because: 'Reversed, it will not reset or leaves the downstream outlets unprotected.',
    });
  }
  steps.push(
    {
      text: 'White to silver, then black to brass; tighten to the torque marked on the device. Tighten unused screws.',
      because: 'Ground, neutral, hot on; the reverse off. Loose screws are where opens and heat begin.',
    },
    {
      text: 'Tug each conductor, fold them in, mount the device level and snug.',
      because: 'Power drivers on low clutch at most; final torque by hand.',
    },
  );
  return steps;
}
