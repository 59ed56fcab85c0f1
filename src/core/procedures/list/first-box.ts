import { breakerFor } from '../parts/breaker.ts';
import { chainOn, chainSteps } from '../parts/chain.ts';
import { atOutlet } from '../parts/frame.ts';
import type { Procedure } from '../step.ts';

export const firstBox: Procedure = {
  id: 'first-box',
  title: 'First box of a chain',
  use: 'One GFCI is to protect a whole chain, and nobody knows which box is fed first.',
  steps: (c) =>
    atOutlet(
      c,
      'duplex',
      'outlet of the chain',
      (box) => [...breakerFor(c, box), ...chainSteps(c)],
      () => {
        if (!c.circuit) return [];
        const { first, left, mayBeFirst } = chainOn(c.document, c.circuit);
        const name = (id: string) => c.document.boxes[id]?.name ?? id;
        return [
          {
            text:
              first !== null
                ? `${name(first)} is fed first.`
                : `May be first: ${mayBeFirst.map(name).join(', ') || 'none that fits'}.`,
            because: left === null ? '' : `${left} orders fit what was seen.`,
          },
        ];
      },
    ),
};
