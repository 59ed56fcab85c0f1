/** What is asked before a hunt: how it shows, what else is on the circuit, and what is at hand. */
import { rows } from '#core/job/document.ts';
import type { Box, Circuit } from '#core/job/schema.ts';
import { ask, look, when, type Context, type Step } from '../step.ts';
import { placed, ROOMS, whereWords } from '../parts/place.ts';
import { KEYS } from './case.ts';
import { huntSteps } from './loop.ts';

type Steps = readonly (Step | false | null)[];

export const complaint = (): Step =>
  ask('complaint', 'What does it do?', 'How it shows already tells most causes apart.', [
    ['dead', 'Dead'],
    ['dim', 'Dim, slow or low'],
    ['comes-goes', 'Comes and goes'],
    ['trips-once', 'Breaker trips at once'],
    ['trips-later', 'Breaker trips after a while'],
    ['gfci', 'GFCI does not reset'],
    ['gfci-trips', 'GFCI resets and trips'],
    ['shock', 'A shock or tingle'],
    ['uneven', 'Lights here bright, there dim'],
    ['low', 'All of the house is dim'],
    ['none', 'Nothing: a tester says something is wrong'],
  ]);

/** Heat, smell, sound, rain, work: what points to a place. */
const signs = (): Step =>
  look(
    'h-signs',
    'Anything with it?',
    'A warm plate, rain or yesterday’s work points to the place better than a meter.',
    [
      ['heat', 'Plate or cord is warm here'],
      ['scorch', 'Scorched or brown here'],
      ['buzz', 'It buzzes or crackles here'],
      ['smell', 'It smells here'],
      ['smoke', 'Smoke: out of the house first'],
      ['work', 'Since work at this box'],
      ['work-else', 'Since work somewhere in the house'],
      ['rain', 'Since rain'],
    ],
    [['known', 'That is all of it']],
  );

const tools = (): Step =>
  look(
    'tools',
    'What is not at hand?',
    'Only what can be measured is asked for.',
    [
      ['no test load', 'No heater or hair dryer as a load'],
      ['no ground lead', 'No long lead to a proven ground'],
      ['no clamp', 'No clamp'],
    ],
    [['all', 'The rest is here, a meter at least']],
  );

/** On a drawn circuit: which others are dead or dim as well. */
const others = (c: Context, boxes: readonly Box[]): Step =>
  look(
    'neighbors',
    'Which others have it too?',
    'The fault lies between the last that works and the first that does not.',
    boxes.map((b) => [b.id, `${b.name}, ${b.spot || c.document.areas[b.areaId]?.name || ''}`] as const),
    [
      ['rest', 'These; the rest works'],
      ['open', 'These; the rest nobody tried'],
    ],
  );

/** On a circuit that nobody drew: outlets on it one by one, in words, each with how it is. */
function named(c: Context, circuit: Circuit, boxes: readonly Box[]): Steps {
  const told = boxes.map((b) =>
    ask(
      `${KEYS.state}${b.id}`,
      `${b.name}, ${b.spot || c.document.areas[b.areaId]?.name || ''}: how is it?`,
      'What works with it and what does not halves the places.',
      [
        ['works', 'It works'],
        ['dead', 'Dead too'],
        ['dim', 'Dim too'],
        ['unknown', 'Not tried'],
      ],
    ),
  );
  const key = `beside ${boxes.length}`;
  return [
    ...told,
    ask(
      key,
      boxes.length === 0 ? 'What else is on this breaker?' : 'Anything else on it?',
      'With the neighbors known, most boxes stay closed.',
      [
        ['no', 'No more that I know'],
        ['add', 'Another outlet, switch or light'],
      ],
    ),
    ...when(c.log.picked(key, 'add'), {
      kind: 'where',
      key: `other ${boxes.length}`,
      title: 'Where is it?',
      why: 'The words find it again.',
      device: 'duplex',
      rooms: ROOMS,
      says: ({ picks: [pick = ''], note }) => whereWords(c, pick, note),
      effects: ({ picks, note }) => {
        const known = c.document.boxes[picks[0] ?? ''];
        const made = known ? { commands: [], box: known } : placed(c, picks, note, 'duplex');
        return [
          ...made.commands,
          {
            type: 'move-stop',
            boxId: made.box.id,
            circuitId: circuit.id,
            after: circuit.stops.at(-1)?.boxId ?? null,
          },
        ];
      },
    }),
  ];
}

/** Procedures that hunt. */
export const HUNTS: ReadonlySet<string> = new Set([
  ...(['hunt', 'dead-outlet', 'trips-at-once', 'trips-late', 'gfci-reset', 'dim-lights'] as const),
  ...(['shock', 'false-ground', 'low-volts', 'intermittent', 'tone-open'] as const),
]);

/** From what is known of the circuit to the fault, mended and on record. */
export function hunting(c: Context, circuit: Circuit | null): Steps {
  if (!circuit) return [];
  const on = new Set(circuit.stops.map((s) => s.boxId));
  const boxes = rows(c.document.boxes).filter((b) => on.has(b.id) && b.id !== c.box?.id);
  const drawn = circuit.ordered === 'yes';
  const ready = drawn
    ? boxes.length === 0 || c.log.has('neighbors')
    : c.log.picked(`beside ${boxes.length}`, 'no');
  return [
    ...(drawn ? [...when(boxes.length > 0, others(c, boxes))] : named(c, circuit, boxes)),
    ...when(ready, signs(), tools(), ...huntSteps(c, circuit)),
  ];
}
