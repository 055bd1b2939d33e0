// Builds the server and the command line with esbuild, and the builder's screens with Next.
import { cpSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { build } from 'esbuild';
import { root } from './shared.mjs';

const only = process.argv[2];
if (only !== 'screens') {
  rmSync(`${root}dist`, { recursive: true, force: true });
  await build({
    absWorkingDir: root,
    entryPoints: { main: 'src/server/main.ts', writer: 'src/server/writer.ts', cli: 'src/cli/main.ts' },
    outdir: 'dist',
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  });
  cpSync(`${root}src/server/db/migrations`, `${root}dist/migrations`, { recursive: true });
}
if (only !== 'server') {
  const next = createRequire(import.meta.url).resolve('next/dist/bin/next');
  const { status } = spawnSync(process.execPath, [next, 'build'], { cwd: root, stdio: 'inherit', env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' } });
  process.exit(status ?? 1);
}
