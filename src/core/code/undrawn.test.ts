/** Jobs without a plan: what the rules say of a house that was never drawn is never other than what they say of it drawn. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { generatedHouse } from '../../../demo/generate.ts';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { waterNear } from '#core/plan/reach.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { View } from '#core/view/view.ts';
import { Checker } from './checker.ts';
import { decisionsFor } from './decisions.ts';

interface Known {
  /** The way of a cord to water was measured where there is some near. */
  water: boolean;
  /** Circuits are on record whole and in order. */
  circuits: boolean;
  /** Cable lengths were measured. */
  lengths: boolean;
  /** Only every second outlet is on record. */
  half?: boolean;
  /** Nobody read the panel or saw a conductor: what stands in for them is another thing than what is there. */
  standIns?: boolean;
}

/** A job as it would be on record had nobody drawn it: rooms are names and kinds, things have a room and no place. */
function undrawn(
  job: JobDocument,
  { water, circuits, lengths, half = false, standIns = false }: Known,
): JobDocument {
  const view = new View(job);
  const each = <T extends object>(table: Readonly<Record<string, T>>, change: (row: T) => T) =>
    Object.fromEntries(Object.entries(table).map(([id, row]) => [id, change(row)]));
  const wayToWater = (id: string): number | null => {
    const box = job.boxes[id]!;
    if (box.waterDistance !== null) return box.waterDistance;
    const [nearest] = waterNear(view, box);
    return nearest ? nearest.path.distance : FAR;
  };
  const seen = new Set(
    Object.keys(job.boxes)
      .sort()
      .filter((_, k) => !half || k % 2 === 0),
  );
  const boxes = Object.fromEntries(Object.entries(job.boxes).filter(([id]) => seen.has(id)));
  return {
    ...job,
    areas: each(job.areas, (area) => ({ ...area, walls: [] })),
    openings: {},
    ...(standIns
      ? {
          panels: each(job.panels, (p) => ({
            ...p,
            known: 'unknown' as const,
            mainRating: 90,
            busRating: 60,
            spaces: 84,
            bonded: !p.bonded,
          })),
        }
      : {}),
    fixtures: each(job.fixtures, (f) => ({ ...f, wallId: null })),
    boxes: each(boxes, (box) => ({
      ...box,
      wallId: null,
      fixtureId: null,
      spot: 'somewhere',
      waterDistance: water ? wayToWater(box.id) : null,
      controls: box.controls.filter((c) => seen.has(c)),
    })),
    circuits: each(job.circuits, (c) => ({
      ...c,
      complete: circuits ? 'yes' : 'unknown',
      ordered: circuits ? 'yes' : 'unknown',
      // In no order that anybody saw: each as if it were fed from the panel.
      stops: c.stops
        .filter((s) => seen.has(s.boxId))
        .map((s) => ({
          ...s,
          from: circuits ? s.from : null,
          measured: lengths ? (s.measured ?? LONG) : null,
          gauge: standIns ? null : s.gauge,
        })),
      ...(standIns ? { seen: 'unknown' as const, gauge: '14' as const, ground: null } : {}),
    })),
  };
}
const FAR = 999;
const LONG = 240;

const HOUSES: [string, JobDocument][] = [
  ['the demo', tamarackJob()],
  ['a generated house', generatedHouse(60)],
];
const WAYS: [string, Known][] = [
  ['nothing but rooms and circuits', { water: false, circuits: false, lengths: false }],
  ['with the way to water', { water: true, circuits: false, lengths: false }],
  ['no panel read and no conductor seen', { water: true, circuits: false, lengths: false, standIns: true }],
  ['every second outlet', { water: true, circuits: false, lengths: false, half: true }],
  ['with circuits whole and in order', { water: true, circuits: true, lengths: false }],
];

for (const [house, job] of HOUSES)
  for (const [way, known] of WAYS) {
    test(`${house}, ${way}: no rule says in order, or a violation, of what it did not say so drawn`, () => {
      const drawn = new Checker(job).findings();
      const found = new Checker(undrawn(job, known)).findings();
      const wrong = found.flatMap((f) => {
        if (f.level === 'unknown' || f.level === 'note') return [];
        const same = drawn.filter((d) => d.rule === f.rule && d.about.id === f.about.id);
        const levels = new Set(same.map((d) => d.level));
        // What is protected is in order whether that was asked for or not.
        if (levels.has(f.level) || (f.rule === 'gfci' && f.level === 'satisfied' && levels.size === 0))
          return [];
        return [
          `${f.rule} (${f.about.table}) ${f.level}, drawn ${[...levels].join(' ') || 'nothing'}: ${f.message}`,
        ];
      });
      assert.deepEqual(wrong, []);
    });
    test(`${house}, ${way}: no decision excuses what it asked for drawn`, () => {
      const [before, after] = [new View(job), new View(undrawn(job, known))];
      const wrong = Object.values(after.document.boxes).flatMap(({ id }) => {
        const box = job.boxes[id]!;
        const drawn = decisionsFor(before, box);
        return decisionsFor(after, after.document.boxes[box.id]!).flatMap((d) => {
          const was = drawn.find((o) => o.topic === d.topic)!;
          if (d.asked === was.asked || d.asked === 'not-known') return [];
          return [`${box.name} ${d.topic}: ${d.asked}, drawn ${was.asked}: ${d.reason} | ${was.reason}`];
        });
      });
      assert.deepEqual(wrong, []);
    });
  }
