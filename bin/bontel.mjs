#!/usr/bin/env node
// The built command where there is one; else the sources, through tsx.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
const built = at('../dist/cli.js');
const args = existsSync(built)
  ? ['--enable-source-maps', built]
  : ['--import', 'tsx', at('../src/cli/main.ts')];
const { status } = spawnSync(process.execPath, [...args, ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exit(status ?? 1);
