/** What the hands do inside a box, from its device and the circuit’s own topology: one builder for each kind of device. */
import { fedFrom, isMultiwire, type Run, type RunStop } from '#core/circuits/run.ts';
import type { DeviceKind } from '#core/job/schema.ts';

export interface WorkStep {
  text: string;
  /** Why, or what to watch for. */
  because: string;
  /** A neutral of the box is parted: shut until that is safe. */
  partsNeutral?: boolean;
}

/** A box of a run, with what its steps turn on. */
interface Site {
  run: Run;
  stop: RunStop;
  /** The outlets that it feeds, a cable to each. */
  onward: RunStop[];
  /** No equipment ground is in the box. */
  bare: boolean;
}

/** Cables that enter the box of a stop: the feed and one for each box it feeds. */
export const cablesAt = (run: Run, stop: RunStop): number => 1 + fedFrom(run, stop).length;

const names = (stops: readonly RunStop[]): string => stops.map((s) => s.box.name).join(', ');

/** The steps at one box, in order: the ground is landed first and taken off last. */
export function stepsFor(run: Run, stop: RunStop): WorkStep[] {
  const site: Site = {
    run,
    stop,
    onward: fedFrom(run, stop),
    bare: stop.box.grounding === 'none' || run.circuit.cable === 'old two-wire',
  };
  return [...before(site), ...ground(site), ...BUILDERS[stop.box.device.kind](site), ...after(site)];
}

function before({ run, stop, onward }: Site): WorkStep[] {
  const steps: WorkStep[] = [
    {
      text: `Count the cables: the plan has ${cablesAt(run, stop)}${onward.length > 0 ? `, the feed and on to ${names(onward)}` : ', the feed alone'}.`,
      because:
        'Another number means the plan or the box is not what it seems; a box may hold a second circuit.',
    },
    {
      text: 'Take a picture before anything is moved.',
      because: 'Copy what is right; do not copy what is wrong.',
    },
  ];
  if (stop.box.grounding === 'unknown')
    steps.push({
      text: 'Look for an equipment ground and record what is there.',
      because: 'Hot to box must be measured before a box is called ungrounded.',
    });
  return steps;
}

/** What the ground of a device is landed on. */
const GROUND_PLACE: Partial<Record<DeviceKind, string>> = {
  light: 'the fixture’s ground lead or the bracket’s green screw',
  switch: 'the switch’s green screw',
  'smoke-alarm': 'the metal box, if it is metal; the alarm itself has no ground',
  hardwired: 'the equipment’s green screw',
};

function ground({ stop, onward, bare }: Site): WorkStep[] {
  const { kind } = stop.box.device;
  if (bare)
    return [
      kind === 'switch' || kind === 'light' || kind === 'smoke-alarm'
        ? {
            text: 'No ground comes here: install a plate and screws of plastic, or protect the circuit by a GFCI.',
            because: 'Metal that is touched and not grounded becomes live with the first fault, 404.9(B).',
          }
        : {
            text: 'Look at the ground screw: nothing may join it to the neutral.',
            because:
              'A jumper there reads correct and puts 120 V on every plugged-in frame when the neutral opens.',
          },
    ];
  const stands = onward.length > 0 ? '; the splice must stand without the device' : '';
  if (kind === 'two-slot')
    return [
      {
        text: `Join all grounds and bond the box${stands}. A ground is here: a two-slot receptacle does not belong, install a grounding one.`,
        because: 'Where a ground is there the replacement is a grounding type, 406.4(D)(1).',
      },
    ];
  return [
    {
      text: `Join all grounds and take one tail to ${GROUND_PLACE[kind] ?? 'the green screw'}${stands}.`,
      because: 'Taking a device out must not break the ground for what follows.',
    },
  ];
}

/** Joins of what only goes on from here, when it is not carried by the device’s own screws. */
function splices({ stop, onward, run }: Site): WorkStep[] {
  if (onward.length === 0) return [];
  const multiwire = isMultiwire(run);
  if (stop.stop.splice === 'feed-through' && !multiwire)
    return [
      {
        text: `Carry ${names(onward)} through the device’s second pair of screws, cable by cable.`,
        because: 'A loose screw here opens everything after it.',
        partsNeutral: true,
      },
    ];
  return [
    {
      text: `Join the whites of the feed and ${names(onward)} with a tail for the device; then the blacks${run.circuit.breaker.poles === 2 ? ', then the reds' : ''}.`,
      because: multiwire
        ? 'The neutral of a multiwire circuit never depends on a device, 300.13(B): parted, it puts 240 V across both sides.'
        : 'A device that fails then does not cut the run.',
      partsNeutral: true,
    },
  ];
}

