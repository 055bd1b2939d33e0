import { defineConfig } from 'vitest/config';
import { fileURLToPath } from 'node:url';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    setupFiles: ['tests/helpers/properties.ts'],
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    // Nothing here is about speed: a machine may stand still for a while.
    testTimeout: 600_000,
    hookTimeout: 240_000,
    maxWorkers: 2,
    pool: 'forks',
  },
});
