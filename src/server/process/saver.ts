import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../db/connection.ts';
import type { Actor } from '../permit.ts';
import { savedFiles } from '../saving/saved-files.ts';
import { zipOf } from '../saving/to-zip.ts';
import type { DataFolder } from './data-folder.ts';
import type { FromSaver } from './save-thread.ts';

/** A snapshot is held for so long while nobody reads on, ms. */
const PATIENCE_MS = 60_000;

const { data, actor } = workerData as { data: DataFolder; actor: Actor };
const connection = openDatabase(data.database, { readonly: true });
connection.driver.exec('BEGIN');
const port = parentPort!;
const say = (message: FromSaver): void => port.postMessage(message);
const chunks = zipOf(savedFiles(connection, data.folder, actor))[Symbol.asyncIterator]();
const end = (): void => {
  connection.close();
  port.close();
};
let idle = setTimeout(end, PATIENCE_MS);

port.on('message', async () => {
  clearTimeout(idle);
  try {
    const next = await chunks.next();
    say(next.done ? { done: true } : { chunk: next.value as Uint8Array });
    if (next.done) end();
    else idle = setTimeout(end, PATIENCE_MS);
  } catch (error) {
    say({ failed: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    end();
  }
});
