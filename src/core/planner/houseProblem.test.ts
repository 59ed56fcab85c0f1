import assert from 'node:assert/strict';
import { test } from 'node:test';
import { generatedHouse } from '../../../demo/generate.ts';
import loadHighs from 'highs';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { buildRun, runOf } from '#core/circuits/run.ts';
import { check } from '#core/code/checker.ts';
import { View } from '#core/view/view.ts';
import { run } from '#core/job/testing.ts';
import { breakerOf, PLAIN_DEVICE, rows, stopAt } from '#core/job/document.ts';
import { EDITIONS, type Box, type Circuit, type JobDocument } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { houseProblem, soundCircuits, type HouseProblem } from './houseProblem.ts';
import { planFigures, propose } from './proposal.ts';
import { PLAIN_PLANNING, type PlannerSettings } from './settings.ts';
import { MADE_UP_PRICES } from '#core/panel/prices.ts';
import { randomFrom } from './search/random.ts';
import { HouseSearch } from './solve.ts';
import { oneIn } from '../../../tests/support/sample.ts';

const highs = await loadHighs();
const SETTINGS: PlannerSettings = { ...PLAIN_PLANNING, prices: MADE_UP_PRICES };

const JOB = tamarackJob();
/** The demo house with nothing wired and nothing proved. */
const bare = (): JobDocument => BARE;
const BARE = ((job: JobDocument): JobDocument => {
  const circuits = Object.fromEntries(
    Object.entries(job.circuits).filter(([, c]) => c.status === 'existing'),
  );
  // A thermostat of two poles is put ahead of its heater by hand.
  const boxes = Object.fromEntries(Object.entries(job.boxes).filter(([id]) => id !== 'box-r3'));
  return { ...job, boxes, circuits, readings: {}, proofs: {}, energizings: {} };
})(JOB);

/** Plans by document, settings and steps: several tests look at the same one. */
const remembered = new WeakMap<JobDocument, Map<string, ReturnType<typeof plan>>>();

/** @param steps else until every part was searched, without a second look at neighboring circuits */
function planned(document: JobDocument, settings = SETTINGS, steps?: number): ReturnType<typeof plan> {
  const known = remembered.get(document) ?? new Map<string, ReturnType<typeof plan>>();
  remembered.set(document, known);
  const key = `${steps} ${JSON.stringify(settings)}`;
  const found = known.get(key) ?? plan(document, settings, steps);
  known.set(key, found);
  return found;
}
function plan(document: JobDocument, settings: PlannerSettings, steps?: number) {
  const view = new View(document);
  const house = houseProblem(view, settings)!;
  const search = new HouseSearch(house, 1, highs);
  for (let i = 0; steps === undefined ? !search.progress.searched : i < steps; i++) if (!search.step()) break;
  const proposal = propose(view, house, search.plans, settings);
  return { view, house, search, proposal, after: run(document, proposal.command).document };
}

/** Rules that a plan of circuits answers for. */
const CIRCUIT_RULES = [
  'receptacle-rating',
  'receptacle-voltage',
  'small-conductor',
  'circuit-load',
  'fixed-equipment-share',
  'designated-circuits',
  'required-circuits',
  'afci',
  'shop-limit',
  'on-a-circuit',
  'opposite-legs',
  'simultaneous-disconnect',
  'panel-spaces',
  'directory',
];

