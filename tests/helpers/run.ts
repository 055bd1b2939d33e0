import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));
const CLI = ['--enable-source-maps', `${root}dist/cli.js`];

/** What a command printed and how it ended. */
export interface Ran {
  code: number | null;
  out: string;
  err: string;
  json: <T>() => T;
}

/** Runs `bontel`, built. */
export function bontel(...args: string[]): Ran {
  const { status, stdout, stderr } = spawnSync(process.execPath, [...CLI, ...args], {
    cwd: root,
    encoding: 'utf8',
  });
  return { code: status, out: stdout, err: stderr, json: <T>() => JSON.parse(stdout) as T };
}

/** Runs `bontel` with so many MB of memory for what it holds at once. */
export function bontelInMemory(megabytes: number, ...args: string[]): Ran {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [`--max-old-space-size=${megabytes}`, ...CLI, ...args],
    { cwd: root, encoding: 'utf8' },
  );
  return { code: status, out: stdout, err: stderr, json: <T>() => JSON.parse(stdout) as T };
}

/** Runs `bontel` where no file may grow above so many kB, as on a full disk. */
export function bontelOnFullDisk(kilobytes: number, ...args: string[]): Ran {
  const { status, stdout, stderr } = spawnSync(
    'bash',
    ['-c', `ulimit -f ${kilobytes}; exec "$@"`, 'bash', process.execPath, ...CLI, ...args],
    { cwd: root, encoding: 'utf8' },
  );
  return { code: status, out: stdout, err: stderr, json: <T>() => JSON.parse(stdout) as T };
}

/** Starts `bontel` and leaves it running. */
export function startBontel(...args: string[]): ChildProcess {
  return spawn(process.execPath, [...CLI, ...args], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** Starts the built server with settings that it cannot use; what it prints as it ends. */
export function serverWith(env: Record<string, string>): Ran {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--enable-source-maps', `${root}dist/main.js`],
    {
      cwd: root,
      encoding: 'utf8',
      timeout: 20_000,
      env: { ...process.env, BONTEL_BUILDER: 'off', ...env, NODE_ENV: 'production' },
    },
  );
  return { code: status, out: stdout, err: stderr, json: <T>() => JSON.parse(stdout) as T };
}

/** A port nobody listens on. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** A running server, its sign-in link where it has a builder. */
export interface RunningServer {
  url: string;
  link: string | null;
  process: ChildProcess;
  stop: () => Promise<number | null>;
}

/** Starts the built server on a free port, and waits until it answers; it ends with `stop`. */
export async function startServer(
  data: string,
  { builder = false, port }: { builder?: boolean; port?: number } = {},
): Promise<RunningServer> {
  port ??= await freePort();
  const args = ['--enable-source-maps', `${root}dist/main.js`];
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    PORT: String(port),
    BONTEL_DATA: data,
    BONTEL_BUILDER: builder ? 'on' : 'off',
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    BONTEL_DEV: '',
  };
  const child = spawn(process.execPath, args, {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let output = '';
  const link = await new Promise<string | null>((resolve, reject) => {
    const read = (text: Buffer): void => {
      output += text.toString();
      const printed = /Builder\s+(\S+)/.exec(output)?.[1];
      if (printed !== undefined) resolve(printed.startsWith('http') ? printed : null);
    };
    child.stdout!.on('data', read);
    child.stderr!.on('data', read);
    child.once('exit', () => reject(new Error(`The server did not start:\n${output}`)));
  });
  const gone = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const stop = async (): Promise<number | null> => {
    child.kill('SIGTERM');
    return gone;
  };
  return { url: `http://127.0.0.1:${port}`, link, process: child, stop };
}
