/**
 * What the hands do inside a box, from its planned wiring: cut and strip, splices, landings in the order of the school, tabs,
 * torque, close, tests. Every end of the wiring is joined by one step.
 */
import { fedFrom, isMultiwire, type Run, type RunStop } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import { connectorRange } from './connectors.ts';
import { DEVICES, type DeviceRecord } from './devices.ts';
import { plannedBoxes } from './planned.ts';
import { carriesFan } from './seen.ts';
import { BOX, endName, endsOf, membersOf, terminalAt, type End } from './wiring.ts';

export interface WorkStep {
  /** Its own name among the steps of the box, for what is ticked. */
  key: string;
  text: string;
  /** Why, or what to watch for. */
  because: string;
  /** A neutral of the box is parted: shut until that is safe. */
  partsNeutral?: boolean;
  /** Ends that it puts where they belong. */
  lands?: readonly string[];
  /** Done with the power back, after the box is closed. */
  afterPower?: boolean;
}

/** A box of a run, with what its steps turn on. */
interface Site {
  run: Run;
  stop: RunStop;
  wiring: BoxWiring;
  ends: readonly End[];
  device: DeviceRecord | null;
  /** The outlets that it feeds, a cable to each. */
  onward: RunStop[];
  /** No equipment ground is in the box. */
  bare: boolean;
  nameOf: (box: string) => string;
}

/** Cables that enter the box of a stop: the feed and one for each box it feeds. */
export const cablesAt = (run: Run, stop: RunStop): number => 1 + fedFrom(run, stop).length;

const names = (stops: readonly RunStop[]): string => stops.map((s) => s.box.name).join(', ');

/** The steps at one box, in order. */
export function stepsFor(run: Run, stop: RunStop): WorkStep[] {
  const wiring = plannedBoxes(run)[run.stops.indexOf(stop)]!;
  const [yoke] = wiring.yokes;
  const ends = endsOf(wiring);
  const site: Site = {
    run,
    stop,
    wiring,
    ends,
    device: yoke ? DEVICES[yoke.kind] : null,
    onward: fedFrom(run, stop),
    bare:
      stop.box.grounding === 'none' || !ends.some((e) => e.kind === 'conductor' && e.function === 'ground'),
    nameOf: (id) => run.stops.find((s) => s.box.id === id)?.box.name ?? 'the next box',
  };
  return [
    ...before(site),
    ...bareBox(site),
    ...splices(site),
    ...capped(site),
    ...marks(site),
    ...tabs(site),
    ...cautions(site),
    ...landings(site),
    ...close(site),
    ...tests(site),
  ];
}

function before({ run, stop, onward, wiring, device }: Site): WorkStep[] {
  const { box } = stop;
  const steps: WorkStep[] = [
    {
      key: 'count',
      text: `Count the cables: the plan has ${cablesAt(run, stop)}${onward.length > 0 ? `, the feed and on to ${names(onward)}` : ', the feed alone'}.`,
      because:
        'Another number means the plan or the box is not what it seems; a box may hold a second circuit.',
    },
    {
      key: 'picture',
      text: 'Take a picture before anything is moved.',
      because: 'Copy what is right; do not copy what is wrong.',
    },
  ];
  if (box.grounding === 'unknown')
    steps.push({
      key: 'look-ground',
      text: 'Look for an equipment ground and record what is there.',
      because: 'Hot to box must be measured before a box is called ungrounded.',
    });
  if (box.device.kind === 'hardwired')
    steps.push({
      key: 'disconnect',
      text: 'Its disconnect is open and locked as well, in sight of the equipment.',
      because:
        'A contactor or a second supply inside may feed it another way: read its own terminals dead too.',
    });
  if (carriesFan(box))
    steps.push({
      key: 'fan-box',
      text: 'Read the box: it must be listed to carry a fan, and up to what weight.',
      because: 'A plain box works loose under a fan, 314.27(C).',
    });
  steps.push({
    key: 'strip',
    text: `Leave 6 in. of free conductor from where the sheath ends, and 3 in. past the face of the box${device?.bulky ? '; this device is deep: fold from the back, longest first' : ''}. Strip each to the gauge of its device or connector.`,
    because: 'Too short cannot be worked on again, 300.14; a nick breaks when it is folded.',
  });
  if (wiring.cables.some((c) => c.conductors.some((k) => k.material === 'aluminum')))
    steps.push({
      key: 'aluminum',
      text: 'Aluminum: only what is marked for it. Tails of copper by a lug connector listed for the pair, each setscrew to its torque; a device on it is marked CO/ALR.',
      because: 'It creeps and corrodes beside copper: joints that were sound heat up after years.',
    });
  return steps;
}

