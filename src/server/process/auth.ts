import { randomBytes } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import type { DataFolder } from './data-folder.ts';
import { type Account, OWNER, type People, addressOf, personAt } from '../db/people.ts';
import type { Actor } from '../permit.ts';

/** Sign-in for the builder: one-time links, sessions, sign-out. */
export interface Auth {
  /** A one-time sign-in link for somebody, good for 15 minutes; its token stands in the fragment. */
  signInLink(person?: Pick<Account, 'id' | 'name'>): Promise<string>;
  /** Exchanges a token for a session: a response with its cookie, or a refusal. */
  consume(token: string, ip: string): Promise<Response>;
  signOut(headers: Headers): Promise<Response>;
  /** Who a request's cookie belongs to; null for a visitor. */
  actor(headers: Headers): Promise<Actor | null>;
}

const LINK_SECONDS = 900;

/** Loads the sign-in library and its database; called once, after the server listens. */
export async function startAuth(
  data: DataFolder,
  baseUrl: string,
  people: Pick<People, 'find'>,
): Promise<Auth> {
  const issued: string[] = [];
  const auth = await loadLibrary(data, baseUrl, issued);
  return {
    async signInLink({ id, name } = { id: OWNER, name: 'Builder' }) {
      await auth.api.signInMagicLink({
        body: { email: addressOf(id), name },
        headers: new Headers(),
      });
      return `${baseUrl}/build/sign-in#${issued.pop()}`;
    },
    async consume(token, ip) {
      const url = `${baseUrl}/api/auth/magic-link/verify?token=${encodeURIComponent(token)}`;
      return sessionOf(await auth.handler(new Request(url, { headers: { 'x-bontel-ip': ip } })));
    },
    async signOut(headers) {
      const { headers: answer } = await auth.api.signOut({ headers, returnHeaders: true });
      const cookies = [...answer.entries()].filter(([name]) => name === 'set-cookie');
      return Response.json({ ok: true }, { headers: new Headers(cookies) });
    },
    async actor(headers) {
      const session = await auth.api.getSession({ headers });
      if (!session) return null;
      return people.find(personAt(session.user.email));
    },
  };
}

/** The library over its own database; tokens of links are put to `issued`. */
async function loadLibrary(data: DataFolder, baseUrl: string, issued: string[]) {
  const [{ betterAuth }, { magicLink }, { getMigrations }, { default: Database }] =
    await Promise.all([
      import('better-auth'),
      import('better-auth/plugins'),
      import('better-auth/db/migration'),
      import('better-sqlite3'),
    ]);
  const secret = secretOf(data);
  ownFile(data.operations);
  const database = new Database(data.operations, { timeout: 5000 });
  database.pragma('journal_mode = WAL');
  const options = {
    appName: 'Bontel',
    baseURL: baseUrl,
    basePath: '/api/auth',
    secret,
    database,
    telemetry: { enabled: false },
    // Tokens cannot be guessed; a limit on tries would only let a guesser lock the owner out.
    rateLimit: { enabled: false },
    trustedOrigins: [baseUrl],
    advanced: { ipAddress: { ipAddressHeaders: ['x-bontel-ip'] }, cookiePrefix: 'bontel' },
    plugins: [
      magicLink({
        expiresIn: LINK_SECONDS,
        storeToken: 'hashed' as const,
        sendMagicLink: ({ token }: { token: string }) => void issued.push(token),
      }),
    ],
  };
  await twice(async () => (await getMigrations(options)).runMigrations());
  return betterAuth(options);
}

/** The session that the library gives for a link, or why there is none. */
function sessionOf({ headers: given, status }: Response): Response {
  const cookies = given.getSetCookie();
  if (cookies.length === 0 || status >= 400 || given.get('location')?.includes('error=')) {
    const message = 'This link was used already or is older than 15 minutes.';
    return Response.json({ message }, { status: 401 });
  }
  const headers = new Headers();
  for (const cookie of cookies) headers.append('set-cookie', cookie);
  return Response.json({ ok: true }, { headers });
}

/** A random secret made at first start, readable by its owner only. */
function secretOf({ folder, operations }: DataFolder): string {
  const file = join(folder, 'secret');
  mkdirSync(dirname(operations), { recursive: true });
  if (!existsSync(file))
    try {
      writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error; // another start made it
    }
  chmodSync(file, 0o600);
  return readFileSync(file, 'utf8').trim();
}

/**
 * Makes a file, where it is not there, that only its owner may read; SQLite's files beside it
 * follow.
 */
function ownFile(file: string): void {
  closeSync(openSync(file, 'a', 0o600));
  for (const name of [file, `${file}-wal`, `${file}-shm`])
    if (existsSync(name)) chmodSync(name, 0o600);
}

/** Tries once more after a moment: two processes may make the tables at once. */
async function twice(run: () => Promise<unknown>): Promise<void> {
  try {
    await run();
  } catch {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    await run();
  }
}