for (const [edition, gfciAt] of oneIn(
  3,
  EDITIONS.flatMap((e) => (['breaker', 'first-box'] as const).map((at) => [e, at] as const)),
  ([e]) => e === '2023',
)) {
  test(`the demo house planned from nothing, ${edition}, GFCI at the ${gfciAt}: nothing violated`, () => {
    const start = bare();
    const document = { ...start, job: { ...start.job, edition } };
    const { after, proposal, house } = planned(document, { ...SETTINGS, gfciAt });
    assert.deepEqual(proposal.withoutSpace, []);
    assert.deepEqual(house.leftOut, []);
    const open = new Set(proposal.circuits.flatMap((c) => [c.id, ...c.stops.map((s) => s.boxId)]));
    const wrong = check(after).filter(
      (f) =>
        open.has(f.about.id) &&
        f.level !== 'satisfied' &&
        f.level !== 'note' &&
        (CIRCUIT_RULES.includes(f.rule) || (f.rule === 'gfci' && gfciAt === 'breaker')),
    );
    assert.deepEqual(
      wrong.map((f) => f.message),
      [],
    );
    const limit = (document.job.settings.dropLimitPercent / 100) * document.job.settings.voltage;
    for (const c of proposal.circuits.filter((p) => p.stops.length > 1))
      for (const s of buildRun(after, c).stops)
        assert.ok(s.plannedDrop <= limit, `${c.name}: ${s.plannedDrop} V`);
    const wired = rows(after.circuits).flatMap((c) => c.stops.map((s) => s.boxId));
    assert.equal(new Set(wired).size, wired.length);
    assert.equal(wired.length, rows(document.boxes).filter((b) => b.status !== 'remove').length);
  });
}

test('designated circuits serve their own: two for the kitchen, one each for laundry, bath and appliances', () => {
  const { after, proposal } = planned(bare());
  const kindsOn = (id: string) =>
    new Set(after.circuits[id]!.stops.map((s) => after.areas[after.boxes[s.boxId]!.areaId]!.kind));
  const kitchen = proposal.circuits.filter((c) =>
    c.stops.some((s) => {
      const box = after.boxes[s.boxId]!;
      return isReceptacle(box) && box.serves === null && after.areas[box.areaId]!.kind === 'kitchen';
    }),
  );
  assert.ok(kitchen.length >= 2);
  for (const c of kitchen) {
    assert.equal(c.breaker.rating, 20);
    for (const kind of kindsOn(c.id)) assert.ok(['kitchen', 'dining', 'pantry'].includes(kind), kind);
  }
  for (const kind of ['laundry', 'bathroom'] as const) {
    const mine = proposal.circuits.filter((c) =>
      c.stops.some((s) => {
        const box = after.boxes[s.boxId]!;
        return isReceptacle(box) && box.serves === null && after.areas[box.areaId]!.kind === kind;
      }),
    );
    for (const c of mine) assert.deepEqual([...kindsOn(c.id)], [kind]);
  }
  for (const c of proposal.circuits) {
    const served = c.stops.map((s) => after.boxes[s.boxId]!).filter((b) => b.device.volts !== '125');
    if (served.length > 0) assert.equal(c.stops.length, 1, `${c.name} has company`);
  }
});

test('what the plan promises is what the runs then show', () => {
  const { view, house, search, proposal, after } = planned(bare(), SETTINGS, Infinity);
  for (const [i, part] of house.parts.entries()) {
    for (const priced of search.plans[i]!.circuits) {
      const root = part.sites[priced.sites[0]!]!.box.id;
      const circuit = rows(after.circuits).find((c) => c.stops.some((s) => s.boxId === root))!;
      const built = buildRun(after, circuit);
      const hung = priced.sites.flatMap((s) => part.sites[s]!.hung.map((b) => b.id));
      const cable = built.stops
        .filter((s) => !hung.includes(s.box.id))
        .reduce((t, s) => t + s.segment.length, 0);
      assert.ok(Math.abs(cable - priced.cable) < 1e-6, circuit.name);
      if (part.sort === 'individual') continue;
      const worst = Math.max(
        ...built.stops.filter((s) => !hung.includes(s.box.id)).map((s) => s.plannedDrop),
      );
      assert.ok(Math.abs(worst - priced.drop) < 1e-6, `${circuit.name}: ${worst} ${priced.drop}`);
    }
  }
  const figures = planFigures(view, after, proposal, SETTINGS);
  assert.equal(figures.circuits, proposal.circuits.length);
  assert.ok(figures.cable > 0 && figures.cents > 0);
});

