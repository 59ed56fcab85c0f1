/** The content of the hand-over sheet: plain data, for the page that prints it and for anything else. */
import { byTime } from '#core/units/time.ts';
import { measurementsOf } from '#core/records/measuring.ts';
import { decisionsFor, labelsFor, type Decision } from '#core/code/decisions.ts';
import { byGravity, type Finding } from '#core/code/rule.ts';
import { countsOf } from '#core/code/summary.ts';
import type { View } from '#core/view/view.ts';
import { dropAt, fullLoad, type Run, runOf } from '#core/circuits/run.ts';
import { isFollowed, plannedBoxes } from '#core/boxes/planned.ts';
import { energized } from '#core/effects/energized.ts';
import { circuitsInOrder, rows, standingRows } from '#core/job/document.ts';
import { ALL_RULES } from '#core/code/rules/index.ts';
import type {
  FaultRecord,
  Amendment,
  Box,
  Call,
  Circuit,
  Job,
  JobDocument,
  Look,
  Observation,
  Proof,
  Reading,
  RecordedWiring,
} from '#core/job/schema.ts';
import { contextOf, standingOf } from '#core/procedures/engine.ts';
import { procedureOf } from '#core/procedures/index.ts';
import type { Context, Line } from '#core/procedures/step.ts';
import { ROLE_WORDS, signature, uncountersigned } from '#core/records/people.ts';
import { LOOK_ITEMS, standingLooks, type LookItem } from './looks.ts';
import { registerOf, type RegisteredDevice } from '#core/records/deviceTests.ts';
import { KNOWN_SOURCE, LIVE } from '#core/records/thresholds.ts';
import { circuitState, pastReadings, seenFor, type Past } from '#core/records/proof.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import { type Verdict } from '#core/diagnosis/verdict.ts';

interface ReportCircuit {
  circuit: Circuit;
  run: Run;
  state: ReturnType<typeof circuitState>;
  /** Percent with the full load at the end of the run; null on an empty one, and where it is not known. */
  dropPercent: number | null;
  /** Its cables were measured or are drawn, and seen. */
  measured: boolean;
}

interface ReportReading {
  reading: Reading;
  past: Past | null;
  verdict: Verdict;
}

interface ReportCall {
  call: Call;
  title: string;
  /** `open`, `finished`, or left off for safety. */
  state: 'open' | 'finished' | 'left off';
  /** What was asked and answered, without what was taken back. */
  lines: { title: string; said: string; by: string; at: string }[];
  /** What it came to, by its procedure. */
  findings: readonly Line[];
}

export interface Report {
  job: Job;
  /** Service calls, oldest first, with their answers in order. */
  calls: ReportCall[];
  /** Faults found and mended, oldest first. */
  faults: { fault: FaultRecord; box: string }[];
  /** Who worked, and as what. */
  people: { name: string; as: string }[];
  /** Local amendments the findings were judged under: the rule, what was done to it, and the reference. */
  amendments: string[];
  circuits: ReportCircuit[];
  findings: Finding[];
  /** Outlets in the order of the circuits, with their decisions and labels. */
  outlets: { box: Box; area: string; circuit: string; decisions: Decision[]; labels: string[] }[];
  readings: ReportReading[];
  /** With other instruments; practice is none of it. */
  measurements: ReturnType<typeof measurementsOf>;
  proofs: Proof[];
  /** Boxes opened because their home run was not landed, and those opened by an earlier form of override. */
  overrides: Proof[];
  /** The register: every protecting device with its tests. */
  devices: RegisteredDevice[];
  /** What was looked at, the last look of each item and place. */
  looks: { item: LookItem; look: Look }[];
  /** Boxes whose wiring is on record otherwise than planned, with what it does. */
  wirings: { box: Box; area: string; recorded: RecordedWiring; says: string }[];
  cautions: string[];
}

/**
 * @param today day of the report, for what is due
 * @param now UTC time, for what still holds
 */
