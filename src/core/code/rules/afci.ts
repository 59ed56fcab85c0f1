import { afciRoom, afciSection } from '../decisions.ts';
import { changeBreaker, rule } from '../rule.ts';
import { AREA_FACTS } from '../tables/areas.ts';

export const afci = rule({
  id: 'afci',
  title: 'AFCI protection',
  scope: 'circuit',
  level: 'violation',
  sections: { '2017': '210.12(A)', '2020': '210.12(A)', '2023': '210.12(B)' },
  why: 'A loose or damaged conductor can arc and start a fire at a current no ordinary breaker notices.',
  check(circuit, view) {
    const room = afciRoom(view, circuit);
    if (!room) return [];
    const stops = view.run(circuit).stops;
    const reason = `it supplies ${room.area.name} (${AREA_FACTS[room.area.kind].label.toLowerCase()})`;
    const section = afciSection(view.edition);
    const { protection } = circuit.breaker;
    if (protection === 'afci' || protection === 'dual') {
      return [{ level: 'satisfied', message: `AFCI at the breaker; ${reason}`, section }];
    }
    const added = circuit.status === 'new' || stops.some((s) => s.box.status === 'new');
    const replaced = stops.some((s) => s.box.status === 'replace');
    if (!added && !replaced) {
      return [
        {
          level: 'note',
          message: `existing and not altered; ${reason}, so AFCI comes with the next change to it`,
          section,
        },
      ];
    }
    return [
      {
        level: 'violation',
        message: `needs AFCI at the breaker: ${reason}`,
        section: added ? section : `406.4(D)(4), ${section}`,
        fixes: [
          protection === 'gfci'
            ? {
                label: 'Fit a dual-function breaker',
                command: changeBreaker(circuit, { protection: 'dual' }),
              }
            : { label: 'Fit an AFCI breaker', command: changeBreaker(circuit, { protection: 'afci' }) },
        ],
      },
    ];
  },
});
