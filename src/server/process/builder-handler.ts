import { EventEmitter } from 'node:events';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import type { ServerSettings } from './settings.ts';

type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;
type Upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer) => Promise<void>;
interface Prepared {
  answer: Handler;
  upgrade: Upgrade;
}

/** The builder's screens, prepared after the server already answers the public. */
export class BuilderHandler {
  private armed!: (value: Prepared) => void;
  private failed!: (error: unknown) => void;
  private readonly prepared = new Promise<Prepared>((resolve, reject) => {
    this.armed = resolve;
    this.failed = reject;
  });

  constructor(private readonly settings: ServerSettings) {
    this.prepared.catch(() => undefined); // told to whoever asks
  }

  /** Loads the application framework. @throws where it cannot be loaded */
  async prepare(): Promise<void> {
    try {
      this.armed(await this.load());
    } catch (error) {
      this.failed(error);
      throw error;
    }
  }

  /** Answers a request for a screen, once the screens are there. */
  async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { answer } = await this.prepared;
    await answer(request, response);
  }

  /**
   * Passes a socket on that wants to be told when screens are to be drawn anew; in development
   * only.
   */
  async upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): Promise<void> {
    const { upgrade } = await this.prepared;
    if (!socket.destroyed) await upgrade(request, socket, head);
  }

  private async load(): Promise<Prepared> {
    const { dev, hostname, port } = this.settings;
    const { default: next } = await import('next');
    const httpServer = new EventEmitter() as Server;
    const app = next({ dev, dir: process.cwd(), hostname, port, httpServer });
    await app.prepare();
    return {
      answer: app.getRequestHandler() as Handler,
      upgrade: (app as unknown as { upgradeHandler: Upgrade }).upgradeHandler,
    };
  }
}
