// Builds the server and the command line with esbuild, and the builder's screens with Next.
import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { build } from 'esbuild';
import { bundle, copyMigrations, pageScript } from './bundle.mjs';
import { root } from './shared.mjs';

const only = process.argv[2];
if (only !== 'screens') {
  await build(bundle('dist'));
  await build(pageScript('dist'));
  copyMigrations('dist');
}
if (only !== 'server') {
  const next = createRequire(import.meta.url).resolve('next/dist/bin/next');
  const { status } = spawnSync(process.execPath, [next, 'build'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  process.exit(status ?? 1);
}
