/**
 * What the hands do inside a box, from its planned wiring: cut and strip, splices, landings in the order of the school, tabs,
 * torque, close, tests. Every end of the wiring is joined by one step.
 */
import { fedFrom, unknownOnward, type Run, type RunStop } from '#core/circuits/run.ts';
import { DEVICES } from './devices.ts';
import { plannedBoxes } from './planned.ts';
import { carriesFan } from './seen.ts';
import { cautions } from './steps/cautions.ts';
import { close, tests } from './steps/closing.ts';
import { capped, landings, marks, splices, tabs } from './steps/joining.ts';
import { names, type Site, type WorkStep } from './steps/site.ts';
import { endsOf } from './wiring.ts';

/** Cables that enter the box of a stop: the feed and one for each box it feeds. */
export const cablesAt = (run: Run, stop: RunStop): number =>
  1 + fedFrom(run, stop).length + unknownOnward(run, stop);

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
      text:
        unknownOnward(run, stop) > 0
          ? `Count the cables: ${cablesAt(run, stop)} were counted; which one is the feed is not on record.`
          : `Count the cables: the plan has ${cablesAt(run, stop)}${onward.length > 0 ? `, the feed and on to ${names(onward)}` : ', the feed alone'}.`,
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
