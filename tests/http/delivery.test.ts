import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { HtmlValidate } from 'html-validate';
import { bontel, startServer, type RunningServer } from '../helpers/run.ts';
import { writeFiles } from '../helpers/folder.ts';

const folders: string[] = [];
const folder = (): string => {
  const made = mkdtempSync(join(tmpdir(), 'bontel-http-'));
  folders.push(made);
  return made;
};
const data = folder();
let server: RunningServer;

beforeAll(async () => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  server = await startServer(data);
});
afterAll(async () => {
  expect(await server.stop()).toBe(0);
  for (const f of folders) rmSync(f, { recursive: true, force: true });
});

interface Answer {
  status: number;
  headers: Record<string, string | undefined>;
  body: string;
}

/** Sends a path as it is, without the client tidying it. */
function ask(path: string, headers: Record<string, string> = {}, method = 'GET'): Promise<Answer> {
  const { hostname, port } = new URL(server.url);
  return new Promise((resolve, reject) => {
    const sent = request(
      // A connection of its own: one that is kept may just be closed by the server.
      { hostname, port, path, method, headers, setHost: headers.host === undefined, agent: false },
      (response) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () =>
          resolve({
            status: response.statusCode!,
            headers: response.headers as Answer['headers'],
            body: Buffer.concat(chunks).toString(),
          }),
        );
      },
    );
    sent.once('error', reject);
    sent.end();
  });
}

const VARIETY = '/varieties/beans/purple-podded-wren';

describe('public pages', () => {
  test('carry what RFC 9110 and a careful site want', async () => {
    const { status, headers } = await ask(VARIETY);
    expect(status).toBe(200);
    expect(headers).toMatchObject({
      'content-type': 'text/html; charset=utf-8',
      'content-language': 'en-IE',
      'cache-control': 'public, max-age=0, must-revalidate',
      'x-content-type-options': 'nosniff',
      vary: 'accept-encoding',
      etag: expect.stringMatching(/^"[\w-]+"$/),
      'last-modified': expect.stringMatching(/GMT$/),
      'content-security-policy': expect.stringContaining("default-src 'none'"),
    });
  });

  test('answer 304 to their own ETag, which wins over dates; each coding has its own', async () => {
    const plain = await ask(VARIETY);
    const packed = await ask(VARIETY, { 'accept-encoding': 'gzip;q=0.5, br' });
    expect(packed.headers['content-encoding']).toBe('br');
    expect(packed.headers.etag).not.toBe(plain.headers.etag);
    expect((await ask(VARIETY, { 'if-none-match': plain.headers.etag! })).status).toBe(304);
    expect((await ask(VARIETY, { 'if-none-match': `W/${plain.headers.etag}, "x"` })).status).toBe(
      304,
    );
    expect(
      (await ask(VARIETY, { 'if-modified-since': plain.headers['last-modified']! })).status,
    ).toBe(304);
    expect(
      (
        await ask(VARIETY, {
          'if-none-match': '"other"',
          'if-modified-since': plain.headers['last-modified']!,
        })
      ).status,
    ).toBe(200);
    const unchanged = await ask(VARIETY, { 'if-none-match': plain.headers.etag! });
    expect([unchanged.body, unchanged.headers.etag]).toEqual(['', plain.headers.etag]);
  });

  test('HEAD equals GET without its body', async () => {
    const [get, head] = [await ask(VARIETY), await ask(VARIETY, {}, 'HEAD')];
    const { date: _, ...expected } = get.headers;
    const { date: __, ...given } = head.headers;
    expect([head.body, given]).toEqual(['', expected]);
  });

  test('are HTML as html-validate recommends, every one', async () => {
    const validator = new HtmlValidate({ extends: ['html-validate:recommended'] });
    const pages = bontel('pages', '--data', data, '--json').json<{ path: string }[]>();
    const others = [
      '/nothing-here',
      '/%ff',
      '/varieties?family=beans&order=soonest',
      '/search?q=a',
    ];
    for (const path of [...pages.map((p) => p.path), ...others]) {
      const report = await validator.validateString((await ask(path)).body, path);
      expect(
        report.results.flatMap((r) =>
          r.messages.map((m) => `${path}: ${m.ruleId} ${m.message} ${m.line}:${m.column}`),
        ),
      ).toEqual([]);
    }
  });

  test('styles and pictures are served, named by content', async () => {
    const { body } = await ask('/');
    const style = /href="(\/style\/[^"]+)"/.exec(body)![1]!;
    const sheet = await ask(style);
    expect(sheet.headers).toMatchObject({
      'content-type': 'text/css; charset=utf-8',
      'cache-control': 'public, max-age=31536000, immutable',
    });
    const small = await ask(style, { 'accept-encoding': 'br' });
    expect(small.headers).toMatchObject({ 'content-encoding': 'br', vary: 'accept-encoding' });
    expect(Number(small.headers['content-length'])).toBeLessThan(sheet.body.length / 2);
    expect(small.headers['etag']).not.toBe(sheet.headers['etag']);
    const picture = /src="(\/media\/[^"]+)"/.exec(body)![1]!;
    const answer = await ask(picture);
    expect([answer.status, answer.headers['content-type']]).toEqual([200, 'image/webp']);
    const whole = Number(answer.headers['content-length']);
    const range = async (value: string): Promise<unknown[]> => {
      const { status, headers } = await ask(picture, { range: value });
      return [status, headers['content-range'], Number(headers['content-length'])];
    };
    expect(await range('bytes=10-19')).toEqual([206, `bytes 10-19/${whole}`, 10]);
    expect(await range('bytes=-5')).toEqual([206, `bytes ${whole - 5}-${whole - 1}/${whole}`, 5]);
    expect((await range(`bytes=${whole}-`)).slice(0, 2)).toEqual([416, `bytes */${whole}`]);
    expect((await range('bytes=0-1,4-5'))[0]).toBe(200);
    expect((await ask(VARIETY, { range: 'bytes=0-9' })).status).toBe(200);
    expect((await ask(picture.replace(/\d+(?=[^/]*$)/, '161'))).status).toBe(404);
    const file = /\/style\/newsreader-[0-9a-f]{8}\.woff2/.exec(sheet.body)![0];
    const font = await ask(file);
    expect(font.headers['content-type']).toBe('font/woff2');
    expect(font.headers['cache-control']).toBe('public, max-age=31536000, immutable');
    const again = await ask(file, { 'if-none-match': font.headers.etag! });
    expect([again.status, again.body]).toEqual([304, '']);
    expect((await ask('/style/../../package.json')).status).toBe(400);
  });

  test('a page with something for it to do asks for one script, of this site alone', async () => {
    const page = await ask('/varieties');
    expect(page.headers['content-security-policy']).toContain("script-src 'self'");
    const scripts = [...page.body.matchAll(/<script[^>]*src="([^"]*)"/g)].map(([, src]) => src);
    expect(scripts).toEqual(['/style/page.js']);
    const script = await ask('/style/page.js');
    expect(script).toMatchObject({ status: 200 });
    expect(script.headers).toMatchObject({
      'content-type': 'text/javascript; charset=utf-8',
      'cache-control': 'public, max-age=0, must-revalidate',
    });
    expect(script.body.length).toBeLessThan(4096);
    const again = await ask('/style/page.js', { 'if-none-match': script.headers['etag']! });
    expect(again.status).toBe(304);
    expect((await ask('/about-the-library')).body).not.toContain('page.js');
  });

  test('robots.txt and the sitemap name what search engines may visit', async () => {
    expect((await ask('/robots.txt')).body).toContain(
      'Sitemap: https://marrowdale.example/sitemap.xml',
    );
    const map = await ask('/sitemap.xml');
    expect(map.headers['content-type']).toBe('application/xml; charset=utf-8');
    expect(map.body).toContain(`<loc>https://marrowdale.example${VARIETY}</loc>`);
    expect(map.body).not.toContain('unnamed-squash');
  });
});

