/** Every single fault that a circuit may plausibly have, by its own places, in its cables, at its panel and before it. */
import type { Fault } from '#core/network/faults.ts';
import type { HousePart } from '#core/network/supply.ts';
import type { Conductor, Part, Wiring } from '#core/network/wiring.ts';

/** Ohms of a joint that heats, and of two conductors that touch. */
const POOR_OHMS = 1;
const TOUCH_OHMS = 0.05;
/** Ohms of a leak by damp or a nicked jacket, before it is fitted. */
const LEAK_OHMS = 5000;

/** One of them for a seed: for a meter at a circuit of which nobody says what is wrong. */
export function hiddenFault(wiring: Wiring, seed: number): Fault {
  const faults = hypothesesOf(wiring);
  // Any spread does: the seeds are small whole numbers.
  return faults[(Math.imul(seed, 2654435761) >>> 0) % faults.length]!;
}

/**
 * All that is plausible for the circuits laid out: `everyFault`; what happens inside cables; wrong landings at devices with
 * a line and a load side, at switches and at split tabs; at the panel; before it; and between circuits.
 */
export const hypothesesOf = (wiring: Wiring): Fault[] => [
  ...everyFault(wiring),
  ...inCables(wiring),
  ...wrongLandings(wiring),
  ...atPanel(wiring),
  ...ofSupply(wiring),
  ...betweenCircuits(wiring),
];

function inCables({ spots }: Wiring): Fault[] {
  const cables = new Map<number, Conductor[]>();
  for (const { stop, conductor, part } of spots)
    if (part === 'cable') cables.set(stop, [...(cables.get(stop) ?? []), conductor]);
  return [...cables].flatMap(([stop, conductors]) => [
    ...conductors.flatMap((conductor): Fault[] => [
      { kind: 'hidden-junction', stop, conductor, ohms: null },
      { kind: 'hidden-junction', stop, conductor, ohms: POOR_OHMS },
    ]),
    ...conductors.flatMap((a, i) =>
      conductors.slice(i + 1).flatMap((b): Fault[] => [
        { kind: 'crossed', stop, conductors: [a, b] },
        { kind: 'cable-leak', stop, conductors: [a, b], ohms: TOUCH_OHMS },
        { kind: 'cable-leak', stop, conductors: [a, b], ohms: LEAK_OHMS },
      ]),
    ),
  ]);
}

/** Places that hands mistake for each other: the two sides of a protecting device, common and travelers of a switch. */
const MISTAKEN: readonly (readonly [string, string])[] = [
  ['device.line-hot', 'device.load-hot'],
  ['device.line-neutral', 'device.load-neutral'],
  ['device.common', 'device.traveler-1'],
  ['device.common', 'device.traveler-2'],
  ['device.in-1', 'device.out-1'],
  ['device.in-2', 'device.out-2'],
];

function wrongLandings({ inBox, joints, branches, terminals }: Wiring): Fault[] {
  return inBox.flatMap((nodes, stop) => {
    const landings = MISTAKEN.flatMap(([one, other]) =>
      [
        [one, other],
        [other, one],
      ].flatMap(([from, to]) => {
        const [here, there] = [nodes.get(from!), nodes.get(to!)];
        if (here === undefined || there === undefined || here === there) return [];
        const ends = [...joints[stop]!].filter(
          ([, branch]) => branches[branch]!.from === here || branches[branch]!.to === here,
        );
        return ends.map(([end]): Fault => ({ kind: 'landing', stop, end, place: to! }));
      }),
    );
    const split =
      terminals[stop]!.faces.length > 1 && nodes.get('device.brass-1') !== nodes.get('device.brass-2');
    return split ? [...landings, { kind: 'tab-left' as const, stop, side: 'hot' as const }] : landings;
  });
}

function atPanel({ circuits, spots }: Wiring): Fault[] {
  return circuits.flatMap(({ leaving, first, stops }, circuit): Fault[] => {
    const has = (conductor: Conductor) =>
      spots.some(
        (s) => s.part === 'start' && s.conductor === conductor && s.stop >= first && s.stop < first + stops,
      );
    const panel = -1 - circuit;
    const contacts = spots.filter((s) => s.stop === panel && (s.part === 'contact' || s.part === 'bar'));
    return [
      ...contacts.flatMap(({ conductor, part }): Fault[] => [
        { kind: 'open', stop: panel, conductor, part },
        { kind: 'resistance', stop: panel, conductor, part, ohms: POOR_OHMS },
      ]),
      ...(has('neutral')
        ? ([
            { kind: 'lifted-neutral', circuit },
            { kind: 'wrong-bar', circuit, conductor: 'neutral' },
          ] as const)
        : []),
      ...(leaving.breaker.neutral === leaving.neutral
        ? []
        : ([
            { kind: 'beside-breaker', circuit },
            ...(leaving.breaker.red === null ? [] : ([{ kind: 'single-pole-sensor', circuit }] as const)),
          ] as const)),
    ];
  });
}

