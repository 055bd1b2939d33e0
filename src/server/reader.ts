import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from './db/connection.ts';
import { QUERIES, type QueryName } from './queries/index.ts';
import { SiteView } from './queries/site-view.ts';
import type { FromThread, ToThread } from './worker-thread.ts';

/** A query for the reader thread, with what it takes after the view. */
export interface ReaderQuestion {
  name: QueryName;
  input: unknown[];
}

/** What came out, or that the query failed. */
export type ReaderAnswer = { value: unknown } | { failed: string };

const { database } = workerData as { database: string };
const port = parentPort!;
const connection = openDatabase(database, { readonly: true });
const view = new SiteView(connection);

port.on('message', (message: ToThread<ReaderQuestion>) => {
  if (message === 'stop') {
    connection.close();
    port.close();
    return;
  }
  port.postMessage({
    id: message.id,
    answer: answer(message.question),
  } satisfies FromThread<ReaderAnswer>);
});
port.postMessage({ ready: true } satisfies FromThread<ReaderAnswer>);

function answer({ name, input }: ReaderQuestion): ReaderAnswer {
  try {
    const query = QUERIES[name] as (v: SiteView, ...rest: unknown[]) => unknown;
    return { value: query(view, ...input) };
  } catch (error) {
    return { failed: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}