/** What a box without an equipment ground asks for. */
function bareBox({ bare, stop, wiring }: Site): WorkStep[] {
  if (!bare) return [];
  const { kind, volts, rating } = stop.box.device;
  if (wiring.yokes.some((y) => y.kind.includes('three')) && volts === '125/250' && rating >= 30)
    return [
      {
        key: 'three-wires',
        text: 'Three wires, no ground: stop before a receptacle is installed, and look what the neutral is.',
        because:
          'An existing circuit may stay only with an insulated neutral, or a bare one in SE cable from the service panel; never the bare wire of NM, 250.140.',
      },
    ];
  if (kind === 'junction') return [];
  return [
    kind === 'switch' || kind === 'light' || kind === 'smoke-alarm'
      ? {
          key: 'no-ground',
          text: 'No ground comes here: install a plate and screws of plastic, or protect the circuit by a GFCI.',
          because: 'Metal that is touched and not grounded becomes live with the first fault, 404.9(B).',
        }
      : {
          key: 'no-ground',
          text: 'Look at the ground screw: nothing may join it to the neutral.',
          because:
            'A jumper there reads correct and puts 120 V on every plugged-in frame when the neutral opens.',
        },
  ];
}

const PLURALS: Readonly<Record<ConductorFunction, string>> = {
  hot: 'hots (black)',
  'hot-b': 'second hots (red)',
  switched: 'switched hots',
  'switched-b': 'second switched hots',
  'traveler-1': 'first travelers',
  'traveler-2': 'second travelers',
  interconnect: 'interconnects',
  neutral: 'whites',
  ground: 'grounds',
  spare: 'spares',
  unknown: 'conductors',
};
/** Grounds are joined first, then neutrals, then what is live. */
const JOINED_FIRST: readonly ConductorFunction[] = ['ground', 'neutral', 'interconnect'];
const rankOf = (fn: ConductorFunction): number => {
  const at = JOINED_FIRST.indexOf(fn);
  return at < 0 ? JOINED_FIRST.length : at;
};