export function reportOf(view: View, findings: readonly Finding[], today: string, now: string): Report {
  const { document } = view;
  const circuits = circuitsInOrder(document).map((circuit): ReportCircuit => {
    const run = runOf(view, circuit);
    // Of cables that nobody measured, in an order that nobody saw, no figure is given out.
    const measured =
      circuit.ordered === 'yes' &&
      circuit.seen === 'yes' &&
      run.stops.every((s) => s.segment.source !== 'assumed');
    const percent = measured ? run.end && (dropAt(run.end, fullLoad(circuit)) / run.volts) * 100 : null;
    return { circuit, run, state: circuitState(document, circuit, now), dropPercent: percent, measured };
  });
  const outlets = circuits.flatMap(({ circuit, run }) =>
    run.stops.map(({ box, area }) => ({
      box,
      area: area.name,
      circuit: circuit.name,
      decisions: decisionsFor(view, box),
      labels: labelsFor(view, box),
    })),
  );
  const devices = registerOf(document, (circuit) => runOf(view, circuit), today);
  const proofs = rows(document.proofs).sort((a, b) => byTime(a.at, b.at));
  const past = pastReadings(document);
  const readings = rows(document.readings)
    .sort((a, b) => byTime(a.at, b.at))
    .map((reading) => ({ reading, past: past.get(reading.id) ?? null, verdict: judgeIn(view, reading) }));
  return {
    job: document.job,
    calls: callsOf(view, now),
    faults: standingRows(document.faults).map((fault) => ({
      fault,
      box: document.boxes[fault.boxId ?? '']?.name ?? '',
    })),
    people: peopleOf(document),
    amendments: rows(document.amendments).map(amendmentLine),
    circuits,
    findings: findings.filter((f) => f.level !== 'satisfied').sort(byGravity),
    outlets,
    readings,
    measurements: measurementsOf(document).filter((m) => !m.measurement.simulated),
    proofs: proofs.filter((p) => !isOverride(p)),
    overrides: proofs.filter(isOverride),
    devices,
    looks: LOOK_ITEMS.flatMap((item) => standingLooks(document, item.id).map((look) => ({ item, look }))),
    wirings: circuits.flatMap(({ run }) => wiringsOf(run)),
    cautions: [...unsignedLines(document), ...cautionsOf(outlets, readings, findings, devices)],
  };
}

/** Every call of the job: where it stands, and what was answered on the way. */
function callsOf(view: View, now: string): ReportCall[] {
  return rows(view.document.calls)
    .sort((a, b) => byTime(a.opened, b.opened))
    .map((call): ReportCall => {
      const procedure = procedureOf(call.procedure);
      const c = contextOf(view, call, now);
      const standing = procedure && standingOf(procedure, c);
      const record = standing?.steps.find((s) => s.kind === 'record');
      return {
        call,
        title: procedure?.title ?? call.procedure,
        state: standing?.stopped ? 'left off' : standing?.current === null ? 'finished' : 'open',
        lines: c.log.entries.map(({ title, said, by, at }) => ({
          title,
          said,
          by: signature(view.document, by, at),
          at,
        })),
        findings: record?.lines.filter((l) => !isAnswer(l, c)) ?? [],
      };
    });
}
/** Lines that only say an answer again. */
const isAnswer = ({ text }: Line, { log }: Context): boolean =>
  log.entries.some((e) => text === `${e.title} ${e.said}`);

const peopleOf = (document: JobDocument): Report['people'] =>
  [
    ...new Map(
      rows(document.people)
        .sort((a, b) => byTime(a.at, b.at))
        .map((p) => [p.name, p]),
    ).values(),
  ].map((p) => ({ name: p.name, as: `${ROLE_WORDS[p.role]}${p.license ? `, ${p.license}` : ''}` }));

const unsignedLines = (document: JobDocument): string[] =>
  uncountersigned(document).map(
    (u) => `${u.count} records by ${u.of}, apprentice, are not countersigned by anybody licensed.`,
  );

/** What is on record of the boxes of a run, and what it does once energized. */
function wiringsOf(run: Run): Report['wirings'] {
  return run.stops.flatMap(({ box, area }, at) => {
    if (!box.wiring) return [];
    const { wiring } = box.wiring;
    const followed = isFollowed(plannedBoxes(run)[at]!, wiring);
    const effects = followed ? energized(run, at, wiring).effects.map((e) => e.text) : [];
    const says = !followed
      ? 'not simulated: its cables are not matched to the plan'
      : effects.length > 0
        ? effects.join(' ')
        : 'reads at every contact as planned';
    return [{ box, area: area.name, recorded: box.wiring, says }];
  });
}

/** What showed that the breaker feeds a box that was dead before. */
const FEEDS_WORDS: Record<Proof['feeds'], string> = {
  'not-shown': 'what shows that this breaker feeds it is not on record',
  'went-dead': 'something else of its run went dead with the breaker',
  tone: 'tone from it was loudest at the breaker',
  reset: 'a device was reset and it was live, then dead with the breaker',
  'all-off': 'every breaker that may feed it was off',
};
const isOverride = ({ basis }: Proof): boolean => basis === 'not-landed' || basis === 'earlier-override';