test('what exists, is locked or is on record as proved stays; circuits keep who they were', () => {
  const job = JOB;
  const view = new View(job);
  const settings = { ...SETTINGS, locked: ['circuit-living'] };
  const house = houseProblem(view, settings)!;
  const keptIds = house.kept.map((c) => c.id);
  for (const id of ['circuit-bedroom', 'circuit-east', 'circuit-living']) assert.ok(keptIds.includes(id), id);
  for (const proof of rows(job.proofs))
    for (const id of proof.lockedOut) assert.ok(keptIds.includes(id), 'a proved circuit was opened');
  const { after, proposal } = planned(job, settings);
  for (const c of house.kept) assert.equal(after.circuits[c.id], c);
  const ids = new Set(house.open.map((c) => c.id));
  assert.ok(proposal.circuits.filter((c) => ids.has(c.id)).length > proposal.circuits.length / 2);
});

test('stopped after any step it still is a whole plan, and never a worse one', () => {
  const document = bare();
  const costs = [0, 1, 5, 40, Infinity].map((steps) => {
    const { search, after } = planned(document, SETTINGS, steps);
    assert.equal(check(after).filter((f) => f.rule === 'on-a-circuit').length, 0);
    return search.progress.cents;
  });
  for (let i = 1; i < costs.length; i++) assert.ok(costs[i]! <= costs[i - 1]! + 1e-6);
  const { progress } = planned(document).search;
  assert.ok(progress.searched && progress.done < 1, 'neighboring circuits of the largest part are left');
});

test('a panel without room says which circuits it cannot take', () => {
  const document = bare();
  const panel = Object.values(document.panels)[0]!;
  const { proposal } = planned({ ...document, panels: { [panel.id]: { ...panel, spaces: 8 } } }, SETTINGS, 0);
  assert.ok(proposal.withoutSpace.length > 0);
  const spaces = proposal.circuits.flatMap((c) =>
    c.breaker.poles === 2 ? [c.space, c.space + 2] : [c.space],
  );
  assert.equal(new Set(spaces).size, spaces.length);
  assert.ok(Math.max(...spaces) <= 8);
});

test('a thermostat of two poles is left to be put ahead of its heater, and a circuit that has one stays', () => {
  const job = JOB;
  const alone = houseProblem(new View({ ...bare(), boxes: job.boxes }), SETTINGS) as HouseProblem;
  assert.deepEqual(
    alone.leftOut.map(({ box, why }) => [box.name, why]),
    [['R3', 'a thermostat of two poles goes ahead of its heater, on that circuit']],
  );
  const wired = houseProblem(new View(job), SETTINGS) as HouseProblem;
  assert.deepEqual(wired.leftOut, []);
  assert.ok(wired.kept.some((c) => c.id === 'circuit-shower-heat'));
});

test('no panel, no plan; nothing to wire, nothing planned', () => {
  const document = bare();
  assert.equal(houseProblem(new View({ ...document, panels: {}, circuits: {} }), SETTINGS), null);
  const empty = houseProblem(new View({ ...document, boxes: {}, circuits: {} }), SETTINGS) as HouseProblem;
  assert.deepEqual(empty.parts, []);
  assert.equal(new HouseSearch(empty, 1, highs).step(), false);
});

test('a generated house of 60 outlets is planned without a violation', () => {
  const start = generatedHouse(60);
  const { after, proposal } = planned({ ...start, circuits: {} }, SETTINGS, 30);
  assert.deepEqual(proposal.withoutSpace, []);
  assert.deepEqual(
    check(after)
      .filter((f) => CIRCUIT_RULES.includes(f.rule) && f.level === 'violation')
      .map((f) => f.message),
    [],
  );
});

