import type { Server } from 'node:http';
import type { Duplex } from 'node:stream';
import pino from 'pino';
import { openDatabase } from '../db/connection.ts';
import { DatabaseProblem } from '../db/problem.ts';
import { Keys } from '../db/keys.ts';
import { People } from '../db/people.ts';
import { Traffic } from '../db/traffic.ts';
import { WorkingCopies } from '../db/working-copies.ts';
import { Delivery } from '../delivery/deliver.ts';
import { calendarDay } from '@/core/time/zone.ts';
import { changeInWords, comingChanges } from '../queries/coming.ts';
import { SiteView } from '../queries/site-view.ts';
import { MediaUploads } from '../uploads/media-uploads.ts';
import { Uploads } from '../uploads/uploads.ts';
import { startAuth } from './auth.ts';
import { BuilderHandler } from './builder-handler.ts';
import { setContainer } from './container.ts';
import { type DataFolder, dataFolder } from './data-folder.ts';
import { BringIns } from './bring-ins.ts';
import { FolderLoads } from './folder-loads.ts';
import { HttpServer } from './http-server.ts';
import { Presence } from './presence.ts';
import { ReaderThread } from './reader-thread.ts';
import { Saver } from './save-thread.ts';
import { LongWrites } from './long-writes.ts';
import { noteServing, noteStopped } from './serving-note.ts';
import { type ServerSettings, WrongSetting, readSettings } from './settings.ts';
import { WriterThread } from './writer-thread.ts';

/** Requests at hand are let finish for so long, ms. */
const DRAIN_MS = 10_000;
/** Whatever happens, the process is gone by then, ms. */
const GONE_MS = 11_500;

async function start(): Promise<void> {
  const settings = readSettings(process.env);
  const log = pino({
    level: settings.logLevel,
    redact: ['req.headers.cookie', 'req.headers.authorization'],
  });
  const data = dataFolder();
  openDatabase(data.database).close(); // says plainly what is wrong with it, before any thread starts
  const [writer, reader, comparer] = await startThreads(data.database);
  const view = new SiteView(openDatabase(data.database, { readonly: true }));
  const desk = deskOf(data.operations, view);
  const auth = startAuth(data, settings.baseUrl, desk.people);
  auth.catch(() => undefined); // told below, and to whoever asks
  const saver = new Saver(data);
  const long = new LongWrites(data.database, writer);
  const shared = { view, writer, reader, comparer, saver, long, auth, ...filesOf(data), ...desk };
  setContainer({ ...shared, baseUrl: settings.baseUrl });
  const makeFile = (path: string, at: number) => reader.ask('publicFile', path, at);
  const delivery = new Delivery(view, data.folder, makeFile, Date.now, desk.traffic);
  const builder = settings.builder ? new BuilderHandler(settings) : null;
  const http = new HttpServer({ settings, view, delivery, builder, log });
  await listen(http.server, settings);
  noteServing(data.folder, settings.baseUrl);
  const threads = [long, reader, comparer, writer, saver];
  const leave = (): void =>
    void stop(http.server, http.sockets, threads).finally(() => {
      desk.traffic.close();
      noteStopped(data.folder);
    });
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, leave);
  process.once('disconnect', leave);
  const link = builder ? await (await auth).signInLink() : null;
  const url = settings.baseUrl;
  process.send?.({ ready: true, url, link, coming: comingInWords(view) });
  if (!process.send) console.log(`Public site  ${url}/\nBuilder      ${link ?? 'off'}`);
  builder?.prepare().then(
    () => process.send?.({ builder: true }),
    (error: unknown) => log.error(error),
  );
}

/** What comes in from browsers, and loads it. */
function filesOf(data: DataFolder) {
  return {
    loads: new FolderLoads(data),
    uploads: new Uploads(data.folder),
    incoming: new MediaUploads(data.folder),
    bringIns: new BringIns(data.folder),
  };
}

/** What is known of people and programs at work, beside the site. */
function deskOf(operations: string, view: SiteView) {
  const zone = (): string => view.at(Date.now())?.site.design.site.zone ?? 'UTC';
  return {
    traffic: new Traffic(operations, (at) => calendarDay(at, zone())),
    copies: new WorkingCopies(operations),
    people: new People(operations),
    keys: new Keys(operations),
    presence: new Presence(),
  };
}

/** The writer, what answers screens, and what compares whole sites. */
function startThreads(database: string): Promise<[WriterThread, ReaderThread, ReaderThread]> {
  return Promise.all([
    WriterThread.start(database),
    ReaderThread.start(database),
    ReaderThread.start(database),
  ]);
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

function listen(server: Server, { port, hostname }: ServerSettings): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, () => {
      server.off('error', reject);
      server.on('error', (error) => console.error(error.message)); // such as no file handles left
      resolve();
    });
  });
}

/**
 * Stops taking requests, lets those at hand finish for 10 s, ends the threads and leaves within
 * 12 s.
 */
async function stop(
  server: Server,
  sockets: Set<Duplex>,
  threads: { stop(within: number): Promise<void> }[],
): Promise<void> {
  setTimeout(() => process.exit(1), GONE_MS).unref();
  for (const socket of sockets) socket.destroy();
  server.closeIdleConnections();
  const closed = new Promise((resolve) => server.close(resolve));
  const drained = Promise.race([
    closed,
    new Promise((resolve) => setTimeout(resolve, DRAIN_MS).unref()),
  ]);
  await Promise.all([drained, ...threads.map((thread) => thread.stop(DRAIN_MS))]);
  server.closeAllConnections();
  setImmediate(() => process.exit(0));
}

start().catch((error: unknown) => {
  const { code } = error as NodeJS.ErrnoException;
  const { PORT: port = '4300', HOST: host = '127.0.0.1' } = process.env;
  if (code === 'EADDRINUSE')
    console.error(
      `Port ${port} is taken by another program.\n    Choose another: PORT=4301 npm run demo`,
    );
  else if (code === 'EACCES' || code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND')
    console.error(
      `The server may not listen at ${host}, port ${port}.\n    Choose another: PORT=4301, or HOST=127.0.0.1`,
    );
  else if (isTold(error)) console.error(`${error.message}\n    ${error.fix}`);
  else console.error(error);
  process.exit(1);
});

/** Whether an error says itself what is wrong and what to do; those of threads come as copies. */
function isTold(error: unknown): error is DatabaseProblem | WrongSetting {
  if (error instanceof DatabaseProblem || error instanceof WrongSetting) return true;
  return error instanceof Error && error.name === 'DatabaseProblem';
}
