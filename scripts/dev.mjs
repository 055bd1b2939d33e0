// npm run dev: the same process from sources; screens reload hot, server and core edits restart it.
import { spawn } from 'node:child_process';
import { createRequire } from 'node:module';
import { install, root } from './shared.mjs';

await install();
const tsx = createRequire(import.meta.url).resolve('tsx/cli');
const child = spawn(process.execPath, [tsx, 'watch', '--clear-screen=false', '--exclude', '.next/**', '--exclude', 'src/app/**', '--exclude', 'src/ui/**', 'src/server/main.ts'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, BONTEL_DEV: '1', NEXT_TELEMETRY_DISABLED: '1' },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.once('exit', (code) => process.exit(code ?? 0));
