import { breakerFor } from '../parts/breaker.ts';
import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { fit } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { signs } from '../parts/place.ts';
import type { Procedure } from '../step.ts';

export const replaceReceptacle: Procedure = {
  id: 'replace-receptacle',
  title: 'Replace a receptacle',
  use: 'It is worn, cracked, scorched or painted, or its kind has to change.',
  steps: (c) =>
    atOutlet(c, 'duplex', 'outlet', (box) => [
      asFound(c, box),
      ...signs(c),
      ...breakerFor(c, box),
      ...lookInside(c, box),
      fit(c, box),
      ...wireUp(c, box),
      ...testAfter(c, box),
    ]),
};
