/** What has to be fitted at an outlet now, by 406.4(D) and what is there: the choices, with what each brings and costs. */
import { decisionOn, decisionsFor, type Decision } from '#core/code/decisions.ts';
import { contentsOf, roomOf } from '#core/boxes/contents.ts';
import { fillOf } from '#core/boxes/fill.ts';
import { weatheredAt } from '#core/layout/placement.ts';
import type { Command } from '#core/job/commands.ts';
import type { Box, Circuit, Device } from '#core/job/schema.ts';
import { breakerPrice, priceBookOf } from '#core/panel/prices.ts';
import type { Choice, Context, Line, Step } from '../step.ts';
import { changeBox, workedOn } from './place.ts';

/** A plain receptacle, for which the price book has no line, dollars. */
const PLAIN_DEVICE_PRICE = 4;

const isAsked = (d: Decision | null): boolean => d?.asked === 'required' || d?.asked === 'not-known';

/** The device as it would be fitted: today’s tamper- and weather-resistance come with every replacement. */
function deviceOf(c: Context, box: Box, kind: Device['kind']): Device {
  const { weatherResistant, cover } = weatheredAt(c.document.areas[box.areaId]!);
  const small = box.device.rating <= 20;
  return {
    ...box.device,
    kind,
    tamperResistant: kind !== 'two-slot' && small,
    weatherResistant: weatherResistant && small,
    cover,
  };
}

/** How an outlet stands toward a choice, once it were fitted. */
interface Fitted {
  box: Box;
  circuit: Circuit | null;
}
const CHOICES: readonly {
  value: string;
  name: string;
  brings: string;
  walls: Choice['walls'];
  hours: number;
  /** What it makes of the outlet and its circuit; null where it is none here. */
  fit: (c: Context, box: Box) => Fitted | null;
}[] = [
  {
    value: 'plain',
    name: 'Grounding receptacle',
    brings: 'A ground at its third hole.',
    walls: 'none',
    hours: 0.3,
    fit: (c, box) => ({ box: { ...box, device: deviceOf(c, box, 'duplex') }, circuit: c.circuit }),
  },
  {
    value: 'gfci',
    name: 'GFCI receptacle here',
    brings: 'People are protected here and at what is on its load side. Resets where they are.',
    walls: 'none',
    hours: 0.5,
    fit: (c, box) => ({ box: { ...box, device: deviceOf(c, box, 'gfci') }, circuit: c.circuit }),
  },
  {
    value: 'first',
    name: 'GFCI at the first box of the chain',
    brings: 'Everything after it is protected; the first box has to be found.',
    walls: 'none',
    hours: 1.5,
    fit: (c, box) => ({ box: { ...box, device: deviceOf(c, box, 'duplex') }, circuit: null }),
  },
  {
    value: 'gfci-breaker',
    name: 'GFCI breaker',
    brings: 'The whole circuit is protected, without knowing the chain. Resets at the panel.',
    walls: 'none',
    hours: 0.8,
    fit: (c, box) => withBreaker(c, box, 'gfci'),
  },
  {
    value: 'dual-breaker',
    name: 'AFCI/GFCI breaker',
    brings: 'Arcs and ground faults of the whole circuit.',
    walls: 'none',
    hours: 0.8,
    fit: (c, box) => withBreaker(c, box, 'dual'),
  },
  {
    value: 'afci-breaker',
    name: 'AFCI breaker',
    brings: 'Arcs in the whole circuit; no protection from shock.',
    walls: 'none',
    hours: 0.8,
    fit: (c, box) => withBreaker(c, box, 'afci'),
  },
  {
    value: 'afci',
    name: 'Outlet-type AFCI here',
    brings: 'Arcs here and at what is on its load side.',
    walls: 'none',
    hours: 0.5,
    fit: (c, box) => ({ box: { ...box, device: deviceOf(c, box, 'outlet-afci') }, circuit: c.circuit }),
  },
  {
    value: 'gfci-afci',
    name: 'GFCI here and an AFCI breaker',
    brings: 'People here and after it, arcs in the whole circuit.',
    walls: 'none',
    hours: 1.1,
    fit: (c, box) => {
      const fitted = withBreaker(c, box, 'afci');
      return fitted && { ...fitted, box: { ...box, device: deviceOf(c, box, 'gfci') } };
    },
  },
  {
    value: 'ground-afci',
    name: 'Separate ground and an outlet-type AFCI',
    brings: 'A ground that clears faults; arcs here and after it.',
    walls: 'one',
    hours: 3.2,
    fit: (c, box) => ({
      box: { ...box, grounding: 'grounded', device: deviceOf(c, box, 'outlet-afci') },
      circuit: c.circuit,
    }),
  },
  {
    value: 'two-slot',
    name: 'Two-slot, like for like',
    brings: 'Nothing more than before; no false promise of a ground.',
    walls: 'none',
    hours: 0.3,
    fit: (c, box) =>
      box.grounding === 'grounded'
        ? null
        : { box: { ...box, device: deviceOf(c, box, 'two-slot') }, circuit: c.circuit },
  },
  {
    value: 'new-ground',
    name: 'Separate ground to the box',
    brings: 'A ground that clears faults and that surge devices need. GFCI rules stay.',
    walls: 'one',
    hours: 3,
    fit: (c, box) => ({
      box: { ...box, grounding: 'grounded', device: deviceOf(c, box, 'duplex') },
      circuit: c.circuit,
    }),
  },
  {
    value: 'new-cable',
    name: 'New cable from the panel',
    brings: 'A new circuit: ground, full size, today’s protection at the breaker.',
    walls: 'several',
    hours: 6,
    fit: (c, box) => ({
      box: { ...box, grounding: 'grounded', status: 'new', device: deviceOf(c, box, 'duplex') },
      circuit: c.circuit && {
        ...c.circuit,
        status: 'new',
        breaker: { ...c.circuit.breaker, protection: 'dual' },
      },
    }),
  },
];

