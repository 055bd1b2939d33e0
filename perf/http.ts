import assert from 'node:assert/strict';
import { type ChildProcess, fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { type PerfRow, median, row } from './measure.ts';
import { load } from './load-client.ts';

const CONNECTIONS = 16;
const REQUESTS = 6_000;
const ROUNDS = 9;
const PATH = '/varieties/beans/purple-podded-wren';

/** A measured server. */
export interface Party {
  port: number;
  process: ChildProcess;
}

/**
 * A cached public page against node:http answering the same bytes from memory, in CPU time of the
 * serving process.
 */
export async function measureHttp(data: string): Promise<PerfRow> {
  const ours = await start(4391, { kind: 'delivery', data });
  const answer = await fetch(`http://127.0.0.1:${ours.port}${PATH}`, {
    headers: { 'accept-encoding': 'identity' },
  });
  const body = await answer.text();
  const headers = [...answer.headers]
    .filter(([name]) => !['date', 'connection', 'keep-alive'].includes(name))
    .flat();
  const peer = await start(4392, { kind: 'memory', body, headers });
  try {
    assert.equal(await (await fetch(`http://127.0.0.1:${peer.port}${PATH}`)).text(), body);
    const times: { ours: number[]; peer: number[] } = { ours: [], peer: [] };
    for (let round = 0; round <= ROUNDS; round++) {
      for (const name of round % 2 === 0
        ? (['ours', 'peer'] as const)
        : (['peer', 'ours'] as const)) {
        const party = name === 'ours' ? ours : peer;
        const before = await cpu(party);
        await load(party.port, PATH, CONNECTIONS, REQUESTS);
        if (round > 0) times[name].push((await cpu(party)) - before);
      }
    }
    return row(
      'cached public page at 16 connections, against node:http from memory (requests a CPU second)',
      median(times.peer) / median(times.ours),
      '≥',
      0.8,
    );
  } finally {
    ours.process.kill();
    peer.process.kill();
  }
}

/** Starts one of the servers compared. */
export function start(port: number, options: object): Promise<Party> {
  const child = fork(fileURLToPath(new URL('./server-party.ts', import.meta.url)), [], {
    execArgv: ['--import', 'tsx'],
  });
  child.send({ port, ...options });
  return new Promise((resolve, reject) => {
    child.once('message', () => resolve({ port, process: child }));
    child.once('exit', (code) => reject(new Error(`A measured server ended with ${code}.`)));
  });
}

function cpu({ process: child }: Party): Promise<number> {
  child.send('cpu');
  return new Promise((resolve) => child.once('message', (seconds) => resolve(seconds as number)));
}