test('room left for later, lights apart, another panel: the plan follows what the shop asks for', () => {
  const job = JOB;
  const plain = planned(job, SETTINGS);
  const receptaclesOn = (c: Circuit) =>
    c.stops.filter((s) => isReceptacle(job.boxes[s.boxId]!) && job.boxes[s.boxId]!.serves === null).length;
  const spare = planned(job, { ...SETTINGS, spare: 30 });
  // Ten receptacles on 20 A by the shop’s habit: seven where 30 % is left.
  assert.ok(spare.proposal.circuits.every((c) => receptaclesOn(c) <= 7));
  assert.ok(spare.proposal.circuits.length > plain.proposal.circuits.length);

  /** Rooms of which every light and receptacle of the general circuits is on one circuit. */
  const dark = ({ proposal }: typeof plain) => {
    const rooms = new Map<string, Set<string>>();
    const mixed = new Map<string, Set<boolean>>();
    for (const c of proposal.circuits)
      for (const { boxId } of c.stops) {
        const box = job.boxes[boxId]!;
        if (box.device.kind === 'switch' || c.stops.length === 1) continue;
        rooms.set(box.areaId, (rooms.get(box.areaId) ?? new Set()).add(c.id));
        mixed.set(box.areaId, (mixed.get(box.areaId) ?? new Set()).add(isReceptacle(box)));
      }
    return [...rooms].filter(([area, on]) => on.size === 1 && mixed.get(area)!.size === 2).length;
  };
  assert.ok(dark(planned(job, { ...SETTINGS, lightsApart: true })) <= dark(plain));

  const shed = houseProblem(new View(job), { ...SETTINGS, panelId: 'panel-shed' })!;
  assert.equal(shed.panel.id, 'panel-shed');
  assert.deepEqual(shed.open.map((c) => c.id).sort(), ['circuit-shed', 'circuit-shed-lights']);
});

test('only what changed is planned again: circuits in order stay, those of a loose outlet’s room do not', () => {
  const job = JOB;
  const { after } = planned(job, SETTINGS);
  const loose = run(after, { type: 'move-stop', boxId: 'box-l4', circuitId: null, after: null }).document;
  const view = new View(loose);
  const house = houseProblem(view, SETTINGS)!;
  const sound = soundCircuits(view, house, check(loose));
  assert.ok(sound.length >= house.open.length / 2, `${sound.length} of ${house.open.length}`);
  assert.ok(sound.every((c) => runOf(view, c).stops.every((s) => s.area.id !== 'area-living')));
  const again = planned(loose, { ...SETTINGS, locked: sound.map((c) => c.id) });
  for (const c of sound) assert.equal(again.after.circuits[c.id], c);
  assert.ok(rows(again.after.circuits).some((c) => c.stops.some((s) => s.boxId === 'box-l4')));
});

const EXTENDING: PlannerSettings = { ...SETTINGS, extend: true };

/** The old bedroom wing of the demo house as if its wiring had a ground, with new receptacles in the west bedroom. */
function oldWing(count: number, circuit: Partial<Circuit> = {}, box: Partial<Box> = {}): JobDocument {
  const start = bare();
  const bedroom: Circuit = { ...start.circuits['circuit-bedroom']!, cable: 'NM-B', ...circuit };
  const old = new Set(rows(start.circuits).flatMap((c) => c.stops.map((s) => s.boxId)));
  const model = start.boxes['box-b1']!;
  const boxes = [
    ...rows(start.boxes)
      .filter((b) => old.has(b.id))
      .map((b): Box => ({ ...b, grounding: 'grounded', ...box })),
    ...Array.from({ length: count }, (_, i): Box => {
      const id = `box-new-${i + 1}`;
      const device = { ...start.boxes['box-l4']!.device };
      return { ...model, id, name: id, status: 'new', offset: model.offset + 12 * (i + 2), device };
    }),
  ];
  return {
    ...start,
    boxes: Object.fromEntries(boxes.map((b) => [b.id, b])),
    circuits: { ...start.circuits, [bedroom.id]: bedroom },
  };
}

