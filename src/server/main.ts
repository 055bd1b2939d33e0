import { EventEmitter } from 'node:events';
import { type IncomingMessage, type Server, type ServerResponse, createServer } from 'node:http';
import type { Duplex } from 'node:stream';
import pino from 'pino';
import { startAuth } from './auth.ts';
import { setContainer } from './container.ts';
import { dataFolder } from './data-folder.ts';
import { openDatabase } from './db/connection.ts';
import { DatabaseProblem } from './db/problem.ts';
import { Delivery } from './delivery/deliver.ts';
import { allowedHosts, refuse, scrub } from './origins.ts';
import { changeInWords, comingChanges } from './queries/coming.ts';
import { SiteView } from './queries/site-view.ts';
import { ReaderThread } from './reader-thread.ts';
import { WriterThread } from './writer-thread.ts';

type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;
type Upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer) => Promise<void>;

const DRAIN_MS = 10_000;
const port = Number(process.env.PORT ?? 4300);
const hostname = process.env.HOST ?? '127.0.0.1';
const dev = process.env.BONTEL_DEV === '1';
const baseUrl = process.env.BONTEL_URL ?? `http://${hostname}:${port}`;
const log = pino({
  level: process.env.LOG_LEVEL ?? 'warn',
  redact: ['req.headers.cookie', 'req.headers.authorization'],
});

const BUILDERS_METHODS = new Set(['GET', 'HEAD', 'POST', 'DELETE']);

/** Paths that belong to the builder, and in development to its reloading. */
function isBuilders(path: string): boolean {
  return /^\/(build|api|_next)([/?]|$)/.test(path) || (dev && path.startsWith('/__nextjs'));
}

/** Whether every percent code of an address is UTF-8; the framework answers others with a fault. */
function isDecodable(url: string): boolean {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

async function start(): Promise<void> {
  const data = dataFolder();
  openDatabase(data.database).close(); // says plainly what is wrong with it, before any thread starts
  const [writer, reader] = await Promise.all([
    WriterThread.start(data.database),
    ReaderThread.start(data.database),
  ]);
  const view = new SiteView(openDatabase(data.database, { readonly: true }));
  const auth = startAuth(data, baseUrl);
  setContainer({ view, writer, reader, auth, baseUrl });
  const delivery = new Delivery(view, data.folder, (path, at) =>
    reader.ask('publicFile', path, at),
  );
  const builder = process.env.BONTEL_BUILDER === 'off' ? null : new BuilderHandler();
  const sockets = new Set<Duplex>();
  const server = createServer((request, response) => answer(request, response));
  server.headersTimeout = 20_000;
  server.on('upgrade', (request, socket, head) => {
    sockets.add(socket);
    socket.once('close', () => sockets.delete(socket));
    if (!builder || refuse(request, hosts()) || !isBuilders(request.url ?? '')) socket.destroy();
    else void builder.upgrade(request, socket, head);
  });

  const hosts = (): Set<string> =>
    allowedHosts(
      port,
      view.at(Date.now())?.site.design.site.url ?? null,
      `${new URL(baseUrl).host},${process.env.BONTEL_HOSTS ?? ''}`,
    );
  let known = { at: 0, hosts: hosts() };

  const plain = (
    response: ServerResponse,
    status: number,
    words: string,
    headers: Record<string, string> = {},
  ): void => {
    response
      .writeHead(status, { 'content-type': 'text/plain; charset=utf-8', ...headers })
      .end(`${words}\n`);
  };
  const fail = (response: ServerResponse, error: unknown): void => {
    log.error(error);
    if (response.headersSent) response.end();
    else plain(response, 500, 'The server met a fault of its own; it has been logged.');
  };

  // Not async: a promise for every cached page would cost a tenth of it.
  function answer(request: IncomingMessage, response: ServerResponse): void {
    try {
      if (Date.now() - known.at > 1000) known = { at: Date.now(), hosts: hosts() };
      const refusal = refuse(request, known.hosts);
      if (refusal) return plain(response, refusal.status, refusal.message, { connection: 'close' });
      const done =
        builder && isBuilders(request.url ?? '/')
          ? answerBuilder(builder, request, response)
          : delivery.answer(request, response);
      done?.catch((error: unknown) => fail(response, error));
    } catch (error) {
      fail(response, error);
    }
  }

  function answerBuilder(
    screens: BuilderHandler,
    request: IncomingMessage,
    response: ServerResponse,
  ): void | Promise<void> {
    if (!BUILDERS_METHODS.has(request.method ?? ''))
      return plain(response, 405, 'The builder has no such method.', {
        allow: [...BUILDERS_METHODS].join(', '),
      });
    if (!isDecodable(request.url ?? '/'))
      return plain(response, 400, 'This address has a percent code that is not UTF-8.');
    scrub(request);
    return screens.answer(request, response);
  }

  await listen(server);
  const link = builder ? await (await auth).signInLink() : null;
  process.send?.({ ready: true, url: baseUrl, link, coming: comingInWords(view) });
  if (!process.send) console.log(`Public site  ${baseUrl}/\nBuilder      ${link ?? 'off'}`);
  if (builder) void builder.prepare().then(() => process.send?.({ builder: true }));
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => void stop(server, sockets, [reader, writer]));
  process.once('disconnect', () => void stop(server, sockets, [reader, writer]));
}

