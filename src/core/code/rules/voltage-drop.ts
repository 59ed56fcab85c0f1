import { dropAt, fullLoad, type RunStop, runOf } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { round } from '#core/units/quantity.ts';
import { rule } from '../rule.ts';

export const voltageDrop = rule({
  id: 'voltage-drop',
  title: 'Voltage drop at the end of the run',
  scope: 'circuit',
  level: 'recommended',
  sections: { '2017': '210.19(A) note', '2020': '210.19(A) note', '2023': '210.19 note' },
  why: 'Motors run hot and lamps dim on low voltage; the code advises 3 % but does not require it.',
  check(circuit, view) {
    // At the receptacle farthest in ohms: what is plugged in there is not known, what is wired is small.
    const run = runOf(view, circuit);
    const end = run.stops
      .filter((s) => isReceptacle(s.box) && s.box.status !== 'remove')
      .reduce<RunStop | null>((worst, s) => (worst && worst.pathOhms >= s.pathOhms ? worst : s), null);
    if (!end) return [];
    const { dropLimitPercent } = view.document.job.settings;
    const amps = fullLoad(circuit);
    const percent = (dropAt(end, amps) / run.volts) * 100;
    const good = percent <= dropLimitPercent;
    return [
      {
        level: good ? 'satisfied' : 'recommended',
        message: `${round(percent, 1)} % at ${end.box.name} with ${amps} A there${good ? '' : `; advice is ${dropLimitPercent} % or less: a heavier gauge or a shorter run`}`,
        measured: { value: percent, unit: '%' },
        limit: { value: dropLimitPercent, unit: '%' },
      },
    ];
  },
});
