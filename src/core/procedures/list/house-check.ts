import { labelsFor } from '#core/code/decisions.ts';
import { NOTHING_FOUND, rows } from '#core/job/document.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { asFound } from '../parts/box.ts';
import { framed } from '../parts/frame.ts';
import { about, changeBox, placed, ROOMS, whereWords } from '../parts/place.ts';
import { ask, look, when, work, type Context, type Line, type Procedure, type Step } from '../step.ts';

/** Outlets that were looked at in this call. */
const lookedAt = (c: Context) =>
  rows(c.document.boxes).filter((b) => c.log.has(`face ${b.id}`) && isReceptacle(b));

/** One outlet after the other: its place, a reading, its face. */
function round(c: Context): readonly (Step | false | null)[] {
  const { log, box } = c;
  const k = log.entries.filter((e) => e.step.startsWith('more ') && e.picks.includes('another')).length + 1;
  return [
    {
      kind: 'where',
      key: `stop ${k}`,
      title: k === 1 ? 'First outlet of the round' : 'Next outlet',
      text: k === 1 ? 'Walk with the wall at your right hand: no outlet is forgotten.' : undefined,
      why: 'Every receptacle is read; one that was left out is written as not looked at.',
      device: 'duplex',
      rooms: ROOMS,
      says: ({ picks: [pick = ''], note }) => whereWords(c, pick, note),
      effects: ({ picks, note }) => {
        const known = c.document.boxes[picks[0] ?? ''];
        if (known) return [about(c, { boxId: known.id })];
        const made = placed(c, picks, note, 'duplex');
        return [...made.commands, about(c, { boxId: made.box.id })];
      },
    },
    ...when(
      log.has(`stop ${k}`) && box,
      ...(box
        ? [
            asFound(c, box),
            look(
              `face ${box.id}`,
              'Its face',
              'What a tester cannot see: grip, heat, labels, height.',
              [
                ['two-slot', 'Two slots'],
                ['gfci', 'It is a GFCI'],
                ['gfci-bad', 'GFCI does not trip or reset by its button'],
                ['worn', 'Plug falls out'],
                ['heat', 'Heat marks or cracked'],
                ['open', 'No plate, or broken'],
                ['unlabeled', 'Label missing where there is no ground'],
                ['no-cover', 'Outdoors without an in-use cover'],
              ],
              [['looked', 'That is all of it']],
              {
                pictures: box,
                effects: ({ picks }) => [
                  changeBox(box, {
                    device: {
                      ...box.device,
                      kind: picks.includes('two-slot')
                        ? 'two-slot'
                        : picks.includes('gfci')
                          ? 'gfci'
                          : 'duplex',
                    },
                    found: {
                      ...NOTHING_FOUND,
                      signs: [
                        ...(picks.includes('worn') ? (['worn contacts'] as const) : []),
                        ...(picks.includes('heat') ? (['heat marks'] as const) : []),
                      ],
                    },
                    seen: { ...box.seen, labels: picks.includes('unlabeled') ? 'no' : 'unknown' },
                  }),
                ],
              },
            ),
            ask(`more ${k}`, 'Another outlet?', 'A round has an end when you are back where you began.', [
              ['another', 'Next outlet'],
              ['end', 'Back where I began'],
            ]),
          ]
        : []),
    ),
  ];
}

export const houseCheck: Procedure = {
  id: 'house-check',
  title: 'Whole-house check',
  use: 'A house is sold, bought or insured, and somebody wants to know what is wrong in it.',
  steps: (c) => {
    const over = c.log.entries.some((e) => e.step.startsWith('more ') && e.picks.includes('end'));
    return framed(
      c,
      () => [
        ...when(!over, ...round(c)),
        ...when(
          over,
          look(
            'panel',
            'The panel, cover on',
            'Its outside tells most of it; the cover stays on in this check.',
            [
              ['rust', 'Rust or water'],
              ['heat', 'Heat or smell'],
              ['no-directory', 'No directory, or a wrong one'],
              ['fillers', 'Open spaces without fillers'],
              ['screws', 'Pointed or missing screws'],
              ['clear', 'No clear space in front of it'],
            ],
            [['looked', 'That is all of it']],
          ),
          look(
            'alarms',
            'Smoke and carbon monoxide alarms',
            'Ten years from the date on the back; in every bedroom, outside them, on every level.',
            [
              ['old', 'Older than ten years'],
              ['missing', 'One is missing'],
              ['silent', 'One does not sound'],
            ],
            [['looked', 'Each pressed']],
          ),
          work('list', 'Read it back', 'What is not looked at is said to be so.', [
            [
              `${lookedAt(c).length} outlets looked at. What stands behind furniture and was not: not judged.`,
            ],
          ]),
        ),
      ],
      () => findings(c),
    );
  },
};

const FACES: Record<string, string> = {
  'gfci-bad': 'GFCI defective: replace',
  worn: 'worn: replace',
  heat: 'heat or cracks: replace',
  open: 'no plate: close it',
  unlabeled: 'label missing, 406.4(D)(2)',
  'no-cover': 'in-use cover missing, 406.9(B)',
};

/** A line for each outlet with something the matter. */
function findings(c: Context): Line[] {
  return lookedAt(c).flatMap((box): Line[] => {
    const wrong = c.log.picks(`face ${box.id}`).flatMap((p) => FACES[p] ?? []);
    const labels = labelsFor(c.view, box);
    if (labels.length > 0 && box.seen.labels !== 'yes') wrong.push(`labels needed: ${labels.join(', ')}`);
    return wrong.length > 0
      ? [
          {
            text: `${box.name}, ${c.document.areas[box.areaId]?.name ?? ''} ${box.spot}: ${wrong.join('; ')}`,
          },
        ]
      : [];
  });
}
