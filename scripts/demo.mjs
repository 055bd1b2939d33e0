// npm run demo: install, build, load the demo site, serve it. `-- --fresh` starts over, `-- --empty`
// begins with no site at all.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { fork } from 'node:child_process';
import { join, resolve } from 'node:path';
import { buildOnce, giveUp, install, root, run } from './shared.mjs';

const fresh = process.argv.includes('--fresh');
const empty = process.argv.includes('--empty');
const unknown = process.argv.slice(2).find((arg) => arg !== '--fresh' && arg !== '--empty');
if (unknown)
  giveUp(
    `npm run demo does not know "${unknown}".`,
    'It takes two options: npm run demo -- --fresh --empty',
  );
const data = resolve(root, process.env.BONTEL_DATA ?? 'data');
const port = process.env.PORT ?? '4300';

if (fresh) refuseWhileServed();
await install();
await buildOnce();
if (fresh)
  for (const name of ['site.db', 'site.db-wal', 'site.db-shm', 'media', 'sizes'])
    rmSync(join(data, name), { recursive: true, force: true });
if (!empty && !existsSync(join(data, 'site.db'))) {
  await run(
    'Loading the demo site',
    process.execPath,
    ['--enable-source-maps', 'dist/cli.js', 'load', 'demo/site', '--data', data],
    {},
  ).catch(() => giveUp('The demo site could not be loaded.', 'The lines above say why.'));
}

const server = fork('dist/main.js', {
  cwd: root,
  execArgv: ['--enable-source-maps'],
  env: {
    ...process.env,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    BONTEL_DATA: data,
    PORT: port,
  },
});
server.on('message', (message) => {
  if (!message.ready) return;
  console.log(
    `\n  Public site   ${message.url}/\n  Builder       ${message.link ?? 'off'}\n                (this link signs you in once, within 15 minutes)\n`,
  );
  console.log('  Coming up:');
  for (const { at, words } of message.coming) console.log(`    ${at}  ${words}`);
  if (message.coming.length === 0) console.log('    nothing is planned for the next hour');
  console.log('\n  Ctrl C stops the server; the data stay.\n');
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'));
server.once('exit', (code) => process.exit(code ?? 1));

/** What is deleted under a running server is lost for whoever works there. */
function refuseWhileServed() {
  try {
    const { pid, url } = JSON.parse(readFileSync(join(data, 'serving.json'), 'utf8'));
    process.kill(pid, 0); // throws where the process is gone and its note was left behind
    giveUp(
      `A server (process ${pid}) works with ${data} at ${url}.`,
      'Stop it first, or name another data folder: BONTEL_DATA=other npm run demo',
    );
  } catch (error) {
    if (error.code !== 'ENOENT' && error.code !== 'ESRCH') throw error;
  }
}
