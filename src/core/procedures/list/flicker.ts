import { breakerFor } from '../parts/breaker.ts';
import { wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox } from '../parts/place.ts';
import { ask, measure, when, work, type Procedure } from '../step.ts';

/** Several LED lamps charge at once: a dimmer is worked at a part of its LED marking. */
const SHARE = 0.8;

export const flicker: Procedure = {
  id: 'flicker',
  title: 'Flicker and dimmers',
  use: 'Lamps flicker, buzz, glow when off, or do not dim.',
  steps: (c) =>
    atOutlet(c, 'switch', 'switch or dimmer', (box) => {
      const { log } = c;
      const lamps = log.figure('lamps', 'count') ?? 0;
      const watts = lamps * (log.figure('lamps', 'watts') ?? 0);
      const most = SHARE * (log.figure('lamps', 'rated') ?? 150);
      return [
        ask('how', 'What do they do?', 'All of the house is another matter than one lamp.', [
          ['one', 'One lamp flickers'],
          ['dimmed', 'They flicker when dimmed'],
          ['glow', 'They glow when off'],
          ['buzz', 'Dimmer or lamp buzzes'],
          ['house', 'Everywhere, or with loads'],
        ]),
        ...when(
          log.picked('how', 'house'),
          work('dim', 'That is a supply matter', 'Start with “Lights dim, surge or burn bright”.', [
            ['Off what is bright; go on there.'],
          ]),
        ),
        ...when(
          log.picked('how', 'one'),
          ask(
            'lamp',
            'Another lamp in it, then that lamp elsewhere',
            'The fault goes along with the lamp, or stays with the holder.',
            [
              ['lamp', 'It goes with the lamp'],
              ['holder', 'It stays with the holder'],
            ],
          ),
          ...when(
            log.picked('lamp', 'holder'),
            work('holder', 'The holder or its joint', 'A pressed-down center contact or a loose splice.', [
              [
                'Go on with “Light fixture or fan”: its box is proved dead there before a hand touches the holder.',
              ],
            ]),
          ),
        ),
        ...when(
          log.picked('how', 'dimmed') || log.picked('how', 'buzz') || log.picked('how', 'glow'),
          measure(
            'lamps',
            'Lamps and dimmer',
            'LED lamps load a dimmer more by their peaks than by their watts.',
            [
              { name: 'count', label: 'Lamps on it', unit: '', min: 1, max: 60 },
              { name: 'watts', label: 'Watts each', unit: 'W', min: 1, max: 150 },
              { name: 'rated', label: 'Dimmer’s LED marking', unit: 'W', min: 20, max: 1000 },
            ],
          ),
          ask(
            'match',
            watts > most ? `${watts} W is more than it should carry` : 'The load fits',
            'Dimmable lamps of one make, on a dimmer marked for LED; its low end trimmed.',
            [
              ['trim', 'Trim the low end, try again'],
              ['lamps', 'Lamps marked dimmable, all alike'],
              ['dimmer', 'A new dimmer, marked for LED'],
            ],
            {
              working: [
                { text: `${lamps} lamps: ${watts} W; the dimmer carries ${Math.round(most)} W of LED.` },
                { text: 'In a gang with its fins broken off it carries less: read its sheet.' },
              ],
              effects: ({ picks }) =>
                picks.includes('dimmer')
                  ? [changeBox(box, { device: { ...box.device, build: 'dimmer' }, status: 'replace' })]
                  : [],
            },
          ),
          ...when(
            log.picked('match', 'dimmer'),
            ...breakerFor(c, box),
            ...wireUp(c, box, 'Install the dimmer'),
          ),
          ...when(
            log.picked('how', 'glow'),
            work(
              'glow',
              'A glow when off',
              'A pilot lamp, a smart switch or two long wires side by side feed a few milliamperes.',
              [
                ['A bypass at the lamp that its switch’s sheet names; or a switch with a neutral.'],
                ['It goes in under “Light fixture or fan”, where that box is proved dead.'],
              ],
            ),
          ),
        ),
        ask('after', 'Now?', 'Watched at full, half and low.', [
          ['right', 'Steady'],
          ['still', 'Still: written down'],
        ]),
      ];
    }),
};
