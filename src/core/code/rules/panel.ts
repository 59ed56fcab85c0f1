/** Rules about a panel itself: spaces, ratings, bonding, openings, directory, load, feeder. */
import { always } from '#core/tables/editions.ts';
import { loadOf } from '#core/panel/jobLoad.ts';
import { runOf } from '#core/circuits/run.ts';
import { dwellingLoad, LOAD_SECTION } from '#core/loads/dwelling.ts';
import type { Circuit } from '#core/job/schema.ts';
import { feederLoad, sizeFeeder } from '#core/panel/feeder.ts';
import { directoryFault, purposeOf } from '#core/panel/purpose.ts';
import { freeSpace, idOf, isClash, nameOf, spacesIn, spacesOf } from '#core/panel/spaces.ts';
import { round } from '#core/units/quantity.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';
import { changeCircuit, changePanel, rule, type Fix, type Verdict } from '../rule.ts';

export const panelSpaces = rule({
  id: 'panel-spaces',
  title: 'Breakers in the spaces of the panel',
  scope: 'panel',
  level: 'violation',
  sections: always('110.3(B), 408.54'),
  why: 'A panel is tested for one breaker in each space, and for tandems only where its label says so.',
  check(panel, view) {
    const circuits = view.circuitsIn(panel).filter((c) => c.status !== 'remove');
    if (circuits.length === 0) return [];
    const spaces = spacesIn(view.document, panel);
    const found: Verdict[] = [];
    const moveTo = (circuit: Circuit): Fix[] => {
      const space = freeSpace(spaces, circuit.breaker.poles);
      const label = `Move ${circuit.name} to space ${space}`;
      const values = { space: space ?? 0, otherSpace: null, half: 'whole' } as const;
      return space === null ? [] : [{ label, command: changeCircuit(circuit, values) }];
    };
    for (const c of circuits) {
      const outside = spacesOf(c).find((at) => at > panel.spaces);
      if (outside !== undefined)
        found.push({
          level: 'violation',
          message: `${c.name} in space ${c.space} would need space ${outside}; the panel has ${panel.spaces}`,
          fixes: moveTo(c),
        });
    }
    for (const space of spaces) {
      if (isClash(space)) {
        const names = [...new Set(space.occupants.map(nameOf))];
        const movable = space.occupants.flatMap((o) => ('circuit' in o ? [o.circuit] : [])).at(-1);
        found.push({
          level: 'violation',
          message: `space ${space.space} is taken by ${names.join(' and by ')}`,
          fixes: movable ? moveTo(movable) : [],
        });
      } else if (
        space.occupants.some((o) => 'circuit' in o && o.circuit.half !== 'whole') &&
        !panel.tandemSpaces.includes(space.space)
      ) {
        const [first] = space.occupants.map(nameOf);
        found.push({
          level: 'violation',
          message: `a tandem in space ${space.space} (${first}): the panel’s label does not allow one there`,
          fixes: [
            {
              label: `The label allows a tandem in space ${space.space}`,
              command: changePanel(panel, { tandemSpaces: [...panel.tandemSpaces, space.space] }),
            },
          ],
        });
      }
    }
    if (found.length > 0) return found;
    const used = new Set(spaces.flatMap((s) => s.occupants.map(idOf))).size;
    return [{ level: 'satisfied', message: `${used} breakers, each in spaces of its own` }];
  },
});

export const panelRating = rule({
  id: 'panel-rating',
  title: 'Main breaker within the panel’s bus',
  scope: 'panel',
  level: 'violation',
  sections: always('408.36'),
  why: 'The bus bars carry what the breaker ahead of them lets through.',
  check(panel) {
    // The breaker at either end of its feeder will do.
    if (panel.feeder === null && panel.mainRating > LARGEST_SERVICE) return [];
    const ahead = Math.min(panel.feeder?.rating ?? panel.mainRating, panel.mainRating);
    return [
      {
        level: ahead > panel.busRating ? 'violation' : 'satisfied',
        message: `${ahead} A ahead of a bus rated ${panel.busRating} A`,
        measured: { value: ahead, unit: 'A' },
        limit: { value: panel.busRating, unit: 'A' },
      },
    ];
  },
});

