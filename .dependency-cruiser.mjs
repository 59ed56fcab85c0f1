import FLOORS from './scripts/floors.json' with { type: 'json' };

// The folders of the core from the ground up: each may use those below it; those on one floor do not use each other.

const BESIDE_TESTS = '(\\.test|/testing)\\.ts$';

const floors = FLOORS.flatMap((folders, floor) =>
  folders.map((folder) => {
    const allowed = [...FLOORS.slice(0, floor).flat(), folder];
    return {
      name: `core-${folder}`,
      comment: `src/core/${folder} may use ${allowed.join(', ')}`,
      severity: 'error',
      from: { path: `^src/core/${folder}/`, pathNot: BESIDE_TESTS },
      to: { path: '^src/', pathNot: allowed.map((a) => `^src/core/${a}/`).join('|') },
    };
  }),
);

/** A folder outside the core, with what it may use of the project. */
const outside = (folder, allowed, pathNot = '\\.test\\.ts$') => ({
  name: folder.replaceAll('/', '-'),
  comment: `${folder} may use ${allowed.join(', ')}`,
  severity: 'error',
  from: { path: `^${folder}/`, pathNot },
  to: {
    path: '^(src|cli|demo|scripts|tests)/.*\\.(ts|svelte)$',
    pathNot: [folder, ...allowed].map((a) => `^${a}/`).join('|'),
  },
});

export default {
  forbidden: [
    {
      name: 'no-circular',
      comment: 'Types alone may refer to each other.',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-folder-known',
      comment: 'A new folder of the core takes its place among the floors.',
      severity: 'error',
      from: {},
      to: { path: '^src/core/', pathNot: FLOORS.flat().map((f) => `^src/core/${f}/`) },
    },
    {
      name: 'core-stands-alone',
      comment: 'The core uses nothing of the application and only small pure libraries.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: BESIDE_TESTS },
      to: {
        pathNot: [
          '^src/core/',
          '^node_modules/(@types/)?(yup|papaparse|dxf-parser|elkjs|highs|ical\\.js|@tarikjabiri/dxf)/',
        ],
      },
    },
    ...floors,
    outside('src/lib/workers', ['src/core', 'src/lib/bundled']),
    outside('src/lib/server', ['src/core']),
    outside('src/lib/store', ['src/core', 'src/lib/workers']),
    outside('src/lib', ['src/core', 'demo']),
    outside('src/routes', ['src/core', 'src/lib', 'demo']),
    outside('cli', ['src/core']),
    outside('demo', ['src/core']),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.js', '.svelte'] },
  },
};
