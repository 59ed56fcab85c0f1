import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { View } from '#core/view/view.ts';
import { chain, FEEDER, fixture, house, outlet, PANEL, plate, receptacle, room } from '#core/job/testing.ts';
import type { Panel } from '#core/job/schema.ts';
import { dwellingLoad, LOAD_METHODS } from '#core/loads/dwelling.ts';
import { feederLoad, sizeFeeder } from './feeder.ts';
import { floorAreaOf, loadOf } from './jobLoad.ts';
import { purposeOf } from './purpose.ts';
import { spareFor } from './spare.ts';

const wired = { connection: 'hardwired' } as const;

test('floor area: rooms with half a wall around them, without garage, porch and what is not finished', () => {
  const square = room([120, 120, 120, 120]);
  // 120 × 120 + 480 × 4.5 / 2 = 15,480 in² = 107.5 ft².
  assert.equal(floorAreaOf([square], 4.5), 108);
  const others = (['garage', 'deck', 'outdoors', 'attic', 'basement-unfinished'] as const).map((kind) => ({
    ...square,
    kind,
  }));
  assert.equal(floorAreaOf([square, ...others], 4.5), 108);
  // An L: 200 × 200 less 100 × 100, around 800 in.
  const ell = room([200, 200, 100, 100, 100, 100], [90, 90, 90, -90, 90, 90]);
  assert.equal(floorAreaOf([ell], 6), Math.round((30000 + 2400) / 144));
});

test('appliances count by their nameplates, with what each of them is', () => {
  const fixtures = [
    fixture('heat-pump', 1, 20, 30, { ...wired, ...plate(240, { minimumAmpacity: 20 }), status: 'new' }),
    fixture('air-handler', 1, 60, 20, { ...wired, ...plate(240, { watts: 9600 }) }),
    fixture('dryer', 2, 20, 27, { connection: 'cord' }),
    fixture('disposal', 2, 60, 10, { ...wired, ...plate(120, { amps: 7.5 }) }),
    fixture('motor', 3, 20, 20, { ...wired, ...plate(240, { horsepower: 1 }) }),
    fixture('kiln', 3, 60, 34, { connection: 'cord' }),
    fixture('television', 4, 60, 50, { connection: 'cord', ...plate(120, { amps: 2 }) }),
  ];
  const view = new View(house({ fixtures }));
  const { dwelling, lacking, areaFrom } = loadOf(view, PANEL);
  assert.deepEqual(
    dwelling.items.map((i) => [i.kind, i.va, i.volts, i.motor, i.added]),
    [
      ['supplementary-heat', 9600, 240, false, false],
      ['appliance', 900, 120, true, false],
      ['dryer', 0, 240, false, false],
      ['heat-pump', 4800, 240, true, true],
      ['appliance', 1920, 240, true, false],
    ],
  );
  assert.deepEqual(
    lacking.map((f) => f.kind),
    ['kiln'],
  );
  assert.equal(dwelling.smallApplianceCircuits, 2);
  assert.equal(dwelling.laundryCircuits, 1);
  assert.equal(areaFrom, 'rooms');
});

test('what is left: a tenth more does not fit, what is said does, by every method', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 500, max: 4000 }),
      fc.integer({ min: 0, max: 12000 }),
      fc.constantFrom(100, 125, 150, 200),
      fc.constantFrom(...LOAD_METHODS),
      fc.constantFrom('appliance' as const, 'vehicle' as const),
      (floorArea, watts, amps, method, kind) => {
        const { dwelling } = loadOf(
          new View(
            house({
              fixtures: [fixture('water-heater', 1, 60, 20, { ...wired, ...plate(240, { watts }) })],
              job: { load: { method, floorArea } },
            }),
          ),
          PANEL,
        );
        const spare = spareFor(dwelling, method, amps, kind);
        const at = (more: number) => {
          const item = {
            name: 'more',
            kind,
            va: 240 * more,
            volts: 240,
            motor: false,
            controls: 1,
            added: true,
          } as const;
          const load = dwellingLoad({ ...dwelling, items: [...dwelling.items, item] }, method);
          return load.ok ? load.value.amps : Infinity;
        };
        if (spare > 0) assert.ok(at(spare) <= amps + 1e-9);
        assert.ok(at(spare + 0.1) > amps || at(0) > amps || spare >= 399);
      },
    ),
    { numRuns: 60 },
  );
});

