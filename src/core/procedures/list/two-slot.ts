import { breakerFor } from '../parts/breaker.ts';
import { asFound, lookInside, testAfter, wireUp } from '../parts/box.ts';
import { chainSteps } from '../parts/chain.ts';
import { fit } from '../parts/fit.ts';
import { atOutlet } from '../parts/frame.ts';
import { signs } from '../parts/place.ts';
import { OLD_HOUSE } from '../parts/start.ts';
import { measure, optional, volts, when, work, type Procedure } from '../step.ts';

export const twoSlot: Procedure = {
  id: 'two-slot',
  title: 'Two-slot to three holes',
  use: 'An outlet without a ground hole is to take plugs with three pins.',
  steps: (c) =>
    atOutlet(c, 'two-slot', 'outlet', (box) => {
      const { circuit, log } = c;
      const pick = log.pick('fit') ?? '';
      return [
        asFound(c, box),
        ...signs(c),
        ...breakerFor(c, box),
        ...when(
          circuit,
          work(
            'cover',
            'Cover off, dead',
            'A cover that comes off a live old box may tear a brittle conductor with it.',
            [['Plate off, device left in its place; a look at what is brittle or loose.']],
            { inside: box, keepsNeutrals: true, leaves: 'clear', done: 'Off, hands out' },
          ),
          measure(
            'box-first',
            'Hot to metal box, first',
            'Before a box is called ungrounded this is measured: old armored cable and conduit may be a ground.',
            [
              volts('volts', 'Hot to box', '0 without a ground, about 120 with a path'),
              optional({
                name: 'ohms',
                label: 'Ground path',
                unit: 'Ω',
                min: 0,
                max: 1e6,
                expects: 'under 1',
              }),
            ],
            {
              text: 'Power on, nobody working: the hot slot to the metal of the box.',
              caution: 'Probes only. About 120 V shows a path, not a good one: load it, or read its ohms.',
              liveOpen: circuit,
              cannot: 'Plastic box, or cannot be measured',
            },
          ),
        ),
        ...lookInside(c, box),
        fit(c, box, 'What to do about the ground'),
        ...when(
          pick.startsWith('new-') || pick === 'ground-afci',
          work(
            'old-house',
            'Before a wall is opened',
            'What is in old paint and plaster is breathed in by who opens it, and by who lives there.',
            [[OLD_HOUSE]],
            { done: 'Known, seen to' },
          ),
        ),
        ...when(pick === 'first', ...chainSteps(c)),
        ...wireUp(c, box),
        ...testAfter(c, box),
        ...when(
          pick !== '',
          work(
            'card',
            'Card for the owner',
            'An inspector’s tester shows “open ground” here: the card says why it is allowed.',
            [
              [`${box.name}: ${CARDS[pick] ?? 'a ground.'}`],
              ...(PROTECTED.includes(pick)
                ? ([['Surge strips do nothing here, and noise filters little: they need a ground.']] as const)
                : []),
            ],
            { done: 'Shown and left there' },
          ),
        ),
      ];
    }),
};

const PROTECTED = ['gfci', 'first', 'gfci-breaker', 'dual-breaker', 'gfci-afci'];
const CARDS: Record<string, string> = {
  'two-slot': 'no ground, and it shows it: two slots. Nothing with three pins belongs here, 406.4(D)(2)(a).',
  gfci: 'no ground. Its own GFCI protects people: test it monthly by its button. A plug-in tester cannot trip it, 406.4(D)(2)(b).',
  first: 'no ground. A GFCI at the first box of the chain protects it, 406.4(D)(2)(c). Reset there.',
  'gfci-breaker': 'no ground. The GFCI breaker protects it, 406.4(D)(2)(c). Reset at the panel.',
  'dual-breaker': 'no ground. The AFCI/GFCI breaker protects it, 406.4(D)(2)(c). Reset at the panel.',
  'gfci-afci':
    'no ground. Its own GFCI protects people, the breaker against arcs: test both monthly, 406.4(D)(2)(b).',
  'ground-afci': 'a ground of its own by 250.130(C) and an AFCI here.',
  'new-ground': 'a ground of its own by 250.130(C); the rest of the circuit has none.',
  'new-cable': 'a new circuit with a ground.',
};
