/** The end of a call: what goes on record of it, and who has still to look. */
import { isBefore } from '#core/units/time.ts';
import { decisionsFor, labelsFor } from '#core/code/decisions.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import { rows } from '#core/job/document.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
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