function withBreaker(c: Context, box: Box, protection: Circuit['breaker']['protection']): Fitted | null {
  if (!c.circuit) return null;
  return {
    box: { ...box, device: deviceOf(c, box, 'duplex') },
    circuit: { ...c.circuit, breaker: { ...c.circuit.breaker, protection } },
  };
}

/** Cents of what is bought for a choice. */
function priceOf(c: Context, value: string, circuit: Circuit | null): number {
  const book = priceBookOf(c.document.job);
  const breaker = (protection: Circuit['breaker']['protection']) =>
    breakerPrice(book, { ...(circuit?.breaker ?? { poles: 1 }), protection } as Circuit['breaker']);
  switch (value) {
    case 'gfci':
    case 'first':
      return book['gfci-receptacle'];
    case 'afci':
      return book['breaker-afci'];
    case 'gfci-afci':
      return book['gfci-receptacle'] + breaker('afci');
    case 'ground-afci':
      return 40 * book['cable-12-2'] + book['breaker-afci'];
    case 'gfci-breaker':
      return breaker('gfci') + 100 * PLAIN_DEVICE_PRICE;
    case 'dual-breaker':
      return breaker('dual') + 100 * PLAIN_DEVICE_PRICE;
    case 'afci-breaker':
      return breaker('afci') + 100 * PLAIN_DEVICE_PRICE;
    case 'new-ground':
      return 40 * book['cable-12-2'] + 100 * PLAIN_DEVICE_PRICE;
    case 'new-cable':
      return 60 * book['cable-12-2'] + book['breaker-dual'] + 100 * PLAIN_DEVICE_PRICE;
    default:
      return 100 * PLAIN_DEVICE_PRICE;
  }
}

const provides = (value: string, topic: 'gfci' | 'afci'): boolean =>
  topic === 'gfci'
    ? ['gfci', 'first', 'gfci-breaker', 'dual-breaker', 'gfci-afci', 'new-cable'].includes(value)
    : ['afci', 'afci-breaker', 'dual-breaker', 'gfci-afci', 'ground-afci', 'new-cable'].includes(value);

const ARC_ALONE = ['afci', 'afci-breaker', 'gfci-afci', 'ground-afci'];