describe('odd requests', () => {
  test.each([
    ['/..%2f..%2fetc/passwd', 400],
    ['/a/../../b', 400],
    ['/%00', 400],
    ['/%c3%28', 400],
    ['/%', 400],
    ['/\\windows', 400],
    [`/${'a'.repeat(8000)}`, 400],
    ['/?a=/../..', 200],
    ['//', 308],
    ['/nothing', 404],
    ['/media/zzz/1', 404],
    ['/_nextish', 404],
    ['/.well-known/anything', 404],
  ])('%s answers %i, never 500, never a stack', async (path, status) => {
    const answer = await ask(path);
    expect(answer.status).toBe(status);
    expect(answer.body).not.toMatch(/\bat .*\.(ts|js):\d+/);
  });

  test('unknown methods, hosts and origins are refused', async () => {
    const own = { origin: server.url };
    expect((await ask('/', own, 'POST')).status).toBe(405);
    expect((await ask('/', own, 'PROPFIND')).status).toBe(405);
    expect((await ask('/', {}, 'POST')).status).toBe(403);
    expect((await ask('/', { origin: 'https://elsewhere.example' }, 'DELETE')).status).toBe(403);
    expect((await ask('/', { host: 'elsewhere.example' })).status).toBe(421);
  });
});

test('what another process loads is seen at once', async () => {
  const other = folder();
  const files = {
    'site.yaml': 'name: Before\nurl: https://x.example\nzone: UTC\nlanguage: en\n',
    'types/n.yaml': 'key: n\nfields: [{ key: title, kind: text }]\n',
  };
  const site = writeFiles(folder(), files);
  bontel('load', site, '--data', other);
  const second = await startServer(other);
  try {
    expect(await (await fetch(second.url)).text()).toContain('<title>Before</title>');
    bontel(
      'load',
      writeFiles(site, { 'site.yaml': files['site.yaml'].replace('Before', 'After') }),
      '--data',
      other,
    );
    expect(await (await fetch(second.url)).text()).toContain('<title>After</title>');
  } finally {
    await second.stop();
  }
});
