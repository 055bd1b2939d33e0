import { connect } from 'node:net';

/**
 * Sends `total` requests over `connections` kept-alive connections to 127.0.0.1, one at a time
 * each; resolves when all are answered.
 */
export function load(
  port: number,
  path: string,
  connections: number,
  total: number,
): Promise<void> {
  let sent = 0;
  const request = Buffer.from(`GET ${path} HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`);
  const one = (): Promise<void> =>
    new Promise((resolve, reject) => {
      const socket = connect(port, '127.0.0.1');
      let wanted = -1;
      let got = 0;
      const next = (): void => {
        if (sent >= total) return void socket.end();
        sent++;
        wanted = -1;
        got = 0;
        socket.write(request);
      };
      socket.on('connect', next);
      socket.on('data', (chunk: Buffer) => {
        got += chunk.length;
        if (wanted < 0) {
          const head = chunk.indexOf('\r\n\r\n');
          const length = /content-length: (\d+)/i.exec(chunk.toString('latin1', 0, head))?.[1];
          if (!chunk.toString('latin1', 0, 12).endsWith('200'))
            return reject(new Error(chunk.toString('latin1', 0, 100)));
          wanted = head + 4 + Number(length);
        }
        if (got >= wanted) next();
      });
      socket.on('close', () => resolve());
      socket.on('error', reject);
    });
  return Promise.all(Array.from({ length: connections }, one)).then(() => undefined);
}
