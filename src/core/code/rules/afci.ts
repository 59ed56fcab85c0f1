import { at } from '#core/tables/editions.ts';
import { runOf } from '#core/circuits/run.ts';
import { afciMeans, afciRoom, afciSection, suppliedRoom, describeOrigin } from '../decisions.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { changeBreaker, changeDevice, rule, type Fix } from '../rule.ts';

/** Where changed wiring of an old circuit is spoken of. */
const CHANGED = { '2017': '210.12(D)', '2020': '210.12(D)', '2023': '210.12(E)' } as const;

export const afci = rule({
  id: 'afci',
  title: 'AFCI protection',
  scope: 'circuit',
  clears: ['all outlets'],
  level: 'violation',
  sections: { '2017': '210.12(A)', '2020': '210.12(A)', '2023': '210.12(B)' },
  why: 'A loose or damaged conductor can arc and start a fire at a current no ordinary breaker notices.',
  check(circuit, view) {
    const room = afciRoom(view, circuit);
    if (!room) return [];
    const { stops } = runOf(view, circuit);
    const reason = `it supplies ${suppliedRoom(room.area)}`;
    const section = afciSection(view.edition);
    const { protection } = circuit.breaker;
    if (protection === 'afci' || protection === 'dual') {
      return [{ level: 'satisfied', message: `AFCI at the breaker; ${reason}`, section }];
    }
    const added = circuit.status === 'new' || stops.some((s) => s.box.status === 'new');
    // A luminaire or switch that is replaced leaves the wiring as it is: 406.4(D)(4) is of receptacles.
    const changed = stops.filter(
      ({ box }) => box.status === 'new' || (box.status === 'replace' && isReceptacle(box)),
    );
    if (circuit.status !== 'new' && changed.length === 0) {
      return [
        {
          level: 'note',
          message: `existing and not altered; ${reason}, so AFCI comes with the next change to it`,
          section,
        },
      ];
    }
    const where = added
      ? circuit.status === 'new'
        ? section
        : at(CHANGED, view.edition)
      : `406.4(D)(4), ${section}`;
    const bare = changed.filter((s) => afciMeans(circuit, s) === null);
    if (circuit.status !== 'new' && bare.length === 0) {
      const means = describeOrigin(afciMeans(circuit, changed[0]!), changed[0]!.box);
      return [
        { level: 'satisfied', message: `AFCI for what is altered by ${means}; ${reason}`, section: where },
      ];
    }
    const fixes: Fix[] = [
      protection === 'gfci'
        ? {
            label: 'Install a dual-function breaker',
            command: changeBreaker(circuit, { protection: 'dual' }),
          }
        : { label: 'Install an AFCI breaker', command: changeBreaker(circuit, { protection: 'afci' }) },
    ];
    const first = stops[0]?.box;
    if (circuit.status === 'existing' && first && first.device.rating <= 20 && first.device.kind !== 'gfci') {
      fixes.push({
        label: `Install an outlet-type AFCI at ${first.name}, the first outlet`,
        command: changeDevice(first, { kind: 'outlet-afci' }),
      });
    }
    return [
      {
        level: 'violation',
        message:
          circuit.status === 'existing'
            ? `what is altered needs AFCI at the breaker or an outlet-type device at the first outlet: ${reason}`
            : `needs AFCI at the breaker: ${reason}`,
        section: where,
        fixes,
      },
    ];
  },
});
