/** What is known of an outlet that its rules and its form both turn on. */
import { stopOf } from '#core/circuits/run.ts';
import type { Box } from '#core/job/schema.ts';
import type { View } from '#core/view/view.ts';

/** A fan hangs from the box, or it is the outlet inside one. */
export const carriesFan = ({ purpose, seen }: Box): boolean =>
  purpose === 'ceiling-fan' || seen.luminaire === 'fan';

/** Its conductors are aluminum: by its circuit, or as somebody saw them. */
export const onAluminum = (view: View, box: Box): boolean =>
  stopOf(view, box)?.circuit.material === 'aluminum' || (box.found?.signs.includes('aluminum') ?? false);