/** A proof in a line: what showed that the breaker did it, the reference, the tester, and how much was read. */
export function proofLine(document: JobDocument, proof: Proof): string {
  if (proof.basis === 'earlier-override') return `opened without a proof: “${proof.reason}”`;
  const seen = seenFor(document, proof);
  const sources = seen.filter((o) => o.node === KNOWN_SOURCE);
  const testers = [...new Set(seen.filter((o) => o.quantity === 'volts').map((o) => o.instrument))].join(
    ', ',
  );
  const volts = (list: readonly Observation[]) => [...new Set(list.map((o) => `${o.value} V`))].join(' and ');
  if (proof.basis === 'earlier-proof')
    return `at face and screws, in an earlier form; tester at ${volts(sources)}`;
  const live = seen.find((o) => o.node === LIVE);
  const dead = seen.filter((o) => o.quantity === 'volts' && o.off.length > 0);
  const how: Record<Exclude<Proof['basis'], 'earlier-proof' | 'earlier-override'>, string> = {
    'live-before': `live ${live?.value ?? '?'} V before`,
    'new-work': 'new work, not live before',
    'dead-outlet': `the outlet was dead before; ${FEEDS_WORDS[proof.feeds]}`,
    'tripped-device': `a device upstream had tripped; ${FEEDS_WORDS[proof.feeds]}`,
    'same-lock-out': 'under the lock-out of a box proved before',
    'not-landed': `home run not landed, seen by ${proof.seenBy}`,
  };
  const to = live?.toName || proof.referenceName || proof.reference;
  return `${how[proof.basis]}; ${testers} proved at ${volts(sources)}; ${dead.length} readings to the ${to} and between conductors, ${Math.max(0, ...dead.map((o) => o.value))} V at most`;
}

const DONE: Record<Amendment['action'], string> = {
  off: 'switched off',
  tighten: 'limit tightened',
  note: 'noted',
};

const amendmentLine = ({ rule, action, reference }: Amendment): string =>
  `${ALL_RULES.find((r) => r.id === rule)?.title ?? rule}, ${DONE[action]} (${reference})`;

function cautionsOf(
  outlets: Report['outlets'],
  readings: readonly ReportReading[],
  findings: readonly Finding[],
  devices: readonly RegisteredDevice[],
): string[] {
  const cautions: string[] = [];
  const ungrounded = outlets.filter((o) => o.box.grounding === 'none' && o.labels.length > 0);
  if (ungrounded.length > 0) {
    cautions.push(
      `${names(ungrounded)} have no equipment ground and are protected by a GFCI, as 406.4(D)(2) allows with the labels below. A plug-in tester shows “open ground” there and cannot trip the GFCI; only its own test button counts. Surge devices do not work without a ground.`,
    );
  }
  const latest = new Map(readings.filter((r) => r.past === null).map((r) => [r.reading.boxId, r]));
  const doubtful = [...latest.values()].filter(
    (r) => r.verdict.grade === 'bad' || r.verdict.grade === 'worry',
  );
  if (doubtful.length > 0) {
    cautions.push(
      `The last readings at ${doubtful.map((r) => r.reading.place).join('; ')} are not those of sound wiring. Keep these circuits off or unused until the cause is found and retested.`,
    );
  }
  const defective = devices.filter((d) => d.state === 'defective');
  if (defective.length > 0)
    cautions.push(
      `Defective, to be replaced: ${defective.map((d) => `${d.kind.toUpperCase()} ${d.box?.name ?? `breaker of ${d.circuit.name}`}`).join(', ')}.`,
    );
  const apart = findings.filter(
    (f) => f.rule === 'equipment-out-of-scope' || f.rule === 'service-out-of-scope',
  );
  if (apart.length > 0)
    cautions.push(
      `Not judged, and not approved by this sheet: ${apart.map((f) => `${f.about.name} (${f.section})`).join(', ')}.`,
    );
  const violations = countsOf(findings).violation;
  if (violations > 0)
    cautions.push(`${violations} open ${violations === 1 ? 'violation is' : 'violations are'} listed above.`);
  cautions.push(
    'The adopted local code, its amendments and the authority having jurisdiction decide. Work on wiring belongs to licensed persons where local law says so.',
  );
  return cautions;
}

const names = (outlets: readonly { box: Box }[]) => outlets.map((o) => o.box.name).join(', ');
