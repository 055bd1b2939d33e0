import { type IncomingMessage, type Server, type ServerResponse, createServer } from 'node:http';
import type { Duplex } from 'node:stream';
import type { Logger } from 'pino';
import type { Delivery } from '../delivery/deliver.ts';
import { plain } from '../delivery/answer.ts';
import type { SiteView } from '../queries/site-view.ts';
import type { BuilderHandler } from './builder-handler.ts';
import { denyBuilder } from './limits.ts';
import { allowedHosts, denyOrigin, scrub } from './origins.ts';
import { protect } from './builder-policy.ts';
import type { ServerSettings } from './settings.ts';

/** What the server passes requests on to. */
interface Parts {
  settings: ServerSettings;
  view: SiteView;
  delivery: Delivery;
  /** Null where only the public site is served. */
  builder: BuilderHandler | null;
  log: Logger;
}

const HOSTS_MS = 1000;
/** How long a connection stays open between requests: longer than proxies keep theirs, ms. */
const KEPT_OPEN_MS = 65_000;

/** The one place where requests come in: who may ask what, then delivery or the builder. */
export class HttpServer {
  readonly server: Server;
  /** Sockets that were taken over from HTTP. */
  readonly sockets = new Set<Duplex>();
  private known = { at: 0, hosts: new Set<string>() };

  constructor(private readonly parts: Parts) {
    this.server = createServer((request, response) => this.answer(request, response));
    this.server.headersTimeout = 20_000;
    this.server.keepAliveTimeout = KEPT_OPEN_MS;
    this.server.on('upgrade', (request, socket, head) => this.upgrade(request, socket, head));
    this.server.on('clientError', (_, socket) => {
      if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n');
      else socket.destroy();
    });
  }

  // Not async: a promise for every cached page would cost a tenth of it.
  private answer(request: IncomingMessage, response: ServerResponse): void {
    try {
      const denial = denyOrigin(request, this.hosts());
      if (denial) return plain(response, denial.status, denial.message, { connection: 'close' });
      const { builder, delivery } = this.parts;
      const done =
        builder && this.isBuilders(request.url ?? '/')
          ? this.answerBuilder(builder, request, response)
          : delivery.answer(request, response);
      done?.catch((error: unknown) => this.fail(response, error));
    } catch (error) {
      this.fail(response, error);
    }
  }

  private answerBuilder(
    builder: BuilderHandler,
    request: IncomingMessage,
    response: ServerResponse,
  ): void | Promise<void> {
    const denial = denyBuilder(request);
    if (denial)
      return plain(response, denial.status, denial.message, {
        connection: 'close',
        ...denial.headers,
      });
    scrub(request);
    protect(request, response, this.parts.settings.dev);
    return builder.answer(request, response);
  }

  /** Only the framework's own sockets, in development, are taken over; all others end. */
  private upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): void {
    socket.on('error', () => socket.destroy()); // one that is reset must not end the process
    this.sockets.add(socket);
    socket.once('close', () => this.sockets.delete(socket));
    const { builder, settings, log } = this.parts;
    const path = request.url ?? '';
    const isFrameworks = settings.dev && /^\/(_next|__nextjs)/.test(path);
    if (!builder || !isFrameworks || denyOrigin(request, this.hosts())) socket.destroy();
    else
      builder.upgrade(request, socket, head).catch((error: unknown) => {
        log.error(error);
        socket.destroy();
      });
  }

  /** Paths that belong to the builder, and in development to its reloading. */
  private isBuilders(path: string): boolean {
    return (
      /^\/(build|api|_next)([/?]|$)/.test(path) ||
      (this.parts.settings.dev && path.startsWith('/__nextjs'))
    );
  }

  private hosts(): Set<string> {
    const now = Date.now();
    if (now - this.known.at <= HOSTS_MS) return this.known.hosts;
    const { settings, view } = this.parts;
    const site = view.at(now)?.site.design.site.url ?? null;
    const more = `${new URL(settings.baseUrl).host},${settings.hosts}`;
    this.known = { at: now, hosts: allowedHosts(settings.port, site, more) };
    return this.known.hosts;
  }

  private fail(response: ServerResponse, error: unknown): void {
    this.parts.log.error(error);
    if (response.headersSent) return void response.end();
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EMFILE' || code === 'ENFILE')
      return plain(response, 503, 'The server has no file handles left; try again in a moment.', {
        'retry-after': '2',
      });
    plain(response, 500, 'The server met a fault of its own; it has been logged.');
  }
}