test('an outlet near an existing circuit is fed from its nearest box with room, and brings AFCI with it', () => {
  const document = oldWing(1);
  const alone = planned(document);
  assert.equal(alone.proposal.circuits.length, 1);
  const { view, house, after, proposal } = planned(document, EXTENDING);
  assert.deepEqual(proposal.circuits, []);
  const bedroom = proposal.extended[0]?.circuit;
  assert.deepEqual(proposal.extended[0]?.added, ['box-new-1']);
  const stop = bedroom!.stops.find((s) => s.boxId === 'box-new-1')!;
  const run = buildRun(after, bedroom!);
  const lengthFrom = (id: string) => {
    const stops = bedroom!.stops.map((s) => (s === stop ? { ...s, from: id } : s));
    return buildRun(after, { ...bedroom!, stops }).stops.find((s) => s.box.id === 'box-new-1')!.segment
      .length;
  };
  const starts = house.trunks[0]!.starts.map((s) => s.stop.box.id);
  assert.deepEqual(starts, ['box-b1', 'box-b2', 'box-b3']);
  assert.equal(lengthFrom(stop.from!), Math.min(...starts.map(lengthFrom)));
  assert.equal(bedroom!.breaker.protection, 'afci');
  assert.deepEqual(
    check(after)
      .filter((f) => f.level === 'violation' && [bedroom!.id, 'box-new-1'].includes(f.about.id))
      .filter((f) => CIRCUIT_RULES.includes(f.rule) || f.rule === 'extension-ground')
      .map((f) => f.message),
    [],
  );
  // By hand: the added cable at 48 ¢ a foot and the breaker that takes the old one’s place.
  const length = run.stops.find((s) => s.box.id === 'box-new-1')!.segment.length;
  const figures = planFigures(view, after, proposal, EXTENDING);
  assert.deepEqual([figures.circuits, figures.extended, figures.cable], [0, 1, length]);
  assert.ok(Math.abs(figures.cents - (4600 + 4 * length)) < 1e-6);
  assert.ok(figures.cents < planFigures(alone.view, alone.after, alone.proposal, SETTINGS).cents);
});

test('an extended circuit is planned anew with what it was given, and stands as it was where nothing joins it', () => {
  const document = oldWing(2);
  const { after } = planned(document, EXTENDING);
  const again = planned(after, EXTENDING);
  assert.equal(again.proposal.extended.length, 1);
  assert.deepEqual(again.after.circuits, after.circuits);
  // Without the wish to extend it stays with what it has; locked too.
  for (const settings of [SETTINGS, { ...EXTENDING, locked: ['circuit-bedroom'] }]) {
    const kept = planned(after, settings);
    assert.equal(kept.after.circuits['circuit-bedroom'], after.circuits['circuit-bedroom']);
    assert.equal(kept.house.parts.length, 0);
  }
  // Where its breaker would have to become a dearer one than a new circuit’s, the old one is given up again.
  const had = document.circuits['circuit-bedroom']!;
  const extended = after.circuits[had.id]!;
  const gfci: JobDocument = {
    ...after,
    circuits: { ...after.circuits, [had.id]: { ...extended, breaker: breakerOf(15, 'gfci') } },
  };
  const prices = { ...MADE_UP_PRICES, 'breaker-afci': 100, 'cable-14-2': 1, 'cable-12-2': 1 };
  const back = planned(gfci, { ...EXTENDING, prices });
  assert.deepEqual(back.after.circuits['circuit-bedroom']!.stops, had.stops);
  assert.equal(back.proposal.circuits.length, 1);
});

test('what is on record as proved stays on an extended circuit', () => {
  const { after } = planned(oldWing(1), EXTENDING);
  const proof = { ...rows(tamarackJob().proofs)[0]!, lockedOut: ['circuit-bedroom'] };
  const { trunks, parts } = houseProblem(new View({ ...after, proofs: { [proof.id]: proof } }), EXTENDING)!;
  assert.equal(trunks[0]!.run.stops.length, after.circuits['circuit-bedroom']!.stops.length);
  assert.deepEqual(parts, []);
});

