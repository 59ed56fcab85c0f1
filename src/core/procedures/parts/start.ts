/** How every call begins: one look at danger, and who must not lose power without being asked. */
import type { Context, Option, Step } from '../step.ts';
import { when } from '../step.ts';

const DANGERS = [
  { value: 'burning', name: 'Burning smell or smoke' },
  { value: 'heat', name: 'A plate, cord or breaker is hot' },
  { value: 'buzzing', name: 'Buzzing or crackling' },
  { value: 'water', name: 'Water in or near it' },
  { value: 'shock', name: 'Somebody felt a shock or tingle' },
] as const satisfies readonly Option[];

type Danger = (typeof DANGERS)[number]['value'];

/** What to turn off and whom to call, by danger. */
const STOPS: Record<Danger, { turnOff: string[]; whom: string[] }> = {
  burning: {
    turnOff: [
      'Nobody near it. Smoke or flames: everybody out, and nothing else.',
      'Else: its breaker off; if it is not known, the main off.',
      'It stays off until it was found.',
    ],
    whom: ['Smoke, flames or heat in a wall: the fire department, before anything else.'],
  },
  heat: {
    turnOff: [
      'Unplug what hangs on it, if that can be done without touching what is hot.',
      'Its breaker off.',
    ],
    whom: ['Heat that grows with the power off: the fire department.'],
  },
  buzzing: {
    turnOff: [
      'What hangs on it off, then its breaker.',
      'At the panel: the main off, stand to the side, do not open it.',
    ],
    whom: ['At the meter, the mast or the service drop: the utility. It stays live with the main off.'],
  },
  water: {
    turnOff: [
      'Do not stand in the water, do not touch what is wet.',
      'The main off, if the way to it and the panel are dry; else nothing is touched.',
    ],
    whom: ['The panel or meter is wet: the utility, to cut the service.'],
  },
  shock: {
    turnOff: [
      'Unplug it by a dry cord only, or its breaker off.',
      'Metal that tingles anywhere in the house (taps, appliances): the main off, nobody touches it.',
    ],
    whom: [
      'Somebody hurt, faint or burnt: emergency services, even if they feel well now.',
      'A tingle at more than one place: the utility, for an open service neutral.',
    ],
  },
};

/** One look before anything else. */
export function danger(c: Context): readonly (Step | false | null)[] {
  const found = DANGERS.filter((d) => c.log.picked('danger', d.value));
  return [
    {
      kind: 'look',
      key: 'danger',
      title: 'Any of these, now?',
      why: 'These come first: what is hot, wet or has shocked somebody is turned off before it is looked at.',
      options: DANGERS,
      exits: [{ value: 'none', name: 'None of these' }],
      refuses: ({ picks }) => (picks.length > 0 ? null : 'expected what there is, or none of these'),
    },
    ...when(found.length > 0, {
      kind: 'ask',
      key: 'danger-stop',
      title: 'Turn it off first',
      text: found.map((d) => d.name).join(', '),
      why: 'A fault that shows itself so gets worse while it is looked for.',
      caution: 'Stop here unless it is off and nobody is hurt.',
      working: found.flatMap((d) => [
        ...STOPS[d.value].turnOff.map((text) => ({ text })),
        ...STOPS[d.value].whom.map((text) => ({ text: `Call: ${text}` })),
      ]),
      options: [
        { value: 'safe', name: 'It is off, nobody is hurt: go on' },
        { value: 'left', name: 'Left off, help called: end here' },
      ],
    }),
  ];
}

/** The call ends here for safety. */
export const isLeft = (c: Context): boolean => c.log.picked('danger-stop', 'left');

/** Asked before the first flip. */
const SEE_TO = {
  medical: {
    name: 'Somebody on medical equipment',
    do: 'Equipment on its battery or another circuit, and somebody beside it, before anything is turned off. Else do not flip.',
  },
  alarm: { name: 'A burglar or fire alarm', do: 'Tell who watches it; set it to test.' },
  sump: { name: 'A sump or well pump', do: 'Look at the water level now; count on minutes.' },
  freezer: { name: 'A freezer or refrigerator', do: 'Doors shut; note the time. A few hours are no harm.' },
  computer: { name: 'Work on a computer', do: 'Save and shut down.' },
  heat: { name: 'Heat in winter, or an aquarium', do: 'Agree how long; have it back on by then.' },
} as const;
type SeeTo = keyof typeof SEE_TO;

export function beforeFlips(c: Context): readonly (Step | false | null)[] {
  const found = (Object.keys(SEE_TO) as SeeTo[]).filter((k) => c.log.picked('before-off', k));
  return [
    {
      kind: 'look',
      key: 'before-off',
      title: 'Before anything goes off: is there…',
      why: 'A breaker may feed more than its label says.',
      options: (Object.keys(SEE_TO) as SeeTo[]).map((value) => ({ value, name: SEE_TO[value].name })),
      exits: [{ value: 'none', name: 'Asked, and seen to' }],
    },
    ...when(found.length > 0, {
      kind: 'do',
      key: 'before-off-do',
      title: 'See to these first',
      why: 'Losing power without warning can hurt somebody or cost more than the repair.',
      lines: found.map((k) => ({ text: `${SEE_TO[k].name}: ${SEE_TO[k].do}` })),
      done: 'Seen to',
    }),
  ];
}

/** Before a wall, a ceiling or old insulation is opened. */
export const OLD_HOUSE =
  'Before a wall or ceiling is opened in a house from before 1978: paint may hold lead; texture, tile, cement board and pipe wrap may hold asbestos. Who may disturb them, and how, is for federal and state rules: have it tested, or leave it closed.';
