/** Every procedure under any order of answers: hands only behind a proof that holds, an end to every path, nothing lost. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import type { Command } from '#core/job/commands.ts';
import { PLAIN_READING, rows } from '#core/job/document.ts';
import { parseFile, serialize } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { figureOf } from '#core/records/figures.ts';
import { circuitState, validProof } from '#core/records/proof.ts';
import { procedureCatalogue } from './catalogue.ts';
import { answerCommand, backCommand, contextOf, earlierAnswer, standingOf } from './engine.ts';
import { PROCEDURES, procedureOf } from './index.ts';
import { NO_ANSWER, type Step } from './step.ts';
import { panelAnswer, someAnswer, Walker } from './testing.ts';
import { TILES } from './tiles.ts';
import { View } from '#core/view/view.ts';

const LONGEST = 160;

/** Walks to the end with random answers; `look` sees each step before it is answered. */
function walk(id: string, seed: number, look: (walker: Walker, step: Step) => void = () => {}): Walker {
  const random = randomFrom(seed);
  const pick = (n: number) => Math.floor(random() * n);
  const walker = new Walker(id);
  let again = 0;
  for (let k = 0; k < LONGEST; k++) {
    const { step } = walker;
    if (step === null) return walker;
    look(walker, step);
    if (step.kind === 'dead') walker.prove(step.box.id);
    else if (step.kind === 'clamp') walker.clamp(step.box.id);
    else if (step.kind === 'power') walker.energize(step.circuit.id, step.purpose);
    else if (step.kind === 'phones') assert.equal(walker.answer({ picks: ['by-hand'] }), null);
    else {
      // A person who was refused tries something else; bus and proof figures are then as they have to be.
      let problem = walker.answer(answerFor(step, pick, again));
      for (let tries = 0; problem !== null && tries < 40; tries++)
        problem = walker.answer(answerFor(step, pick, ++again));
      assert.equal(problem, null, `${id}: nobody gets past “${step.title}”`);
    }
  }
  throw new Error(`${id} with seed ${seed} never ends: ${walker.step?.title}`);
}

function answerFor(step: Step, pick: (n: number) => number, again: number) {
  const panel = panelAnswer(step, again % 7 === 3 ? 118 : 0);
  if (panel) return panel;
  // The round of a house ends some time.
  if (step.key.startsWith('more ') && again + pick(3) > 1) return { picks: ['end'] };
  return someAnswer(step, pick);
}

for (const { id, title } of PROCEDURES)
  test(`${title}: hands and probes only in their state, and an end to every path`, () => {
    for (let seed = 1; seed <= 5; seed++) {
      const walker = walk(id, seed, (at, step) => {
        const { document, now } = at;
        if (step.inside) assert.ok(validProof(document, step.inside, now), `${step.title} without a proof`);
        if (step.live) assert.equal(circuitState(document, step.live, now), 'energized', step.title);
        if (step.liveOpen) assert.equal(circuitState(document, step.liveOpen, now), 'measuring', step.title);
        if (step.inPanel) {
          const entry = at.context.log.entry('panel-dead');
          assert.ok(entry && rows(document.energizings).every((e) => e.at <= entry.at), step.title);
        }
      });
      assert.ok(walker.context.log.has('record'), `${id} ends on record`);
    }
  });

test('an answer from inside a box is refused by the gate once its proof is void, whatever the page shows', () => {
  const walker = new Walker('replace-receptacle');
  const to = (key: string): Step => {
    for (let k = 0; k < 30; k++) {
      const step = walker.step!;
      if (step.key === key) return step;
      if (step.kind === 'dead') walker.prove(step.box.id);
      else if (step.kind === 'clamp') walker.clamp(step.box.id);
      else assert.equal(walker.answer(plain(step)), null, step.title);
    }
    throw new Error(`never came to ${key}`);
  };
  const plain = (step: Step) =>
    step.kind === 'where'
      ? { picks: ['bedroom'], note: 'left of the bed' }
      : step.kind === 'breaker'
        ? { picks: ['1'], value: 15, note: '7' }
        : someAnswer(step, (n) => Math.min(1, n - 1));
  const step = to('inside');
  const stale = walker.context;
  walker.energize(walker.context.circuit!.id, 'use');
  assert.equal(walker.step!.kind, 'dead', 'the engine asks for a new proof');
  assert.throws(
    () =>
      walker.run([
        answerCommand(stale, step, { ...NO_ANSWER, picks: ['ground'] }, { by: 'A', at: walker.now }),
      ]),
    (error: unknown) => error instanceof InvalidError && /Power came back/.test(error.message),
  );
});

