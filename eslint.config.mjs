import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';

const config = [
  {
    ignores: [
      '.next/**',
      'dist/**',
      '.dev/**',
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