/** What changes within the hour, in the site's zone, for whoever started the server. */
function comingInWords(view: SiteView): { at: string; words: string }[] {
  const now = Date.now();
  const site = view.at(now)?.site;
  if (!site) return [];
  const format = new Intl.DateTimeFormat('en-IE', {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone: site.design.site.zone,
  });
  return comingChanges(view, now, now + 3_600_000, 8).map((change) => ({
    at: format.format(change.at),
    words: changeInWords(change),
  }));
}

function listen(server: Server): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, () => resolve());
  });
}

/** Stops taking requests, lets those at hand finish for 10 s, ends the threads and leaves. */
async function stop(
  server: Server,
  sockets: Set<Duplex>,
  threads: [ReaderThread, WriterThread],
): Promise<void> {
  for (const socket of sockets) socket.destroy();
  server.closeIdleConnections();
  const closed = new Promise((resolve) => server.close(resolve));
  await Promise.race([closed, new Promise((resolve) => setTimeout(resolve, DRAIN_MS).unref())]);
  server.closeAllConnections();
  for (const thread of threads) await thread.stop();
  process.exit(0);
}

/** The builder's screens, prepared after the server already answers the public. */
class BuilderHandler {
  private handler: Promise<{ answer: Handler; upgrade: Upgrade }> | null = null;
  private armed!: (value: { answer: Handler; upgrade: Upgrade }) => void;
  private readonly waiting = new Promise<{ answer: Handler; upgrade: Upgrade }>(
    (resolve) => (this.armed = resolve),
  );

  async prepare(): Promise<void> {
    this.handler ??= this.load();
    this.armed(await this.handler);
  }

  async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    await (await this.waiting).answer(request, response);
  }

  async upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): Promise<void> {
    await (await this.waiting).upgrade(request, socket, head);
  }

  private async load(): Promise<{ answer: Handler; upgrade: Upgrade }> {
    const { default: next } = await import('next');
    const app = next({
      dev,
      dir: process.cwd(),
      hostname,
      port,
      httpServer: new EventEmitter() as Server,
    });
    await app.prepare();
    return {
      answer: app.getRequestHandler() as Handler,
      upgrade: (app as unknown as { upgradeHandler: Upgrade }).upgradeHandler,
    };
  }
}

start().catch((error: unknown) => {
  const code = (error as NodeJS.ErrnoException).code;
  if (code === 'EADDRINUSE')
    console.error(
      `Port ${port} is taken by another program.\n    Choose another: PORT=4301 npm run demo`,
    );
  else if (
    error instanceof DatabaseProblem ||
    (error instanceof Error && error.name === 'DatabaseProblem')
  )
    console.error(`${error.message}\n    ${(error as DatabaseProblem).fix ?? ''}`);
  else console.error(error);
  process.exit(1);
});