/** Faults of the supply by the parts that it has. */
function ofSupply({ supply, bars }: Wiring): Fault[] {
  if (bars.size === 0) return [];
  const has = (part: HousePart) => supply.has(part);
  return [
    { kind: 'service-neutral', ohms: null },
    { kind: 'service-neutral', ohms: POOR_OHMS },
    { kind: 'service-leg', leg: 'own' },
    { kind: 'service-leg', leg: 'other' },
    { kind: 'no-bond' },
    ...[...bars.keys()].flatMap((panel): Fault[] =>
      has(`feeder neutral, ${panel}`)
        ? [
            { kind: 'feeder-neutral', panel, ohms: null },
            { kind: 'feeder-neutral', panel, ohms: POOR_OHMS },
            { kind: 'feeder-leg', panel, leg: 'own', ohms: null },
            ...(has(`feeder ground, ${panel}`) ? [{ kind: 'feeder-ground', panel } as const] : []),
            { kind: 'second-bond', panel },
          ]
        : [],
    ),
  ];
}

/** Between the first circuit and each other one that is laid out: hots tied, neutrals borrowed either way, breakers crossed. */
function betweenCircuits({ circuits, terminals, spots }: Wiring): Fault[] {
  const [own, ...others] = circuits;
  if (!own) return [];
  const lands = (stop: number, conductor: Conductor) =>
    spots.some((s) => s.stop === stop && s.conductor === conductor && s.part === 'terminal');
  const inside = ({ first, stops }: (typeof circuits)[number], conductor: Conductor) =>
    Array.from({ length: stops }, (_, k) => first + k).filter((stop) => lands(stop, conductor));
  return others.flatMap((other, k): Fault[] => [
    { kind: 'crossed-breakers', circuits: [0, k + 1] },
    ...inside(own, 'neutral').flatMap((stop) =>
      inside(other, 'neutral').flatMap((there): Fault[] => {
        const [conductor, otherConductor] = [terminals[stop]!.hotIs, terminals[there]!.hotIs];
        const tied: Fault[] =
          lands(stop, conductor) && lands(there, otherConductor)
            ? [{ kind: 'tied', stop, conductor, other: there, otherConductor, ohms: TOUCH_OHMS }]
            : [];
        return [
          ...tied,
          { kind: 'borrowed-neutral', stop, other: there },
          { kind: 'borrowed-neutral', stop: there, other: stop },
        ];
      }),
    ),
  ]);
}

/** Faults box by box; those of the panel come first. */
export function everyFault({ spots, terminals, panel }: Wiring): Fault[] {
  const faults: Fault[] = [];
  const has = (stop: number, conductor: Conductor, part: Part) =>
    spots.some((s) => s.stop === stop && s.conductor === conductor && s.part === part);
  for (const { stop, conductor, part } of spots)
    if (stop < 0 && part === 'supply') faults.push({ kind: 'open', stop, conductor, part });
  if (panel.breaker.red !== null) faults.push({ kind: 'same-leg' });
  terminals.forEach((_, stop) => {
    const here = spots.filter((s) => s.stop === stop);
    for (const { conductor, part } of here)
      // A tail that is open at its splice reads as one that is open at its screw.
      if (part !== 'load' && part !== 'cord' && part !== 'cable' && part !== 'tail')
        faults.push({ kind: 'open', stop, conductor, part });
    for (const { conductor, part } of here)
      if (part === 'end' || part === 'terminal')
        faults.push({ kind: 'resistance', stop, conductor, part, ohms: POOR_OHMS });
    const conductors = [...new Set(here.filter((s) => s.part === 'terminal').map((s) => s.conductor))];
    conductors.forEach((a, i) => {
      for (const b of conductors.slice(i + 1)) {
        faults.push({ kind: 'short', stop, conductors: [a, b], ohms: TOUCH_OHMS });
        faults.push({ kind: 'swap', stop, conductors: [a, b] });
      }
    });
    if (has(stop, 'neutral', 'terminal')) {
      faults.push({ kind: 'false-ground', stop });
      faults.push({ kind: 'other-hot', stop, leg: 'same' }, { kind: 'other-hot', stop, leg: 'other' });
      faults.push({ kind: 'other-neutral', stop });
      if (here.some((s) => s.part === 'contact' && s.conductor === 'neutral'))
        faults.push(
          { kind: 'reversed', stop, age: 'since-2006' },
          { kind: 'reversed', stop, age: 'before-2006' },
        );
    }
  });
  return faults;
}