export const panelBonding = rule({
  id: 'panel-bonding',
  title: 'Neutral and enclosure: joined once, at the service',
  scope: 'panel',
  level: 'violation',
  sections: always('250.24(B), 250.142(B)'),
  why: 'Joined nowhere, a fault does not trip the breaker; joined twice, grounds and metal carry current all day.',
  check(panel) {
    const fix = (label: string, bonded: boolean): Fix[] => [
      { label, command: changePanel(panel, { bonded }) },
    ];
    if (panel.feeder === null) {
      return panel.bonded
        ? [
            {
              level: 'satisfied',
              section: '250.24(B)',
              message: 'neutral and enclosure are joined at the service',
            },
          ]
        : [
            {
              level: 'violation',
              section: '250.24(B)',
              message:
                'neutral and enclosure are not joined at the service: a ground fault would not trip a breaker',
              fixes: fix('Fit the main bonding jumper', true),
            },
          ];
    }
    if (!panel.bonded)
      return [
        {
          level: 'satisfied',
          section: '250.142(B), 408.40',
          message: 'neutrals and grounds are on bars apart, and the bonding screw is out',
        },
      ];
    if (panel.otherBuilding && !panel.feeder.ground && panel.feeder.status === 'existing')
      return [
        {
          level: 'note',
          section: '250.32(B)(1)',
          message:
            'an old three-wire feeder to another building, its neutral joined to ground there: allowed only while it exists and no other metal path runs between them',
        },
      ];
    return [
      {
        level: 'violation',
        section: '250.142(B), 408.40',
        message:
          'neutral and enclosure are joined again in a subpanel: take the bonding screw out and part the bars',
        fixes: fix('Take the bonding screw out', false),
      },
    ];
  },
});

export const panelOpenings = rule({
  id: 'panel-openings',
  title: 'Unused openings closed',
  scope: 'panel',
  level: 'violation',
  sections: always('408.7, 110.12(A)'),
  why: 'A finger or a dropped screw goes through an open knockout straight to the bus.',
  check(panel) {
    if (!panel.found) return [];
    const { fillersMissing } = panel.found;
    return fillersMissing === 0
      ? [{ level: 'satisfied', message: 'every unused opening is closed' }]
      : [
          {
            level: 'violation',
            message: `${fillersMissing} ${fillersMissing === 1 ? 'opening stands' : 'openings stand'} open: fit fillers`,
            fixes: [
              {
                label: 'Record the openings as closed',
                command: changePanel(panel, { found: { ...panel.found, fillersMissing: 0 } }),
              },
            ],
          },
        ];
  },
});

export const directory = rule({
  id: 'directory',
  title: 'Panel directory',
  scope: 'panel',
  level: 'violation',
  sections: always('408.4(A)'),
  why: 'Whoever must cut the power in a hurry reads the directory once: each line says what it feeds and no other does.',
  check(panel, view) {
    const circuits = view.circuitsIn(panel).filter((c) => c.status !== 'remove');
    if (circuits.length === 0) return [];
    const taken = new Set(circuits.map((c) => c.name.toLowerCase()));
    const found = circuits.flatMap((c): Verdict[] => {
      const message = directoryFault(c, circuits);
      if (message === null) return [];
      const purpose = purposeOf(view.document, runOf(view, c).stops);
      const tries = [purpose, ...Array.from({ length: 40 }, (_, i) => `${purpose.slice(0, 76)} ${i + 2}`)];
      const name = tries.find(
        (t) => !taken.has(t.toLowerCase()) && directoryFault({ ...c, name: t }, circuits) === null,
      );
      return [
        {
          level: 'violation',
          message: `space ${c.space}: ${message}`,
          fixes:
            name === undefined ? [] : [{ label: `Name it “${name}”`, command: changeCircuit(c, { name }) }],
        },
      ];
    });
    return found.length > 0
      ? found
      : [{ level: 'satisfied', message: `${circuits.length} circuits, each named for what it feeds` }];
  },
});

