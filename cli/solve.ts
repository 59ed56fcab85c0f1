/** `hekto solve`: the voltages of a circuit, sound or with faults, or its netlist. */
import { spiceNetlist } from '#core/formats/spice.ts';
import { parseFile } from '#core/job/file.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import { Factors } from '#core/network/solve.ts';
import { PERSON_OHMS } from '#core/network/wiring.ts';
import { CIRCUIT_OPTIONS, circuitOf } from './circuit.ts';
import { CLEAN, oneFile, parsed, print, read } from './input.ts';

export function runSolve(args: string[]): number {
  const { values, positionals } = parsed(args, { spice: { type: 'boolean' }, ...CIRCUIT_OPTIONS });
  const { runs, wiring, touched } = circuitOf(parseFile(read(oneFile(positionals, 'one job file'))), values);
  if (values.spice) {
    print(spiceNetlist(wiring, MAINS_HERTZ, runs.map((r) => r.circuit.name).join(', ')));
    return CLEAN;
  }
  const voltages = new Factors(wiring, MAINS_HERTZ).voltages();
  const rounded = (value: number) => Math.round(1000 * value) / 1000;
  const volts = (a: number, b: number) => rounded(voltages.between(a, b));
  const places = runs.flatMap((run) => run.stops.map(({ box }) => ({ run, box })));
  const boxes = wiring.terminals.map(({ hot, neutral, ground, red }, k) => ({
    ...(runs.length > 1 ? { circuit: places[k]!.run.circuit.name } : {}),
    box: places[k]!.box.name,
    hotNeutral: volts(hot, neutral),
    hotGround: volts(hot, ground),
    neutralGround: volts(neutral, ground),
    ...(red === null ? {} : { hotHot: volts(hot, red) }),
  }));
  const frame = touched === null ? null : wiring.terminals[touched]!.frame!;
  const person =
    frame === null
      ? {}
      : {
          person: {
            volts: volts(frame, EARTH),
            milliamperes: rounded((1000 * voltages.between(frame, EARTH)) / PERSON_OHMS),
          },
        };
  print(JSON.stringify({ circuit: runs[0]!.circuit.name, boxes, ...person }, null, 2));
  return CLEAN;
}
