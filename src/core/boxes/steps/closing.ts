/** Closing a box, and what is measured once power is back. */
import type { RunStop } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { names, type Site, type WorkStep } from './site.ts';

export function close({ stop, device }: Site): WorkStep[] {
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
export function tests({ stop, run, onward, wiring }: Site): WorkStep[] {
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