const SCREWS = 'tighten to the torque marked on the device. Tighten unused screws.';
const MARK_WHITE: WorkStep = {
  text: 'Mark the white as a hot with tape or paint, here and at the other end.',
  because: 'In a cable with two insulated conductors it is the second hot, 200.7(C).',
};
const ORDER = 'Ground, neutral, hot on; the reverse off. Loose screws are where opens and heat begin.';

function plain(site: Site): WorkStep[] {
  const { stop, run } = site;
  const { device } = stop.box;
  if (device.volts === '250') return twoHots(site);
  if (device.volts === '125/250') return fourWires(site);
  const hot = stop.stop.hot === 'red' ? 'red' : 'black';
  if (device.switched === 'half')
    return [
      ...splices(site),
      {
        text: 'Break off the tab between the brass screws; leave the tab on the silver side.',
        because:
          'With the brass tab on, the switch does nothing, and both hots are joined through the device.',
      },
      {
        text: `White to silver; the constant hot to one brass screw, the switched hot to the other; ${SCREWS}`,
        because:
          'Usually black is constant and red switched; old work may be the other way: read which one the switch changes.',
        partsNeutral: true,
      },
    ];
  if (device.tabs !== 'whole' || stop.stop.hot === 'both')
    return [
      ...splices(site),
      {
        text:
          device.tabs === 'both-broken'
            ? 'Break off both tabs: two circuits with neutrals of their own.'
            : 'Break off the brass tab only; the silver tab stays.',
        because: 'Both hots on one yoke need breakers that open together, 210.7.',
      },
      {
        text: `White to silver by a tail, black to one brass screw, red to the other; ${SCREWS}`,
        because: ORDER,
        partsNeutral: true,
      },
    ];
  const capped =
    isMultiwire(run) || run.circuit.breaker.poles === 2
      ? [
          {
            text: `The ${hot === 'red' ? 'black' : 'red'} is not used here: joined to what goes on, or capped.`,
            because: 'It is live from the other pole when the circuit is on.',
          },
        ]
      : [];
  return [
    ...splices(site),
    ...capped,
    {
      text: `White to silver, then ${hot} to brass; ${SCREWS}`,
      because: ORDER,
      partsNeutral: true,
    },
  ];
}

/** A 250 V receptacle: two hots and a ground, no neutral. */
const twoHots = (site: Site): WorkStep[] => [
  ...(site.run.circuit.neutral
    ? [
        {
          text: 'Cap the white: this receptacle takes no neutral.',
          because: 'Its two blades are both hots; a neutral on one of them gives 120 V and a live return.',
        },
      ]
    : [MARK_WHITE]),
  {
    text: `One hot to each brass screw; ${SCREWS}`,
    because: 'Both hots are alike and either goes to either screw. There is no silver screw to land.',
  },
];

/** A 125/250 V receptacle with four wires, or the three of an old circuit. */
const fourWires = (site: Site): WorkStep[] =>
  site.bare
    ? [
        {
          text: 'Three wires, no ground: stop before a receptacle is installed, and look what the neutral is.',
          because:
            'An existing circuit may stay only with an insulated neutral, or a bare one in SE cable from the service panel; never the bare wire of NM, 250.140.',
        },
      ]
    : [
        {
          text: `White to the silver screw (W), black and red to the brass screws (X and Y); ${SCREWS}`,
          because: 'Four slots take four wires: the neutral carries current and is not the ground.',
          partsNeutral: true,
        },
        {
          text: 'At the appliance: the strap between neutral and frame comes off.',
          because: 'With it on, the frame carries neutral current, 250.142(B).',
        },
      ];

function guarded(site: Site): WorkStep[] {
  const { onward } = site;
  const load = onward.filter((s) => s.stop.side === 'load');
  const line = onward.filter((s) => s.stop.side === 'line');
  return [
    ...(line.length > 0
      ? [
          {
            text: `Join the feed and ${names(line)} with tails to LINE: they stay outside its protection.`,
            because: 'They stay live when it trips.',
            partsNeutral: true,
          },
        ]
      : []),
    {
      text: `Land the feed on LINE${load.length > 0 ? ` and the cable to ${names(load)} on LOAD` : '; leave the tape on LOAD'}. Read the back: positions differ by make.`,
      because:
        'Reversed, one made since 2006 will not reset and its face is dead; an older one leaves its face unprotected.',
      partsNeutral: true,
    },
    ...(load.length > 0
      ? [
          {
            text: 'Black and white of each LOAD cable on its own pair, white to silver; nothing of LOAD touches LINE or ground.',
            because:
              'A LOAD neutral joined to another neutral or to ground trips it, with or without a load.',
            partsNeutral: true,
          },
        ]
      : []),
    { text: `White to silver, black to brass on LINE; ${SCREWS}`, because: ORDER, partsNeutral: true },
  ];
}

