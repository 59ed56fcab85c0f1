/** Moving a breaker to another space: into free ones, or changing places with what stands there. */
import type { Command } from '#core/job/commands.ts';
import type { Circuit, JobDocument, Panel } from '#core/job/schema.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { fitsAt, idOf, nameOf, spacesIn, spacesOf } from './spaces.ts';

/** Circuits changed together, as one step with a name. */
export const putCircuits = (label: string, rows: Circuit[]): Command => ({
  type: 'batch',
  label,
  commands: [{ type: 'put', table: 'circuits', rows }],
});

/**
 * The step that puts a breaker in a space.
 * @returns the command, or why the breaker cannot stand there
 */
export function moveBreaker(
  document: JobDocument,
  panel: Panel,
  circuit: Circuit,
  space: number,
): Result<Command> {
  const label = `Move ${circuit.name} to space ${space}`;
  const moved: Circuit = { ...circuit, space, otherSpace: null, half: 'whole' };
  const spaces = spacesIn(document, panel);
  const wanted = spacesOf(moved);
  const outside = wanted.find((at) => at < 1 || at > panel.spaces);
  if (outside !== undefined) return fail(`${panel.name} has no space ${outside}`);
  if (fitsAt(spaces, circuit, space)) return ok(putCircuits(label, [moved]));
  const others = [
    ...new Set(wanted.flatMap((at) => spaces[at - 1]!.occupants).filter((o) => idOf(o) !== circuit.id)),
  ];
  const [other] = others;
  // One for one: breakers of as many poles, whole in their spaces, change places.
  if (
    other &&
    'circuit' in other &&
    new Set(others.map(idOf)).size === 1 &&
    other.circuit.breaker.poles === circuit.breaker.poles &&
    other.circuit.half === 'whole' &&
    circuit.half === 'whole' &&
    other.circuit.space === space &&
    spacesOf(circuit).every((at) => spaces[at - 1]?.occupants.every((o) => idOf(o) === circuit.id))
  ) {
    return ok(
      putCircuits(`Swap ${circuit.name} and ${other.circuit.name}`, [
        moved,
        { ...other.circuit, space: circuit.space, otherSpace: circuit.otherSpace },
      ]),
    );
  }
  return fail(`${others.map(nameOf).join(' and ')} stand${others.length === 1 ? 's' : ''} there`);
}
