import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder, with a slash at its end. */
export const root = fileURLToPath(new URL('../', import.meta.url));

/**
 * Runs a program, showing what it prints; every few seconds of silence a line says that it still
 * works.
 */
export function run(title, command, args, { env = {}, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const started = Date.now();
    console.log(`→ ${title}`);
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    });
    let output = '';
    child.stdout?.on('data', (text) => (output += text));
    child.stderr?.on('data', (text) => (output += text));
    const beat = quiet
      ? setInterval(() => console.log(`  … ${Math.round((Date.now() - started) / 1000)} s`), 15_000)
      : undefined;
    child.once('error', reject);
    child.once('exit', (code) => {
      clearInterval(beat);
      if (code === 0) resolve();
      else
        reject(
          new Error(
            `${title} failed.\n${output.slice(0, 3000)}\n${output.slice(3000).slice(-2000)}`,
          ),
        );
    });
  });
}

const stampFile = (name) => join(root, 'node_modules', `.bontel-${name}`);

/** Whether something made earlier was made from the same text. */
export function isCurrent(name, key) {
  return existsSync(stampFile(name)) && readFileSync(stampFile(name), 'utf8') === key;
}

/** Remembers what something was made from. */
export function stamp(name, key) {
  writeFileSync(stampFile(name), key);
}

/** A fingerprint of files, by name and content; folders count with all below them. */
export function fingerprint(paths) {
  const hash = createHash('sha256');
  for (const path of paths) {
    const full = join(root, path);
    if (!existsSync(full)) continue;
    let names = [''];
    try {
      names = readdirSync(full, { recursive: true, withFileTypes: true })
        .filter((f) => f.isFile())
        .map((f) => join(f.parentPath, f.name).slice(full.length))
        .sort();
    } catch (error) {
      if (error.code !== 'ENOTDIR') throw error;
    }
    for (const name of names)
      hash
        .update(`${path}${name}\0`)
        .update(readFileSync(full + name))
        .update('\0');
  }
  return hash.digest('hex');
}

/** Stops with a plain message. */
export function giveUp(message, fix) {
  console.error(`\n${message}\n    ${fix}`);
  process.exit(1);
}

/**
 * Installs the packages of the lock file, unless they are there, and checks that the SQLite
 * binding loads.
 */
export async function install() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 11))
    giveUp(`Node ${process.versions.node} is too old.`, 'Install Node 20.11 or later.');
  const key = fingerprint(['package-lock.json']) + process.versions.modules;
  if (!isCurrent('lock', key)) {
    await run(
      'Installing packages (a few minutes the first time)',
      'npm',
      ['ci', '--include=dev', '--no-fund', '--no-audit'],
      { quiet: true, env: { npm_config_loglevel: 'warn' } },
    ).catch((error) => {
      const compiler = /node-gyp|gyp ERR/.test(error.message);
      giveUp(
        error.message,
        compiler
          ? 'The SQLite binding is compiled here: install python3, make and g++, then try again.'
          : 'Check that the npm registry can be reached, then try again.',
      );
    });
    stamp('lock', key);
  }
  try {
    const { default: Database } = await import('better-sqlite3');
    new Database(':memory:').close();
  } catch (error) {
    giveUp(
      `The SQLite binding does not load: ${error.message.split('\n')[0]}`,
      'Install python3, make and g++, delete node_modules, and try again.',
    );
  }
}

const SOURCES = [
  'src',
  'package-lock.json',
  'next.config.ts',
  'postcss.config.mjs',
  'tsconfig.json',
  'scripts/build.mjs',
];

/** Builds the program, unless the build there is of the same sources. */
export async function buildOnce() {
  const key = fingerprint(SOURCES);
  if (
    isCurrent('build', key) &&
    existsSync(join(root, 'dist/main.js')) &&
    existsSync(join(root, '.next/BUILD_ID'))
  )
    return;
  await run('Building (about a minute)', process.execPath, ['scripts/build.mjs'], {
    quiet: true,
  }).catch((error) => giveUp(error.message, 'If this is an unchanged checkout, please report it.'));
  stamp('build', key);
}