function switchSteps(site: Site): WorkStep[] {
  const { stop, onward } = site;
  if (stop.role === 'switch-loop')
    return [
      {
        text: 'Mark the white as a hot: it brings the supply down to the switch.',
        because: 'The white may be the supply of a loop, never the switched return, 200.7(C).',
      },
      {
        text: `Switched return (black) to one screw, supply (marked white) to the other; ${SCREWS}`,
        because: 'Ground, switched leg, feed on; the reverse off.',
      },
    ];
  const switched = onward.filter((s) => s.role === 'switched');
  const rest = onward.filter((s) => s.role !== 'switched');
  return [
    {
      text: `Join the whites${onward.length > 0 ? ` of the feed and ${names(onward)}` : ''} and fold them back; no white goes on a plain switch.`,
      because: 'A switch opens the hot. The neutral stays in the box for what may need it, 404.2(C).',
      partsNeutral: onward.length > 0,
    },
    ...(rest.length > 0
      ? [
          {
            text: `Join the feed’s black with ${names(rest)} and a tail for the switch.`,
            because: 'They stay hot whatever the switch does.',
          },
        ]
      : []),
    {
      text: `Switched hot${switched.length > 0 ? ` to ${names(switched)}` : ''} on one screw, then the feed on the other; ${SCREWS}`,
      because: 'Ground, switched leg, feed on; the reverse off.',
    },
  ];
}

const light = (site: Site): WorkStep[] => [
  ...splices(site),
  {
    text: 'White to the fixture’s white lead, the switched hot to its black lead, by connectors that are listed for stranded and solid together.',
    because: 'On the shell of a lampholder a hot can be touched when the lamp is changed, 200.10(C).',
    partsNeutral: true,
  },
  {
    text: 'The box carries the fixture’s weight, or the fixture hangs from the structure.',
    because: 'A connector must never carry it.',
  },
];

const smokeAlarm = (site: Site): WorkStep[] => [
  ...splices(site),
  {
    text: 'White and black to the alarm’s plug-in lead, from a hot that no switch opens; the interconnect to the third lead, if there is one.',
    because: 'A switch that is off leaves it to its battery.',
    partsNeutral: true,
  },
];

function hardWired(site: Site): WorkStep[] {
  const { run, stop } = site;
  const leads = stop.box.device.volts === '125' && run.circuit.breaker.poles === 1;
  const disconnect: WorkStep = {
    text: 'Its disconnect is open and locked as well, in sight of the equipment.',
    because:
      'A contactor or a second supply inside may feed it another way: read its own terminals dead too.',
  };
  if (leads)
    return [
      disconnect,
      ...splices(site),
      {
        text: 'White to its white lead, black to its black lead; tighten or crimp as its instructions have it.',
        because: ORDER,
        partsNeutral: true,
      },
    ];
  return [
    disconnect,
    ...(run.circuit.neutral
      ? [
          {
            text: 'White to its neutral terminal if it has one; else capped. It never goes to the frame.',
            because: 'Neutral and ground are separate outside the service.',
            partsNeutral: true,
          },
        ]
      : [MARK_WHITE]),
    {
      text: 'One hot to each line terminal (L1 and L2); tighten to the torque on its label.',
      because: 'Both are 120 V to ground: with one pole open the other still is.',
    },
  ];
}

const twoSlot = (site: Site): WorkStep[] => [
  ...splices(site),
  {
    text: `White to silver (the wider slot), black to brass; ${SCREWS} It has no ground screw.`,
    because: 'Like for like is allowed where no ground is in the box, 406.4(D)(2)(a).',
    partsNeutral: true,
  },
];

const BUILDERS: Record<DeviceKind, (site: Site) => WorkStep[]> = {
  duplex: plain,
  single: plain,
  gfci: guarded,
  'outlet-afci': guarded,
  'two-slot': twoSlot,
  light,
  switch: switchSteps,
  'smoke-alarm': smokeAlarm,
  hardwired: hardWired,
};

const after = ({ stop }: Site): WorkStep[] => [
  {
    text:
      stop.box.device.kind === 'hardwired'
        ? 'Tug each conductor, close the cover with every screw.'
        : `Tug each conductor, fold them in, mount the ${stop.box.device.kind === 'light' ? 'fixture' : 'device'} level and snug.`,
    because: 'Power drivers on low clutch at most; final torque by hand.',
  },
];
