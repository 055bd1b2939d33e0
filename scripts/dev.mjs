// npm run dev: the same process; screens reload hot, and edits of the server or the core restart
// it.
import { fork } from 'node:child_process';
import { install, root } from './shared.mjs';

await install();
const [{ build, context }, { bundle, copyMigrations, pageScript }] = await Promise.all([
  import('esbuild'),
  import('./bundle.mjs'),
]);
const OUT = '.dev';
let server;
let stopping = false;
/** Restarts one after the other, the next one for all edits that came in between. */
let restarting = Promise.resolve();
let wanted = false;

/** Ends the running server, if any, and starts it from the newest bundle. */
async function restart() {
  if (server && server.exitCode === null) {
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    await gone;
  }
  if (stopping) return;
  server = fork(`${OUT}/main.js`, {
    cwd: root,
    execArgv: ['--enable-source-maps'],
    env: { ...process.env, BONTEL_DEV: '1', NEXT_TELEMETRY_DISABLED: '1' },
  });
  server.on(
    'message',
    (message) =>
      message.ready && console.log(`Public site  ${message.url}/\nBuilder      ${message.link}`),
  );
}

const plugin = {
  name: 'restart',
  setup(build) {
    build.onEnd(({ errors }) => {
      if (errors.length > 0) return;
      copyMigrations(OUT);
      if (wanted) return;
      wanted = true;
      restarting = restarting.then(() => {
        wanted = false;
        return restart();
      });
    });
  },
};
const watcher = await context({ ...bundle(OUT), plugins: [plugin] });
await watcher.watch();
await build(pageScript(OUT));
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, async () => {
    stopping = true;
    await watcher.dispose();
    if (server?.exitCode === null) server.kill('SIGTERM');
    else process.exit(0);
    server?.once('exit', () => process.exit(0));
  });
}
