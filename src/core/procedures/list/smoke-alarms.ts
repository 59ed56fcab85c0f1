import { breakerFor } from '../parts/breaker.ts';
import { atOutlet } from '../parts/frame.ts';
import { changeBox } from '../parts/place.ts';
import { ask, look, measure, when, work, type Procedure } from '../step.ts';

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
              done: 'Up, all of them',
              effects: () => [changeBox(box, { status: 'replace' })],
            },
          ),
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
            work(
              'interconnect',
              'The interconnect is open',
              'From the last that sounds to the first that does not.',
              [['Its splice at both, then the cable between.']],
              { inside: box, done: 'Mended, tried again' },
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