test('back and forth loses nothing: the answer stands there to be given again, and the job is what it was', () => {
  for (const { id } of PROCEDURES)
    for (let seed = 1; seed <= 3; seed++) {
      const walker = walk(id, seed);
      const before = walker.context.log.entries;
      const last = before.at(-1)!;
      walker.run([backCommand(walker.context, { by: 'A. Tester', at: walker.now })!]);
      const { step } = walker;
      assert.equal(step?.key, 'record');
      assert.deepEqual(earlierAnswer(walker.context, step!)?.picks, last.picks);
      assert.equal(walker.context.log.entries.length, before.length - 1);
      assert.equal(walker.answer({ picks: ['done'] }), null);
      assert.equal(walker.step, null);
      assert.equal(
        rows(walker.document.entries).length,
        before.length + 2 + struck(walker),
        'every answer is kept',
      );
    }
});
const struck = (walker: Walker): number =>
  rows(walker.document.entries).filter((e) => e.strikes !== null).length - 1;

test('a call goes on where it was from a file, on another device', () => {
  const seen: string[] = [];
  const walker = walk('gfci-replace', 7, (at, step) => {
    const stored = parseFile(serialize(at.document));
    const again = standingOf(
      at.procedure,
      contextOf(new View(stored), stored.calls['call-1']!, at.now),
    ).current;
    assert.deepEqual([again?.key, again?.title], [step.key, step.title]);
    seen.push(step.key);
  });
  assert.ok(seen.length > 10 && walker.step === null);
});

test('docs/procedures.md is current', () => {
  const page = readFileSync(new URL('../../../docs/procedures.md', import.meta.url), 'utf8');
  assert.equal(page, procedureCatalogue(), 'run `npm run docs`');
});

test('every tile leads to a procedure, every procedure has a tile, and each says when to use it', () => {
  assert.deepEqual(
    TILES.filter((t) => !procedureOf(t.procedure)).map((t) => t.name),
    [],
  );
  assert.deepEqual(
    PROCEDURES.filter((p) => !TILES.some((t) => t.procedure === p.id)).map((p) => p.id),
    [],
  );
  assert.equal(new Set(PROCEDURES.map((p) => p.id)).size, PROCEDURES.length);
  assert.ok(PROCEDURES.every((p) => p.use.endsWith('.')));
  assert.ok(TILES.filter((t) => !t.more).length <= 12, 'about a dozen on the first screen');
});

test('every electrical figure that a procedure asks for is known for what it is of', () => {
  const unknown = new Set<string>();
  const known = new Set<string>();
  for (const { id } of PROCEDURES)
    for (let seed = 1; seed <= 5; seed++)
      walk(id, seed, (_, step) => {
        if (step.kind !== 'measure') return;
        const names = step.figures.map((f) => f.name);
        for (const { name, unit } of step.figures)
          if (['V', 'A', 'Ω', 'MΩ'].includes(unit))
            (figureOf(step.key, name, names) === null ? unknown : known).add(`${step.key} ${name}`);
      });
  assert.deepEqual([...unknown], []);
  assert.ok(known.size > 30, `${known.size}`);
});

test('a bus that was read dead is read again after power, a flip or anything live on record', () => {
  const now = (walker: Walker) => ({ at: walker.now, by: 'A. Tester' });
  const since: [string, (walker: Walker) => Command][] = [
    [
      'power',
      (w) => ({
        type: 'put',
        table: 'energizings',
        rows: [{ ...now(w), id: 'energizing-new', circuitId: 'circuit-any', purpose: 'measurement' }],
      }),
    ],
    [
      'a flip',
      (w) => ({
        type: 'put',
        table: 'flips',
        rows: [
          {
            ...now(w),
            id: 'flip-new',
            panelId: 'panel-any',
            means: 'eyes',
            off: ['9'],
            outlets: [],
            strikes: null,
          },
        ],
      }),
    ],
    [
      'a reading',
      (w) => ({
        type: 'put',
        table: 'readings',
        rows: [
          {
            ...{ ...PLAIN_READING, ...now(w), id: 'reading-new', boxId: 'box-any', place: '' },
            ...{ stage: 'as-found', instrument: '', hotNeutral: 120 },
          },
        ],
      }),
    ],
  ];
  let asked = 0;
  walk('breaker-swap', 2, (walker, step) => {
    if (!step.inPanel || asked > 0) return;
    asked++;
    const before = walker.document;
    for (const [what, command] of since) {
      walker.run([command(walker)]);
      // What came on is locked again; what was live is read again.
      assert.equal(walker.step?.key, what === 'a reading' ? 'panel-dead' : 'panel-off', what);
      walker.document = before;
    }
    assert.equal(walker.step?.key, step.key);
  });
  assert.equal(asked, 1);
});
