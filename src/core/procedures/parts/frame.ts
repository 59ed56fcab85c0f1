/** What every procedure begins and ends with. */
import type { Box, DeviceKind } from '#core/job/schema.ts';
import type { Context, Line, Step } from '../step.ts';
import { record } from './finish.ts';
import { which } from './place.ts';
import { danger, isLeft } from './start.ts';

type Steps = readonly (Step | false | null)[];

/** A procedure that is about no one outlet. */
export const framed = (c: Context, steps: () => Steps, lines: () => readonly Line[] = () => []): Steps =>
  isLeft(c) ? [...danger(c), record(c)] : [...danger(c), ...steps(), record(c, lines())];

/** A procedure at one outlet: its place first. @param values what it begins as where nobody has looked at it */
export const atOutlet = (
  c: Context,
  device: DeviceKind,
  what: string,
  steps: (box: Box) => Steps,
  lines: (box: Box) => readonly Line[] = () => [],
  values: Partial<Box> = {},
): Steps =>
  framed(
    c,
    () => [which(c, device, what, values), ...(c.box ? steps(c.box) : [])],
    () => (c.box ? lines(c.box) : []),
  );
