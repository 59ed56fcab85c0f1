import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { otherBox, whereOther } from '../parts/others.ts';
import { ask, look, when, work, type Procedure } from '../step.ts';

export const threeWay: Procedure = {
  id: 'three-way',
  title: 'Three-way works from one end only',
  use: 'A light with two switches depends on how the other one stands.',
  steps: (c) =>
    atOutlet(c, 'switch', 'one of its switches', (box) => {
      const { log } = c;
      const other = otherBox(c, 'other', 'switch');
      const works = log.picks('pattern').filter((p) => p !== 'looked');
      return [
        look(
          'pattern',
          'Try all four',
          'The pattern tells what is wrong before a box is opened.',
          [
            ['up-up', 'Lit: here up, there up'],
            ['up-down', 'Lit: here up, there down'],
            ['down-up', 'Lit: here down, there up'],
            ['down-down', 'Lit: here down, there down'],
          ],
          [['looked', 'All four tried']],
          { text: 'Tick where the light is on.' },
        ),
        ask(
          'says',
          patternWords(works),
          'Right ones are lit in two of four, and any throw changes the light.',
          [['go', 'Go on']],
        ),
        ask(
          'recent',
          'Was a switch changed lately?',
          'A common on a traveler screw is what a change leaves behind.',
          [
            ['yes', 'Yes'],
            ['no', 'No'],
          ],
        ),
        ...breakerFor(c, box),
        work(
          'common',
          'Find the common of each switch',
          'Position differs by make: the odd-colored screw, or the one marked.',
          [
            ['This box first, then the other one, each proved dead by itself.'],
            [
              'Travelers: the pair in the cable between the switches. The odd one is the feed, at the other end the lamp.',
            ],
            [
              works.length === 1
                ? 'Lit in one of four: a traveler is open. Push-ins first.'
                : 'A common on a traveler screw: change it with that traveler.',
            ],
          ],
          { inside: box, picture: box, done: 'Common on the odd screw, travelers tight', leaves: 'closed' },
        ),
        whereOther(
          c,
          'other',
          'Where is the other switch?',
          'Its box is opened too, and proved by itself.',
          'switch',
        ),
        ...when(
          other,
          work(
            'common-other',
            'The common of the other switch',
            'What is right at one end may be wrong at the other.',
            [
              ['Odd one out: here the lamp’s, or the feed. To the odd-colored screw.'],
              ['The pair in the cable between the switches to the other two. Tug each.'],
            ],
            { inside: other, done: 'Right at this end too', leaves: 'closed' },
          ),
        ),
        ask(
          'after',
          'All four again',
          'Each throw changes the light, from both ends.',
          [
            ['right', 'Each throw changes it'],
            ['wrong', 'Not yet'],
          ],
          { live: c.circuit },
        ),
        ...when(
          log.picked('after', 'wrong'),
          work(
            'test',
            'Switch or wire?',
            'Ohms across each switch, dead: common to one traveler in one position, to the other in the other.',
            [
              ['A switch that never closes on one side is replaced.'],
              ['Both good: a traveler is open in the cable between.'],
            ],
            { inside: box, done: 'Found, mended or written down', leaves: 'closed' },
          ),
        ),
      ];
    }),
};

/** What the positions in which the light is on say. */
export function patternWords(lit: readonly string[]): string {
  const has = (p: string) => lit.includes(p);
  if (lit.length === 2 && ((has('up-up') && has('down-down')) || (has('up-down') && has('down-up'))))
    return 'That is right: it works';
  if (lit.length === 1) return 'A traveler is open, or a common is on a traveler screw';
  if (lit.length === 0) return 'Dead in all: feed, lamp or neutral first';
  if (lit.length === 2) return 'One switch does nothing: its common is on the wrong screw';
  if (lit.length === 3) return 'Travelers touch, or a switch leaks across';
  return 'Lit in all: a switch is bridged';
}
