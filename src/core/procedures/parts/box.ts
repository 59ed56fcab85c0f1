/** What is done at one box: read as found, looked into once it is dead, wired, tested as left. */
import { isBefore } from '#core/units/time.ts';
import { labelsFor } from '#core/code/decisions.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { stepsFor } from '#core/boxes/steps.ts';
import { runOf } from '#core/circuits/run.ts';
import type { Command } from '#core/job/commands.ts';
import { NOTHING_FOUND, rows } from '#core/job/document.ts';
import type { Box, Circuit, Gauge, Reading, Sign } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { readingsOf } from '#core/records/proof.ts';
import { facesOf } from '#core/records/faces.ts';
import type { Context, Line, Option, Step } from '../step.ts';
import { when } from '../step.ts';
import { changeBox } from './place.ts';

/** Readings of a box since the call began, that stand; what was read as found stays what was found. */
const readSince = (c: Context, box: Box, stage: Reading['stage']): Reading[] =>
  readingsOf(c.document, box.id).flatMap(({ reading, past }) =>
    (past === null || (past === 'mended since' && stage === 'as-found')) &&
    reading.stage === stage &&
    !isBefore(reading.at, c.call.opened)
      ? [reading]
      : [],
  );

/** The outlet read before anything is moved. */
export const asFound = (c: Context, box: Box): Step => ({
  kind: 'read',
  key: `found ${box.id}`,
  title: 'Read it as you found it',
  text: 'Meter or three lamps, before anything is off.',
  why: 'Without an as-found reading nobody can say later what the repair changed.',
  box,
  half: 'both',
  stage: 'as-found',
  met: readSince(c, box, 'as-found').length > 0,
});

/** Every face read with the power back. */
export function asLeft(c: Context, box: Box, live: Circuit | null): Step[] {
  const read = readSince(c, box, 'as-left');
  return facesOf(box).map((half) => ({
    kind: 'read',
    key: `left ${box.id} ${half}`,
    title: half === 'both' ? 'Read it as left' : `Read the ${half} half`,
    why: 'Both halves: one may hang on a screw that the other does not.',
    box,
    half,
    stage: 'as-left',
    live,
    met: read.some((r) => r.half === half || r.half === 'both'),
  }));
}

const LOOKED = [
  { value: 'back-stabbed', name: 'Pushed in at the back', sign: 'back-stabbed' },
  { value: 'reversed', name: 'Black on silver, white on brass' },
  { value: 'jumper', name: 'White or silver joined to the ground screw' },
  { value: 'two-under', name: 'Two under one screw' },
  { value: 'heat', name: 'Burnt or brittle insulation', sign: 'heat marks' },
  { value: 'aluminum', name: 'Aluminum wire', sign: 'aluminum' },
  { value: 'cloth', name: 'Cloth or rubber insulation', sign: 'cloth insulation' },
  { value: 'splice', name: 'A splice that comes apart when pulled', sign: 'loose' },
  { value: 'short', name: 'Less than 6 in. of free conductor' },
  { value: 'tab', name: 'Tab broken off: half switched or two circuits' },
  { value: 'metal', name: 'Metal box' },
  { value: '14', name: '14 AWG' },
  { value: '12', name: '12 AWG' },
] as const satisfies readonly (Option & { sign?: Sign })[];
type Looked = (typeof LOOKED)[number]['value'];

/** What each thing found asks of the hands. */
const MENDS: Partial<Record<Looked, Line>> = {
  'back-stabbed': {
    text: 'Pushed-in conductors: out, cut back, under a screw or clamp.',
    because: 'The spring grip of a push-in is the usual place of an open.',
    section: '110.14(A)',
  },
  reversed: {
    text: 'Black to brass, white to silver: find out which is the hot first, both here and in the box before.',
    because: 'A reversal may sit upstream, and then this box only copies it.',
    section: '200.11',
  },
  jumper: {
    text: 'The jumper between neutral and ground comes off, for good.',
    because: 'When the neutral opens, every frame plugged in is at 120 V.',
    section: '250.142(B)',
  },
  'two-under': {
    text: 'One conductor under a screw: join the others with a tail.',
    section: '110.14(A)',
  },
  heat: {
    text: 'Cut back to sound insulation and bright copper; else a new length or cable.',
    section: '110.12(B)',
  },
  aluminum: {
    text: 'Aluminum: a device marked for it, or copper tails by a connector listed for the pair. Stop if it breaks.',
    section: '406.3(C), 110.14',
  },
  cloth: { text: 'Move it as little as possible; sleeve what is bare.', section: '110.12(B)' },
  splice: { text: 'Splice made anew, every conductor tugged.', section: '110.14(B)' },
  short: { text: 'Extend with tails to 6 in. of free conductor.', section: '300.14' },
  tab: {
    text: 'Break the same tab off on the new device.',
    because: 'Left on it joins a switched half, or two circuits.',
  },
};

