/** Circuits with two hots: legs, what opens them together, and one neutral shared by both. */
import { always } from '#core/tables/editions.ts';
import { isMultiwire, type RunStop, runOf } from '#core/circuits/run.ts';
import { legsOf, spacesOf } from '#core/panel/spaces.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeBreaker, changeCircuit, changeDevice, changeStop, rule, type Verdict } from '../rule.ts';

export const oppositeLegs = rule({
  id: 'opposite-legs',
  title: 'Two poles on opposite legs',
  scope: 'circuit',
  level: 'violation',
  sections: always('210.4, 200.4'),
  why: 'On one leg the two hots make no 240 V, and a shared neutral carries the sum of both sides instead of the difference.',
  check(circuit) {
    if (circuit.breaker.poles === 1) return [];
    const spaces = spacesOf(circuit).join(' and ');
    const [black, red] = legsOf(circuit);
    if (black !== red)
      return [{ level: 'satisfied', message: `spaces ${spaces} are on opposite legs of the bus` }];
    return [
      {
        level: 'violation',
        message: `spaces ${spaces} are both on leg ${black}: no 240 V between the hots, and a shared neutral would carry the sum of both`,
        fixes: [
          {
            label: `Put the second pole in space ${circuit.space + 2}, below the first`,
            command: changeCircuit(circuit, { otherSpace: null }),
          },
        ],
      },
    ];
  },
});

export const simultaneousDisconnect = rule({
  id: 'simultaneous-disconnect',
  title: 'Both hots open together',
  scope: 'circuit',
  level: 'violation',
  sections: always('210.4(B)'),
  why: 'With one hot off and the other on, a box that looks dead is not, and the shared neutral still carries current.',
  check(circuit, view) {
    const { tie, poles } = circuit.breaker;
    if (poles === 1) return [];
    const run = runOf(view, circuit);
    const shared = isMultiwire(run);
    const fixes = [
      { label: 'Fit a common-trip breaker', command: changeBreaker(circuit, { tie: 'common-trip' }) },
    ];
    if (tie === 'none') {
      return [
        {
          level: 'violation',
          section: shared ? '210.4(B)' : '240.15(B)(2)',
          message: 'its two poles have neither a handle tie nor a common trip',
          fixes,
        },
      ];
    }
    // A circuit for one appliance alone is excepted, 210.4(C).
    const between = run.stops.filter(({ box }) => box.status !== 'remove' && box.device.volts !== '125');
    if (tie === 'handle-tie' && shared && between.length > 0 && run.stops.length > 1) {
      return [
        {
          level: 'violation',
          section: '210.4(C)',
          message: `${between[0]!.box.name} takes both hots beside 120 V outlets: a handle tie will not do, the poles must trip together`,
          fixes,
        },
      ];
    }
    return [
      {
        level: 'satisfied',
        section: shared ? '210.4(B)' : '240.15(B)',
        message: tie === 'common-trip' ? 'both poles trip together' : 'the handles are tied',
      },
    ];
  },
});

/** Stops that a device feeds from its load side, further down the run too. */
function behind(stops: readonly RunStop[], at: number): RunStop[] {
  const fed = new Set([at]);
  return stops.filter((s, i) => {
    const on = fed.has(s.feeder) && (s.feeder !== at || s.stop.side === 'load');
    if (on) fed.add(i);
    return on;
  });
}

export const sharedNeutralProtection = rule({
  id: 'shared-neutral-protection',
  title: 'GFCI and AFCI on a shared neutral',
  scope: 'circuit',
  level: 'violation',
  sections: always('110.3(B), 210.4'),
  why: 'A device that watches one hot sees the other side’s current come back on the shared neutral and trips at once.',
  check(circuit, view) {
    const run = runOf(view, circuit);
    if (!isMultiwire(run)) return [];
    const { protection, tie } = circuit.breaker;
    const found: Verdict[] = [];
    if (protection !== 'none' && tie !== 'common-trip') {
      found.push({
        level: 'violation',
        message: `single-pole ${protection === 'afci' ? 'AFCI' : 'GFCI'} breakers share a neutral: it takes one breaker with two poles`,
        fixes: [
          {
            label: 'Fit one two-pole breaker of that kind',
            command: changeBreaker(circuit, { tie: 'common-trip' }),
          },
        ],
      });
    }
    for (const [i, { box, stop }] of run.stops.entries()) {
      if (box.device.kind !== 'gfci' && box.device.kind !== 'outlet-afci') continue;
      const wrong = behind(run.stops, i).find((s) => s.stop.hot !== stop.hot);
      if (!wrong) continue;
      const direct = run.stops.filter((s) => s.feeder === i && s.stop.side === 'load').map((s) => s.box.id);
      found.push({
        level: 'violation',
        message: `${box.name} feeds ${wrong.box.name} on the other hot from its load side: split the neutral off, or feed on from its line side`,
        fixes:
          direct.length === 0
            ? []
            : [
                {
                  label: `Feed on from the line side of ${box.name}`,
                  command: changeCircuit(circuit, {
                    stops: circuit.stops.map((s) => (direct.includes(s.boxId) ? { ...s, side: 'line' } : s)),
                  }),
                },
              ],
      });
    }
    if (found.length > 0) return found;
    return protection === 'none'
      ? []
      : [{ level: 'satisfied', message: 'one breaker with two poles watches both hots and the neutral' }];
  },
});

export const neutralThroughDevice = rule({
  id: 'neutral-through-device',
  title: 'Shared neutral through a device',
  scope: 'circuit',
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

export const splitReceptacle = rule({
  id: 'split-receptacle',
  title: 'Tab of a receptacle on two hots',
  scope: 'circuit',
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
