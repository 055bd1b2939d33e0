// Who may import whom. `docs/architecture.md` draws it.
const CORE = [
  'time',
  'pattern',
  'style',
  'design',
  'publication',
  'address',
  'listing',
  'content',
  'timing',
  'template',
  'metadata',
  'site',
  'design-edit',
  'outline',
  'intake',
  'forecast',
];
const shared =
  'src/core/(issue|text|rich-text/[a-z-]+|link|did-you-mean|fingerprint|little-by-little)\\.ts$';

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

/** What each folder of the server may import of the others; processes stand above them all. */
const SERVER = {
  db: [],
  files: [],
  store: ['db'],
  queries: ['db', 'store'],
  commands: ['db', 'store', 'files'],
  delivery: ['db', 'store', 'queries'],
  saving: ['db', 'store', 'files'],
  planning: ['db', 'store', 'commands'],
};
const layers = Object.entries(SERVER).map(([folder, below]) => ({
  name: `server-${folder}-imports-only-what-is-below`,
  severity: 'error',
  from: { path: `^src/server/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^src/server/',
    pathNot: ['^src/server/permit\\.ts$', ...[folder, ...below].map((f) => `^src/server/${f}/`)],
  },
}));

module.exports = {
  forbidden: [
    {
      name: 'no-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^(mdast|hast)$' },
    },
    {
      name: 'no-circular-imports',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^src/core/',
          'node_modules/(temporal-polyfill|zod|any-ascii|shiki|@shikijs|diff|htmlparser2|postcss)/',
        ],
      },
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
      name: 'page-script-stands-alone',
      severity: 'error',
      from: { path: '^src/page/' },
      to: { pathNot: '^src/page/' },
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
      from: { path: '^src/', pathNot: ['^src/server/(db/|process/auth\\.ts$)', '\\.test\\.ts$'] },
      to: { path: 'node_modules/better-sqlite3/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'only-the-server-s-data-side-writes-queries',
      severity: 'error',
      from: {
        path: '^src/',
        pathNot: ['^src/server/(db|store|commands|queries)/', '\\.test\\.ts$'],
      },
      to: { path: 'node_modules/drizzle-orm/', dependencyTypesNot: ['type-only'] },
    },
    ...layers,
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
