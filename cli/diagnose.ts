/** `hekto diagnose`: what is the matter with a circuit, and what to measure next. */
import * as yup from 'yup';
import { runOf } from '#core/circuits/run.ts';
import { groundOf } from '#core/diagnosis/hunt/ground.ts';
import { Hunt } from '#core/diagnosis/hunt/hunt.ts';
import { KINDS } from '#core/diagnosis/hunt/kinds.ts';
import { MEASURE_FACTS, TOOLS, USUAL_SITUATION, type Measure } from '#core/diagnosis/hunt/measures.ts';
import { nextOf, type Advice } from '#core/diagnosis/hunt/next.ts';
import { warningsOf } from '#core/diagnosis/hunt/warnings.ts';
import { keyWith, measureWords, suspectWords } from '#core/diagnosis/hunt/words.ts';
import { findingListOf } from '#core/formats/findingList.ts';
import { parseFile } from '#core/job/file.ts';
import { View } from '#core/view/view.ts';
import { circuitNamed } from './circuit.ts';
import { CLEAN, FINDINGS, oneFile, parsed, parseJson, print, read } from './input.ts';

/** Suspects that are told, and the least share of one. */
const MOST = 12;
const LEAST = 0.005;
const rounded = (value: number, digits = 4): number => Number(value.toFixed(digits));

export function runDiagnose(args: string[]): number {
  const { values, positionals } = parsed(args, {
    circuit: { type: 'string' },
    findings: { type: 'string' },
  });
  const document = parseFile(read(oneFile(positionals, 'one job file')));
  const view = new View(document);
  const circuit = circuitNamed(document, values.circuit, '--circuit');
  const boxes = runOf(view, circuit).stops.map((s) => s.box.name);
  const text = values.findings === undefined ? '{"findings":[]}' : read(values.findings);
  const { evidence, mended, qualified, without } = findingListOf(
    parseJson(text, '--findings', yup.mixed()),
    '--findings',
    boxes,
  );
  const named = (key: string) => keyWith(key, (stop) => boxes[stop]!);
  const hunt = new Hunt(groundOf(view, circuit));
  const { run } = hunt.ground;
  const diagnosis = hunt.diagnose(evidence, mended);
  const tools = new Set(TOOLS.filter((t) => !without.includes(t)));
  const next = nextOf(hunt, diagnosis, evidence, mended, { ...USUAL_SITUATION, qualified, tools });
  const measure = (m: Measure) => ({
    ...m,
    ...('stop' in m ? { stop: undefined, at: m.stop < 0 ? 'panel' : boxes[m.stop] } : {}),
    ...measureWords(m, run),
    first: MEASURE_FACTS[m.kind].gates,
    caution: MEASURE_FACTS[m.kind].caution,
  });
  const advice = ({ measure: m, cost, bits, answers }: Advice) => ({
    ...measure(m),
    cost: rounded(cost, 1),
    bits: rounded(bits),
    answers: answers.map((a) => ({
      says: a.says,
      share: rounded(a.share),
      leaves: a.leaves.map((l) => ({ cause: named(l.key), share: rounded(l.share) })),
    })),
  });
  print(
    JSON.stringify(
      {
        circuit: circuit.name,
        warnings: warningsOf(diagnosis, evidence, run).map(({ danger, text: words }) => ({
          danger,
          text: words,
        })),
        suspects: diagnosis.suspects
          .filter((s) => s.share >= LEAST)
          .slice(0, MOST)
          .map((s) => ({
            cause: named(s.key),
            share: rounded(s.share),
            danger: s.danger,
            words: suspectWords(s, run),
            repair: KINDS[s.kind].repair,
            beside: KINDS[s.kind].beside,
            ...(s.ohms === null ? {} : { ohms: rounded(s.ohms, 2) }),
            ...(s.differs === '' ? {} : { drawing: s.differs }),
          })),
        notWorkedOut: diagnosis.unworkable.map(named),
        noneOfThese: rounded(diagnosis.none),
        contradictions: diagnosis.contradictions.map(({ id }) => Number(id)),
        next:
          next.do === 'measure'
            ? { do: 'measure', ...advice(next.advice), others: next.others.map((o) => measure(o.measure)) }
            : next.do === 'repair'
              ? { do: 'repair', cause: named(next.key), share: rounded(next.share) }
              : next,
      },
      null,
      2,
    ),
  );
  return next.do === 'done' ? CLEAN : FINDINGS;
}
