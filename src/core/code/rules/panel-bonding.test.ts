/** Bonds: two rules speak of them, and never ask for opposite things; none is taken out before a ground is there. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { FEEDER, house, PANEL, room, run } from '#core/job/testing.ts';
import { EDITIONS, OUTDOOR_DISCONNECTS, STATUSES, type Panel } from '#core/job/schema.ts';
import { check } from '../checker.ts';

const FLAGS = [true, false];
/** Every panel that a bond may be in: at the service with each disconnect outdoors, and behind feeders of three wires and four. */
const PANELS: Panel[] = STATUSES.filter((s) => s !== 'remove').flatMap((status) =>
  FLAGS.flatMap((bonded): Panel[] => [
    ...OUTDOOR_DISCONNECTS.map((outdoorDisconnect) => ({
      ...PANEL,
      status,
      bonded,
      service: { ...PANEL.service, outdoorDisconnect },
    })),
    ...FLAGS.flatMap((ground) =>
      FLAGS.map((otherBuilding) => ({
        ...PANEL,
        id: 'panel-0',
        name: 'Panel B',
        status,
        bonded,
        otherBuilding,
        feeder: { ...FEEDER, status, ground },
      })),
    ),
  ]),
);
const BOND_IN = /not joined at the service|main bonding jumper belongs/;
const BOND_OUT = /joined again|neutral has to float|screw out/;

test('no two rules ask for opposite things of a bond, and none takes it out before a ground is on record', () => {
  let out = 0;
  for (const edition of EDITIONS)
    for (const panel of PANELS) {
      const panels = panel.feeder === null ? [panel] : [PANEL, panel];
      const document = house({ area: room([144, 120, 144, 120]), panels, edition });
      const found = check(document).filter(
        (f) => ['panel-bonding', 'outdoor-disconnect', 'feeder'].includes(f.rule) && f.about.id === panel.id,
      );
      const text = found.filter((f) => f.level === 'violation').map((f) => f.message);
      const what = JSON.stringify({
        edition,
        panel: panel.feeder ?? panel.service,
        bonded: panel.bonded,
        text,
      });
      assert.ok(!(text.some((t) => BOND_IN.test(t)) && text.some((t) => BOND_OUT.test(t))), what);
      const ground = panel.feeder?.ground === true;
      for (const t of text)
        if (/screw out/.test(t) && !ground)
          assert.match(t, /first the fourth wire, or a metal raceway, and only then/, what);
      for (const fix of found.flatMap((f) => f.fixes ?? [])) {
        if (!('command' in fix)) continue;
        const after = run(document, fix.command).document.panels[panel.id]!;
        if (panel.bonded && !after.bonded) {
          out++;
          assert.ok(ground, `${fix.label} ${what}`);
        }
      }
      // Not joined, and nothing brings a ground: never in order.
      if (!panel.bonded && panel.feeder && !ground)
        assert.ok(!found.some((f) => f.rule === 'panel-bonding' && f.level === 'satisfied'), what);
    }
  assert.ok(out > 0, 'with a fourth wire on record the screw is taken out');
});
