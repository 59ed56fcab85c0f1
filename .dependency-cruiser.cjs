/** The arrows between folders: units ← job ← plan ← code/tables ← loads, circuits ← panel ← code ← layout, records, formats; network rests on circuits. */
const only = (folder, allowed) => ({
  name: `core-${folder.replace('/', '-')}`,
  comment: `src/core/${folder} may use ${allowed.join(', ')}`,
  severity: 'error',
  from: { path: `^src/core/${folder}/`, pathNot: '(\\.test|/testing)\\.ts$' },
  to: { path: '^src/', pathNot: allowed.map((a) => `^src/core/${a}/`).join('|') },
});

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment: 'The core uses nothing of the application and only small pure libraries.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '(\\.test|/testing)\\.ts$' },
      to: {
        pathNot: [
          '^src/core/',
          '^node_modules/(@types/)?(yup|papaparse|dxf-parser|highs|ical\\.js|@tarikjabiri/dxf)/',
        ],
      },
    },
    only('units', ['units']),
    only('job', ['units', 'job']),
    only('plan', ['units', 'job', 'plan', 'code/tables']),
    only('code/tables', ['units', 'job', 'code/tables']),
    only('loads', ['units', 'job', 'code/tables', 'loads']),
    only('circuits', ['units', 'job', 'plan', 'code/tables', 'circuits']),
    only('panel', ['units', 'job', 'plan', 'code/tables', 'loads', 'circuits', 'panel']),
    only('code', ['units', 'job', 'plan', 'loads', 'circuits', 'panel', 'code']),
    only('planner', ['units', 'job', 'plan', 'circuits', 'panel', 'code', 'planner']),
    only('network', ['units', 'job', 'circuits', 'network']),
    only('instruments', ['circuits', 'job', 'network', 'instruments']),
    only('layout', ['units', 'job', 'plan', 'code', 'layout']),
    only('records', ['units', 'job', 'plan', 'circuits', 'code', 'network', 'instruments', 'records']),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.js', '.svelte'] },
  },
};