export const serviceLoad = rule({
  id: 'service-load',
  title: 'Service against the dwelling’s load',
  scope: 'panel',
  level: 'violation',
  sections: always('230.42, 230.79'),
  why: 'A service that is too small trips when everyone is home on the coldest evening.',
  check(panel, view) {
    if (panel.feeder !== null || view.circuitsIn(panel).length === 0) return [];
    if (panel.mainRating > LARGEST_SERVICE) return [];
    const { dwelling, lacking } = loadOf(view, panel);
    const { method } = view.document.job.load;
    const load = dwellingLoad(dwelling, method);
    if (!load.ok) return [{ level: 'unknown', message: load.message }];
    const { amps } = load.value;
    const quantities = {
      measured: { value: round(amps, 1), unit: 'A' },
      limit: { value: panel.mainRating, unit: 'A' },
    } as const;
    const section = `${LOAD_SECTION[method]}, 230.42`;
    if (amps > panel.mainRating + 1e-9)
      return [
        {
          level: 'violation',
          section,
          message: `${round(amps, 1)} A by the ${method} method; the main breaker is of ${panel.mainRating} A`,
          ...quantities,
        },
      ];
    if (dwelling.oneFamily && panel.mainRating < 100)
      return [
        {
          level: 'violation',
          section: '230.79(C)',
          message: `a one-family dwelling has a service of 100 A or more; this one is of ${panel.mainRating} A`,
          measured: { value: panel.mainRating, unit: 'A' },
          limit: { value: 100, unit: 'A' },
        },
      ];
    if (lacking.length > 0)
      return [
        {
          level: 'unknown',
          section,
          message: `${round(amps, 1)} A without ${lacking.map((f) => f.name).join(', ')}, whose nameplate is not on record`,
        },
      ];
    return [
      {
        level: 'satisfied',
        section,
        message: `${round(amps, 1)} A by the ${method} method on a ${panel.mainRating} A main`,
        ...quantities,
      },
    ];
  },
});

export const feederRule = rule({
  id: 'feeder',
  title: 'Feeder of a subpanel',
  scope: 'panel',
  level: 'violation',
  sections: always('215.2, 215.3, 250.32'),
  why: 'The feeder carries all that the subpanel feeds, and brings it the ground that trips its breakers.',
  check(panel, view) {
    const { feeder } = panel;
    if (!feeder) return [];
    const { document } = view;
    const { amps } = feederLoad(view, panel);
    const sized = sizeFeeder(document, panel, feeder, amps);
    if (!sized) return [];
    const found: Verdict[] = [];
    if (amps > feeder.rating + 1e-9)
      found.push({
        level: 'violation',
        section: '215.3',
        message: `${round(amps, 1)} A of load on a ${feeder.rating} A feeder`,
        measured: { value: round(amps, 1), unit: 'A' },
        limit: { value: feeder.rating, unit: 'A' },
      });
    const { leastGauge, largestBreaker: most } = sized;
    if (most === null || feeder.rating > most)
      found.push({
        level: 'violation',
        section: '215.2(A), 240.4',
        message: `${feeder.rating} A on ${feeder.gauge} AWG ${feeder.material}; at most ${most ?? 0} A`,
        measured: { value: feeder.rating, unit: 'A' },
        limit: { value: most ?? 0, unit: 'A' },
        fixes:
          leastGauge === null
            ? []
            : [
                {
                  label: `Run ${leastGauge} AWG`,
                  command: changePanel(panel, { feeder: { ...feeder, gauge: leastGauge } }),
                },
              ],
      });
    if (!feeder.ground) {
      // Only what was there before a ground was asked for may stay; a new one has four wires.
      const old = panel.otherBuilding && panel.bonded && feeder.status === 'existing';
      found.push({
        level: old ? 'note' : 'violation',
        section: panel.otherBuilding ? '250.32(B)' : '215.6',
        message: old
          ? 'three wires, from before a ground was asked for between buildings'
          : 'three wires: a ground must run with the feeder, four in all',
        fixes: old
          ? []
          : [
              {
                label: 'Run a ground with the feeder',
                command: changePanel(panel, { feeder: { ...feeder, ground: true } }),
              },
            ],
      });
    }
    if (panel.otherBuilding && !panel.electrode)
      found.push({
        level: 'violation',
        section: '250.32(A)',
        message: 'another building with more than one circuit needs a grounding electrode of its own',
        fixes: [{ label: 'Connect a grounding electrode', command: changePanel(panel, { electrode: true }) }],
      });
    const limit = document.job.settings.dropLimitPercent;
    if (sized.drop.percent > limit)
      found.push({
        level: 'recommended',
        section: '215.2(A) note',
        message: `${round(sized.drop.percent, 1)} % drop under its load; ${limit} % is advised`,
        measured: { value: round(sized.drop.percent, 1), unit: '%' },
        limit: { value: limit, unit: '%' },
      });
    return found.length > 0
      ? found
      : [
          {
            level: 'satisfied',
            message: `${round(amps, 1)} A on ${feeder.rating} A and ${feeder.gauge} AWG, four wires, ground ${sized.ground} AWG`,
          },
        ];
  },
});
