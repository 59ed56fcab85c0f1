/** Power waits for each who holds something open: by person, by device, by order. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studioJob } from '../../../demo/studio.ts';
import { stepsFor } from '#core/boxes/steps.ts';
import { buildRun } from '#core/circuits/run.ts';
import type { Command } from '#core/job/commands.ts';
import type { Energizing, Flip, JobDocument } from '#core/job/schema.ts';
import { unite } from '#core/job/unite.ts';
import { runGuarded } from './gates.ts';
import { closingCommand, heldOpen, isLocked, powerCommand, waitsFor, whyNotFlipped } from './open.ts';
import { validProof, whyUnproved } from './proof.ts';
import { job, LATER, power, proved, R1, withPower } from './proofTesting.ts';
import { draftFor, recorded, walk } from './testing.ts';
import { chain } from '#core/job/testing.ts';

const CIRCUIT = 'circuit-studio';
const NOW = '2026-05-08T15:00:00Z';
const [ALDER, OSEI] = ['M. Alder', 'R. Osei'];

/** One device that works at a document of its own. */
class Device {
  document: JobDocument;
  private readonly name: string;
  private k = 0;
  constructor(name: string, document: JobDocument) {
    this.name = name;
    this.document = document;
  }
  private get at(): string {
    return new Date(Date.parse(NOW) + 1000 * ++this.k).toISOString();
  }
  run(command: Command): this {
    this.document = runGuarded(this.document, command, {
      device: `device-${this.name}`,
      now: this.at,
    }).document;
    return this;
  }
  prove(boxId: string, by: string): this {
    const box = this.document.boxes[boxId]!;
    const draft = draftFor(this.document, box, { by });
    const at = this.at;
    const id = `proof-${this.name}-${this.k}`;
    const made = recorded(this.document, box, draft, walk(this.document, box, draft), { id, at });
    return this.run({
      type: 'batch',
      label: 'Proof',
      commands: [
        { type: 'put', table: 'observations', rows: made.observations },
        { type: 'put', table: 'proofs', rows: [made.proof] },
      ],
    });
  }
  close(boxId: string, by: string, left: 'closed' | 'clear' = 'closed'): this {
    return this.run(closingCommand(this.document, { in: 'box', id: boxId }, left, { by, at: this.at }));
  }
  /** Puts power back and closes nothing with it. */
  power(by: string, purpose: Energizing['purpose'] = 'use'): this {
    return this.run(powerCommand(this.document, this.circuit, purpose, { by, at: this.at }));
  }
  flip(space: string): this {
    const row: Flip = {
      id: `flip-${this.name}-${++this.k}`,
      panelId: this.circuit.panelId,
      at: this.at,
      by: OSEI,
      means: 'eyes',
      off: [space],
      outlets: [{ boxId: 'box-b1', dead: false }],
      strikes: null,
    };
    return this.run({ type: 'put', table: 'flips', rows: [row] });
  }
  get circuit() {
    return this.document.circuits[CIRCUIT]!;
  }
  held(): string[] {
    return heldOpen(this.document, this.circuit)
      .map((h) => `${h.name} ${h.by} ${h.left}`)
      .sort();
  }
}
const fresh = (name = 'a'): Device => new Device(name, studioJob());

test('what is on record of before holds nothing: power came back for use', () => {
  assert.deepEqual(fresh().held(), []);
});

test('one’s own box is closed before power, and stays closed until it is proved again', () => {
  const a = fresh().prove('box-s2', ALDER);
  assert.deepEqual(a.held(), ['S2 M. Alder open']);
  assert.throws(() => a.power(ALDER), /M. Alder holds S2 open: M. Alder says first that it is closed/);
  a.close('box-s2', ALDER).power(ALDER);
  assert.deepEqual(a.held(), []);
  a.prove('box-s2', ALDER);
  assert.throws(() => a.power(ALDER), /holds S2 open/);
});

test('nobody closes, energizes or takes the lock off for another person', () => {
  const a = fresh().prove('box-s1', ALDER).prove('box-s2', OSEI);
  assert.deepEqual(a.held(), ['S1 M. Alder open', 'S2 R. Osei open']);
  a.close('box-s1', ALDER).close('box-s2', ALDER);
  assert.deepEqual(a.held(), ['S2 R. Osei open']);
  for (const purpose of ['use', 'measurement', 'lock-removed'] as const)
    assert.throws(() => a.power(ALDER, purpose), /R. Osei holds S2 open/, purpose);
  // A name is the same name however it is typed.
  a.close('box-s2', 'R. OSEI').power(ALDER);
});

test('the lock comes off over one’s own open box, power does not', () => {
  const a = fresh().prove('box-s2', ALDER).power(ALDER, 'lock-removed');
  assert.throws(() => a.power(ALDER), /holds S2 open/);
});

