/** Hunts in houses that ngspice solves: how often they end right, and what they cost against other ways to go about it. */
import { Hunt } from '#core/diagnosis/hunt/hunt.ts';
import { USUAL_SITUATION } from '#core/diagnosis/hunt/measures.ts';
import { nextOf } from '#core/diagnosis/hunt/next.ts';
import {
  complaintOf,
  huntGround,
  makeTruth,
  otherOrder,
  perform,
  play,
  randomTrouble,
  repairsOf,
  type Played,
  type Trouble,
  type Truth,
} from '#core/diagnosis/hunt/testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';

/** Minutes to open, look into and close a box, with what a box weighs beside; to part it and try again. */
const OPEN = 20;
const HALVE = 24;

interface Sum {
  name: string;
  right: number;
  count: number;
  steps: number;
  boxes: number;
  minutes: number;
  bits: number;
  /** Minutes of opening box by box from the panel on, and of halving. */
  walk: number;
  halve: number;
  wrong: string[];
}

/** What opening one box after the other, or halving, costs until each trouble is met; what is in no box takes them all. */
function others({ ground, troubles, feeders }: Truth): { walk: number; halve: number } {
  const count = ground.run.stops.length;
  const halving = HALVE * Math.ceil(Math.log2(count + 1));
  let [walk, halve] = [0, 0];
  for (const t of troubles) {
    const at = 'box' in t ? ('where' in t && t.where === 'start' ? feeders[t.box]! : t.box) : count;
    walk += OPEN * Math.min(count + 1, at + 2);
    halve += halving;
  }
  return { walk, halve };
}

function run(
  name: string,
  from: number,
  to: number,
  make: (seed: number) => Truth,
  ok: (p: Played) => boolean,
): Sum {
  const sum: Sum = {
    name,
    right: 0,
    count: 0,
    steps: 0,
    boxes: 0,
    minutes: 0,
    bits: 0,
    walk: 0,
    halve: 0,
    wrong: [],
  };
  for (let seed = from; seed < to; seed++) {
    const truth = make(seed);
    const played = play(truth);
    const { walk, halve } = others(truth);
    sum.count++;
    sum.steps += played.steps.length;
    sum.boxes += played.boxes;
    sum.minutes += played.minutes;
    sum.bits += played.bits;
    sum.walk += walk;
    sum.halve += halve;
    if (ok(played)) sum.right++;
    else
      sum.wrong.push(
        `${seed}: ${repairsOf(truth).join()} -> ${played.mended.join()}${played.none ? ' none' : ''}`,
      );
  }
  return sum;
}

const groundOf = (seed: number) => huntGround(4 + Math.floor(8 * randomFrom(seed * 7 + 1)()), seed);
const ALONE: readonly Trouble['what'][] = ['overload', 'appliance', 'lost-leg', 'service-neutral', 'nothing'];
function twoTroubles(seed: number): Trouble[] {
  const random = randomFrom(seed * 7 + 2);
  const ground = groundOf(seed);
  const one = () => {
    let t = randomTrouble(ground, random);
    while (ALONE.includes(t.what)) t = randomTrouble(ground, random);
    return t;
  };
  return [one(), one()];
}

export function diagnosisBench(args: readonly string[]): void {
  const [singles = 1000, doubles = 300, first = 1] = args.map(Number);
  const single = (seed: number) => {
    const random = randomFrom(seed * 7 + 2);
    const ground = groundOf(seed);
    return makeTruth(ground, [randomTrouble(ground, random)], seed);
  };
  const tables = [
    run('one fault, drawn right', first, first + singles, single, (p) => p.right),
    run(
      'one fault, drawn wrong',
      first,
      first + Math.ceil(singles / 10),
      (seed) => {
        const random = randomFrom(seed * 7 + 2);
        const ground = groundOf(seed);
        return makeTruth(ground, [randomTrouble(ground, random)], seed, otherOrder(ground, random));
      },
      (p) => p.right,
    ),
    run(
      'two faults',
      first,
      first + doubles,
      (seed) => makeTruth(groundOf(seed), twoTroubles(seed), seed),
      (p) => p.right,
    ),
    run(
      'not in the catalogue',
      first,
      first + Math.ceil(singles / 20),
      (seed) => {
        const ground = groundOf(seed);
        const box = seed % ground.run.stops.length;
        const how = (['hot', 'neutral', 'ground'] as const)[seed % 3]!;
        return makeTruth(ground, [{ what: 'odd', box, how }], seed);
      },
      (p) => p.none || p.mended.length === 0,
    ),
  ];
  const of = (x: number, s: Sum) => (x / Math.max(1, s.count)).toFixed(1);
  for (const s of tables) {
    console.log(
      `${s.name}: ${s.right} of ${s.count} right (${((100 * s.right) / Math.max(1, s.count)).toFixed(1)} %), ` +
        `${of(s.steps, s)} steps, ${of(s.boxes, s)} boxes opened, ${of(s.minutes, s)} min; ` +
        `${of(s.bits, s)} bits at first; box by box ${of(s.walk, s)} min, halving ${of(s.halve, s)} min`,
    );
    for (const w of s.wrong) console.log(`  ${w}`);
  }
  speed();
}

/** Times on a circuit of 30 boxes, after some warming up. */
function speed(): void {
  const truth = makeTruth(
    huntGround(30, 5),
    [{ what: 'joint', box: 27, wire: 'n', where: 'in', ohms: 2 }],
    5,
  );
  for (let round = 0; round < 2; round++) {
    const started = performance.now();
    const hunt = new Hunt(truth.ground);
    const evidence = complaintOf(truth).map((finding, k) => ({ id: `c${k}`, after: 0, finding }));
    hunt.diagnose(evidence);
    const first = performance.now() - started;
    const times: number[][] = [[], [], []];
    for (let k = 0; k < 6; k++) {
      const clock = (work: () => void, into: number[]) => {
        const at = performance.now();
        work();
        into.push(performance.now() - at);
      };
      clock(() => hunt.diagnose(evidence, [], false), times[0]!);
      clock(() => hunt.diagnose(evidence, []), times[1]!);
      const diagnosis = hunt.diagnose(evidence, []);
      let next = nextOf(hunt, diagnosis, evidence, [], USUAL_SITUATION);
      clock(() => (next = nextOf(hunt, diagnosis, evidence, [], USUAL_SITUATION)), times[2]!);
      if (next.do !== 'measure') break;
      evidence.push({ id: `e${k}`, after: 0, finding: perform(truth, next.advice.measure) });
    }
    const middle = (list: number[]) =>
      [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!.toFixed(0);
    if (round > 0)
      console.log(
        `30 boxes, ${hunt.branches[0]!.predictions.causes.length} causes: first ${first.toFixed(0)} ms; after one more reading singles ${middle(times[0]!)} ms, pairs ${middle(times[1]!)} ms, next ${middle(times[2]!)} ms`,
      );
  }
}
