/** The faces of an outlet: what is read with the cover on. */
import type { Box, Reading } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';

/** An outlet for one appliance with both hots. */
export const takesBothHots = (box: Box): boolean => box.device.volts !== '125';

/** A duplex has two faces to read. */
export const facesOf = (box: Box): Reading['half'][] =>
  !isReceptacle(box) || box.device.kind === 'single' || takesBothHots(box) || box.device.rating >= 30
    ? ['both']
    : ['top', 'bottom'];
