/** A step of the work in a box, and what steps turn on. */
import type { Run, RunStop } from '#core/circuits/run.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import type { DeviceRecord } from '../devices.ts';
import type { End } from '../wiring.ts';

export interface WorkStep {
  /** Its own name among the steps of the box, for what is ticked. */
  key: string;
  text: string;
  /** Why, or what to watch for. */
  because: string;
  /** A neutral of the box is parted: shut until that is safe. */
  partsNeutral?: boolean;
  /** Ends that it puts where they belong. */
  lands?: readonly string[];
  /** Done with the power back, after the box is closed. */
  afterPower?: boolean;
}

/** A box of a run, with what its steps turn on. */
export interface Site {
  run: Run;
  stop: RunStop;
  wiring: BoxWiring;
  ends: readonly End[];
  device: DeviceRecord | null;
  /** The outlets that it feeds, a cable to each. */
  onward: RunStop[];
  /** No equipment ground is in the box. */
  bare: boolean;
  nameOf: (box: string) => string;
}

/** Boxes by their names. */
export const names = (stops: readonly RunStop[]): string => stops.map((s) => s.box.name).join(', ');
