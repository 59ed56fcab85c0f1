/** What a circuit is for, in the words a panel directory may use: each clear, specific and unlike the others, 408.4(A). */
import { rows } from '#core/job/document.ts';
import type { Area, Box, Circuit, JobDocument } from '#core/job/schema.ts';
import { isOutlet, isReceptacle } from '#core/plan/wallSpaces.ts';

/** Longest name of a circuit. */
const LONGEST = 80;

const listed = (names: readonly string[]): string =>
  names.length <= 1 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What kind of outlets these are. */
function useOf(boxes: readonly Box[]): string {
  const at = boxes.filter(isOutlet);
  if (at.every((b) => b.device.kind === 'smoke-alarm')) return 'smoke alarms';
  if (at.every((b) => !isReceptacle(b)))
    return at.every((b) => b.device.kind !== 'hardwired') ? 'lights' : 'outlets';
  return at.some((b) => !isReceptacle(b)) ? 'outlets and lights' : 'receptacles';
}

/** Name for a circuit of these outlets: its appliances, or its rooms and their use. */
export function purposeOf(document: JobDocument, outlets: readonly { box: Box; area: Area }[]): string {
  const left = outlets.filter(({ box }) => box.status !== 'remove');
  if (left.length === 0) return 'Spare';
  const served = left.flatMap(({ box }) =>
    box.serves === null ? [] : (document.fixtures[box.serves] ?? []),
  );
  const rooms = [...new Set(left.map(({ area }) => area.name))];
  if (left.every(({ box }) => box.serves !== null && document.fixtures[box.serves])) {
    const names = [...new Set(served.map((f) => f.name))];
    const twins = rows(document.fixtures).some((f) => names.includes(f.name) && !served.includes(f));
    return capital(`${listed(names)}${twins ? `, ${listed(rooms)}` : ''}`).slice(0, LONGEST);
  }
  const use = useOf(left.map(({ box }) => box));
  for (let shown = rooms.length; shown > 1; shown--) {
    const rest = rooms.length - shown;
    const name = rest === 0 ? listed(rooms) : `${rooms.slice(0, shown).join(', ')} and ${rest} more`;
    if (name.length + 1 + use.length <= LONGEST) return `${name} ${use}`;
  }
  return `${rooms[0]!.slice(0, LONGEST - use.length - 1)} ${use}`;
}

/**
 * What is wrong with the name of a circuit as a line of a directory; null when nothing is.
 * @param stays whether an outlet is there when the work is done: a circuit of none is a spare
 */
export function directoryFault(
  circuit: Circuit,
  others: readonly Circuit[],
  stays: (boxId: string) => boolean = () => true,
): string | null {
  const name = circuit.name.trim();
  const plain = name.toLowerCase();
  if (!circuit.stops.some((s) => stays(s.boxId)))
    return plain.startsWith('spare')
      ? null
      : `“${name}” feeds nothing on record: name it Spare, or put it to use`;
  if (plain.startsWith('spare')) return `“${name}” is in use`;
  if (/^(circuit|breaker|ckt|space|no\.?|#)?\s*#?\d*$/i.test(name))
    return `“${name}” does not say what it feeds`;
  if (
    /^(misc|various|plugs?|outlets?|receptacles?|lights?|lighting|general|other|house|rooms?)\.?$/.test(plain)
  )
    return `“${name}” does not say where`;
  if (/[’']s\b/.test(name)) return `“${name}” names a person, who may move out`;
  if (/\b(new|old|temporary|temp|future|current|guest of)\b/.test(plain))
    return `“${name}” tells of a passing state`;
  const twin = others.find((c) => c.id !== circuit.id && c.name.trim().toLowerCase() === plain);
  return twin
    ? `“${name}” stands at spaces ${circuit.space} and ${twin.space}: they cannot be told apart`
    : null;
}