const EXITS = [
  { value: 'ground', name: 'Copper ground: go on' },
  { value: 'sheath', name: 'Ground by sheath or conduit' },
  { value: 'no-ground', name: 'No ground in the box' },
] as const;

/** What was found in the box that the hands have to mend. */
const mendLines = (c: Context): Line[] =>
  LOOKED.flatMap((o) => {
    const line = MENDS[o.value];
    return line && c.log.picked('inside', o.value) ? [line] : [];
  });

/** What the box shows once it is dead. */
export function lookInside(c: Context, box: Box): readonly (Step | false | null)[] {
  const circuit = c.view.circuitOf(box.id);
  return [
    {
      kind: 'look',
      key: 'inside',
      title: 'Look in the box: what is there?',
      text: 'Right is copied, wrong is not. Ground last: it ends the look.',
      why: 'What is wrong here is mended with the new device, not hidden behind it.',
      inside: box,
      pictures: box,
      options: LOOKED,
      exits: EXITS,
      effects: ({ picks }) => insideCommands(box, circuit, picks),
    },
    // Metal proves nothing by being metal.
    ...when(c.log.picked('inside', 'sheath') && circuit, {
      kind: 'measure',
      key: 'hot-to-box',
      title: 'Hot to metal box',
      text: 'Power on, nobody working: black to the metal of the box, with a low-impedance meter or a load.',
      why: 'About 120 V shows a path, not a good one; only a load or ohms show that.',
      caution: 'Probes only. Then off, and proved dead again.',
      liveOpen: circuit,
      figures: [
        { name: 'volts', label: 'Black to box', unit: 'V', min: 0, max: 300, expects: 'as black to white' },
        {
          name: 'ohms',
          label: 'Ground path',
          unit: 'Ω',
          min: 0,
          max: 1e6,
          optional: true,
          expects: 'under 1',
        },
      ],
      cannot: 'Not measured: taken as no ground',
      effects: ({ figures, picks }) => {
        const volts = figures.find((f) => f.name === 'volts')?.value ?? 0;
        const good = !picks.includes('cannot') && volts > 100;
        return [changeBox(box, { grounding: good ? 'grounded' : 'none' })];
      },
    } satisfies Step),
  ];
}

function insideCommands(box: Box, circuit: Circuit | null, picks: readonly string[]): Command[] {
  const found = LOOKED.flatMap((o) => ('sign' in o && picks.includes(o.value) ? [o.sign] : []));
  const before = box.found ?? NOTHING_FOUND;
  const grounding = picks.includes('no-ground') ? 'none' : picks.includes('ground') ? 'grounded' : 'unknown';
  const gauge = (['14', '12'] as const).find((g) => picks.includes(g)) as Gauge | undefined;
  const cable = grounding === 'none' ? ('old two-wire' as const) : null;
  return [
    changeBox(box, {
      grounding,
      found: {
        ...before,
        signs: [...new Set([...before.signs, ...found])],
        boxMaterial: picks.includes('metal') || picks.includes('sheath') ? 'metal' : before.boxMaterial,
      },
    }),
    ...(circuit && circuit.ordered !== 'yes' && (gauge || cable || picks.includes('aluminum'))
      ? [
          {
            type: 'put' as const,
            table: 'circuits' as const,
            rows: [
              {
                ...circuit,
                ...(gauge ? { gauge, seen: 'yes' as const } : {}),
                ...(cable ? { cable } : {}),
                ...(picks.includes('aluminum') ? { material: 'aluminum' as const } : {}),
              },
            ],
          },
        ]
      : []),
  ];
}