test('a feeder: load, largest breaker, ground and drop', () => {
  const sub: Panel = {
    ...PANEL,
    id: 'panel-2',
    name: 'Panel B',
    bonded: false,
    feeder: { ...FEEDER, measured: 1200 },
  };
  const kiln = fixture('kiln', 2, 60, 30, { connection: 'cord', ...plate(240, { watts: 9600 }) });
  const box = outlet('K', 1, 20, {
    serves: kiln.id,
    device: receptacle({ kind: 'single', rating: 50, volts: '250' }),
  });
  const document = house({
    fixtures: [kiln],
    boxes: [box],
    circuits: [
      chain([box], {
        panelId: 'panel-2',
        neutral: false,
        breaker: { ...chain([]).breaker, poles: 2, rating: 50 },
      }),
    ],
    panels: [PANEL, sub],
  });
  const { amps } = feederLoad(new View(document), sub);
  // The bedroom's 132 ft² and the kiln: 3 × 137 + 9,600 VA.
  assert.ok(amps > 40 && amps < 43, `${amps}`);
  const sized = sizeFeeder(document, sub, sub.feeder!, 40)!;
  assert.equal(sized.usableAmps, 55);
  assert.equal(sized.largestBreaker, 60);
  assert.equal(sized.leastGauge, '6');
  assert.equal(sized.ground, '10');
  // 2 × 0.491 / 1,000 × 100 ft × 40 A = 3.93 V of 240.
  assert.ok(Math.abs(sized.drop.volts - 3.928) < 1e-9);
  assert.ok(Math.abs(sized.drop.percent - 1.6367) < 1e-3);
});

test('a feeder through an attic, beside others: heat and bundling take their share of the 90 °C column', () => {
  const sub = (values: Partial<typeof FEEDER>): Panel => ({
    ...PANEL,
    id: 'panel-2',
    bonded: false,
    feeder: { ...FEEDER, ...values },
  });
  const sized = (values: Partial<typeof FEEDER>, amps = 40) => {
    const panel = sub(values);
    return sizeFeeder(house({ panels: [PANEL, panel] }), panel, panel.feeder!, amps)!;
  };
  // 75 A × 0.82 is above the 55 A of the 60 °C column; × 0.8 for six conductors it is not.
  assert.equal(sized({ ambient: 50 }).usableAmps, 55);
  const hot = sized({ ambient: 50, bundled: 6 });
  assert.ok(Math.abs(hot.usableAmps! - 49.2) < 1e-9, `${hot.usableAmps} A`);
  assert.equal(hot.largestBreaker, 50);
  // 95 A × 0.82 × 0.8 = 62.3 A.
  assert.equal(hot.leastGauge, '4');
  assert.match(hot.steps.map((s) => s.working).join('\n'), /90 °C value × 0\.82 × 0\.8 = 49\.2 A/);
  // 195 A × 0.29 = 56.6 A, for which 60 A is the next breaker.
  assert.equal(sized({ ambient: 85, cable: 'raceway' }).leastGauge, '2/0');
  // NM-B ends at 2 AWG: none of it serves there.
  assert.equal(sized({ ambient: 85 }).leastGauge, null);
});

test('names say what a circuit feeds and where', () => {
  const area = room([100, 100, 100, 100], undefined, { name: 'West bedroom' });
  const hall = room([100, 100, 100, 100], undefined, { id: 'area-2', name: 'Hall' });
  const kiln = fixture('kiln', 1, 20, 30, { name: 'kiln' });
  const document = house({ areas: [area, hall], fixtures: [kiln] });
  const lamp = outlet('L', 1, 20, { device: receptacle({ kind: 'light' }) });
  const name = (...outlets: Parameters<typeof purposeOf>[1]) => purposeOf(document, outlets);
  assert.equal(name({ box: outlet('A', 1, 20), area }), 'West bedroom receptacles');
  assert.equal(
    name({ box: lamp, area }, { box: outlet('A', 1, 20), area: hall }),
    'West bedroom and Hall outlets and lights',
  );
  assert.equal(name({ box: lamp, area }), 'West bedroom lights');
  assert.equal(name({ box: outlet('K', 1, 20, { serves: kiln.id }), area }), 'Kiln');
  assert.equal(name(), 'Spare');
});
