import { cpSync, rmSync } from 'node:fs';
import { root } from './shared.mjs';

/**
 * How the server, its threads and the command line are bundled.
 * @returns {import('esbuild').BuildOptions}
 */
export function bundle(outdir) {
  rmSync(`${root}${outdir}`, { recursive: true, force: true });
  return {
    absWorkingDir: root,
    entryPoints: {
      main: 'src/server/process/main.ts',
      writer: 'src/server/process/writer.ts',
      reader: 'src/server/process/reader.ts',
      planner: 'src/server/process/planner.ts',
      saver: 'src/server/process/saver.ts',
      stager: 'src/server/process/stager.ts',
      cli: 'src/cli/main.ts',
    },
    outdir,
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  };
}

/** How the script of public pages is bundled, which stands beside the server. */
export function pageScript(outdir) {
  return {
    absWorkingDir: root,
    entryPoints: { page: 'src/page/page.ts' },
    outdir,
    bundle: true,
    minify: true,
    platform: 'browser',
    target: 'es2022',
    format: 'esm',
    logLevel: 'warning',
  };
}

/** The database's migrations stand beside the bundle. */
export function copyMigrations(outdir) {
  cpSync(`${root}src/server/db/migrations`, `${root}${outdir}/migrations`, { recursive: true });
}
