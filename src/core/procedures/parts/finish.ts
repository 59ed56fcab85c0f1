/** The end of a call: what goes on record of it, and who has still to look. */
import { isBefore } from '#core/units/time.ts';
import { decisionsFor, labelsFor } from '#core/code/decisions.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import { rows } from '#core/job/document.ts';
import type { Circuit } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { circuitsOfCall, closingCommand, heldInCall, isLocked } from '#core/records/open.ts';
import { signature, roleOf } from '#core/records/people.ts';
import type { Context, Line, Step } from '../step.ts';

/** Lines of the record: readings, proofs, decisions, labels. */
function recordLines(c: Context): Line[] {
  const { document, call, box } = c;
  const since = <T extends { at: string }>(list: T[]): T[] =>
    list.filter((r) => !isBefore(r.at, call.opened));
  const lines: Line[] = [];
  if (box) {
    for (const reading of since(rows(document.readings).filter((r) => r.boxId === box.id))) {
      const verdict = judgeIn(c.view, reading);
      lines.push({
        text: `${reading.stage === 'as-found' ? 'As found' : 'As left'}${reading.half === 'both' ? '' : `, ${reading.half} half`}: ${verdict.headline}`,
      });
    }
    for (const proof of since(rows(document.proofs).filter((p) => p.boxId === box.id)))
      lines.push({
        text: `Proved dead by ${signature(document, proof.by, proof.at)}`,
        because: `${proof.observations.length} readings`,
      });
    if (isReceptacle(box))
      for (const d of decisionsFor(c.view, box))
        if (d.asked === 'required' || d.asked === 'not-known')
          lines.push({
            text: `${TOPIC[d.topic]}: ${d.asked === 'not-known' ? 'not judged' : (d.providedBy ?? 'not provided')}`,
            because: d.reason,
            section: d.section,
          });
    const labels = labelsFor(c.view, box);
    if (labels.length > 0)
      lines.push({
        text: `Labels ${box.seen.labels === 'yes' ? 'on it' : 'to be put on'}: ${labels.join(', ')}`,
        section: '406.4(D)(2)',
      });
  }
  for (const entry of c.log.entries)
    if (entry.said !== '' && entry.title !== '') lines.push({ text: `${entry.title} ${entry.said}` });
  return lines;
}
const TOPIC = {
  gfci: 'GFCI',
  afci: 'AFCI',
  'tamper-resistant': 'Tamper-resistant',
  'weather-resistant': 'Weather-resistant',
} as const;

/**
 * What comes before a call is over: what it opened is closed, and what it locked goes back on, or stays off and somebody knows.
 * Null where nothing is left so.
 */
export function beforeTheEnd(c: Context): Step | null {
  const { document, log, call } = c;
  const held = heldInCall(document, call);
  const locked = circuitsOfCall(document, call).filter(
    (circuit) =>
      isLocked(document, circuit) &&
      (held.length > 0 ||
        rows(document.proofs).some((p) => p.lockedOut.includes(circuit.id) && !isBefore(p.at, call.opened))),
  );
  const [circuit] = locked;
  if (held.length === 0 && !circuit) return null;
  const names = [...new Set(held.map((h) => h.name))].join(', ');
  if (!log.has('end-power'))
    return {
      kind: 'ask',
      key: 'end-power',
      title: circuit ? `${circuit.name} is off: how does it stay?` : `${names} is open: how does it stay?`,
      text: names === '' ? undefined : `Open: ${names}.`,
      why: 'A call ends with every box closed; what stays off is locked or its lead is off and capped, tagged, and somebody was told.',
      options: [
        { value: 'on', name: 'Closed, and power goes back on' },
        { value: 'off', name: 'Closed, and it stays off: tagged' },
      ],
      noteLabel: 'Stays off: who was told',
      refuses: ({ picks, note }) =>
        picks.includes('off') && note.trim() === '' ? 'expected who was told that it stays off' : null,
      effects: ({ picks }, signed) =>
        picks.includes('off')
          ? held.map((h) => closingCommand(document, h.of, 'closed', { ...signed, by: h.by }))
          : [],
    };
  if (!log.picked('end-power', 'on') || !circuit)
    return held.length === 0
      ? null
      : {
          kind: 'do',
          key: `end-closed ${log.entries.length}`,
          title: `Close ${names}`,
          why: 'Nothing is left open at the end of a call.',
          lines: [
            { text: 'Every conductor capped or landed, device and plate on, tools out.' },
            { text: `Each says so for themselves, here: ${[...new Set(held.map((h) => h.by))].join(', ')}.` },
          ],
          done: 'Closed',
          effects: (_answer, signed) =>
            held.map((h) => closingCommand(document, h.of, 'closed', { ...signed, by: h.by })),
        };
  return powerOn(circuit, 'use');
}

/** Power put back on record, each box closed first. */
export function powerOn(circuit: Circuit, purpose: 'use' | 'measurement'): Step {
  const open = purpose === 'measurement';
  return {
    kind: 'power',
    key: `power ${circuit.id} ${purpose}`,
    title: open ? 'Power on, to measure' : 'Power on',
    text: open
      ? 'Ends apart and capped, nothing loose, nobody touches, people told. Then the breaker on.'
      : 'Box closed, tools out, people told. Stand to the side, breaker on, listen: if it trips, leave it off.',
    why: open
      ? 'Measuring at an open box is no work: hands come back in only after another proof.'
      : 'What was done is judged by readings, and those need power.',
    ...(open ? { caution: 'Qualified persons only; probes only, eye protection, a short look.' } : {}),
    circuit,
    purpose,
  };
}

/** The last step: one tap closes the call. @param more lines of the procedure’s own, first */
export function record(c: Context, more: readonly Line[] = []): Step {
  const by = c.log.entries.at(-1)?.by ?? c.call.by;
  const apprentice = roleOf(c.document, by, c.now)?.role === 'apprentice';
  return {
    kind: 'record',
    key: 'record',
    title: 'On record',
    text: apprentice ? `${by} works as an apprentice: somebody licensed countersigns.` : undefined,
    why: 'The next one at this door, an inspector or a buyer reads it.',
    // Judging every reading is for the page that shows it, not for each look at what comes next.
    get lines() {
      return [...more, ...recordLines(c)];
    },
  };
}
