import { breakerFor } from '../parts/breaker.ts';
import { lookInside, testAfter, wireUp } from '../parts/box.ts';
import { atOutlet } from '../parts/frame.ts';
import { fitCommands } from '../parts/fit.ts';
import { hunting } from '../hunting/prelude.ts';
import { ask, measure, volts, when, work, type Procedure } from '../step.ts';

export const gfciReset: Procedure = {
  id: 'gfci-reset',
  title: 'GFCI will not reset',
  use: 'The button does not stay in, or it trips again by itself.',
  steps: (c) =>
    atOutlet(c, 'gfci', 'GFCI', (box) => {
      const { circuit, log } = c;
      const noPower =
        (log.figure('line', 'volts') ?? 120) < 100 && log.has('line') && !log.picked('line', 'cannot');
      const holds = log.pick('load-off') === 'holds';
      const still = log.pick('load-off') === 'still';
      return [
        ask(
          'unplugged',
          'Unplug everything on it, then reset',
          'A wet heater or a bad cord is the usual ground fault, and needs no box opened.',
          [
            ['resets', 'Now it resets', 'one of the appliances: plug in one by one'],
            ['not', 'It still does not'],
          ],
          { text: 'Here, and at every outlet that died with it; outdoors and garage as well.' },
        ),
        ...when(
          log.picked('unplugged', 'resets'),
          work('one-by-one', 'One by one', 'The one that trips it is faulty, or wet: it leaks to ground.', [
            ['Each appliance back in; the one that trips it stays out, and is marked.'],
            ['Two small leaks may add up: heaters and old motors leak a little each.'],
          ]),
        ),
        ...when(
          log.picked('unplugged', 'not'),
          ...breakerFor(c, box),
          work(
            'forward',
            'Drawn forward, dead',
            'Its LINE screws are reached only so, and not with the power on.',
            [['Cover off, device drawn forward by its yoke, conductors spread, nothing loose.']],
            { inside: box, keepsNeutrals: true, leaves: 'clear', done: 'Forward, hands out' },
          ),
          measure(
            'line',
            'Is there power on its line side?',
            'Without power on LINE no GFCI resets: an upstream GFCI, the breaker, an open.',
            [volts('volts', 'Line hot to line neutral', 'about 120')],
            {
              text: 'Power on, nobody at it: LINE screws, low impedance.',
              caution: 'Probes only, nothing touched. Off and proved dead before a hand goes in.',
              liveOpen: circuit,
              cannot: 'Not measured',
            },
          ),
          ...when(
            noPower,
            work('upstream', 'No power arrives', 'What comes before it is off or open.', [
              ['Other GFCIs first: garage, outdoors, basement, bathroom. Reset them.'],
              ['Then the breaker: fully off, then on.'],
              ['Still none: the open is before it, box by box.'],
            ]),
            ...hunting(c, circuit),
          ),
          ...when(
            log.has('line') && !noPower,
            work(
              'load-apart',
              'Load side off',
              'A ground fault downstream holds it open; without its load it tells by itself whether it is good.',
              [['Both LOAD conductors off, capped apart. LINE stays.']],
              { inside: box, done: 'Load off and capped', leaves: 'clear' },
            ),
            ask(
              'load-off',
              'Power on, press reset',
              'With no load and good power only a bad device, or line and load reversed, refuses.',
              [
                ['holds', 'It resets and holds', 'the fault is downstream'],
                ['still', 'It still does not', 'the device, or line and load reversed'],
              ],
              { liveOpen: circuit },
            ),
          ),
          ...when(holds, ...hunting(c, circuit)),
          ...when(
            still,
            ...lookInside(c, box),
            work(
              'fit',
              'A new GFCI, line and load told apart',
              'Reversed, one made since 2006 does not reset.',
              [['The live cable is LINE; the other LOAD.'], ['End of life is a fault too: ten years.']],
              { done: 'Have it', effects: () => fitCommands(c, box, 'gfci') },
            ),
            ...wireUp(c, box),
            ...testAfter(c, box),
          ),
        ),
      ];
    }),
};
