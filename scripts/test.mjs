// npm test: installs what it needs, runs every check, and closes with one line: N passed, N failed.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { buildOnce, giveUp, install, root } from './shared.mjs';

const started = Date.now();
let passed = 0;
let failed = 0;
/** What failed by name, said once more at the end, where it is looked for. */
const failures = [];
const bin = (name) => join(root, 'node_modules/.bin', name);

/** Runs a whole-tree check; it counts as one. `refuses`: what it must find, where it is to fail. */
async function check(title, command, args, refuses = null) {
  const from = Date.now();
  const { status, output } = await outcomeOf(command, args);
  const good = refuses === null ? status === 0 : status > 0 && refuses.test(output);
  console.log(`${good ? 'ok  ' : 'FAIL'} ${title} (${((Date.now() - from) / 1000).toFixed(1)} s)`);
  if (good) passed++;
  else {
    failed++;
    failures.push(title);
    console.log(output.trim().slice(-8000));
  }
}

/** What a command printed, and how it ended; others can run beside it. */
function outcomeOf(command, args) {
  const env = { ...process.env, NODE_ENV: undefined };
  const child = spawn(command, args, { cwd: root, env, stdio: ['ignore', 'pipe', 'pipe'] });
  let output = '';
  for (const stream of [child.stdout, child.stderr])
    stream.setEncoding('utf8').on('data', (text) => (output += text));
  return new Promise((resolve) => {
    child.on('error', (error) => resolve({ status: 1, output: String(error) }));
    child.on('close', (status) => resolve({ status, output }));
  });
}

/** Runs a set of tests; each test counts. What is not done after `minutes` is ended, and failed. */
async function tests(title, minutes, ...filters) {
  const report = join(tmpdir(), `bontel-tests-${process.pid}.json`);
  const from = Date.now();
  rmSync(report, { force: true });
  const reporters = ['dot', './scripts/watch-tests.mjs', 'json'].map(
    (name) => `--reporter=${name}`,
  );
  const child = spawn(
    bin('vitest'),
    ['run', ...filters, ...reporters, `--outputFile.json=${report}`],
    { cwd: root, stdio: 'inherit', detached: true, env: { ...process.env, NODE_ENV: 'test' } },
  );
  const status = await endOf(child, minutes);
  if (!existsSync(report)) {
    failed++;
    failures.push(`${title}: the tests did not run to their end within ${minutes} minutes`);
    return;
  }
  const { numPassedTests, numFailedTests, numFailedTestSuites, success, testResults } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  failures.push(...testResults.flatMap(failuresIn));
  passed += numPassedTests;
  failed +=
    numFailedTests +
    (numFailedTests === 0 && (!success || numFailedTestSuites > 0 || status !== 0) ? 1 : 0);
  console.log(
    `${success ? 'ok  ' : 'FAIL'} ${title}: ${numPassedTests} passed, ${numFailedTests} failed (${((Date.now() - from) / 1000).toFixed(1)} s)`,
  );
}

/** The tests of a file that failed, or the file where it failed as a whole. */
function failuresIn({ name, status, assertionResults }) {
  const file = relative(root, name);
  const found = assertionResults.filter((test) => test.status === 'failed');
  if (found.length === 0 && status === 'failed') return [file];
  return found.map(({ fullName }) => `${file}: ${fullName}`);
}

/** How a process ended that was started as the head of its own group; the group with it. */
function endOf(child, minutes) {
  const end = () => {
    try {
      process.kill(-child.pid, 'SIGKILL');
    } catch {
      // It has ended already.
    }
  };
  const limit = setTimeout(end, minutes * 60_000);
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.once(signal, () => {
      end();
      process.exit(1);
    });
  return new Promise((resolve) => {
    child.on('error', () => resolve(1));
    child.on('exit', (status) => {
      clearTimeout(limit);
      end();
      resolve(status ?? 1);
    });
  });
}

/** The browser the screens are tested in, from Debian's packages where it is missing. */
function ensureBrowser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  if (process.getuid?.() !== 0 || spawnSync('apt-get', ['--version']).status !== 0)
    giveUp(
      'Chromium and its driver are missing.',
      'Install them so that /usr/bin/chromium and /usr/bin/chromedriver exist (Debian: apt-get install chromium chromium-driver).',
    );
  console.log('→ Installing Chromium');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const args of [
    ['update', '-q'],
    [
      'install',
      '-qy',
      '--no-install-recommends',
      'chromium',
      'chromium-driver',
      'fonts-dejavu-core',
    ],
  ]) {
    const { status, stderr } = spawnSync('apt-get', args, { encoding: 'utf8', env });
    if (status !== 0)
      giveUp(
        `apt-get ${args[0]} failed: ${stderr.slice(-500)}`,
        'Install chromium and chromium-driver by hand.',
      );
  }
}

await install();
ensureBrowser();
const violation = 'tests/fixtures/violation';
await Promise.all([
  (async () => {
    await check('types', bin('tsc'), ['--noEmit', '-p', 'tsconfig.check.json']);
    await check('formatting', bin('prettier'), ['--check', '.']);
  })(),
  (async () => {
    await check('lint', bin('eslint'), ['.', '--max-warnings=0']);
    await check('import rules', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'src']);
    await check(
      'import rules report a violation',
      bin('depcruise'),
      ['--config', `${violation}/rules.cjs`, `${violation}/src`],
      /error core-time-imports-only-what-comes-before/,
    );
    await check('dead code', bin('knip'), ['--no-progress']);
  })(),
]);
await buildOnce();
await tests(
  'core, store, command line and HTTP',
  50,
  'src',
  'tests/store',
  'tests/cli',
  'tests/http',
);
await tests('browser', 30, 'tests/browser');
console.log(`\n${Math.round((Date.now() - started) / 1000)} s in all`);
for (const failure of failures) console.log(`FAIL ${failure}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
