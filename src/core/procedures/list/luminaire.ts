import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox, workedOn } from '../parts/place.ts';
import { ask, look, measure, optional, when, work, type Procedure } from '../step.ts';

/** A box carries a luminaire up to this, a fan up to 70 lb where it is listed for it; 314.27. */
const PLAIN_BOX_POUNDS = 50;
const FAN_BOX_POUNDS = 70;

export const luminaire: Procedure = {
  id: 'luminaire',
  title: 'Light fixture or fan',
  use: 'A luminaire or a ceiling fan is swapped or put up.',
  steps: (c) =>
    atOutlet(c, 'light', 'light', (box) => {
      const { log } = c;
      const fan = log.picked('what', 'fan');
      const pounds = log.figure('weight', 'pounds') ?? 0;
      const limit = fan ? FAN_BOX_POUNDS : PLAIN_BOX_POUNDS;
      return [
        ask(
          'what',
          'What goes up?',
          'A fan shakes what carries it: a plain box works loose.',
          [
            ['light', 'A light'],
            ['fan', 'A fan'],
          ],
          {
            effects: ({ picks }) => [
              changeBox(box, {
                purpose: picks.includes('fan') ? 'ceiling-fan' : 'general',
                status: workedOn(box),
                seen: { ...box.seen, luminaire: picks.includes('fan') ? 'fan' : box.seen.luminaire },
              }),
            ],
          },
        ),
        measure('weight', 'How heavy is it?', 'The box is marked with what it carries.', [
          { name: 'pounds', label: 'Weight', unit: 'lb', min: 0, max: 300 },
        ]),
        look(
          'old',
          'What is up there?',
          'Old wire under a hot lamp is baked: new fixtures want 90 °C leads.',
          [
            ['before-1985', 'Wired before about 1985'],
            ['cloth', 'Cloth or rubber insulation'],
            ['plaster', 'Ceiling that will crumble'],
          ],
          [['looked', 'Looked at']],
        ),
        ...breakerFor(c, box),
        ...lookInside(c, box),
        look(
          'carries',
          'What carries it?',
          fan
            ? 'A fan hangs on a box listed for fans, or on the structure itself.'
            : 'A box fastened to the structure, not to the plaster.',
          [
            ['fan-listed', 'Marked for fans'],
            ['joist', 'Screwed to a joist or brace'],
            ['loose', 'Loose, or plaster alone'],
          ],
          [['looked', 'Looked at']],
          {
            inside: box,
            effects: ({ picks }) => [
              changeBox(box, { seen: { ...box.seen, fanBox: picks.includes('fan-listed') ? 'yes' : 'no' } }),
            ],
          },
        ),
        ...when(
          (fan && log.has('carries') && !log.picked('carries', 'fan-listed')) ||
            log.picked('carries', 'loose') ||
            pounds > limit,
          work(
            'brace',
            pounds > limit ? `${pounds} lb: hung from the structure` : 'A box that carries it',
            fan
              ? 'Listed for fans, up to 70 lb; heavier from the structure.'
              : 'Up to 50 lb from the box, or what it is marked for.',
            [
              [
                'Fan brace or box with its own brace between the joists.',
                '',
                fan ? '314.27(C)' : '314.27(A)',
              ],
            ],
            { inside: box, done: 'In, tight' },
          ),
        ),
        ...when(
          log.picked('old', 'before-1985') || log.picked('old', 'cloth'),
          ask(
            'ninety',
            'Its leads want 90 °C wire',
            'Insulation of 60 °C under a fixture marked 90 °C turns brittle and shorts.',
            [
              ['box', 'A junction box away, 90 °C leads from there'],
              ['cool', 'Another fixture, marked for 60 °C wire'],
              ['rewire', 'New cable to the box'],
            ],
            { inside: box },
          ),
        ),
        ...wireUp(c, box),
        ask(
          'works',
          'Switch it, both ways',
          'Off, the shell is dead: a switched neutral leaves it live.',
          [
            ['right', 'It works, shell dead when off'],
            ['live', 'Shell live when off'],
          ],
          { live: c.circuit },
        ),
        ...when(
          log.picked('works', 'live'),
          work(
            'polarity',
            'Neutral and hot change places',
            'The switch parts the neutral, or the leads are crossed.',
            [['At the fixture first, then at the switch.']],
            { inside: box, done: 'Mended' },
          ),
        ),
        ...when(
          fan,
          measure(
            'balance',
            'Running: clamp and watch',
            'A wobble works the box loose.',
            [optional({ name: 'amps', label: 'On high', unit: 'A', min: 0, max: 5 })],
            { live: c.circuit },
          ),
        ),
        ...testAfter(c, box).filter((s) => s && s.key === 'downstream'),
      ];
    }),
};
