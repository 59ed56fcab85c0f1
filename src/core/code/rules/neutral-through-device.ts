import { always } from '#core/tables/editions.ts';
import { isMultiwire, runOf } from '#core/circuits/run.ts';
import { changeStop, rule } from '../rule.ts';

export const neutralThroughDevice = rule({
  id: 'neutral-through-device',
  title: 'Shared neutral through a device',
  scope: 'circuit',
  needs: ['order'],
  level: 'violation',
  sections: always('300.13(B)'),
  why: 'Taking the device out opens the shared neutral: both sides are then in series across 240 V and small loads burn.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    if (!isMultiwire(run)) return [];
    const carrying = run.stops.filter(
      ({ box, stop }, i) =>
        box.status !== 'remove' && stop.splice === 'feed-through' && run.stops.some((s) => s.feeder === i),
    );
    if (carrying.length === 0)
      return [{ level: 'satisfied', message: 'the neutral is joined behind every device, not through one' }];
    return carrying.map(({ box }) => ({
      level: 'violation',
      message: `the neutral of both sides runs through the device at ${box.name}`,
      fixes: [
        {
          label: `Join the conductors behind ${box.name} and pigtail it`,
          command: changeStop(circuit, box.id, { splice: 'pigtail' }),
        },
      ],
    }));
  },
});