/** The steps of the hands, from the wiring of the box. */
export function wireUp(c: Context, box: Box, title = 'Wire and close it'): Step[] {
  const circuit = c.view.circuitOf(box.id);
  if (!circuit) return [];
  const run = runOf(c.view, circuit);
  const at = run.stops.findIndex((s) => s.box.id === box.id);
  const stop = run.stops[at];
  if (!stop || !plannedBoxes(run)[at]) return [];
  const lines = stepsFor(run, stop)
    .filter((s) => !s.afterPower && !['count', 'picture', 'look-ground', 'labels'].includes(s.key))
    .map((s): Line => ({ text: s.text, because: s.because }));
  return [
    {
      kind: 'do',
      key: 'wire',
      title,
      why: 'The order and the joins come from what is in this box, in the way your shop works.',
      inside: box,
      lines: [...mendLines(c), ...lines, ...labelLines(c, box)],
      picture: box,
      done: 'Done as shown, closed',
      leaves: 'closed',
      effects: () =>
        labelsFor(c.view, box).length > 0 ? [changeBox(box, { seen: { ...box.seen, labels: 'yes' } })] : [],
    },
  ];
}

const labelLines = (c: Context, box: Box): Line[] => {
  const labels = labelsFor(c.view, box);
  return labels.length === 0
    ? []
    : [
        {
          text: `Labels on: ${labels.map((l) => `“${l}”`).join(' and ')}.`,
          because: 'Three slots promise a ground that is not there.',
          section: '406.4(D)(2)',
        },
      ];
};

/** Both halves, its own button, and everything else that hangs on the breaker. */
export function testAfter(c: Context, box: Box): readonly (Step | false | null)[] {
  const circuit = c.view.circuitOf(box.id);
  const device = box.device.kind === 'gfci' ? 'gfci' : box.device.kind === 'outlet-afci' ? 'afci' : null;
  const dead = c.log.picked('downstream', 'dead');
  return [
    ...(isReceptacle(box) ? asLeft(c, box, circuit) : []),
    ...when(device !== null && circuit, {
      kind: 'test',
      key: `test ${box.id}`,
      title: `${device === 'gfci' ? 'GFCI' : 'AFCI'}: press its own button`,
      why: 'Its button needs no ground; a plug-in tester does. It is left reset.',
      box,
      circuit: circuit!,
      device: device ?? 'gfci',
      live: circuit!,
      met: rows(c.document.deviceTests).some((t) => t.boxId === box.id && !isBefore(t.at, c.call.opened)),
    } satisfies Step),
    ...when(circuit, {
      kind: 'ask',
      key: 'downstream',
      title: 'Does everything else work again?',
      text: 'Every outlet and light that was dead with this breaker, and one beyond.',
      why: 'A splice that fails in this box kills what comes after it, not the box itself.',
      live: circuit!,
      options: [
        { value: 'all', name: 'All of it works' },
        { value: 'alone', name: 'Nothing else hangs on it' },
        { value: 'dead', name: 'Something stays dead' },
      ],
    } satisfies Step),
    ...when(dead, {
      kind: 'ask',
      key: 'downstream-dead',
      title: 'Back into the box',
      text: 'What goes on from here lost its feed: a splice in this box, or a GFCI that waits for its reset.',
      why: 'It worked before: the last hands were here.',
      options: [
        { value: 'reset', name: 'A GFCI wanted its reset: all works' },
        { value: 'again', name: 'Open the box: a splice is made anew' },
        { value: 'open', name: 'It stays dead: written down, told' },
      ],
    }),
    ...when(
      dead && c.log.picked('downstream-dead', 'again'),
      {
        kind: 'do',
        key: 'splice-again',
        title: 'The splice that feeds what goes on',
        why: 'The device may be right and the splice behind it not.',
        inside: box,
        leaves: 'closed',
        lines: [
          {
            text: 'Hot and neutral that go on: out of the connector, cut back, joined anew.',
            section: '110.14(B)',
          },
          { text: 'Every conductor tugged, folded, closed.' },
        ],
        done: 'Made anew, closed',
      } satisfies Step,
      circuit && {
        kind: 'ask',
        key: 'downstream-after',
        title: 'Does all of it work now?',
        why: 'What was dead is tried itself, not the box before it.',
        live: circuit,
        options: [
          { value: 'all', name: 'All of it works' },
          { value: 'open', name: 'It stays dead: written down, told' },
        ],
      },
    ),
  ];
}