/** Why a choice is not allowed here; undefined where it is. */
function whyNot(c: Context, box: Box, value: string, gfci: boolean, afci: boolean): string | undefined {
  const has = (topic: 'gfci' | 'afci') => decisionOn(topic, c.view, box)?.providedBy !== null;
  const upstream = (topic: 'gfci' | 'afci') => has(topic) && !ownProvides(box, topic);
  const shared = c.circuit?.breaker.poles === 2 && c.circuit.neutral && box.device.volts === '125';
  if (
    box.device.rating > 20 &&
    ['gfci', 'first', 'afci', 'gfci-afci', 'ground-afci', 'two-slot'].includes(value)
  )
    return `a ${box.device.rating} A outlet is protected at its breaker`;
  if ((value.endsWith('breaker') || value === 'gfci-afci') && !c.circuit)
    return 'its breaker is not on record';
  if (shared && (value.endsWith('breaker') || value === 'gfci-afci'))
    return 'it shares its neutral: only a two-pole breaker of this kind serves both hots';
  if (value === 'plain' && box.grounding !== 'grounded')
    return box.grounding === 'none'
      ? 'there is no ground for its third hole, 406.4(D)(1)'
      : 'whether there is a ground is not on record, 406.4(D)(1)';
  const bare = box.grounding !== 'grounded';
  if (value === 'two-slot' && gfci)
    return 'GFCI is asked for here, so like for like will not do, 406.4(D)(3)';
  if (bare && ['afci', 'afci-breaker'].includes(value) && !upstream('gfci'))
    return 'three slots without a ground need GFCI protection, 406.4(D)(2)';
  if (!bare && addsGround(value)) return 'there is a ground already';
  if (gfci && !provides(value, 'gfci') && !upstream('gfci')) return 'GFCI is asked for here, 406.4(D)(3)';
  if (afci && !provides(value, 'afci') && !upstream('afci')) return 'AFCI is asked for here, 406.4(D)(4)';
  return undefined;
}
const addsGround = (value: string): boolean => value.startsWith('new-') || value === 'ground-afci';
const ownProvides = (box: Box, topic: 'gfci' | 'afci'): boolean =>
  box.device.kind === (topic === 'gfci' ? 'gfci' : 'outlet-afci');

const SECTIONS: Record<string, string> = {
  plain: '406.4(D)(1)',
  gfci: '406.4(D)(2)(b), (3)',
  first: '406.4(D)(2)(c), (3)',
  'gfci-breaker': '406.4(D)(2)(c), (3)',
  'dual-breaker': '406.4(D)(3), (4)',
  'afci-breaker': '406.4(D)(4)',
  afci: '406.4(D)(4)',
  'gfci-afci': '406.4(D)(2)(b), (3), (4)',
  'ground-afci': '250.130(C), 406.4(D)(4)',
  'two-slot': '406.4(D)(2)(a)',
  'new-ground': '250.130(C)',
  'new-cable': '210.8, 210.12',
};

/** A deep device in a small box: what its room says. */
function fillWords(c: Context, box: Box): string {
  const room = roomOf(box);
  const contents = contentsOf(c.view, box);
  if (room === null || !contents.ok) return '';
  const { volume } = fillOf(contents.value, c.view.edition);
  return volume > room ? ` The box is full: ${volume} of ${room} cu in., 314.16.` : '';
}

const LEFT_AS_IT_IS: Choice = {
  value: 'leave',
  name: 'Leave it as it was, and say why',
  brings: 'Nothing that may be fitted here is left by what is on record; it is written down as open.',
  walls: 'none',
  hours: 0,
  price: 0,
  parts: [],
  labels: [],
  section: '406.4(D)',
};

