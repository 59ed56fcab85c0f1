import { dropAt, fullLoad, outletsOf, type RunStop, runOf } from '#core/circuits/run.ts';
import { servedBy } from '#core/job/document.ts';
import { plateAmps } from '#core/panel/jobLoad.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { round } from '#core/units/quantity.ts';
import { rule } from '../rule.ts';

export const voltageDrop = rule({
  id: 'voltage-drop',
  title: 'Voltage drop at the end of the run',
  scope: 'circuit',
  needs: ['lengths', 'order', 'conductors'],
  level: 'recommended',
  sections: { '2017': '210.19(A) note', '2020': '210.19(A) note', '2023': '210.19 note' },
  why: 'Motors run hot and lamps dim on low voltage; the code advises 3 % but does not require it.',
  check(circuit, view) {
    // At the receptacle farthest in ohms: what is plugged in there is not known. A circuit without receptacles is
    // judged at what is wired in, by its nameplate.
    const run = runOf(view, circuit);
    const there = outletsOf(run).filter((s) => s.box.status !== 'remove');
    const receptacles = there.filter((s) => isReceptacle(s.box) && s.box.serves === null);
    const wired = receptacles.length === 0;
    const end = (wired ? there : receptacles).reduce<RunStop | null>(
      (worst, s) => (worst && worst.pathOhms >= s.pathOhms ? worst : s),
      null,
    );
    // Lights alone draw little of their circuit, and how much is not on record.
    if (!end || (wired && end.box.device.kind === 'light')) return [];
    const { dropLimitPercent } = view.document.job.settings;
    const fixture = wired ? servedBy(view.document, end.box) : undefined;
    const plate = fixture && plateAmps(fixture);
    const amps = plate ?? fullLoad(circuit);
    const percent = (dropAt(end, amps) / run.volts) * 100;
    const good = percent <= dropLimitPercent;
    return [
      {
        level: good ? 'satisfied' : 'recommended',
        message: `${round(percent, 1)} % at ${end.box.name} with ${round(amps, 1)} A there${good ? '' : `; advice is ${dropLimitPercent} % or less: a heavier gauge or a shorter run`}`,
        measured: { value: percent, unit: '%' },
        limit: { value: dropLimitPercent, unit: '%' },
      },
    ];
  },
});