test('GFCI for what joins an existing circuit: at its breaker, or a receptacle at the first box of each branch', () => {
  const outdoor = rows(bare().boxes).find((b) => b.areaId === 'area-patio' && isReceptacle(b))!;
  const plain: Box = { ...outdoor, device: { ...outdoor.device, kind: 'duplex' } };
  const prices = { ...MADE_UP_PRICES, breaker: 9000, 'breaker-gfci': 9000 };
  for (const gfciAt of ['breaker', 'first-box'] as const) {
    const start = oldWing(0, { breaker: breakerOf(20), gauge: '12' });
    const document = { ...start, boxes: { ...start.boxes, [plain.id]: plain } };
    const { after, proposal } = planned(document, { ...EXTENDING, gfciAt, prices });
    assert.equal(proposal.extended.length, 1, gfciAt);
    const { protection } = after.circuits['circuit-bedroom']!.breaker;
    assert.equal(protection, gfciAt === 'breaker' ? 'dual' : 'afci');
    assert.equal(after.boxes[plain.id]!.device.kind, gfciAt === 'breaker' ? 'duplex' : 'gfci');
    const wrong = check(after).filter((f) => f.rule === 'gfci' && f.about.id === plain.id);
    assert.deepEqual(
      wrong.filter((f) => f.level === 'violation').map((f) => f.message),
      [],
    );
  }
});

test('a first box that cannot be got at takes no GFCI: it goes to the breaker', () => {
  const start = bare();
  const outdoor = rows(start.boxes).find((b) => b.areaId === 'area-patio' && isReceptacle(b))!;
  for (const accessible of [true, false]) {
    const box: Box = { ...outdoor, accessible, device: { ...outdoor.device, kind: 'duplex' } };
    const document: JobDocument = { ...start, circuits: {}, boxes: { [box.id]: box } };
    const { after, proposal } = planned(document, { ...SETTINGS, gfciAt: 'first-box' });
    assert.equal(after.boxes[box.id]!.device.kind, accessible ? 'gfci' : 'duplex');
    assert.equal(proposal.circuits[0]!.breaker.protection, accessible ? 'none' : 'gfci');
  }
});

test('extensions in generated houses add no violation, whatever part of a wired house exists', () => {
  for (const gfciAt of ['breaker', 'first-box'] as const)
    for (const seed of oneIn(3, [1, 2, 3])) {
      const random = randomFrom(seed);
      const settings: PlannerSettings = { ...EXTENDING, gfciAt };
      const whole = planned({ ...generatedHouse(60), circuits: {} }, settings, 20).after;
      const old = rows(whole.circuits)
        .filter(() => random() < 0.6)
        .map((c): Circuit => {
          const kept = Math.max(1, Math.floor(c.stops.length * (0.3 + 0.6 * random())));
          const breaker: Circuit['breaker'] =
            random() < 0.5 ? { ...c.breaker, protection: 'none' } : c.breaker;
          return { ...c, status: 'existing', breaker, stops: c.stops.slice(0, kept) };
        });
      const there = new Set(old.flatMap((c) => c.stops.map((s) => s.boxId)));
      const boxes = rows(whole.boxes).map((b): Box =>
        there.has(b.id) ? { ...b, status: 'existing', grounding: 'grounded' } : { ...b, status: 'new' },
      );
      const document: JobDocument = {
        ...whole,
        circuits: Object.fromEntries(old.map((c) => [c.id, c])),
        boxes: Object.fromEntries(boxes.map((b) => [b.id, b])),
      };
      const { after, proposal } = planned(document, settings, 60);
      assert.ok(proposal.extended.length > 0, `seed ${seed}`);
      const violations = (d: JobDocument) => check(d).filter((f) => f.level === 'violation');
      const before = new Set(violations(document).map((f) => `${f.rule} ${f.about.id}`));
      assert.deepEqual(
        violations(after)
          .filter((f) => !before.has(`${f.rule} ${f.about.id}`))
          .map((f) => f.message),
        [],
      );
      const wired = rows(after.circuits).flatMap((c) => c.stops.map((s) => s.boxId));
      assert.equal(new Set(wired).size, wired.length);
      for (const c of old)
        assert.deepEqual(
          after.circuits[c.id]!.stops.slice(0, c.stops.length),
          c.stops,
          'what is there stays',
        );
    }
});

