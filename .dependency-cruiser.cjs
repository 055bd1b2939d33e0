// Who may import whom. `docs/architecture.md` draws it.
const CORE = [
  'time',
  'pattern',
  'design',
  'publication',
  'address',
  'listing',
  'template',
  'metadata',
  'site',
  'design-edit',
  'forecast',
];
const shared = 'src/core/(issue|text|rich-text|link|did-you-mean|fingerprint)\\.ts$';

/** Each core folder imports only those before it. */
const order = CORE.map((folder, i) => ({
  name: `core-${folder}-imports-only-what-comes-before`,
  severity: 'error',
  from: { path: `^src/core/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^src/core/',
    pathNot: [shared, ...CORE.slice(0, i + 1).map((f) => `^src/core/${f}/`)],
  },
}));

module.exports = {
  forbidden: [
    {
      name: 'no-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^mdast$' },
    },
    {
      name: 'no-circular-imports',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/core/', 'node_modules/(temporal-polyfill|zod|any-ascii)/'] },
    },
    {
      name: 'core-knows-no-machine',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'nothing-imports-app',
      severity: 'error',
      from: { pathNot: '^src/app/' },
      to: { path: '^src/app/' },
    },
    {
      name: 'ui-gets-data-as-props',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(server|app|cli)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'server-knows-no-screens',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(ui|app|cli)/' },
    },
    {
      name: 'only-db-imports-the-driver',
      severity: 'error',
      from: { pathNot: ['^src/server/(db/|auth\\.ts)', '\\.test\\.ts$', '^(tests|perf|scripts)/'] },
      to: { path: 'node_modules/(better-sqlite3|drizzle-orm)/', dependencyTypesNot: ['type-only'] },
    },
    ...order,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.cjs', '.json', '.css'],
    },
    exclude: { path: '^(\\.next|dist)/' },
  },
};
