/** What each kind of device asks for beside its joints. */
import type { ConductorFunction } from '#core/job/schema.ts';
import { membersOf, terminalAt } from '../wiring.ts';
import { names, type Site, type WorkStep } from './site.ts';

/** What each device has that others do not. */
export function cautions(site: Site): WorkStep[] {
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