test('an existing counter circuit is one of the two that a kitchen asks for, and takes what it has room for', () => {
  const start = bare();
  const kitchen = rows(start.boxes).filter(
    (b) => isReceptacle(b) && b.device.volts === '125' && b.serves === null && b.areaId === 'area-kitchen',
  );
  assert.ok(kitchen.length > 6);
  const old = kitchen.slice(0, 4).map((b): Box => ({ ...b, status: 'existing', grounding: 'grounded' }));
  const circuit: Circuit = {
    ...start.circuits['circuit-bedroom']!,
    id: 'circuit-counter',
    space: 20,
    name: 'Kitchen counter, east',
    cable: 'NM-B',
    gauge: '12',
    breaker: breakerOf(20, 'dual'),
    stops: old.map((b, i) => stopAt(b.id, old[i - 1]?.id ?? null)),
  };
  const boxes = Object.fromEntries([...old, ...kitchen.slice(4)].map((b) => [b.id, b]));
  const document: JobDocument = { ...start, boxes, circuits: { [circuit.id]: circuit } };
  const few = planned(document, EXTENDING);
  assert.equal(few.house.parts[0]!.pricer.problem.marked.circuits, 2);
  assert.equal(few.proposal.circuits.length, 1);
  assert.ok(few.proposal.circuits[0]!.stops.length < kitchen.length - old.length, 'the old one takes some');
  const held = few.after.circuits[circuit.id]!.stops.length;
  assert.ok(held > old.length && held <= document.job.settings.maxReceptacles);
  assert.deepEqual(
    check(few.after)
      .filter(
        (f) => f.level === 'violation' && CIRCUIT_RULES.includes(f.rule) && f.about.table === 'circuits',
      )
      .map((f) => f.message),
    [],
  );
  // By itself the kitchen would want two.
  assert.equal(planned(document).proposal.circuits.length, 2);
  // Another kitchen’s circuit is none of this one’s.
  const other = { ...document.areas['area-kitchen']!, id: 'area-other', name: 'Other kitchen' };
  const elsewhere = {
    ...document,
    areas: { ...document.areas, [other.id]: other },
    boxes: { ...boxes, ...Object.fromEntries(old.map((b) => [b.id, { ...b, areaId: other.id }])) },
  };
  const apart = houseProblem(new View(elsewhere), EXTENDING)!;
  assert.deepEqual(apart.parts[0]!.trunks, []);
});

test('an existing circuit is not extended where that is no sound thing to do, and why is told', () => {
  const why = (circuit: Partial<Circuit>, box: Partial<Box> = {}, settings = EXTENDING) => {
    const document = oldWing(1, circuit, box);
    const house = houseProblem(new View(document), settings)!;
    assert.ok(house.kept.some((c) => c.id === 'circuit-bedroom'));
    return house.notExtended.find((n) => n.circuit.id === 'circuit-bedroom')?.why;
  };
  assert.match(why({ cable: 'old two-wire' })!, /no ground/);
  assert.match(why({ material: 'aluminum', gauge: '12' })!, /copper/);
  assert.match(why({ breaker: breakerOf(20) })!, /14 AWG on 20 A/);
  assert.match(why({ breaker: breakerOf(15, 'none', 2) })!, /one pole/);
  assert.match(why({}, { grounding: 'unknown' })!, /no box with a ground/);
  const halfHot = { ...PLAIN_DEVICE, kind: 'duplex', rating: 15, tamperResistant: false } as const;
  assert.match(
    why({}, { device: { ...rows(bare().boxes)[0]!.device, ...halfHot, switched: 'half' } })!,
    /no box/,
  );
  assert.match(why({}, {}, { ...EXTENDING, spare: 50 })!, /full/);
  // Locked, it is nobody’s question.
  assert.equal(why({}, {}, { ...EXTENDING, locked: ['circuit-bedroom'] }), undefined);
});