/** The choices at an outlet that is replaced, the fitting ones first; none that the code does not allow is left out silently. */
export function fittings(c: Context, from: Box): Choice[] {
  const box: Box = { ...from, status: workedOn(from) };
  const gfci = isAsked(decisionOn('gfci', c.view, box));
  const afci = isAsked(decisionOn('afci', c.view, box));
  const bare = box.grounding !== 'grounded';
  const choices = CHOICES.flatMap((choice): Choice[] => {
    const fitted = choice.fit(c, box);
    // What protects from arcs alone is offered where that is asked for.
    if (!fitted || (!afci && ARC_ALONE.includes(choice.value))) return [];
    const { value, name, brings, walls, hours } = choice;
    const not = whyNot(c, box, value, gfci, afci);
    const labels =
      !bare || addsGround(value) || value === 'two-slot'
        ? []
        : value === 'gfci' || value === 'gfci-afci'
          ? ['No Equipment Ground']
          : ['GFCI Protected', 'No Equipment Ground'];
    return [
      {
        value,
        name,
        brings: `${brings}${fitted.box.device.kind === 'gfci' ? fillWords(c, box) : ''}${bare && provides(value, 'gfci') && value !== 'new-cable' ? ' No ground: surge devices do nothing, and a short clears no faster.' : ''}`,
        walls,
        hours,
        price: Math.round(priceOf(c, value, c.circuit) / 100),
        parts: partsOf(fitted.box, value),
        labels: not === undefined ? labels : [],
        section: SECTIONS[value]!,
        ...(not === undefined ? {} : { not }),
      },
    ];
  });
  // What protects for little and opens no wall comes first.
  const rank = (k: Choice) =>
    (k.not === undefined ? 0 : 100) +
    (k.walls === 'none' ? 0 : 10) +
    (k.value === 'two-slot' ? 5 : 0) +
    k.hours;
  choices.sort((a, b) => rank(a) - rank(b));
  if (choices.every((k) => k.not !== undefined)) choices.unshift(LEFT_AS_IT_IS);
  return choices.map((k, i) => (i === 0 && k.not === undefined ? { ...k, first: true } : k));
}

function partsOf({ device }: Box, value: string): string[] {
  const marks = [
    device.tamperResistant && 'tamper-resistant',
    device.weatherResistant && 'weather-resistant',
  ].filter(Boolean);
  const kind = {
    gfci: 'GFCI receptacle',
    'outlet-afci': 'outlet-type AFCI',
    'two-slot': 'two-slot receptacle',
  }[device.kind as string];
  const receptacle = `${device.rating} A ${kind ?? 'duplex'}${marks.length > 0 ? `, ${marks.join(', ')}` : ''}`;
  const cover =
    device.cover === 'indoor' ? [] : [device.cover === 'in-use' ? 'in-use cover' : 'weatherproof cover'];
  const more: Record<string, string[]> = {
    first: ['GFCI receptacle for the first box'],
    'gfci-breaker': ['GFCI breaker listed for the panel'],
    'dual-breaker': ['AFCI/GFCI breaker listed for the panel'],
    'afci-breaker': ['AFCI breaker listed for the panel'],
    'gfci-afci': ['AFCI breaker listed for the panel'],
    'ground-afci': ['ground conductor to a point of 250.130(C)'],
    'new-ground': ['ground conductor to a point of 250.130(C)'],
    'new-cable': ['cable with ground', 'AFCI/GFCI breaker'],
  };
  return [receptacle, ...cover, ...(more[value] ?? [])];
}

/** How the job stands once a choice is carried out. */
export function fitCommands(c: Context, from: Box, value: string): Command[] {
  const fitted = CHOICES.find((k) => k.value === value)?.fit(c, { ...from, status: workedOn(from) });
  if (!fitted) return [];
  return [
    changeBox(fitted.box, {}),
    ...(fitted.circuit && fitted.circuit !== c.circuit
      ? [{ type: 'put' as const, table: 'circuits' as const, rows: [fitted.circuit] }]
      : []),
  ];
}

const ASKED: Record<Decision['asked'], string> = {
  required: 'asked for',
  'not-required': 'not asked for',
  existing: 'not yet',
  'not-known': 'not judged',
  'not-judged': 'not judged',
};

/** What is asked for at this outlet once it is replaced, with the sections. */
const askedLines = (c: Context, from: Box): Line[] => {
  const box: Box = { ...from, status: workedOn(from) };
  return decisionsFor(c.view, box).map(({ topic, asked, reason, section }) => ({
    text: `${topic.toUpperCase()}: ${ASKED[asked]}`,
    because: reason,
    section,
  }));
};

/** The choice of what to fit. */
export const fit = (c: Context, box: Box, title = 'What to install'): Step => ({
  kind: 'decide',
  key: 'fit',
  title,
  why: 'A replacement brings today’s rules with it: ground, GFCI, AFCI, tamper- and weather-resistance.',
  working: askedLines(c, box),
  options: fittings(c, box),
  effects: ({ picks: [pick = ''] }) => fitCommands(c, box, pick),
});