function splices({ run, wiring, ends, nameOf, onward, stop }: Site): WorkStep[] {
  const multiwire = isMultiwire(run);
  const byId = new Map(ends.map((e) => [e.id, e]));
  return wiring.splices
    .map(({ id, connector }) => {
      const members = membersOf(wiring, id).map((m) => byId.get(m)!);
      const fn = members.find((m) => m.kind === 'conductor')?.function ?? 'unknown';
      return { id, connector, members, fn };
    })
    .sort((a, b) => rankOf(a.fn) - rankOf(b.fn))
    .map(({ id, connector, members, fn }): WorkStep => {
      const cables = members.filter((m) => m.kind === 'conductor');
      const leads = members.filter((m) => m.kind === 'lead').map((m) => endName(wiring, m.id, nameOf));
      const tails = members.filter((m) => m.kind === 'tail');
      const toBox = tails.filter((t) => wiring.places.some((p) => p.end === otherEnd(t.id) && p.at === BOX));
      const toDevice = tails.length - toBox.length;
      const where = cables.map((m) => endName(wiring, m.id, nameOf).replace(/^\S+(, marked \S+,)? /, ''));
      const ground = fn === 'ground';
      const load = id.startsWith('splice-load-');
      const parts = [
        toDevice > 0
          ? `${toDevice > 1 ? `${toDevice} tails` : 'a tail'} for the ${load ? 'LOAD terminal' : ground ? (GROUND_PLACE[stop.box.device.kind] ?? 'green screw') : 'device'}`
          : '',
        toBox.length > 0
          ? stop.school.bond === 'clip'
            ? 'one to the box, under its clip'
            : 'one to the screw of the metal box'
          : '',
        leads.length > 0 ? `the ${leads.join(' and the ')}` : '',
      ].filter(Boolean);
      const stands =
        ground && onward.length > 0 && wiring.yokes.length > 0
          ? '; the splice must stand without the device'
          : '';
      return {
        key: `splice ${id}`,
        text: `Join ${ground ? 'all grounds' : `the ${PLURALS[fn]}`} ${listed(where)}${parts.length > 0 ? `, with ${listed(parts)}` : ''}: ${connectorWords(connector)}${stands}.`,
        because: ground
          ? 'Taking a device out must not break the ground for what follows, 250.148.'
          : fn === 'neutral' && multiwire
            ? 'The neutral of a multiwire circuit never depends on a device, 300.13(B): parted, it puts 240 V across both sides.'
            : leads.length > 0
              ? 'Stranded leads go in a little ahead of solid ones; the connector is listed for both together.'
              : 'A device that fails then does not cut the run. Tug each conductor.',
        ...(fn === 'neutral' ? { partsNeutral: true } : {}),
        lands: members.map((m) => m.id),
      };
    });
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

const connectorWords = (kind: BoxWiring['splices'][number]['connector']): string => {
  const range = connectorRange(kind);
  return kind === 'none' || kind === 'unknown'
    ? 'a listed connector'
    : `${kind} connector${range ? ` (${range})` : ''}`.replace('connector connector', 'connector');
};
const otherEnd = (id: string): string => (id.endsWith('.a') ? id.replace(/a$/, 'b') : id.replace(/b$/, 'a'));

/** What the ground of a device is landed on. */
const GROUND_PLACE: Partial<Record<string, string>> = {
  light: 'fixture’s bracket',
  switch: 'switch’s green screw',
  hardwired: 'equipment’s green screw',
};

function capped({ wiring, ends, nameOf, run }: Site): WorkStep[] {
  const loose = ends.filter((e) => wiring.places.some((p) => p.end === e.id && p.at === null));
  return loose.map((e): WorkStep => {
    const other = isMultiwire(run) && (e.function === 'hot' || e.function === 'hot-b');
    return {
      key: `cap ${e.id}`,
      text: `Cap the ${endName(wiring, e.id, nameOf)}: not used here.`,
      because: other
        ? 'It is live from the other pole when the circuit is on.'
        : e.function === 'neutral'
          ? 'A neutral for what may need one later, 404.2(C); it is a live circuit’s return all the same.'
          : 'A bare end that finds something live makes it so.',
      lands: [e.id],
    };
  });
}

function marks({ ends, wiring, nameOf }: Site): WorkStep[] {
  const marked = ends.filter((e) => e.mark !== null);
  return marked.length === 0
    ? []
    : [
        {
          key: 'mark',
          text: `Mark the white as a hot with tape or paint, here and at the other end: ${marked.map((e) => endName(wiring, e.id, nameOf)).join('; ')}.`,
          because: marked.some((e) => e.function === 'hot')
            ? 'The white may be the supply of a switch, never the switched return, 200.7(C).'
            : 'A white that is no neutral says so wherever it is seen, 200.7(C).',
        },
      ];
}

function tabs({ wiring, stop }: Site): WorkStep[] {
  return wiring.yokes.flatMap(({ hotTab, neutralTab }): WorkStep[] => {
    if (hotTab && neutralTab) return [];
    const half = stop.box.device.switched === 'half';
    return [
      {
        key: 'tabs',
        text: !neutralTab
          ? 'Break off both tabs, brass side and silver side: two circuits with neutrals of their own.'
          : half
            ? 'Break off the tab between the brass screws; leave the tab on the silver side.'
            : 'Break off the brass tab only; the silver tab stays.',
        because: half
          ? 'With the brass tab on, the switch does nothing, and both hots are joined through the device.'
          : 'Both hots on one yoke need breakers that open together, 210.7.',
      },
    ];
  });
}

/** What each device has that others do not. */
function cautions(site: Site): WorkStep[] {
  const { wiring, onward, device, run } = site;
  const [yoke] = wiring.yokes;
  if (!yoke || !device) return [];
  const load = onward.filter((s) => s.stop.side === 'load');
  const line = onward.filter((s) => s.stop.side === 'line');
  switch (yoke.kind) {
    case 'gfci':
    case 'outlet-afci':
      return [
        {
          key: 'line-load',
          text: `Land the feed on LINE${load.length > 0 ? ` and ${load.length === 1 ? 'the cable' : 'the cables'} to ${names(load)} on LOAD` : '; leave the tape on LOAD'}${line.length > 0 ? `; ${names(line)} stay${line.length === 1 ? 's' : ''} with LINE, outside its protection` : ''}. Read the back: positions differ by make.`,
          because:
            load.length > 0
              ? 'Reversed, one made since 2006 will not reset and its face is dead; an older one leaves its face unprotected. A LOAD neutral joined to another neutral or to ground trips it, with or without a load.'
              : 'Reversed, one made since 2006 will not reset and its face is dead; an older one leaves its face unprotected.',
        },
      ];
    case 'four-wire receptacle':
    case '125/250 V equipment':
      return [
        {
          key: 'strap',
          text: 'At the appliance: the strap between neutral and frame comes off.',
          because: 'With it on, the frame carries neutral current, 250.142(B).',
        },
      ];
    case 'combination duplex':
      return [
        {
          key: 'combination',
          text: 'The linked brass pair takes one hot for both halves; the single brass screw takes the other hot for the 250 V half.',
          because:
            'Its breaker opens both poles together, 210.4(C). Small loads stay at 120 V in a dwelling, 210.6(A).',
        },
      ];
    case 'two-slot':
      return site.bare
        ? []
        : [
            {
              key: 'two-slot',
              text: 'A ground is here: a two-slot receptacle does not belong, install a grounding one.',
              because: 'Where a ground is there the replacement is a grounding type, 406.4(D)(1).',
            },
          ];
    case 'single-pole':
    case 'dimmer':
      return [
        {
          key: 'no-white',
          text: `No white goes on a ${yoke.kind === 'dimmer' ? 'dimmer' : 'plain switch'}.`,
          because: 'A switch opens the hot. A neutral stays in the box for what may need it, 404.2(C).',
        },
      ];
    case 'three-way':
    case 'three-way dimmer':
      return [
        {
          key: 'common',
          text: `Find the dark screw (common): it takes the ${membersFn(site, 'common') === 'switched' ? 'switched hot to the light' : 'feed'}. The other two take the travelers, either way around.`,
          because: 'With a traveler on the common it works in some positions only.',
        },
      ];
    case 'four-way':
      return [
        {
          key: 'pairs',
          text: 'Each pair of travelers on its own pair of screws: read the diagram on the switch, pairs differ by make.',
          because: 'Mixed pairs make the light answer to some positions only.',
        },
      ];
    case 'smart switch':
    case 'smart switch, no neutral':
      return [
        {
          key: 'smart',
          text:
            yoke.kind === 'smart switch'
              ? 'Its white lead goes to the neutral splice of this very circuit.'
              : 'It feeds itself through the light: read its least load, and use lamps that it names.',
          because:
            yoke.kind === 'smart switch'
              ? 'A neutral borrowed from another circuit trips ground-fault and arc-fault breakers, and overloads unseen.'
              : 'With small lamps they glow or flicker when it is off.',
        },
      ];
    case 'light':
    case 'fan':
      return [
        {
          key: 'weight',
          text: 'The box carries the fixture’s weight, or the fixture hangs from the structure.',
          because:
            'A connector must never carry it. On the shell of a lampholder a hot can be touched when the lamp is changed, 200.10(C).',
        },
      ];
    case 'smoke alarm':
      return [
        {
          key: 'unswitched',
          text: 'From a hot that no switch opens; the interconnect to the third lead, if there is one.',
          because: 'A switch that is off leaves it to its battery.',
        },
      ];
    default:
      return run.circuit.breaker.poles === 2 && !run.circuit.neutral && device.gangs === 0
        ? [
            {
              key: 'both-live',
              text: 'Both hots are 120 V to ground: with one pole open the other still is.',
              because: 'A single-pole thermostat or a half-tripped breaker leaves it live.',
            },
          ]
        : [];
  }
}

const membersFn = ({ wiring, ends }: Site, terminal: string): ConductorFunction | undefined => {
  const [yoke] = wiring.yokes;
  const place = terminalAt(yoke!, { id: terminal });
  const splice = wiring.places.find((p) => p.end === place)?.at;
  const members = membersOf(wiring, splice ?? place);
  return ends.find((e) => members.includes(e.id) && e.kind !== 'lead')?.function;
};

/** Landings on the device, by what they are of, in the order of the school. */
function landings({ wiring, ends, nameOf, stop }: Site): WorkStep[] {
  const byId = new Map(ends.map((e) => [e.id, e]));
  const places = wiring.yokes.flatMap((yoke) =>
    DEVICES[yoke.kind].terminals
      .filter((t) => t.held !== 'lead')
      .map((t) => ({ terminal: t, members: membersOf(wiring, terminalAt(yoke, t)) })),
  );
  const onBox = membersOf(wiring, BOX);
  const group = (wanted: (fn: ConductorFunction) => boolean) =>
    places.flatMap(({ terminal, members }) =>
      members.filter((m) => wanted(byId.get(m)!.function)).map((m) => ({ terminal, end: byId.get(m)! })),
    );
  const step = (key: string, landed: ReturnType<typeof group>, extra: readonly string[] = []): WorkStep[] => {
    if (landed.length + extra.length === 0) return [];
    const words = [
      ...landed.map(
        ({ terminal, end }) =>
          `${capital(end.kind === 'tail' ? `${end.color} tail` : endName(wiring, end.id, nameOf))} to the ${terminal.name}`,
      ),
      ...extra.map((id) => `${capital(endName(wiring, id, nameOf))} to the metal of the box`),
    ];
    const plain =
      stop.box.device.kind === 'two-slot' && key === 'land neutral'
        ? ' (the wider slot); it has no ground screw'
        : '';
    return [
      {
        key,
        text: `${words.join('; ')}${plain}. Tighten to the torque marked on the device; tighten unused screws.`,
        because: ORDER[stop.school.landing],
        ...(key === 'land neutral' ? { partsNeutral: true } : {}),
        lands: [...landed.map((l) => l.end.id), ...extra],
      },
    ];
  };
  const ground = step(
    'land ground',
    group((fn) => fn === 'ground'),
    onBox,
  );
  const neutral = step(
    'land neutral',
    group((fn) => fn === 'neutral'),
  );
  // Of a switch what it switches comes before what feeds it.
  const isSwitch = stop.box.device.kind === 'switch';
  const hots = group((fn) => fn !== 'ground' && fn !== 'neutral').sort((a, b) =>
    isSwitch ? Number(a.end.function.startsWith('hot')) - Number(b.end.function.startsWith('hot')) : 0,
  );
  const hot = step('land hot', hots);
  return stop.school.landing === 'ground-neutral-hot'
    ? [...ground, ...neutral, ...hot]
    : [...hot, ...neutral, ...ground];
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const ORDER = {
  'ground-neutral-hot':
    'Ground, neutral, hot on; the reverse off. Loose screws are where opens and heat begin.',
  'hot-neutral-ground':
    'Hot, neutral, ground on, as this shop does it on dead conductors; off, the ground comes last. Loose screws are where opens and heat begin.',
} as const;

function close({ stop, device }: Site): WorkStep[] {
  const { box, school } = stop;
  const { kind } = box.device;
  const steps: WorkStep[] = [];
  if (school.tape && device && device.gangs > 0 && device.terminals.some((t) => t.held !== 'lead'))
    steps.push({
      key: 'tape',
      text: 'A turn of tape around the terminals of the device.',
      because: 'This shop’s habit against a bare ground that touches a screw; the code does not ask for it.',
    });
  steps.push({
    key: 'close',
    text:
      kind === 'hardwired'
        ? 'Tug each conductor, close the cover with every screw.'
        : kind === 'junction'
          ? `Tug each conductor, fold them in, put a blank cover on: it stays reachable, 314.29${box.accessible ? '' : '. Recorded here as not reachable: it may not be covered over'}.`
          : `Tug each conductor, fold them in, grounds to the back, mount the ${kind === 'light' ? 'fixture' : 'device'} level and snug${isReceptacle(box) && device?.terminals.some((t) => t.id === 'green') ? `, ground slot ${school.groundSlot}` : ''}.`,
    because: 'Power drivers on low clutch at most; final torque by hand.',
  });
  if (device && device.gangs > 0)
    steps.push({
      key: 'plate',
      text: `Plate on, nothing bare to be seen around it${box.device.cover === 'indoor' ? '' : '; outdoors its cover and gasket'}.`,
      because: 'A gap at the yoke is a finger’s way to a screw.',
    });
  const labels = stickers(stop);
  if (labels.length > 0)
    steps.push({
      key: 'labels',
      text: `Labels on: ${labels.map((l) => `“${l}”`).join(' and ')}.`,
      because:
        box.grounding === 'none'
          ? 'Three slots promise a ground that is not there: whoever plugs in must know, 406.4(D)(2).'
          : 'Who plugs in must know that it goes off by itself, 406.3(E).',
    });
  return steps;
}

/** Stickers that belong on the plate or the device. */
function stickers({ box, gfci }: RunStop): string[] {
  const { kind, automatic, switched } = box.device;
  if (!isReceptacle(box) || kind === 'two-slot') return [];
  const controlled = automatic && switched !== 'none' ? ['Controlled'] : [];
  if (box.grounding !== 'none') return controlled;
  if (kind === 'gfci') return ['No Equipment Ground', ...controlled];
  return gfci ? ['GFCI Protected', 'No Equipment Ground', ...controlled] : controlled;
}

/** What is measured once power is back. */
function tests({ stop, run, onward, wiring }: Site): WorkStep[] {
  const { box } = stop;
  const { kind } = box.device;
  if (kind === 'junction') return [];
  const step = (key: string, text: string, because: string): WorkStep => ({
    key: `test ${key}`,
    text,
    because,
    afterPower: true,
  });
  if (kind === 'gfci' || kind === 'outlet-afci') {
    const load = onward.filter((s) => s.stop.side === 'load');
    return [
      step(
        'read',
        'Hot to neutral, hot to ground, neutral to ground.',
        'Volts tell what three lamps cannot.',
      ),
      step(
        'button',
        `Its own test button: its face goes dead${load.length > 0 ? `, and ${names(load)} with it` : ''}; it resets.`,
        'The button needs no ground; a plug-in tester does.',
      ),
    ];
  }
  if (isReceptacle(box)) {
    if (box.device.volts !== '125')
      return [
        step(
          'legs',
          `Each hot to ground${run.circuit.neutral ? ' and to neutral' : ''} 120 V; hot to hot 240 V (208 V on some services).`,
          'Both hots on one leg read 120 V each and 0 V between them.',
        ),
      ];
    const half = box.device.switched !== 'none';
    return [
      step(
        'read',
        'Both halves: hot to neutral, hot to ground, neutral to ground.',
        'One half may hang on a screw that the other does not.',
      ),
      ...(half
        ? [
            step(
              'switch',
              'Its switch: the controlled half goes dead, the other stays.',
              'A tab left on joins both.',
            ),
          ]
        : []),
    ];
  }
  if (kind === 'switch')
    return [
      step(
        'positions',
        wiring.yokes.some((y) => /way/.test(y.kind))
          ? 'Every combination of its switches: each throw changes the light.'
          : 'On and off: the light follows; off, the shell and both screws of the lampholder are dead.',
        'A neutral that is switched leaves the lampholder live.',
      ),
    ];
  if (kind === 'smoke-alarm')
    return [
      step(
        'alarm',
        'Its button: every alarm of the house sounds.',
        'An interconnect that is open shows nowhere else.',
      ),
    ];
  return [
    step(
      'runs',
      'It works, with its current clamped once warm.',
      'Current tells what is wrong before heat does.',
    ),
  ];
}
