import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox } from '../parts/place.ts';
import { otherBox, whereOther } from '../parts/others.ts';
import { ask, look, measure, when, work, type Context, type Procedure, type Step } from '../step.ts';

export const smokeAlarms: Procedure = {
  id: 'smoke-alarms',
  title: 'Smoke alarms',
  use: 'They chirp, are past ten years, or one is missing.',
  steps: (c) =>
    atOutlet(c, 'smoke-alarm', 'alarm', (box) => {
      const { log } = c;
      const year = Number(c.now.slice(0, 4));
      const age = log.figure('date', 'year') === null ? null : year - log.figure('date', 'year')!;
      return [
        measure(
          'date',
          'The date on its back',
          'Ten years from there, whatever its button says.',
          [{ name: 'year', label: 'Year', unit: '', min: 1970, max: year }],
          { cannot: 'No date: taken as too old' },
        ),
        ask(
          'kind',
          'How is it fed?',
          'Wired ones sound together; the interconnect is a conductor of its own.',
          [
            ['wired', 'Wired, interconnected'],
            ['battery', 'Battery alone'],
          ],
        ),
        ...when(
          age !== null && age < 10,
          ask(
            'chirp',
            `${age ?? ''} years old: what is the matter?`,
            'A chirp is a battery; an alarm without smoke is dust, steam or a fault.',
            [
              ['battery', 'It chirps: battery'],
              ['false', 'It sounds without smoke'],
              ['replace', 'It is replaced all the same'],
            ],
          ),
        ),
        look(
          'where',
          'Is there one everywhere?',
          'In each bedroom, outside them, on each level; carbon monoxide where something burns or a garage adjoins.',
          [
            ['bedroom', 'Missing in a bedroom'],
            ['hall', 'Missing outside the bedrooms'],
            ['level', 'Missing on a level'],
            ['co', 'No carbon monoxide alarm where one belongs'],
          ],
          [['looked', 'Looked at']],
        ),
        ...when(
          log.picked('kind', 'wired') && (age === null || age >= 10 || log.picked('chirp', 'replace')),
          ...breakerFor(c, box),
          work(
            'swap',
            'All of one interconnect together',
            'Makes do not talk to each other; a plug of another make may carry mains on the signal.',
            [
              ['All on this interconnect, one make, with its own plug.'],
              [
                'Old plug off at the splices: black, white, and the third to the interconnect, never to ground.',
              ],
              ['Battery in first, then up; day written on it.'],
            ],
            {
              inside: box,
              picture: box,
              done: 'This one is up',
              leaves: 'closed',
              effects: () => [changeBox(box, { status: 'replace' })],
            },
          ),
          ...furtherAlarms(c),
          ask(
            'sound',
            'Hold one button: do all sound?',
            'An interconnect that is open shows nowhere else.',
            [
              ['all', 'All of them'],
              ['some', 'Not all'],
            ],
            { live: c.circuit },
          ),
          ...when(
            log.picked('sound', 'some'),
            whereOther(
              c,
              'silent',
              'The interconnect is open: which is silent?',
              'From the last that sounds to the first that does not.',
              'smoke-alarm',
            ),
            ...when(
              otherBox(c, 'silent', 'smoke-alarm'),
              work(
                'interconnect',
                'Its interconnect',
                'The splice here, then that of the last one that sounds, then the cable between.',
                [['The third conductor’s splice made anew, its plug pushed home.']],
                { inside: otherBox(c, 'silent', 'smoke-alarm'), done: 'Mended', leaves: 'closed' },
              ),
              ask(
                'sound-again',
                'Hold one button again',
                'A cure is heard, at all of them.',
                [
                  ['all', 'All of them sound'],
                  ['some', 'Not all: written down'],
                ],
                { live: c.circuit },
              ),
            ),
          ),
        ),
        ...when(
          log.picked('kind', 'battery') && log.has('where'),
          work('battery', 'Sealed ten-year ones', 'A battery that cannot be taken out is not.', [
            ['Up, by their sheet: from corners and fans, 3 ft from a bathroom door.'],
            ['Where work needs a permit many places want wired and interconnected ones: ask.'],
          ]),
        ),
      ];
    }),
};

/** As many as one interconnect may have. */
const MOST = 12;

/** Each further alarm of the interconnect, in its own box, until there is none left. */
function furtherAlarms(c: Context): readonly (Step | false | null)[] {
  const steps: (Step | false | null)[] = [];
  for (let k = 1; k <= MOST; k++) {
    steps.push(
      ask(
        `further ${k}`,
        'Another alarm on this interconnect?',
        'One of another make among them may carry mains on the signal.',
        [
          ['none', 'No: that was all of them'],
          ['yes', 'Yes: to the next one'],
        ],
      ),
    );
    if (!c.log.picked(`further ${k}`, 'yes')) break;
    steps.push(
      whereOther(
        c,
        `alarm ${k}`,
        'Where is it?',
        'Each is opened, proved dead and closed by itself.',
        'smoke-alarm',
      ),
    );
    const at = otherBox(c, `alarm ${k}`, 'smoke-alarm');
    if (!at) break;
    steps.push(
      work(
        `swap ${k}`,
        `The one ${at.spot === '' ? `at ${at.name}` : at.spot}`,
        'All of one interconnect are of one make.',
        [
          ['Old plug off at the splices: black, white, and the third to the interconnect, never to ground.'],
          ['The new one’s plug on, battery in, up; day written on it.'],
        ],
        {
          inside: at,
          done: 'This one is up',
          leaves: 'closed',
          effects: () => [changeBox(at, { status: 'replace' })],
        },
      ),
    );
  }
  return steps;
}