test('to measure, hands are out of every box; for use all are closed', () => {
  const a = fresh().prove('box-s2', ALDER);
  assert.throws(() => a.power(ALDER, 'measurement'), /hands are out of it and its ends are capped/);
  a.close('box-s2', ALDER, 'clear').power(ALDER, 'measurement');
  assert.deepEqual(a.held(), ['S2 M. Alder clear']);
  assert.throws(() => a.power(ALDER), /holds S2 open/);
});

test('two at one box: who ticked a step in it holds it too; a tick of a test with the power on does not', () => {
  const a = fresh().prove('box-s2', ALDER);
  const tick = (id: string, step: string, by: string): Command => ({
    type: 'put',
    table: 'ticks',
    rows: [{ id, boxId: 'box-s2', place: 'S2', step, at: NOW, by, done: true }],
  });
  const run = buildRun(a.document, a.circuit);
  const steps = stepsFor(
    run,
    run.stops.find((s) => s.box.id === 'box-s2')!,
  );
  const keyOf = (afterPower: boolean) => steps.find((s) => (s.afterPower ?? false) === afterPower)!.key;
  a.run(tick('tick-1', keyOf(false), OSEI)).close('box-s2', ALDER);
  assert.deepEqual(a.held(), ['S2 R. Osei open']);
  a.close('box-s2', OSEI).power(ALDER);
  a.run(tick('tick-2', keyOf(true), OSEI));
  assert.deepEqual(a.held(), []);
});

test('another device’s box counts as soon as it is known, whatever its clock, and power there ends nothing of it', () => {
  const a = fresh('a');
  const b = new Device('b', a.document);
  a.prove('box-s2', ALDER);
  b.power(OSEI);
  // Neither knew of the other: the box is not surely before the power.
  const both = unite(a.document, b.document);
  assert.deepEqual(unite(b.document, a.document), both);
  const c = new Device('c', both);
  assert.deepEqual(c.held(), ['S2 M. Alder open']);
  assert.throws(() => c.power(OSEI), /M. Alder holds S2 open/);
  c.close('box-s2', ALDER).power(OSEI);
});

test('a proof of an earlier day still holds its box open', () => {
  const a = fresh().prove('box-s2', ALDER);
  const later = runGuarded.bind(null, a.document);
  const row: Energizing = {
    id: 'energizing-x',
    circuitId: CIRCUIT,
    at: '2026-05-20T09:00:00Z',
    by: OSEI,
    purpose: 'use',
  };
  assert.throws(
    () => later({ type: 'put', table: 'energizings', rows: [row] }, { device: 'device-a', now: row.at }),
    /M. Alder holds S2 open/,
  );
});

test('a breaker that is locked or whose box is open is not flipped', () => {
  const a = fresh();
  const space = String(a.circuit.space);
  assert.equal(whyNotFlipped(a.document, a.circuit), null);
  a.prove('box-s2', ALDER);
  assert.throws(() => a.flip(space), /is off for M. Alder, who holds S2 open/);
  a.flip(String(a.circuit.space + 1));
  a.close('box-s2', ALDER);
  assert.ok(isLocked(a.document, a.circuit));
  assert.throws(() => a.flip(space), /is locked off/);
  a.power(ALDER, 'lock-removed').flip(space);
});

test('all that waits is named, by place', () => {
  const a = fresh().prove('box-s1', ALDER).prove('box-s2', OSEI);
  const waits = waitsFor(a.document, a.circuit, { purpose: 'use', by: ALDER });
  assert.deepEqual(waits.map((h) => h.name).sort(), ['S1', 'S2']);
  a.run(powerCommand(a.document, a.circuit, 'use', { by: ALDER, at: NOW }, waits));
  assert.deepEqual(a.held(), []);
});

test('power on any circuit ends what a locked main or an unknown conductor leaves open; on another one it ends nothing', () => {
  const hall = chain([], { id: 'circuit-2', name: 'Hall', space: 3, status: 'existing' });
  const start = job({ others: [hall], panel: { oneMain: 'yes' } });
  const onHall = (d: JobDocument) => whyUnproved(withPower(d, power('circuit-2', LATER)), R1(d), LATER);
  assert.match(onHall(proved(start, { mainOff: true })), /Power came on Hall since/);
  const known = proved(start);
  assert.ok(validProof(withPower(known, power('circuit-2', LATER)), R1(known), LATER));
  const counted = proved(
    job({ boxes: [{ cables: 2, status: 'existing' }], circuit: { ordered: 'unknown' }, others: [hall] }),
  );
  assert.match(onHall(counted), /Power came on Hall since, and may feed what is in this box/);
});
