// Asks a server steadily over a few connections for some seconds, and tells the latencies.
import { Agent, get } from 'node:http';

type Order = { port: number; seconds: number; paths: string[] };

const CONNECTIONS = 8;
const PAUSE_MS = 8;

process.on('message', async ({ port, seconds, paths }: Order) => {
  const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });
  const until = Date.now() + seconds * 1000;
  const latencies: number[] = [];
  const ask = (path: string): Promise<void> =>
    new Promise((resolve, reject) => {
      const from = process.hrtime.bigint();
      get({ host: '127.0.0.1', port, path, agent }, (response) => {
        if (response.statusCode! >= 400)
          return reject(new Error(`${path} answered ${response.statusCode}`));
        response.resume().once('end', () => {
          latencies.push(Number(process.hrtime.bigint() - from) / 1e6);
          resolve();
        });
      }).once('error', reject);
    });
  const one = async (first: number): Promise<void> => {
    for (let i = first; Date.now() < until; i++) {
      await ask(paths[i % paths.length]!);
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, (_, i) => one(i)));
  agent.destroy();
  process.send!(latencies.sort((a, b) => a - b));
});
