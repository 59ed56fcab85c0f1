/** What else may feed a house, and what its main then leaves live. */
import type { JobDocument, OtherSource, Panel } from '#core/job/schema.ts';

export const SOURCE_WORDS: Record<OtherSource, string> = {
  generator: 'generator',
  inverter: 'inverter',
  battery: 'battery',
  'second-feed': 'second feed',
};
export const sourceNames = ({ otherSources }: JobDocument['job']): string =>
  otherSources.kinds.map((k) => SOURCE_WORDS[k]).join(', ');

/**
 * Whether the main makes what a panel feeds dead. Never with another source on record, and only where one main is known
 * to open it all and somebody asked for other sources.
 */
export const mainKills = ({ job }: JobDocument, panel: Panel | undefined): boolean =>
  panel?.oneMain === 'yes' && job.otherSources.asked && job.otherSources.kinds.length === 0;

/** What stays live in a panel with its main off. */
export function panelCaution(document: JobDocument, panel: Panel | undefined): string {
  const lugs = 'With the main off its line lugs stay live.';
  if (mainKills(document, panel)) return lugs;
  const sources = sourceNames(document.job);
  if (sources) return `${lugs} So may its bus be: this house has another source (${sources}).`;
  return document.job.otherSources.asked
    ? `${lugs} Whether one main opens all that feeds this panel is not on record: take the bus as live until it is read dead.`
    : `${lugs} Whether another source feeds this house was not asked: take the bus as live until it is read dead.`;
}
