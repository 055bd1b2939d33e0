import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'esbuild';
import { bundle, copyMigrations } from '../scripts/bundle.mjs';
import type { PerfRow } from './measure.ts';

/** The rows that pages.ts prints, bundled as the server is into `perf/.cache`. */
export async function measureBundled(root: string): Promise<PerfRow[]> {
  const outdir = 'perf/.cache/bundle';
  await build({ ...bundle(outdir), entryPoints: { pages: 'perf/pages.ts' } });
  copyMigrations(outdir);
  const demo = join(root, 'demo/site');
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join(root, outdir, 'pages.js'), demo],
    { encoding: 'utf8' },
  );
  if (status !== 0) throw new Error(stderr);
  return JSON.parse(stdout) as PerfRow[];
}
