/** A new outlet hung on one that is there. */
import type { Command } from '#core/job/commands.ts';
import { circuitOf, stopAt } from '#core/job/document.ts';
import type { Box } from '#core/job/schema.ts';
import type { Context } from '../step.ts';
import { placed } from './place.ts';

/** @param elsewhere in another room, of which no more is known than that */
export function appendBoxes(c: Context, from: Box, spot: string, elsewhere: boolean): Command[] {
  const circuit = circuitOf(c.document, from.id);
  const made = placed(c, [from.areaId], elsewhere ? `through the wall: ${spot}` : spot, 'duplex', {
    status: 'new',
    grounding: 'grounded',
  });
  const box: Box = {
    ...made.box,
    device: { ...made.box.device, tamperResistant: true },
  };
  return [
    ...made.commands.map((m) => (m.type === 'put' && m.table === 'boxes' ? { ...m, rows: [box] } : m)),
    ...(circuit
      ? [
          {
            type: 'put' as const,
            table: 'circuits' as const,
            rows: [{ ...circuit, stops: [...circuit.stops, stopAt(box.id, from.id)] }],
          },
        ]
      : []),
  ];
}
