import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';
import jsdoc from 'eslint-plugin-jsdoc';

/** Files whose classes implement an interface. */
const IMPLEMENTING = [
  'src/core/site/page-scope.ts',
  'src/core/template/tree-compiler.ts',
  'src/server/store/overlay-reader.ts',
  'src/server/store/site-reader.ts',
  'src/server/store/timeline-source.ts',
];

/** Which exports need a doc comment. */
function documented({ methods }) {
  return {
    publicOnly: { esm: true },
    enableFixer: false,
    checkConstructors: false,
    require: {
      FunctionDeclaration: true,
      ClassDeclaration: true,
      MethodDefinition: methods,
    },
    contexts: ['TSInterfaceDeclaration', 'TSTypeAliasDeclaration', 'VariableDeclaration'],
  };
}

const config = [
  {
    ignores: [
      '.next/**',
      'dist/**',
      '.dev/**',
      'perf/.cache/**',
      'node_modules/**',
      'next-env.d.ts',
      'data/**',
      'demo/site/**',
      'tests/fixtures/**',
      '**/*.cjs',
      'src/server/db/migrations/**',
    ],
  },
  ...next,
  ...typescript,
  {
    rules: {
      'max-lines': ['error', { max: 400 }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error', 'log'] }],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      'react-hooks/set-state-in-effect': 'off',
    },
  },
  {
    files: ['src/core/**', 'src/server/**', 'src/ui/primitives/**'],
    // A pattern function says itself what it does, in its own `doc`.
    ignores: ['**/*.test.ts', '**/*.d.ts', 'src/core/pattern/functions/*.ts'],
    plugins: { jsdoc },
    rules: { 'jsdoc/require-jsdoc': ['error', documented({ methods: true })] },
  },
  {
    // What a method of an interface does, the interface says.
    files: IMPLEMENTING,
    rules: { 'jsdoc/require-jsdoc': ['error', documented({ methods: false })] },
  },
  {
    files: ['src/{core,server,cli}/**/*.ts', 'perf/**', 'demo/**', 'scripts/**'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 40 }] },
  },
  {
    // Of a component half is markup, one element a line.
    files: ['src/ui/**/*.{ts,tsx}', 'src/app/**'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 75 }] },
  },
  {
    files: ['src/core/**'],
    rules: {
      'no-restricted-globals': ['error', 'Date.now', 'process', 'setTimeout'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core takes its instant as an argument.' },
        { object: 'Math', property: 'random', message: 'The core is deterministic.' },
      ],
    },
  },
];

export default config;
