/** The outlet's decisions and the findings are of one source: over random changes they never contradict each other. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { rows } from '#core/job/document.ts';
import { DEVICE_KINDS, EDITIONS, STATUSES, type JobDocument } from '#core/job/schema.ts';
import { View } from '#core/view/view.ts';
import { check } from './checker.ts';
import { decisionOn } from './decisions.ts';

const job = tamarackJob();
const boxes = rows(job.boxes);

const anyJob: fc.Arbitrary<JobDocument> = fc
  .record({
    edition: fc.constantFrom(...EDITIONS),
    permitDate: fc.constantFrom(null, '2026-03-02', '2026-10-02'),
    changes: fc.array(
      fc.record({
        at: fc.nat(boxes.length - 1),
        status: fc.constantFrom(...STATUSES),
        kind: fc.constantFrom(...DEVICE_KINDS),
        tamperResistant: fc.boolean(),
        weatherResistant: fc.boolean(),
        waterDistance: fc.constantFrom(null, 20, 100),
      }),
      { maxLength: 30 },
    ),
    breakers: fc.array(fc.constantFrom('none', 'afci', 'gfci', 'dual'), { minLength: 1, maxLength: 8 }),
  })
  .map(({ edition, permitDate, changes, breakers }) => {
    const changed = Object.fromEntries(
      changes.map(({ at, status, kind, waterDistance, ...device }) => {
        const box = boxes[at]!;
        return [box.id, { ...box, status, waterDistance, device: { ...box.device, ...device, kind } }];
      }),
    );
    const circuits = Object.fromEntries(
      rows(job.circuits).map((c, i) => [
        c.id,
        { ...c, breaker: { ...c.breaker, protection: breakers[i % breakers.length]! } },
      ]),
    ) as JobDocument['circuits'];
    return {
      ...job,
      job: { ...job.job, edition, permitDate },
      boxes: { ...job.boxes, ...changed },
      circuits,
    };
  });

const BY_BOX = ['gfci', 'tamper-resistant', 'weather-resistant'] as const;
/** Rules that speak of GFCI at an outlet. */
const RULES_OF: Record<(typeof BY_BOX)[number], readonly string[]> = {
  gfci: ['gfci', 'outdoor-outlets'],
  'tamper-resistant': ['tamper-resistant'],
  'weather-resistant': ['weather-resistant'],
};

test('an outlet is written up where its decision asks and nothing provides, and nowhere else', () => {
  let violations = 0;
  fc.assert(
    fc.property(anyJob, (document) => {
      const view = new View(document);
      const findings = check(document);
      for (const box of rows(document.boxes)) {
        if (box.status === 'remove') continue;
        for (const topic of BY_BOX) {
          const decision = decisionOn(topic, view, box)!;
          const said = findings.filter((f) => f.about.id === box.id && RULES_OF[topic].includes(f.rule));
          const lacking = decision.asked === 'required' && decision.providedBy === null;
          const where = `${box.name} ${topic}: ${JSON.stringify(decision)} ${JSON.stringify(said.map((f) => f.message))}`;
          assert.equal(
            said.some((f) => f.level === 'violation'),
            lacking,
            where,
          );
          if (decision.asked === 'not-known' && !decision.providedBy)
            assert.ok(
              said.some((f) => f.level === 'unknown'),
              where,
            );
          if (decision.asked === 'not-required' && !decision.waived) assert.deepEqual(said, [], where);
          if (lacking) violations++;
        }
      }
    }),
    { numRuns: 60 },
  );
  assert.ok(violations > 100, `${violations} violations`);
});

test('a circuit is written up for AFCI where an outlet on it asks and nothing provides', () => {
  fc.assert(
    fc.property(anyJob, (document) => {
      const view = new View(document);
      const findings = check(document);
      for (const circuit of rows(document.circuits)) {
        const said = findings.find((f) => f.rule === 'afci' && f.about.id === circuit.id);
        const lacking = circuit.stops
          .map((s) => document.boxes[s.boxId]!)
          .filter((b) => b.status !== 'remove')
          .map((b) => ({ b, decision: decisionOn('afci', view, b)! }))
          .filter(({ decision }) => decision.asked === 'required' && decision.providedBy === null);
        const where = `${circuit.name}: ${said?.level} ${said?.message}; ${lacking.map((l) => `${l.b.name} ${l.decision.reason}`).join('; ')}`;
        if (lacking.length > 0) assert.equal(said?.level, 'violation', where);
        if (said?.level === 'satisfied') assert.equal(lacking.length, 0, where);
        if (said === undefined) assert.equal(lacking.length, 0, where);
      }
    }),
    { numRuns: 60 },
  );
});

test('a “no” has its true reason: volts, rating, distance, place or kind', () => {
  const view = new View(job);
  const reasons = rows(job.boxes).flatMap((box) =>
    (['gfci', 'afci', 'tamper-resistant', 'weather-resistant'] as const).flatMap((topic) => {
      const decision = decisionOn(topic, view, box)!;
      return decision.asked === 'not-required' ? [`${box.name} ${topic}: ${decision.reason}`] : [];
    }),
  );
  assert.ok(reasons.length > 50);
  for (const reason of reasons)
    assert.doesNotMatch(reason, /no place in the list|is not a 120 V, 15 or 20 A one/);
  const of = (name: string, topic: 'gfci' | 'afci') =>
    decisionOn(
      topic,
      view,
      boxes.find((b) => b.name === name)!,
    )!;
  const large = boxes.find((b) => b.device.rating === 30)!;
  assert.match(of(large.name, 'afci').reason, /30 A|240 V/);
  assert.match(of('L1', 'gfci').reason, /a living room is not in the list of 2020/);
  assert.doesNotMatch(of('P1', 'gfci').section, /210\.8\(A\)/);
});
