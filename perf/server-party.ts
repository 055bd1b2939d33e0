// One of the two servers compared; tells its own CPU time when asked.
import { createServer } from 'node:http';
import { join } from 'node:path';
import { openDatabase } from '@/server/db/connection.ts';
import { Delivery } from '@/server/delivery/deliver.ts';
import { allowedHosts, denyOrigin } from '@/server/process/origins.ts';
import { SiteView } from '@/server/queries/site-view.ts';

type Start = { port: number } & (
  { kind: 'delivery'; data: string } | { kind: 'memory'; body: string; headers: string[] }
);

process.on('message', (message: Start | 'cpu') => {
  if (message === 'cpu') {
    const { user, system } = process.cpuUsage();
    process.send!((user + system) / 1e6);
    return;
  }
  const server = message.kind === 'delivery' ? delivery(message) : memory(message);
  server.listen(message.port, '127.0.0.1', () => process.send!('ready'));
});

/** As main.ts answers public requests: host check, then delivery. */
function delivery({ data, port }: Extract<Start, { kind: 'delivery' }>) {
  const view = new SiteView(openDatabase(join(data, 'site.db'), { readonly: true }));
  const shop = new Delivery(view, data, (path, at) => Promise.resolve(view.render(path, at)));
  const hosts = allowedHosts(port, null, undefined);
  return createServer((request, response) => {
    const denial = denyOrigin(request, hosts);
    if (denial) response.writeHead(denial.status).end();
    else shop.answer(request, response)?.catch(() => response.end());
  });
}

function memory({ body, headers }: Extract<Start, { kind: 'memory' }>) {
  const bytes = Buffer.from(body);
  return createServer((_, response) => {
    response.writeHead(200, headers);
    response.end(bytes);
  });
}
