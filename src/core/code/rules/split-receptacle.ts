import { always } from '#core/tables/editions.ts';
import { isMultiwire, runOf } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeDevice, changeStop, rule, type Verdict } from '../rule.ts';

export const splitReceptacle = rule({
  id: 'split-receptacle',
  title: 'Tab of a receptacle on two hots',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: always('210.7, 210.4'),
  why: 'The tab between the brass screws joins both legs: it is a dead short the moment the breaker closes.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    if (!isMultiwire(run)) return [];
    return run.stops.flatMap(({ box, stop }): Verdict[] => {
      if (box.status === 'remove' || stop.hot !== 'both' || !isReceptacle(box) || box.device.volts !== '125')
        return [];
      const { kind, tabs } = box.device;
      if (kind === 'duplex' && tabs !== 'whole')
        return [
          { level: 'satisfied', message: `${box.name} has its hot tab broken off: one hot to each half` },
        ];
      return kind === 'duplex'
        ? [
            {
              level: 'violation',
              message: `${box.name} takes both hots with its hot tab in place`,
              fixes: [
                {
                  label: `Break the hot tab off at ${box.name}`,
                  command: changeDevice(box, { tabs: 'hot-broken' }),
                },
              ],
            },
          ]
        : [
            {
              level: 'violation',
              message: `${box.name} takes both hots, and only a duplex can be split between them`,
              fixes: [
                {
                  label: `Give ${box.name} the black hot alone`,
                  command: changeStop(circuit, box.id, { hot: 'black' }),
                },
              ],
            },
          ];
    });
  },
});
