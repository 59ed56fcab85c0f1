import { always } from '#core/tables/editions.ts';
import type { Box, Circuit } from '#core/job/schema.ts';
import { changeBox, changeCircuit, rule, type Fix } from '../rule.ts';
import { CIRCULAR_MILS } from '#core/tables/conductors.ts';
import { neutralOnGround } from '#core/boxes/wiring.ts';
import type { View } from '#core/view/view.ts';

/** Thinnest neutral that may serve as the ground of an old range or dryer, 250.140. */
const LEAST_NEUTRAL = { copper: '10', aluminum: '8' } as const;

/** Why the neutral of three wires may not serve as the ground too; null where it may stay. */
function whyNot(box: Box, circuit: Circuit, view: View): string | null {
  if (circuit.status === 'new') return 'a new circuit has four wires';
  if (box.status === 'new') return 'a circuit that is extended or moved gets four wires';
  const { cable, material } = circuit;
  const panel = view.document.panels[circuit.panelId];
  const gauges = [circuit.gauge, ...circuit.stops.map((s) => s.gauge ?? circuit.gauge)];
  const least = LEAST_NEUTRAL[material];
  if (gauges.some((g) => CIRCULAR_MILS[g] < CIRCULAR_MILS[least]))
    return `its neutral is thinner than ${least} AWG ${material}`;
  if (cable === 'SE')
    return panel?.feeder === null ? null : 'bare neutral in SE cable counts from the service panel only';
  if (cable === 'raceway' || cable === 'MC') return null;
  return 'the bare wire of nonmetallic cable is never a neutral';
}

export const threeWireAppliance = rule({
  id: 'three-wire-appliance',
  title: 'Range or dryer on three wires',
  scope: 'box',
  clears: ['conductors'],
  level: 'violation',
  sections: always('250.140'),
  why: 'On three wires the frame is joined to the neutral: where that opens the frame is at 120 V.',
  check(box, view) {
    const circuit = view.circuitOf(box.id);
    if (box.status === 'remove' || box.device.volts !== '125/250' || box.device.rating < 30 || !circuit)
      return [];
    if (box.grounding === 'unknown')
      return [
        { level: 'unknown', message: `${box.name}: whether three wires or four come here is not on record` },
      ];
    // A jumper promises a ground that is the neutral: with it nothing stays, whatever 250.140 allows on three slots.
    if (box.wiring !== null && neutralOnGround(box.wiring.wiring))
      return [
        {
          level: 'violation',
          message: `${box.name}: its frame or ground screw is jumpered to the neutral, and four slots promise a ground that is not there: a three-slot receptacle where 250.140 allows it, else four wires`,
        },
      ];
    if (box.grounding === 'grounded')
      return [{ level: 'satisfied', message: `${box.name}: four wires, neutral and ground apart` }];
    const why = whyNot(box, circuit, view);
    if (why === null)
      return [
        {
          level: 'satisfied',
          message: `${box.name}: an existing three-wire circuit may stay, with a three-slot receptacle and the strap at the appliance in; four wires when it is replaced`,
        },
      ];
    const label = `Run four wires to ${box.name}`;
    const commands = [
      changeCircuit(circuit, {
        cable: circuit.cable === 'raceway' ? 'raceway' : 'NM-B',
        status: circuit.status === 'new' ? 'new' : 'replace',
      }),
      changeBox(box, { grounding: 'grounded' }),
    ];
    const fixes: Fix[] = [{ label, command: { type: 'batch', label, commands } }];
    return [{ level: 'violation', message: `${box.name} has three wires and no ground: ${why}`, fixes }];
  },
});
